using Google.OrTools.Sat;

namespace UnrulyMeadow.Solver;

/// <summary>How long CP-SAT may think. A machine that is busy elsewhere then answers less well, but it answers.</summary>
internal static class TimeLimit
{
    /// <summary>Searches side by side where nobody says otherwise: CP-SAT's kinds of search help each other even on two processors.</summary>
    public const int UsualWorkers = 8;

    // So long a first answer is waited for, seconds: a question of one second is then answered by a hundredth of a processor.
    private const double Patience = 90;

    /// <summary>A solver that stops after so many seconds with the best it has, if it has any.</summary>
    /// <param name="seconds">The limit, seconds of the clock.</param>
    public static CpSolver Of(double seconds) => new() { StringParameters = Parameters(seconds, 0, UsualWorkers) };

    /// <summary>Solves a model; where the limit ends with nothing known, the first answer is waited for.</summary>
    /// <param name="solver">Holds the answer afterwards; its parameters are set here.</param>
    /// <param name="model">What is asked.</param>
    /// <param name="seconds">The limit, seconds of the clock.</param>
    /// <param name="gap">An answer so near its bound is good enough, as a share of it.</param>
    /// <param name="workers">Searches side by side.</param>
    /// <param name="cancel">Ends the search at once; what is known then stands.</param>
    /// <returns>Unknown only where it was cancelled, or where even the first answer took more than a minute and a half.</returns>
    public static CpSolverStatus Solve(
        this CpSolver solver,
        CpModel model,
        double seconds,
        double gap = 0,
        int workers = UsualWorkers,
        CancellationToken cancel = default
    )
    {
        using CancellationTokenRegistration stop = cancel.Register(solver.StopSearch);
        solver.StringParameters = Parameters(seconds, gap, workers);
        CpSolverStatus status = solver.Solve(model);
        if (status != CpSolverStatus.Unknown || cancel.IsCancellationRequested)
            return status;
        solver.StringParameters = Parameters(Patience, gap, workers) + ",stop_after_first_solution:true";
        return solver.Solve(model);
    }

    private static string Parameters(double seconds, double gap, int workers) =>
        FormattableString.Invariant($"num_workers:{workers},random_seed:1,relative_gap_limit:{gap},max_time_in_seconds:{seconds}");
}
