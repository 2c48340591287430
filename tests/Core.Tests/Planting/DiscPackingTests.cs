using CsCheck;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Core.Tests.Planting;

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
        Gen.Select(Gen.Double[4.3, 14], Gen.Double[0.5, 4]).Sample((ratio, disc) =>
        {
            IReadOnlyList<PlanePoint> places = DiscPacking.InCircle(ratio * disc, disc);
            Apart(places, 2 * disc, 1e-6);
            Assert.All(places, p => Assert.True(p.DistanceTo(new PlanePoint(0, 0)) <= ((ratio - 1) * disc) + 1e-6));
            // No packing of discs covers more than π/√12 of the plane.
            Assert.True(places.Count <= Math.PI / Math.Sqrt(12) * (ratio + 1) * (ratio + 1));
        }, iter: 60);

    [Fact]
    public void A_wider_circle_never_holds_fewer_within_a_disc_or_two()
    {
        int most = 0;
        for (double ratio = 1; ratio < 12; ratio += 0.05)
        {
            int count = DiscPacking.CountInCircle(ratio, 1);
            Assert.True(count >= most - 2, $"ratio {ratio:0.00}: {count} after {most}");
            most = Math.Max(most, count);
        }
    }

    [Fact]
    public void Discs_never_overlap_nor_leave_a_rectangle() =>
        Gen.Select(Gen.Double[4, 60], Gen.Double[4, 60], Gen.Double[0.8, 2]).Sample((l, w, r) =>
        {
            IReadOnlyList<PlanePoint> places = DiscPacking.InRectangle(l, w, r);
            Apart(places, 2 * r, 1e-6);
            Assert.All(places, p => Assert.True(Math.Abs(p.XCm) <= (l / 2) - r + 1e-6 && Math.Abs(p.YCm) <= (w / 2) - r + 1e-6));
            Assert.True(places.Count >= (int)(l / (2 * r)) * (int)(w / (2 * r)));
        }, iter: 60);

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

    private static void Apart(IReadOnlyList<PlanePoint> places, double least, double tolerance)
    {
        for (int i = 0; i < places.Count; i++)
        {
            for (int k = i + 1; k < places.Count; k++)
                Assert.True(places[i].DistanceTo(places[k]) >= least - tolerance);
        }
    }
}
