using MathNet.Numerics.Statistics;
using UnrulyMeadow.Core.Facts;

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
        new Working(
            WorkingKind.GrowingSeason,
            new Fact(WorkingPhrase.DaysInMiddleYear, ("reachedBy", Quantity.Number(ReachedBy(0.5)))),
            [
                new WorkingInput(InputName.Threshold, Quantity.Celsius(ThresholdC, 1)),
                new WorkingInput(
                    InputName.Years,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Years
                                .Select(y =>
                                    (object?)new Fact(WorkingPhrase.GrowingSeasonYearsEach, ("year", WeatherYear.Short(y.Year)), ("days", y.Days))
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.NineYearsInTenHaveLeast,
                    ("reachedBy", Quantity.Number(ReachedBy(0.9))),
                    ("reachedBy2", Quantity.Number(ReachedBy(0.1)))
                ),
            ]
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
        new Working(
            WorkingKind.HotDays,
            new Fact(WorkingPhrase.HotDaysValueYear, ("meanDays", Quantity.Number(MeanDays, 1))),
            [
                new WorkingInput(
                    InputName.Years,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Years
                                .Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.InRow,
                                            ("year", WeatherYear.Short(y.Year)),
                                            ("days", y.Days),
                                            ("longestRun", y.LongestRun),
                                            ("highest", Quantity.Celsius(y.HighestC, 1))
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.RunFiveDaysOrMoreIn,
                    ("shareWithRun", Quantity.Share(ShareWithRun(5))),
                    ("shareWithRun2", Quantity.Share(ShareWithRun(10)))
                ),
            ]
        )
        {
            Parts = [("threshold", Quantity.Celsius(ThresholdC, 1))],
        };
}
