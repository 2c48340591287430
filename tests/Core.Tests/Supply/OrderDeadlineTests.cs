using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Core.Tests.Supply;

/// <summary>By when the demo's goods are to be ordered.</summary>
public sealed class OrderDeadlineTests
{
    private static readonly Plan Demo = Read();

    [Fact]
    public void Every_line_that_is_bought_has_one_deadline_before_the_day_on_which_it_is_wanted()
    {
        List<TurnOrder> orders = [.. Demo.Turns.Select(t => TurnOrder.For(Demo, t))];
        IReadOnlyList<OrderDeadline> deadlines = OrderDeadline.Of(orders);
        Assert.Equal(
            orders.SelectMany(o => o.Lines).Where(l => l.Purchase.Bought > 0).Select(l => (l.Plant.Id, l.Purchase.Bought)).Order(),
            deadlines.SelectMany(d => d.Lines).Select(l => (l.Plant.Id, l.Purchase.Bought)).Order()
        );
        Assert.All(deadlines, d => Assert.True(d.LastOrderDay < d.By && d.By <= d.Turn.LastDay));
        Assert.Equal(deadlines.OrderBy(d => d.LastOrderDay).Select(d => d.LastOrderDay), deadlines.Select(d => d.LastOrderDay));
    }

    [Fact]
    public void Bulbs_are_ordered_months_ahead_and_plugs_before_the_weeks_in_which_they_are_grown_on()
    {
        var planted = new LocalDate(2026, 10, 5);
        OrderDeadline bulbs = OrderDeadline.Of(Demo.Turns.Select(t => TurnOrder.For(Demo, t))).First(d => d.Sort == GoodsSort.Bulbs);
        Assert.InRange(Period.DaysBetween(bulbs.LastOrderDay, bulbs.By), 90, 150);
        Assert.True(bulbs.IsLate(bulbs.LastOrderDay.PlusDays(1)) && !bulbs.IsLate(bulbs.LastOrderDay));

        Plant plugs = A.Annual("bedding") with { Packs = [new Pack("tray of 72 plugs", 72, 30)] };
        var turn = new Turn("fall", "Fall", planted, planted.PlusDays(3)) { Delivery = planted.PlusDays(-2) };
        var plan = new Plan(
            Demo.Site,
            [new Area("yard", "Yard", 0)],
            [A.Pot() with { AreaId = "yard" }],
            [plugs],
            [new Display("d", "pot", DisplayLayer.Seasonal, planted, planted.PlusDays(100), [new DisplayItem("bedding", 12)])],
            [turn]
        );
        OrderDeadline grown = Assert.Single(OrderDeadline.Of([TurnOrder.For(plan, turn)]));
        Assert.Equal(GoodsSort.Plugs, grown.Sort);
        Assert.Equal(planted.PlusWeeks(-5), grown.By);
        Assert.True(grown.LastOrderDay < planted.PlusWeeks(-15));
    }

    private static Plan Read()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
