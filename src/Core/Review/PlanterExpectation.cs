using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Review;

/// <summary>What is expected of a planter on a day, over all weather years: held beside what is seen.</summary>
/// <param name="Odds">Odds that it is in colour, 0 to 1.</param>
/// <param name="CoverLow">Cover by colour that nine years of ten surpass, share of the surface.</param>
/// <param name="CoverHigh">Cover by colour that one year of ten surpasses.</param>
/// <param name="Colours">What shows, with its mean cover, the most first.</param>
public sealed record PlanterExpectation(double Odds, double CoverLow, double CoverHigh, IReadOnlyList<(Plant Plant, double Cover)> Colours)
{
    // A kind that hides less than this is not looked for.
    private const double Seen = 0.01;

    /// <summary>Reads a planter's season; null for a day that it does not hold.</summary>
    public static PlanterExpectation? Of(PlanterSeason season, LocalDate day)
    {
        int at = season.IndexOf(day);
        if (at < 0 || at >= season.Days)
            return null;
        return new PlanterExpectation(
            season.ShareInColour[at],
            season.Cover10[at],
            season.Cover90[at],
            [
                .. season
                    .Bands.Where(b => at < b.MeanCover.Length && b.MeanCover[at] >= Seen)
                    .GroupBy(b => b.Plant.Id)
                    .Select(g => (g.First().Plant, Cover: g.Sum(b => (double)b.MeanCover[at])))
                    .OrderByDescending(c => c.Cover),
            ]
        );
    }
}
