using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Crew;

/// <summary>Work that is to be placed: a task, or a piece of one that is too long for a half-day.</summary>
/// <param name="Task">The task.</param>
/// <param name="Minutes">Minutes of people.</param>
/// <param name="Piece">Which piece of the task it is, from 0.</param>
public sealed record ScheduleJob(CrewTask Task, int Minutes, int Piece = 0)
{
    /// <summary>What one of those who do it must be trained for; null for nothing.</summary>
    public Skill? Needs { get; init; }

    /// <summary>True where something is planted: nothing is into frozen ground.</summary>
    public bool IsPlanting => Task.Lines.Any(l => l.Kind == LineKind.In);

    /// <summary>True where it is planted into a bed, which must not be sodden.</summary>
    public bool IsInBed { get; init; }

    /// <summary>True where something is handled that strong wind throws over.</summary>
    public bool IsTall { get; init; }

    /// <summary>So high above the ground, wind takes hold of what is handled, cm (common practice).</summary>
    public const double TallCm = 180;

    /// <summary>The same with what its planter and plants tell of it.</summary>
    public ScheduleJob At(Plan plan) =>
        plan.FindPlanter(Task.PlanterId) is { } planter
            ? this with
            {
                IsInBed = planter.Form.IsBed,
                IsTall = !planter.Form.IsBed && planter.Form.DepthCm + Task.Lines.Max(l => plan.FindPlant(l.PlantId)?.HeightCm ?? 0) >= TallCm,
            }
            : this;
}

/// <summary>Why work finds no place.</summary>
public enum ScheduleHinder
{
    /// <summary>Nobody works on a day of its window, or the area is closed on all of them.</summary>
    NoDay,

    /// <summary>Nobody who works then is trained for it.</summary>
    NoSkill,

    /// <summary>No team has so many people.</summary>
    TooFewPeople,

    /// <summary>The ground is frozen or sodden, or the wind too strong, on every day on which it could be done.</summary>
    Weather,

    /// <summary>All who could do it are busy.</summary>
    NoTime,
}

/// <summary>Work that finds no place, why, and what would help.</summary>
/// <param name="Job">The work.</param>
/// <param name="Hinder">Why.</param>
/// <param name="DaysOutside">Days before (negative) or after its window on which it would find a place; null for none within a fortnight.</param>
/// <param name="MinutesShort">Minutes of people that are missing on the best day of its window; 0 where minutes are not what is missing.</param>
public sealed record LeftJob(ScheduleJob Job, ScheduleHinder Hinder, int? DaysOutside, int MinutesShort);

/// <summary>What is to be done by whom, and when it can be.</summary>
/// <param name="Jobs">The work.</param>
/// <param name="TeamDays">Teams on days; those without people or minutes are passed over.</param>
/// <param name="Closures">When nobody can work where.</param>
/// <param name="Weather">What the weather of days keeps from being done; days that are not named are fair.</param>
public sealed record ScheduleQuestion(
    IReadOnlyList<ScheduleJob> Jobs,
    IReadOnlyList<TeamDay> TeamDays,
    IReadOnlyList<Closure> Closures,
    IReadOnlyList<WorkWeather> Weather
)
{
    /// <summary>Minutes of people that it takes a team to load for an area, get there and put away (common practice).</summary>
    public const int VisitMinutes = 20;

    /// <summary>Most minutes of one person in one piece of work: a half-day.</summary>
    public const int HalfDay = 240;

    private readonly Dictionary<LocalDate, WorkWeather> _weather = Weather.DistinctBy(w => w.Day).ToDictionary(w => w.Day);

    // What it costs, in minutes: a day off the best one by a share of the work, more after it than before; left undone more than anything.
    private const int EarlyTenths = 1;
    private const int LateTenths = 2;
    private const int LeftTenths = 500;
    private const int LeftAtLeast = 20_000;

    /// <summary>Tasks that a planner has put where they stand: the team and the day, by task.</summary>
    public IReadOnlyDictionary<string, (string TeamId, LocalDate Day)> Pinned { get; init; } =
        new Dictionary<string, (string, LocalDate)>(StringComparer.Ordinal);

    /// <summary>Makes jobs of tasks; what takes more than a half-day of those who do it together is cut into half-days.</summary>
    public static IEnumerable<ScheduleJob> JobsOf(CrewTask task, int minutes)
    {
        int most = HalfDay * Math.Max(1, task.People);
        int pieces = Math.Max(1, (minutes + most - 1) / most);
        for (int i = 0; i < pieces; i++)
            yield return new ScheduleJob(task, (minutes / pieces) + (i < minutes % pieces ? 1 : 0), i)
            {
                Needs = task.People > 1 && task.Kind == TaskKind.Changeover ? Skill.Auger : null,
            };
    }

    /// <summary>True where a team can do it on its day, as far as the day alone is concerned.</summary>
    public bool Fits(ScheduleJob job, TeamDay at) => IsWanted(job, at) && IsAble(job, at) && job.Minutes + VisitMinutes <= at.Minutes;

    /// <summary>What it costs to do it on a day, in tenths of minutes.</summary>
    public static long CostOn(ScheduleJob job, LocalDate day)
    {
        int days = Period.DaysBetween(job.Task.Window.Best, day);
        return (long)job.Minutes * (days > 0 ? days * LateTenths : -days * EarlyTenths);
    }

    /// <summary>What it costs to leave it, in tenths of minutes.</summary>
    public static long CostLeft(ScheduleJob job) => LeftAtLeast + ((long)job.Minutes * LeftTenths);

    /// <summary>What a visit costs, in tenths of minutes.</summary>
    public const long CostOfVisit = VisitMinutes * 10;

    /// <summary>Why work finds no place beside what is placed, and what would help.</summary>
    public LeftJob Why(ScheduleJob job, IReadOnlyDictionary<TeamDay, int> minutesLeft)
    {
        List<TeamDay> worked = [.. TeamDays.Where(t => t.People > 0 && IsWanted(job, t) && IsOpen(job, t.Day))];
        List<TeamDay> inWindow = [.. worked.Where(t => IsFair(job, t.Day))];
        ScheduleHinder hinder =
            worked.Count == 0 ? ScheduleHinder.NoDay
            : inWindow.Count == 0 ? ScheduleHinder.Weather
            : !inWindow.Exists(t => t.People >= job.Task.People) ? ScheduleHinder.TooFewPeople
            : !inWindow.Exists(t => IsAble(job, t)) ? ScheduleHinder.NoSkill
            : ScheduleHinder.NoTime;
        int wanted = job.Minutes + VisitMinutes;
        int Left(TeamDay t) => minutesLeft.GetValueOrDefault(t, t.Minutes);
        int? outside = TeamDays
            .Where(t => !job.Task.Window.Holds(t.Day) && IsAble(job, t) && Left(t) >= wanted)
            .Select(t =>
                (int?)(
                    t.Day < job.Task.Window.NotBefore
                        ? Period.DaysBetween(job.Task.Window.NotBefore, t.Day)
                        : Period.DaysBetween(job.Task.Window.NotAfter, t.Day)
                )
            )
            .Where(d => Math.Abs(d!.Value) <= 14)
            .MinBy(d => Math.Abs(d!.Value));
        int missing = hinder == ScheduleHinder.NoTime ? wanted - inWindow.Where(t => IsAble(job, t)).Max(Left) : 0;
        return new LeftJob(job, hinder, outside, Math.Max(0, missing));
    }

    // Where somebody has put it, or within its window where nobody has.
    private bool IsWanted(ScheduleJob job, TeamDay at) =>
        Pinned.TryGetValue(job.Task.Id, out (string TeamId, LocalDate Day) pin) ? pin == (at.TeamId, at.Day) : job.Task.Window.Holds(at.Day);

    private bool IsAble(ScheduleJob job, TeamDay at) =>
        at.People >= job.Task.People && (job.Needs is not { } skill || at.Skills.Contains(skill)) && IsOpen(job, at.Day) && IsFair(job, at.Day);

    private bool IsOpen(ScheduleJob job, LocalDate day) => !Closures.Any(c => c.Closes(job.Task.AreaId, day));

    private bool IsFair(ScheduleJob job, LocalDate day) => !(_weather.TryGetValue(day, out WorkWeather? weather) && weather.Keeps(job));
}

/// <summary>Who does what when.</summary>
/// <param name="Question">What was asked.</param>
/// <param name="Placed">Work with the team and day that does it.</param>
/// <param name="Unplaced">Work that finds no place.</param>
public sealed record Schedule(ScheduleQuestion Question, IReadOnlyList<(ScheduleJob Job, TeamDay At)> Placed, IReadOnlyList<ScheduleJob> Unplaced)
{
    /// <summary>What it costs in all, in tenths of minutes: days off the best, visits, work left.</summary>
    public long Cost =>
        Placed.Sum(p => ScheduleQuestion.CostOn(p.Job, p.At.Day))
        + (Visits(Placed).Count() * ScheduleQuestion.CostOfVisit)
        + Unplaced.Sum(ScheduleQuestion.CostLeft);

    /// <summary>The arithmetic behind its cost.</summary>
    public Working Explain() =>
        new(
            WorkingKind.CrewSchedule,
            Quantity.Hours(Cost / 600.0, 1),
            [],
            [
                new Fact(
                    WorkingPhrase.ScheduleStep,
                    ("off", Quantity.Number(Placed.Sum(p => ScheduleQuestion.CostOn(p.Job, p.At.Day)) / 10.0)),
                    ("visits", Quantity.Number(Visits(Placed).Count() * ScheduleQuestion.CostOfVisit / 10.0)),
                    ("left", Quantity.Number(Unplaced.Sum(ScheduleQuestion.CostLeft) / 10.0))
                ),
            ]
        );

    /// <summary>Minutes that each team has left on each day.</summary>
    public IReadOnlyDictionary<TeamDay, int> MinutesLeft =>
        Question.TeamDays.ToDictionary(
            t => t,
            t =>
            {
                List<(ScheduleJob Job, TeamDay At)> here = [.. Placed.Where(p => p.At == t)];
                return t.Minutes - here.Sum(p => p.Job.Minutes) - (Visits(here).Count() * ScheduleQuestion.VisitMinutes);
            }
        );

    /// <summary>What was left, why, and what would help.</summary>
    public IReadOnlyList<LeftJob> Left
    {
        get
        {
            IReadOnlyDictionary<TeamDay, int> left = MinutesLeft;
            return [.. Unplaced.Select(j => Question.Why(j, left))];
        }
    }

    /// <summary>Every fault of it: work that nobody could do where it stands, and teams with more than they can do.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        foreach ((ScheduleJob job, TeamDay at) in Placed)
        {
            if (!Question.Fits(job, at))
                faults.Add(job.Task.Id, $"cannot be done by {at.TeamId} on {at.Day}");
        }
        foreach ((TeamDay at, int left) in MinutesLeft)
        {
            if (left < 0)
                faults.Add(at.TeamId, $"has {-left} minutes too many on {at.Day}");
        }
        return faults.Faults;
    }

    // An area that a team goes to on a day, whatever it does there.
    private static IEnumerable<(TeamDay, string?)> Visits(IEnumerable<(ScheduleJob Job, TeamDay At)> placed) =>
        placed.Select(p => (p.At, p.Job.Task.AreaId)).Distinct();
}

/// <summary>What moving some work by hand did to the rest of a schedule.</summary>
/// <param name="Moved">Tasks that go elsewhere for it, those that were moved themselves not among them.</param>
/// <param name="NowLeft">Tasks that find no place any more.</param>
/// <param name="NowPlaced">Tasks that find one now.</param>
/// <param name="CostMinutes">What it costs more in all, minutes: days off the best, visits, work left; less than 0 where it is better.</param>
public sealed record ScheduleChange(
    IReadOnlyList<CrewTask> Moved,
    IReadOnlyList<CrewTask> NowLeft,
    IReadOnlyList<CrewTask> NowPlaced,
    long CostMinutes
)
{
    /// <summary>Compares two schedules of the same work.</summary>
    /// <param name="before">Before.</param>
    /// <param name="after">After.</param>
    /// <param name="byHand">Ids of tasks that were moved by hand.</param>
    public static ScheduleChange Between(Schedule before, Schedule after, IReadOnlyCollection<string> byHand)
    {
        Dictionary<(string, int), (string, LocalDate)> was = Places(before);
        Dictionary<(string, int), (string, LocalDate)> now = Places(after);
        List<ScheduleJob> jobs = [.. after.Question.Jobs.Where(j => !byHand.Contains(j.Task.Id))];
        IReadOnlyList<CrewTask> Which(Func<(string, int), bool> holds) =>
            [.. jobs.Where(j => holds((j.Task.Id, j.Piece))).Select(j => j.Task).DistinctBy(t => t.Id)];
        return new ScheduleChange(
            Which(k => was.TryGetValue(k, out var a) && now.TryGetValue(k, out var b) && a != b),
            [
                .. after
                    .Question.Jobs.Where(j => was.ContainsKey((j.Task.Id, j.Piece)) && !now.ContainsKey((j.Task.Id, j.Piece)))
                    .Select(j => j.Task)
                    .DistinctBy(t => t.Id),
            ],
            Which(k => !was.ContainsKey(k) && now.ContainsKey(k)),
            (after.Cost - before.Cost) / 10
        );

        static Dictionary<(string, int), (string, LocalDate)> Places(Schedule schedule) =>
            schedule.Placed.ToDictionary(p => (p.Job.Task.Id, p.Job.Piece), p => (p.At.TeamId, p.At.Day));
    }
}
