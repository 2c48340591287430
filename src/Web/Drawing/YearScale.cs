using System.Globalization;
using NodaTime;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>Days of a plan year, or of some of its months, along a drawing.</summary>
/// <param name="Start">First day, the first of a month.</param>
/// <param name="Days">Days drawn.</param>
/// <param name="Width">Width of the drawing.</param>
public sealed record YearScale(LocalDate Start, int Days, double Width)
{
    /// <summary>The width at which a year is drawn.</summary>
    public const double UsualWidth = 960;

    /// <summary>The width of a strip across a whole page.</summary>
    public const double StripWidth = 1216;

    /// <summary>A plan year across a whole page.</summary>
    public static YearScale Across(LocalDate start) => Of(start) with { Width = StripWidth };

    /// <summary>A plan year at the usual width.</summary>
    public static YearScale Of(LocalDate start) => new(start, Period.DaysBetween(start, start.PlusMonths(12)), UsualWidth);

    /// <summary>The whole months that hold two days, at the usual width.</summary>
    public static YearScale Over(LocalDate first, LocalDate last)
    {
        var start = new LocalDate(first.Year, first.Month, 1);
        return new(start, Period.DaysBetween(start, new LocalDate(last.Year, last.Month, 1).PlusMonths(1)), UsualWidth);
    }

    /// <summary>Left edge of a day, by index.</summary>
    public double X(double index) => index * Width / Days;

    /// <summary>Left edge of a day.</summary>
    public double X(LocalDate day) => X(Period.DaysBetween(Start, day));

    /// <summary>The firsts of the months with their names.</summary>
    public IEnumerable<(double X, double Middle, string Name)> Months()
    {
        for (LocalDate first = Start; first < Start.PlusDays(Days); first = first.PlusMonths(1))
        {
            double x = X(first);
            yield return (x, (x + X(first.PlusMonths(1))) / 2, first.ToString("MMM", CultureInfo.InvariantCulture));
        }
    }
}
