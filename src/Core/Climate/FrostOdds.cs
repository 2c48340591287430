using MathNet.Numerics.Distributions;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Which end of the growing season a frost date belongs to.</summary>
public enum FrostEnd
{
    /// <summary>A winter's last day at or below the threshold.</summary>
    LastSpring,

    /// <summary>A winter's first day at or below the threshold.</summary>
    FirstFall,
}

/// <summary>The day found in one year, or none.</summary>
/// <param name="Year">The climate year in whose spring the winter ends, or in whose fall it begins.</param>
/// <param name="Day">The day; null when no day of that winter was at or below the threshold.</param>
public sealed record FrostEvent(int Year, LocalDate? Day);

/// <summary>A date with its odds.</summary>
/// <param name="Odds">0 to 1: of a later freeze in spring, of an earlier one in fall.</param>
/// <param name="Date">The date, in the common year 2001 or 2002; null ("none") where a freeze is rarer than the odds asked.</param>
/// <param name="StandardErrorDays">How uncertain the date is, from the number of years alone.</param>
/// <param name="RankDate">The same date by plain ranks of the years, beside the fitted one; null likewise.</param>
public sealed record OddsDate(double Odds, LocalDate? Date, double StandardErrorDays, LocalDate? RankDate);

/// <summary>
/// Odds of the last spring or first fall day at or below a threshold, from a fitted normal distribution (found
/// adequate by Thom &amp; Shaw 1958) mixed with the share of years without such a day.
/// </summary>
/// <remarks>
/// Winters are looked at whole, from 1 July in the north and 1 January in the south, so that a first freeze after New
/// Year, or a last one before it, counts. Day numbers count from that day as if the year had 365 days. It says nothing about leaves on clear
/// nights, which can be colder than the
/// station's shelter: see the area's frost-pocket offset.
/// </remarks>
public sealed class FrostOdds
{
    /// <summary>The thresholds at which frost is told, °F: from a chill to a killing freeze.</summary>
    public static IReadOnlyList<double> ThresholdsF { get; } = [36, 32, 28, 24, 20, 16];

    /// <summary>Odds of a freeze after the frost all-clear that a site accepts unless it says otherwise: one year of ten (common practice).</summary>
    public const double UsualRisk = 0.1;

    private readonly bool _southern;

    private FrostOdds(FrostEnd end, double thresholdC, bool southern, IReadOnlyList<FrostEvent> events, List<double> dayNumbers, int knownYears)
    {
        End = end;
        ThresholdC = thresholdC;
        Events = events;
        KnownYears = knownYears;
        _southern = southern;
        DayNumbers = dayNumbers;
        ShareWithout = events.Count == 0 ? 1 : 1 - ((double)dayNumbers.Count / events.Count);
        MeanDay = dayNumbers.Count == 0 ? double.NaN : dayNumbers.Average();
        double mean = MeanDay;
        StandardDeviationDays = dayNumbers.Count < 2 ? double.NaN : Math.Sqrt(dayNumbers.Sum(d => (d - mean) * (d - mean)) / (dayNumbers.Count - 1));
    }

    /// <summary>Spring or fall.</summary>
    public FrostEnd End { get; }

    /// <summary>The threshold, °C; a day at or below it counts.</summary>
    public double ThresholdC { get; }

    /// <summary>One entry per used year.</summary>
    public IReadOnlyList<FrostEvent> Events { get; }

    /// <summary>Years of knowledge behind the odds; fewer than the events of a generated record.</summary>
    public int KnownYears { get; }

    /// <summary>p₀: share of years without such a day, 0 to 1.</summary>
    public double ShareWithout { get; }

    /// <summary>μ: mean day number of the years with such a day; NaN when there is none.</summary>
    public double MeanDay { get; }

    /// <summary>σ: sample standard deviation, days; NaN with fewer than two years.</summary>
    public double StandardDeviationDays { get; }

    private List<double> DayNumbers { get; }

    /// <summary>A threshold in °C.</summary>
    public static double CelsiusOf(double fahrenheit) => (fahrenheit - 32) * 5 / 9;

    /// <summary>Scans a record. Every used year counts once.</summary>
    public static FrostOdds From(WeatherRecord record, FrostEnd end, double thresholdC)
    {
        var events = new List<FrostEvent>(record.YearsUsed.Count);
        var numbers = new List<double>(record.YearsUsed.Count);
        foreach (int year in record.YearsUsed)
        {
            LocalDate summer = record.YearStart(year).PlusMonths(6);
            int found =
                end == FrostEnd.LastSpring
                    ? LastAtOrBelow(record.MinC, record.IndexOf(summer.PlusMonths(-12)), record.IndexOf(summer), thresholdC)
                    : FirstAtOrBelow(record.MinC, record.IndexOf(summer), record.IndexOf(summer.PlusMonths(12)), thresholdC);
            LocalDate? day = found < 0 ? null : record.FirstDay.PlusDays(found);
            events.Add(new FrostEvent(year, day));
            if (day is { } d)
                numbers.Add(DayNumber(d, record.Station.IsSouthern));
        }
        return new FrostOdds(end, thresholdC, record.Station.IsSouthern, events, numbers, record.KnownYears);
    }

    /// <summary>
    /// Odds, 0 to 1, of a freeze after a date (spring) or on or before it (fall):
    /// P = (1−p₀)(1−Φ((d−μ)/σ)) or (1−p₀)Φ((d−μ)/σ).
    /// </summary>
    /// <param name="day">Any date; only its place in the year counts.</param>
    public double OddsOn(LocalDate day)
    {
        if (DayNumbers.Count == 0)
            return 0;
        double d = DayNumber(day, _southern);
        double below =
            double.IsNaN(StandardDeviationDays) || StandardDeviationDays <= 0
                ? (d >= MeanDay ? 1 : 0)
                : Normal.CDF(MeanDay, StandardDeviationDays, d);
        return (1 - ShareWithout) * (End == FrostEnd.LastSpring ? 1 - below : below);
    }

    /// <summary>
    /// Odds, 0 to 1, that a freeze has come by a day of the winter, or is still to come after it: whichever is rarer. Nought in
    /// summer, nearly one in the depth of a cold winter, and without a step anywhere.
    /// </summary>
    /// <param name="spring">Odds of the last freeze.</param>
    /// <param name="fall">Odds of the first.</param>
    /// <param name="day">Any date; only its place in the year counts.</param>
    public static double OddsOn(FrostOdds spring, FrostOdds fall, LocalDate day) => Math.Min(spring.OddsOn(day), fall.OddsOn(day));

    /// <summary>The date after which (spring) or before which (fall) a freeze comes with the given odds.</summary>
    /// <param name="odds">Between 0 and 1, e.g. 0.1 for one year in ten.</param>
    public OddsDate DateAt(double odds)
    {
        if (odds is not (> 0 and < 1))
            throw new InvalidInputException("odds", "must lie between 0 and 1");
        double share = 1 - ShareWithout;
        LocalDate? rank = RankDate(odds);
        if (share <= odds || DayNumbers.Count < 2 || StandardDeviationDays <= 0)
            return new OddsDate(odds, share <= odds ? null : rank, double.NaN, rank);
        double below = End == FrostEnd.LastSpring ? 1 - (odds / share) : odds / share;
        double z = Normal.InvCDF(0, 1, below);
        double n = Math.Max(2, Math.Min(DayNumbers.Count, KnownYears * share));
        double error = StandardDeviationDays * Math.Sqrt((1 / n) + (z * z / (2 * (n - 1))));
        return new OddsDate(odds, DateOf(MeanDay + (z * StandardDeviationDays)), error, rank);
    }

    /// <summary>The arithmetic behind one odds date.</summary>
    public Working Explain(double odds)
    {
        OddsDate at = DateAt(odds);
        double share = 1 - ShareWithout;
        var steps = new List<object?>
        {
            new Fact(WorkingPhrase.YearsWithSuchADay, ("with", DayNumbers.Count), ("years", Events.Count), ("share", Quantity.Number(share, 2))),
        };
        if (at.Date is not null && !double.IsNaN(at.StandardErrorDays))
        {
            double below = End == FrostEnd.LastSpring ? 1 - (odds / share) : odds / share;
            double z = Normal.InvCDF(0, 1, below);
            steps.Add(
                new Fact(
                    WorkingPhrase.MeanStandardDeviationDays,
                    ("meanDay", DateOf(MeanDay)),
                    ("standardDeviationDays", Quantity.Number(StandardDeviationDays, 1))
                )
            );
            steps.Add(
                new Fact(
                    WorkingPhrase.DayAfter,
                    ("below", Quantity.Number(below, 3)),
                    ("count", Quantity.Number(z, 3)),
                    ("meanDay", Quantity.Number(MeanDay, 1)),
                    ("count2", Quantity.Number(z, 3)),
                    ("standardDeviationDays", Quantity.Number(StandardDeviationDays, 1)),
                    ("standardDeviationDays2", Quantity.Number(MeanDay + (z * StandardDeviationDays), 1)),
                    ("dateOf", DateOf(0))
                )
            );
            steps.Add(new Fact(WorkingPhrase.StandardErrorDays, ("standardErrorDays", Quantity.Number(at.StandardErrorDays, 1))));
        }
        steps.Add(at.RankDate is { } r ? (object?)new Fact(WorkingPhrase.PlainRanksYears, ("day", r)) : WorkingPhrase.PlainRanksYearsNone);
        return new Working(
            WorkingKind.FrostDate,
            at.Date is { } day ? new Fact(WorkingPhrase.DayOfTheYear, ("day", day)) : WorkingPhrase.None,
            [
                new WorkingInput(
                    InputName.YearsUsed,
                    Events.Count == 0
                        ? (object?)WorkingPhrase.FrostDateYearsUsed
                        : new Fact(
                            WorkingPhrase.FrostDateYearsUsedPair,
                            ("events", Events.Count),
                            ("year", WeatherYear.Span(Events[0].Year, Events[^1].Year))
                        )
                ),
                new WorkingInput(InputName.Threshold, Quantity.Celsius(ThresholdC, 1)),
            ],
            steps
        )
        {
            Parts =
            [
                ("end", End == FrostEnd.LastSpring ? WorkingPhrase.LastSpringDay : WorkingPhrase.FirstFallDay),
                ("threshold", Quantity.Celsius(ThresholdC, 1)),
                ("odds", Quantity.Share(odds)),
                ("rule", End == FrostEnd.LastSpring ? (object?)WorkingPhrase.FrostDateRule : WorkingPhrase.FrostDateRulePair),
            ],
        };
    }

    // 0-based day after midsummer, as if the year had 365 days, so that leap years do not shift the fit.
    private static double DayNumber(LocalDate day, bool southern)
    {
        int dayOfMonth = day.Month == 2 && day.Day == 29 ? 28 : day.Day;
        int number = new LocalDate(2001, day.Month, dayOfMonth).DayOfYear - 1;
        return southern ? number : (number - 181 + 365) % 365;
    }

    private static int LastAtOrBelow(double[] values, int from, int to, double threshold)
    {
        for (int i = Math.Min(to, values.Length) - 1; i >= Math.Max(0, from); i--)
        {
            if (values[i] <= threshold)
                return i;
        }
        return -1;
    }

    private static int FirstAtOrBelow(double[] values, int from, int to, double threshold)
    {
        for (int i = Math.Max(0, from); i < Math.Min(to, values.Length); i++)
        {
            if (values[i] <= threshold)
                return i;
        }
        return -1;
    }

    private LocalDate DateOf(double dayNumber) =>
        new LocalDate((_southern ? 2001 : 2000) + (End == FrostEnd.FirstFall ? 1 : 0), _southern ? 1 : 7, 1).PlusDays(
            (int)Math.Round(dayNumber, MidpointRounding.AwayFromZero)
        );

    // Weibull plotting positions k/(n+1) over all years, years without an event beyond the last rank.
    private LocalDate? RankDate(double odds)
    {
        int n = Events.Count;
        if (DayNumbers.Count == 0)
            return null;
        List<double> sorted = End == FrostEnd.LastSpring ? [.. DayNumbers.OrderDescending()] : [.. DayNumbers.Order()];
        double position = (odds * (n + 1)) - 1;
        int low = (int)Math.Floor(position);
        if (low < 0)
            return DateOf(sorted[0]);
        if (low >= sorted.Count)
            return null;
        if (low + 1 >= sorted.Count)
            return position - low < 1e-9 ? DateOf(sorted[low]) : null;
        return DateOf(sorted[low] + ((sorted[low + 1] - sorted[low]) * (position - low)));
    }
}
