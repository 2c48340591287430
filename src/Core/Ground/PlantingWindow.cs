using NodaTime;
using UnrulyMeadow.Core.Climate;

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
        new(
            $"Planting at {DepthCm:0} cm",
            $"{Text(OpensSafely, "not cool")} to {Text(LastSafeDay, "no end by frost")}",
            [
                new("where", what.Describe()),
                new("falls", $"{Opens.Years.Count}, worth {Opens.KnownYears} years of knowledge"),
                new("cool by fall", string.Join(", ", Opens.Years.Take(40).Select(y => y.Day?.ToString("d MMM", null) ?? "never"))),
                new("frozen by winter", string.Join(", ", Freeze.Freezes.Years.Take(40).Select(y => y.Day?.ToString("d MMM", null) ?? "never"))),
            ],
            "Opens when the week's mean at bulb depth is below 15 °C (60 °F); best until six, safe until four weeks of rooting remain before the medium freezes there",
            "Common practice; temperatures by heat conduction with freezing",
            [
                $"Cool by {Text(Opens.By(0.5), "never")} in the middle fall, by {Text(OpensSafely, "never")} in nine of ten (± {Opens.StandardErrorDays(0.9):0} days).",
                $"Frozen by {Text(Freeze.Freezes.By(0.1), "never")} in one winter of ten (± {Freeze.Freezes.StandardErrorDays(0.1):0} days), by {Text(Freeze.Freezes.By(0.5), "never")} in the middle one.",
            ]
        );

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
