using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Core.Tests.Supply;

/// <summary>The store of materials against what the demo's turns measure.</summary>
public sealed class MaterialTests
{
    private static readonly Plan Demo = Read();
    private static readonly Material Medium = new("medium", "Medium", MaterialKind.Medium, 60, 18, 120) { LeadDays = 10 };

    private static readonly List<TurnOrder> Orders =
    [
        .. Demo.Turns.Where(t => t.FirstDay >= new LocalDate(2026, 9, 1)).OrderBy(t => t.FirstDay).Select(t => TurnOrder.For(Demo, t)),
    ];

    [Fact]
    public void What_is_ordered_again_lasts_for_every_turn_and_leaves_the_reorder_point()
    {
        MaterialAccount empty = MaterialAccount.Of(Medium, [], Orders);
        Assert.Equal(Orders.Sum(o => o.Medium.Where(m => !m.IsAcid).Sum(m => m.Litres)), empty.Needed, 6);
        Assert.True(empty.IsToOrder);
        Assert.Equal(Orders.First(o => Medium.NeededFor(o) > 0).Turn.Id, empty.ShortFor!.Id);
        Turn first = empty.ShortFor;
        Assert.Equal((first.Delivery ?? first.FirstDay).PlusDays(-10), empty.OrderBy);
        MaterialAccount bought = MaterialAccount.Of(Medium, [Moved(empty.PacksToOrder * Medium.PackSize, MaterialMove.Received)], Orders);
        Assert.Null(bought.ShortFor);
        Assert.True(bought.AtHand - bought.Needed >= Medium.ReorderAt && bought.AtHand - bought.Needed < Medium.ReorderAt + Medium.PackSize);
    }

    [Fact]
    public void What_a_turns_sheets_have_used_is_not_wanted_again()
    {
        TurnOrder first = Orders.First(o => Medium.NeededFor(o) > 0);
        double used = Medium.NeededFor(first);
        MaterialAccount after = MaterialAccount.Of(
            Medium,
            [Moved(10_000, MaterialMove.Received), Moved(-used, MaterialMove.Used) with { TurnId = first.Turn.Id }],
            Orders
        );
        Assert.Equal(10_000 - used, after.AtHand, 6);
        Assert.DoesNotContain(after.Turns, t => t.Turn.Id == first.Turn.Id);
    }

    [Fact]
    public void The_reorder_point_alone_has_it_ordered_again()
    {
        Material pins = new("pins", "Pins", MaterialKind.Pins, 100, 9, 150);
        Assert.True(MaterialAccount.Of(pins, [Moved(150, MaterialMove.Counted)], Orders).IsToOrder);
        Assert.False(MaterialAccount.Of(pins, [Moved(151, MaterialMove.Counted)], Orders).IsToOrder);
    }

    private static MaterialMovement Moved(double change, MaterialMove kind) =>
        new(Guid.CreateVersion7(), Medium.Id, new LocalDate(2026, 9, 1), change, kind);

    private static Plan Read()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
