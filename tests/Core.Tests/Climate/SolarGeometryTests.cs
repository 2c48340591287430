using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class SolarGeometryTests
{
    private const int ThirdOfSeptember = 246;

    [Fact, Published("FAO Irrigation and Drainage Paper 56, Example 8")]
    public void Extraterrestrial_radiation_at_20_south_on_3_September_is_32_2() =>
        Assert.Equal(32.2, SolarGeometry.ExtraterrestrialRadiation(-20, ThirdOfSeptember), 0.05);

    [Fact, Published("FAO Irrigation and Drainage Paper 56, Example 9")]
    public void Daylight_at_20_south_on_3_September_is_11_7_hours() => Assert.Equal(11.7, SolarGeometry.DaylightHours(-20, ThirdOfSeptember), 0.05);

    [Theory, Published("FAO Irrigation and Drainage Paper 56, Example 8: declination 0.120 rad")]
    [InlineData(246, 0.120)]
    public void Declination_is_that_of_the_worked_example(int day, double radians) => Assert.Equal(radians, SolarGeometry.Declination(day), 0.001);

    [Theory]
    [InlineData(70, 172, 24)]
    [InlineData(70, 355, 0)]
    [InlineData(0, 100, 12)]
    public void Daylight_holds_at_the_pole_and_the_equator(double latitude, int day, double hours) =>
        Assert.Equal(hours, SolarGeometry.DaylightHours(latitude, day), 0.01);
}
