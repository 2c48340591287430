using MathNet.Numerics.Statistics;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Days between the last spring and the first fall day at or below a threshold, year by year.</summary>
/// <param name="ThresholdC">The threshold, °C.</param>
/// <param name="Years">Each used year with its days; a year without such days has all its days, one without a warm half none.</param>
public sealed record SeasonLength(double ThresholdC, IReadOnlyList<(int Year, int Days)> Years)
{
    /// <summary>The days that a share of the years reaches: 0.9 gives what nine years in ten have.</summary>
    public double ReachedBy(double share) =>
        Years.Count == 0 ? double.NaN : Years.Select(y => (double)y.Days).QuantileCustom(1 - share, QuantileDefinition.R7);

    /// <summary>Counts a record.</summary>
    public static SeasonLength From(WeatherRecord record, double thresholdC)
    {
        FrostOdds spring = FrostOdds.From(record, FrostEnd.LastSpring, thresholdC);
        FrostOdds fall = FrostOdds.From(record, FrostEnd.FirstFall, thresholdC);
        return new SeasonLength(thresholdC, [.. spring.Events.Zip(fall.Events, (s, f) =>
                {
                    var (first, end) = (record.YearStart(s.Year), record.YearStart(s.Year + 1));
                    // A winter's last freeze may lie before the year's first day, and the next one's first beyond its last.
                    var from = s.Day is { } last && last >= first ? last.PlusDays(1) : first;
                    var to = f.Day is { } next && next < end ? next : end;
                    return (s.Year, Math.Max(0, NodaTime.Period.DaysBetween(from, to)));
                })]);
    }

    /// <summary>The arithmetic behind the lengths.</summary>
    public Working Explain() =>
        new(
            "Growing season",
            $"{ReachedBy(0.5):0} days in the middle year",
            [new("threshold", $"{ThresholdC:0.0} °C"), new("years", string.Join(", ", Years.Select(y => $"{WeatherYear.Short(y.Year)}: {y.Days}")))],
            "Days after the last spring day at or below the threshold and before the first fall one; ranks of the years",
            "Plain count",
            [$"Nine years in ten have at least {ReachedBy(0.9):0} days, one in ten at least {ReachedBy(0.1):0}."]
        );
}

/// <summary>One year's heat.</summary>
/// <param name="Year">The climate year.</param>
/// <param name="Days">Days with a highest above the threshold.</param>
/// <param name="LongestRun">Most of them in a row.</param>
/// <param name="HighestC">Highest of the year, °C.</param>
public sealed record HeatYear(int Year, int Days, int LongestRun, double HighestC);

/// <summary>Hot days and how they come in runs.</summary>
/// <param name="ThresholdC">A day above it counts, °C; 30 as heat zones count them.</param>
/// <param name="Years">Each used year.</param>
public sealed record HeatSpells(double ThresholdC, IReadOnlyList<HeatYear> Years)
{
    /// <summary>As heat zones count.</summary>
    public const double HeatZoneC = 30;

    /// <summary>Mean days a year.</summary>
    public double MeanDays => Years.Count == 0 ? double.NaN : Years.Average(y => y.Days);

    /// <summary>Share of years with a run of at least so many days.</summary>
    public double ShareWithRun(int days) => Years.Count == 0 ? 0 : (double)Years.Count(y => y.LongestRun >= days) / Years.Count;

    /// <summary>Counts a record.</summary>
    public static HeatSpells From(WeatherRecord record, double thresholdC = HeatZoneC)
    {
        var years = new List<HeatYear>();
        foreach (int year in record.YearsUsed)
        {
            int days = 0;
            int run = 0;
            int longest = 0;
            double highest = double.NegativeInfinity;
            foreach (double max in record.MaxC.AsSpan(record.RangeOf(year)))
            {
                run = max > thresholdC ? run + 1 : 0;
                days += max > thresholdC ? 1 : 0;
                longest = Math.Max(longest, run);
                if (max > highest)
                    highest = max;
            }
            years.Add(new HeatYear(year, days, longest, highest));
        }
        return new HeatSpells(thresholdC, years);
    }

    /// <summary>The arithmetic behind the counts.</summary>
    public Working Explain() =>
        new(
            $"Days above {ThresholdC:0.#} °C",
            $"{MeanDays:0.0} a year",
            [
                new(
                    "years",
                    string.Join(", ", Years.Select(y => $"{WeatherYear.Short(y.Year)}: {y.Days}, {y.LongestRun} in a row, {y.HighestC:0.0} °C"))
                ),
            ],
            "Days with a highest above the threshold; runs are such days in a row",
            "Days above 30 °C (86 °F) as heat zones count them",
            [$"A run of five days or more in {ShareWithRun(5):P0} of years, of ten or more in {ShareWithRun(10):P0}."]
        );
}
