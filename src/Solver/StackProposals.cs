using Google.OrTools.Sat;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Solver;

/// <summary>What a proposal is good at.</summary>
public enum StackAim
{
    /// <summary>Colour in as many weeks as can be.</summary>
    LongestColour,

    /// <summary>The least money for nearly as many weeks.</summary>
    LeastCost,

    /// <summary>Most kinds in flower together.</summary>
    RichestTogether,
}

/// <summary>One stack that the solver proposes.</summary>
/// <param name="Aim">What it is good at.</param>
/// <param name="Display">The stack as a display, not yet in the plan.</param>
/// <param name="Kinds">Its bulbs.</param>
/// <param name="Odds">Odds that some bulb shows, the best of its bulbs, by week wanted.</param>
/// <param name="Weeks">Sum of those odds: weeks of colour to be expected.</param>
/// <param name="MostWeeks">No stack that fits can give more weeks: the solver's bound.</param>
/// <param name="Cost">What is to be bought, guide prices.</param>
/// <param name="Stack">The stack as laid out: every bulb at its place.</param>
public sealed record StackProposal(
    StackAim Aim,
    Display Display,
    IReadOnlyList<StackCandidate> Kinds,
    IReadOnlyList<double> Odds,
    double Weeks,
    double MostWeeks,
    decimal Cost,
    BulbStack Stack
)
{
    /// <summary>The planter's year with the stack in it.</summary>
    public required PlanterSeason With { get; init; }

    /// <summary>The planter's year as it is planned.</summary>
    public required PlanterSeason Without { get; init; }

    /// <summary>Days wanted on which the planter is in colour with the stack, as its own page counts them.</summary>
    public int DaysInColour(StackWish wish) => With.DaysInColourBetween(wish.First, wish.Last);

    /// <summary>The arithmetic behind the proposal.</summary>
    public Working Explain(StackWish wish) =>
        new Working(
            WorkingKind.StackProposal,
            new Fact(WorkingPhrase.DaysInColour, ("wish", DaysInColour(wish))),
            [
                new WorkingInput(
                    InputName.InColourWithoutIt,
                    new Fact(WorkingPhrase.StackProposalInColourWithoutDays, ("last", Without.DaysInColourBetween(wish.First, wish.Last)))
                ),
                new WorkingInput(
                    InputName.WeeksOfBulbsByTheBestOfEachWeek,
                    new Fact(WorkingPhrase.StackProposalWeeksBulbsBestEachWeek, ("weeks", Quantity.Number(Weeks, 1)), ("odds", Odds.Count))
                ),
                new WorkingInput(InputName.WeeksWanted, new Fact(WorkingPhrase.StackProposalWeeksWanted, ("first", wish.First), ("last", wish.Last))),
                .. Kinds.Select(k => new WorkingInput(
                    k.Plant,
                    new Fact(
                        WorkingPhrase.WhatSeenInColourShowsIn,
                        ("count", k.Count),
                        ("cover", Quantity.Share(k.Cover)),
                        ("odds", Quantity.Number(k.Odds.Sum(), 1)),
                        ("hand", k.AtHand > 0 ? (object?)new Fact(WorkingPhrase.StackProposalOfEachPartHand, ("atHand", k.AtHand)) : string.Empty)
                    )
                )),
                new WorkingInput(InputName.BulbsToBuy, Quantity.Number((double)Cost, 2)),
            ],
            [
                new Fact(WorkingPhrase.BestBulbEachWeekNoStack, ("mostWeeks", Quantity.Number(MostWeeks, 1))),
                WorkingPhrase.LaidOutBulbBulbCheckedAgainst,
            ]
        )
        {
            Parts =
            [
                (
                    "figure",
                    Aim switch
                    {
                        StackAim.LongestColour => (object?)WorkingPhrase.LongestColour,
                        StackAim.LeastCost => WorkingPhrase.LeastCost,
                        _ => WorkingPhrase.RichestTogether,
                    }
                ),
                (
                    "rule",
                    Aim switch
                    {
                        StackAim.LongestColour => (object?)WorkingPhrase.MostWeeksEachWithOddsBest,
                        StackAim.LeastCost => WorkingPhrase.LeastCostThatKeepsWeeksThat,
                        _ => WorkingPhrase.MostWeeksInWhichUpThree,
                    }
                ),
            ],
        };
}

/// <summary>Proposes three different bulb stacks for a planter, each laid out and checked before it is shown.</summary>
public static class StackProposals
{
    /// <summary>Each proposal differs from the others in at least so many kinds, where there is choice.</summary>
    public const int DifferIn = 2;

    /// <summary>Small bulbs lie no deeper than this in a container, cm: their shoots must reach the surface (common practice: 3 to 5 in).</summary>
    public const double SmallDeepestCm = 13;

    /// <summary>Genera that a stack is built on, where the planter is deep enough (common practice).</summary>
    public static IReadOnlyList<string> Backbone { get; } = ["Tulipa", "Narcissus", "Hyacinthus"];

    /// <summary>Kinds of the backbone in a stack of so many kinds: one of three or more.</summary>
    public static int BackboneKinds(int kinds) => kinds >= 3 ? 1 : 0;

    private const int Scale = 1000;
    private const int MostTries = 25;
    private const double Seconds = 5;

    /// <summary>Solves for the three aims.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="flowering">The site's flowering in the plan year that holds the weeks.</param>
    /// <param name="kernel">The season's kernel of the same plan year.</param>
    /// <param name="checks">The plan's checks.</param>
    /// <param name="wish">What is wanted.</param>
    /// <param name="install">Planting day.</param>
    /// <param name="lift">The day it comes out.</param>
    /// <returns>Up to three; fewer when the palette, the stock or the budget allow no more.</returns>
    /// <exception cref="InvalidInputException">The wish is faulty.</exception>
    public static IReadOnlyList<StackProposal> For(
        Plan plan,
        Planter planter,
        SiteFlowering flowering,
        SeasonKernel kernel,
        DisplayChecks checks,
        StackWish wish,
        LocalDate install,
        LocalDate lift
    )
    {
        IReadOnlyList<Fault> faults = wish.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        IReadOnlyList<StackCandidate> candidates = StackCandidate.For(plan, planter, flowering, wish);
        var found = new List<StackProposal>();
        var refused = new List<int[]>();
        double most = 0;
        foreach (StackAim aim in Enum.GetValues<StackAim>())
        {
            for (int tries = 0; tries < MostTries; tries++)
            {
                if (
                    Solve(planter, plan.Site, candidates, wish, aim, most, [.. found.Select(f => Indices(candidates, f.Kinds))], refused)
                    is not { } solved
                )
                    break;
                if (aim == StackAim.LongestColour && tries == 0)
                    most = solved.Bound;
                IReadOnlyList<StackCandidate> kinds = [.. solved.Chosen.Select(i => candidates[i])];
                var display = new Display(
                    $"proposed-{aim}",
                    planter.Id,
                    DisplayLayer.Bulbs,
                    install,
                    lift,
                    [.. kinds.Select(k => new DisplayItem(k.Plant.Id, k.Count))]
                );
                BulbStack stack = BulbStack.Of(plan, planter, display);
                if (stack.Problems.Count > 0 || checks.For(display).Any(r => r.Gravity == Gravity.Loses))
                {
                    refused.Add(solved.Chosen);
                    continue;
                }
                double[] odds = [.. Enumerable.Range(0, candidates[0].Odds.Count).Select(w => kinds.Max(k => k.Odds[w]))];
                // Bulbs that stand there in the same weeks make way.
                IEnumerable<Display> others = plan.DisplaysOf(planter.Id)
                    .Where(d => d.Layer != DisplayLayer.Bulbs || d.Lift <= install || d.Install >= lift);
                found.Add(
                    new StackProposal(aim, display, kinds, odds, odds.Sum(), most, kinds.Sum(k => k.Cost), stack)
                    {
                        With = kernel.Try(plan, planter, [.. others, display]),
                        Without = kernel.Of(plan, planter),
                    }
                );
                break;
            }
        }
        return found;
    }

    private static int[] Indices(IReadOnlyList<StackCandidate> candidates, IReadOnlyList<StackCandidate> kinds) =>
        [.. Enumerable.Range(0, candidates.Count).Where(i => kinds.Contains(candidates[i]))];

    private static (int[] Chosen, double Bound)? Solve(
        Planter planter,
        Site site,
        IReadOnlyList<StackCandidate> candidates,
        StackWish wish,
        StackAim aim,
        double most,
        IReadOnlyList<int[]> found,
        IReadOnlyList<int[]> refused
    )
    {
        if (candidates.Count == 0)
            return null;
        var model = new CpModel();
        BoolVar[] x = [.. candidates.Select((_, i) => model.NewBoolVar($"x{i}"))];
        model.Add(LinearExpr.Sum(x) <= wish.MostKinds);
        model.Add(LinearExpr.Sum(x) >= 1);
        if (planter.Form.IsBed)
            model.Add(LinearExpr.WeightedSum(x, candidates.Select(c => (long)Math.Ceiling((double)c.Count / c.Fits * Scale))) <= Scale);
        else
            WithinDepth(model, x, planter, site, candidates);
        // A stack is built on tulips, daffodils and hyacinths; small bulbs carry its beginning, others its end.
        int[] backbone =
        [
            .. Enumerable.Range(0, x.Length).Where(i => Backbone.Contains(candidates[i].Plant.BotanicalName.Split(' ')[0], StringComparer.Ordinal)),
        ];
        if (backbone.Length > 0)
            model.Add(LinearExpr.Sum(backbone.Select(i => x[i])) >= Math.Min(backbone.Length, BackboneKinds(wish.MostKinds)));
        if (wish.Budget is { } budget)
            model.Add(LinearExpr.WeightedSum(x, candidates.Select(c => (long)(c.Cost * 100))) <= (long)(budget * 100));
        // The stack that was found first shares at most all but two kinds with every later one.
        foreach (int[] other in found)
            model.Add(LinearExpr.Sum(other.Select(i => x[i])) <= Math.Max(0, other.Length - Math.Min(DifferIn, other.Length)));
        foreach (int[] no in refused)
            model.Add(
                LinearExpr.Sum(no.Select(i => x[i])) - LinearExpr.Sum(Enumerable.Range(0, x.Length).Except(no).Select(i => x[i])) <= no.Length - 1
            );
        int weeks = candidates[0].Odds.Count;
        LinearExpr cover = Together(model, x, candidates, weeks, 1);
        LinearExpr cost = LinearExpr.WeightedSum(x, candidates.Select(c => (long)Math.Round(c.Cost * 10)));
        switch (aim)
        {
            case StackAim.LongestColour:
                model.Maximize((cover * 100) - cost);
                break;
            case StackAim.LeastCost:
                model.Add(cover >= (long)(0.85 * most * Scale));
                model.Minimize((cost * 10) - cover);
                break;
            default:
                model.Add(cover >= (long)(0.7 * most * Scale));
                model.Maximize((Together(model, x, candidates, weeks, 3) * 10) - cost);
                break;
        }
        var solver = new CpSolver();
        CpSolverStatus status = solver.Solve(model, Seconds);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return null;
        int[] chosen = [.. Enumerable.Range(0, x.Length).Where(i => solver.BooleanValue(x[i]))];
        // The objective sets cost against cover; no dearer stack than the dearest kinds together can hide behind it.
        double dearest = (double)candidates.Select(c => Math.Round(c.Cost * 10)).OrderDescending().Take(wish.MostKinds).Sum();
        double bound = aim == StackAim.LongestColour ? (solver.BestObjectiveBound + dearest) / 100 / Scale : most;
        return (chosen, bound);
    }

    // Layers below each other: every bulb's height with a finger of medium, and cover over the shallowest.
    private static void WithinDepth(CpModel model, BoolVar[] x, Planter planter, Site site, IReadOnlyList<StackCandidate> candidates)
    {
        double floor = BulbStack.DeepestBaseCm(planter, site);
        HouseRules rules = site.RulesFor(planter);
        // The shallowest lies by its own rule; each further one adds its height and the gap.
        for (int i = 0; i < x.Length; i++)
        {
            double first = BulbStack.DepthByRule(candidates[i].Plant.Bulb!, rules.BulbDepth);
            IEnumerable<int> deeper = Enumerable
                .Range(0, x.Length)
                .Where(k => k != i && BulbStack.DepthByRule(candidates[k].Plant.Bulb!, rules.BulbDepth) >= first);
            int[] others = [.. deeper];
            long[] thick = [.. others.Select(k => Thick(candidates[k]))];
            model.Add(LinearExpr.WeightedSum(others.Select(k => x[k]), thick) <= (long)Math.Floor((floor - first) * 10)).OnlyEnforceIf(x[i]);
            if (IsLarge(candidates[i]))
                continue;
            // Small kinds lie on top, each below the one before.
            int[] small = [.. others.Where(k => !IsLarge(candidates[k]))];
            model
                .Add(
                    LinearExpr.WeightedSum(small.Select(k => x[k]), small.Select(k => Thick(candidates[k])))
                        <= Math.Max(0, (long)Math.Floor((SmallDeepestCm - first) * 10))
                )
                .OnlyEnforceIf(x[i]);
        }
    }

    private static bool IsLarge(StackCandidate candidate) => candidate.Plant.Bulb!.HeightCm >= BulbStack.LargeBulbCm;

    // Millimetres that a kind lies below the one above it.
    private static long Thick(StackCandidate candidate) => (long)Math.Round((candidate.Plant.Bulb!.HeightCm + BulbStack.LayerGapCm) * 10);

    // Sum over weeks of the odds of the best so many kinds of each.
    private static LinearExpr Together(CpModel model, BoolVar[] x, IReadOnlyList<StackCandidate> candidates, int weeks, int most)
    {
        var terms = new List<BoolVar>();
        var odds = new List<long>();
        for (int w = 0; w < weeks; w++)
        {
            var shows = new List<BoolVar>();
            for (int i = 0; i < x.Length; i++)
            {
                long share = (long)Math.Round(candidates[i].Odds[w] * Scale);
                if (share < 20)
                    continue;
                BoolVar y = model.NewBoolVar($"y{most}_{w}_{i}");
                model.AddImplication(y, x[i]);
                shows.Add(y);
                terms.Add(y);
                odds.Add(share);
            }
            if (shows.Count > 0)
                model.Add(LinearExpr.Sum(shows) <= most);
        }
        return LinearExpr.WeightedSum(terms, odds);
    }
}
