using Google.OrTools.Sat;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;

namespace UnrulyMeadow.Solver;

/// <summary>Which planter takes what.</summary>
/// <param name="Planted">Each planter with its bulbs, in the order asked; planters that take nothing are left out.</param>
/// <param name="Left">Bulbs left over, by kind.</param>
/// <param name="Without">Planters that take fewer kinds than the scheme wants, with the reason.</param>
public sealed record SpreadAnswer(
    IReadOnlyList<(Planter Planter, IReadOnlyList<(SpreadRoom Room, int Count)> Takes)> Planted,
    IReadOnlyList<KindAtHand> Left,
    IReadOnlyList<(Planter Planter, FewerKindsReason Why)> Without
)
{
    /// <summary>The arithmetic behind it.</summary>
    public Working Explain(SpreadQuestion question) =>
        new Working(
            WorkingKind.KindsOverPlanters,
            new Fact(WorkingPhrase.KindsOverPlantersValuePlanters, ("planted", Planted.Count), ("planters", question.Planters.Count)),
            [
                .. question.Kinds.Select(k => new WorkingInput(
                    k.Plant,
                    new Fact(
                        WorkingPhrase.HandLaidOutInPlanters,
                        ("count", k.Count),
                        ("plant", k.Count - (Left.FirstOrDefault(l => l.Plant == k.Plant)?.Count ?? 0)),
                        ("plant2", Planted.Count(p => p.Takes.Any(t => t.Room.Plant == k.Plant)))
                    )
                )),
            ]
        );
}

/// <summary>Lays kinds of bulbs over many planters without accidental mixing.</summary>
public static class KindSpreading
{
    private const double Seconds = 3;
    private const int SlotWorth = 10_000;

    /// <summary>Chooses who takes what.</summary>
    /// <exception cref="InvalidInputException">The question is faulty.</exception>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year that holds their spring.</param>
    /// <param name="question">The question.</param>
    /// <param name="done">Told the count of planters measured.</param>
    /// <param name="cancel">Stops the work.</param>
    public static SpreadAnswer Choose(
        Plan plan,
        SeasonKernel kernel,
        SpreadQuestion question,
        IProgress<int>? done = null,
        CancellationToken cancel = default
    )
    {
        IReadOnlyList<Fault> faults = question.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return Choose(question, question.Rooms(plan, kernel, done, cancel));
    }

    /// <summary>Chooses who takes what, from what each planter would take.</summary>
    /// <param name="question">The question.</param>
    /// <param name="rooms">For each planter, the kinds it could take.</param>
    public static SpreadAnswer Choose(SpreadQuestion question, IReadOnlyList<IReadOnlyList<SpreadRoom>> rooms)
    {
        var model = new CpModel();
        var takes = new List<(int Planter, SpreadRoom Room, BoolVar Takes, IntVar Count)>();
        for (int p = 0; p < rooms.Count; p++)
        {
            foreach (SpreadRoom room in rooms[p])
            {
                BoolVar take = model.NewBoolVar($"t{takes.Count}");
                IntVar count = model.NewIntVar(0, room.Most, $"c{takes.Count}");
                model.Add(count >= take * room.Least);
                model.Add(count <= take * room.Most);
                takes.Add((p, room, take, count));
            }
        }
        foreach (
            var slot in takes.GroupBy(t => (t.Planter, Third: question.Scheme == SpreadScheme.OneOfEachThird ? t.Room.Third : SpringThird.Early))
        )
            model.AddAtMostOne(slot.Select(t => t.Takes));
        foreach (KindAtHand kind in question.Kinds)
        {
            var of = takes.Where(t => t.Room.Plant == kind.Plant).ToList();
            model.Add(LinearExpr.Sum(of.Select(t => t.Count)) <= kind.Count);
            if (!question.NeighboursDiffer)
                continue;
            foreach (var (first, second) in of.SelectMany(a => of.Where(b => b.Planter == a.Planter + 1).Select(b => (a, b))))
                model.AddAtMostOne([first.Takes, second.Takes]);
        }
        model.Maximize((LinearExpr.Sum(takes.Select(t => t.Takes)) * SlotWorth) + LinearExpr.Sum(takes.Select(t => t.Count)));
        var solver = new CpSolver();
        bool solved = solver.Solve(model, Seconds) is CpSolverStatus.Optimal or CpSolverStatus.Feasible;
        var chosen = takes
            .Where(t => solved && solver.BooleanValue(t.Takes))
            .Select(t => (t.Planter, t.Room, Count: (int)solver.Value(t.Count)))
            .ToList();
        int wanted =
            question.Scheme == SpreadScheme.OneOfEachThird
                ? Math.Max(
                    1,
                    question
                        .Kinds.Select(k => rooms.SelectMany(r => r).FirstOrDefault(r => r.Plant == k.Plant)?.Third)
                        .OfType<SpringThird>()
                        .Distinct()
                        .Count()
                )
                : 1;
        return new SpreadAnswer(
            [
                .. question
                    .Planters.Select(
                        (p, i) =>
                            (
                                p,
                                (IReadOnlyList<(SpreadRoom, int)>)
                                    [.. chosen.Where(c => c.Planter == i).OrderBy(c => c.Room.Third).Select(c => (c.Room, c.Count))]
                            )
                    )
                    .Where(x => x.Item2.Count > 0),
            ],
            [
                .. question
                    .Kinds.Select(k => k with { Count = k.Count - chosen.Where(c => c.Room.Plant == k.Plant).Sum(c => c.Count) })
                    .Where(k => k.Count > 0),
            ],
            [
                .. question
                    .Planters.Select((p, i) => (Planter: p, Index: i))
                    .Where(x => chosen.Count(c => c.Planter == x.Index) < wanted)
                    .Select(x =>
                        (
                            x.Planter,
                            rooms[x.Index].Count == 0 ? FewerKindsReason.NoneFits
                            : chosen.Any(c => c.Planter == x.Index) ? FewerKindsReason.AThirdIsGone
                            : FewerKindsReason.TooFewLeft
                        )
                    ),
            ]
        );
    }
}
