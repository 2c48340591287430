using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Checks;

public sealed class StudioChecksTests
{
    private static readonly WeatherRecord NewYork = A.Record("New York");

    [Fact]
    public void Acid_and_lime_lovers_in_one_medium_are_named_and_a_measured_pH_speaks_for_itself()
    {
        Plant heath = A.Annual("heath") with { Roots = new RootNeeds(RootingMedium.Acid, 4.5, 6) };
        Plant box = A.Annual("box") with { Roots = new RootNeeds(RootingMedium.Any, 6.5, 8) };
        Assert.Contains(RemarksOn(A.Pot(), Summer("heath", "box"), heath, box), r => r.Says.Key == "DifferentMedium:heath:box");
        Assert.Contains(RemarksOn(A.Pot() with { Survey = PlanterSurvey.Unseen with { Ph = 7.5 } }, Summer("heath"), heath), r =>
            r.Says.Key == "PhOutOfRange:heath"
        );
    }

    [Fact]
    [CommonPractice]
    public void A_cool_season_plant_is_told_that_it_stalls_in_heat_and_comes_back()
    {
        Plant nemesia = A.Annual("nemesia", -3) with { Roots = new RootNeeds(HeatCeilingC: 22) };
        Remark remark = RemarksOn(A.Pot(), Summer("nemesia"), nemesia).Single(r => r.Says.Key == "StallsInHeat:nemesia");
        Assert.NotEmpty(remark.Working.Inputs);
        Assert.DoesNotContain(
            RemarksOn(A.Pot(), A.Show("one", A.Day(2027, 3, 20), A.Day(2027, 5, 10), DisplayLayer.Seasonal, new DisplayItem("nemesia", 6)), nemesia),
            r => r.Kind == RemarkKind.StallsInHeat
        );
    }

    [Fact]
    public void A_shrub_that_stands_one_winter_is_judged_by_the_height_that_its_profile_draws()
    {
        Plant shrub = A.Annual("laurel", -20) with
        {
            LifeForm = LifeForm.Shrub,
            HeightCm = 130,
            SpreadAtPurchaseCm = 25,
            MatureSpreadCm = 100,
            GrowthPerDegreeDay = 0.0004,
            Habit = Habit.Upright,
        };
        Display winter = A.Show("winter", A.Day(2026, 11, 2), A.Day(2027, 3, 20), DisplayLayer.Seasonal, new DisplayItem("laurel", 1));
        Assert.DoesNotContain(RemarksOn(A.Pot(), winter, shrub), r => r.Kind == RemarkKind.TallForThePlanter);
        Assert.Contains(RemarksOn(A.Pot(), winter with { Lift = A.Day(2030, 3, 20), Layer = DisplayLayer.Standing }, shrub), r =>
            r.Kind == RemarkKind.TallForThePlanter
        );
    }

    [Fact]
    public void Plugs_are_said_to_want_growing_on_and_a_form_that_is_not_sold_is_named_with_its_mend()
    {
        Plant petunia = A.Shipped("petunia-magenta");
        Display With(string form) =>
            A.Show("summer", A.Day(2027, 5, 24), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem(petunia.Id, 7) { Form = form });
        Remark plugs = RemarksOn(A.Pot(), With("plugs"), petunia).Single(r => r.Kind == RemarkKind.BoughtAsPlugs);
        Assert.Equal(A.Day(2027, 4, 19), plugs.Says["by"]);
        Assert.Equal("packs", plugs.Remedies.Single().After.Items[0].Form);
        Remark crates = RemarksOn(A.Pot(), With("crates"), petunia).Single(r => r.Kind == RemarkKind.NotSoldSo);
        Assert.Null(crates.Remedies.Single().After.Items[0].Form);
        Assert.DoesNotContain(RemarksOn(A.Pot(), With("packs"), petunia), r => r.Kind is RemarkKind.BoughtAsPlugs or RemarkKind.NotSoldSo);
    }

    [Fact]
    public void Nobody_is_told_to_lift_before_winter_what_was_bought_for_its_stems()
    {
        Plant dogwood = A.Shipped("dogwood-red");
        Remark[] said =
        [
            .. RemarksOn(
                A.Pot(30, 24, 25),
                A.Show("stems", A.Day(2026, 10, 1), A.Day(2027, 3, 20), DisplayLayer.Seasonal, new DisplayItem(dogwood.Id, 1)),
                dogwood with
                {
                    RootKillingC = 0,
                }
            ),
        ];
        Assert.Contains(said, r => r.Kind == RemarkKind.RootsLostInWinter);
        Assert.DoesNotContain(said.SelectMany(r => r.Remedies), r => r.Does.Kind.Equals(RemedyKind.LiftBeforeWinter));
    }

    [Fact]
    public void What_stands_above_the_sightline_loses_and_what_is_out_of_proportion_only_looks_so()
    {
        Plant canna = A.Annual("canna", 0) with { Habit = Habit.Upright, HeightCm = 140 };
        Planter crossing = A.Pot() with { Survey = PlanterSurvey.Unseen with { SightlineCm = 90 } };
        Assert.Equal(Gravity.Loses, RemarksOn(crossing, Summer("canna"), canna).Single(r => r.Says.Key == "TooHigh:canna").Gravity);
        Assert.Equal(Gravity.Looks, RemarksOn(A.Pot(), Summer("canna"), canna).Single(r => r.Says.Key == "TallForThePlanter:canna").Gravity);
    }

    [Fact]
    public void A_shrub_left_longer_than_four_years_in_a_pot_becomes_root_bound_and_can_be_lifted_in_time()
    {
        Plant box = A.Annual("box", -26) with { LifeForm = LifeForm.Shrub, RootKillingC = -25 };
        Remark remark = RemarksOn(A.Pot(), A.Show("one", A.Day(2026, 4, 1), A.Day(2034, 4, 1), DisplayLayer.Standing, new DisplayItem("box", 1)), box)
            .Single(r => r.Says.Key == "BecomesRootBound:box");
        Assert.Equal(A.Day(2030, 4, 1), remark.Remedies[0].After.Lift);
    }

    [Fact]
    public void Skin_and_poison_are_named_where_people_and_dogs_come_near_and_nowhere_else()
    {
        Plant spurge = A.Annual("spurge") with { Harm = new Harm(Hazard.Poisonous, Hazard.Poisonous, Hazard.Irritant) };
        Planter bench = A.Pot() with { Survey = PlanterSurvey.Unseen with { Public = PublicReach.Touching, Dogs = true } };
        IReadOnlyList<Remark> said = RemarksOn(bench, Summer("spurge"), spurge);
        Assert.Contains(said, r => r.Says.Key == "IrritatesSkin:spurge");
        Assert.Contains(said, r => r.Says.Key == "PoisonousNear:spurge" && r.Says["children"] is true);
        Assert.DoesNotContain(RemarksOn(A.Pot(), Summer("spurge"), spurge), r =>
            r.Says["plant"] is Plant { Id: "spurge" } && r.Gravity <= Gravity.Weakens
        );
    }

    [Fact]
    [CommonPractice]
    public void A_berrying_holly_wants_one_male_for_several_females()
    {
        Plant female = A.Annual("winterberry", -30) with
        {
            BotanicalName = "Ilex verticillata",
            LifeForm = LifeForm.Shrub,
            RootKillingC = -25,
            Tending = new Tending(Partner: "one male for several females"),
            Windows = [new ColourWindow(ColourPart.Berry, ["#c22c2c"], 0.4, new AllYear())],
        };
        Plant male = female with
        {
            Id = "winterberry-male",
            CommonName = "winterberry, male",
            BotanicalName = "Ilex verticillata, male",
            Tending = new Tending(),
            Windows = [],
        };
        Display stands = A.Show("one", A.Day(2026, 4, 1), A.Day(2029, 4, 1), DisplayLayer.Standing, new DisplayItem("winterberry", 3));
        Remark alone = RemarksOn(A.Bed(), stands with { PlanterId = "bed" }, female, male).Single(r => r.Says.Key == "WithoutPartner:winterberry");
        Assert.Equal(["winterberry", "winterberry-male"], alone.Remedies[0].After.Items.Select(i => i.PlantId));
        Assert.DoesNotContain(RemarksOn(A.Bed(), alone.Remedies[0].After, female, male), r => r.Kind == RemarkKind.WithoutPartner);
    }

    [Fact]
    [CommonPractice]
    public void Nothing_tall_stands_in_front_of_ornamental_bark()
    {
        Plant dogwood = A.Annual("dogwood", -30) with
        {
            LifeForm = LifeForm.Shrub,
            HeightCm = 120,
            RootKillingC = -25,
            Windows = [new ColourWindow(ColourPart.Stem, ["#b3262e"], 0.7, new BareStem(5, 150, 12))],
        };
        Plant cabbage = A.Annual("kale", -12) with { HeightCm = 75 };
        Remark remark = RemarksOn(
                A.Pot(),
                A.Show(
                    "one",
                    A.Day(2026, 11, 1),
                    A.Day(2027, 3, 20),
                    DisplayLayer.Seasonal,
                    new DisplayItem("dogwood", 1),
                    new DisplayItem("kale", 4)
                ),
                dogwood,
                cabbage
            )
            .Single(r => r.Kind == RemarkKind.BeforeStems);
        Assert.Equal(Quantity.Cm(75), remark.Says["height"]);
        Assert.DoesNotContain(
            RemarksOn(
                A.Pot(),
                A.Show(
                    "one",
                    A.Day(2026, 11, 1),
                    A.Day(2027, 3, 20),
                    DisplayLayer.Seasonal,
                    new DisplayItem("dogwood", 1),
                    new DisplayItem("kale", 4)
                ),
                dogwood,
                cabbage with
                {
                    HeightCm = 25,
                }
            ),
            r => r.Kind == RemarkKind.BeforeStems
        );
    }

    [Fact]
    public void What_stays_leaves_only_so_much_room()
    {
        Plant shrub = A.Annual("shrub", -30) with
        {
            LifeForm = LifeForm.Shrub,
            RootKillingC = -25,
            MatureSpreadCm = 60,
            SpreadAtPurchaseCm = 60,
            HeightCm = 60,
        };
        Display[] displays =
        [
            A.Show("stays", A.Day(2025, 4, 1), A.Day(2028, 4, 1), DisplayLayer.Standing, new DisplayItem("shrub", 1)),
            A.Show("one", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 12)),
        ];
        Plan plan = A.Plan([A.Annual("pansy"), shrub], displays);
        Remark remark = new DisplayChecks(plan, NewYork).For(displays[1]).Single(r => r.Kind == RemarkKind.NoRoomBesideWhatStays);
        Assert.True(remark.Remedies[0].After.Items[0].Count < 12);
        Assert.DoesNotContain(new DisplayChecks(plan, NewYork).For(remark.Remedies[0].After), r => r.Says.Key == remark.Says.Key);
    }

    [Fact]
    public void A_stack_that_does_not_fit_says_which_layer_and_offers_what_would_fit()
    {
        Display stack = A.Show("one", A.Day(2026, 10, 15), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 400));
        Remark remark = RemarksOn(A.Pot(), stack, A.Tulip()).First(r => r.Kind == RemarkKind.StackDoesNotFit);
        BulbStack mended = BulbStack.LayOut(A.Pot(), Site.Default, [new PlannedBulb(A.Tulip(), remark.Remedies[0].After.Items[0].Count, null)]);
        Assert.Empty(mended.Problems);
        Display deep = A.Show("one", A.Day(2026, 10, 15), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 5, 70));
        Assert.Equal(RemedyKind.LayByTheRule, RemarksOn(A.Pot(), deep, A.Tulip())[0].Remedies[0].Does.Kind);
    }

    [Fact]
    public void Leaves_of_a_tall_late_bulb_over_a_small_early_one_are_named_and_clumps_mend_it()
    {
        Plant crocus = A.Bulb("crocus", A.Forcing("glory-of-the-snow-blue"), 2.4, 2) with { HeightCm = 8 };
        Plant daffodil = A.Bulb("daffodil", A.Forcing("daffodil-trumpet-yellow"), 5, 4) with { HeightCm = 40 };
        Display stack = A.Show(
            "one",
            A.Day(2026, 10, 15),
            A.Day(2027, 6, 1),
            DisplayLayer.Bulbs,
            new DisplayItem("crocus", 20),
            new DisplayItem("daffodil", 8)
        );
        Remark remark = RemarksOn(A.Pot(), stack, crocus, daffodil).Single(r => r.Says.Key == "LeavesOverFlowers:crocus:daffodil");
        Assert.Equal(5, remark.Remedies[0].After.Items[0].Clump);
        Assert.DoesNotContain(RemarksOn(A.Pot(), remark.Remedies[0].After, crocus, daffodil), r => r.Says.Key == remark.Says.Key);
    }

    [Fact]
    public void Leaves_that_die_down_with_nothing_over_them_are_named_until_something_leafy_stands_there()
    {
        Display stack = A.Show("one", A.Day(2026, 10, 15), A.Day(2027, 8, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9));
        Plant hosta = A.Annual("hosta", -30) with { LifeForm = LifeForm.Perennial, RootKillingC = -25, MatureSpreadCm = 40, SpreadAtPurchaseCm = 40 };
        Plan bare = A.Plan([A.Tulip(), hosta], stack);
        Plan covered = A.Plan(
            [A.Tulip(), hosta],
            stack,
            A.Show("two", A.Day(2025, 4, 1), A.Day(2030, 1, 1), DisplayLayer.Standing, new DisplayItem("hosta", 2))
        );
        Assert.Contains(new DisplayChecks(bare, NewYork).For(stack), r => r.Says.Key == "LeavesDieInTheOpen:tulip");
        Assert.DoesNotContain(new DisplayChecks(covered, NewYork).For(stack), r => r.Kind == RemarkKind.LeavesDieInTheOpen);
    }

    [Fact]
    public void Bulbs_in_a_pot_without_a_hole_rot()
    {
        Planter closed = A.Pot() with { Survey = PlanterSurvey.Unseen with { DrainHoles = 0 } };
        Display stack = A.Show("one", A.Day(2026, 10, 15), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9));
        Assert.Equal(Gravity.Loses, RemarksOn(closed, stack, A.Tulip()).Single(r => r.Says.Key == "TooWet:tulip").Gravity);
        Assert.DoesNotContain(RemarksOn(A.Pot(), stack, A.Tulip()), r => r.Says.Key == "TooWet:tulip");
    }

    [Fact]
    public void Stock_that_has_waited_long_in_its_pots_is_told_to_have_its_roots_cut()
    {
        Display show = Summer("pansy");
        var plan = new Plan(
            Site.Default,
            [new Area("quay", "Quay", 0)],
            [A.Pot()],
            [A.Annual("pansy")],
            [show],
            [],
            lots: [new Lot("kept", "pansy", 20, LotState.Kept, "bench", A.Day(2026, 10, 1), LotCondition.Fair)]
        );
        Assert.Contains(new DisplayChecks(plan, NewYork).For(show), r => r.Says.Key == "AtHandRootBound:pansy");
    }

    [Fact]
    [CommonPractice]
    public void A_planter_rested_from_tulips_after_tulip_fire_refuses_tulips_until_then_and_no_other_bulb()
    {
        Planter rested = A.Pot() with { Survey = PlanterSurvey.Unseen with { RestsFromGenus = "Tulipa", RestsUntil = A.Day(2029, 8, 1) } };
        Plant tulip = A.Tulip() with { BotanicalName = "Tulipa, Darwin Hybrid Group" };
        Plant daffodil = A.Tulip("daffodil") with { BotanicalName = "Narcissus, Division 1" };
        Display Stack(int year, string id) => A.Show("stack", A.Day(year, 10, 20), A.Day(year + 1, 6, 1), DisplayLayer.Bulbs, new DisplayItem(id, 9));
        Remark remark = RemarksOn(rested, Stack(2026, "tulip"), tulip, daffodil).Single(r => r.Kind == RemarkKind.SoilRests);
        Assert.Equal(Gravity.Loses, remark.Gravity);
        Assert.DoesNotContain(RemarksOn(rested, Stack(2026, "daffodil"), tulip, daffodil), r => r.Kind == RemarkKind.SoilRests);
        Assert.DoesNotContain(RemarksOn(rested, Stack(2029, "tulip"), tulip, daffodil), r => r.Kind == RemarkKind.SoilRests);
        Assert.NotEmpty((rested.Survey with { RestsFromGenus = null }).Faults(false));
        Assert.Empty(rested.Survey.Faults(false));
    }

    [Fact, CommonPractice]
    public void A_few_of_a_kind_in_a_bed_are_strays_and_fifty_bulbs_make_a_display()
    {
        Plant red = Red("red", "#c5283d");
        Remark few = RemarksOn(A.Bed(), Bulbs(("red", 6), ("late", 50)), red, Red("late", "#5b1f3c"))
            .Single(r => r.Says.Key == "TooFewForAGroup:red");
        Assert.Equal(10, few.Remedies[0].After.Items[0].Count);
        Assert.DoesNotContain(RemarksOn(A.Bed(), Bulbs(("red", 60)), red), r => r.Kind is RemarkKind.TooFewForAGroup or RemarkKind.FewBulbsForTheBed);
        Remark thin = RemarksOn(A.Bed(), Bulbs(("red", 20)), red).Single(r => r.Kind == RemarkKind.FewBulbsForTheBed);
        Assert.Equal(50, thin.Remedies[0].After.Items[0].Count);
        Assert.Contains(RemarksOn(A.Pot(), Bulbs(("red", 2)), red), r => r.Says.Key == "TooFewForAGroup:red");
        Assert.DoesNotContain(RemarksOn(A.Pot(), Bulbs(("red", 3)), red), r => r.Kind == RemarkKind.TooFewForAGroup);
    }

    [Fact, CommonPractice]
    public void Two_tulips_of_nearly_one_colour_that_flower_together_look_mixed_up_unless_they_are_named_a_pair()
    {
        Plant[] reds = [Red("red", "#c5283d"), Red("rose-red", "#c9304a"), Red("white", "#f3f2ea")];
        Remark mixed = RemarksOn(A.Pot(), Bulbs(("red", 5), ("rose-red", 5)), reds).Single(r => r.Says.Key == "LookMixedUp:red:rose-red");
        Remedy meant = mixed.Remedies.Single(r => r.Does.Kind.Equals(RemedyKind.NameThemAPair));
        Assert.DoesNotContain(RemarksOn(A.Pot(), meant.After, reds), r => r.Kind == RemarkKind.LookMixedUp);
        Assert.DoesNotContain(RemarksOn(A.Pot(), Bulbs(("red", 5), ("white", 5)), reds), r => r.Kind == RemarkKind.LookMixedUp);
    }

    private static Plant Red(string id, string colour) =>
        A.Tulip(id) with
        {
            BotanicalName = "Tulipa, a group",
            Windows = [new ColourWindow(ColourPart.Flower, [colour], 0.6, A.MidTulip)],
        };

    private static Display Bulbs(params (string Plant, int Count)[] kinds) =>
        A.Show("one", A.Day(2026, 10, 20), A.Day(2027, 5, 25), DisplayLayer.Bulbs, [.. kinds.Select(k => new DisplayItem(k.Plant, k.Count))]);

    private static Display Summer(params string[] plants) =>
        A.Show("one", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, [.. plants.Select(p => new DisplayItem(p, 6))]);

    [Fact, CommonPractice]
    public void Bulbs_that_go_below_pansies_set_three_weeks_before_can_go_in_with_them_on_one_day()
    {
        Plan With(Display bulbs) =>
            A.Plan(
                [A.Pot()],
                [A.Annual("pansy"), A.Tulip()],
                [A.Show("top", A.Day(2026, 10, 1), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 6)), bulbs]
            );
        Remark? Said(Display bulbs) => new DisplayChecks(With(bulbs), NewYork).For(bulbs).SingleOrDefault(r => r.Kind == RemarkKind.LiftedForBulbs);
        Display after = A.Show("bulbs", A.Day(2026, 10, 22), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9));
        Remedy mend = Assert.Single(Said(after)!.Remedies);
        Assert.Equal(A.Day(2026, 10, 1), mend.After.Install);
        Assert.Null(Said(mend.After));
    }

    private static IReadOnlyList<Remark> RemarksOn(Planter planter, Display display, params Plant[] palette)
    {
        Plan plan = A.Plan([planter], palette, [display with { PlanterId = planter.Id }]);
        return new DisplayChecks(plan, NewYork).For(plan.Displays[0]);
    }
}
