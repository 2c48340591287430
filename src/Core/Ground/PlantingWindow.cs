using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// When bulbs can be planted at a depth: from when the medium there is cool until four to six weeks of rooting remain
/// before it freezes.
/// </summary>
/// <param name="DepthCm">Depth to the bulb's base.</param>
/// <param name="Opens">First day of each fall whose week means below 15 °C (60 °F).</param>
/// <param name="Best">Last day with six weeks of rooting left.</param>
/// <param name="LastSafe">Last day with four weeks left.</param>
/// <param name="Freeze">When it freezes there.</param>
public sealed record PlantingWindow(double DepthCm, DayOdds Opens, DayOdds Best, DayOdds LastSafe, GroundFreeze Freeze)
{
    /// <summary>Cool enough below this week's mean, °C (60 °F is 15.6; common practice rounds to 15).</summary>
    public const double CoolC = 15;

    /// <summary>Rooting wanted before the freeze, days: at best, and at least (common practice).</summary>
    public const int BestRootingDays = 42,
        LeastRootingDays = 28;

    /// <summary>The day from which the medium is cool in nine falls of ten; null when it does not cool so far.</summary>
    public LocalDate? OpensSafely => Opens.By(0.9);

    /// <summary>The last day with at least four weeks of rooting in nine years of ten; null where freezing does not end it.</summary>
    public LocalDate? LastSafeDay => LastSafe.By(0.1);

    /// <summary>The last day with at least six weeks of rooting in the middle year; null likewise.</summary>
    public LocalDate? BestUntil => Best.By(0.5);

    /// <summary>Odds that planting on a day still leaves four weeks of rooting, 0 to 1.</summary>
    public double OddsOfRooting(LocalDate day) => 1 - LastSafe.ShareBy(day.PlusDays(-1));

    /// <summary>Looks through a record's falls.</summary>
    public static PlantingWindow From(GroundTemperatures ground, WeatherRecord record, double depthCm)
    {
        float[] soil = ground.AtDepth(depthCm);
        GroundFreeze freeze = GroundFreeze.From(ground, record, depthCm);
        bool southern = record.Station.IsSouthern;
        var opens = BulbYear
            .Of(record)
            .Select(y => new YearDay(y.Year, FirstCool(soil, y) is var i && i < 0 ? null : record.FirstDay.PlusDays(i)))
            .ToList();
        DayOdds Before(int days) => new([.. freeze.Freezes.Years.Select(y => y with { Day = y.Day?.PlusDays(-days) })], southern, record.KnownYears);
        return new PlantingWindow(
            depthCm,
            new DayOdds(opens, southern, record.KnownYears),
            Before(BestRootingDays),
            Before(LeastRootingDays),
            freeze
        );
    }

    /// <summary>The arithmetic behind the window.</summary>
    public Working Explain(ThermalClass what) =>
        new Working(
            WorkingKind.PlantingWindow,
            new Fact(WorkingPhrase.PlantingWindowValue, ("cool", Text(OpensSafely, "not cool")), ("frost", Text(LastSafeDay, "no end by frost"))),
            [
                new WorkingInput(InputName.Where, what.Describe()),
                new WorkingInput(
                    InputName.Falls,
                    new Fact(WorkingPhrase.WorthYearsKnowledge, ("years", Opens.Years.Count), ("knownYears", Opens.KnownYears))
                ),
                new WorkingInput(
                    InputName.CoolByFall,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Opens
                                .Years.Take(40)
                                .Select(y =>
                                    (object?)(
                                        y.Day is { } atDay ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", atDay)) : WorkingPhrase.Never
                                    )
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(
                    InputName.FrozenByWinter,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Freeze
                                .Freezes.Years.Take(40)
                                .Select(y =>
                                    (object?)(
                                        y.Day is { } atDay ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", atDay)) : WorkingPhrase.Never
                                    )
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.CoolInMiddleFallInNine,
                    ("never", Text(Opens.By(0.5), "never")),
                    ("never2", Text(OpensSafely, "never")),
                    ("standardErrorDays", Quantity.Number(Opens.StandardErrorDays(0.9)))
                ),
                new Fact(
                    WorkingPhrase.FrozenInOneWinterTenIn,
                    ("never", Text(Freeze.Freezes.By(0.1), "never")),
                    ("standardErrorDays", Quantity.Number(Freeze.Freezes.StandardErrorDays(0.1))),
                    ("never2", Text(Freeze.Freezes.By(0.5), "never"))
                ),
            ]
        )
        {
            Parts = [("depth", Quantity.Cm(DepthCm))],
        };

    private static int FirstCool(float[] soil, BulbYear year)
    {
        for (int i = year.From + 6; i < year.From + 200; i++)
        {
            double sum = 0;
            for (int k = 0; k < 7; k++)
                sum += soil[i - k];
            if (sum / 7 < CoolC)
                return i;
        }
        return -1;
    }

    private static string Text(LocalDate? day, string otherwise) => day?.ToString("d MMM", null) ?? otherwise;
}
