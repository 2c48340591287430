using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// The bulb's year: from 1 August, or 1 February in the south, so that planting, winter and flower lie in one. Days of
/// many years are compared on a common one of 365 days.
/// </summary>
public static class BulbCalendar
{
    /// <summary>Days of the common year.</summary>
    public const int CommonDays = 365;

    /// <summary>The month in which it begins.</summary>
    public static int FirstMonth(bool southern) => southern ? 2 : 8;

    /// <summary>The first day of the bulb year that begins in a calendar year.</summary>
    public static LocalDate StartOf(int year, bool southern) => new(year, FirstMonth(southern), 1);

    /// <summary>The calendar year in which the bulb year of a day begins.</summary>
    public static int YearOf(LocalDate day, bool southern) => day.Month >= FirstMonth(southern) ? day.Year : day.Year - 1;

    /// <summary>The first day of the common year.</summary>
    public static LocalDate CommonStart(bool southern) => StartOf(2001, southern);

    /// <summary>A day's place in the common year, 0 to 364; 29 February is taken as the 28th.</summary>
    public static int Slot(LocalDate day, bool southern)
    {
        LocalDate start = CommonStart(southern);
        var common = new LocalDate(start.Year, day.Month, day.Month == 2 && day.Day == 29 ? 28 : day.Day);
        return Period.DaysBetween(start, common < start ? common.PlusYears(1) : common);
    }
}
