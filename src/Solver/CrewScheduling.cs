using Google.OrTools.Sat;
using UnrulyMeadow.Core.Crew;

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
        int[] simple = Simple(jobs, days, fits);
        Schedule Made(Func<int, int> dayOf) =>
            new(
                question,
                [.. Enumerable.Range(0, jobs.Length).Where(j => dayOf(j) >= 0).Select(j => (jobs[j], days[dayOf(j)]))],
                [.. Enumerable.Range(0, jobs.Length).Where(j => dayOf(j) < 0).Select(j => jobs[j])]
            );
        Schedule first = Made(j => simple[j]);
        found?.Report(first);

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
            model.AddHint(left, simple[j] < 0);
            foreach ((int day, BoolVar it) in taken[j])
                model.AddHint(it, simple[j] == day);
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
                model.AddHint(visit, area.Any(h => simple[h.Job] == d));
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
        var solver = new CpSolver { StringParameters = FormattableString.Invariant($"num_workers:8,random_seed:1,max_time_in_seconds:{seconds}") };
        using CancellationTokenRegistration off = cancel.Register(solver.StopSearch);
        int DayOf(int j, Func<BoolVar, bool> isTaken)
        {
            foreach ((int day, BoolVar it) in taken[j])
            {
                if (isTaken(it))
                    return day;
            }
            return -1;
        }
        CpSolverStatus status = found is null
            ? solver.Solve(model)
            : solver.Solve(model, new Told(call => found.Report(Made(j => DayOf(j, it => call.BooleanValue(it))))));
        Schedule best = status is CpSolverStatus.Optimal or CpSolverStatus.Feasible ? Made(j => DayOf(j, solver.BooleanValue)) : first;
        best = best.Cost <= first.Cost ? best : first;
        long bound = (long)Math.Ceiling(Math.Max(0, solver.BestObjectiveBound) - 1e-6);
        return new ScheduleAnswer(best, Math.Min(bound, best.Cost), status == CpSolverStatus.Optimal);
    }

    // Each piece of work where it costs least beside what is placed already, the most bound first; then pieces are moved one by one as long as
    // that makes it cheaper.
    private static int[] Simple(ScheduleJob[] jobs, TeamDay[] days, int[][] fits)
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
        foreach (
            int job in Enumerable
                .Range(0, jobs.Length)
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
