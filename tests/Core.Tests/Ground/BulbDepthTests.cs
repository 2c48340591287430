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
    public void In_spring_a_small_pot_warms_before_a_large_one_and_both_before_a_bed()
    {
        GroundClimate ground = GroundClimate.Of(A.Record("New York"));
        double April(ThermalClass what) => Enumerable.Range(90, 30).Average(i => (double)ground.At(new BulbPlace(what, 15))[i]);
        double small = April(A.Pot(30, 24, 30).ThermalClass());
        double large = April(A.Pot(90, 80, 80).ThermalClass());
        Assert.True(small > large);
        Assert.True(large > April(BulbPlace.UsualBed.Class));
    }

    [Fact]
    public void Deeper_ground_lags_and_swings_less()
    {
        GroundClimate ground = GroundClimate.Of(A.Record("New York"));
        float[] shallow = ground.At(BulbPlace.UsualBed with { DepthCm = 8 });
        float[] deep = ground.At(BulbPlace.UsualBed with { DepthCm = 60 });
        Assert.True(shallow.Max() > deep.Max());
        Assert.True(shallow.Min() < deep.Min());
        Assert.True(Array.IndexOf(shallow[..365], shallow[..365].Max()) < Array.IndexOf(deep[..365], deep[..365].Max()));
    }

    [Fact]
    public void Days_that_the_record_lacks_get_the_usual_temperature_of_their_day()
    {
        WeatherRecord record = A.Record(2001, 4, A.Mild);
        GroundDays soil = GroundClimate
            .Of(record)
            .Over(BulbPlace.UsualBed, [GroundClimate.Usually(A.Day(1990, 7, 15)), record.IndexOf(A.Day(2002, 7, 15))]);
        Assert.Equal(soil[1], soil[0], 0.5);
    }

    [Fact]
    public void Classes_prepared_side_by_side_are_the_ones_computed_alone()
    {
        WeatherRecord record = A.Record("Seattle");
        ThermalClass[] classes = [ThermalClass.Bed(SurfaceCover.Bare), A.Pot().ThermalClass()];
        GroundClimate.Of(record).Prepare(classes);
        Assert.All(classes, c => Assert.Equal(GroundModel.Run(c, GroundForcing.From(record)).RootMin, GroundClimate.Of(record).Of(c).RootMin));
    }
}
