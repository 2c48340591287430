using System.Diagnostics;
using Google.OrTools.Sat;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using Constraint = Google.OrTools.LinearSolver.Constraint;
using Mip = Google.OrTools.LinearSolver.Solver;
using MipSettings = Google.OrTools.LinearSolver.MPSolverParameters;
using Variable = Google.OrTools.LinearSolver.Variable;

namespace UnrulyMeadow.Solver;

/// <summary>The best schedule that was found, and how good one could be at most.</summary>
/// <param name="Schedule">Who does what when.</param>
/// <param name="Bound">No schedule costs less.</param>
/// <param name="IsBest">True when it is proven that none costs less.</param>
public sealed record ScheduleAnswer(Schedule Schedule, long Bound, bool IsBest)
{
    /// <summary>By what share it may be dearer than the best at most.</summary>
    public double Gap => Schedule.Cost == 0 ? 0 : (double)(Schedule.Cost - Bound) / Schedule.Cost;
}

/// <summary>Finds days and teams for all work at once.</summary>
public static class CrewScheduling
{
    /// <summary>The time that is taken where nobody says otherwise, seconds.</summary>
    public const double UsualSeconds = 20;

    // So many pieces of work times teams on days are placed at once; of more, days come first, then teams day by day, each for a share of the
    // time, and the days only so near to their bound.
    private const long SmallEnough = 2000;
    private const double ShareForDays = 0.4;
    private const double ShareForTeams = 0.15;
    private const double GapOfDays = 0.005;

    // Days of a pair lie at most so far apart, and so long is looked at one.
    private const int Reach = 4;
    private const double SecondsForAPair = 0.6;

    /// <summary>Places the work.</summary>
    /// <param name="question">The question.</param>
    /// <param name="seconds">How long to look.</param>
    /// <param name="found">Told of each better schedule as it is found.</param>
    /// <param name="cancel">Stops the work; what was found stands.</param>
    public static ScheduleAnswer Place(
        ScheduleQuestion question,
        double seconds = UsualSeconds,
        IProgress<Schedule>? found = null,
        CancellationToken cancel = default
    )
    {
        TeamDay[] days = [.. question.TeamDays.Where(t => t is { People: > 0, Minutes: > 0 })];
        ScheduleJob[] jobs = [.. question.Jobs];
        int[][] fits = [.. jobs.Select(j => Enumerable.Range(0, days.Length).Where(d => question.Fits(j, days[d])).ToArray())];
        Schedule Made(int[] at) =>
            new(
                question,
                [.. Enumerable.Range(0, jobs.Length).Where(j => at[j] >= 0).Select(j => (jobs[j], days[at[j]]))],
                [.. Enumerable.Range(0, jobs.Length).Where(j => at[j] < 0).Select(j => jobs[j])]
            );
        int[] best = Simple(jobs, days, fits);
        found?.Report(Made(best));
        if ((long)jobs.Length * days.Length > SmallEnough)
        {
            // Days first, teams of a day as one; then, day by day, teams for what falls on it. Either is far smaller than all at once.
            var watch = Stopwatch.StartNew();
            (int[] dayOf, long bound) = ByDay(jobs, days, fits, best, seconds * ShareForDays, cancel);
            int[] apart = Teams(jobs, days, fits, dayOf, seconds * ShareForTeams, cancel);
            if (Made(apart).Cost < Made(best).Cost)
            {
                best = apart;
                found?.Report(Made(best));
            }
            best = FewDaysAtOnce(jobs, days, fits, best, () => seconds - watch.Elapsed.TotalSeconds, a => found?.Report(Made(a)), cancel);
            Schedule large = Made(best);
            bound = Math.Min(bound, large.Cost);
            return new ScheduleAnswer(large, bound, bound == large.Cost);
        }
        (int[] at, long least, bool isBest) = Exact(jobs, days, fits, best, seconds, found is null ? null : a => found.Report(Made(a)), cancel);
        // A search that is cut short may leave out what still fits, or have found nothing as good as what it began with.
        Schedule answer = new[] { Made(Simple(jobs, days, fits, at)), Made(best) }.MinBy(s => s.Cost)!;
        return new ScheduleAnswer(answer, Math.Min(least, answer.Cost), isBest);
    }

    // What a schedule costs where all teams of a day are taken as one: no schedule costs less, and days that are good so are good for each. Its
    // relaxation over real numbers is so near to it that a solver of mixed-integer programs is there long before one of constraints.
    private static (int[] DayOf, long Bound) ByDay(
        ScheduleJob[] jobs,
        TeamDay[] teamDays,
        int[][] fits,
        int[] hint,
        double seconds,
        CancellationToken cancel
    )
    {
        LocalDate[] days = [.. teamDays.Select(t => t.Day).Distinct().Order()];
        int[] dayOf = [.. teamDays.Select(t => Array.IndexOf(days, t.Day))];
        using Mip model = Mip.CreateSolver("SCIP");
        Google.OrTools.LinearSolver.Objective cost = model.Objective();
        cost.SetMinimization();
        var taken = new Dictionary<int, Variable>[jobs.Length];
        for (int j = 0; j < jobs.Length; j++)
        {
            taken[j] = fits[j].Select(t => dayOf[t]).Distinct().ToDictionary(d => d, _ => model.MakeBoolVar(string.Empty));
            Variable left = model.MakeBoolVar(string.Empty);
            Constraint once = model.MakeConstraint(1, 1, string.Empty);
            once.SetCoefficient(left, 1);
            cost.SetCoefficient(left, ScheduleQuestion.CostLeft(jobs[j]));
            foreach ((int day, Variable it) in taken[j])
            {
                once.SetCoefficient(it, 1);
                cost.SetCoefficient(it, ScheduleQuestion.CostOn(jobs[j], days[day]));
            }
        }
        for (int d = 0; d < days.Length; d++)
        {
            int[] teams = [.. Enumerable.Range(0, teamDays.Length).Where(t => dayOf[t] == d)];
            int[] here = [.. Enumerable.Range(0, jobs.Length).Where(j => taken[j].ContainsKey(d))];
            if (here.Length == 0)
                continue;
            int most = teams.Max(t => teamDays[t].Minutes) - ScheduleQuestion.VisitMinutes;
            Constraint ofDay = model.MakeConstraint(double.NegativeInfinity, teams.Sum(t => teamDays[t].Minutes), string.Empty);
            foreach (int j in here)
                ofDay.SetCoefficient(taken[j][d], jobs[j].Minutes);
            foreach (var area in here.GroupBy(j => jobs[j].Task.AreaId))
            {
                Variable visits = model.MakeIntVar(0, teams.Length, string.Empty);
                cost.SetCoefficient(visits, ScheduleQuestion.CostOfVisit);
                ofDay.SetCoefficient(visits, ScheduleQuestion.VisitMinutes);
                Constraint within = model.MakeConstraint(double.NegativeInfinity, 0, string.Empty);
                within.SetCoefficient(visits, -most);
                foreach (int j in area)
                {
                    within.SetCoefficient(taken[j][d], jobs[j].Minutes);
                    Constraint needs = model.MakeConstraint(double.NegativeInfinity, 0, string.Empty);
                    needs.SetCoefficient(taken[j][d], 1);
                    needs.SetCoefficient(visits, -1);
                }
            }
            // What only some of the teams can do fits into the minutes of those.
            foreach (var some in here.GroupBy(j => string.Join(' ', fits[j].Where(t => dayOf[t] == d))))
            {
                int[] able = [.. fits[some.First()].Where(t => dayOf[t] == d)];
                if (able.Length == teams.Length)
                    continue;
                Constraint theirs = model.MakeConstraint(
                    double.NegativeInfinity,
                    able.Sum(t => teamDays[t].Minutes - ScheduleQuestion.VisitMinutes),
                    string.Empty
                );
                foreach (int j in some)
                    theirs.SetCoefficient(taken[j][d], jobs[j].Minutes);
            }
        }
        model.SetTimeLimit((long)(seconds * 1000));
        using CancellationTokenRegistration off = cancel.Register(() => model.InterruptSolve());
        using var near = new MipSettings();
        near.SetDoubleParam(MipSettings.DoubleParam.RELATIVE_MIP_GAP, GapOfDays);
        Mip.ResultStatus status = model.Solve(near);
        int[] found =
        [
            .. taken.Select(
                (t, j) =>
                    status is Mip.ResultStatus.OPTIMAL or Mip.ResultStatus.FEASIBLE
                        ? t.Where(x => x.Value.SolutionValue() > 0.5).Select(x => x.Key).DefaultIfEmpty(-1).First()
                    : hint[j] < 0 ? -1
                    : dayOf[hint[j]]
            ),
        ];
        long bound = status is Mip.ResultStatus.OPTIMAL or Mip.ResultStatus.FEASIBLE ? (long)Math.Ceiling(Math.Max(0, cost.BestBound()) - 1e-3) : 0;
        return (found, bound);
    }

    // Teams for the work of each day, one day after the other; what no team of its day can take then is put wherever it still fits.
    private static int[] Teams(ScheduleJob[] jobs, TeamDay[] teamDays, int[][] fits, int[] dayOf, double seconds, CancellationToken cancel)
    {
        LocalDate[] days = [.. teamDays.Select(t => t.Day).Distinct().Order()];
        int[] at = [.. Enumerable.Repeat(-1, jobs.Length)];
        for (int d = 0; d < days.Length; d++)
        {
            int[] here = [.. Enumerable.Range(0, jobs.Length).Where(j => dayOf[j] == d)];
            int[] teams = [.. Enumerable.Range(0, teamDays.Length).Where(t => teamDays[t].Day == days[d])];
            if (here.Length == 0)
                continue;
            ScheduleJob[] work = [.. here.Select(j => jobs[j])];
            TeamDay[] who = [.. teams.Select(t => teamDays[t])];
            int[][] able = [.. here.Select(j => fits[j].Where(teams.Contains).Select(t => Array.IndexOf(teams, t)).ToArray())];
            int[] first = Simple(work, who, able);
            (int[] found, _, _) = Exact(work, who, able, first, seconds / days.Length, null, cancel);
            for (int i = 0; i < here.Length; i++)
                at[here[i]] = found[i] < 0 ? -1 : teams[found[i]];
        }
        return Simple(jobs, teamDays, fits, at);
    }

    // All work of two days that lie near each other, and what finds no place, is placed anew beside the rest, pair after pair, while there is
    // time and any pair makes it cheaper.
    private static int[] FewDaysAtOnce(
        ScheduleJob[] jobs,
        TeamDay[] teamDays,
        int[][] fits,
        int[] from,
        Func<double> secondsLeft,
        Action<int[]> found,
        CancellationToken cancel
    )
    {
        LocalDate[] days = [.. teamDays.Select(t => t.Day).Distinct().Order()];
        int[] best = [.. from];
        int since = 0;
        (int, int)[] pairs =
        [
            .. Enumerable.Range(1, Reach).SelectMany(apart => Enumerable.Range(0, Math.Max(0, days.Length - apart)).Select(d => (d, d + apart))),
        ];
        for (int i = 0; since < pairs.Length && pairs.Length > 0; i = (i + 1) % pairs.Length)
        {
            if (secondsLeft() < 0.05 || cancel.IsCancellationRequested)
                break;
            (int a, int b) = pairs[i];
            int[] teams = [.. Enumerable.Range(0, teamDays.Length).Where(t => teamDays[t].Day == days[a] || teamDays[t].Day == days[b])];
            int[] here = [.. Enumerable.Range(0, jobs.Length).Where(j => best[j] < 0 ? fits[j].Any(teams.Contains) : teams.Contains(best[j]))];
            since++;
            if (here.Length == 0)
                continue;
            ScheduleJob[] work = [.. here.Select(j => jobs[j])];
            TeamDay[] who = [.. teams.Select(t => teamDays[t])];
            int[][] able = [.. here.Select(j => fits[j].Where(teams.Contains).Select(t => Array.IndexOf(teams, t)).ToArray())];
            int[] hint = [.. here.Select(j => best[j] < 0 ? -1 : Array.IndexOf(teams, best[j]))];
            (int[] at, _, _) = Exact(work, who, able, hint, Math.Min(SecondsForAPair, secondsLeft()), null, cancel);
            if (Cost(work, who, at) >= Cost(work, who, hint))
                continue;
            for (int k = 0; k < here.Length; k++)
                best[here[k]] = at[k] < 0 ? -1 : teams[at[k]];
            since = 0;
            found(best);
        }
        return best;
    }

    private static long Cost(ScheduleJob[] jobs, TeamDay[] days, int[] at) =>
        Enumerable.Range(0, jobs.Length).Sum(j => at[j] < 0 ? ScheduleQuestion.CostLeft(jobs[j]) : ScheduleQuestion.CostOn(jobs[j], days[at[j]].Day))
        + (
            Enumerable.Range(0, jobs.Length).Where(j => at[j] >= 0).Select(j => (at[j], jobs[j].Task.AreaId)).Distinct().Count()
            * ScheduleQuestion.CostOfVisit
        );

    // Everything at once, from a schedule that is known.
    private static (int[] At, long Bound, bool IsBest) Exact(
        ScheduleJob[] jobs,
        TeamDay[] days,
        int[][] fits,
        int[] hint,
        double seconds,
        Action<int[]>? found,
        CancellationToken cancel
    )
    {
        var model = new CpModel();
        var taken = new (int Day, BoolVar It)[jobs.Length][];
        var cost = new List<LinearExpr>();
        for (int j = 0; j < jobs.Length; j++)
        {
            taken[j] = [.. fits[j].Select(d => (d, model.NewBoolVar(string.Empty)))];
            BoolVar left = model.NewBoolVar(string.Empty);
            model.AddExactlyOne(taken[j].Select(t => t.It).Append(left));
            cost.Add(left * ScheduleQuestion.CostLeft(jobs[j]));
            cost.AddRange(taken[j].Select(t => t.It * ScheduleQuestion.CostOn(jobs[j], days[t.Day].Day)));
            model.AddHint(left, hint[j] < 0);
            foreach ((int day, BoolVar it) in taken[j])
                model.AddHint(it, hint[j] == day);
        }
        for (int d = 0; d < days.Length; d++)
        {
            var visits = new List<BoolVar>();
            var here = new List<(int Job, BoolVar It)>();
            for (int j = 0; j < jobs.Length; j++)
                here.AddRange(taken[j].Where(t => t.Day == d).Select(t => (j, t.It)));
            int room = days[d].Minutes;
            foreach (var area in here.GroupBy(h => jobs[h.Job].Task.AreaId))
            {
                BoolVar visit = model.NewBoolVar(string.Empty);
                model.AddHint(visit, area.Any(h => hint[h.Job] == d));
                visits.Add(visit);
                cost.Add(visit * ScheduleQuestion.CostOfVisit);
                foreach ((_, BoolVar it) in area)
                    model.AddImplication(it, visit);
                // All that is done in an area on a day fits what a visit leaves of it: what makes the relaxed problem see whole visits.
                model.Add(
                    LinearExpr.WeightedSum(area.Select(h => h.It), area.Select(h => (long)jobs[h.Job].Minutes))
                        <= visit * (room - ScheduleQuestion.VisitMinutes)
                );
            }
            if (here.Count > 0)
                model.Add(
                    LinearExpr.WeightedSum(
                        here.Select(h => h.It).Concat(visits),
                        here.Select(h => (long)jobs[h.Job].Minutes).Concat(visits.Select(_ => (long)ScheduleQuestion.VisitMinutes))
                    ) <= room
                );
        }
        model.Minimize(LinearExpr.Sum(cost));
        CpSolver solver = TimeLimit.Of(seconds);
        using CancellationTokenRegistration off = cancel.Register(solver.StopSearch);
        int[] Placed(Func<BoolVar, bool> isTaken) =>
            [.. taken.Select(t => t.Where(x => isTaken(x.It)).Select(x => x.Day).DefaultIfEmpty(-1).First())];
        CpSolverStatus status = found is null ? solver.Solve(model) : solver.Solve(model, new Told(call => found(Placed(call.BooleanValue))));
        return (
            status is CpSolverStatus.Optimal or CpSolverStatus.Feasible ? Placed(solver.BooleanValue) : hint,
            BoundOf(solver),
            status == CpSolverStatus.Optimal
        );
    }

    private static long BoundOf(CpSolver solver) => (long)Math.Ceiling(Math.Max(0, solver.BestObjectiveBound) - 1e-6);

    // Each piece of work where it costs least beside what is placed already, the most bound first; then pieces are moved one by one as long as
    // that makes it cheaper.
    private static int[] Simple(ScheduleJob[] jobs, TeamDay[] days, int[][] fits, int[]? from = null)
    {
        int[] at = [.. Enumerable.Repeat(-1, jobs.Length)];
        int[] left = [.. days.Select(d => d.Minutes)];
        var there = new Dictionary<(int Day, string? Area), int>();
        int Count(int day, int job) => there.GetValueOrDefault((day, jobs[job].Task.AreaId));
        int Takes(int day, int job) => jobs[job].Minutes + (Count(day, job) == 0 ? ScheduleQuestion.VisitMinutes : 0);
        long Cost(int day, int job) => ScheduleQuestion.CostOn(jobs[job], days[day].Day) + (Count(day, job) == 0 ? ScheduleQuestion.CostOfVisit : 0);
        void Put(int job, int day)
        {
            left[day] -= Takes(day, job);
            there[(day, jobs[job].Task.AreaId)] = Count(day, job) + 1;
            at[job] = day;
        }
        void Lift(int job)
        {
            int day = at[job];
            there[(day, jobs[job].Task.AreaId)] = Count(day, job) - 1;
            left[day] += Takes(day, job);
            at[job] = -1;
        }
        for (int job = 0; from is not null && job < jobs.Length; job++)
        {
            if (from[job] >= 0)
                Put(job, from[job]);
        }
        foreach (
            int job in Enumerable
                .Range(0, jobs.Length)
                .Where(j => at[j] < 0)
                .OrderBy(j => fits[j].Length)
                .ThenBy(j => jobs[j].Task.AreaId)
                .ThenByDescending(j => jobs[j].Minutes)
        )
        {
            int day = fits[job].Where(d => left[d] >= Takes(d, job)).OrderBy(d => Cost(d, job)).ThenBy(d => left[d]).FirstOrDefault(-1);
            if (day >= 0)
                Put(job, day);
        }
        for (bool isBetter = true; isBetter; )
        {
            isBetter = false;
            for (int job = 0; job < jobs.Length; job++)
            {
                int was = at[job];
                long cost = ScheduleQuestion.CostLeft(jobs[job]);
                if (was >= 0)
                {
                    Lift(job);
                    cost = Cost(was, job);
                }
                int best = was;
                foreach (int day in fits[job])
                {
                    if (left[day] < Takes(day, job) || Cost(day, job) >= cost)
                        continue;
                    (best, cost) = (day, Cost(day, job));
                }
                if (best >= 0)
                    Put(job, best);
                isBetter |= best != was;
            }
        }
        return at;
    }

    private sealed class Told(Action<Told> call) : CpSolverSolutionCallback
    {
        public override void OnSolutionCallback() => call(this);
    }
}
