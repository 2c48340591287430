using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Tests.SiteMap;

public sealed class MapSkylineTests
{
    private static readonly MapPlace Here = new(0, 0);

    // A long wall 10 m to the south, as high as it is far.
    private static readonly MapFeature SouthWall = new()
    {
        Id = "wall",
        Kind = MapKind.Wall,
        Points = [new(-400, -10), new(400, -10)],
        HeightM = 10,
    };

    [Fact]
    public void A_wall_as_high_as_it_is_far_stands_forty_five_degrees_up()
    {
        Skyline seen = MapSkyline.Of(Here, 0, [SouthWall], 2026);
        Assert.Equal(45, seen.WallDeg[8], 0.5);
        Assert.Equal(0, seen.WallDeg[0]);
        Assert.All(seen.TreeDeg, t => Assert.Equal(0, t));
    }

    [Fact]
    public void Seen_aslant_the_wall_is_farther_and_so_lower()
    {
        Skyline seen = MapSkyline.Of(Here, 0, [SouthWall], 2026);
        // South-east, 45° off: 10 m high at 14.1 m, within the sector's nearest ray.
        Assert.InRange(seen.WallDeg[6], Math.Atan(1 / Math.Sqrt(2)) * 180 / Math.PI, 41);
    }

    [Fact]
    public void A_planter_sees_only_what_rises_above_its_medium() => Assert.True(MapSkyline.Of(Here, 2, [SouthWall], 2026).WallDeg[8] < 40);

    [Fact]
    public void A_building_is_seen_from_every_side_it_lies_on()
    {
        var house = new MapFeature
        {
            Id = "house",
            Kind = MapKind.Building,
            Points = [new(5, -3), new(12, -3), new(12, 3), new(5, 3)],
            HeightM = 6,
        };
        Skyline seen = MapSkyline.Of(Here, 0, [house], 2026);
        Assert.True(seen.WallDeg[4] > 45);
        Assert.Equal(0, seen.WallDeg[12]);
    }

    [Fact]
    public void Under_a_crown_the_canopy_is_overhead_and_low_sun_comes_in_beneath_its_open_side()
    {
        Skyline seen = MapSkyline.Of(Here, 0, [Tree(0, 1, 12, 8)], 2026);
        Assert.All(seen.TreeDeg, t => Assert.Equal(90, t));
        Assert.InRange(seen.CanopyFromDeg![0], 30, 65);
        Assert.InRange(seen.CanopyFromDeg[8], seen.CanopyFromDeg[0], 80);
    }

    [Fact]
    public void A_tree_drawn_two_metres_south_takes_sun_and_grows_into_it_year_by_year_without_a_leap()
    {
        Planter pot = A.Pot() with { Place = Here };
        MapFeature tree = Tree(0, -2, 6, 2) with { GrowthM = 0.4 };
        ExposureForecast ahead = ExposureForecast.Of(pot, [tree], 45, 2026, 12)!;
        Assert.True(ahead.Years[0].Hours < SunYear.Of(Skyline.Open, 45, 2026).GrowingSeasonHours - 0.5);
        Assert.All(ahead.Years.Zip(ahead.Years.Skip(1)), y => Assert.InRange(y.First.Hours - y.Second.Hours, -1, 2));
    }

    [Fact, CommonPractice]
    public void A_trees_roots_reach_as_far_as_its_crown_where_nobody_has_measured_them() =>
        Assert.Equal(4, (Tree(0, -2, 6, 4) with { RootM = 0 }).RootsIn(2026));

    [Fact]
    public void A_tree_that_grows_takes_a_planters_sun_and_the_year_is_named()
    {
        MapFeature[] row = [.. Enumerable.Range(-3, 7).Select(i => Tree(i * 3, -5 + Math.Abs(i), 3.2, 3) with { Id = $"t{i + 3}", GrowthM = 0.9 })];
        Planter pot = A.Pot() with { Place = Here };
        ExposureForecast ahead = ExposureForecast.Of(pot, row, 45, 2026)!;
        Assert.Equal(Exposure.FullSun, ahead.Years[0].Class);
        Assert.True(ahead.Change is not null, string.Join(' ', ahead.Years));
        Assert.InRange(ahead.Change.Value.Year, 2027, 2031);
        Assert.True(ahead.Years.Zip(ahead.Years.Skip(1)).All(y => y.Second.Hours <= y.First.Hours + 0.01));
    }

    [Fact]
    public void A_measured_skyline_outweighs_the_map_and_without_either_nothing_is_said()
    {
        Planter measured = A.Pot() with { Place = Here, Skyline = Skyline.Open };
        Assert.False(ExposureForecast.Of(measured, [SouthWall], 45, 2026)!.FromMap);
        Assert.Equal(Exposure.FullSun, ExposureForecast.Of(measured, [SouthWall], 45, 2026)!.Years[0].Class);
        Assert.Null(ExposureForecast.Of(A.Pot(), [SouthWall], 45, 2026));
        Planter growing = measured with
        {
            Skyline = Skyline.Open with { TreeDeg = [.. Enumerable.Repeat(30.0, Skyline.Sectors)], TreeGrowthDeg = 3 },
        };
        Assert.True(ExposureForecast.Of(growing, [SouthWall], 45, 2026)!.Years is var years && years[^1].Hours < years[0].Hours);
        Assert.Null(ExposureForecast.Of(A.Pot() with { Place = Here }, [], 45, 2026));
    }

    [Fact]
    public void Roots_fill_a_bed_more_each_year()
    {
        Planter bed = A.Bed(400, 200) with { Place = new MapPlace(0, 0) };
        // Roots 2 m wide now, reaching the bed's middle line from 2 m north of it in some years.
        MapFeature tree = Tree(0, 2, 6, 4) with { RootM = 2.4, GrowthM = 0.8 };
        RootReach reach = Assert.Single(RootReach.Of([bed], [tree], 2026));
        Assert.True(reach.Shares[0].Share > 0 && reach.Shares[0].Share < 0.1);
        Assert.True(reach.Shares[^1].Share > 0.3);
        Assert.Empty(RootReach.Of([bed with { Place = new MapPlace(50, 50) }], [tree], 2026));
    }

    [Fact]
    public void A_turned_trough_covers_its_own_ground()
    {
        Planter trough = A.Pot() with { Form = PlanterForm.Trough(200, 40, 200, 40, 40), Place = new MapPlace(10, 5, 90) };
        NetTopologySuite.Geometries.Polygon ground = PlanterGround.Of(trough);
        Assert.Equal(0.8, ground.Area, 1e-9);
        Assert.Equal(
            (9.8, 10.2, 4, 6),
            (
                Math.Round(ground.EnvelopeInternal.MinX, 6),
                Math.Round(ground.EnvelopeInternal.MaxX, 6),
                Math.Round(ground.EnvelopeInternal.MinY, 6),
                Math.Round(ground.EnvelopeInternal.MaxY, 6)
            )
        );
    }

    [Theory]
    [InlineData(MapKind.Building, 0, "heightM")]
    [InlineData(MapKind.Tree, 3, "widthM")]
    public void A_feature_without_its_measures_is_refused(MapKind kind, double height, string field)
    {
        var feature = new MapFeature
        {
            Id = "x",
            Kind = kind,
            HeightM = height,
            Points = kind == MapKind.Tree ? [new(0, 0)] : [new(0, 0), new(5, 0), new(5, 5)],
        };
        Assert.Contains(feature.Faults(), f => f.Field == field);
    }

    [Fact]
    public void A_building_that_crosses_itself_and_one_of_no_area_are_refused()
    {
        var crossed = new MapFeature
        {
            Id = "x",
            Kind = MapKind.Building,
            HeightM = 3,
            Points = [new(0, 0), new(5, 5), new(5, 0), new(0, 5)],
        };
        Assert.Contains("crosses itself", Assert.Single(crossed.Faults()).Message, StringComparison.Ordinal);
        var flat = crossed with { Points = [new(0, 0), new(5, 0), new(10, 0)] };
        Assert.NotEmpty(flat.Faults());
        Assert.Contains(
            "20 km",
            Assert.Single((crossed with { Points = [new(0, 0), new(1e6, 5), new(5, 0)] }).Faults()).Message,
            StringComparison.Ordinal
        );
    }

    private static MapFeature Tree(double east, double north, double high, double wide) =>
        new()
        {
            Id = "tree",
            Kind = MapKind.Tree,
            Points = [new(east, north)],
            HeightM = high,
            WidthM = wide,
            SurveyedIn = 2026,
        };
}
