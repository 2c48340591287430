using NodaTime;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Season;

/// <summary>A planter's plan year over all weather years: what shows on each day, with odds, and where it is bare.</summary>
public sealed class PlanterSeason
{
    /// <summary>Plain green leaf of any kind counts at most this much (common practice).</summary>
    public const double MostGreen = 0.10;

    /// <summary>Weight of plain green leaf (common practice).</summary>
    public const double GreenWeight = 0.25;

    private PlanterSeason(Planter planter, LocalDate start, int days)
    {
        Planter = planter;
        Start = start;
        ShareInColour = new float[days];
        Cover10 = new float[days];
        Cover50 = new float[days];
        Cover90 = new float[days];
        Green = new float[days];
        DeciduousLeaf = new float[days];
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>Days in the plan year.</summary>
    public int Days => ShareInColour.Length;

    /// <summary>Weather years behind the odds.</summary>
    public int Years { get; private init; }

    /// <summary>Share of years in colour, by day.</summary>
    public float[] ShareInColour { get; }

    /// <summary>Weighted cover by day that 9 of 10 years exceed.</summary>
    public float[] Cover10 { get; }

    /// <summary>Median weighted cover by day.</summary>
    public float[] Cover50 { get; }

    /// <summary>Weighted cover by day that 1 of 10 years exceeds.</summary>
    public float[] Cover90 { get; }

    /// <summary>Mean cover of plain green leaf by day, before weighting.</summary>
    public float[] Green { get; }

    /// <summary>Share of years in which deciduous plants are in leaf, by day.</summary>
    public float[] DeciduousLeaf { get; }

    /// <summary>What shows, in order of planting.</summary>
    public IReadOnlyList<ColourBand> Bands { get; private init; } = [];

    /// <summary>Bare spells in order.</summary>
    public IReadOnlyList<BareSpell> BareSpells { get; private set; } = [];

    /// <summary>Days on which at least half the years show colour.</summary>
    public int DaysInColour => ShareInColour.Count(s => s >= 0.5f);

    /// <summary>The threshold of weighted cover that counts as in colour.</summary>
    public double CoverThreshold { get; private init; }

    /// <summary>The index of a day; may lie outside the year.</summary>
    public int IndexOf(LocalDate day) => Period.DaysBetween(Start, day);

    /// <summary>The arithmetic behind one bare spell.</summary>
    public Working Explain(BareSpell spell)
    {
        int from = IndexOf(spell.FirstDay);
        float best = Cover50[from..(from + spell.Days)].Max();
        return new Working(
            $"{Planter.Name}: bare spell",
            $"{spell.Days} days, bare in {spell.YearsBare} of {spell.Years} years",
            [
                new("days", $"{spell.FirstDay.ToString("d MMM uuuu", null)} to {spell.LastDay.ToString("d MMM uuuu", null)}"),
                new("threshold", $"{CoverThreshold:P0} of the surface, weighted"),
                new("best median cover inside it", $"{best:P0}"),
                new("best cover in 1 year of 10", $"{Cover90[from..(from + spell.Days)].Max():P0}"),
            ],
            "Seven or more days in a row on each of which fewer than half the weather years reach the threshold; a year counts as bare when it has seven bare days in a row inside",
            "Common practice; flowering by thermal time, see each plant",
            []);
    }

    /// <summary>Computes a planter's year.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="seasons">Weather years, all laid over the same plan year.</param>
    /// <param name="start">First day of the plan year.</param>
    public static PlanterSeason From(Plan plan, Planter planter, IReadOnlyList<GrowingSeason> seasons, LocalDate start)
    {
        LocalDate end = start.PlusMonths(12);
        int days = Period.DaysBetween(start, end);
        IReadOnlyList<PlantedItem> standing = Standing(plan, planter, seasons, start, end);
        var bands = standing
            .SelectMany(s => s.Plant.Windows.Select(w => new ColourBand(s.Display.Id, s.Plant, w, new float[days])))
            .ToList();
        var season = new PlanterSeason(planter, start, days) { Bands = bands, Years = seasons.Count, CoverThreshold = plan.Site.CoverThreshold };
        if (seasons.Count == 0)
            return season;
        double pocket = plan.AreaOf(planter).FrostPocketC;
        var byYear = new float[seasons.Count][];
        for (int y = 0; y < seasons.Count; y++)
            byYear[y] = WeatherYearCover.Add(season, standing, seasons[y], pocket);
        for (int i = 0; i < bands.Count; i++)
            Scale(bands[i].MeanCover, 1f / seasons.Count);
        Scale(season.Green, 1f / seasons.Count);
        Scale(season.DeciduousLeaf, 1f / seasons.Count);
        season.TakeOdds(byYear);
        return season;
    }

    /// <summary>The arithmetic behind a day's figure and the count of days in colour.</summary>
    public Working Explain()
    {
        int worst = BareSpells.Count == 0 ? 0 : BareSpells.Max(b => b.Days);
        return new Working(
            $"{Planter.Name}: days in colour",
            $"{DaysInColour} of {Days}",
            [
                new("surface", $"{Planter.Form.SurfaceCm2 / 10_000:0.00} m²"),
                new("weather years", $"{Years}"),
                new("threshold", $"{CoverThreshold:P0} of the surface"),
                new("weights", "flower 1; coloured leaf, stem, berry 0.6; green leaf 0.25, at most 0.10 in all"),
            ],
            "A day counts when at least half the weather years show weighted cover at or above the threshold; a bare spell is 7 or more days in a row that do not",
            "Common practice; flowering by thermal time, see each plant",
            [
                .. Bands.Where(b => b.Peak > 0.005).Select(b => $"{b.Plant.CommonName}, {b.Window.Part.ToString().ToLowerInvariant()}: up to {b.Peak:P0} of the surface. {b.Window.Rule.Describe()}."),
                BareSpells.Count == 0 ? "No bare spell." : $"{BareSpells.Count} bare spells, the longest {worst} days.",
            ]);
    }

    private static List<PlantedItem> Standing(
        Plan plan, Planter planter, IReadOnlyList<GrowingSeason> seasons, LocalDate start, LocalDate end)
    {
        if (seasons.Count == 0)
            return [];
        bool inColour = plan.Site.RulesFor(planter).Stage == StageSchool.InColour;
        return [.. plan.DisplaysOf(planter.Id)
            .Where(d => d.Install < end && d.Lift > start)
            .SelectMany(d => d.Layer == DisplayLayer.Bulbs
                ? BulbStack.Depths(planter, plan.Site, plan.BulbsOf(d)).Select(b => new PlantedItem(d, b.Plant, b.Count, planter.PlaceAt(b.DepthCm), false))
                : d.Items.Select(i => new PlantedItem(d, plan.Plant(i.PlantId), i.Count, Ground.BulbPlace.UsualBed, inColour)))];
    }

    private static void Scale(float[] values, float by)
    {
        for (int i = 0; i < values.Length; i++)
            values[i] *= by;
    }

    private void TakeOdds(float[][] byYear)
    {
        float threshold = (float)CoverThreshold;
        var column = new float[byYear.Length];
        for (int d = 0; d < Days; d++)
        {
            int inColour = 0;
            for (int y = 0; y < byYear.Length; y++)
            {
                column[y] = byYear[y][d];
                inColour += column[y] >= threshold ? 1 : 0;
            }
            Array.Sort(column);
            ShareInColour[d] = (float)inColour / byYear.Length;
            Cover10[d] = Rank(column, 0.1);
            Cover50[d] = Rank(column, 0.5);
            Cover90[d] = Rank(column, 0.9);
        }
        var spells = new List<BareSpell>();
        for (int d = 0; d < Days;)
        {
            int end = d;
            while (end < Days && ShareInColour[end] < 0.5f)
                end++;
            if (end - d >= BareSpell.ShortestDays)
            {
                int bare = byYear.Count(y => LongestBelow(y, d, end, threshold) >= BareSpell.ShortestDays);
                spells.Add(new BareSpell(Start.PlusDays(d), Start.PlusDays(end - 1), bare, byYear.Length));
            }
            d = Math.Max(end, d + 1);
        }
        BareSpells = spells;
    }

    private static float Rank(float[] sorted, double q)
    {
        double at = q * (sorted.Length - 1);
        int low = (int)at;
        int high = Math.Min(sorted.Length - 1, low + 1);
        return (float)(sorted[low] + ((sorted[high] - sorted[low]) * (at - low)));
    }

    private static int LongestBelow(float[] cover, int from, int to, float threshold)
    {
        int longest = 0;
        int run = 0;
        for (int d = from; d < to; d++)
        {
            run = cover[d] < threshold ? run + 1 : 0;
            longest = Math.Max(longest, run);
        }
        return longest;
    }
}
