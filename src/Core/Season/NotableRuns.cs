using NodaTime;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>Weather years of a plan year that planners ask for by name.</summary>
/// <param name="Typical">The year nearest the means of all, month by month, in units of their deviation.</param>
/// <param name="HardestWinter">The year with the lowest root-zone temperature in the median thermal class.</param>
/// <param name="HardestRootC">How low it was there, °C.</param>
/// <param name="HardestAirC">The lowest air of that year, °C.</param>
/// <param name="HottestSummer">The year with the hottest thirty days.</param>
/// <param name="HottestMeanC">Their mean daily highest, °C.</param>
/// <param name="LatestSpring">The year with the least heat above 5 °C in the three months before midspring.</param>
/// <param name="LatestSpringCd">That heat, °C·d.</param>
public sealed record NotableRuns(
    int Typical,
    int HardestWinter,
    double HardestRootC,
    double HardestAirC,
    int HottestSummer,
    double HottestMeanC,
    int LatestSpring,
    double LatestSpringCd
)
{
    /// <summary>Looks through the weather years of a plan year; null without weather.</summary>
    /// <param name="seasons">The weather years.</param>
    /// <param name="start">First day of the plan year.</param>
    /// <param name="classes">The site's thermal classes; a pot of 40 cm stands in for none.</param>
    /// <param name="southern">True south of the equator.</param>
    public static NotableRuns? Of(IReadOnlyList<GrowingSeason> seasons, LocalDate start, IReadOnlyCollection<ThermalClass> classes, bool southern)
    {
        if (seasons.Count == 0)
            return null;
        int zero = seasons[0].Run.IndexOf(start);
        int days = Period.DaysBetween(start, start.PlusMonths(12));
        ThermalClass[] ranked =
        [
            .. classes
                .Distinct()
                .Select(c => (Class: c, Lowest: seasons.Min(s => Lowest(s.RootsC(c), zero, days))))
                .OrderBy(c => c.Lowest)
                .Select(c => c.Class),
        ];
        ThermalClass median = ranked.Length > 0 ? ranked[ranked.Length / 2] : ThermalClass.Pot(40, 36, Ground.WallMaterial.Terracotta);
        GrowingSeason hardest = seasons.MinBy(s => Lowest(s.RootsC(median), zero, days))!;
        GrowingSeason hottest = seasons.MaxBy(s => Hottest(s, zero, days))!;
        GrowingSeason latest = seasons.MinBy(s => SpringHeat(s, start, southern))!;
        return new NotableRuns(
            Nearest(seasons, zero, days),
            hardest.Run.Year,
            Lowest(hardest.RootsC(median), zero, days),
            hardest.Run.MinC.AsSpan(zero, days).ToArray().Min(),
            hottest.Run.Year,
            Hottest(hottest, zero, days),
            latest.Run.Year,
            SpringHeat(latest, start, southern)
        );
    }

    private static float Lowest(float[] values, int zero, int days)
    {
        float lowest = float.PositiveInfinity;
        foreach (float v in values.AsSpan(zero, days))
            lowest = Math.Min(lowest, v);
        return lowest;
    }

    private static double Hottest(GrowingSeason season, int zero, int days)
    {
        double sum = 0;
        double best = double.NegativeInfinity;
        for (int i = 0; i < days; i++)
        {
            sum += season.Run.MaxC[zero + i] - (i >= 30 ? season.Run.MaxC[zero + i - 30] : 0);
            if (i >= 29)
                best = Math.Max(best, sum / 30);
        }
        return best;
    }

    // Heat from 1 February to 30 April, or from 1 August to 31 October in the south, of the spring inside the plan year.
    private static double SpringHeat(GrowingSeason season, LocalDate start, bool southern)
    {
        var first = new LocalDate(start.Year, southern ? 8 : 2, 1);
        first = first < start ? first.PlusYears(1) : first;
        int from = season.Run.IndexOf(first);
        double[] heat = season.Heat(5);
        int to = Math.Min(heat.Length - 1, from + 88);
        return heat[to] - heat[from];
    }

    private static int Nearest(IReadOnlyList<GrowingSeason> seasons, int zero, int days)
    {
        int months = days / 30;
        double[][] means = [.. seasons.Select(s => Enumerable.Range(0, months).Select(m => Mean(s, zero + (m * 30))).ToArray())];
        double Off(double[] year) =>
            Enumerable
                .Range(0, months)
                .Sum(m =>
                {
                    double mean = means.Average(y => y[m]);
                    double deviation = Math.Sqrt(means.Average(y => (y[m] - mean) * (y[m] - mean)));
                    return deviation < 1e-9 ? 0 : (year[m] - mean) * (year[m] - mean) / (deviation * deviation);
                });
        return seasons[Enumerable.Range(0, seasons.Count).MinBy(i => Off(means[i]))].Run.Year;
    }

    private static double Mean(GrowingSeason season, int from)
    {
        double sum = 0;
        for (int i = from; i < from + 30; i++)
            sum += season.Run.MeanC(i);
        return sum / 30;
    }
}
