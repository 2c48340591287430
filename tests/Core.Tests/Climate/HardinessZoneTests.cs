using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class HardinessZoneTests
{
    [Theory, Published("USDA Plant Hardiness Zone Map: zone n spans 10 °F from −60 + 10(n−1) °F in halves of 5 °F")]
    [InlineData(-60, "1a")]
    [InlineData(-55.1, "1a")]
    [InlineData(-55, "1b")]
    [InlineData(-10.1, "5b")]
    [InlineData(-10, "6a")]
    [InlineData(-5, "6b")]
    [InlineData(0, "7a")]
    [InlineData(5, "7b")]
    [InlineData(10, "8a")]
    [InlineData(15, "8b")]
    [InlineData(19.9, "8b")]
    [InlineData(65, "13b")]
    public void A_boundary_belongs_to_the_warmer_half(double fahrenheit, string zone)
    {
        (int number, char half) = HardinessZone.Of((fahrenheit - 32) * 5 / 9);
        Assert.Equal(zone, $"{number}{half}");
    }

    [Theory]
    [InlineData(-70, "1a")]
    [InlineData(40, "13b")]
    public void Beyond_the_map_the_last_zone_holds(double celsius, string zone)
    {
        (int number, char half) = HardinessZone.Of(celsius);
        Assert.Equal(zone, $"{number}{half}");
    }

    [Fact]
    public void The_zone_of_a_record_is_that_of_the_mean_of_its_yearly_minima()
    {
        HardinessZone zone = HardinessZone.From(A.Record(2001, 2, d => (d.DayOfYear == 20 ? (d.Year == 2001 ? -10 : -14) : 0, 10)));
        Assert.Equal(-12, zone.MeanMinimumC);
        Assert.Equal("8a", zone.Name);
        var minima = (IEnumerable<object?>)((Core.Facts.Fact)zone.Explain().Inputs[0].Value!)["items"]!;
        Assert.Equal(Core.Facts.Quantity.Celsius(-10, 1), ((Core.Facts.Fact)minima.First()!)["minimum"]);
    }
}
