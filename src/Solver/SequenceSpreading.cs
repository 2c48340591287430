using Google.OrTools.Sat;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Sequencing;

namespace UnrulyMeadow.Solver;

/// <summary>Exchanges that spread an area's bulbs over spring.</summary>
/// <param name="Moves">The exchanges, planter by planter.</param>
/// <param name="Before">Worth of the run as planned, see <see cref="SequenceSpreading.Worth"/>.</param>
/// <param name="After">Worth of the run with them.</param>
/// <param name="Most">No choice among the exchanges is worth more: the solver's bound.</param>
/// <param name="InFlower">Planters in bulb flower by day with the exchanges made.</param>
public sealed record SequenceAnswer(IReadOnlyList<SequenceMove> Moves, int Before, int After, int Most, IReadOnlyList<int> InFlower)
{
    /// <summary>The arithmetic behind it.</summary>
    public Working Explain(AreaSequence area) =>
        new Working(
            WorkingKind.BulbsSpreadOverSpring,
            Moves.Count == 0
                ? (object?)WorkingPhrase.NothingExchange
                : new Fact(WorkingPhrase.BulbsSpreadOverSpringValueExchanges, ("moves", Moves.Count)),
            [
                new WorkingInput(InputName.WorthAsPlanned, Before),
                new WorkingInput(InputName.WorthWithThem, After),
                new WorkingInput(InputName.MostThatAnyChoiceIsWorth, Most),
                new WorkingInput(InputName.EvenlySpread, new Fact(WorkingPhrase.PlantersInFlowerOnEachDay, ("evenCount", area.EvenCount))),
            ]
        )
        {
            Parts = [("area", area.Area.Name), ("firstWorth", SequenceSpreading.FirstWorth), ("moveWorth", SequenceSpreading.MoveWorth)],
        };
}

/// <summary>Chooses exchanges so that an area's bulbs flower neither all at once nor with gaps between them.</summary>
public static class SequenceSpreading
{
    /// <summary>What the first planter in bulb flower on a day is worth; the n-th is worth an n-th of it, so that spreading pays.</summary>
    public const int FirstWorth = 60;

    /// <summary>What an exchange must bring: a little over three days on which nothing flowered before. An exchange of our own.</summary>
    public const int MoveWorth = 200;

    // More planters in flower on one day than this add nothing.
    private const int Levels = 12;

    private const double Seconds = 2;

    /// <summary>Worth of a run.</summary>
    public static int Worth(AreaSequence area, IReadOnlyList<int> inFlower)
    {
        int worth = 0;
        for (int d = area.Spring.From; d < area.Spring.To; d++)
        {
            for (int n = 1; n <= Math.Min(inFlower[d], Levels); n++)
                worth += FirstWorth / n;
        }
        return worth;
    }

    /// <summary>Chooses among exchanges, at most one to a planter.</summary>
    /// <param name="area">The run as planned.</param>
    /// <param name="moves">Exchanges to choose from.</param>
    public static SequenceAnswer Choose(AreaSequence area, IReadOnlyList<SequenceMove> moves)
    {
        int before = Worth(area, area.InFlower);
        if (moves.Count == 0)
            return new SequenceAnswer([], before, before, before, area.InFlower);
        var model = new CpModel();
        BoolVar[] take = [.. moves.Select((m, i) => model.NewBoolVar($"m{i}"))];
        var byPlanter = moves
            .Select((m, i) => (Move: m, Index: i))
            .GroupBy(x => x.Move.Planter.Id, StringComparer.Ordinal)
            .Select(g => g.ToList())
            .ToList();
        foreach (var here in byPlanter)
            model.AddAtMostOne(here.Select(x => take[x.Index]));
        IReadOnlyDictionary<string, bool[]> now = area.Flowering;
        var worth = new List<LinearExpr>();
        for (int d = area.Spring.From; d < area.Spring.To; d++)
        {
            // Planters in flower on the day: as planned, less and more by what each exchange changes.
            LinearExpr count = LinearExpr.Constant(area.InFlower[d]);
            foreach (var (move, index) in byPlanter.SelectMany(h => h))
            {
                int change = (move.InFlower[d] ? 1 : 0) - (now[move.Planter.Id][d] ? 1 : 0);
                if (change != 0)
                    count += take[index] * change;
            }
            // Each is worth less than the one before, so the solver fills them in order.
            BoolVar[] levels = [.. Enumerable.Range(1, Math.Min(Levels, area.WithBulbs)).Select(n => model.NewBoolVar($"d{d}n{n}"))];
            model.Add(LinearExpr.Sum(levels) <= count);
            worth.Add(LinearExpr.WeightedSum(levels, levels.Select((_, n) => (long)(FirstWorth / (n + 1)))));
        }
        LinearExpr total = LinearExpr.Sum(worth);
        model.Maximize(total - LinearExpr.WeightedSum(take, moves.Select(EffortOf)));
        var solver = new CpSolver();
        if (solver.Solve(model, Seconds) is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return new SequenceAnswer([], before, before, before, area.InFlower);
        List<SequenceMove> chosen = [.. moves.Where((_, i) => solver.BooleanValue(take[i]))];
        int[] after = With(area, chosen);
        // The objective takes exchanges off; the bound on worth alone puts all of them back.
        int most = (int)Math.Ceiling(solver.BestObjectiveBound + byPlanter.Sum(h => h.Max(x => EffortOf(x.Move))));
        return new SequenceAnswer(chosen, before, Worth(area, after), Math.Max(most, Worth(area, after)), after);
    }

    /// <summary>What an exchange is charged: its own worth, and a little more the farther the colours are apart.</summary>
    public static long EffortOf(SequenceMove move) => MoveWorth + (long)Math.Round(move.ColourApart);

    /// <summary>Planters in bulb flower by day with some exchanges made.</summary>
    public static int[] With(AreaSequence area, IReadOnlyList<SequenceMove> moves)
    {
        Dictionary<string, bool[]> now = area.Flowering.ToDictionary(StringComparer.Ordinal);
        foreach (SequenceMove move in moves)
            now[move.Planter.Id] = move.InFlower;
        var count = new int[area.InFlower.Length];
        foreach (bool[] here in now.Values)
        {
            for (int d = 0; d < count.Length; d++)
                count[d] += here[d] ? 1 : 0;
        }
        return count;
    }
}
