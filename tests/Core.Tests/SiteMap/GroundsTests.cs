using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Tests.SiteMap;

public sealed class GroundsTests
{
    private static readonly Area Quay = new("quay", "Quay", 0);
    private static readonly Area Green = new("green", "Green", 0);

    [
        Fact,
        Published(
            "WGS 84: one degree of latitude is 110,574 m at the equator and 111,694 m at the poles; of longitude 111,320 m at the equator (handbook tables)"
        )
    ]
    public void Degrees_have_the_lengths_of_the_handbooks()
    {
        Assert.Equal(
            110_574,
            new MapProjection(new SitePlace(0, 0, 0)).ToMetres(0, 0.5).NorthM - new MapProjection(new SitePlace(0, 0, 0)).ToMetres(0, -0.5).NorthM,
            1.0
        );
        Assert.Equal(
            111_694,
            new MapProjection(new SitePlace(89.5, 0, 0)).ToMetres(0, 90).NorthM - new MapProjection(new SitePlace(89.5, 0, 0)).ToMetres(0, 89).NorthM,
            1.0
        );
        Assert.Equal(111_320, new MapProjection(new SitePlace(0, 10, 0)).ToMetres(11, 0).EastM, 1.0);
    }

    [Theory]
    [InlineData(43.1, -66.9)]
    [InlineData(-41.3, 174.8)]
    [InlineData(0, 179.9999)]
    [InlineData(69.6, 18.9)]
    public void Metres_to_degrees_and_back_lose_less_than_a_millimetre(double latitude, double longitude)
    {
        var projection = new MapProjection(new SitePlace(latitude, longitude, 0));
        foreach ((double east, double north) in new[] { (0.0, 0.0), (812.3, -455.1), (-3000, 2500) })
        {
            (double lon, double lat) = projection.ToDegrees(new MapPoint(east, north));
            MapPoint back = projection.ToMetres(lon, lat);
            Assert.Equal(east, back.EastM, 1e-3);
            Assert.Equal(north, back.NorthM, 1e-3);
        }
    }

    [Fact]
    public void A_path_that_bends_is_walked_along_its_bend()
    {
        var ways = new WalkingWays([Path("p", (0, 0), (100, 0), (100, 50))]);
        Assert.Equal((150, true), ways.Between(new MapPlace(0, 0), new MapPlace(100, 50)));
        Assert.Equal((2 + 150 + 3, true), ways.Between(new MapPlace(0, -2), new MapPlace(103, 50)));
    }

    [Fact]
    public void Paths_that_cross_or_end_on_one_another_are_joined_and_the_shortest_way_is_taken()
    {
        MapFeature[] map = [Path("long", (0, 0), (0, 80), (60, 80), (60, 0)), Path("short", (0, 10.2), (60, 10)), Path("stub", (60.8, 30), (90, 30))];
        Assert.Equal(10 + 60 + 10, new WalkingWays(map).Between(new MapPlace(0, 0), new MapPlace(60, 0)).Metres, 0.3);
        Assert.Equal(10 + 60 + 20 + 30, new WalkingWays(map).Between(new MapPlace(0, 0), new MapPlace(90, 30)).Metres, 0.3);
    }

    [Fact, CommonPractice]
    public void Where_no_path_leads_the_straight_line_with_a_quarter_is_taken_and_said()
    {
        Assert.Equal((125, false), new WalkingWays([]).Between(new MapPlace(0, 0), new MapPlace(100, 0)));
        Assert.False(
            new WalkingWays([Path("a", (0, 0), (5, 0)), Path("b", (95, 0), (100, 0))]).Between(new MapPlace(0, 0), new MapPlace(100, 0)).AlongPaths
        );
    }

    [Fact]
    public void Areas_are_as_far_apart_as_their_planters_middles()
    {
        Planter[] planters = [At("a", 0, 0), At("b", 0, 2), At("c", 40, 1) with { AreaId = "green" }];
        AreaWalk walk = Assert.Single(WalkingWays.Of([Quay, Green], planters, [Path("p", (-5, 1), (50, 1))]));
        Assert.Equal(("quay", "green", 40, true), (walk.From.Id, walk.To.Id, walk.Metres, walk.AlongPaths));
        Assert.Equal(40.0 / 60, walk.Minutes, 1e-9);
    }

    [Fact]
    public void Two_sides_of_a_path_are_told_apart_and_the_weaker_one_is_named()
    {
        Planter[] planters = [At("left-1", 10, 3), At("left-2", 20, 3), At("right-1", 10, -3), At("far", 10, 40), At("beyond", 45, 3)];
        PathBalance balance = Assert.Single(PathBalance.Of([Path("p", (0, 0), (30, 0))], Seasons(planters, "left-1", "left-2", "far"), 100));
        Assert.Equal(["left-1", "left-2"], balance.Left.Planters.Select(p => p.Id));
        Assert.Equal(["right-1"], balance.Right.Planters.Select(p => p.Id));
        Assert.Equal((2, 0), (balance.Left.InColour, balance.Right.InColour));
        Assert.Equal(PathVerdict.RightWeaker, balance.Verdict);
        Assert.Contains("left-1", $"{balance.Explain().Steps[0]}", StringComparison.Ordinal);
    }

    [Fact]
    public void Equal_planters_on_both_sides_answer_each_other_and_a_lone_side_is_said()
    {
        Planter[] planters = [At("l", 10, 3), At("r", 12, -3)];
        PathBalance both = Assert.Single(PathBalance.Of([Path("p", (0, 0), (30, 0))], Seasons(planters, "l", "r"), 100));
        Assert.Equal((1, PathVerdict.Balanced), (both.Balance, both.Verdict));
        Assert.Equal(PathVerdict.OneSideOnly, Assert.Single(PathBalance.Of([Path("p", (0, 0), (30, 0))], Seasons([planters[0]], "l"), 100)).Verdict);
    }

    [Fact]
    public void A_planters_year_is_painted_in_few_stretches_that_say_what_each_day_says()
    {
        PlanterSeason season = Seasons([At("one", 0, 0)], "one")[0];
        IReadOnlyList<PaintStretch> stretches = PlanterPaint.Of(season);
        Assert.InRange(stretches.Count, 1, 40);
        for (int d = 0; d < season.Days; d += 7)
        {
            PaintStretch then = stretches.Last(s => s.FromIndex <= d);
            PaintStretch day = PlanterPaint.On(season, d);
            Assert.Equal((day.Showing, string.Join(' ', day.Colours)), (then.Showing, string.Join(' ', then.Colours)));
        }
        Assert.Contains(stretches, s => s.Showing == Showing.Colour && s.Colours[0].Colour == "#7e57c2");
        Assert.Equal(Showing.Bare, Assert.Single(PlanterPaint.Of(Seasons([At("empty", 0, 0)])[0])).Showing);
    }

    private static MapFeature Path(string id, params (double E, double N)[] points) =>
        new()
        {
            Id = id,
            Kind = MapKind.Path,
            WidthM = 2,
            Points = [.. points.Select(p => new MapPoint(p.E, p.N))],
        };

    private static Planter At(string id, double east, double north) => A.Pot(id: id) with { Place = new MapPlace(east, north) };

    // Each named planter is filled with flowers all year.
    private static IReadOnlyList<PlanterSeason> Seasons(IReadOnlyList<Planter> planters, params string[] planted)
    {
        WeatherRecord mild = A.Record(2001, 3, A.Mild);
        Display[] displays =
        [
            .. planted
                .Where(p => planters.Any(x => x.Id == p))
                .Select(p => new Display(
                    $"{p}-show",
                    p,
                    DisplayLayer.Seasonal,
                    A.Day(2026, 9, 10),
                    A.Day(2027, 8, 20),
                    [new DisplayItem("annual", 9)]
                )),
        ];
        var plan = new Plan(Site.Default, [Quay, Green], planters, [A.Annual()], displays, []);
        return SiteYear.From(plan, mild, A.Day(2026, 9, 1)).Planters;
    }
}
