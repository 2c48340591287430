using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Season;

/// <summary>How often two bulbs do what the planner wants of them.</summary>
/// <param name="Pair">The pair and the wish.</param>
/// <param name="First">The first's forecast.</param>
/// <param name="Second">The second's.</param>
/// <param name="Share">Share of years in which the wish comes true, 0 to 1.</param>
/// <param name="MedianDays">Median days in which both show; negative for days between.</param>
public sealed record PairOdds(BloomPair Pair, BloomForecast First, BloomForecast Second, double Share, double MedianDays)
{
    /// <summary>Flowers that share fewer days are not seen together (common practice).</summary>
    public const int TogetherDays = 4;

    /// <summary>One follows the other when at most so many days lie between them (common practice).</summary>
    public const int GapDays = 3;

    /// <summary>And when they share no more than so many (common practice).</summary>
    public const int SharedDays = 7;

    /// <summary>The odds of a pair; null when one of the two never flowers in the same year as the other.</summary>
    public static PairOdds? Of(BloomPair pair, StackBloom bloom)
    {
        BloomForecast? first = bloom.Forecasts.FirstOrDefault(f => f.Plant.Id == pair.FirstPlantId);
        BloomForecast? second = bloom.Forecasts.FirstOrDefault(f => f.Plant.Id == pair.SecondPlantId);
        if (first is null || second is null)
            return null;
        List<double> shared = [.. first.Years.Join(second.Years, f => f.WeatherYear, s => s.WeatherYear, (f, s) => Shared(pair.Wish, f, s))];
        if (shared.Count == 0)
            return null;
        int asked = Math.Max(first.YearsAsked, second.YearsAsked);
        int come = shared.Count(d => pair.Wish == PairWish.Together ? d >= TogetherDays : d is >= -GapDays and <= SharedDays);
        return new PairOdds(pair, first, second, (double)come / asked, shared.Median());
    }

    /// <summary>The arithmetic behind the odds.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PairOdds,
            new Fact(WorkingPhrase.PairOddsValueYears, ("share", Quantity.Share(Share))),
            [
                new WorkingInput(InputName.MedianDaysTogether, Quantity.Number(MedianDays)),
                new WorkingInput(
                    First.Plant,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            First
                                .Years.Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.PairOddsOfEach,
                                            ("weatherYear", WeatherYear.Short(y.WeatherYear)),
                                            ("first", y.First),
                                            ("over", y.Over)
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(
                    Second.Plant,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Second
                                .Years.Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.PairOddsOfEach,
                                            ("weatherYear", WeatherYear.Short(y.WeatherYear)),
                                            ("first", y.First),
                                            ("over", y.Over)
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
            ]
        )
        {
            Parts =
            [
                (
                    "figure",
                    Pair.Wish == PairWish.Together
                        ? (object?)new Fact(WorkingPhrase.PairOddsFigureWith, ("plant", First.Plant), ("plant2", Second.Plant))
                        : new Fact(WorkingPhrase.PairOddsFigureAfter, ("plant", Second.Plant), ("plant2", First.Plant))
                ),
                (
                    "rule",
                    Pair.Wish == PairWish.Together
                        ? (object?)new Fact(WorkingPhrase.TogetherLeastDaysOnWhichBoth, ("togetherDays", TogetherDays))
                        : new Fact(WorkingPhrase.FollowingMostDaysBetweenEarlierLast, ("gapDays", GapDays), ("sharedDays", SharedDays))
                ),
            ],
        };

    // Days on which both show; in a following pair counted from the second's first colour, so that a late second is a gap.
    private static double Shared(PairWish wish, BloomYear f, BloomYear s)
    {
        LocalDate from = wish == PairWish.Follow || s.First > f.First ? s.First : f.First;
        LocalDate to = wish == PairWish.Follow || f.Over < s.Over ? f.Over : s.Over;
        return Period.DaysBetween(from, to);
    }
}
