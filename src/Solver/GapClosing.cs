using System.Collections;
using Google.OrTools.Sat;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Solver;

/// <summary>The changes that the solver proposes, with what they bring.</summary>
/// <param name="Moves">Changes proposed, those that bring most days first.</param>
/// <param name="Days">Planter-days that come into colour, by each change alone and no day counted twice.</param>
/// <param name="MostDays">No choice among the changes that were found can bring more: the solver's bound.</param>
/// <param name="BareDays">Planter-days in bare spells before.</param>
/// <param name="Cost">What is to be bought, guide prices.</param>
/// <param name="Considered">Changes that were weighed.</param>
/// <param name="LeftBare">Planters that stay bare for a week or more, with the reason, of a <see cref="StaysBareReason"/>.</param>
public sealed record GapAnswer(
    IReadOnlyList<GapMove> Moves,
    int Days,
    int MostDays,
    int BareDays,
    decimal Cost,
    int Considered,
    IReadOnlyList<(Planter Planter, Fact Why)> LeftBare
)
{
    /// <summary>How far the answer may be from the best, as a share of the bound; 0 when it is the best.</summary>
    public double Gap => MostDays == 0 ? 0 : 1 - ((double)Days / MostDays);

    /// <summary>The arithmetic behind the answer.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.BareSpellsClosed,
            new Fact(WorkingPhrase.PlanterDays, ("days", Days), ("bareDays", BareDays)),
            [
                new WorkingInput(InputName.ChangesWeighed, Considered),
                new WorkingInput(InputName.ChangesProposed, Moves.Count),
                new WorkingInput(
                    InputName.MostThatAnyChoiceAmongThemBrings,
                    new Fact(WorkingPhrase.BareSpellsClosedPlanterDays, ("mostDays", MostDays))
                ),
                new WorkingInput(InputName.Cost, Quantity.Money(Cost)),
            ],
            [
                Gap <= 0
                    ? (object?)WorkingPhrase.NoChoiceAmongChangesFoundBetter
                    : new Fact(WorkingPhrase.MostBelowBest, ("gap", Quantity.Share(Gap, 1))),
            ]
        );
}

/// <summary>Chooses among changes so that bare spells close, within what is allowed.</summary>
public static class GapClosing
{
    /// <summary>Share of the most days that may be given up for fewer purchases and less money.</summary>
    public const double Within = 0.02;

    // Nearer to the best than this is not searched for.
    private const double Enough = 0.002;

    private const int MostTries = 12;
    private const double MostSeconds = 20;

    /// <summary>Finds and chooses changes for the planters asked.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    /// <param name="flowering">The site's flowering in the same plan year.</param>
    /// <param name="question">What is allowed.</param>
    /// <param name="seconds">Longest the solver may think, seconds.</param>
    /// <param name="sofar">Told the count of planters looked through, and a first answer as soon as there is one.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <exception cref="InvalidInputException">The question is faulty, or its limits contradict each other.</exception>
    public static GapAnswer Close(
        Plan plan,
        SeasonKernel kernel,
        SiteFlowering flowering,
        GapQuestion question,
        double seconds = 3,
        IProgress<(int Planters, GapAnswer? Answer)>? sofar = null,
        CancellationToken cancel = default
    )
    {
        IReadOnlyList<Fault> faults = question.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        List<PlanterSeason> bare =
        [
            .. kernel
                .Of(plan, cancel: cancel)
                .Planters.Where(p =>
                    (question.PlanterIds.Count == 0 || question.PlanterIds.Contains(p.Planter.Id))
                    && p.BareSpells.Any(s => s.LastDay >= question.From)
                ),
        ];
        var moves = new List<GapMove>();
        var time = new PlantingTime(kernel);
        int done = 0;
        bool told = false;
        var watch = System.Diagnostics.Stopwatch.StartNew();
        // A few first, so that there is soon something to look at.
        foreach (PlanterSeason[] some in bare.Take(2).Chunk(2).Concat(bare.Skip(2).Chunk(16)))
        {
            var found = new IReadOnlyList<GapMove>[some.Length];
            Parallel.For(
                0,
                some.Length,
                new ParallelOptions
                {
                    CancellationToken = cancel,
                    MaxDegreeOfParallelism = Environment.ProcessorCount,
                    TaskScheduler = TaskScheduler.Current,
                },
                i =>
                {
                    found[i] = GapMoves.For(plan, some[i].Planter, kernel, flowering, question, time);
                    sofar?.Report((Interlocked.Increment(ref done), null));
                }
            );
            moves.AddRange(found.SelectMany(f => f));
            if (!told && sofar is not null && moves.Count > 0 && watch.Elapsed.TotalSeconds > 0.3)
            {
                // Something to look at while the rest is looked through.
                sofar.Report((done, Choose(plan, bare, moves, question, 0.2, cancel)));
                told = true;
            }
        }
        int? bound = null;
        GapAnswer? answer = null;
        for (int tries = 0; ; tries++)
        {
            // What could be brought before some changes were found wrong bounds what can be brought without them.
            answer = Choose(plan, bare, moves, question, seconds, bound, answer?.Moves, cancel);
            bound = answer.MostDays;
            List<GapMove> wrong = tries <= MostTries ? Wrong(plan, kernel, flowering, answer.Moves) : [];
            if (wrong.Count == 0)
                return answer;
            // What is wrong with one planter is wrong with every planter like it.
            var alike = wrong.Select(m => (m.Does, m.Planter.Form, m.Planter.Exposure)).ToHashSet();
            moves.RemoveAll(m => wrong.Contains(m) || alike.Contains((m.Does, m.Planter.Form, m.Planter.Exposure)));
            if (watch.Elapsed.TotalSeconds > MostSeconds)
                tries = MostTries;
        }
    }

    /// <summary>Chooses among given changes.</summary>
    /// <param name="plan">The plan, for its stock.</param>
    /// <param name="bare">Planters asked, as they are.</param>
    /// <param name="moves">Changes to choose from.</param>
    /// <param name="question">What is allowed.</param>
    /// <param name="seconds">Longest the solver may think, seconds.</param>
    /// <param name="cancel">Stops the work.</param>
    public static GapAnswer Choose(
        Plan plan,
        IReadOnlyList<PlanterSeason> bare,
        IReadOnlyList<GapMove> moves,
        GapQuestion question,
        double seconds,
        CancellationToken cancel = default
    ) => Choose(plan, bare, moves, question, seconds, null, null, cancel);

    // With a bound that is known to hold, the most days need not be sought again while nearly as many can be had.
    private static GapAnswer Choose(
        Plan plan,
        IReadOnlyList<PlanterSeason> bare,
        IReadOnlyList<GapMove> moves,
        GapQuestion question,
        double seconds,
        int? bound,
        IReadOnlyList<GapMove>? near,
        CancellationToken cancel
    )
    {
        int bareDays = bare.Sum(p => p.BareSpells.Where(s => s.LastDay >= question.From).Sum(s => s.Days));
        if (moves.Count == 0)
            return new GapAnswer([], 0, 0, bareDays, 0, 0, Left(bare, [], moves));
        // First the most days; then, of all choices within a fiftieth of them, the fewest purchases and changes, and the least cost.
        int Least(int of) => (int)Math.Ceiling(of * (1 - Within));
        var cheapest = bound is { } known ? Solve(plan, moves, question, Least(known), seconds * 0.4, near, cancel) : null;
        int mostDays = bound ?? 0;
        if (cheapest is null)
        {
            if (Solve(plan, moves, question, null, seconds * 0.6, near, cancel) is not { } most)
                return new GapAnswer([], 0, 0, bareDays, 0, moves.Count, Left(bare, [], moves));
            mostDays = most.Bound;
            cheapest = (most.Days >= Least(mostDays) ? Solve(plan, moves, question, Least(mostDays), seconds * 0.4, most.Chosen, cancel) : null)
                ?? most;
        }
        (List<GapMove> chosen, int brought, _) = cheapest.Value;
        chosen.Sort((a, b) => b.DaysGained.CompareTo(a.DaysGained));
        return new GapAnswer(chosen, brought, mostDays, bareDays, chosen.Sum(m => m.Cost), moves.Count, Left(bare, chosen, moves));
    }

    private static (List<GapMove> Chosen, int Days, int Bound)? Solve(
        Plan plan,
        IReadOnlyList<GapMove> moves,
        GapQuestion question,
        int? leastDays,
        double seconds,
        IReadOnlyList<GapMove>? near,
        CancellationToken cancel
    )
    {
        var model = new CpModel();
        BoolVar[] take = [.. moves.Select((m, i) => model.NewBoolVar($"m{i}"))];
        LinearExpr days = ColourDays(model, take, moves);
        Limits(model, take, plan, moves, question);
        if (leastDays is { } least)
        {
            model.Add(days >= least);
            // Of choices that ask the same, the one that brings more days.
            model.Minimize((Effort(take, moves) * (1 + moves.Sum(m => m.Before.Days))) - days);
        }
        else
        {
            model.Maximize(days);
        }
        // A choice that is known to be good is where the search begins.
        var known = near?.Select(m => m.Id).ToHashSet(StringComparer.Ordinal);
        for (int i = 0; known is not null && i < moves.Count; i++)
            model.AddHint(take[i], known.Contains(moves[i].Id));
        var solver = new CpSolver();
        CpSolverStatus status = solver.Solve(model, seconds, Enough, cancel: cancel);
        cancel.ThrowIfCancellationRequested();
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return null;
        return ([.. moves.Where((_, i) => solver.BooleanValue(take[i]))], (int)solver.Value(days), (int)Math.Floor(solver.BestObjectiveBound + 1e-6));
    }

    /// <summary>What one change asks of crew and purse: purchases come before changes that buy nothing, money is counted in whole units.</summary>
    /// <param name="move">The change.</param>
    /// <returns>An exchange of our own: a purchase is worth ten units of money to be saved, any change five.</returns>
    public static long EffortOf(GapMove move) => (move.Buys ? 10 : 0) + 5 + (long)Math.Ceiling(move.Cost);

    private static LinearExpr Effort(BoolVar[] take, IReadOnlyList<GapMove> moves) => LinearExpr.WeightedSum(take, moves.Select(EffortOf));

    /// <summary>The plan with some of the changes made.</summary>
    /// <exception cref="InvalidInputException">They do not fit each other or the plan as it is now.</exception>
    public static Plan Apply(Plan plan, IEnumerable<GapMove> moves)
    {
        List<GapMove> chosen = [.. moves];
        return plan.Changed([.. chosen.SelectMany(m => m.Replaces).Distinct(StringComparer.Ordinal)], [.. chosen.SelectMany(m => m.Displays)]);
    }

    // Days gained over all planters: a day counts once however many changes bring it. Days alike in who brings them are one term.
    private static LinearExpr ColourDays(CpModel model, BoolVar[] take, IReadOnlyList<GapMove> moves)
    {
        var terms = new List<LinearExpr>();
        foreach (var planter in moves.Select((m, i) => (Move: m, Index: i)).GroupBy(x => x.Move.Planter.Id, StringComparer.Ordinal))
        {
            var here = planter.ToList();
            var alike = new Dictionary<string, (int[] Bring, int Days)>(StringComparer.Ordinal);
            for (int d = 0; d < here[0].Move.Before.Days; d++)
            {
                int day = d;
                int[] bring = [.. here.Where(x => x.Move.Gains[day]).Select(x => x.Index)];
                if (bring.Length == 0)
                    continue;
                string key = string.Join(',', bring);
                alike[key] = (bring, alike.TryGetValue(key, out var known) ? known.Days + 1 : 1);
            }
            foreach (var (bring, days) in alike.Values)
            {
                BoolVar inColour = model.NewBoolVar($"d{terms.Count}");
                model.Add(LinearExpr.Sum(bring.Select(i => take[i])) >= inColour);
                terms.Add(inColour * days);
            }
            // What a change takes out of colour is taken off whole, though another might bring it back.
            foreach (var (move, index) in here)
            {
                int lost = move.Losses.Cast<bool>().Count(l => l);
                if (lost > 0)
                    terms.Add(take[index] * -lost);
            }
        }
        return LinearExpr.Sum(terms);
    }

    private static void Limits(CpModel model, BoolVar[] take, Plan plan, IReadOnlyList<GapMove> moves, GapQuestion question)
    {
        var byPlanter = moves
            .Select((m, i) => (Move: m, Index: i))
            .GroupBy(x => x.Move.Planter.Id, StringComparer.Ordinal)
            .Select(g => g.ToList())
            .ToList();
        foreach (var here in byPlanter)
        {
            model.Add(LinearExpr.Sum(here.Select(x => take[x.Index])) <= question.MostPerPlanter);
            foreach (List<int> only in AtMostOneOf([.. here.Select(x => x.Move)]))
                model.AddAtMostOne(only.Select(i => take[here[i].Index]));
        }
        if (question.MostPlanters is { } most)
        {
            BoolVar[] worked = [.. byPlanter.Select((_, p) => model.NewBoolVar($"p{p}"))];
            for (int p = 0; p < byPlanter.Count; p++)
            {
                foreach (var (_, index) in byPlanter[p])
                    model.AddImplication(take[index], worked[p]);
            }
            model.Add(LinearExpr.Sum(worked) <= most);
        }
        if (question.Budget is { } budget)
            model.Add(LinearExpr.WeightedSum(take, moves.Select(m => (long)Math.Round(m.Cost * 100))) <= (long)(budget * 100));
        if (question.MostKinds is { } mostKinds)
        {
            var kinds = moves
                .Select((m, i) => (Move: m, Index: i))
                .Where(x => x.Move.Buys)
                .GroupBy(x => x.Move.Plant!.Id, StringComparer.Ordinal)
                .ToList();
            BoolVar[] bought = [.. kinds.Select((_, k) => model.NewBoolVar($"k{k}"))];
            for (int k = 0; k < kinds.Count; k++)
            {
                foreach (var (_, index) in kinds[k])
                    model.AddImplication(take[index], bought[k]);
            }
            model.Add(LinearExpr.Sum(bought) <= mostKinds);
        }
        // One plant cannot be set out twice.
        foreach (Lot lot in plan.Lots)
        {
            long[] uses = [.. moves.Select(m => (long)m.FromStock.Where(s => s.LotId == lot.Id).Sum(s => s.Count))];
            if (uses.Any(u => u > 0))
                model.Add(LinearExpr.WeightedSum(take, uses) <= lot.Count);
        }
    }

    // Sets of changes of one planter of which only one can be done. Whole sets bound the solver far better than pairs do.
    private static List<List<int>> AtMostOneOf(IReadOnlyList<GapMove> moves)
    {
        var conflict = new bool[moves.Count, moves.Count];
        var open = new HashSet<(int, int)>();
        for (int a = 0; a < moves.Count; a++)
        {
            for (int b = a + 1; b < moves.Count; b++)
            {
                conflict[a, b] = conflict[b, a] = moves[a].Conflicts(moves[b]);
                if (conflict[a, b])
                    open.Add((a, b));
            }
        }
        var sets = new List<List<int>>();
        while (open.Count > 0)
        {
            (int first, int second) = open.Min();
            List<int> set = [first, second];
            for (int c = 0; c < moves.Count; c++)
            {
                if (!set.Contains(c) && set.TrueForAll(s => conflict[s, c]))
                    set.Add(c);
            }
            foreach (int a in set)
            {
                foreach (int b in set)
                    open.Remove((a, b));
            }
            sets.Add(set);
        }
        return sets;
    }

    // Changes after which a display would lose plants, or break a house rule that it did not break before.
    private static List<GapMove> Wrong(Plan plan, SeasonKernel kernel, SiteFlowering flowering, IReadOnlyList<GapMove> moves)
    {
        if (moves.Count == 0)
            return [];
        SiteFlowering Flowering(NodaTime.LocalDate start) =>
            start == flowering.Start ? flowering : new SiteFlowering(flowering.Record, start, flowering.FrostRisk);
        Plan after = Apply(plan, moves);
        // Checks are made for one thread each.
        bool[] isWrong = SideBySide.Each(moves, move =>
        {
            var now = new DisplayChecks(plan, flowering.Record, Flowering);
            var then = new DisplayChecks(after, flowering.Record, Flowering);
            var before = plan.DisplaysOf(move.Planter.Id)
                .Where(d => move.Replaces.Contains(d.Id))
                .SelectMany(d => now.For(d, thorough: false))
                .Select(r => r.Says.Key)
                .ToHashSet(StringComparer.Ordinal);
            return move.Displays.Any(d => then.For(d, thorough: false).Any(r => r.SpeaksAgainst && !before.Contains(r.Says.Key)));
        });
        List<GapMove> wrong = [.. moves.Where((_, i) => isWrong[i])];
        // Several changes to one planter must bring together what each brings alone.
        foreach (var planter in moves.Except(wrong).GroupBy(m => m.Planter.Id, StringComparer.Ordinal).Where(g => g.Count() > 1))
        {
            HashSet<string> replaced = planter.SelectMany(m => m.Replaces).ToHashSet(StringComparer.Ordinal);
            PlanterSeason together = kernel.Try(
                plan,
                planter.First().Planter,
                [.. plan.DisplaysOf(planter.Key).Where(d => !replaced.Contains(d.Id)), .. planter.SelectMany(m => m.Displays)]
            );
            if (planter.Any(m => Missing(m.Gains, together) > m.DaysGained / 4))
                wrong.Add(planter.MinBy(m => m.DaysGained)!);
        }
        return wrong;
    }

    private static int Missing(BitArray gains, PlanterSeason after)
    {
        int missing = 0;
        for (int d = 0; d < gains.Length; d++)
            missing += gains[d] && after.ShareInColour[d] < ColourOdds.InColour ? 1 : 0;
        return missing;
    }

    private static List<(Planter Planter, Fact Why)> Left(
        IReadOnlyList<PlanterSeason> bare,
        IReadOnlyList<GapMove> chosen,
        IReadOnlyList<GapMove> moves
    )
    {
        var left = new List<(Planter, Fact)>();
        foreach (PlanterSeason season in bare)
        {
            List<GapMove> here = [.. chosen.Where(m => m.Planter.Id == season.Planter.Id)];
            int closed = Enumerable.Range(0, season.Days).Count(d => here.Any(m => m.Gains[d]));
            int days = season.BareSpells.Sum(s => s.Days);
            if (days - closed < BareSpell.ShortestDays)
                continue;
            StaysBareReason why =
                moves.All(m => m.Planter.Id != season.Planter.Id) ? StaysBareReason.NothingFound
                : here.Count == 0 ? StaysBareReason.BeyondTheLimits
                : StaysBareReason.DaysStay;
            left.Add((season.Planter, new Fact(why, ("days", days - closed))));
        }
        return left;
    }
}
