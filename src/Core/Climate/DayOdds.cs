using MathNet.Numerics.Statistics;
using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>One year's day of something, or none.</summary>
/// <param name="Year">The calendar year in which the bulb year begins.</param>
/// <param name="Day">The day; null when it did not come.</param>
public sealed record YearDay(int Year, LocalDate? Day);

/// <summary>
/// Days of many years as odds, by ranks. Years are laid over one common year that begins in late summer, so that dates
/// on both sides of New Year are kept in order; a year in which the day did not come counts as later than all others.
/// </summary>
public sealed class DayOdds
{
    private readonly bool _southern;
    private readonly double[] _numbers;

    /// <summary>Takes the years together.</summary>
    /// <param name="years">Each year's day.</param>
    /// <param name="southern">South of the equator the common year begins on 1 February instead of 1 August.</param>
    /// <param name="knownYears">Years of knowledge behind them.</param>
    public DayOdds(IReadOnlyList<YearDay> years, bool southern, int knownYears)
    {
        Years = years;
        KnownYears = Math.Min(knownYears, Math.Max(1, years.Count));
        _southern = southern;
        _numbers = [.. years.Select(y => y.Day is { } day ? BulbCalendar.Slot(day, southern) : double.PositiveInfinity).Order()];
    }

    /// <summary>Each year's day.</summary>
    public IReadOnlyList<YearDay> Years { get; }

    /// <summary>Years of knowledge: fewer than the years of a generated record.</summary>
    public int KnownYears { get; }

    /// <summary>Share of years in which the day did not come.</summary>
    public double ShareWithout => _numbers.Length == 0 ? 1 : (double)_numbers.Count(double.IsInfinity) / _numbers.Length;

    /// <summary>Standard error of a date at a share, days, as of a normal distribution; NaN with too little to tell.</summary>
    /// <param name="share">0 to 1.</param>
    public double StandardErrorDays(double share)
    {
        double[] came = [.. _numbers.Where(double.IsFinite)];
        if (came.Length < 2 || KnownYears < 2)
            return double.NaN;
        double z = MathNet.Numerics.Distributions.Normal.InvCDF(0, 1, share);
        return came.StandardDeviation() * Math.Sqrt((1.0 / KnownYears) + (z * z / (2 * (KnownYears - 1))));
    }

    /// <summary>The day by which it has come in a share of the years; null when it comes more rarely.</summary>
    /// <param name="share">0 to 1, e.g. 0.9 for nine years in ten.</param>
    public LocalDate? By(double share)
    {
        if (_numbers.Length == 0)
            return null;
        double position = share * (_numbers.Length - 1);
        int low = (int)Math.Floor(position);
        int high = Math.Min(low + 1, _numbers.Length - 1);
        double part = position - low;
        double number = part < 1e-9 ? _numbers[low] : _numbers[low] + ((_numbers[high] - _numbers[low]) * part);
        return double.IsFinite(number) ? BulbCalendar.CommonStart(_southern).PlusDays((int)Math.Round(number, MidpointRounding.AwayFromZero)) : null;
    }

    /// <summary>Share of years in which it has come by a day, 0 to 1.</summary>
    public double ShareBy(LocalDate day) =>
        _numbers.Length == 0 ? 0 : (double)_numbers.Count(n => n <= BulbCalendar.Slot(day, _southern)) / _numbers.Length;
}
