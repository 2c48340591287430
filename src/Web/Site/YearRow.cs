using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Drawing;

namespace UnrulyMeadow.Web.Site;

/// <summary>One planter's rule on the Year page.</summary>
/// <param name="Season">The year that is drawn.</param>
/// <param name="Planned">The year that it is set against; null for none.</param>
/// <param name="Scale">The days.</param>
/// <param name="Seen">What the crew saw.</param>
/// <param name="Displays">The planter's displays.</param>
/// <param name="Units">Units.</param>
public sealed record YearRow(
    PlanterSeason Season,
    PlanterSeason? Planned,
    YearScale Scale,
    IReadOnlyList<Observation> Seen,
    IReadOnlyList<Display> Displays,
    UnitsText Units
)
{
    /// <summary>From this day on the ends of displays can be moved by hand; null where the rule is only looked at.</summary>
    public LocalDate? MovableFrom { get; init; }

    /// <summary>How many other planters have the same year, and are folded into this rule.</summary>
    public int Alike => AlikeIds.Count;

    /// <summary>The planters that it stands for besides its own.</summary>
    public IReadOnlyList<string> AlikeIds { get; init; } = [];

    /// <summary>Days in colour more than planned; negative for fewer, null where nothing is compared.</summary>
    public int? Change => Planned is null ? null : Season.DaysInColour - Planned.DaysInColour;

    /// <summary>Share of years in colour by day as one digit a day, tenths rounded; "x" stands for all.</summary>
    public string Odds => string.Create(Season.Days, Season, (chars, s) =>
        {
            for (int d = 0; d < chars.Length; d++)
            {
                int tenths = (int)MathF.Round(s.ShareInColour[d] * 10);
                chars[d] = tenths >= 10 ? 'x' : (char)('0' + tenths);
            }
        });
}

/// <summary>An area's planters on the Year page.</summary>
/// <param name="Id">The area; empty for all together.</param>
/// <param name="Heading">Its name.</param>
/// <param name="All">All its planters' years.</param>
/// <param name="Rows">Those that are shown at once.</param>
public sealed record YearGroup(string Id, string Heading, IReadOnlyList<PlanterSeason> All, IReadOnlyList<YearRow> Rows)
{
    /// <summary>Planters that are folded away.</summary>
    public int Folded => All.Count - Rows.Count;
}
