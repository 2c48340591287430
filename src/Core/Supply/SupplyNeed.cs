using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Plants of one kind and form that a turn still has to get from somewhere, beside what is at hand and on order.</summary>
/// <param name="Turn">The turn.</param>
/// <param name="Line">What the plan wants, and what is at hand of it.</param>
/// <param name="OnOrder">Plants on their way.</param>
/// <param name="InQuarantine">Plants that came for the turn and stand apart until they are known to be healthy.</param>
/// <param name="Drafted">Plants in orders that are not sent yet.</param>
public sealed record SupplyNeed(Turn Turn, OrderLine Line, int OnOrder, int InQuarantine, int Drafted)
{
    /// <summary>Plants on their way or in quarantine: bought, and not to be planted yet.</summary>
    public int Coming => OnOrder + InQuarantine;

    /// <summary>Plants that nobody has ordered yet.</summary>
    public int Open => Math.Max(0, Line.Purchase.Wanted - Coming - Drafted);

    /// <summary>Plants on their way, in quarantine or drafted that the plan no longer wants.</summary>
    public int Over => Math.Max(0, Coming + Drafted - Line.Purchase.Wanted);

    /// <summary>The day on which it is to be here.</summary>
    public LocalDate By => Turn.Delivery ?? Turn.FirstDay;

    /// <summary>The needs of a turn, as the orders of now leave them. What is on order serves lines of its kind in their order.</summary>
    /// <param name="order">What the turn wants.</param>
    /// <param name="accounts">Orders with what came of them.</param>
    /// <param name="lots">What is at hand; of what came into quarantine, what still stands there counts as bought.</param>
    public static IReadOnlyList<SupplyNeed> Of(TurnOrder order, IReadOnlyList<OrderAccount> accounts, IReadOnlyList<Lot> lots)
    {
        ILookup<string, Lot> apart = lots.Where(l => l.State == LotState.Quarantine).ToLookup(l => l.PlantId, StringComparer.Ordinal);
        Dictionary<string, int> coming = Sum(accounts.Where(a => a.Order.IsOpen), l => [(l.Line.PlantId, l.Outstanding)]);
        Dictionary<string, int> drafted = Sum(accounts.Where(a => a.Order.Stage == OrderState.Draft), l => [(l.Line.PlantId, l.Line.Plants)]);
        Dictionary<string, int> setApart = Sum(accounts, l => l.SetApart);
        var needs = new List<SupplyNeed>();
        foreach (IGrouping<string, OrderLine> kind in order.Lines.GroupBy(l => l.Plant.Id, StringComparer.Ordinal))
        {
            var left = new Share(coming.GetValueOrDefault(kind.Key));
            var leftApart = new Share(Math.Min(setApart.GetValueOrDefault(kind.Key), apart[kind.Key].Sum(l => l.Count)));
            var leftDrafted = new Share(drafted.GetValueOrDefault(kind.Key));
            OrderLine last = kind.Last();
            foreach (OrderLine line in kind)
            {
                // What is over stands with the last line of the kind.
                bool takesAll = ReferenceEquals(line, last);
                int wanted = line.Purchase.Wanted;
                int here = left.Take(wanted, takesAll);
                int hereApart = leftApart.Take(wanted - here, takesAll);
                needs.Add(new SupplyNeed(order.Turn, line, here, hereApart, leftDrafted.Take(wanted - here - hereApart, takesAll)));
            }
        }
        return needs;

        Dictionary<string, int> Sum(IEnumerable<OrderAccount> of, Func<LineAccount, IEnumerable<(string PlantId, int Count)>> counts) =>
            of.SelectMany(a => a.Lines.Where(l => l.Line.TurnId == order.Turn.Id).SelectMany(counts))
                .GroupBy(x => x.PlantId, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => g.Sum(x => x.Count), StringComparer.Ordinal);
    }

    // Plants that lines of a kind take their parts of, one after the other.
    private sealed class Share(int left)
    {
        private int _left = left;

        public int Take(int wanted, bool takesAll)
        {
            int taken = takesAll ? _left : Math.Clamp(wanted, 0, _left);
            _left -= taken;
            return taken;
        }
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
                                .Sum(n => Math.Min(n.OnOrder, Math.Max(0, n.Line.Purchase.Wanted - n.InQuarantine)))
                    )
                )
                .Where(d => d.Fewer > 0),
        ];
}
