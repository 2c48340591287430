using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>frost</c>.</summary>
/// <param name="Weather">The record.</param>
/// <param name="ThresholdC">At or below this counts, −30 to 10 °C; default 0.</param>
/// <param name="Odds">Odds asked, each between 0 and 1; default 0.1, 0.5, 0.9.</param>
/// <param name="PlantedOut">A day of spring or fall of which the odds are asked.</param>
/// <param name="AllThresholds">True for the usual six, 36 to 16 °F, besides.</param>
public sealed record FrostInput(
    WeatherInput Weather,
    double ThresholdC = 0,
    IReadOnlyList<double>? Odds = null,
    LocalDate? PlantedOut = null,
    bool AllThresholds = false
);

/// <summary>One odds date, month and day.</summary>
public sealed record OddsOutput(double Odds, string? Date, string? ByRanks, double? StandardErrorDays);

/// <summary>One end of the season.</summary>
public sealed record FrostEndOutput(IReadOnlyList<OddsOutput> Odds, double ShareOfYearsWithout, IReadOnlyList<string> Days);

/// <summary>Odds of a day: a freeze still to come in spring, or come already in fall.</summary>
public sealed record FrostOnDayOutput(double FreezeFollows, double FreezeHasCome);

/// <summary>Days between the frosts, and heat.</summary>
public sealed record FrostSeasonOutput(
    double In9Of10Days,
    double MedianDays,
    double In1Of10Days,
    double HotDaysAYear,
    double ShareWithFiveHotDaysInARow
);

/// <summary>One of the six thresholds.</summary>
public sealed record FrostThresholdOutput(double ThresholdF, FrostEndOutput LastSpring, FrostEndOutput FirstFall, double MedianSeasonDays);

/// <summary>Output of <c>frost</c>.</summary>
public sealed record FrostOutput(
    double ThresholdC,
    IReadOnlyList<int> YearsUsed,
    IReadOnlyList<YearLeftOut> YearsLeftOut,
    FrostEndOutput LastSpring,
    FrostEndOutput FirstFall,
    FrostSeasonOutput Season,
    FrostOnDayOutput? OnDay,
    IReadOnlyList<FrostThresholdOutput>? Thresholds,
    IReadOnlyList<string> Remarks
);

/// <summary>Input of <c>normals</c>: a record, or twelve monthly normals.</summary>
/// <param name="Weather">The record.</param>
/// <param name="Monthly">Twelve monthly normals with a default climate.</param>
/// <param name="LatitudeDeg">Of monthly normals, default 45.</param>
public sealed record NormalsInput(WeatherInput? Weather = null, MonthlyNormals? Monthly = null, double LatitudeDeg = 45);

/// <summary>A month's middle day.</summary>
public sealed record NormalDayOutput(
    int Month,
    double MinC,
    double MinDeviationC,
    double MaxC,
    double MaxDeviationC,
    double? WetShare,
    double? MeanRainMm
);

/// <summary>Output of <c>normals</c>.</summary>
public sealed record NormalsOutput(
    string Origin,
    int KnownYears,
    double LagMin,
    double LagMax,
    double SameDay,
    IReadOnlyList<NormalDayOutput> Months
);

/// <summary>Input of <c>generate</c>.</summary>
/// <param name="Normals">Where the climate comes from.</param>
/// <param name="Seed">Any number.</param>
/// <param name="Years">1 to 1,000; default 30.</param>
/// <param name="FirstYear">What the first one is called; default 2001.</param>
/// <param name="WithDays">True to print the days too.</param>
public sealed record GenerateInput(NormalsInput Normals, int Seed = 1, int Years = 30, int FirstYear = 2001, bool WithDays = false);

/// <summary>Output of <c>generate</c>.</summary>
public sealed record GenerateOutput(
    int Years,
    int KnownYears,
    IReadOnlyList<double> MonthMeanMinC,
    IReadOnlyList<double> MonthMeanMaxC,
    string? MedianLastFreeze,
    IReadOnlyList<DayInput>? Days
);

/// <summary>Input of <c>zone</c>: a record, or the annual minima themselves.</summary>
/// <param name="Weather">The record.</param>
/// <param name="AnnualMinimaC">Lowest temperature of each year, °C.</param>
public sealed record ZoneInput(WeatherInput? Weather = null, IReadOnlyList<double>? AnnualMinimaC = null);

/// <summary>Output of <c>zone</c>.</summary>
public sealed record ZoneOutput(string Zone, double MeanMinimumC, int Years);

/// <summary>Topics of climate.</summary>
internal static class ClimateTopics
{
    public static Topic Frost { get; } =
        new Topic<FrostInput, FrostOutput>("frost", "odds of the last spring and first fall day at or below a threshold", input =>
        {
            var faults = new FaultList();
            faults.Range("thresholdC", input.ThresholdC, -30, 10, "°C");
            IReadOnlyList<double> odds = input.Odds ?? [0.1, 0.5, 0.9];
            for (int i = 0; i < odds.Count; i++)
                faults.Range($"odds[{i}]", odds[i], 0.001, 0.999, string.Empty);
            faults.ThrowIfAny();
            WeatherRecord record = input.Weather.Read();
            FrostOdds spring = FrostOdds.From(record, FrostEnd.LastSpring, input.ThresholdC);
            FrostOdds fall = FrostOdds.From(record, FrostEnd.FirstFall, input.ThresholdC);
            SeasonLength season = SeasonLength.From(record, input.ThresholdC);
            HeatSpells heat = HeatSpells.From(record);
            ClimateRemarks remarks = ClimateRemarks.From(record);
            return (
                new FrostOutput(
                    input.ThresholdC,
                    record.YearsUsed,
                    record.YearsLeftOut,
                    End(spring, odds),
                    End(fall, odds),
                    new FrostSeasonOutput(
                        R(season.ReachedBy(0.9)),
                        R(season.ReachedBy(0.5)),
                        R(season.ReachedBy(0.1)),
                        R(heat.MeanDays),
                        R(heat.ShareWithRun(5))
                    ),
                    input.PlantedOut is { } day ? new FrostOnDayOutput(Math.Round(spring.OddsOn(day), 3), Math.Round(fall.OddsOn(day), 3)) : null,
                    input.AllThresholds ? [.. FrostOdds.ThresholdsF.Select(f => Threshold(record, f, odds))] : null,
                    [.. remarks.All.Select(r => Said.Metric.Say(r.Says))]
                ),
                [
                    .. odds.Select(spring.Explain),
                    .. odds.Select(fall.Explain),
                    season.Explain(),
                    heat.Explain(),
                    .. remarks.All.Select(r => r.Working),
                ]
            );
        });

    public static Topic Normals { get; } =
        new Topic<NormalsInput, NormalsOutput>("normals", "daily normals with their spread, from a record or from twelve monthly normals", input =>
        {
            DailyNormals normals = Read(input, string.Empty);
            return (
                new NormalsOutput(
                    normals.Origin,
                    normals.KnownYears,
                    R(normals.DayBefore.MinMin),
                    R(normals.DayBefore.MaxMax),
                    R(normals.SameDay),
                    [
                        .. Enumerable
                            .Range(1, 12)
                            .Select(m =>
                            {
                                int d = new LocalDate(2001, m, 15).DayOfYear;
                                MonthRain? rain = normals.Rain.Count == 0 ? null : normals.Rain[m - 1];
                                return new NormalDayOutput(
                                    m,
                                    R(normals.On(d).MinC),
                                    R(normals.DeviationOn(d).Min),
                                    R(normals.On(d).MaxC),
                                    R(normals.DeviationOn(d).Max),
                                    rain is null ? null : R(rain.WetShare),
                                    rain is null ? null : R(rain.Shape * rain.ScaleMm)
                                );
                            }),
                    ]
                ),
                [normals.Explain()]
            );
        });

    public static Topic Generate { get; } =
        new Topic<GenerateInput, GenerateOutput>("generate", "seeded years of weather that never were, from a climate's normals", input =>
        {
            DailyNormals normals = Read(input.Normals, "normals.");
            WeatherRecord record = WeatherGenerator.Generate(normals, input.Seed, input.FirstYear, input.Years);
            IReadOnlyList<MonthMeans> months = MonthMeans.From(record);
            return (
                new GenerateOutput(
                    input.Years,
                    record.KnownYears,
                    [.. months.Select(m => R(m.MeanMinC))],
                    [.. months.Select(m => R(m.MeanMaxC))],
                    MonthDay(FrostOdds.From(record, FrostEnd.LastSpring, 0).DateAt(0.5).Date),
                    input.WithDays
                        ?
                        [
                            .. Enumerable
                                .Range(0, record.MinC.Length)
                                .Select(i => new DayInput(
                                    record.FirstDay.PlusDays(i),
                                    R(record.MinC[i]),
                                    R(record.MaxC[i]),
                                    double.IsNaN(record.PrecipitationMm[i]) ? null : R(record.PrecipitationMm[i])
                                )),
                        ]
                        : null
                ),
                [normals.Explain()]
            );
        });

    public static Topic Zone { get; } = new Topic<ZoneInput, ZoneOutput>("zone", "hardiness zone from annual minima", input =>
        {
            if ((input.Weather is null) == (input.AnnualMinimaC is null))
                throw new InvalidInputException("weather", "give either weather or annualMinimaC");
            if (input.Weather is { } weather)
            {
                HardinessZone zone = HardinessZone.From(weather.Read());
                return (new ZoneOutput(zone.Name, Math.Round(zone.MeanMinimumC, 2), zone.Years.Count), [zone.Explain()]);
            }
            var faults = new FaultList();
            if (input.AnnualMinimaC!.Count == 0)
                faults.Add("annualMinimaC", "must hold at least one year");
            for (int i = 0; i < input.AnnualMinimaC.Count; i++)
                faults.Range($"annualMinimaC[{i}]", input.AnnualMinimaC[i], -90, 40, "°C");
            faults.ThrowIfAny();
            double mean = input.AnnualMinimaC.Average();
            (int number, char half) = HardinessZone.Of(mean);
            var given = new HardinessZone(number, half, mean, [.. input.AnnualMinimaC.Select((m, i) => (i + 1, m))]);
            return (new ZoneOutput(given.Name, Math.Round(mean, 2), given.Years.Count), [given.Explain()]);
        });

    private static FrostThresholdOutput Threshold(WeatherRecord record, double thresholdF, IReadOnlyList<double> odds)
    {
        double c = FrostOdds.CelsiusOf(thresholdF);
        return new FrostThresholdOutput(
            thresholdF,
            End(FrostOdds.From(record, FrostEnd.LastSpring, c), odds),
            End(FrostOdds.From(record, FrostEnd.FirstFall, c), odds),
            SeasonLength.From(record, c).ReachedBy(0.5)
        );
    }

    private static DailyNormals Read(NormalsInput input, string path)
    {
        if ((input.Weather is null) == (input.Monthly is null))
            throw new InvalidInputException($"{path}weather", "give either weather or monthly");
        if (input.Weather is { } weather)
            return DailyNormals.From(weather.Read());
        var faults = new FaultList();
        SkyTopics.Place(faults, input.LatitudeDeg);
        var station = new Station("monthly", "monthly normals", input.LatitudeDeg, 0, 0);
        faults.AddAll($"{path}monthly", input.Monthly!.FaultsAsTyped(station));
        faults.ThrowIfAny();
        return input.Monthly.At(station);
    }

    private static double R(double v) => Math.Round(v, 2);

    private static FrostEndOutput End(FrostOdds odds, IReadOnlyList<double> asked) =>
        new(
            [
                .. asked.Select(o =>
                {
                    OddsDate at = odds.DateAt(o);
                    return new OddsOutput(
                        o,
                        MonthDay(at.Date),
                        MonthDay(at.RankDate),
                        double.IsNaN(at.StandardErrorDays) ? null : Math.Round(at.StandardErrorDays, 1)
                    );
                }),
            ],
            Math.Round(odds.ShareWithout, 3),
            [.. odds.Events.Where(e => e.Day is not null).Select(e => NodaTime.Text.LocalDatePattern.Iso.Format(e.Day!.Value))]
        );

    private static string? MonthDay(LocalDate? date) => date?.ToString("MM-dd", null);
}
