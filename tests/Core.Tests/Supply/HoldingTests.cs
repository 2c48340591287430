using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Core.Tests.Supply;

/// <summary>What waits in the holding area, what it needs, and what goes wrong there.</summary>
public sealed class HoldingTests
{
    private static readonly LocalDate Start = new(2027, 4, 12);
    private static readonly HoldingPlace Bench = new("bench", "Bench", HoldingKind.Bench, 12);
    private static readonly HoldingPlace Glass = new("glass", "Glass", HoldingKind.FrostFree, 12);

    private static readonly Plant Tender = A.Annual("bedding") with
    {
        LifeForm = LifeForm.TenderAnnual,
        TopDamageC = 1,
        Packs = [new Pack("cell pack of 6", 6, 4), new Pack("tray of 72 plugs", 72, 20)],
    };

    private static HeldGoods Packs(int count, LocalDate from, LocalDate? on, HoldingPlace? place) =>
        new(Tender, GoodsForm.Of(Tender)[0], count, place, from, on);

    private static HoldingPlan Over(IReadOnlyList<HeldGoods> goods, Func<LocalDate, (double, double)>? air = null, params HoldingPlace[] places) =>
        new(places.Length == 0 ? [Bench, Glass] : places, goods, Start, Start.PlusWeeks(12), air ?? (_ => (6, 16)));

    // Four weeks in their cells, five until the first flowers are over: both common practice.
    [Fact]
    public void Stock_that_comes_too_early_is_warned_of_weeks_ahead()
    {
        HeldGoods early = Packs(60, Start.PlusWeeks(3), Start.PlusWeeks(9), Bench) with { IsToCome = true };
        HoldingPlan plan = Over([early]);
        HoldingRemark bound = Assert.Single(plan.Remarks, r => r.Kind == HoldingWarning.RootBound);
        Assert.Equal(Start.PlusWeeks(7), bound.Day);
        Assert.Contains(plan.Remarks, r => r.Kind == HoldingWarning.GoesOver && r.Day == Start.PlusWeeks(8));
        Assert.Empty(Over([early with { From = Start.PlusWeeks(8) }]).Remarks);
    }

    [Fact]
    public void Plugs_are_not_ready_before_they_are_grown_on()
    {
        GoodsForm plugs = GoodsForm.Of(Tender)[1];
        Assert.Equal(GoodsSort.Plugs, plugs.Sort);
        HeldGoods late = new(Tender, plugs, 72, Bench, Start, Start.PlusWeeks(3));
        HoldingRemark remark = Assert.Single(Over([late]).Remarks);
        Assert.Equal((HoldingWarning.TooLate, Start.PlusWeeks(5)), (remark.Kind, remark.Day));
        Assert.Empty(Over([late with { PlantOn = Start.PlusWeeks(6) }]).Remarks);
    }

    [Fact]
    public void A_cold_week_is_warned_of_where_they_stand_in_the_open_and_not_under_glass()
    {
        (double, double) Cold(LocalDate day) => day >= Start.PlusDays(10) && day < Start.PlusDays(17) ? (-3, 4) : (6, 16);
        HoldingPlan open = Over([Packs(60, Start, Start.PlusWeeks(3), Bench)], Cold);
        HoldingRemark cold = Assert.Single(open.Remarks, r => r.Kind == HoldingWarning.TooCold);
        Assert.Equal((Start.PlusDays(10), -3.0), (cold.Day, cold.LowC!.Value));
        Assert.Contains(HoldingTask.CoverTonight, open.Tasks(open.Goods[0], Start.PlusDays(12)));
        Assert.DoesNotContain(HoldingTask.CoverTonight, open.Tasks(open.Goods[0], Start.PlusDays(18)));
        Assert.DoesNotContain(Over([Packs(60, Start, Start.PlusWeeks(3), Glass)], Cold).Remarks, r => r.Kind == HoldingWarning.TooCold);
    }

    [Fact]
    public void A_forecast_comes_before_what_the_years_say_and_nothing_is_hardened_off_in_the_cold()
    {
        HoldingAir air = new HoldingAir(null).With(new Dictionary<LocalDate, (double, double)> { [Start.PlusDays(1)] = (-2, 6) });
        Assert.Equal((-2.0, 6.0), air.On(Start.PlusDays(1)));
        Assert.Equal(new HoldingAir(null).On(Start.PlusDays(2)), air.On(Start.PlusDays(2)));
        HoldingPlan plan = Over([Packs(60, Start.PlusDays(-20), Start.PlusDays(5), Bench)], air.On);
        Assert.Contains(HoldingTask.CoverTonight, plan.Tasks(plan.Goods[0], Start.PlusDays(1)));
        Assert.DoesNotContain(HoldingTask.HardenOff, plan.Tasks(plan.Goods[0], Start.PlusDays(1)));
        Assert.Contains(HoldingTask.HardenOff, plan.Tasks(plan.Goods[0], Start.PlusDays(2)));
    }

    // Trays are soaked for an hour and drained when they come; tender plants are hardened off for ten days before they go out.
    [Fact]
    public void Trays_are_soaked_on_arrival_watered_daily_and_hardened_off_before_planting()
    {
        HoldingPlan plan = Over([Packs(60, Start, Start.PlusDays(24), Bench)]);
        HeldGoods goods = plan.Goods[0];
        Assert.Contains(HoldingTask.SoakAndDrain, plan.Tasks(goods, Start));
        Assert.DoesNotContain(HoldingTask.HardenOff, plan.Tasks(goods, Start.PlusDays(13)));
        Assert.Contains(HoldingTask.HardenOff, plan.Tasks(goods, Start.PlusDays(14)));
        for (LocalDate day = Start.PlusDays(1); day < goods.PlantOn; day = day.PlusDays(1))
            Assert.Contains(HoldingTask.Water, plan.Tasks(goods, day));
        Assert.Empty(plan.Tasks(goods, goods.PlantOn!.Value));
        Assert.Contains(HoldingTask.WaterTwice, Over([Packs(60, Start, Start.PlusDays(24), Bench)], _ => (18, 33)).Tasks(goods, Start.PlusDays(2)));
    }

    [Fact]
    public void Dry_bulbs_are_looked_over_weekly_and_never_watered()
    {
        Plant bulb = A.Tulip();
        HeldGoods dry = new(bulb, GoodsForm.Of(bulb)[0], 500, null, Start, Start.PlusWeeks(4));
        HoldingPlan plan = Over([dry], _ => (-4, 5));
        for (LocalDate day = Start; day < dry.PlantOn; day = day.PlusDays(1))
            Assert.True(plan.Tasks(dry, day) is [] or [HoldingTask.LookOver]);
        Assert.DoesNotContain(plan.Remarks, r => r.Kind == HoldingWarning.TooCold);
    }

    [Fact]
    public void Room_is_what_pots_take_side_by_side_and_too_much_is_told_on_the_first_day()
    {
        double each = GoodsForm.Of(Tender)[0].SpreadCm / 100;
        HeldGoods goods = Packs(400, Start, Start.PlusWeeks(3), Bench);
        Assert.Equal(400 * each * each, goods.RoomM2, 6);
        HoldingPlace small = Bench with { RoomM2 = goods.RoomM2 - 0.01 };
        HoldingRemark full = Assert.Single(Over([goods with { Place = small, From = Start.PlusDays(5) }], null, small).Remarks, r =>
            r.Kind == HoldingWarning.NoRoom
        );
        Assert.Equal(Start.PlusDays(5), full.Day);
        Assert.DoesNotContain(Over([goods with { Count = 200 }]).Remarks, r => r.Kind == HoldingWarning.NoRoom);
    }

    [Fact]
    public void What_nothing_in_the_plan_takes_is_told()
    {
        Assert.Contains(Over([Packs(60, Start, null, Bench)]).Remarks, r => r.Kind == HoldingWarning.NothingTakesThem);
    }
}
