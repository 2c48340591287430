using MathNet.Numerics.Statistics;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// What all years had on each day of the common year (see <see cref="BulbCalendar"/>), winter whole in its middle.
/// </summary>
/// <param name="Lowest">Lowest of all years.</param>
/// <param name="Low">Undercut in one year of ten.</param>
/// <param name="Middle">Of the middle year.</param>
/// <param name="High">Passed in one year of ten.</param>
/// <param name="Highest">Highest of all years.</param>
public sealed record DailyBand(double[] Lowest, double[] Low, double[] Middle, double[] High, double[] Highest)
{
    /// <summary>
    /// Lays a record's daily values over one another; each day takes in its two neighbours on either side. NaN values are passed over.
    /// </summary>
    /// <param name="value">Value of a day of the record by index.</param>
    /// <param name="record">The record.</param>
    public static DailyBand From(Func<int, double> value, WeatherRecord record)
    {
        bool southern = record.Station.IsSouthern;
        var slots = new List<double>[BulbCalendar.CommonDays];
        for (int d = 0; d < BulbCalendar.CommonDays; d++)
            slots[d] = [];
        foreach (int year in record.YearsUsed)
        {
            (int from, int length) = record.RangeOf(year).GetOffsetAndLength(record.MinC.Length);
            for (int i = from; i < from + length; i++)
            {
                double v = value(i);
                if (double.IsNaN(v))
                    continue;
                int slot = BulbCalendar.Slot(record.FirstDay.PlusDays(i), southern);
                for (int k = -2; k <= 2; k++)
                    slots[(slot + k + BulbCalendar.CommonDays) % BulbCalendar.CommonDays].Add(v);
            }
        }
        var band = new DailyBand(
            new double[BulbCalendar.CommonDays],
            new double[BulbCalendar.CommonDays],
            new double[BulbCalendar.CommonDays],
            new double[BulbCalendar.CommonDays],
            new double[BulbCalendar.CommonDays]
        );
        for (int d = 0; d < BulbCalendar.CommonDays; d++)
        {
            double[] sorted = [.. slots[d].Order()];
            double At(double q) => sorted.Length == 0 ? double.NaN : SortedArrayStatistics.QuantileCustom(sorted, q, QuantileDefinition.R7);
            (band.Lowest[d], band.Low[d], band.Middle[d], band.High[d], band.Highest[d]) = (At(0), At(0.1), At(0.5), At(0.9), At(1));
        }
        return band;
    }
}
