using NetTopologySuite.Geometries;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Planters;

public sealed class BedOutlineTests
{
    // An L of 4 × 3 m with a 2 × 1 m corner cut away: by hand 12 − 2 = 10 m².
    private static readonly BedOutline L = BedOutline.Of(10, (0, 0), (400, 0), (400, 200), (200, 200), (200, 300), (0, 300));

    [Fact, Published("Shoelace formula; worked by hand: 4 × 3 m less a corner of 2 × 1 m is 10 m²")]
    public void An_L_shaped_bed_has_the_area_worked_by_hand()
    {
        Assert.Empty(L.Faults());
        Assert.Equal(100_000, L.AreaCm2, 1e-6);
        Assert.Equal(4000, PlanterForm.Bed(L, 40).PlantableLitres, 1e-6);
    }

    [Fact]
    public void A_hole_takes_its_area_and_the_setback_runs_round_it_too()
    {
        IReadOnlyList<Corner> pit = [new(50, 50), new(150, 50), new(150, 150), new(50, 150)];
        BedOutline holed = L with { Holes = [pit] };
        Assert.Empty(holed.Faults());
        Assert.Equal(90_000, holed.AreaCm2, 1e-6);
        Assert.True(holed.Plantable.Area < L.Plantable.Area - 10_000 - (4 * 100 * 10));
        Assert.False(holed.Plantable.Contains(new Point(45, 100)));
    }

    [Theory]
    [InlineData("crosses itself", 0.0, 0.0, 400.0, 300.0, 400.0, 0.0, 0.0, 300.0)]
    [InlineData("on one line", 0.0, 0.0, 400.0, 0.0, 200.0, 0.0)]
    [InlineData("encloses", 0.0, 0.0, 400.0, 0.0, 400.0, 1.0, 0.0, 1.0)]
    [InlineData("degrees", 0.0001, 0.0001, 0.0004, 0.0001, 0.0004, 0.0003, 0.0001, 0.0003)]
    public void An_impossible_outline_is_refused_in_words(string said, params double[] xy)
    {
        var ring = Enumerable.Range(0, xy.Length / 2).Select(i => new Corner(xy[2 * i], xy[(2 * i) + 1])).ToList();
        Assert.Contains(said, Assert.Single(new BedOutline(ring, []).Faults()).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_bed_narrower_than_twice_its_setback_leaves_nothing_to_plant() =>
        Assert.Contains(
            "nothing to plant",
            Assert.Single(BedOutline.Of(30, (0, 0), (400, 0), (400, 50), (0, 50)).Faults()).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public void Two_corners_and_corners_without_end_are_refused()
    {
        Assert.Contains("from 3 to 500", Assert.Single(BedOutline.Of(10, (0, 0), (1, 1)).Faults()).Message, StringComparison.Ordinal);
        Assert.Contains(
            "from 3 to 500",
            Assert.Single(new BedOutline([.. Enumerable.Range(0, 501).Select(i => new Corner(i, i * i))], []).Faults()).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Bulbs_in_an_outline_keep_off_its_edges_and_off_each_other()
    {
        IReadOnlyList<PlanePoint> places = DiscPacking.InOutline(L.Polygon, 12, 6.5);
        Geometry room = L.Polygon.Buffer(-11.99);
        Assert.All(places, p => Assert.True(room.Covers(new Point(p.XCm, p.YCm))));
        for (int i = 0; i < places.Count; i++)
        {
            for (int k = 0; k < i; k++)
                Assert.True(places[i].DistanceTo(places[k]) >= 13 - 1e-6);
        }
        // A staggered lattice fills nine tenths; an L loses some of that along its edges.
        Assert.True(places.Count > 0.85 * L.Plantable.Area / (Math.Sqrt(3) / 2 * 13 * 13), $"{places.Count}");
    }

    [Fact]
    public void A_rectangle_given_as_an_outline_takes_nearly_as_many_bulbs_as_the_rectangle()
    {
        BedOutline rectangle = BedOutline.Of(10, (0, 0), (400, 0), (400, 200), (0, 200));
        int laid = BulbStack
            .LayOut(A.Bed() with { Form = PlanterForm.Bed(rectangle, 40) }, Site.Default, [new PlannedBulb(A.Tulip(), 10, null)])
            .Layers[0]
            .Fits;
        int known = BulbStack.LayOut(A.Bed(), Site.Default, [new PlannedBulb(A.Tulip(), 10, null)]).Layers[0].Fits;
        Assert.InRange(laid, known * 0.93, known);
    }

    [Fact]
    public void Four_measured_sides_with_square_corners_make_a_rectangle()
    {
        MeasuredSides walked = MeasuredSides.Walk([new(400, 90), new(200, 90), new(400, 90), new(200, 90)], 10);
        Assert.Equal(80_000, walked.Outline.AreaCm2, 1);
        Assert.Equal(0, walked.GapCm, 1e-6);
    }

    [Fact]
    public void The_L_walked_round_with_a_corner_that_juts_in_has_its_area()
    {
        MeasuredSides walked = MeasuredSides.Walk([new(400, 90), new(200, 90), new(200, 270), new(100, 90), new(200, 90), new(300, 90)], 10);
        Assert.Equal(100_000, walked.Outline.AreaCm2, 1);
    }

    [Fact, Published("Plane surveying: compass (Bowditch) rule; corrections in proportion to the way walked")]
    public void A_small_gap_is_shared_by_the_compass_rule()
    {
        MeasuredSides walked = MeasuredSides.Walk([new(404, 90), new(200, 90), new(400, 90), new(200, 90)], 0);
        Assert.Equal(4, walked.GapCm, 1e-6);
        // 404 of 1,204 walked: the second corner is drawn back by 4 × 404 / 1204 = 1.34 cm.
        double first = walked.Outline.Ring[1].XCm - walked.Outline.Ring[0].XCm;
        Assert.Equal(404 - 1.34, first, 0.06);
    }

    [Fact]
    public void Sides_that_cannot_close_are_refused_with_what_is_wrong()
    {
        InvalidInputException gap = Assert.Throws<InvalidInputException>(() =>
            MeasuredSides.Walk([new(400, 90), new(200, 90), new(300, 90), new(200, 90)], 10)
        );
        Assert.Contains("100 cm from the first corner", gap.Message, StringComparison.Ordinal);
        InvalidInputException angles = Assert.Throws<InvalidInputException>(() =>
            MeasuredSides.Walk([new(400, 90), new(200, 90), new(400, 90), new(200, 30)], 10)
        );
        Assert.Contains("must make 360°", angles.Message, StringComparison.Ordinal);
        Assert.Contains(
            "sides[0].lengthCm",
            Assert.Throws<InvalidInputException>(() => MeasuredSides.Walk([new(-4, 90), new(200, 90), new(400, 90)], 10)).Message,
            StringComparison.Ordinal
        );
    }
}
