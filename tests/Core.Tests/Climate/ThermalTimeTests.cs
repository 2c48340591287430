using CsCheck;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class ThermalTimeTests
{
    [Theory, Published("Baskerville & Emin 1969, single-sine method; values computed from its formula")]
    [InlineData(4, 18, 10, 2.751)]
    [InlineData(-2, 12, 5, 2.228)]
    [InlineData(8, 15, 10, 1.968)]
    [InlineData(-3, 3, 0, 0.955)]
    public void Single_sine_gives_the_computed_values(double min, double max, double baseC, double expected) =>
        Assert.Equal(expected, ThermalTime.SingleSine(min, max, baseC), 0.0006);

    [Fact]
    public void A_day_wholly_above_the_base_counts_its_mean() => Assert.Equal(7, ThermalTime.SingleSine(12, 22, 10));

    [Fact]
    public void A_day_wholly_below_the_base_counts_nothing() => Assert.Equal(0, ThermalTime.SingleSine(-5, 9, 10));

    [Fact]
    public void The_formula_is_the_area_of_the_sine_above_the_base() =>
        Gen.Select(Gen.Double[-10, 20], Gen.Double[0.5, 15], Gen.Double[-5, 15])
            .Sample(
                (min, half, b) =>
                {
                    const int Steps = 4000;
                    double mean = min + half;
                    double area = Enumerable.Range(0, Steps).Average(i => Math.Max(0, mean + (half * Math.Sin(2 * Math.PI * (i + 0.5) / Steps)) - b));
                    Assert.Equal(area, ThermalTime.SingleSine(min, min + (2 * half), b), 0.01);
                },
                iter: 60
            );
}
