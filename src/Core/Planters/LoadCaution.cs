namespace UnrulyMeadow.Core.Planters;

/// <summary>What is to be minded with a heavy planter.</summary>
public enum LoadCaution
{
    /// <summary>One person can lift it.</summary>
    OneCanLift,

    /// <summary>It takes two when soaked.</summary>
    TwoCanLift,

    /// <summary>Soaked it is too heavy for two.</summary>
    TooHeavySoaked,

    /// <summary>It is never lifted by hand.</summary>
    NeverByHand,

    /// <summary>It hangs, and what holds it bears its soaked weight.</summary>
    Hook,

    /// <summary>Nobody has said what the deck under it bears.</summary>
    DeckUnknown,

    /// <summary>It is heavier than the deck may bear.</summary>
    DeckOverloaded,

    /// <summary>It is within the limit given for the deck.</summary>
    DeckWithinLimit,
}
