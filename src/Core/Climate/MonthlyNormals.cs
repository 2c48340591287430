using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// How days spread about their normals in a kind of climate, where only monthly normals are known. Handbook knowledge
/// from memory; the planner picks the kind.
/// </summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">For people.</param>
/// <param name="MinDeviationC">Standard deviation of a day's lowest in the coldest and in the warmest month, K.</param>
/// <param name="MaxDeviationC">Of a day's highest, likewise.</param>
/// <param name="Lag">Correlation with the day before.</param>
/// <param name="WetShare">Share of wet days where the normals do not tell.</param>
public sealed record DefaultClimate(
    string Id,
    string Name,
    (double Winter, double Summer) MinDeviationC,
    (double Winter, double Summer) MaxDeviationC,
    double Lag,
    double WetShare
)
{
    /// <summary>The kinds known.</summary>
    public static IReadOnlyList<DefaultClimate> All { get; } =
    [
        new("continental", "continental, humid", (5.2, 2.3), (5.4, 3.0), 0.63, 0.32),
        new("cold-continental", "cold-continental, humid", (7.5, 2.7), (6.8, 3.6), 0.65, 0.3),
        new("mid-european", "mid-European", (5.3, 2.5), (4.8, 4.3), 0.68, 0.35),
        new("maritime", "maritime, mild", (3.3, 1.8), (3.2, 4.0), 0.63, 0.45),
        new("oceanic", "oceanic, cool summers", (3.8, 2.4), (3.3, 3.0), 0.65, 0.45),
        new("warm-temperate", "warm-temperate, humid", (5.2, 1.6), (5.4, 2.6), 0.62, 0.3),
        new("dry-summer", "dry-summer (mediterranean)", (3.0, 2.0), (3.0, 3.8), 0.65, 0.2),
        new("subtropical", "subtropical, humid", (5.2, 1.3), (5.0, 2.2), 0.62, 0.3),
        new("dry", "dry interior", (4.5, 2.8), (5.5, 3.6), 0.64, 0.15),
        new("tropical", "tropical", (1.5, 1.0), (1.5, 1.3), 0.5, 0.4),
    ];

    /// <summary>Both deviations in a few words.</summary>
    public Fact Describe() =>
        new(
            ClimatePhrase.DailySpread,
            ("minWinter", Quantity.CelsiusApart(MinDeviationC.Winter, 1)),
            ("minSummer", Quantity.CelsiusApart(MinDeviationC.Summer, 1)),
            ("maxWinter", Quantity.CelsiusApart(MaxDeviationC.Winter, 1)),
            ("maxSummer", Quantity.CelsiusApart(MaxDeviationC.Summer, 1)),
            ("lag", Quantity.Number(Lag, 2))
        );

    /// <summary>The kind of an id, or null.</summary>
    public static DefaultClimate? Find(string? id) => All.FirstOrDefault(c => c.Id == id);
}

/// <summary>Twelve monthly normals as handbooks print them.</summary>
/// <param name="MeanMinC">Mean daily lowest, January to December, °C.</param>
/// <param name="MeanMaxC">Mean daily highest, °C.</param>
/// <param name="PrecipitationMm">Mean monthly precipitation, mm; null when not known.</param>
/// <param name="ClimateId">The default climate that lends its daily spread.</param>
public sealed record MonthlyNormals(
    IReadOnlyList<double> MeanMinC,
    IReadOnlyList<double> MeanMaxC,
    IReadOnlyList<double>? PrecipitationMm = null,
    string ClimateId = "continental"
)
{
    /// <summary>
    /// Years of knowledge that handbook normals are taken for when odds get their standard errors: few, because the spread is borrowed.
    /// </summary>
    public const int WorthYears = 5;

    private const double WettestMonthMm = 1500;

    /// <summary>How much whole years differ, K; widens the odds (from memory).</summary>
    public const double YearSpreadC = 0.8;

    // A month that lies further than this from the middle of its neighbours was typed in another unit or another row.
    private const double FarFromNeighboursC = 8;

    // Between a month's mean lowest and highest.
    private const double WidestDayC = 28;

    /// <summary>Every fault of the figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        Twelve(faults, "meanMinC", MeanMinC, -70, 40, "°C");
        Twelve(faults, "meanMaxC", MeanMaxC, -70, 50, "°C");
        if (PrecipitationMm is not null)
            Twelve(faults, "precipitationMm", PrecipitationMm, 0, 3000, "mm");
        if (MeanMinC.Count == 12 && MeanMaxC.Count == 12)
        {
            for (int m = 0; m < 12; m++)
            {
                if (MeanMaxC[m] < MeanMinC[m] + 0.5)
                    faults.Add($"meanMaxC[{m}]", "must lie above the month's lowest");
            }
        }
        if (DefaultClimate.Find(ClimateId) is null)
            faults.Add("climateId", $"must be one of {string.Join(", ", DefaultClimate.All.Select(c => c.Id))}");
        return faults.Faults;
    }

    /// <summary>
    /// Faults of figures as typed for a place: those of <see cref="Faults"/>, and what makes no sense there: a month out of its row, days too wide,
    /// rain in another
    /// unit, a warm season in the other hemisphere's months. Asked where normals are typed; what is kept already is read as it is.
    /// </summary>
    public IReadOnlyList<Fault> FaultsAsTyped(Station station)
    {
        IReadOnlyList<Fault> own = Faults();
        if (own.Count > 0)
            return own;
        var faults = new FaultList();
        OutOfRow(faults, "meanMinC", MeanMinC);
        OutOfRow(faults, "meanMaxC", MeanMaxC);
        for (int m = 0; m < 12; m++)
        {
            if (MeanMaxC[m] > MeanMinC[m] + WidestDayC)
                faults.Add(
                    $"meanMaxC[{m}]",
                    $"lies {{{MeanMaxC[m] - MeanMinC[m]:0} K}} above the month's lowest; {{{WidestDayC:0} K}} is the most of any climate"
                );
            if (PrecipitationMm is { } rain && rain[m] > WettestMonthMm)
                faults.Add($"precipitationMm[{m}]", $"{{{rain[m]:0} mm}} is more than nearly any month on earth brings; typed in another unit?");
        }
        double june = MeanMaxC[5] + MeanMaxC[6] + MeanMaxC[7];
        double december = MeanMaxC[11] + MeanMaxC[0] + MeanMaxC[1];
        if (!station.IsTropical && june > december != station.LatitudeDeg > 0)
            faults.Add(
                "latitudeDeg",
                (
                    $"lies {(station.LatitudeDeg > 0 ? "north" : "south")} of the equator, "
                    + $"but the months are warmest around {(june > december ? "July" : "January")}"
                )
            );
        return faults.Faults;
    }

    /// <summary>Daily normals with the spread of the picked climate.</summary>
    /// <exception cref="InvalidInputException">A figure is missing or out of range.</exception>
    public DailyNormals At(Station station)
    {
        IReadOnlyList<Fault> wrong = Faults();
        if (wrong.Count > 0)
            throw new InvalidInputException(wrong);
        DefaultClimate climate = DefaultClimate.Find(ClimateId)!;
        double[] mean = [.. MeanMinC.Zip(MeanMaxC, (a, b) => (a + b) / 2)];
        double coldest = mean.Min();
        double range = Math.Max(1e-6, mean.Max() - coldest);
        // The spread swings between its winter and its summer value as the month's mean does.
        Harmonic Spread((double Winter, double Summer) deviation) =>
            Harmonic.ThroughMonths([
                .. mean.Select(m =>
                {
                    double sd = deviation.Winter + ((deviation.Summer - deviation.Winter) * (m - coldest) / range);
                    return sd * sd;
                }),
            ]);
        Harmonic minSpread = Spread(climate.MinDeviationC);
        Harmonic maxSpread = Spread(climate.MaxDeviationC);
        Harmonic min = Harmonic.ThroughMonths(MeanMinC);
        Harmonic max = Harmonic.ThroughMonths(MeanMaxC);
        // Wet days are cooler by day and milder by night: ±1 K, held to the given means (from memory).
        double wet = PrecipitationMm is null ? 0 : climate.WetShare;
        double lag = climate.Lag;
        return new DailyNormals
        {
            Station = station,
            Dry = new DayKind(min.Plus(-wet), max.Plus(wet), minSpread, maxSpread),
            Wet = new DayKind(min.Plus(1 - wet), max.Plus(wet - 1), minSpread, maxSpread),
            Rain = PrecipitationMm is null ? [] : [.. PrecipitationMm.Select((mm, m) => RainOf(mm, climate.WetShare, m))],
            SameDay = 0.7,
            DayBefore = (lag, lag * 0.85, lag * 0.75, lag),
            YearSpreadC = YearSpreadC,
            KnownYears = WorthYears,
            Origin = $"twelve monthly normals, daily spread of a {climate.Name} climate",
        };
    }

    private static MonthRain RainOf(double mm, double wetShare, int month)
    {
        double days = DateTime.DaysInMonth(2001, month + 1) * wetShare;
        double afterDry = 0.75 * wetShare;
        double afterWet = 0.25 + afterDry;
        return new MonthRain(mm <= 0 ? 0 : afterDry, mm <= 0 ? 0 : afterWet, 0.8, Math.Max(0.05, mm / days / 0.8));
    }

    // The month furthest out of the row; its neighbours only seem so because of it.
    private static void OutOfRow(FaultList faults, string field, IReadOnlyList<double> values)
    {
        (int Month, double Off) worst = Enumerable
            .Range(0, 12)
            .Select(m => (m, values[m] - ((values[(m + 11) % 12] + values[(m + 1) % 12]) / 2)))
            .MaxBy(x => Math.Abs(x.Item2));
        if (Math.Abs(worst.Off) > FarFromNeighboursC)
            faults.Add(
                $"{field}[{worst.Month}]",
                (
                    $"{{{values[worst.Month]:0.0} °C}} lies {{{Math.Abs(worst.Off):0} K}} "
                    + $"{(worst.Off < 0 ? "below" : "above")} the middle of its neighbours; typed in another unit or month?"
                )
            );
    }

    private static void Twelve(FaultList faults, string field, IReadOnlyList<double> values, double low, double high, string unit)
    {
        if (values.Count != 12)
            faults.Add(field, $"must hold twelve months (it holds {values.Count})");
        for (int m = 0; m < values.Count; m++)
            faults.Range($"{field}[{m}]", values[m], low, high, unit);
    }
}
