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
        Basket? simple = Simple(question, unserved);
        if (simple is not null)
        {
            foreach (Line line in lines)
                model.AddHint(
                    line.Packs,
                    simple.Lines.Where(l => ReferenceEquals(l.Need, line.Need) && ReferenceEquals(l.Offer, line.Offer)).Sum(l => l.Packs)
                );
            found?.Report(simple);
        }

        var solver = new CpSolver { StringParameters = FormattableString.Invariant($"num_workers:8,random_seed:1,max_time_in_seconds:{seconds}") };
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
