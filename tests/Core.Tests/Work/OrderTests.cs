using CsCheck;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Work;

public sealed class OrderTests
{
    private static readonly Turn Fall = new("fall", "Fall", A.Day(2026, 10, 1), A.Day(2026, 10, 9));

    [Fact]
    public void Seventeen_plants_are_cheaper_as_one_flat_of_eighteen_than_as_three_packs()
    {
        PackPurchase p = PackPurchase.Cheapest(17, [new Pack("6-pack", 6, 4.5m), new Pack("flat of 18", 18, 12m)]);
        Assert.Equal((18, 12m), (p.Bought, p.Cost));
        Assert.Equal("flat of 18", Assert.Single(p.Packs).Pack.Form);
    }

    [Fact]
    public void Of_equal_prices_the_purchase_with_the_fewest_over_is_taken() =>
        Assert.Equal(10, PackPurchase.Cheapest(10, [new Pack("bag of 10", 10, 5), new Pack("bag of 12", 12, 5)]).Bought);

    [Fact]
    public void The_cheapest_mix_is_what_trying_every_mix_finds() =>
        Gen.Select(Gen.Int[1, 40], Gen.Int[1, 12], Gen.Int[1, 12], Gen.Int[1, 60], Gen.Int[1, 60])
            .Sample(
                (n, a, b, priceA, priceB) =>
                {
                    int best = int.MaxValue;
                    for (int i = 0; i * a <= n + a; i++)
                    {
                        int rest = Math.Max(0, n - (i * a));
                        best = Math.Min(best, (i * priceA) + ((rest + b - 1) / b * priceB));
                    }
                    PackPurchase p = PackPurchase.Cheapest(n, [new Pack("a", a, priceA), new Pack("b", b, priceB)]);
                    Assert.Equal(best, p.Cost);
                    Assert.True(p.Bought >= n);
                    Assert.Equal(p.Bought, p.Packs.Sum(x => x.Packs * x.Pack.Size));
                },
                iter: 300
            );

    [Theory]
    [InlineData(100, 0.05, 105)]
    [InlineData(11, 0.05, 12)]
    [InlineData(20, 0, 20)]
    public void Spares_are_rounded_up(int planned, double share, int wanted) => Assert.Equal(wanted, PackPurchase.WithSpares(planned, share));

    [Fact]
    public void Two_turns_do_not_lean_on_the_same_rest_of_the_stock_for_their_spares()
    {
        var spring = new Turn("spring", "Spring", A.Day(2027, 4, 1), A.Day(2027, 4, 9));
        Plan bare = A.Plan(
            [A.Pot()],
            [A.Annual()],
            [
                A.Show("one", A.Day(2026, 10, 1), A.Day(2027, 4, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 20)),
                A.Show("two", A.Day(2027, 4, 1), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 20)),
            ],
            [Fall, spring]
        );
        // One over all that goes in: it serves as the fall's spare, and the spring buys its own.
        var plan = new Plan(
            bare.Site,
            bare.Areas,
            bare.Planters,
            bare.Palette,
            bare.Displays,
            bare.Turns,
            lots: [new Lot("lot", "annual", 41, LotState.Waiting, "yard", A.Day(2026, 9, 1), LotCondition.Good)]
        );
        Assert.Equal(0, Assert.Single(TurnOrder.For(plan, Fall, Fall.FirstDay).Lines).Purchase.Wanted);
        Assert.Equal(1, Assert.Single(TurnOrder.For(plan, spring, Fall.FirstDay).Lines).Purchase.Wanted);
    }

    [Fact]
    public void Acid_medium_is_ordered_by_itself_in_whole_bags()
    {
        Plant heath = A.Annual("heath") with { Roots = A.Annual().Roots with { Medium = RootingMedium.Acid }, BotanicalName = "Calluna vulgaris" };
        Plan plan = A.Plan(
            [A.UsedPot(), A.UsedPot("second")],
            [A.Annual(), heath],
            [
                A.Show("one", A.Day(2026, 10, 1), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 8)),
                A.Show("two", A.Day(2026, 10, 2), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("heath", 8)) with
                {
                    PlanterId = "second",
                },
            ],
            [Fall]
        );
        TurnOrder order = TurnOrder.For(plan, Fall);
        Assert.Equal([false, true], order.MediumByKind.Select(m => m.IsAcid));
        Assert.Equal(order.MediumLitres, order.MediumByKind.Sum(m => m.Litres), 1e-9);
        Assert.All(order.MediumByKind, m => Assert.True(m.Bags * plan.Site.MediumBagLitres >= m.Litres));
        IReadOnlyList<Fact> steps = DaySheet.For(plan, A.Day(2026, 10, 2)).Planters.Single().Steps;
        Assert.Contains(steps, s => s.Kind is StepKind.AcidMedium);
        Assert.Contains(steps, s => s.Kind is StepKind.WaterHeathsAtTheFoot);
    }

    [Fact]
    public void A_turn_orders_what_goes_in_during_its_days_and_adds_up_planters()
    {
        Plan plan = A.Plan(
            [A.Pot(), A.Pot(id: "second")],
            [A.Annual()],
            [
                A.Show("one", A.Day(2026, 10, 1), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 8)),
                A.Show("two", A.Day(2026, 10, 9), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 9)) with
                {
                    PlanterId = "second",
                },
                A.Show("later", A.Day(2027, 5, 1), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 50)),
            ],
            [Fall]
        );
        TurnOrder order = TurnOrder.For(plan, Fall);
        OrderLine line = Assert.Single(order.Lines);
        Assert.Equal((17, 18, 18), (line.Planned, line.Purchase.Wanted, line.Purchase.Bought));
        var step = (Core.Facts.Fact)order.Explain(line).Steps[0]!;
        Assert.Equal((17, 18), (step["planned"], step["wanted"]));
    }

    // CommonPractice: some 450 plants for a bed come in flats of 10 and 18; a tree goes in first, then shrubs, then bulbs, then bedding.
    [Fact, CommonPractice]
    public void A_bed_of_450_plants_comes_in_flats_of_ten_and_eighteen_and_is_planted_from_the_tree_down()
    {
        Plant begonia = A.Annual("begonia") with { Packs = [new Pack("flat of 10", 10, 14), new Pack("flat of 18", 18, 24)] };
        Plant salvia = A.Annual("salvia") with { Packs = [new Pack("flat of 18", 18, 24)] };
        Plant tree = A.Annual("crab") with { LifeForm = LifeForm.Tree, HeightCm = 350 };
        Plant shrub = A.Annual("hydrangea") with { LifeForm = LifeForm.Shrub, HeightCm = 90 };
        var may = new Turn("may", "May", A.Day(2027, 5, 17), A.Day(2027, 5, 28)) { Delivery = A.Day(2027, 5, 14) };
        Plan Made(Planter planter) =>
            A.Plan(
                [planter],
                [begonia, salvia, tree, shrub, A.Tulip()],
                [
                    A.Show(
                        "summer",
                        A.Day(2027, 5, 17),
                        A.Day(2027, 10, 1),
                        DisplayLayer.Seasonal,
                        new DisplayItem("begonia", 250),
                        new DisplayItem("hydrangea", 5),
                        new DisplayItem("salvia", 200),
                        new DisplayItem("crab", 1)
                    ) with
                    {
                        PlanterId = planter.Id,
                    },
                    A.Show("bulbs", A.Day(2027, 5, 17), A.Day(2027, 10, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 30)) with
                    {
                        PlanterId = planter.Id,
                    },
                ],
                [may]
            );
        Plan plan = Made(A.Bed(1200, 300));
        TurnOrder order = TurnOrder.For(plan, may);
        foreach (OrderLine line in order.Lines.Where(l => l.Plant == begonia || l.Plant == salvia))
        {
            Assert.True(line.Purchase.Bought >= line.Purchase.Wanted);
            // Never a whole flat too many.
            Assert.True(line.Purchase.Bought - line.Purchase.Wanted < 18);
            Assert.All(line.Purchase.Packs, p => Assert.Contains(p.Pack.Size, new[] { 10, 18 }));
        }
        Assert.InRange(order.Lines.Where(l => l.Plant == begonia || l.Plant == salvia).Sum(l => l.Purchase.Bought), 450, 500);
        Changeover change = Assert.Single(Changeover.Of(plan, plan.Planters[0]), c => c.In.Count > 0);
        Assert.Equal(["crab", "hydrangea", "tulip", "begonia", "salvia"], change.In.Select(i => i.Plant.Id));
        // In a pot the bulbs lie under the root balls.
        Changeover potted = Assert.Single(Changeover.Of(Made(A.Pot()), A.Pot()), c => c.In.Count > 0);
        Assert.Equal(["tulip", "crab", "hydrangea"], potted.In.Take(3).Select(i => i.Plant.Id));
    }

    [Fact, CommonPractice]
    public void A_seasonal_turn_takes_the_fresh_top_20_cm_of_medium()
    {
        Plan plan = A.Plan(
            [A.UsedPot()],
            [A.Annual()],
            [A.Show("one", Fall.FirstDay, A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 8))],
            [Fall]
        );
        TurnOrder order = TurnOrder.For(plan, Fall);
        Assert.Equal(A.Pot().Form.LitresBetween(0, 20), order.MediumLitres, 1e-9);
        Assert.Equal((int)Math.Ceiling(order.MediumLitres / 60), order.MediumBags);
        Assert.Equal((order.MediumBags * 18m) + order.Lines[0].Purchase.Cost, order.Cost);
    }

    [Fact]
    public void Bulbs_and_bedding_in_one_pot_take_the_deeper_medium_once_not_twice()
    {
        Plan plan = A.Plan(
            [A.UsedPot()],
            [A.Annual(), A.Tulip()],
            [
                A.Show("one", Fall.FirstDay, A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 8)),
                A.Show("two", Fall.FirstDay, A.Day(2027, 5, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9, 25)),
            ],
            [Fall]
        );
        Assert.Equal(A.Pot().Form.LitresBetween(0, 30), Assert.Single(TurnOrder.For(plan, Fall).Medium).Litres, 1e-9);
    }

    [Fact]
    public void Beds_take_no_bagged_medium()
    {
        Plan plan = A.Plan(
            [A.Bed()],
            [A.Annual()],
            [A.Show("one", Fall.FirstDay, A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 80)) with { PlanterId = "bed" }],
            [Fall]
        );
        Assert.Equal(0, TurnOrder.For(plan, Fall).MediumBags);
    }

    [Fact]
    public void A_proposal_takes_from_the_stock_what_nothing_else_takes_each_plant_once()
    {
        Plant annual = A.Annual();
        Plan plan = new(
            Site.Default,
            [new Area("quay", "Quay", 0)],
            [A.UsedPot()],
            [annual],
            [A.Show("planned", Fall.FirstDay, A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 8))],
            [Fall],
            lots: [new Lot("kept", "annual", 20, LotState.Kept, "bench", Fall.FirstDay.PlusDays(-20), LotCondition.Good)]
        );
        IReadOnlyList<StockReservation> reserved = StockReservation.Of(plan, Changeover.ToCome(plan, Fall.FirstDay.PlusDays(-10), Fall.FirstDay));
        Assert.Equal(8, reserved.Sum(r => r.Count));
        Display Wanted(int count) => A.Show("new", A.Day(2027, 5, 10), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("annual", count));
        decimal one = annual.Packs.Min(p => p.Price / p.Size);
        (int, decimal) AtHand(int count, params string[] gone) =>
            StockReservation.AtHand(plan, reserved, gone.ToHashSet(StringComparer.Ordinal), [Wanted(count)]);
        Assert.Equal((5, Math.Round(5 * one, 2)), AtHand(5));
        Assert.Equal(12, AtHand(30).Item1);
        // What makes way leaves its plants.
        Assert.Equal(20, AtHand(30, "planned").Item1);
    }
}
