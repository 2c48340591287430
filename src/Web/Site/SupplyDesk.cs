using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>What the supply pages read, each thing computed once: what turns want, what is on its way, what waits.</summary>
/// <param name="frame">The page's frame.</param>
/// <param name="store">Suppliers, orders and the rest.</param>
/// <param name="care">What is forecast.</param>
public sealed class SupplyDesk(PageFrame frame, SupplyStore store, CareDesk care)
{
    private SupplyNow? _supply;

    /// <summary>How goods on their way say of which order they are.</summary>
    public static string SourceOf(PurchaseOrder order) => $"order {order.Number}";

    /// <summary>The store.</summary>
    public SupplyStore Store => store;

    /// <summary>Suppliers, orders, deliveries and the rest, read once per request.</summary>
    public async Task<SupplyNow> Supply() => _supply ??= await store.Now();

    /// <summary>Drops what was read, after something was saved.</summary>
    public void Forget() => _supply = null;

    /// <summary>What a turn wants, beside what is at hand.</summary>
    public async Task<TurnOrder> OrderOf(Turn turn) => await frame.Soon(Reckoned(await frame.Now(), turn));

    /// <summary>A plan year's money; worked out anew where the plan, an order, a delivery or a credit has changed.</summary>
    /// <param name="start">The year's first day.</param>
    public async Task<MoneyReport> Money(LocalDate start)
    {
        SiteNow now = await frame.Now();
        SupplyNow supply = await Supply();
        LocalDate today = frame.Today;
        LocalDate end = start.PlusYears(1);
        List<Turn> turns = [.. now.Plan.Turns.Where(t => t.FirstDay >= start && t.FirstDay < end).OrderBy(t => t.FirstDay)];
        TurnOrder[] orders = await frame.Soon(Task.WhenAll(turns.Select(t => Reckoned(now, t))));
        string mark = await store.Mark();
        return await frame.Soon(
            frame.State.Derived(now, ("money", start, today, mark), n =>
                MoneyReport.Of(
                    n.Plan,
                    orders,
                    [.. orders.Where(o => o.Turn.LastDay >= today).SelectMany(o => SupplyNeed.Of(o, supply.Accounts, n.Plan.Lots))],
                    supply.Accounts,
                    [.. supply.Claims.Select(c => c.It)],
                    today,
                    (start, end)
                )
            )
        );
    }

    /// <summary>What a turn still has to get.</summary>
    public async Task<IReadOnlyList<SupplyNeed>> Needs(Turn turn) =>
        SupplyNeed.Of(await OrderOf(turn), (await Supply()).Accounts, (await frame.Now()).Plan.Lots);

    /// <summary>What the plan wants fewer of than when an order was sent; nothing of one that is not on its way.</summary>
    public async Task<IReadOnlyList<(OrderedLine Line, int Fewer)>> Differences(OrderAccount account)
    {
        if (!account.Order.IsOpen)
            return [];
        var needs = new List<SupplyNeed>();
        foreach (string turn in account.Order.Lines.Select(l => l.TurnId).OfType<string>().Distinct(StringComparer.Ordinal))
        {
            if ((await frame.Now()).Plan.Turns.FirstOrDefault(t => t.Id == turn) is { } here)
                needs.AddRange(await Needs(here));
        }
        return SupplyNeed.Differences(account, needs);
    }

    /// <summary>Turns that are not over, in order.</summary>
    public async Task<IReadOnlyList<Turn>> TurnsToCome() =>
        [.. (await frame.Now()).Plan.Turns.Where(t => t.LastDay >= frame.Today).OrderBy(t => t.FirstDay)];

    /// <summary>The store of materials, and what the turns to come want of each. Of two for the same thing the first is used up first.</summary>
    public async Task<IReadOnlyList<MaterialAccount>> Materials() => Materials(await Supply(), await frame.Soon(OrdersToCome(await frame.Now())));

    /// <summary>The same where it is known at once; null where it is not.</summary>
    public async Task<IReadOnlyList<MaterialAccount>?> MaterialsIfSoon() =>
        (await Supply()).Materials.Count == 0 ? []
        : await frame.IfSoon(OrdersToCome(await frame.Now())) is { } orders ? Materials(await Supply(), orders)
        : null;

    private Task<TurnOrder[]> OrdersToCome(SiteNow now) =>
        Task.WhenAll(now.Plan.Turns.Where(t => t.LastDay >= frame.Today).OrderBy(t => t.FirstDay).Select(t => Reckoned(now, t)));

    private Task<TurnOrder> Reckoned(SiteNow now, Turn turn)
    {
        LocalDate today = frame.Today;
        return frame.State.Derived(now, ("order", turn, today), n => TurnOrder.For(n.Plan, turn, today));
    }

    private static IReadOnlyList<MaterialAccount> Materials(SupplyNow supply, IReadOnlyList<TurnOrder> orders)
    {
        ILookup<string, MaterialMovement> moved = supply.MaterialMovements.ToLookup(m => m.MaterialId, StringComparer.Ordinal);
        return
        [
            .. supply.Materials.Select(m =>
                MaterialAccount.Of(m.It, [.. moved[m.It.Id]], supply.Materials.First(x => x.It.Kind == m.It.Kind) == m ? orders : [])
            ),
        ];
    }

    /// <summary>
    /// Claims a credit for plants that turned out to be another kind, from the latest order of that kind of which so many are not claimed
    /// yet; fewer where fewer came.
    /// </summary>
    /// <param name="plantId">The kind that was ordered.</param>
    /// <param name="plants">How many turned out wrong.</param>
    /// <param name="isWholeDelivery">True where all that came of it did.</param>
    /// <returns>The order that it is claimed of; null where none brought that kind.</returns>
    public async Task<PurchaseOrder?> ClaimMisnamed(string plantId, int plants, bool isWholeDelivery)
    {
        SupplyNow supply = await Supply();
        var found = supply
            .Accounts.SelectMany(a => a.Lines.Where(l => l.Line.PlantId == plantId).Select(l => (a.Order, Line: l)))
            .Select(x =>
                (
                    x.Order,
                    x.Line,
                    Left: x.Line.Claimable
                        - supply.Claims.Where(c => c.It.OrderId == x.Order.Id && c.It.Line == x.Line.Line.Number).Sum(c => c.It.Plants)
                )
            )
            .Where(x => x.Left > 0)
            .OrderByDescending(x => x.Order.SentOn)
            .FirstOrDefault();
        if (found.Order is null || plants < 1)
            return null;
        await store.Claim(
            found.Order.Id,
            found.Line.Line.Number,
            isWholeDelivery ? found.Left : Math.Min(found.Left, plants),
            RefusalReason.WrongKind,
            frame.Today
        );
        return found.Order;
    }

    /// <summary>What waits in the holding area, or will: lots at hand, and what is on its way.</summary>
    private async Task<IReadOnlyList<HeldGoods>> Held()
    {
        SiteNow now = await frame.Now();
        SupplyNow supply = await Supply();
        LocalDate today = frame.Today;
        ILookup<string, StockReservation> kept = await Reserved();
        // "Cold frame 2, nursery pots" stands in cold frame 2.
        HoldingPlace? Place(string name) =>
            supply.Places.Select(p => p.It).Where(p => name.StartsWith(p.Name, StringComparison.OrdinalIgnoreCase)).MaxBy(p => p.Name.Length);
        var held = new List<HeldGoods>();
        foreach (Lot lot in now.Plan.Lots.Where(l => l.Count > 0))
        {
            Plant plant = now.Plan.Plant(lot.PlantId);
            GoodsForm form = GoodsForm.Chosen(plant, lot.Form);
            int left = lot.Count;
            bool isTaken = kept[lot.Id].Any(r => !r.IsToCome);
            // Each planting takes its part; what nothing takes waits on.
            foreach (IGrouping<LocalDate, StockReservation> part in kept[lot.Id].Where(r => !r.IsToCome).GroupBy(r => r.Day).OrderBy(g => g.Key))
            {
                held.Add(
                    new HeldGoods(plant, form, part.Sum(r => r.Count), Place(lot.Place), lot.Since, part.Key) { Source = lot.Id, State = lot.State }
                );
                left -= part.Sum(r => r.Count);
            }
            if (left > 0)
                held.Add(
                    new HeldGoods(plant, form, left, Place(lot.Place), lot.Since, null)
                    {
                        Source = lot.Id,
                        State = lot.State,
                        IsSpare = isTaken,
                    }
                );
        }
        foreach (OrderAccount account in supply.Accounts.Where(a => a.Order.IsOpen))
        {
            foreach (LineAccount line in account.Lines.Where(l => l.Outstanding > 0 && now.Plan.FindPlant(l.Line.PlantId) is not null))
            {
                Plant plant = now.Plan.Plant(line.Line.PlantId);
                GoodsSort sort = GoodsForm.SortOf(plant, line.Line.Form, line.Line.PackSize);
                GoodsForm form = GoodsForm.Of(plant).FirstOrDefault(f => f.Sort == sort) ?? GoodsForm.Usual(plant);
                LocalDate promised = account.Order.PromisedFor ?? line.Line.By;
                LocalDate comes = promised > today ? promised : today;
                Turn? turn = now.Plan.Turns.FirstOrDefault(t => t.Id == line.Line.TurnId);
                LocalDate? on = turn?.FirstDay;
                held.Add(
                    new HeldGoods(plant, form, line.Outstanding, PlaceFor(supply, form), comes, on)
                    {
                        Source = SourceOf(account.Order),
                        IsToCome = true,
                    }
                );
            }
        }
        return held;
    }

    /// <summary>What of each lot the plan takes, by the lot's id.</summary>
    public async Task<ILookup<string, StockReservation>> Reserved()
    {
        SiteNow now = await frame.Now();
        LocalDate today = frame.Today;
        return await frame.Soon(
            frame.State.Derived(now, ("reserved", today), n =>
                StockReservation.Of(n.Plan, Changeover.ToCome(n.Plan, today, today)).ToLookup(r => r.Lot.Id, StringComparer.Ordinal)
            )
        );
    }

    /// <summary>The holding area over the weeks to come.</summary>
    /// <param name="last">The last day looked at.</param>
    public async Task<HoldingPlan> Holding(LocalDate last)
    {
        SiteNow now = await frame.Now();
        HoldingAir air = await frame.Soon(frame.State.Derived(now, "holding air", n => new HoldingAir(n.Record)));
        return new HoldingPlan([.. (await Supply()).Places.Select(p => p.It)], await Held(), frame.Today, last, air.With(await care.ColdInTen()).On);
    }

    // Where goods of a form would be put: dry bulbs into the store, the rest onto the first place that is not set apart.
    private static HoldingPlace? PlaceFor(SupplyNow supply, GoodsForm form)
    {
        List<HoldingPlace> places = [.. supply.Places.Select(p => p.It).Where(p => p.Kind != HoldingKind.Quarantine)];
        return form.Sort == GoodsSort.Bulbs
            ? places.Find(p => p.Kind == HoldingKind.Store)
            : places.Where(p => p.Kind != HoldingKind.Store).OrderByDescending(p => p.RoomM2).FirstOrDefault();
    }
}
