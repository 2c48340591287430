using CsCheck;
using UnrulyMeadow.Core.Packing;

namespace UnrulyMeadow.Core.Tests.Packing;

public sealed class DiscPackingTests
{
    [Theory, Published("Best-known packings of discs in a circle: Graham, Lubachevsky, Nurmela & Östergård 1998, and later tables")]
    [InlineData(2, 2.0000)]
    [InlineData(3, 2.1548)]
    [InlineData(4, 2.4143)]
    [InlineData(5, 2.7014)]
    [InlineData(7, 3.0000)]
    [InlineData(8, 3.3048)]
    [InlineData(9, 3.6132)]
    [InlineData(10, 3.8131)]
    [InlineData(11, 3.9239)]
    [InlineData(12, 4.0297)]
    [InlineData(13, 4.2361)]
    public void A_layer_holds_as_many_as_the_best_known_packing_and_no_more(int discs, double radius)
    {
        Assert.Equal(discs, DiscPacking.CountInCircle(radius, 1));
        Assert.True(DiscPacking.CountInCircle(radius - 0.0002, 1) < discs);
    }

    [Theory, Published("Best-known packings of discs in a circle: Graham, Lubachevsky, Nurmela & Östergård 1998")]
    [InlineData(3)]
    [InlineData(5)]
    [InlineData(8)]
    [InlineData(9)]
    [InlineData(10)]
    [InlineData(11)]
    [InlineData(12)]
    [InlineData(13)]
    public void The_places_of_a_tight_layer_touch_but_do_not_overlap(int discs)
    {
        double radius = DiscPacking.BestKnownEnclosingRadius(discs) * 1.002;
        IReadOnlyList<PlanePoint> places = DiscPacking.InCircle(radius, 1);
        Assert.Equal(discs, places.Count);
        Apart(places, 2, 0.004);
        Assert.All(places, p => Assert.True(p.DistanceTo(new PlanePoint(0, 0)) <= radius - 1 + 0.004));
    }

    [Fact, Published("Best-known packings of discs in a circle: ten unit discs in 3.8131, eleven in 3.9239")]
    public void Ten_bulbs_of_4_5_cm_fit_a_radius_of_14_cm_with_2_cm_between_and_2_5_cm_to_the_wall()
    {
        // Centres within R − w − d/2, so discs of d + g in a circle of R − w + g/2.
        double circle = 14 - 2.5 + (2 / 2.0);
        double disc = (4.5 + 2) / 2;
        Assert.Equal(10, DiscPacking.CountInCircle(circle, disc));
        Assert.Equal(9, DiscPacking.CountInCircle(circle - 0.15, disc));
    }

    [Fact]
    public void Discs_never_overlap_nor_leave_a_circle_whatever_its_size() =>
        Gen.Select(Gen.Double[4.3, 14], Gen.Double[0.5, 4])
            .Sample(
                (ratio, disc) =>
                {
                    IReadOnlyList<PlanePoint> places = DiscPacking.InCircle(ratio * disc, disc);
                    Apart(places, 2 * disc, 1e-6);
                    Assert.All(places, p => Assert.True(p.DistanceTo(new PlanePoint(0, 0)) <= ((ratio - 1) * disc) + 1e-6));
                    // No packing of discs covers more than π/√12 of the plane.
                    Assert.True(places.Count <= Math.PI / Math.Sqrt(12) * (ratio + 1) * (ratio + 1));
                },
                iter: 60
            );

    [Fact]
    public void A_wider_circle_never_holds_fewer()
    {
        int most = 0;
        for (double ratio = 1; ratio < 11.5; ratio += 0.02)
        {
            int count = DiscPacking.CountInCircle(ratio, 1);
            Assert.True(count >= most, $"ratio {ratio:0.00}: {count} after {most}");
            most = count;
        }
        for (double ratio = 11.5; ratio < 15; ratio += 0.25)
        {
            int count = DiscPacking.CountInCircle(ratio, 1);
            Assert.True(count >= most, $"ratio {ratio:0.00}: {count} after {most}");
            most = count;
        }
    }

    [Fact]
    public void A_larger_trough_or_oval_never_holds_fewer()
    {
        int[] most = [0, 0];
        for (double scale = 1; scale < 1.6; scale += 0.02)
        {
            int[] counts = [DiscPacking.InRectangle(34 * scale, 15 * scale, 2.5).Count, DiscPacking.InEllipse(40 * scale, 25 * scale, 2.5).Count];
            for (int i = 0; i < counts.Length; i++)
            {
                Assert.True(counts[i] >= most[i], $"{i} at {scale:0.00}: {counts[i]} after {most[i]}");
                most[i] = counts[i];
            }
        }
    }

    [Fact]
    public void Discs_never_overlap_nor_leave_a_rectangle() =>
        Gen.Select(Gen.Double[4, 60], Gen.Double[4, 60], Gen.Double[0.8, 2])
            .Sample(
                (l, w, r) =>
                {
                    IReadOnlyList<PlanePoint> places = DiscPacking.InRectangle(l, w, r);
                    Apart(places, 2 * r, 1e-6);
                    Assert.All(places, p => Assert.True(Math.Abs(p.XCm) <= (l / 2) - r + 1e-6 && Math.Abs(p.YCm) <= (w / 2) - r + 1e-6));
                    Assert.True(places.Count >= (int)(l / (2 * r)) * (int)(w / (2 * r)));
                },
                iter: 60
            );

    [Fact]
    public void Discs_stay_inside_an_ellipse()
    {
        IReadOnlyList<PlanePoint> places = DiscPacking.InEllipse(80, 50, 4);
        Apart(places, 8, 1e-6);
        Assert.All(places, p => Assert.True((p.XCm * p.XCm / 1600) + (p.YCm * p.YCm / 625) < 1));
        Assert.InRange(places.Count, 30, 56);
    }

    [Theory]
    [InlineData(0.9, 0)]
    [InlineData(1, 1)]
    [InlineData(1.99, 1)]
    public void A_circle_smaller_than_two_discs_holds_one_or_none(double ratio, int count) =>
        Assert.Equal(count, DiscPacking.InCircle(ratio, 1).Count);

    [Theory, Published("Plants per square foot, square and triangular spacing: extension handouts")]
    [InlineData(6, 4.00, 4.62)]
    [InlineData(8, 2.25, 2.60)]
    [InlineData(9, 1.78, 2.05)]
    [InlineData(10, 1.44, 1.66)]
    [InlineData(12, 1.00, 1.15)]
    [InlineData(18, 0.44, 0.51)]
    public void Plants_per_square_foot_are_those_of_the_spacing_table(double inches, double square, double triangular)
    {
        Assert.Equal(square, DiscPacking.PerSquareFoot(inches * 2.54, false), 0.006);
        Assert.Equal(triangular, DiscPacking.PerSquareFoot(inches * 2.54, true), 0.006);
    }

    [Fact]
    public void A_bulb_a_thousand_times_too_small_is_refused_as_a_wrong_unit() =>
        Assert.Throws<InvalidInputException>(() => DiscPacking.InRectangle(1000, 1000, 0.01));

    // Enclosing radius for 14 to 65 unit discs.
    private static readonly double[] Enclosing =
    [
        4.3284,
        4.5213,
        4.6154,
        4.7920,
        4.8637,
        4.8637,
        5.1223,
        5.2523,
        5.4397,
        5.5452,
        5.6517,
        5.7528,
        5.8282,
        5.9063,
        6.0149,
        6.1386,
        6.1977,
        6.2915,
        6.4295,
        6.4867,
        6.6109,
        6.6972,
        6.7468,
        6.7588,
        6.9619,
        7.0579,
        7.1238,
        7.2600,
        7.3468,
        7.4200,
        7.4980,
        7.5729,
        7.6502,
        7.7242,
        7.7913,
        7.8869,
        7.9475,
        8.0275,
        8.0847,
        8.1796,
        8.2039,
        8.2111,
        8.3835,
        8.4472,
        8.5246,
        8.5925,
        8.6463,
        8.6613,
        8.8298,
        8.8924,
        8.9620,
        9.0174,
    ];

    [Fact]
    [FromMemory]
    public void Up_to_65_bulbs_the_best_known_packing_is_laid_within_a_third_of_a_per_cent_of_its_radius_and_never_more_than_it()
    {
        for (int n = 14; n <= 65; n++)
        {
            double radius = Enclosing[n - 14];
            Assert.True(DiscPacking.CountInCircle(radius * 1.0034, 1) >= n, $"{n}");
            Assert.True(DiscPacking.BestKnownEnclosingRadius(n) > radius - 0.0002, $"{n}");
        }
        Assert.True(Enumerable.Range(14, 52).Count(n => DiscPacking.BestKnownEnclosingRadius(n) < Enclosing[n - 14] * 1.0006) >= 48);
    }

    [Fact]
    public void Every_packing_of_the_table_is_one()
    {
        for (int n = 1; n <= DiscPacking.MostTabled; n++)
        {
            double radius = DiscPacking.BestKnownEnclosingRadius(n);
            IReadOnlyList<PlanePoint> places = DiscPacking.InCircle(radius * 1.00001, 1);
            Assert.True(places.Count >= n, $"{n}");
            Apart(places, 2, 1e-5);
            Assert.All(places, p => Assert.True(p.DistanceTo(default) <= (radius * 1.00001) - 1 + 1e-5));
        }
    }

    [Theory]
    [InlineData(91, 10.5668)]
    [InlineData(100, 11.0821)]
    [InlineData(200, 15.4633)]
    [FromMemory]
    public void Up_to_200_bulbs_at_least_nine_tenths_of_the_best_known_packing_are_laid(int best, double ratio) =>
        Assert.InRange(DiscPacking.CountInCircle(ratio + 0.0001, 1), Math.Ceiling(0.9 * best), best);

    [Fact]
    [Published("Oler 1961, An inequality in the geometry of numbers")]
    public void No_layer_of_any_outline_claims_more_than_is_proven_possible_and_all_keep_most_of_it()
    {
        var kidney = new NetTopologySuite.Geometries.GeometryFactory().CreatePolygon([
            new(0, 0),
            new(60, -12),
            new(95, 8),
            new(80, 45),
            new(52, 30),
            new(20, 48),
            new(-8, 30),
            new(0, 0),
        ]);
        for (double radius = 2.2; radius < 7; radius += 0.7)
        {
            Check(DiscPacking.InCircle(40, radius), DiscRoom.Circle(40 - radius), radius);
            Check(DiscPacking.InRectangle(90, 35, radius), DiscRoom.Rectangle(90 - (2 * radius), 35 - (2 * radius)), radius);
            Check(DiscPacking.InEllipse(90, 50, radius), null, radius);
            Check(DiscPacking.InOutline(kidney, radius + 1, radius), DiscRoom.Outline(kidney, radius + 1), radius);
        }

        static void Check(IReadOnlyList<PlanePoint> laid, DiscRoom? room, double radius)
        {
            Apart(laid, 2 * radius, 1e-6);
            if (room is null)
                return;
            Assert.All(laid, p => Assert.True(room.Holds(p)));
            Assert.InRange(laid.Count, (int)(0.7 * room.Bound(2 * radius)), room.Bound(2 * radius));
        }
    }

    [Fact]
    public void Bulbs_of_two_sizes_share_a_depth_without_touching_each_other_or_a_root_ball()
    {
        LooseDisc[] discs =
        [
            .. Enumerable.Repeat(new LooseDisc(4, DiscRoom.Circle(20)), 7),
            .. Enumerable.Repeat(new LooseDisc(2, DiscRoom.Circle(22)), 20),
        ];
        FixedDisc[] still = [new(new PlanePoint(0, 0), 5)];
        IReadOnlyList<PlanePoint> places = DiscPacking.Mixed(discs, still)!;
        Assert.True(DiscRelaxation.Slack(places, discs, still) >= -1e-6);
        Assert.All(places.Zip(discs), x => Assert.True(x.Second.Room.Holds(x.First)));
    }

    [Fact]
    public void More_than_can_lie_in_one_plane_are_refused_rather_than_squeezed() =>
        Assert.Null(DiscPacking.Mixed([.. Enumerable.Repeat(new LooseDisc(5, DiscRoom.Circle(10)), 12)], []));

    private static void Apart(IReadOnlyList<PlanePoint> places, double least, double tolerance)
    {
        for (int i = 0; i < places.Count; i++)
        {
            for (int k = i + 1; k < places.Count; k++)
                Assert.True(places[i].DistanceTo(places[k]) >= least - tolerance);
        }
    }
}
