using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Plants of one kind and form that a turn still has to get from somewhere, beside what is at hand and on order.</summary>
/// <param name="Turn">The turn.</param>
/// <param name="Line">What the plan wants, and what is at hand of it.</param>
/// <param name="OnOrder">Plants on their way.</param>
/// <param name="Drafted">Plants in orders that are not sent yet.</param>
public sealed record SupplyNeed(Turn Turn, OrderLine Line, int OnOrder, int Drafted)
{
    /// <summary>Plants that nobody has ordered yet.</summary>
    public int Open => Math.Max(0, Line.Purchase.Wanted - OnOrder - Drafted);

    /// <summary>Plants on their way, or drafted, that the plan no longer wants.</summary>
    public int Over => Math.Max(0, OnOrder + Drafted - Line.Purchase.Wanted);

    /// <summary>The day on which it is to be here.</summary>
    public LocalDate By => Turn.Delivery ?? Turn.FirstDay;

    /// <summary>The needs of a turn, as the orders of now leave them. What is on order serves lines of its kind in their order.</summary>
    /// <param name="order">What the turn wants.</param>
    /// <param name="accounts">Orders with what came of them.</param>
    public static IReadOnlyList<SupplyNeed> Of(TurnOrder order, IReadOnlyList<OrderAccount> accounts)
    {
        Dictionary<string, int> coming = Sum(a => a.Order.IsOpen);
        Dictionary<string, int> drafted = Sum(a => a.Order.Stage == OrderState.Draft);
        var needs = new List<SupplyNeed>();
        foreach (IGrouping<string, OrderLine> kind in order.Lines.GroupBy(l => l.Plant.Id, StringComparer.Ordinal))
        {
            int left = coming.GetValueOrDefault(kind.Key);
            int leftDrafted = drafted.GetValueOrDefault(kind.Key);
            OrderLine last = kind.Last();
            foreach (OrderLine line in kind)
            {
                // What is over stands with the last line of the kind.
                int here = ReferenceEquals(line, last) ? left : Math.Min(left, line.Purchase.Wanted);
                int hereDrafted = ReferenceEquals(line, last) ? leftDrafted : Math.Min(leftDrafted, Math.Max(0, line.Purchase.Wanted - here));
                left -= here;
                leftDrafted -= hereDrafted;
                needs.Add(new SupplyNeed(order.Turn, line, here, hereDrafted));
            }
        }
        return needs;

        Dictionary<string, int> Sum(Func<OrderAccount, bool> counts) =>
            accounts
                .Where(counts)
                .SelectMany(a =>
                    a.Lines.Where(l => l.Line.TurnId == order.Turn.Id)
                        .Select(l => (l.Line.PlantId, Count: a.Order.Stage == OrderState.Draft ? l.Line.Plants : l.Outstanding))
                )
                .GroupBy(x => x.PlantId, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => g.Sum(x => x.Count), StringComparer.Ordinal);
    }

    /// <summary>
    /// What orders that were sent and the plan of now differ in, by line: how many fewer the plan wants than were wanted of it when it was
    /// ordered. What was bought beyond that for whole packs or a discount is no difference.
    /// </summary>
    /// <param name="account">The order.</param>
    /// <param name="needs">The needs of the turns that it is for.</param>
    public static IReadOnlyList<(OrderedLine Line, int Fewer)> Differences(OrderAccount account, IReadOnlyList<SupplyNeed> needs) =>
        [
            .. account
                .Lines.Where(l => l.Outstanding > 0 && l.Line.TurnId is not null)
                .Select(l =>
                    (
                        l.Line,
                        Fewer: Math.Max(0, l.Line.Wanted - l.Accepted)
                            - needs
                                .Where(n => n.Turn.Id == l.Line.TurnId && n.Line.Plant.Id == l.Line.PlantId)
                                .Sum(n => Math.Min(n.OnOrder, n.Line.Purchase.Wanted))
                    )
                )
                .Where(d => d.Fewer > 0),
        ];
}
