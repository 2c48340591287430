using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>One plant's colour through a plan year at a site, over all weather years.</summary>
public sealed class FloweringStrip
{
    private const int ShortestGap = 7;

    private FloweringStrip(Plant plant, LocalDate start, LocalDate install, int days, int years)
    {
        Plant = plant;
        Start = start;
        Install = install;
        Years = years;
        Odds = new float[days];
        ByWindow = [.. plant.Windows.Select(_ => new float[days])];
    }

    /// <summary>The plant.</summary>
    public Plant Plant { get; }

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>The day it goes in.</summary>
    public LocalDate Install { get; }

    /// <summary>Weather years behind it.</summary>
    public int Years { get; }

    /// <summary>Share of years in which any of its colours shows, by day.</summary>
    public float[] Odds { get; }

    /// <summary>Mean share of each window's own best, by day.</summary>
    public IReadOnlyList<float[]> ByWindow { get; }

    /// <summary>What it takes in memory, bytes.</summary>
    public long Bytes => sizeof(float) * ((long)Odds.Length + ByWindow.Sum(w => w.Length));

    /// <summary>First and last day on which at least half the years show colour; null when there is none.</summary>
    public (LocalDate First, LocalDate Last)? Usual
    {
        get
        {
            int first = Array.FindIndex(Odds, o => o >= ColourOdds.InColour);
            return first < 0 ? null : (Start.PlusDays(first), Start.PlusDays(Array.FindLastIndex(Odds, o => o >= ColourOdds.InColour)));
        }
    }

    /// <summary>Spells in which at least half the years show colour, in order; gaps of a few days are passed over.</summary>
    public IReadOnlyList<(LocalDate First, LocalDate Last)> Spells
    {
        get
        {
            var spells = new List<(LocalDate First, LocalDate Last)>();
            for (int d = 0; d < Odds.Length; d++)
            {
                if (Odds[d] < ColourOdds.InColour)
                    continue;
                LocalDate day = Start.PlusDays(d);
                if (spells.Count > 0 && Period.DaysBetween(spells[^1].Last, day) <= ShortestGap)
                    spells[^1] = (spells[^1].First, day);
                else
                    spells.Add((day, day));
            }
            return spells;
        }
    }

    /// <summary>Days on which at least half the years show colour.</summary>
    public int DaysInColour => Odds.Count(o => o >= ColourOdds.InColour);

    /// <summary>Mean odds over a span of days, 0 where the year does not hold it.</summary>
    public double OddsOver(LocalDate first, LocalDate last)
    {
        int from = Math.Max(0, Period.DaysBetween(Start, first));
        int to = Math.Min(Odds.Length - 1, Period.DaysBetween(Start, last));
        double sum = 0;
        for (int d = from; d <= to; d++)
            sum += Odds[d];
        return to < from ? 0 : sum / (to - from + 1);
    }

    /// <summary>The strongest colours over a span, as they show: colour and its mean share of the plant.</summary>
    public IReadOnlyList<(string Colour, double Share)> ColoursOver(LocalDate first, LocalDate last)
    {
        int from = Math.Max(0, Period.DaysBetween(Start, first));
        int to = Math.Min(Odds.Length - 1, Period.DaysBetween(Start, last));
        var colours = new List<(string, double)>();
        for (int w = 0; w < ByWindow.Count && to >= from; w++)
        {
            double mean = 0;
            for (int d = from; d <= to; d++)
                mean += ByWindow[w][d];
            mean *= Plant.Windows[w].Share / (to - from + 1);
            if (mean > 0.01)
                colours.AddRange(Plant.Windows[w].Colours.Select((c, i) => (c, mean / (i + 1))));
        }
        return [.. colours.OrderByDescending(c => c.Item2)];
    }

    /// <summary>Counts a plant's colour.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="seasons">Weather years laid over the plan year.</param>
    /// <param name="start">First day of the plan year.</param>
    /// <param name="install">The day it goes in; before the run for what is established.</param>
    /// <param name="place">Where its bulb lies; any place for what is no bulb.</param>
    /// <param name="frostPocketC">How much colder than the station its leaves are, °C.</param>
    public static FloweringStrip From(
        Plant plant,
        IReadOnlyList<GrowingSeason> seasons,
        LocalDate start,
        LocalDate install,
        BulbPlace place,
        double frostPocketC
    )
    {
        int days = Period.DaysBetween(start, start.PlusMonths(12));
        var strip = new FloweringStrip(plant, start, install, days, seasons.Count);
        if (seasons.Count == 0)
            return strip;
        var best = new double[days];
        foreach (GrowingSeason season in seasons)
        {
            int offset = season.Run.IndexOf(start);
            var growing = new Growing(season, plant, install, start.PlusMonths(12).PlusDays(1), place, frostPocketC);
            var share = new double[season.Length];
            Array.Clear(best);
            for (int w = 0; w < plant.Windows.Count; w++)
            {
                Array.Clear(share);
                plant.Windows[w].Rule.WriteShares(share, growing);
                for (int d = 0; d < days; d++)
                {
                    strip.ByWindow[w][d] += (float)share[offset + d];
                    best[d] = Math.Max(best[d], share[offset + d]);
                }
            }
            for (int d = 0; d < days; d++)
                strip.Odds[d] += best[d] >= ColourOdds.Shows ? 1 : 0;
        }
        foreach (float[] values in strip.ByWindow.Append(strip.Odds))
        {
            for (int d = 0; d < days; d++)
                values[d] /= seasons.Count;
        }
        if (plant.Windows.Where(w => !w.Rule.FollowsTheCrew).Select(w => w.SpreadDays).DefaultIfEmpty(0).Max() is > 0 and var spread)
            Soften(strip.Odds, spread);
        return strip;
    }

    /// <summary>The arithmetic behind the strip.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PlantDaysInColour,
            Usual is null
                ? (object?)WorkingPhrase.FrostDateYearsUsed
                : new Fact(
                    WorkingPhrase.PlantDaysInColourValue,
                    ("daysInColour", DaysInColour),
                    ("items", Spells.Select(s => (object?)new Fact(WorkingPhrase.LeavesDieDownValue, ("first", s.First), ("last", s.Last))).ToList())
                ),
            [
                new WorkingInput(InputName.GoesIn, Install < Start.PlusYears(-1) ? (object?)WorkingPhrase.Established : Install),
                new WorkingInput(InputName.WeatherYears, Years),
                new WorkingInput(
                    InputName.SpreadOfTheRule,
                    new Fact(WorkingPhrase.Listed, ("items", Plant.Windows.Select(w => $"± {w.SpreadDays:0.#} days").Distinct().ToList()))
                ),
            ],
            [.. Plant.Windows.Select(w => new Fact(WorkingPhrase.DaysOfColourGainedStep, ("part", w.Part), ("describe", w.Rule.Describe())))]
        )
        {
            Parts = [("plant", Plant), ("source", Plant.Source)],
        };

    // What weather years do not show: nobody has watched the plant at this site yet.
    private static void Soften(float[] odds, double sigma)
    {
        int reach = (int)Math.Ceiling(3 * sigma);
        var weights = new double[(2 * reach) + 1];
        for (int k = -reach; k <= reach; k++)
            weights[k + reach] = Math.Exp(-0.5 * k * k / (sigma * sigma));
        var soft = new float[odds.Length];
        for (int d = 0; d < odds.Length; d++)
        {
            double sum = 0;
            double total = 0;
            for (int k = Math.Max(-reach, -d); k <= Math.Min(reach, odds.Length - 1 - d); k++)
            {
                sum += weights[k + reach] * odds[d + k];
                total += weights[k + reach];
            }
            soft[d] = (float)(sum / total);
        }
        soft.CopyTo(odds, 0);
    }
}
