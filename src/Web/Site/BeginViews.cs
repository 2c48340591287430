namespace UnrulyMeadow.Web.Site;

/// <summary>The form in which a place is chosen whose climate the site's is like.</summary>
/// <param name="Like">As typed.</param>
/// <param name="Units">Units typed in.</param>
public sealed record LikeClimateView(LikeInput Like, UnitsText Units);

/// <summary>The form in which it is said what is wanted of a year.</summary>
/// <param name="Money">The site's money.</param>
/// <param name="Turns">How often the crew turns; null for the usual.</param>
/// <param name="Budget">What it may cost.</param>
/// <param name="Bare">How many bare days in a row are put up with; null for the usual.</param>
/// <param name="Colours">Colour words that are ticked.</param>
/// <param name="Institution">Whether the institution's colours are ticked; null where it has none.</param>
public sealed record WishView(
    string Money,
    string? Turns = null,
    string? Budget = null,
    string? Bare = null,
    IReadOnlyList<string>? Colours = null,
    bool? Institution = null
)
{
    public IReadOnlyList<string> Colours { get; } = Colours ?? [];
}
