using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>The bulb years of a record that people ask for by name.</summary>
/// <param name="Past">The last whole one; null when the record holds none.</param>
/// <param name="HardestWinter">That with the lowest root-zone temperature in the median thermal class.</param>
/// <param name="HardestRootC">How low it was there, °C.</param>
/// <param name="HardestAirC">The lowest air of that year, °C.</param>
/// <param name="HottestSummer">That with the hottest thirty days, by mean daily highest.</param>
/// <param name="HottestMeanC">That mean, °C.</param>
public sealed record NotableYears(int? Past, int? HardestWinter, double HardestRootC, double HardestAirC, int? HottestSummer, double HottestMeanC)
{
    /// <summary>Looks for them.</summary>
    /// <param name="record">The record.</param>
    /// <param name="classes">The site's thermal classes; the median is taken by their coldest roots. Empty for a pot of 40 cm.</param>
    public static NotableYears From(WeatherRecord record, IReadOnlyCollection<ThermalClass> classes)
    {
        IReadOnlyList<BulbYear> years = BulbYear.Of(record);
        if (years.Count == 0)
            return new NotableYears(null, null, double.NaN, double.NaN, null, double.NaN);
        GroundClimate.Of(record).Prepare(classes);
        GroundTemperatures[] ranked = [.. classes.Distinct().Select(GroundClimate.Of(record).Of).OrderBy(g => g.RootMin.Min())];
        GroundTemperatures ground =
            ranked.Length > 0 ? ranked[ranked.Length / 2] : GroundClimate.Of(record).Of(ThermalClass.Pot(40, 36, WallMaterial.Terracotta));
        BulbYear hardest = years.MinBy(y => Lowest(ground, y));
        BulbYear hottest = years.MaxBy(y => Hottest(record, y));
        return new NotableYears(
            years[^1].Year,
            hardest.Year,
            Lowest(ground, hardest),
            record.MinC.AsSpan(hardest.From, hardest.Days).ToArray().Where(v => !double.IsNaN(v)).Min(),
            hottest.Year,
            Hottest(record, hottest)
        );
    }

    private static double Lowest(GroundTemperatures ground, BulbYear year)
    {
        float lowest = float.PositiveInfinity;
        foreach (float v in ground.RootMin.AsSpan(year.From, year.Days))
            lowest = Math.Min(lowest, v);
        return lowest;
    }

    private static double Hottest(WeatherRecord record, BulbYear year)
    {
        double best = double.NegativeInfinity;
        for (int i = year.From; i + 30 <= year.From + year.Days; i++)
        {
            double sum = 0;
            for (int k = i; k < i + 30; k++)
                sum += double.IsNaN(record.MaxC[k]) ? -99 : record.MaxC[k];
            best = Math.Max(best, sum / 30);
        }
        return best;
    }
}
