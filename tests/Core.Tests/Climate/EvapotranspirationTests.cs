using UnrulyMeadow.Core.Climate;
using Et = UnrulyMeadow.Core.Climate.ReferenceEvapotranspiration;

namespace UnrulyMeadow.Core.Tests.Climate;

[Published("FAO Irrigation and Drainage Paper 56 (Allen et al. 1998)")]
public sealed class EvapotranspirationTests
{
    private const double BrusselsDeg = 50.8;
    private const int Day6July = 187;

    [Fact]
    public void Example_18_Brussels_on_6_July_needs_3_9_mm()
    {
        double wind = Et.WindAt2M(10 / 3.6, 10);
        double vapour = Et.Vapour(12.3, 21.5, 63, 84);
        double sun = Et.SunFromHours(9.25, BrusselsDeg, Day6July);
        Assert.Equal(2.078, wind, 2);
        Assert.Equal(1.409, vapour, 2);
        Assert.Equal(22.07, sun, 1);
        Assert.Equal(3.9, Et.PenmanMonteith(12.3, 21.5, vapour, wind, sun, BrusselsDeg, 100, Day6July), 1);
    }

    [Fact]
    public void Example_20_Lyon_in_July_needs_5_0_mm_from_temperatures_alone() => Assert.Equal(5.0, Et.Hargreaves(14.8, 26.6, 20.7, 40.55), 1);

    [Theory]
    [InlineData(1, 0.657)]
    [InlineData(20, 2.338)]
    [InlineData(30, 4.243)]
    public void Saturation_pressure_is_that_of_annex_2_3(double c, double kPa) => Assert.Equal(kPa, Et.Saturation(c), 3);

    [Fact]
    public void A_record_with_wind_humidity_and_sun_is_met_by_the_full_equation_and_another_by_temperatures()
    {
        var day = new WeatherDay(A.Day(2013, 7, 6), 12.3, 21.5, 0, null, 10 / 3.6, 73.5, 22.07);
        var station = new Station("B", "Brussels", BrusselsDeg, 4.4, 100);
        (double full, bool isFull) = Et.Of(WeatherRecord.From(station, [day]), 0);
        Assert.True(isFull);
        Assert.Equal(3.9, full, 0.15);
        Assert.False(Et.Of(WeatherRecord.From(station, [day with { WindMs = null }]), 0).Full);
    }

    [Fact]
    public void New_Yorks_year_asks_for_more_water_in_July_than_in_January()
    {
        WeatherRecord record = A.Record("New York");
        double Month(int m) =>
            Enumerable.Range(0, record.MinC.Length).Where(i => record.FirstDay.PlusDays(i).Month == m).Average(i => Et.Of(record, i).Mm);
        Assert.InRange(Month(7), 4, 6.5);
        Assert.InRange(Month(1), 0.2, 1.5);
    }
}
