using Google.OrTools.Sat;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>A machine that is busy elsewhere is told the first answer there is, never that there is none.</summary>
public class TimeLimitTests
{
    // Queens that do not see each other: quick, but never at once.
    private static (CpModel Model, IntVar[] Queens) Queens(int count)
    {
        var model = new CpModel();
        IntVar[] queens = [.. Enumerable.Range(0, count).Select(i => model.NewIntVar(0, count - 1, $"q{i}"))];
        model.AddAllDifferent(queens);
        model.AddAllDifferent(queens.Select((q, i) => q + i));
        model.AddAllDifferent(queens.Select((q, i) => q - i));
        return (model, queens);
    }

    [Fact]
    public void A_limit_that_ends_before_anything_was_found_waits_for_the_first_answer()
    {
        const double atOnce = 1e-9;
        (CpModel model, _) = Queens(12);
        Assert.Equal(CpSolverStatus.Unknown, TimeLimit.Of(atOnce).Solve(model));

        var solver = new CpSolver();
        (model, IntVar[] queens) = Queens(12);
        Assert.True(solver.Solve(model, atOnce) is CpSolverStatus.Feasible or CpSolverStatus.Optimal);
        Assert.Distinct(queens.Select(q => solver.Value(q)));
    }

    [Fact]
    public void What_cannot_be_is_said_at_once_and_a_search_that_was_given_up_ends()
    {
        (CpModel model, _) = Queens(3);
        Assert.Equal(CpSolverStatus.Infeasible, new CpSolver().Solve(model, 5));
        using var cancelled = new CancellationTokenSource();
        cancelled.Cancel();
        (model, _) = Queens(12);
        Assert.Equal(CpSolverStatus.Unknown, new CpSolver().Solve(model, 1e-9, cancel: cancelled.Token));
    }
}
