using Google.OrTools.Sat;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Solver;

/// <summary>The cheapest basket that was found, and how cheap one could be at most.</summary>
/// <param name="Basket">What to buy where.</param>
/// <param name="Bound">No basket costs less.</param>
/// <param name="IsBest">True when it is proven that none is cheaper.</param>
public sealed record BasketAnswer(Basket Basket, decimal Bound, bool IsBest)
{
    /// <summary>By what share it may be dearer than the cheapest at most.</summary>
    public double Gap => Basket.Cost == 0 ? 0 : (double)((Basket.Cost - Bound) / Basket.Cost);
}

/// <summary>Chooses packs and suppliers for all needs at once, with price steps, discounts, delivery charges and least orders.</summary>
public static class BasketSolving
{
    /// <summary>The time that is taken where nobody says otherwise, seconds.</summary>
    public const double UsualSeconds = 10;

    // Prices are money with two decimals; the solver reckons in whole cents.
    private const int Cents = 100;

    // Shares are given to a hundredth of a percent.
    private const int Shares = 10_000;

    /// <summary>Finds the cheapest basket.</summary>
    /// <param name="question">The question.</param>
    /// <param name="seconds">How long to look.</param>
    /// <param name="found">Told of each cheaper basket as it is found.</param>
    /// <param name="cancel">Stops the work; what was found stands.</param>
    public static BasketAnswer Choose(
        BasketQuestion question,
        double seconds = UsualSeconds,
        IProgress<Basket>? found = null,
        CancellationToken cancel = default
    )
    {
        var model = new CpModel();
        var lines = new List<Line>();
        var unserved = new List<BasketNeed>();
        var prices = new Dictionary<BasketNeed, NeedPrices>(ReferenceEqualityComparer.Instance);
        foreach (BasketNeed need in question.Needs)
        {
            IReadOnlyList<Offer> offers = question.OffersFor(need);
            if (offers.Sum(o => (long)o.PackSize * Math.Min(o.MostPacks ?? need.Count, need.Count)) < need.Count)
            {
                unserved.Add(need);
                continue;
            }
            int most = need.MostBought(offers);
            List<Line> of = [.. offers.Select(o => Line.In(model, need, o, Math.Min(o.MostPacks ?? int.MaxValue, most / o.PackSize)))];
            LinearExpr bought = LinearExpr.WeightedSum(of.Select(l => l.Packs), of.Select(l => l.Offer.PackSize));
            model.Add(bought >= need.Count);
            model.Add(bought <= most);
            lines.AddRange(of);
            var known = new NeedPrices(need, offers, most);
            prices[need] = known;
            AddCut(model, known, of);
        }
        foreach (IGrouping<Offer, Line> shared in lines.GroupBy(l => l.Offer).Where(g => g.Key.MostPacks is not null && g.Skip(1).Any()))
            model.Add(LinearExpr.Sum(shared.Select(l => l.Packs)) <= shared.Key.MostPacks!.Value);
        if (question.MostGrownOn is { } room && lines.FindAll(l => l.Offer.GrowOnWeeks > 0) is { Count: > 0 } plugs)
            model.Add(LinearExpr.WeightedSum(plugs.Select(l => l.Packs), plugs.Select(l => l.Offer.PackSize)) <= room);
        var bills = question
            .Suppliers.Select(s => Bill(model, s, [.. lines.Where(l => l.Offer.SupplierId == s.Id)]))
            .Where(b => b is not null)
            .Select(b => b!)
            .ToList();
        model.Minimize(LinearExpr.Sum(bills));
        // Something to begin with, and to answer with when the time is up before anything better was found.
        Basket? simple = Cheaper(Simple(question, unserved), OneSupplierEach(question, unserved, prices));
        if (simple is not null)
        {
            foreach (Line line in lines)
                model.AddHint(
                    line.Packs,
                    simple.Lines.Where(l => ReferenceEquals(l.Need, line.Need) && ReferenceEquals(l.Offer, line.Offer)).Sum(l => l.Packs)
                );
            found?.Report(simple);
        }

        CpSolver solver = TimeLimit.Of(seconds);
        using CancellationTokenRegistration off = cancel.Register(solver.StopSearch);
        Basket Made(Func<IntVar, long> value) =>
            new(question, [.. lines.Select(l => new BasketLine(l.Need, l.Offer, (int)value(l.Packs))).Where(l => l.Packs > 0)], unserved);
        CpSolverStatus status = found is null ? solver.Solve(model) : solver.Solve(model, new Told(call => found.Report(Made(call))));
        decimal bound = (decimal)Math.Ceiling(Math.Max(0, solver.BestObjectiveBound) - 1e-6) / Cents;
        if (status is CpSolverStatus.Optimal or CpSolverStatus.Feasible)
            return new BasketAnswer(Made(solver.Value), bound, status == CpSolverStatus.Optimal);
        // Least orders can leave no way to buy at all; so can a stop before anything was found.
        return simple is null || status == CpSolverStatus.Infeasible
            ? new BasketAnswer(new Basket(question, [], question.Needs), 0, IsBest: status == CpSolverStatus.Infeasible)
            : new BasketAnswer(simple, Math.Min(bound, simple.Cost), IsBest: false);
    }

    // However a need is split, what each supplier is paid over what the whole costs there adds up to nearly one: whole packs are dearer than
    // the parts of packs that the relaxed problem buys, and this tells it so.
    private static void AddCut(CpModel model, NeedPrices known, List<Line> lines)
    {
        const long scale = 1_000_000_000;
        (double least, IReadOnlyDictionary<string, double> whole) = known.Split();
        if (!double.IsFinite(least))
            return;
        model.Add(
            LinearExpr.WeightedSum(lines.Select(l => l.Price), lines.Select(l => (long)Math.Ceiling(scale / whole[l.Offer.SupplierId])))
                >= (long)Math.Floor(least * scale * (1 - 1e-9))
        );
    }

    private static Basket? Cheaper(Basket? one, Basket? other) =>
        one is null ? other
        : other is null || one.Cost <= other.Cost ? one
        : other;

    // The cheapest basket that buys each need at one place: for every choice of the share that each supplier's bill reaches, needs go where
    // they are cheapest by it; then they are moved one by one as long as the bills as they are become cheaper. Null where it leads nowhere.
    private static Basket? OneSupplierEach(BasketQuestion question, List<BasketNeed> unserved, Dictionary<BasketNeed, NeedPrices> prices)
    {
        const int mostChoices = 20_000;
        List<BasketNeed> needs = [.. question.Needs.Where(n => !unserved.Contains(n))];
        List<Supplier> suppliers = [.. question.Suppliers.Where(s => prices.Values.Any(p => p.Whole(s.Id) is not null))];
        long?[][] whole = [.. needs.Select(n => suppliers.Select(s => prices[n].Whole(s.Id)).ToArray())];
        if (needs.Count == 0 || Array.Exists(whole, w => w.All(p => p is null)))
            return null;
        // Shares that each may reach; below 0 for buying nothing there.
        double[][] shares = [.. suppliers.Select(s => SharesOff(s).Prepend(-1).ToArray())];
        if (shares.Aggregate(1.0, (n, s) => n * s.Length) > mostChoices)
            shares = [.. shares.Select(s => s.Length > 2 ? [s[0], s[^1]] : s)];
        int[]? best = null;
        decimal cost = decimal.MaxValue;
        var choice = new int[suppliers.Count];
        var at = new int[needs.Count];
        for (bool more = shares.Aggregate(1.0, (n, s) => n * s.Length) <= mostChoices; more; more = Next(choice, shares))
        {
            if (!Assign(at))
                continue;
            decimal here = CostOf(at);
            if (here < cost)
                (cost, best) = (here, [.. at]);
        }
        if (best is null)
            return null;
        for (bool moved = true; moved; )
        {
            moved = false;
            for (int n = 0; n < needs.Count; n++)
            {
                for (int s = 0; s < suppliers.Count; s++)
                {
                    int before = best[n];
                    if (s == before || whole[n][s] is null)
                        continue;
                    best[n] = s;
                    decimal here = CostOf(best);
                    if (here < cost)
                        (cost, moved) = (here, true);
                    else
                        best[n] = before;
                }
            }
        }
        var basket = new Basket(
            question,
            [.. needs.SelectMany((n, i) => prices[n].Packs(suppliers[best[i]].Id).Select(p => new BasketLine(n, p.Offer, p.Packs)))],
            unserved
        );
        return basket.IsPossible ? basket : null;

        bool Assign(int[] to)
        {
            for (int n = 0; n < needs.Count; n++)
            {
                double least = double.PositiveInfinity;
                for (int s = 0; s < suppliers.Count; s++)
                {
                    double share = shares[s][choice[s]];
                    if (share < 0 || whole[n][s] is not { } price || !(price * (1 - share) < least))
                        continue;
                    (least, to[n]) = (price * (1 - share), s);
                }
                if (double.IsPositiveInfinity(least))
                    return false;
            }
            return true;
        }

        decimal CostOf(int[] of)
        {
            var goods = new long[suppliers.Count];
            for (int n = 0; n < needs.Count; n++)
                goods[of[n]] += whole[n][of[n]]!.Value;
            decimal sum = 0;
            for (int s = 0; s < suppliers.Count; s++)
            {
                decimal own = (decimal)goods[s] / Cents;
                if (own > 0 && own < suppliers[s].LeastGoods)
                    return decimal.MaxValue;
                sum += suppliers[s].Bill(own).Total;
            }
            return sum;
        }
    }

    // About what share of a bill each discount takes off.
    private static IEnumerable<double> SharesOff(Supplier supplier) =>
        supplier
            .Discounts.Select(d =>
                d switch
                {
                    ShareFrom f => (double)f.Share,
                    OffForEvery e => (double)(e.Each / e.Every),
                    _ => 0,
                }
            )
            .Append(0)
            .Distinct()
            .Order();

    // The next choice, as one counts; false after the last.
    private static bool Next(int[] choice, double[][] of)
    {
        for (int i = 0; i < choice.Length; i++)
        {
            if (++choice[i] < of[i].Length)
                return true;
            choice[i] = 0;
        }
        return false;
    }

    // Each need from whoever is cheapest for it, and nothing from suppliers whose least order is not reached; null where that leads nowhere.
    private static Basket? Simple(BasketQuestion question, List<BasketNeed> unserved)
    {
        HashSet<string> without = [];
        while (true)
        {
            var left = question.Offers.Where(o => o.MostPacks is not null).Distinct().ToDictionary(o => o, o => o.MostPacks!.Value);
            var lines = new List<BasketLine>();
            foreach (BasketNeed need in question.Needs.Where(n => !unserved.Contains(n)))
            {
                int wanted = need.Count;
                foreach (
                    Offer offer in question
                        .OffersFor(need)
                        .Where(o => !without.Contains(o.SupplierId))
                        .OrderBy(o => o.Steps.Min(s => s.Price) / o.PackSize)
                )
                {
                    int packs = Math.Min(left.GetValueOrDefault(offer, int.MaxValue), (wanted + offer.PackSize - 1) / offer.PackSize);
                    if (packs == 0 || wanted <= 0)
                        continue;
                    if (left.ContainsKey(offer))
                        left[offer] -= packs;
                    lines.Add(new BasketLine(need, offer, packs));
                    wanted -= packs * offer.PackSize;
                }
                if (wanted > 0)
                    return null;
            }
            var basket = new Basket(question, lines, unserved);
            (Supplier? poor, _) = basket.Bills.FirstOrDefault(b => b.Bill.Goods < b.Supplier.LeastGoods);
            if (poor is null)
                return basket.IsPossible ? basket : null;
            without.Add(poor.Id);
        }
    }

    // What one supplier is paid, in cents; null where they offer nothing that is asked for.
    private static LinearExpr? Bill(CpModel model, Supplier supplier, IReadOnlyList<Line> lines)
    {
        long most = lines.Sum(l => l.MostCents);
        if (lines.Count == 0)
            return null;
        BoolVar used = model.NewBoolVar($"{supplier.Id} used");
        foreach (Line line in lines)
            model.Add(line.Packs <= line.MostPacks * used);
        IntVar goods = model.NewIntVar(0, most, $"{supplier.Id} goods");
        model.Add(goods == LinearExpr.Sum(lines.Select(l => l.Price)));
        model.Add(goods >= used * Whole(supplier.LeastGoods));
        var parts = new List<LinearExpr> { goods };
        if (supplier.DeliveryCharge > 0)
        {
            BoolVar charged = model.NewBoolVar($"{supplier.Id} charged");
            if (supplier.FreeDeliveryFrom is { } from)
            {
                BoolVar free = model.NewBoolVar($"{supplier.Id} free");
                model.Add(goods >= Whole(from)).OnlyEnforceIf(free);
                model.AddBoolOr([charged, free, used.Not()]);
            }
            else
            {
                model.AddImplication(used, charged);
            }
            parts.Add(charged * Whole(supplier.DeliveryCharge));
        }
        foreach (OffForEvery off in supplier.Discounts.OfType<OffForEvery>())
        {
            IntVar times = model.NewIntVar(0, most / Whole(off.Every), $"{supplier.Id} times");
            model.Add(times * Whole(off.Every) <= goods);
            IntVar taken = model.NewIntVar(0, Whole(off.Most), $"{supplier.Id} off");
            model.Add(taken <= times * Whole(off.Each));
            parts.Add(-taken);
        }
        List<ShareFrom> shares = [.. supplier.Discounts.OfType<ShareFrom>()];
        if (shares.Count > 0)
        {
            // The goods stand in one tier, that below all shares among them; written so that the relaxed problem stays close to the whole one.
            var tiers = new List<IntVar>();
            var chosen = new List<BoolVar>();
            foreach (ShareFrom tier in shares.Prepend(new ShareFrom(0, 0)))
            {
                BoolVar here = model.NewBoolVar($"{supplier.Id} from {tier.From}");
                IntVar held = model.NewIntVar(0, most, $"{supplier.Id} goods from {tier.From}");
                model.Add(held >= here * Whole(tier.From));
                model.Add(held <= here * most);
                tiers.Add(held);
                chosen.Add(here);
            }
            model.AddExactlyOne(chosen);
            model.Add(goods == LinearExpr.Sum(tiers));
            // Rounded as the bill is: half a cent up.
            IntVar taken = model.NewIntVar(0, most, $"{supplier.Id} share");
            model.Add(
                (taken * Shares * 2) <= LinearExpr.WeightedSum(tiers.Skip(1), shares.Select(t => 2 * (long)Math.Round(t.Share * Shares))) + Shares
            );
            parts.Add(-taken);
        }
        // A bill is never below nothing, whatever is taken off.
        IntVar total = model.NewIntVar(0, most + Whole(supplier.DeliveryCharge), $"{supplier.Id} total");
        model.Add(total >= LinearExpr.Sum(parts));
        return total;
    }

    private static long Whole(decimal money) => (long)Math.Round(money * Cents, MidpointRounding.AwayFromZero);

    private sealed class Told(Action<Func<IntVar, long>> tell) : CpSolverSolutionCallback
    {
        public override void OnSolutionCallback() => tell(Value);
    }

    // Packs of one offer for one need, and their price by the step that they reach.
    private sealed record Line(BasketNeed Need, Offer Offer, IntVar Packs, int MostPacks, LinearExpr Price, long MostCents)
    {
        public static Line In(CpModel model, BasketNeed need, Offer offer, int most)
        {
            string name = $"{offer.SupplierId} {offer.PlantId} {offer.Form}";
            IntVar packs = model.NewIntVar(0, most, name);
            if (offer.Steps.Count == 1)
                return new Line(need, offer, packs, most, packs * Whole(offer.Steps[0].Price), most * Whole(offer.Steps[0].Price));
            // Packs at each step's price; one step holds them all.
            var at = new List<IntVar>();
            var chosen = new List<BoolVar>();
            for (int i = 0; i < offer.Steps.Count && offer.Steps[i].FromPacks <= most; i++)
            {
                int last = i + 1 < offer.Steps.Count ? Math.Min(most, offer.Steps[i + 1].FromPacks - 1) : most;
                IntVar here = model.NewIntVar(0, last, $"{name} step {i}");
                BoolVar isHere = model.NewBoolVar($"{name} at step {i}");
                model.Add(here >= isHere * offer.Steps[i].FromPacks);
                model.Add(here <= isHere * last);
                at.Add(here);
                chosen.Add(isHere);
            }
            model.AddAtMostOne(chosen);
            model.Add(packs == LinearExpr.Sum(at));
            return new Line(
                need,
                offer,
                packs,
                most,
                LinearExpr.WeightedSum(at, offer.Steps.Take(at.Count).Select(s => Whole(s.Price))),
                most * offer.Steps.Max(s => Whole(s.Price))
            );
        }
    }
}
