using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>A bulb's year in a record: from 1 August (1 February in the south) over the winter and twelve months on.</summary>
/// <param name="Year">The calendar year in which it begins.</param>
/// <param name="From">Index of its first day in the record.</param>
/// <param name="Days">365 or 366.</param>
public readonly record struct BulbYear(int Year, int From, int Days)
{
    /// <summary>The bulb years that a record holds whole: both climate years that each touches are used.</summary>
    public static IReadOnlyList<BulbYear> Of(WeatherRecord record)
    {
        bool southern = record.Station.IsSouthern;
        var used = record.YearsUsed.ToHashSet();
        var years = new List<BulbYear>();
        for (int year = record.FirstDay.Year; year <= record.LastDay.Year; year++)
        {
            LocalDate first = BulbCalendar.StartOf(year, southern);
            LocalDate end = first.PlusYears(1);
            int climate = southern ? year - 1 : year;
            if (first >= record.FirstDay && end.PlusDays(-1) <= record.LastDay && used.Contains(climate) && used.Contains(climate + 1))
                years.Add(new BulbYear(year, record.IndexOf(first), Period.DaysBetween(first, end)));
        }
        return years;
    }
}
