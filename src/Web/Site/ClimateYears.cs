using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Drawing;

namespace UnrulyMeadow.Web.Site;

/// <summary>Lays one year of a record, or the present one with what a live station tells, over the common year.</summary>
/// <param name="record">The record.</param>
/// <param name="live">What a live station saw and expects.</param>
public sealed class ClimateYears(WeatherRecord record, IReadOnlyList<LiveDay> live)
{
    private readonly bool _southern = record.Station.IsSouthern;

    /// <summary>The bulb year that holds a day.</summary>
    public int YearOf(LocalDate day) => BulbCalendar.YearOf(day, _southern);

    /// <summary>A year's lowest and highest air; null when nothing of it is known.</summary>
    public YearOnTop? Air(int year, string name)
    {
        var told = live.ToDictionary(d => d.Day);
        var low = Empty();
        var high = Empty();
        int forecast = BulbCalendar.CommonDays;
        foreach ((int slot, LocalDate day) in DaysOf(year))
        {
            int i = record.IndexOf(day);
            if (i >= 0 && i < record.MinC.Length && !double.IsNaN(record.MinC[i]) && !double.IsNaN(record.MaxC[i]))
                (low[slot], high[slot]) = (record.MinC[i], record.MaxC[i]);
            else if (told.TryGetValue(day, out LiveDay? d))
                (low[slot], high[slot], forecast) = (d.MinC, d.MaxC, d.Forecast ? Math.Min(forecast, slot) : forecast);
        }
        return Array.TrueForAll(low, double.IsNaN) ? null : new YearOnTop(name, low, high, forecast);
    }

    /// <summary>A year's temperature at a place; null when nothing of it is known.</summary>
    public YearOnTop? Ground(int year, string name, BulbPlace place)
    {
        var values = Empty();
        Take(record, GroundClimate.Of(record).At(place), year, values);
        if (live.Any(d => YearOf(d.Day) == year))
        {
            // The live days follow the record; half a year of either runs ahead of them.
            LocalDate from = live[0].Day.PlusDays(-180);
            WeatherRecord joined = WeatherRecord.From(
                record.Station,
                Enumerable
                    .Range(0, record.MinC.Length)
                    .Where(i => record.FirstDay.PlusDays(i) >= from && !double.IsNaN(record.MinC[i]) && !double.IsNaN(record.MaxC[i]))
                    .Select(i => new WeatherDay(record.FirstDay.PlusDays(i), record.MinC[i], record.MaxC[i], null))
                    .Concat(LiveStore.AsWeather(live))
            );
            Take(joined, GroundClimate.Of(joined).At(place), year, values);
        }
        return Array.TrueForAll(values, double.IsNaN) ? null : new YearOnTop(name, values, values);
    }

    private static double[] Empty()
    {
        var values = new double[BulbCalendar.CommonDays];
        Array.Fill(values, double.NaN);
        return values;
    }

    private void Take(WeatherRecord from, float[] soil, int year, double[] values)
    {
        foreach ((int slot, LocalDate day) in DaysOf(year))
        {
            int i = from.IndexOf(day);
            if (i >= 0 && i < soil.Length && double.IsNaN(values[slot]))
                values[slot] = soil[i];
        }
    }

    private IEnumerable<(int Slot, LocalDate Day)> DaysOf(int year)
    {
        LocalDate first = BulbCalendar.StartOf(year, _southern);
        for (LocalDate day = first; day < first.PlusYears(1); day = day.PlusDays(1))
        {
            if (day.Month != 2 || day.Day != 29)
                yield return (BulbCalendar.Slot(day, _southern), day);
        }
    }
}
