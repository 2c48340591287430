using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Money that may be spent.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Year">The calendar year in which the plan year begins.</param>
/// <param name="Amount">How much.</param>
/// <param name="AreaId">For an area alone; null for all.</param>
/// <param name="TurnId">For a turn alone; null for all.</param>
public sealed record Budget(Guid Id, int Year, decimal Amount, string? AreaId = null, string? TurnId = null)
{
    /// <summary>Every fault of its own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("year", Year, 1950, 2150, string.Empty);
        faults.Range("amount", (double)Amount, 0, 100_000_000, string.Empty);
        if (AreaId is not null && TurnId is not null)
            faults.Add("turnId", "a budget is for an area or for a turn, not for both");
        return faults.Faults;
    }
}

/// <summary>Money at each step of the way to plants that are paid for.</summary>
/// <param name="Planned">What the plan still wants and nobody has ordered, by guide prices.</param>
/// <param name="Committed">What is on order and has not come.</param>
/// <param name="Received">What came and was accepted.</param>
/// <param name="Paid">What was paid.</param>
/// <param name="Credited">What suppliers gave back.</param>
public sealed record MoneySteps(decimal Planned, decimal Committed, decimal Received, decimal Paid, decimal Credited)
{
    /// <summary>Nothing yet.</summary>
    public static MoneySteps None { get; } = new(0, 0, 0, 0, 0);

    /// <summary>What it will have cost once everything has come.</summary>
    public decimal Expected => Planned + Committed + Received;

    /// <summary>Both together.</summary>
    public static MoneySteps operator +(MoneySteps a, MoneySteps b)
    {
        ArgumentNullException.ThrowIfNull(a);
        ArgumentNullException.ThrowIfNull(b);
        return new(a.Planned + b.Planned, a.Committed + b.Committed, a.Received + b.Received, a.Paid + b.Paid, a.Credited + b.Credited);
    }

    internal MoneySteps Times(decimal share) => new(Planned * share, Committed * share, Received * share, Paid * share, Credited * share);
}

/// <summary>What a plan year costs, by turn, area and planter.</summary>
/// <param name="Total">Everything.</param>
/// <param name="ByTurn">By turn.</param>
/// <param name="Elsewhere">What was ordered for turns that the plan no longer holds, or for none.</param>
/// <param name="ByArea">By the area's id: each line of an order by the plants that it brings to each planter.</param>
/// <param name="ByPlanter">By the planter's id, likewise.</param>
public sealed record MoneyReport(
    MoneySteps Total,
    IReadOnlyList<(Turn Turn, MoneySteps Money)> ByTurn,
    MoneySteps Elsewhere,
    IReadOnlyDictionary<string, MoneySteps> ByArea,
    IReadOnlyDictionary<string, MoneySteps> ByPlanter
)
{
    /// <summary>Adds up some turns.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="orders">What each turn wants in all, as if nothing were at hand yet: it tells which planters a turn's money goes to.</param>
    /// <param name="needs">What each turn still has to get.</param>
    /// <param name="accounts">Orders with what came of them.</param>
    /// <param name="claims">Credits.</param>
    /// <param name="today">Today: for turns that are over nothing is planned any more.</param>
    /// <param name="year">First day of the plan year and of the next: of orders of no turn, those wanted in it are counted.</param>
    public static MoneyReport Of(
        Plan plan,
        IReadOnlyList<TurnOrder> orders,
        IReadOnlyList<SupplyNeed> needs,
        IReadOnlyList<OrderAccount> accounts,
        IReadOnlyList<CreditClaim> claims,
        LocalDate today,
        (LocalDate First, LocalDate Next) year
    )
    {
        var byTurn = new List<(Turn, MoneySteps)>();
        var byPlanter = new Dictionary<string, MoneySteps>(StringComparer.Ordinal);
        foreach (TurnOrder order in orders)
        {
            MoneySteps money = MoneySteps.None with { Planned = order.Turn.LastDay < today ? 0 : Planned(order, needs) };
            foreach (OrderAccount account in accounts.Where(a => a.Order.Stage is not (OrderState.Draft or OrderState.Cancelled)))
                money += Of(account, l => l.TurnId == order.Turn.Id, claims);
            byTurn.Add((order.Turn, money));
            foreach ((string planter, decimal share) in Shares(order))
                byPlanter[planter] = byPlanter.GetValueOrDefault(planter, MoneySteps.None) + money.Times(share);
        }
        HashSet<string> turns = plan.Turns.Select(t => t.Id).ToHashSet(StringComparer.Ordinal);
        MoneySteps elsewhere = accounts
            .Where(a => a.Order.Stage is not (OrderState.Draft or OrderState.Cancelled))
            .Aggregate(MoneySteps.None, (sum, a) =>
                sum + Of(a, l => (l.TurnId is null || !turns.Contains(l.TurnId)) && l.By >= year.First && l.By < year.Next, claims)
            );
        return new MoneyReport(
            byTurn.Aggregate(elsewhere, (sum, t) => sum + t.Item2),
            byTurn,
            elsewhere,
            byPlanter
                .GroupBy(p => plan.FindPlanter(p.Key)?.AreaId ?? string.Empty, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => g.Aggregate(MoneySteps.None, (sum, p) => sum + p.Value), StringComparer.Ordinal),
            byPlanter
        );
    }

    // Guide prices of what nobody has ordered, drafts among it, by the share of each line that is still open, and the medium.
    private static decimal Planned(TurnOrder order, IReadOnlyList<SupplyNeed> needs) =>
        needs
            .Where(n => n.Turn.Id == order.Turn.Id && n.Line.Purchase.Wanted > 0)
            .Sum(n =>
                Math.Round(
                    n.Line.Purchase.Cost * Math.Max(0, n.Line.Purchase.Wanted - n.Coming) / n.Line.Purchase.Wanted,
                    2,
                    MidpointRounding.AwayFromZero
                )
            ) + order.MediumCost;

    // The part of an order that some of its lines are; delivery and what is taken off are shared out by the price of the lines.
    private static MoneySteps Of(OrderAccount account, Func<OrderedLine, bool> isOf, IReadOnlyList<CreditClaim> claims)
    {
        PurchaseOrder order = account.Order;
        decimal goods = order.Lines.Sum(l => l.Price);
        decimal here = order.Lines.Where(isOf).Sum(l => l.Price);
        if (here == 0 || goods == 0)
            return MoneySteps.None;
        decimal share = here / goods;
        HashSet<int> lines = [.. order.Lines.Where(isOf).Select(l => l.Number)];
        bool came = account.Lines.Any(l => l.Arrived > 0);
        decimal received =
            account.Lines.Where(l => lines.Contains(l.Line.Number)).Sum(l => order.PriceOfOne(l.Line) * l.Accepted)
            + (came ? order.Bill.Delivery * share : 0);
        decimal committed = order.IsOpen
            ? account.Lines.Where(l => lines.Contains(l.Line.Number)).Sum(l => order.PriceOfOne(l.Line) * l.Outstanding)
                + (came ? 0 : order.Bill.Delivery * share)
            : 0;
        return new MoneySteps(
            0,
            Cents(committed),
            Cents(received),
            Cents((order.Paid ?? 0) * share),
            claims.Where(c => c.OrderId == order.Id && lines.Contains(c.Line)).Sum(c => c.Settled)
        );
    }

    // What of a turn's plants and bulbs, by their guide price, goes to which planter.
    private static IEnumerable<(string Planter, decimal Share)> Shares(TurnOrder order)
    {
        var worth = order
            .Lines.SelectMany(l =>
                l.Planters.Select(p => (p.Planter.Id, Worth: p.Count * (l.Plant.Packs.Count == 0 ? 0 : l.Plant.Packs.Min(k => k.Price / k.Size))))
            )
            .GroupBy(p => p.Id, StringComparer.Ordinal)
            .Select(g => (g.Key, Worth: g.Sum(p => p.Worth)))
            .ToList();
        decimal all = worth.Sum(w => w.Worth);
        return all == 0 ? [] : worth.Select(w => (w.Key, w.Worth / all));
    }

    private static decimal Cents(decimal money) => Math.Round(money, 2, MidpointRounding.AwayFromZero);
}
