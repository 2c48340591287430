namespace UnrulyMeadow.Core.Season;

/// <summary>What counts as colour: where every page, proposal and total takes it from.</summary>
public static class ColourOdds
{
    /// <summary>A day is in colour when at least this share of the weather years shows colour on it: more often than not.</summary>
    public const float InColour = 0.5f;

    /// <summary>
    /// A plant shows a colour from this share of its best on (common practice: what has a third of its flowers open is seen as in flower).
    /// </summary>
    public const double Shows = 1.0 / 3;
}
