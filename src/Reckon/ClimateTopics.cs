using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>frost</c>.</summary>
/// <param name="Weather">The record.</param>
/// <param name="ThresholdC">At or below this counts, −30 to 10 °C; default 0.</param>
/// <param name="Odds">Odds asked, each between 0 and 1; default 0.1, 0.5, 0.9.</param>
public sealed record FrostInput(WeatherInput Weather, double ThresholdC = 0, IReadOnlyList<double>? Odds = null);

/// <summary>One odds date, month and day.</summary>
public sealed record OddsOutput(double Odds, string? Date, string? ByRanks, double? StandardErrorDays);

/// <summary>One end of the season.</summary>
public sealed record FrostEndOutput(IReadOnlyList<OddsOutput> Odds, double ShareOfYearsWithout, IReadOnlyList<string> Days);

/// <summary>Output of <c>frost</c>.</summary>
public sealed record FrostOutput(double ThresholdC, IReadOnlyList<int> YearsUsed, IReadOnlyList<YearLeftOut> YearsLeftOut, FrostEndOutput LastSpring, FrostEndOutput FirstFall);

/// <summary>Input of <c>zone</c>: a record, or the annual minima themselves.</summary>
/// <param name="Weather">The record.</param>
/// <param name="AnnualMinimaC">Lowest temperature of each year, °C.</param>
public sealed record ZoneInput(WeatherInput? Weather = null, IReadOnlyList<double>? AnnualMinimaC = null);

/// <summary>Output of <c>zone</c>.</summary>
public sealed record ZoneOutput(string Zone, double MeanMinimumC, int Years);

/// <summary>Topics of climate.</summary>
internal static class ClimateTopics
{
    public static Topic Frost { get; } = new Topic<FrostInput, FrostOutput>(
        "frost", "odds of the last spring and first fall day at or below a threshold", input =>
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
            return (
                new FrostOutput(input.ThresholdC, record.YearsUsed, record.YearsLeftOut, End(spring, odds), End(fall, odds)),
                [.. odds.Select(spring.Explain), .. odds.Select(fall.Explain)]);
        });

    public static Topic Zone { get; } = new Topic<ZoneInput, ZoneOutput>(
        "zone", "hardiness zone from annual minima", input =>
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

    private static FrostEndOutput End(FrostOdds odds, IReadOnlyList<double> asked) => new(
        [.. asked.Select(o =>
        {
            OddsDate at = odds.DateAt(o);
            return new OddsOutput(o, MonthDay(at.Date), MonthDay(at.RankDate), double.IsNaN(at.StandardErrorDays) ? null : Math.Round(at.StandardErrorDays, 1));
        })],
        Math.Round(odds.ShareWithout, 3),
        [.. odds.Events.Where(e => e.Day is not null).Select(e => NodaTime.Text.LocalDatePattern.Iso.Format(e.Day!.Value))]);

    private static string? MonthDay(LocalDate? date) => date?.ToString("MM-dd", null);
}
