using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class HeatTests
{
    [Theory]
    [InlineData(90, 70, 105.9)]
    [InlineData(96, 50, 107.6)]
    [InlineData(100, 40, 109.3)]
    [Published("US National Weather Service, The Heat Index Equation (Rothfusz 1990)")]
    public void The_heat_index_is_the_weather_services(double airF, double humidity, double index) =>
        Assert.Equal(index, HeatIndex.F(airF, humidity), 0.1);

    [Theory]
    [InlineData(80, 40, 80)]
    [InlineData(82, 40, 81)]
    [InlineData(84, 40, 83)]
    [InlineData(86, 40, 85)]
    [InlineData(88, 40, 88)]
    [InlineData(90, 40, 91)]
    [FromMemory]
    public void It_follows_the_services_chart_across_the_change_of_forms(double airF, double humidity, double chart) =>
        Assert.Equal(chart, HeatIndex.F(airF, humidity), 1.0);

    [Fact]
    public void It_does_not_jump_where_the_forms_change()
    {
        for (double t = 70; t < 90; t += 0.1)
            Assert.InRange(HeatIndex.F(t + 0.1, 50) - HeatIndex.F(t, 50), 0, 1.2);
    }

    [Fact]
    [Published("US National Weather Service, The Heat Index Equation: subtract below 13 % humidity, add above 85 %")]
    public void Dry_air_takes_from_the_index_and_humid_air_adds_to_it()
    {
        Assert.True(HeatIndex.F(95, 12.9) < HeatIndex.F(95, 13));
        Assert.Equal(13.0 / 10 * ((87.0 - 84) / 5), HeatIndex.F(84, 98) - Regression(84, 98), 0.01);
    }

    [Fact]
    public void Crews_are_warned_in_the_services_words()
    {
        Assert.Null(HeatIndex.Word(26));
        Assert.Equal("caution", HeatIndex.Word(HeatIndex.C(28, 60)));
        Assert.Equal("danger", HeatIndex.Word(HeatIndex.C(35, 60)));
    }

    [Fact]
    public void Hot_days_are_counted_above_30_C_with_their_longest_run()
    {
        WeatherRecord record = A.Record(2001, 2, d => (15, d.Month == 7 && d.Day is > 3 and < 12 or 20 ? 31 : 30));
        HeatSpells heat = HeatSpells.From(record);
        Assert.Equal((9, 8, 31.0), (heat.Years[0].Days, heat.Years[0].LongestRun, heat.Years[0].HighestC));
        Assert.Equal(1, heat.ShareWithRun(8));
        Assert.Equal(0, heat.ShareWithRun(9));
    }

    private static double Regression(double t, double r) =>
        -42.379
        + (2.04901523 * t)
        + (10.14333127 * r)
        - (0.22475541 * t * r)
        - (0.00683783 * t * t)
        - (0.05481717 * r * r)
        + (0.00122874 * t * t * r)
        + (0.00085282 * t * r * r)
        - (0.00000199 * t * t * r * r);
}
