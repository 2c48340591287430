namespace UnrulyMeadow.Core.Sequencing;

/// <summary>Why a planter takes fewer kinds than the scheme wants.</summary>
public enum FewerKindsReason
{
    /// <summary>No kind fits or flowers.</summary>
    NoneFits,

    /// <summary>A third of spring has run out.</summary>
    AThirdIsGone,

    /// <summary>Too few are left.</summary>
    TooFewLeft,
}
