using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Work;

/// <summary>What happens at a planter on a day is told once, and what is told adds up: over random plans, and in the cases that crews met.</summary>
public sealed class ChangeoverTests
{
    private static readonly LocalDate Zero = A.Day(2026, 1, 1);

    private static readonly Plant[] Palette =
    [
        A.Annual("petunia"),
        A.Annual("pansy"),
        A.Annual("ivy"),
        A.Tulip(),
        A.Tulip("crocus", height: 2, diameter: 2),
    ];

    private static readonly Gen<Plan> Plans =
        from bed in Gen.Bool
        from used in Gen.Bool
        from replaced in Gen.Bool
        from tops in Gen.Select(Gen.Int[10, 150], Gen.Int[0, 1], Gen.Int[0, 31]).Array[0, 8]
        from stacks in Gen.Select(Gen.Int[60, 300], Gen.Int[0, 150], Gen.Int[1, 31]).Array[0, 3]
        from lots in Gen.Select(Gen.Int[0, 4], Gen.Int[1, 30], Gen.Int[0, 700]).Array[0, 3]
        select PlanOf(bed, used, replaced, tops, stacks, lots);

    [Fact]
    public void What_is_kept_of_a_planter_is_what_would_be_reckoned_anew_whatever_of_the_plan_has_changed() =>
        Plans.Sample(plan =>
        {
            Planter planter = plan.Planters[0];
            Plan Other(Site? site = null, IReadOnlyList<Plant>? palette = null) =>
                new(site ?? plan.Site, plan.Areas, plan.Planters, palette ?? plan.Palette, plan.Displays, plan.Turns, lots: plan.Lots);
            Plan[] afterwards =
            [
                plan,
                .. plan.Displays.Select(d => plan.Changed([d.Id], [])),
                Other(plan.Site with { FreshMediumCm = plan.Site.FreshMediumCm / 2 }),
                Other(palette: [.. plan.Palette.Select(p => p.Bulb is { } b ? p with { Bulb = b with { HeightCm = b.HeightCm + 1 } } : p)]),
                plan,
            ];
            // Of a copy nothing is kept.
            foreach (Plan now in afterwards)
                Assert.Equal(Told(Changeover.Of(now, planter with { })), Told(Changeover.Of(now, planter)));
        });

    private static IEnumerable<string> Told(IEnumerable<Changeover> changes)
    {
        static string All(IEnumerable<ChangeoverItem> items) =>
            string.Join(' ', items.Select(i => $"{i.Display.Id}/{i.Plant.Id}/{i.Count}/{i.DepthCm}/{i.CoverCm}"));
        return changes.Select(c =>
            $"{c.Day} out {All(c.Out)} in {All(c.In)} stays {All(c.Stays)} dig {c.DigDepthCm} medium {c.Medium?.Litres} feed {c.Feed.Sum(f => f.Grams)}"
        );
    }

    [Fact]
    public void What_stands_after_a_day_is_what_stood_before_less_what_came_out_and_what_went_in() =>
        Plans.Sample(
            plan =>
            {
                Planter planter = plan.Planters[0];
                foreach (Changeover c in Changeover.Of(plan, planter))
                {
                    foreach (DisplayLayer layer in Enum.GetValues<DisplayLayer>())
                    {
                        foreach (Plant plant in plan.Palette)
                        {
                            int Of(IEnumerable<ChangeoverItem> items) =>
                                items.Where(i => i.Display.Layer == layer && i.Plant.Id == plant.Id).Sum(i => i.Count);
                            Assert.Equal(
                                Standing(plan, c.Day, layer, plant),
                                Standing(plan, c.Day.PlusDays(-1), layer, plant) - Of(c.Out) + Of(c.In)
                            );
                            Assert.Equal(Standing(plan, c.Day, layer, plant), Of(c.Stays) + Of(c.In));
                        }
                    }
                }
                // Nothing appears or vanishes on a day without a changeover.
                HashSet<LocalDate> days = [.. Changeover.Of(plan, planter).Select(c => c.Day)];
                foreach (LocalDate day in plan.Displays.SelectMany(Changeover.DaysOf).Where(d => !days.Contains(d)))
                    Assert.All(plan.Palette, p =>
                        Assert.All(Enum.GetValues<DisplayLayer>(), l =>
                            Assert.Equal(Standing(plan, day.PlusDays(-1), l, p), Standing(plan, day, l, p))
                        )
                    );
            },
            iter: 2000
        );

    [Fact]
    public void Every_plant_that_goes_in_is_in_stock_or_ordered_once_with_the_spares_of_its_kind() =>
        Plans.Sample(
            plan =>
            {
                var all = new Turn("all", "All", Zero.PlusYears(-5), Zero.PlusYears(9));
                IReadOnlyList<Changeover> changes = Changeover.Between(plan, all.FirstDay, all.LastDay);
                IReadOnlyList<StockReservation> reserved = StockReservation.Of(plan, changes);
                TurnOrder order = TurnOrder.From(plan, all, changes, reserved);
                foreach (Plant plant in plan.Palette)
                {
                    int goesIn = changes.Sum(c => c.In.Where(i => i.Plant.Id == plant.Id).Sum(i => i.Count));
                    OrderLine? line = order.Lines.SingleOrDefault(l => l.Plant.Id == plant.Id);
                    Assert.Equal(goesIn, line?.Planned ?? 0);
                    Assert.True((line?.FromStock ?? 0) + (line?.Purchase.Bought ?? 0) >= goesIn);
                    int lots =
                        plan.Lots.Where(l => l.PlantId == plant.Id && l.Condition != LotCondition.Poor).Sum(l => l.Count)
                        + reserved.Where(r => r.IsToCome && r.Lot.PlantId == plant.Id).Sum(r => r.Count);
                    Assert.True(lots + (line?.Purchase.Bought ?? 0) >= PackPurchase.WithSpares(goesIn, plan.Site.SparesOf(plant)));
                }
                Assert.All(plan.Lots, l => Assert.True(reserved.Where(r => r.Lot == l).Sum(r => r.Count) <= l.Count));
                Assert.All(reserved, r => Assert.True(r.Day >= r.Lot.Since && r.Lot.Condition != LotCondition.Poor));
                // What is kept for another planting came out before, and no more of it than came out.
                foreach (var kept in reserved.Where(r => r.IsToCome).GroupBy(r => r.Lot))
                    Assert.True(
                        kept.Sum(r => r.Count)
                            <= changes
                                .Where(c => c.Day == kept.Key.Since && c.Planter.Id == kept.Key.FromPlanterId)
                                .SelectMany(c => c.Out)
                                .Where(i => i.Plant.Id == kept.Key.PlantId)
                                .Sum(i => i.Count)
                    );
            },
            iter: 2000
        );

    [Fact]
    public void Fresh_medium_is_no_more_than_may_be_dug_and_nothing_is_filled_twice_within_a_year() =>
        Plans.Sample(
            plan =>
            {
                Planter planter = plan.Planters[0];
                IReadOnlyList<Changeover> all = Changeover.Of(plan, planter);
                if (planter.Form.IsBed)
                    Assert.All(all, c => Assert.Null(c.Medium));
                foreach (Changeover c in all.Where(c => c.Medium is not null))
                {
                    double may = Math.Min(c.DigDepthCm ?? double.MaxValue, planter.Form.PlantableDepthCm);
                    Assert.True(c.Medium!.Litres <= planter.Form.LitresBetween(0, may) + 1e-6);
                    double year = all.Where(x => x.Day <= c.Day && Period.DaysBetween(x.Day, c.Day) < MediumRenewal.FreshDays)
                        .Sum(x => x.Medium?.Litres ?? 0);
                    Assert.True(year <= planter.Form.PlantableLitres + 1e-6);
                }
            },
            iter: 2000
        );

    [Fact]
    public void No_sheet_has_the_crew_dig_through_bulbs_that_stay() =>
        Plans.Sample(
            plan =>
            {
                foreach (Changeover c in Changeover.Of(plan, plan.Planters[0]))
                {
                    double tip = c.Stays.Where(s => s.CoverCm is not null).Select(s => s.CoverCm!.Value).DefaultIfEmpty(double.MaxValue).Min();
                    Assert.True((c.Medium?.DepthCm ?? 0) < tip);
                    Assert.All(c.Stays, s =>
                        Assert.DoesNotContain(c.Out.Concat(c.In), x => ReferenceEquals(x.Item, s.Item) && x.Count + s.Count > s.Item.Count)
                    );
                    if (c.Stays.Any(s => s.CoverCm is not null))
                        Assert.DoesNotContain(DaySheet.For(plan, c.Day).Planters.SelectMany(p => p.Steps), s => s.Kind is StepKind.ReplaceAllMedium);
                }
            },
            iter: 2000
        );

    [Fact]
    public void Every_day_of_work_lies_in_a_turn_or_is_named() =>
        Gen.Select(Plans, Gen.Int[0, 300], Gen.Int[1, 60], Gen.Int[1, 200], Gen.Int[1, 60])
            .Sample(
                (plan, first, long1, gap, long2) =>
                {
                    LocalDate start = Zero.PlusDays(first);
                    Turn[] turns =
                    [
                        new("a", "A", start, start.PlusDays(long1)),
                        new("b", "B", start.PlusDays(long1 + gap), start.PlusDays(long1 + gap + long2)),
                    ];
                    Plan with = A.Plan(plan.Planters, plan.Palette, plan.Displays, turns);
                    IReadOnlyList<DayOutsideTurns> outside = DayOutsideTurns.Of(with);
                    foreach (Display d in with.Displays)
                    {
                        foreach (LocalDate day in new[] { d.Install, d.Lift }.Where(x => x >= turns[0].FirstDay && x <= turns[1].LastDay))
                            Assert.NotEqual(Array.Exists(turns, t => t.Holds(day)), outside.Any(o => o.Display == d && o.Day == day));
                    }
                    Assert.All(outside, o => Assert.True(o.Nearest.Holds(o.InTurn)));
                },
                iter: 2000
            );

    [Fact]
    public void Over_crocus_that_lie_at_seven_centimetres_only_a_top_dressing_goes_on()
    {
        Plan plan = A.Plan(
            [A.UsedPot()],
            Palette,
            [
                A.Show("summer", A.Day(2025, 5, 20), A.Day(2026, 11, 9), DisplayLayer.Seasonal, new DisplayItem("petunia", 6)),
                A.Show("crocus", A.Day(2026, 10, 19), A.Day(2027, 5, 20), DisplayLayer.Bulbs, new DisplayItem("crocus", 40, 7)),
                A.Show("winter", A.Day(2026, 11, 9), A.Day(2027, 3, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)),
            ]
        );
        Changeover winter = Changeover.Of(plan, plan.Planters[0]).Single(c => c.Day == A.Day(2026, 11, 9));
        Assert.Equal(3, winter.DigDepthCm);
        Assert.Null(winter.Medium);
        Assert.Empty(winter.Feed);
        Assert.Contains(DaySheet.For(plan, winter.Day).Planters[0].Steps, s =>
            s.Equals(new Fact(StepKind.DigNoDeeper, ("depth", Quantity.Depth(3))))
        );
    }

    [Fact]
    public void Bulbs_that_go_below_pansies_have_them_lifted_and_set_back_and_only_the_rest_of_the_medium_renewed()
    {
        Planter pot = A.UsedPot();
        Plan plan = A.Plan(
            [pot],
            Palette,
            [
                A.Show("winter", A.Day(2026, 10, 1), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)),
                A.Show("bulbs", A.Day(2026, 10, 22), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 15, 31)),
            ]
        );
        IReadOnlyList<Changeover> all = Changeover.Of(plan, pot);
        Assert.Equal(("pansy", 8), (all[1].Lifted.Single().Plant.Id, all[1].Lifted.Single().Count));
        Assert.Contains(DaySheet.For(plan, all[1].Day).Planters[0].Steps, s => s.Kind is StepKind.LiftAndSetBack && s["minutes"] is 12);
        Assert.Equal(pot.Form.LitresBetween(20, 36), all[1].Medium!.Litres, 1e-6);
        Assert.Contains(DaySheet.For(plan, all[1].Day).Planters[0].Steps, s =>
            s.Kind is StepKind.RenewBelowFresh && Quantity.Depth(20).Equals(s["fresh"])
        );
    }

    [Fact]
    public void Gravel_over_the_hole_takes_its_depth_from_the_medium_and_from_the_bulbs_alike()
    {
        Planter pot = A.Pot(75, 60, 65) with { Survey = PlanterSurvey.Unseen with { GravelOverHole = true } };
        Plan plan = A.Plan(
            [pot],
            Palette,
            [A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 12))]
        );
        MediumLine medium = Changeover.Of(plan, pot)[0].Medium!;
        Assert.Equal(pot.Form.PlantableDepthCm - BulbStack.GravelCm, medium.DepthCm, 1e-9);
        Assert.Equal(pot.Form.LitresBetween(0, pot.Form.PlantableDepthCm - BulbStack.GravelCm), medium.Litres, 1e-6);
        Assert.Equal(medium.DepthCm - BulbStack.RootRoomCm, BulbStack.DeepestBaseCm(pot, plan.Site), 1e-9);
    }

    [Fact, CommonPractice]
    public void A_sixty_centimetre_pot_stripped_renewed_and_planted_takes_about_half_an_hour_and_fabric_more_than_doubles_planting()
    {
        Plan Of(bool fabric) =>
            A.Plan(
                [A.UsedPot() with { Survey = A.UsedPot().Survey with { WeedFabric = fabric } }],
                Palette,
                [
                    A.Show("summer", A.Day(2025, 5, 20), A.Day(2026, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 8)),
                    A.Show("fall", A.Day(2026, 9, 20), A.Day(2027, 4, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)),
                ]
            );
        int Minutes(bool fabric) => Labour.MinutesOf(Changeover.Of(Of(fabric), Of(fabric).Planters[0])[1], LabourTable.Usual);
        Assert.InRange(Minutes(false), 20, 40);
        Assert.InRange(Minutes(true) - Minutes(false), 8, 20);
    }

    [Fact]
    public void The_mark_of_a_sheet_changes_with_any_count_on_it_and_with_nothing_else()
    {
        Plan With(int petunias, int later) =>
            A.Plan(
                [A.UsedPot()],
                Palette,
                [
                    A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", petunias)),
                    A.Show("fall", A.Day(2026, 9, 20), A.Day(2027, 3, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", later)),
                ]
            );
        string Mark(Plan plan) => DaySheet.For(plan, A.Day(2026, 5, 20)).Mark;
        Assert.Equal(Mark(With(8, 5)), Mark(With(8, 6)));
        Assert.NotEqual(Mark(With(8, 5)), Mark(With(9, 5)));
    }

    [Fact]
    public void What_is_kept_arrives_in_the_stock_once_and_compost_never()
    {
        Plan plan = A.Plan(
            [A.UsedPot()],
            Palette,
            [
                A.Show(
                    "summer",
                    A.Day(2025, 5, 20),
                    A.Day(2026, 9, 20),
                    DisplayLayer.Seasonal,
                    new DisplayItem("petunia", 8) { Fate = PlantFate.Keep },
                    new DisplayItem("pansy", 5) { Fate = PlantFate.Compost }
                ),
                A.Show("bulbs", A.Day(2025, 10, 20), A.Day(2026, 9, 20), DisplayLayer.Bulbs, new DisplayItem("tulip", 9) { Fate = PlantFate.Store }),
            ]
        );
        Changeover lift = Changeover.Of(plan, plan.Planters[0])[^1];
        IReadOnlyList<Lot> kept = KeptPlants.Of(lift);
        Assert.Equal([("petunia", 8, LotState.Kept), ("tulip", 9, LotState.Stored)], kept.Select(l => (l.PlantId, l.Count, l.State)));
        Assert.All(kept, l => Assert.Empty(l.Faults()));
        Assert.Equal(kept, KeptPlants.Of(lift));
        Assert.Empty(KeptPlants.Missing(lift, kept));
        Lot byHand = kept[0] with { Id = "shelf-three", Count = 7, Since = lift.Day.PlusDays(3) };
        Assert.Equal("tulip", Assert.Single(KeptPlants.Missing(lift, [byHand])).PlantId);
    }

    [Fact]
    public void What_is_kept_from_one_planter_is_planted_in_another_before_any_is_bought()
    {
        Planter other = A.UsedPot() with { Id = "other", Name = "Other" };
        Plan Of(PlantFate fate) =>
            A.Plan(
                [A.UsedPot(), other],
                Palette,
                [
                    A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 9, 20), DisplayLayer.Seasonal, new DisplayItem("ivy", 6) { Fate = fate }),
                    A.Show("fall", A.Day(2026, 9, 20), A.Day(2027, 3, 1), DisplayLayer.Seasonal, new DisplayItem("ivy", 8)) with
                    {
                        PlanterId = other.Id,
                    },
                ],
                [new Turn("fall", "Fall", A.Day(2026, 9, 15), A.Day(2026, 9, 25))]
            );
        OrderLine Line(Plan plan) => Assert.Single(TurnOrder.For(plan, plan.Turns[0], A.Day(2026, 9, 1)).Lines);
        Assert.Equal((6, 3), (Line(Of(PlantFate.Keep)).FromStock, Line(Of(PlantFate.Keep)).Purchase.Wanted));
        Assert.Equal(0, Line(Of(PlantFate.Compost)).FromStock);
        StockReservation comes = Assert.Single(DaySheet.For(Of(PlantFate.Keep), A.Day(2026, 9, 20)).Planters.SelectMany(p => p.FromStock));
        Assert.True(comes.IsToCome);
        Assert.Equal("other", comes.PlanterId);
        // Once somebody has written them down they are stock, and not counted a second time.
        Plan kept = Of(PlantFate.Keep);
        Plan written = new(
            kept.Site,
            kept.Areas,
            kept.Planters,
            kept.Palette,
            kept.Displays,
            kept.Turns,
            lots: [new Lot("bench", "ivy", 5, LotState.Kept, "bench", A.Day(2026, 9, 20), LotCondition.Good)]
        );
        Assert.Equal(5, Line(written).FromStock);
    }

    [Fact]
    public void A_container_that_was_never_filled_takes_its_whole_volume_once()
    {
        Planter pot = A.Pot(75, 60, 65);
        Plan plan = A.Plan(
            [pot],
            Palette,
            [
                A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 12)),
                A.Show("fall", A.Day(2026, 9, 20), A.Day(2026, 11, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 12)),
            ]
        );
        IReadOnlyList<Changeover> all = Changeover.Of(plan, pot);
        Assert.Equal(pot.Form.PlantableLitres, all[0].Medium!.Litres, 1e-6);
        Assert.Null(all[1].Medium);
    }

    [Fact]
    public void What_is_said_to_stay_stays_in_the_next_display_though_that_is_typed_by_hand()
    {
        Display fall = A.Show(
            "fall",
            A.Day(2026, 9, 20),
            A.Day(2026, 11, 10),
            DisplayLayer.Seasonal,
            new DisplayItem("ivy", 4) { Fate = PlantFate.Stays },
            new DisplayItem("petunia", 6)
        );
        Display typed = A.Show("winter", A.Day(2026, 11, 10), A.Day(2027, 4, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 6));
        Display winter = TurnChange.WithStays(fall, typed);
        Assert.Equal(("ivy", 4, fall.Install), (winter.Items[1].PlantId, winter.Items[1].Count, winter.Items[1].Since));
        Changeover change = Changeover.Of(A.Plan([A.Pot()], Palette, [fall, winter]), A.Pot()).Single(c => c.Day == winter.Install);
        Assert.Equal(("ivy", "petunia", "pansy"), (change.Stays.Single().Plant.Id, change.Out.Single().Plant.Id, change.In.Single().Plant.Id));
        // Said otherwise afterwards, it goes in anew.
        Display compost = fall with { Items = [fall.Items[0] with { Fate = PlantFate.Compost }, fall.Items[1]] };
        Assert.Null(TurnChange.WithStays(compost, winter).Items[1].Since);
    }

    [Fact]
    public void Geraniums_that_were_overwintered_are_planted_before_any_are_bought()
    {
        Display summer = A.Show("summer", A.Day(2027, 5, 18), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 31));
        Lot kept = new("frame", "petunia", 24, LotState.Overwintering, "frame 2", A.Day(2026, 10, 20), LotCondition.Good);
        var turn = new Turn("summer", "Summer", A.Day(2027, 5, 17), A.Day(2027, 5, 21));
        Plan plan = new(
            Site.Default,
            [new Area("quay", "Quay", 0)],
            [A.UsedPot()],
            Palette,
            [summer],
            [turn],
            lots: [kept, kept with { Id = "poor", Condition = LotCondition.Poor }]
        );
        OrderLine line = Assert.Single(TurnOrder.For(plan, turn, A.Day(2027, 3, 1)).Lines);
        Assert.Equal((31, 24, 33), (line.Planned, line.FromStock, line.Wanted));
        Assert.Equal(0, Assert.Single(TurnOrder.For(plan, turn, A.Day(2027, 6, 1)).Lines).FromStock);
        Assert.Equal(
            ("frame 2", 24),
            (
                DaySheet.For(plan, summer.Install, A.Day(2027, 3, 1)).Planters[0].FromStock.Single().Lot.Place,
                DaySheet.For(plan, summer.Install).Planters[0].FromStock.Single().Count
            )
        );
    }

    [Fact, CommonPractice]
    public void One_tree_is_ordered_as_one_tree()
    {
        Plant tree = A.Annual("tree") with { LifeForm = LifeForm.Tree };
        var turn = new Turn("fall", "Fall", A.Day(2026, 10, 1), A.Day(2026, 10, 9));
        Plan plan = A.Plan(
            [A.Pot()],
            [tree],
            [A.Show("for-years", A.Day(2026, 10, 1), A.Day(2036, 10, 1), DisplayLayer.Standing, new DisplayItem("tree", 1))],
            [turn]
        );
        Assert.Equal(1, Assert.Single(TurnOrder.For(plan, turn).Lines).Wanted);
    }

    // A day of the seasonal layer follows the other, some with what stays from the one before; stacks of bulbs beside them.
    private static Plan PlanOf(
        bool bed,
        bool used,
        bool replaced,
        (int Days, int Gap, int Kinds)[] tops,
        (int Days, int Gap, int Kinds)[] stacks,
        (int Kind, int Count, int Day)[] lots
    )
    {
        Planter planter =
            bed ? A.Bed()
            : used ? A.UsedPot()
            : A.Pot();
        var displays = new List<Display>();
        LocalDate day = Zero;
        Display? before = null;
        foreach ((int days, int gap, int kinds) in tops)
        {
            day = day.PlusDays(gap * 20);
            // Three kinds, each in, out, or carried on from the display before.
            DisplayItem[] items =
            [
                .. new[] { "petunia", "pansy", "ivy" }
                    .Select((id, k) => (id, k))
                    .Where(x => (kinds >> x.k & 1) == 1)
                    .Select(x => new DisplayItem(x.id, 3 + ((kinds + (5 * x.k)) % 9))
                    {
                        Since =
                            (kinds >> 3 & 1) == 1 && before?.Items.Any(i => i.PlantId == x.id) == true ? before.Install
                            : (kinds >> 4 & 1) == 1 && x.k == 1 ? day.PlusDays(days / 2)
                            : null,
                        Fate =
                            (kinds >> 4 & 1) == 1 && x.k == 2 ? PlantFate.Stays
                            : (kinds >> 2 & 1) == 1 && x.k == 0 ? PlantFate.Keep
                            : null,
                    }),
            ];
            if (items.Length > 0)
            {
                before = A.Show($"top-{displays.Count}", day, day.PlusDays(days), DisplayLayer.Seasonal, items) with { PlanterId = planter.Id };
                displays.Add(before);
            }
            day = day.PlusDays(days);
        }
        day = Zero.PlusDays(200);
        foreach ((int days, int gap, int kinds) in stacks)
        {
            day = day.PlusDays(gap);
            DisplayItem[] items =
            [
                .. new[] { "tulip", "crocus" }
                    .Where((_, k) => (kinds >> k & 1) == 1)
                    .Select(
                        (id, k) =>
                            new DisplayItem(id, 5 + kinds, (kinds >> 3 & 1) == 1 ? 12 + (8 * k) : null)
                            {
                                Fate = (kinds >> 4 & 1) == 1 ? PlantFate.Store : null,
                            }
                    ),
            ];
            if (items.Length > 0)
                displays.Add(A.Show($"bulbs-{displays.Count}", day, day.PlusDays(days), DisplayLayer.Bulbs, items) with { PlanterId = planter.Id });
            day = day.PlusDays(days);
        }
        Lot[] stock =
        [
            .. lots.Select(
                (l, i) =>
                    new Lot(
                        $"lot-{i}",
                        Palette[l.Kind].Id,
                        l.Count,
                        LotState.Kept,
                        "frame",
                        Zero.PlusDays(l.Day),
                        l.Count % 5 == 0 ? LotCondition.Poor : LotCondition.Good
                    )
            ),
        ];
        return new Plan(
            Site.Default with
            {
                Rules = new HouseRules { Medium = replaced ? MediumSchool.ReplaceAll : MediumSchool.Recharge },
            },
            [new Area("quay", "Quay", 0)],
            [planter],
            Palette,
            displays,
            [],
            lots: stock
        );
    }

    // Counted from the displays alone.
    private static int Standing(Plan plan, LocalDate day, DisplayLayer layer, Plant plant) =>
        plan
            .Displays.Where(d => d.Layer == layer && d.StandsOn(day))
            .SelectMany(d => d.Items)
            .Where(i => i.PlantId == plant.Id && !(i.Since > day))
            .Sum(i => i.Count);
}
