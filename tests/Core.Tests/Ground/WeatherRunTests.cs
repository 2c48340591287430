using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Tests.Ground;

public sealed class WeatherRunTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);

    [Fact]
    public void Each_run_lays_a_past_year_day_by_day_under_the_plan()
    {
        WeatherRecord record = A.Record(2001, 4, d => (d.Year - 2000, d.DayOfYear + 100));
        WeatherRun run = WeatherRun.For(record, Start)[0];
        Assert.Equal(2001, run.Year);
        Assert.Equal(new LocalDate(2025, 9, 1), run.FirstDay);
        Assert.Equal(1, run.MinC[run.IndexOf(new LocalDate(2026, 10, 1))]);
        Assert.Equal(2, run.MinC[run.IndexOf(new LocalDate(2027, 3, 1))]);
    }

    [Fact]
    public void A_run_needs_its_plan_year_whole_but_not_its_run_up()
    {
        WeatherRecord record = A.Record(2001, 4, A.Mild);
        Assert.Equal([2001, 2002, 2003], WeatherRun.For(record, Start).Select(r => r.Year));
        Assert.All(WeatherRun.For(record, Start).SelectMany(r => r.MinC), v => Assert.False(double.IsNaN(v)));
    }

    [Fact]
    public void Years_left_out_of_the_record_are_not_run()
    {
        var days = A.Days(new LocalDate(2001, 1, 1), new LocalDate(2005, 1, 1), A.Mild).Where(d => d.Day.Year != 2003 || d.Day.Month > 1);
        Assert.Equal([2001], WeatherRun.For(WeatherRecord.From(A.Station(), days), Start).Select(r => r.Year));
    }

    [Fact]
    public void A_leap_day_of_the_plan_takes_the_weather_of_28_February_where_the_past_year_has_none()
    {
        WeatherRecord record = A.Record(2001, 2, d => (d.DayOfYear, 400));
        WeatherRun run = Assert.Single(WeatherRun.For(record, new LocalDate(2027, 9, 1)));
        Assert.Equal(59, run.MinC[run.IndexOf(new LocalDate(2028, 2, 29))]);
    }
}
