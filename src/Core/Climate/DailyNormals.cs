using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>One kind of day, wet or dry: the usual lowest and highest temperature and their spread by day of the year.</summary>
/// <param name="MinC">Mean lowest, °C.</param>
/// <param name="MaxC">Mean highest, °C.</param>
/// <param name="MinSpread">Variance of the lowest, K².</param>
/// <param name="MaxSpread">Variance of the highest, K².</param>
public sealed record DayKind(Harmonic MinC, Harmonic MaxC, Harmonic MinSpread, Harmonic MaxSpread)
{
    /// <summary>Standard deviations of lowest and highest, K; at least 0.3.</summary>
    public (double Min, double Max) DeviationOn(double dayOfYear) =>
        (Math.Sqrt(Math.Max(0.09, MinSpread.At(dayOfYear))), Math.Sqrt(Math.Max(0.09, MaxSpread.At(dayOfYear))));
}

/// <summary>Rain of one month as two states and an amount.</summary>
/// <param name="WetAfterDry">Chance of a wet day after a dry one.</param>
/// <param name="WetAfterWet">Chance of a wet day after a wet one.</param>
/// <param name="Shape">Shape of the gamma distribution of a wet day's amount.</param>
/// <param name="ScaleMm">Its scale, mm.</param>
public sealed record MonthRain(double WetAfterDry, double WetAfterWet, double Shape, double ScaleMm)
{
    /// <summary>Share of wet days in the long run.</summary>
    public double WetShare => WetAfterDry / Math.Max(1e-9, 1 + WetAfterDry - WetAfterWet);
}

/// <summary>
/// A climate's daily normals with their spread: harmonic means and variances of lowest and highest temperature for wet
/// and dry days, how days hang together, and rain month by month. All that the generator needs (Richardson 1981).
/// </summary>
public sealed record DailyNormals
{
    /// <summary>A day with less rain counts as dry, mm (0.01 in).</summary>
    public const double WetFromMm = 0.25;

    private static readonly int[] MidSeasons = [15, 105, 196, 288];

    /// <summary>Where.</summary>
    public required Station Station { get; init; }

    /// <summary>Dry days.</summary>
    public required DayKind Dry { get; init; }

    /// <summary>Wet days; the dry ones again where the record has no rain.</summary>
    public required DayKind Wet { get; init; }

    /// <summary>Rain by month, January first; empty where the record has none.</summary>
    public required IReadOnlyList<MonthRain> Rain { get; init; }

    /// <summary>Correlation of lowest and highest of one day, after their normals are taken off.</summary>
    public required double SameDay { get; init; }

    /// <summary>Correlations with the day before: min–min, min–max before, max–min before, max–max.</summary>
    public required (double MinMin, double MinMax, double MaxMin, double MaxMax) DayBefore { get; init; }

    /// <summary>Standard deviation of whole years about the normals, K; 0 where the daily figures already hold it.</summary>
    public double YearSpreadC { get; init; }

    /// <summary>Years behind them; what is known, not what is generated.</summary>
    public required int KnownYears { get; init; }

    /// <summary>Where they come from, for the working.</summary>
    public required string Origin { get; init; }

    /// <summary>Usual lowest and highest on a day, wet and dry days together, °C.</summary>
    public (double MinC, double MaxC) On(int dayOfYear)
    {
        double wet = Rain.Count == 0 ? 0 : Rain[MonthOf(dayOfYear)].WetShare;
        return (
            ((1 - wet) * Dry.MinC.At(dayOfYear)) + (wet * Wet.MinC.At(dayOfYear)),
            ((1 - wet) * Dry.MaxC.At(dayOfYear)) + (wet * Wet.MaxC.At(dayOfYear))
        );
    }

    /// <summary>Standard deviation of lowest and highest on a day, wet and dry together, K.</summary>
    public (double Min, double Max) DeviationOn(int dayOfYear)
    {
        double wet = Rain.Count == 0 ? 0 : Rain[MonthOf(dayOfYear)].WetShare;
        (double dryMin, double dryMax) = Dry.DeviationOn(dayOfYear);
        (double wetMin, double wetMax) = Wet.DeviationOn(dayOfYear);
        double apartMin = Wet.MinC.At(dayOfYear) - Dry.MinC.At(dayOfYear);
        double apartMax = Wet.MaxC.At(dayOfYear) - Dry.MaxC.At(dayOfYear);
        double year = YearSpreadC * YearSpreadC;
        return (
            Math.Sqrt(((1 - wet) * dryMin * dryMin) + (wet * wetMin * wetMin) + (wet * (1 - wet) * apartMin * apartMin) + year),
            Math.Sqrt(((1 - wet) * dryMax * dryMax) + (wet * wetMax * wetMax) + (wet * (1 - wet) * apartMax * apartMax) + year)
        );
    }

    /// <summary>Fits the normals of a record over its used years.</summary>
    /// <exception cref="InvalidInputException">No year can be used.</exception>
    public static DailyNormals From(WeatherRecord record)
    {
        if (record.YearsUsed.Count == 0)
            throw new InvalidInputException("days", "no year of the record is complete enough to use");
        List<Sample> samples = Samples(record);
        bool hasRain = samples.Exists(s => s.Wet) && samples.Count(s => !double.IsNaN(s.RainMm)) > samples.Count / 2;
        // Few years' chance is smoothed; many years' months are met as they are.
        int waves =
            record.YearsUsed.Count < 10 ? 3
            : record.YearsUsed.Count < 20 ? 4
            : 5;
        DayKind dry = Kind([.. samples.Where(s => !hasRain || !s.Wet)], waves);
        List<Sample> wetDays = [.. samples.Where(s => s.Wet)];
        DayKind wet = hasRain && wetDays.Count >= 100 ? Kind(wetDays, waves) : dry;
        (double same, var before) = Together(samples, dry, wet, hasRain);
        return new DailyNormals
        {
            Station = record.Station,
            Dry = dry,
            Wet = wet,
            Rain = hasRain ? RainOf(samples) : [],
            SameDay = same,
            DayBefore = before,
            KnownYears = record.KnownYears,
            Origin = $"{record.Station.Name}, {record.YearsUsed.Count} years {WeatherYear.Span(record.YearsUsed[0], record.YearsUsed[^1])}",
        };
    }

    /// <summary>The arithmetic behind the normals.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.DailyNormals,
            Origin,
            [
                new WorkingInput(InputName.YearsBehindThem, KnownYears),
                new WorkingInput(InputName.CorrelationOfLowestAndHighest, Quantity.Number(SameDay, 2)),
                new WorkingInput(
                    InputName.WithTheDayBeforeLowestAndHighest,
                    new Fact(
                        WorkingPhrase.DailyNormalsWithDayBeforeLowestHighest,
                        ("minMin", Quantity.Number(DayBefore.MinMin, 2)),
                        ("maxMax", Quantity.Number(DayBefore.MaxMax, 2))
                    )
                ),
                new WorkingInput(InputName.WholeYearsAboutThem, Quantity.CelsiusApart(YearSpreadC, 1)),
            ],
            [
                .. MidSeasons.Select(d =>
                {
                    (double min, double max) = On(d);
                    (double minSd, double maxSd) = DeviationOn(d);
                    return new Fact(
                        WorkingPhrase.NormalOfADay,
                        ("day", new LocalDate(2001, 1, 1).PlusDays(d - 1)),
                        ("min", Quantity.Celsius(min, 1)),
                        ("minSpread", Quantity.CelsiusApart(minSd, 1)),
                        ("max", Quantity.Celsius(max, 1)),
                        ("maxSpread", Quantity.CelsiusApart(maxSd, 1))
                    );
                }),
            ]
        );

    private static int MonthOf(int dayOfYear) => new LocalDate(2001, 1, 1).PlusDays(Math.Clamp(dayOfYear, 1, 365) - 1).Month - 1;

    private static List<Sample> Samples(WeatherRecord record)
    {
        var samples = new List<Sample>();
        foreach (int year in record.YearsUsed)
        {
            (int from, int length) = record.RangeOf(year).GetOffsetAndLength(record.MinC.Length);
            for (int i = from; i < from + length; i++)
            {
                if (double.IsNaN(record.MinC[i]) || double.IsNaN(record.MaxC[i]))
                    continue;
                LocalDate day = record.FirstDay.PlusDays(i);
                double rain = record.PrecipitationMm[i];
                samples.Add(new Sample(i, day.Month - 1, day.DayOfYear, record.MinC[i], record.MaxC[i], rain, rain >= WetFromMm));
            }
        }
        return samples;
    }

    private static DayKind Kind(List<Sample> days, int waves)
    {
        Harmonic min = Harmonic.Fit(waves, [.. days.Select(d => (d.DayOfYear, d.MinC))]);
        Harmonic max = Harmonic.Fit(waves, [.. days.Select(d => (d.DayOfYear, d.MaxC))]);
        return new DayKind(
            min,
            max,
            Harmonic.Fit(2, [.. days.Select(d => (d.DayOfYear, Square(d.MinC - min.At(d.DayOfYear))))]),
            Harmonic.Fit(2, [.. days.Select(d => (d.DayOfYear, Square(d.MaxC - max.At(d.DayOfYear))))])
        );
    }

    private static (double Same, (double, double, double, double) Before) Together(List<Sample> samples, DayKind dry, DayKind wet, bool hasRain)
    {
        var z = samples
            .Select(s =>
            {
                DayKind kind = hasRain && s.Wet ? wet : dry;
                (double minSd, double maxSd) = kind.DeviationOn(s.DayOfYear);
                return (s.Index, Min: (s.MinC - kind.MinC.At(s.DayOfYear)) / minSd, Max: (s.MaxC - kind.MaxC.At(s.DayOfYear)) / maxSd);
            })
            .ToList();
        double minVariance = Math.Max(1e-6, z.Average(v => v.Min * v.Min));
        double maxVariance = Math.Max(1e-6, z.Average(v => v.Max * v.Max));
        double cross = Math.Sqrt(minVariance * maxVariance);
        var pairs = z.Zip(z.Skip(1)).Where(p => p.Second.Index == p.First.Index + 1).ToList();
        double Lag(Func<((int Index, double Min, double Max) Before, (int Index, double Min, double Max) Now), double> product) =>
            pairs.Count == 0 ? 0 : pairs.Average(product);
        return (
            Math.Clamp(z.Average(v => v.Min * v.Max) / cross, -0.98, 0.98),
            (
                Lag(p => p.Now.Min * p.Before.Min) / minVariance,
                Lag(p => p.Now.Min * p.Before.Max) / cross,
                Lag(p => p.Now.Max * p.Before.Min) / cross,
                Lag(p => p.Now.Max * p.Before.Max) / maxVariance
            )
        );
    }

    private static List<MonthRain> RainOf(List<Sample> samples)
    {
        var result = new List<MonthRain>();
        for (int m = 0; m < 12; m++)
        {
            var pairs = samples
                .Zip(samples.Skip(1))
                .Where(p => p.Second.Month == m && p.Second.Index == p.First.Index + 1 && !double.IsNaN(p.Second.RainMm))
                .ToList();
            double afterDry = Share(pairs.Where(p => !p.First.Wet).Select(p => p.Second.Wet));
            double afterWet = Share(pairs.Where(p => p.First.Wet).Select(p => p.Second.Wet));
            double[] amounts = [.. samples.Where(s => s.Month == m && s.Wet).Select(s => s.RainMm)];
            (double shape, double scale) = GammaOf(amounts);
            result.Add(new MonthRain(afterDry, afterWet, shape, scale));
        }
        return result;
    }

    private static double Share(IEnumerable<bool> days)
    {
        var list = days.ToList();
        return list.Count == 0 ? 0 : (double)list.Count(d => d) / list.Count;
    }

    // Thom's approximation of the maximum likelihood; the scale keeps the mean.
    private static (double Shape, double ScaleMm) GammaOf(double[] amounts)
    {
        if (amounts.Length < 5)
            return (0.8, amounts.Length == 0 ? 1 : amounts.Average() / 0.8);
        double mean = amounts.Average();
        double a = Math.Max(0.01, Math.Log(mean) - amounts.Average(Math.Log));
        double shape = Math.Clamp((1 + Math.Sqrt(1 + (4 * a / 3))) / (4 * a), 0.2, 5);
        return (shape, mean / shape);
    }

    private static double Square(double v) => v * v;

    private sealed record Sample(int Index, int Month, double DayOfYear, double MinC, double MaxC, double RainMm, bool Wet);
}
