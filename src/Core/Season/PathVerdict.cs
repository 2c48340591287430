namespace UnrulyMeadow.Core.Season;

/// <summary>How the two sides of a path go together.</summary>
public enum PathVerdict
{
    /// <summary>Planted on one side.</summary>
    OneSideOnly,

    /// <summary>Alike in weight.</summary>
    Balanced,

    /// <summary>The right shows less.</summary>
    RightWeaker,

    /// <summary>The left shows less.</summary>
    LeftWeaker,
}
