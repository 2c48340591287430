using System.Security.Cryptography;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>A task that a planner has put where it stands.</summary>
/// <param name="TaskId">The task.</param>
/// <param name="TeamId">The team.</param>
/// <param name="Day">The day.</param>
public sealed record SchedulePin(string TaskId, string TeamId, LocalDate Day);

/// <summary>Asks who does what when.</summary>
/// <param name="First">The first day.</param>
/// <param name="Days">How many days.</param>
/// <param name="Pins">What stands already.</param>
/// <param name="Mark">What stands for the tasks and the roster that it is asked of.</param>
public sealed record ScheduleAsk(LocalDate First, int Days, IReadOnlyList<SchedulePin> Pins, string Mark) : INamesItsInputs
{
    /// <summary>Most days of one schedule.</summary>
    public const int MostDays = 31;

    /// <summary>Most tasks of one schedule.</summary>
    public const int MostTasks = 2000;

    // What was to be done so many days before and nobody has told of is placed too.
    private const int LeftDays = 21;

    /// <summary>The first day from which work is left.</summary>
    public LocalDate From => First.PlusDays(-LeftDays);

    /// <summary>The last day.</summary>
    public LocalDate Last => First.PlusDays(Days - 1);

    /// <summary>What is to be placed: what nobody has yet, and what is open of what was written down for nobody.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="orders">Orders with what came of them.</param>
    /// <param name="given">What was given.</param>
    public IReadOnlyList<(CrewTask Task, int Minutes)> Tasks(Plan plan, IReadOnlyList<OrderAccount> orders, IReadOnlyList<TaskAccount> given) =>
        [
            .. WorkItem
                .Of(CrewTasks.Between(plan, orders, From, Last), given)
                .Where(i => i.IsOpen && (i.Account is null || i.Account.Given.To.Count == 0) && i.Task.Window.NotAfter >= First)
                .Select(i => (i.Task, i.Task.MinutesBy(plan.Records.Labour))),
        ];

    /// <summary>Days on which the ground is frozen in most years, so that nothing is planted.</summary>
    public IReadOnlySet<LocalDate> NoPlanting(SiteNow now) => new HashSet<LocalDate>();

    /// <summary>The question in full.</summary>
    /// <param name="tasks">Tasks that are to be placed, with the minutes that they take.</param>
    /// <param name="roster">Who there is.</param>
    /// <param name="noPlanting">Days on which nothing goes into the ground.</param>
    public ScheduleQuestion Question(IReadOnlyList<(CrewTask Task, int Minutes)> tasks, Roster roster, IReadOnlySet<LocalDate> noPlanting)
    {
        List<TeamDay> days = [.. Enumerable.Range(0, Days).SelectMany(d => roster.Teams.Select(t => roster.On(t, First.PlusDays(d))))];
        return new ScheduleQuestion(
            [.. tasks.Take(MostTasks).SelectMany(t => ScheduleQuestion.JobsOf(t.Task, t.Minutes))],
            days,
            roster.Closures,
            noPlanting
        )
        {
            Pinned = Pins.GroupBy(p => p.TaskId, StringComparer.Ordinal).ToDictionary(g => g.Key, g => (g.Last().TeamId, g.Last().Day), StringComparer.Ordinal),
        };
    }

    /// <summary>What stands for tasks and a roster: another as soon as any of it changes.</summary>
    public static string MarkOf(IReadOnlyList<(CrewTask Task, int Minutes)> tasks, Roster roster) =>
        Convert.ToHexString(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join('\n', tasks.Select(t => $"{t.Task.Id} {t.Task.Mark} {t.Task.Window} {t.Minutes}"))
                        + System.Text.Json.JsonSerializer.Serialize(roster, JobJson.Options)
                )
            )
        );
}

/// <summary>A piece of work in a schedule, by its place in the question.</summary>
/// <param name="Job">The piece.</param>
/// <param name="At">The team on its day; less than 0 for none.</param>
public sealed record SchedulePlace(int Job, int At);

/// <summary>Who does what when, as it is kept.</summary>
/// <param name="Places">Pieces of work with their places.</param>
/// <param name="Cost">What it costs in all.</param>
/// <param name="Bound">No schedule costs less; 0 where that is not known yet.</param>
/// <param name="IsBest">True where it is proven that none costs less.</param>
public sealed record ScheduleResult(IReadOnlyList<SchedulePlace> Places, long Cost, long Bound, bool IsBest)
{
    /// <summary>An answer as it is kept.</summary>
    public static ScheduleResult Of(ScheduleAnswer answer)
    {
        ScheduleQuestion question = answer.Schedule.Question;
        Dictionary<ScheduleJob, int> at = answer.Schedule.Placed.ToDictionary(
            p => p.Job,
            p => question.TeamDays.ToList().IndexOf(p.At),
            ReferenceEqualityComparer.Instance as IEqualityComparer<ScheduleJob>
        );
        return new ScheduleResult(
            [.. question.Jobs.Select((j, i) => new SchedulePlace(i, at.GetValueOrDefault(j, -1)))],
            answer.Schedule.Cost,
            answer.Bound,
            answer.IsBest
        );
    }

    /// <summary>The schedule over a question; it must be the one that was asked.</summary>
    public Schedule Over(ScheduleQuestion question) =>
        new(
            question,
            [
                .. Places
                    .Where(p => p.At >= 0 && p.Job < question.Jobs.Count && p.At < question.TeamDays.Count)
                    .Select(p => (question.Jobs[p.Job], question.TeamDays[p.At])),
            ],
            [.. Places.Where(p => p.At < 0 && p.Job < question.Jobs.Count).Select(p => question.Jobs[p.Job])]
        );
}
