using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>sun</c>.</summary>
/// <param name="At">The instant, UTC.</param>
/// <param name="LatitudeDeg">Degrees north.</param>
/// <param name="LongitudeDeg">Degrees east.</param>
public sealed record SunInput(Instant At, double LatitudeDeg, double LongitudeDeg);

/// <summary>Output of <c>sun</c>.</summary>
public sealed record SunOutput(double AltitudeDeg, double AzimuthDeg, double DaylightHours, double ExtraterrestrialMJ);

/// <summary>Input of <c>exposure</c>.</summary>
/// <param name="LatitudeDeg">Degrees north.</param>
/// <param name="Skyline">What stands in the way.</param>
/// <param name="Years">Years asked, for trees that grow; the survey's own year when left out.</param>
public sealed record ExposureInput(double LatitudeDeg, Skyline Skyline, IReadOnlyList<int>? Years = null);

/// <summary>One season.</summary>
public sealed record SeasonSunOutput(string Season, double Hours, Exposure Class);

/// <summary>One year.</summary>
public sealed record SunYearOutput(int Year, Exposure GrowingSeason, IReadOnlyList<SeasonSunOutput> Seasons, IReadOnlyList<MonthSun> Months);

/// <summary>Output of <c>exposure</c>.</summary>
public sealed record ExposureOutput(IReadOnlyList<SunYearOutput> Years);

/// <summary>Input of <c>et0</c>: a day for Penman–Monteith, or temperatures alone for Hargreaves.</summary>
/// <param name="Day">The day.</param>
/// <param name="LatitudeDeg">Degrees north.</param>
/// <param name="MinC">Lowest, °C.</param>
/// <param name="MaxC">Highest, °C.</param>
/// <param name="MeanC">Mean; half the sum when left out.</param>
/// <param name="ElevationM">Metres; default 0.</param>
/// <param name="WindMs">Wind, m/s.</param>
/// <param name="WindHeightM">Its height, default 2 m.</param>
/// <param name="HumidityMinPct">Lowest humidity, %.</param>
/// <param name="HumidityMaxPct">Highest humidity, %.</param>
/// <param name="SunMJ">Radiation, MJ/m²; or sunshine hours instead.</param>
/// <param name="SunshineHours">Hours of sunshine.</param>
/// <param name="ExtraterrestrialMJ">Ra where it is given; by latitude and day otherwise.</param>
public sealed record Et0Input(
    LocalDate Day,
    double LatitudeDeg,
    double MinC,
    double MaxC,
    double? MeanC = null,
    double ElevationM = 0,
    double? WindMs = null,
    double WindHeightM = 2,
    double? HumidityMinPct = null,
    double? HumidityMaxPct = null,
    double? SunMJ = null,
    double? SunshineHours = null,
    double? ExtraterrestrialMJ = null
);

/// <summary>Output of <c>et0</c>.</summary>
public sealed record Et0Output(double MmPerDay, string Method);

/// <summary>Input of <c>heat-index</c>.</summary>
/// <param name="AirC">Air in the shade, °C.</param>
/// <param name="HumidityPct">Relative humidity, %.</param>
public sealed record HeatIndexInput(double AirC, double HumidityPct);

/// <summary>Output of <c>heat-index</c>.</summary>
public sealed record HeatIndexOutput(double IndexC, double IndexF, string? Warning);

/// <summary>Topics of sun, water and heat.</summary>
internal static class SkyTopics
{
    public static Topic Sun { get; } =
        new Topic<SunInput, SunOutput>("sun", "where the sun stands at an instant, daylight and radiation above the air that day", input =>
        {
            var faults = new FaultList();
            Place(faults, input.LatitudeDeg);
            faults.Range("longitudeDeg", input.LongitudeDeg, -180, 180, "degrees");
            faults.ThrowIfAny();
            SunPosition sun = SunPosition.At(input.At, input.LatitudeDeg, input.LongitudeDeg);
            int day = input.At.InUtc().DayOfYear;
            return (
                new SunOutput(
                    Math.Round(sun.AltitudeDeg, 3),
                    Math.Round(sun.AzimuthDeg, 3),
                    Math.Round(SolarGeometry.DaylightHours(input.LatitudeDeg, day), 2),
                    Math.Round(SolarGeometry.ExtraterrestrialRadiation(input.LatitudeDeg, day), 2)
                ),
                [
                    new Working(
                        WorkingKind.SunPosition,
                        new Fact(
                            WorkingPhrase.SunStands,
                            ("altitude", Quantity.Degrees(sun.AltitudeDeg, 2)),
                            ("azimuth", Quantity.Degrees(sun.AzimuthDeg, 2))
                        ),
                        [
                            new WorkingInput(InputName.Latitude, Quantity.Degrees(input.LatitudeDeg, 2)),
                            new WorkingInput(InputName.Longitude, Quantity.Degrees(input.LongitudeDeg, 2)),
                        ]
                    ),
                ]
            );
        });

    public static Topic Exposure { get; } =
        new Topic<ExposureInput, ExposureOutput>(
            "exposure",
            "direct sun by month, morning and afternoon, and class by season, over a skyline of walls and trees",
            input =>
            {
                var faults = new FaultList();
                Place(faults, input.LatitudeDeg);
                faults.AddAll("skyline", input.Skyline.Faults());
                IReadOnlyList<int> years = input.Years ?? [input.Skyline.SurveyedIn];
                for (int i = 0; i < years.Count; i++)
                    faults.Range($"years[{i}]", years[i], 1950, 2150, string.Empty);
                faults.ThrowIfAny();
                var reckoned = years.Select(y => SunYear.Of(input.Skyline, input.LatitudeDeg, y)).ToList();
                return (
                    new ExposureOutput([
                        .. reckoned.Select(y => new SunYearOutput(
                            y.Year,
                            y.GrowingSeason,
                            [.. y.Seasons.Select(s => new SeasonSunOutput(s.Season, Math.Round(s.Hours, 1), s.Class))],
                            [.. y.Months.Select(m => new MonthSun(m.Month, Math.Round(m.MorningHours, 2), Math.Round(m.AfternoonHours, 2)))]
                        )),
                    ]),
                    [.. reckoned.Select(y => y.Explain())]
                );
            }
        );

    public static Topic Et0 { get; } =
        new Topic<Et0Input, Et0Output>(
            "et0",
            "reference evapotranspiration of a day, by Penman–Monteith where the data allow, else by Hargreaves",
            input =>
            {
                var faults = new FaultList();
                Place(faults, input.LatitudeDeg);
                faults.Range("minC", input.MinC, -90, 60, "°C");
                faults.Range("maxC", input.MaxC, input.MinC, 60, "°C");
                faults.Range("elevationM", input.ElevationM, -430, 9000, "m");
                faults.Range("windHeightM", input.WindHeightM, 0.5, 200, "m");
                Optional(faults, "windMs", input.WindMs, 0, 80, "m/s");
                Optional(faults, "humidityMinPct", input.HumidityMinPct, 0, 100, "%");
                Optional(faults, "humidityMaxPct", input.HumidityMaxPct, 0, 100, "%");
                Optional(faults, "sunMJ", input.SunMJ, 0, 45, "MJ/m²");
                Optional(faults, "sunshineHours", input.SunshineHours, 0, 24, "h");
                Optional(faults, "extraterrestrialMJ", input.ExtraterrestrialMJ, 0, 50, "MJ/m²");
                faults.ThrowIfAny();
                int day = input.Day.DayOfYear;
                double mean = input.MeanC ?? ((input.MinC + input.MaxC) / 2);
                double? sun = input.SunMJ
                    ?? (input.SunshineHours is { } hours ? ReferenceEvapotranspiration.SunFromHours(hours, input.LatitudeDeg, day) : null);
                if (input.WindMs is { } wind && input.HumidityMinPct is { } dry && input.HumidityMaxPct is { } moist && sun is { } mj)
                {
                    double at2 = Math.Abs(input.WindHeightM - 2) < 0.01 ? wind : ReferenceEvapotranspiration.WindAt2M(wind, input.WindHeightM);
                    double vapour = ReferenceEvapotranspiration.Vapour(input.MinC, input.MaxC, dry, moist);
                    double full = ReferenceEvapotranspiration.PenmanMonteith(
                        input.MinC,
                        input.MaxC,
                        vapour,
                        at2,
                        mj,
                        input.LatitudeDeg,
                        input.ElevationM,
                        day
                    );
                    return (
                        new Et0Output(Math.Round(full, 2), "penman-monteith"),
                        [
                            Explain(
                                full,
                                WorkingPhrase.PenmanMonteith,
                                new Fact(
                                    WorkingPhrase.WindVapourSun,
                                    ("wind", new Quantity(at2, Dimension.Speed, 3)),
                                    ("vapour", Quantity.Number(vapour, 3)),
                                    ("sun", new Quantity(mj, Dimension.Radiation, 2))
                                )
                            ),
                        ]
                    );
                }
                double ra = input.ExtraterrestrialMJ ?? SolarGeometry.ExtraterrestrialRadiation(input.LatitudeDeg, day);
                double simple = ReferenceEvapotranspiration.Hargreaves(input.MinC, input.MaxC, mean, ra);
                return (
                    new Et0Output(Math.Round(simple, 2), "hargreaves"),
                    [
                        Explain(
                            simple,
                            WorkingPhrase.Hargreaves,
                            new Fact(WorkingPhrase.RaAndMean, ("ra", new Quantity(ra, Dimension.Radiation, 2)), ("mean", Quantity.Celsius(mean, 1)))
                        ),
                    ]
                );
            }
        );

    public static Topic HeatIndex { get; } =
        new Topic<HeatIndexInput, HeatIndexOutput>("heat-index", "how hot it feels in the shade, and what crews are warned of", input =>
        {
            var faults = new FaultList();
            faults.Range("airC", input.AirC, -30, 60, "°C");
            faults.Range("humidityPct", input.HumidityPct, 0, 100, "%");
            faults.ThrowIfAny();
            double index = Core.Climate.HeatIndex.C(input.AirC, input.HumidityPct);
            return (
                new HeatIndexOutput(Math.Round(index, 1), Math.Round((index * 9 / 5) + 32, 1), Core.Climate.HeatIndex.Word(index)),
                [Core.Climate.HeatIndex.Explain(input.AirC, input.HumidityPct)]
            );
        });

    internal static void Place(FaultList faults, double latitude) => faults.Range("latitudeDeg", latitude, -90, 90, "degrees");

    private static void Optional(FaultList faults, string field, double? value, double low, double high, string unit)
    {
        if (value is { } given)
            faults.Range(field, given, low, high, unit);
    }

    private static Working Explain(double mm, WorkingPhrase rule, Fact step) =>
        new(WorkingKind.ReferenceEvapotranspiration, new Quantity(mm, Dimension.Rain, 1), [], [step]) { Parts = [("rule", rule)] };
}
