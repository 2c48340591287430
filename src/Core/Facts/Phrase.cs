namespace UnrulyMeadow.Core.Facts;

/// <summary>Small things said in many places. The words stand in the Wording project.</summary>
public enum Phrase
{
    /// <summary>Whom to ask about what harms.</summary>
    WhereToAsk,

    /// <summary>So many of a kind.</summary>
    CountOf,

    /// <summary>It may return from its roots, with the odds.</summary>
    MayReturn,
}
