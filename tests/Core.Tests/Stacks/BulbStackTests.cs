using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Stacks;

public sealed class BulbStackTests
{
    private static readonly Plant Crocus = A.Bulb("crocus", new BulbForcing(0, 12, 10, 14.6, 18), 2.4, 2);
    private static readonly Plant Hyacinth = A.Bulb("hyacinth", new BulbForcing(0, 12, 10, 133, 16), 5.5, 5);
    private static readonly Plant LateTulip = A.Tulip("late-tulip", new BulbForcing(7, 12, 8, 132.6, 16), 5.2, 4.2);

    [Fact, CommonPractice]
    public void A_bulb_lies_with_its_base_at_three_times_its_height() =>
        Assert.Equal(15, BulbStack.DepthByRule(A.Tulip().Bulb!, BulbDepthSchool.ThreeTimesHeight));

    [Fact, CommonPractice]
    public void The_deep_school_puts_large_bulbs_at_seven_and_a_half_inches_and_leaves_small_ones()
    {
        Assert.Equal(19, BulbStack.DepthByRule(A.Tulip().Bulb!, BulbDepthSchool.Deep));
        Assert.Equal(7.2, BulbStack.DepthByRule(Crocus.Bulb!, BulbDepthSchool.Deep), 1e-9);
    }

    [Fact, CommonPractice]
    public void Largest_and_latest_lie_deepest_and_small_early_ones_on_top()
    {
        BulbStack stack = LayOut((LateTulip, 8), (Crocus, 30), (A.Tulip(), 11), (Hyacinth, 9));
        Assert.Equal(["crocus", "hyacinth", "tulip", "late-tulip"], stack.Layers.Select(l => l.Plant.Id));
    }

    [Fact]
    public void Each_layers_tips_clear_the_bases_above()
    {
        BulbStack stack = LayOut((LateTulip, 8), (Crocus, 30), (A.Tulip(), 11), (Hyacinth, 9));
        for (int i = 1; i < stack.Layers.Count; i++)
            Assert.True(stack.Layers[i].CoverCm >= stack.Layers[i - 1].DepthCm + BulbStack.LayerGapCm - 0.06);
        Assert.Empty(stack.Problems);
    }

    [Fact, CommonPractice]
    public void A_large_pot_takes_five_kinds_at_five_depths_and_tulips_may_lie_25_to_30_cm_deep()
    {
        Plant daffodil = A.Bulb("daffodil", new BulbForcing(0, 12, 10, 65, 22), 4, 3);
        BulbStack stack = LayOut((LateTulip, 8), (Crocus, 30), (A.Tulip(), 11), (Hyacinth, 9), (daffodil, 14));
        Assert.Empty(stack.Problems);
        Assert.InRange(stack.Layers[^1].DepthCm, 25, 32);
    }

    [Fact]
    public void A_layer_counts_at_the_narrowest_of_the_taper_over_the_bulbs_height()
    {
        StackLayer layer = LayOut((A.Tulip(), 5)).Layers[0];
        Assert.Equal(A.Pot().Form.InsideAt(15).LengthCm, layer.LengthCm, 1e-9);
        double circle = (layer.LengthCm / 2) - 2.5 + 1;
        Assert.Equal(DiscPacking.InCircle(circle, 3).Count, layer.Fits);
    }

    [Fact]
    public void Planned_bulbs_are_spread_over_the_whole_layer()
    {
        StackLayer layer = LayOut((A.Tulip(), 7)).Layers[0];
        Assert.Equal(7, layer.Spread.Count);
        double nearest = layer.Spread.SelectMany((p, i) => layer.Spread.Skip(i + 1).Select(p.DistanceTo)).Min();
        Assert.True(nearest > 10, $"nearest {nearest:0.0} cm");
    }

    [Fact]
    public void More_than_fit_is_said_with_both_numbers()
    {
        BulbStack stack = LayOut((A.Tulip(), 500));
        Assert.Equal((500, stack.Layers[0].Fits), (Assert.Single(stack.Problems)["count"], stack.Problems[0]["fits"]));
    }

    [Fact]
    public void A_stack_deeper_than_its_pot_is_said_with_what_to_do()
    {
        BulbStack stack = BulbStack.LayOut(
            A.Pot(30, 24, 25),
            Site.Default,
            [.. new[] { Crocus, Hyacinth, A.Tulip(), LateTulip }.Select(p => new PlannedBulb(p, 2, null))]
        );
        Assert.Contains(stack.Problems, p => p.Kind.Equals(StackProblem.TooDeep));
    }

    [Fact]
    public void A_chosen_depth_is_kept_and_kinds_that_meet_at_one_height_lie_beside_each_other()
    {
        BulbStack stack = BulbStack.LayOut(A.Pot(), Site.Default, [new(Hyacinth, 5, 16), new(A.Tulip(), 5, 18)]);
        Assert.Equal([16, 18], stack.Layers.Select(l => l.DepthCm));
        Assert.Empty(stack.Problems);
        double apart = (Hyacinth.Bulb!.DiameterCm + A.Tulip().Bulb!.DiameterCm) / 2;
        Assert.All(stack.Layers[0].Spread, h => Assert.All(stack.Layers[1].Spread, t => Assert.True(h.DistanceTo(t) > apart)));
    }

    [Fact]
    public void Too_many_at_one_height_are_said_with_both_names()
    {
        BulbStack stack = BulbStack.LayOut(A.Pot(), Site.Default, [new(Hyacinth, 40, 16), new(A.Tulip(), 40, 18)]);
        Assert.Contains(stack.Problems, p => p.Kind.Equals(StackProblem.NotBesideEachOther) && ReferenceEquals(p["plant"], Hyacinth));
    }

    [Fact]
    [CommonPractice]
    public void A_medium_pot_takes_seven_tulips_three_hyacinths_and_three_clumps_of_five_crocus()
    {
        BulbStack stack = BulbStack.LayOut(
            A.Pot(38, 30, 40),
            Site.Default,
            [new(A.Tulip(), 7, null), new(Hyacinth, 3, null), new(Crocus, 15, null) { Clump = 5 }]
        );
        Assert.Empty(stack.Problems);
        IReadOnlyList<PlanePoint> crocus = stack.Layers.First(l => l.Plant == Crocus).Spread;
        Assert.Equal(15, crocus.Count);
        // Every crocus has four neighbours within the width of a clump, and no more.
        Assert.All(crocus, p => Assert.Equal(4, crocus.Count(q => q != p && q.DistanceTo(p) < 3 * Crocus.Bulb!.DiameterCm)));
    }

    [Fact]
    public void Gravel_over_the_hole_takes_three_centimetres_and_their_medium()
    {
        Planter pot = A.Pot();
        Site gravel = Site.Default with { Rules = HouseRules.Default with { Drainage = DrainageSchool.GravelOverHole } };
        Assert.Equal(BulbStack.DeepestBaseCm(pot, Site.Default) - 3, BulbStack.DeepestBaseCm(pot, gravel), 1e-9);
        double less =
            BulbStack.LayOut(pot, Site.Default, [new(A.Tulip(), 7, null)]).MediumLitres
            - BulbStack.LayOut(pot, gravel, [new(A.Tulip(), 7, null)]).MediumLitres;
        Assert.Equal(pot.Form.LitresBetween(pot.Form.PlantableDepthCm - 3, pot.Form.PlantableDepthCm), less, 1e-9);
        Assert.Equal(
            BulbStack.DeepestBaseCm(pot, Site.Default),
            BulbStack.DeepestBaseCm(pot with { Rules = new PlanterRules { Drainage = DrainageSchool.FreeHole } }, gravel),
            1e-9
        );
    }

    [Fact]
    public void Small_bulbs_keep_beside_the_root_balls_of_the_winter_display_and_deep_ones_pass_below()
    {
        RootBall[] roots = [.. new[] { (-12.0, 0.0), (12.0, 0.0), (0.0, 15.0) }.Select(p => new RootBall(new PlanePoint(p.Item1, p.Item2), 6, 9))];
        BulbStack stack = BulbStack.LayOut(A.Pot(), Site.Default, [new(Crocus, 20, null), new(A.Tulip(), 12, null)], roots);
        Assert.All(stack.Layers[0].Places, p =>
            Assert.All(roots, r => Assert.True(p.DistanceTo(r.At) >= r.RadiusCm + (Crocus.Bulb!.DiameterCm / 2) - 1e-9))
        );
        Assert.True(stack.Layers[0].Fits < BulbStack.LayOut(A.Pot(), Site.Default, [new(Crocus, 20, null)]).Layers[0].Fits);
        Assert.Contains(stack.Layers[1].Places, p => roots.Any(r => p.DistanceTo(r.At) < r.RadiusCm));
    }

    [Fact]
    public void A_layer_is_turned_so_that_its_bulbs_do_not_stand_straight_over_those_below()
    {
        Plant late = A.Tulip("late");
        BulbStack stack = BulbStack.LayOut(A.Pot(), Site.Default, [new(A.Tulip(), 7, 15), new(late, 7, 25)]);
        Assert.All(stack.Layers[0].Spread.Where(p => p.DistanceTo(new PlanePoint(0, 0)) > 5), p =>
            Assert.All(stack.Layers[1].Spread, q => Assert.True(p.DistanceTo(q) > 2))
        );
    }

    [Fact]
    [CommonPractice]
    public void In_a_bed_each_kind_grows_in_drifts_and_has_its_own_places()
    {
        BulbStack stack = BulbStack.LayOut(A.Bed(), Site.Default, [new(A.Tulip(), 60, null), new(Hyacinth, 60, null)]);
        IReadOnlyList<PlanePoint> tulips = stack.Layers.First(l => l.Plant.Id == "tulip").Spread;
        IReadOnlyList<PlanePoint> hyacinths = stack.Layers.First(l => l.Plant == Hyacinth).Spread;
        Assert.Equal((60, 60), (tulips.Count, hyacinths.Count));
        Assert.Empty(tulips.Intersect(hyacinths));
        // In a drift most bulbs have one of their own kind as their nearest neighbour.
        int own = tulips.Count(p => tulips.Where(q => q != p).Min(q => q.DistanceTo(p)) <= hyacinths.Min(q => q.DistanceTo(p)) + 1e-6);
        Assert.True(own > 50, $"{own} of 60");
    }

    [Fact]
    public void Ten_thousand_bulbs_in_a_pot_are_answered_with_how_many_fit() =>
        Assert.Contains(BulbStack.LayOut(A.Pot(), Site.Default, [new(A.Tulip(), 10_000, null)]).Problems, p =>
            p.Kind.Equals(StackProblem.TooMany) && p["count"] is 10_000
        );

    [Fact]
    public void A_bulb_that_would_stand_out_of_the_medium_is_said() =>
        Assert.Contains(BulbStack.LayOut(A.Pot(), Site.Default, [new(A.Tulip(), 5, 4)]).Problems, p => p.Kind.Equals(StackProblem.StandsOut));

    [Fact]
    public void In_a_bed_kinds_lie_side_by_side_at_their_own_depth_and_share_the_ground()
    {
        BulbStack stack = BulbStack.LayOut(A.Bed(), Site.Default, [new(A.Tulip(), 300, null), new(Hyacinth, 100, null)]);
        Assert.Equal([15, 16.5], stack.Layers.Select(l => l.DepthCm).Order());
        Assert.Empty(stack.Problems);
        BulbStack crowded = BulbStack.LayOut(A.Bed(), Site.Default, [new(A.Tulip(), 400, null), new(Hyacinth, 400, null)]);
        Assert.Contains(crowded.Problems, p => p.Kind.Equals(StackProblem.BedOverfilled));
    }

    [Fact]
    public void Lifts_of_medium_up_to_the_deepest_base_are_the_pots_own_volume_there()
    {
        BulbStack stack = LayOut((Crocus, 10), (A.Tulip(), 7));
        Assert.Equal(A.Pot().Form.LitresBetween(0, stack.Layers[^1].DepthCm), stack.Layers.Sum(l => l.LiftLitres), 1e-9);
        Assert.True(stack.MediumLitres < A.Pot().Form.PlantableLitres);
    }

    [Fact]
    public void What_is_no_bulb_is_refused() => Assert.Throws<InvalidInputException>(() => LayOut((A.Annual(), 3)));

    private static BulbStack LayOut(params (Plant Plant, int Count)[] bulbs) =>
        BulbStack.LayOut(A.Pot(), Site.Default, [.. bulbs.Select(b => new PlannedBulb(b.Plant, b.Count, null))]);
}
