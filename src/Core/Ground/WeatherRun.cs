using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// One past year's weather laid over a plan's days: twelve months of run-up and the twelve months of the plan year, so
/// that "what if that year came again" can be computed day by day.
/// </summary>
public sealed class WeatherRun
{
    private readonly GroundClimate _ground;
    private readonly int[] _recordDays;

    private WeatherRun(WeatherRecord record, int year, LocalDate firstDay, int[] recordDays, double[] minC, double[] maxC)
    {
        _ground = GroundClimate.Of(record);
        LatitudeDeg = record.Station.LatitudeDeg;
        _recordDays = recordDays;
        Year = year;
        FirstDay = firstDay;
        MinC = minC;
        MaxC = maxC;
    }

    /// <summary>The calendar year of the record that lies under the first day of the plan year.</summary>
    public int Year { get; }

    /// <summary>The plan's day of index 0: twelve months before the plan year.</summary>
    public LocalDate FirstDay { get; }

    /// <summary>Latitude of the station, degrees north.</summary>
    public double LatitudeDeg { get; }

    /// <summary>Lowest temperature by plan day, °C, without gaps.</summary>
    public double[] MinC { get; }

    /// <summary>Highest temperature by plan day, °C, without gaps.</summary>
    public double[] MaxC { get; }

    /// <summary>Mean of minimum and maximum, °C.</summary>
    public double MeanC(int index) => (MinC[index] + MaxC[index]) / 2;

    /// <summary>Daily mean temperature where a bulb lies, by plan day, °C.</summary>
    public GroundDays SoilC(BulbPlace place) => _ground.Over(place, _recordDays);

    /// <summary>Lowest temperature of the day where roots are coldest in a planter, by plan day, °C.</summary>
    public float[] RootsC(ThermalClass what) => _ground.RootsOver(what, _recordDays);

    /// <summary>The index of a plan day; may lie outside the arrays.</summary>
    public int IndexOf(LocalDate day) => Period.DaysBetween(FirstDay, day);

    /// <summary>
    /// Every run that the record can give for a plan year. All days of the plan year itself must lie in used climate
    /// years; days that the run-up lacks are filled with what is usual for their day of the year.
    /// </summary>
    /// <param name="record">The station's record.</param>
    /// <param name="planYearStart">First day of the plan year, the first of a month.</param>
    public static IReadOnlyList<WeatherRun> For(WeatherRecord record, LocalDate planYearStart)
    {
        LocalDate first = planYearStart.PlusMonths(-12);
        int length = Period.DaysBetween(first, planYearStart.PlusMonths(12));
        var used = record.YearsUsed.ToHashSet();
        var runs = new List<WeatherRun>();
        for (int year = record.FirstDay.Year; year <= record.LastDay.Year; year++)
        {
            int shift = year - planYearStart.Year;
            if (
                !used.Contains(ClimateYear(record, planYearStart.PlusYears(shift)))
                || !used.Contains(ClimateYear(record, planYearStart.PlusYears(shift).PlusMonths(12).PlusDays(-1)))
            )
                continue;
            var min = new double[length];
            var max = new double[length];
            var days = new int[length];
            for (int i = 0; i < length; i++)
            {
                LocalDate day = first.PlusDays(i).PlusYears(shift);
                int at = record.IndexOf(day);
                bool within = at >= 0 && at < record.MinC.Length;
                days[i] = within ? at : GroundClimate.Usually(day);
                bool known = within && !double.IsNaN(record.MinC[at]) && !double.IsNaN(record.MaxC[at]);
                (min[i], max[i]) = known ? (record.MinC[at], record.MaxC[at]) : record.ExpectedOn(day);
            }
            runs.Add(new WeatherRun(record, year, first, days, min, max));
        }
        return runs;
    }

    private static int ClimateYear(WeatherRecord record, LocalDate day) => record.Station.IsSouthern && day.Month < 7 ? day.Year - 1 : day.Year;
}
