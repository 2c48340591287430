using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Tests.Ground;

public sealed class BulbDepthTests
{
    [Theory, FromMemory]
    [InlineData(-3, 0)]
    [InlineData(-1, 0.5)]
    [InlineData(0, 1)]
    [InlineData(9, 1)]
    [InlineData(11, 0.5)]
    [InlineData(13, 0)]
    public void Cold_counts_fully_from_0_to_9_degrees_and_fades_to_13_and_minus_2(double soil, double credit) =>
        Assert.Equal(credit, ColdCredit.Of(soil), 1e-9);

    [Fact]
    public void A_bed_at_15_cm_lags_four_days_and_deeper_ground_more()
    {
        Assert.Equal(4, BulbDepthTemperature.LagDays(15, null));
        Assert.Equal(8, BulbDepthTemperature.LagDays(30, null));
        Assert.Equal(1, BulbDepthTemperature.LagDays(2, null));
    }

    [Fact]
    public void In_a_small_pot_the_wall_is_nearer_than_the_surface() =>
        Assert.True(A.Pot(30, 24, 30).LagDays(20) < A.Pot(90, 80, 80).LagDays(20));

    [Fact]
    public void After_a_step_of_the_air_the_ground_has_gone_most_of_the_way_in_two_lags()
    {
        WeatherRecord record = A.Record(2001, 3, d => d.Year == 2001 ? (5, 5) : (15, 15));
        WeatherRun run = WeatherRun.For(record, A.Day(2026, 9, 1))[0];
        double[] soil = BulbDepthTemperature.Over(run, 4);
        int step = run.IndexOf(A.Day(2027, 1, 1));
        Assert.Equal(15 - (10 * Math.Pow(0.75, 8)), soil[step + 7], 1e-6);
    }

    [Fact]
    public void Wet_ground_is_held_at_minus_1_degree()
    {
        WeatherRun run = WeatherRun.For(A.Record(2001, 3, _ => (-25, -15)), A.Day(2026, 9, 1))[0];
        Assert.All(BulbDepthTemperature.Over(run, 4), t => Assert.Equal(-1, t));
    }
}
