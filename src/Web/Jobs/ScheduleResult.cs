using System.Security.Cryptography;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Solver;

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
/// <param name="Weather">The weather of the days, as it was known when it was asked.</param>
/// <param name="Mark">What stands for the work and the people that it is asked of (<see cref="MarkOf"/>).</param>
public sealed record ScheduleAsk(LocalDate First, int Days, IReadOnlyList<SchedulePin> Pins, IReadOnlyList<WorkWeather> Weather, string Mark)
    : INamesItsInputs
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

    /// <summary>The question in full: what nobody has yet, done by teams beside what they have already.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="wanted">Tasks from <see cref="From"/> to <see cref="Last"/>.</param>
    /// <param name="given">What was given for these days.</param>
    /// <param name="roster">Who there is.</param>
    public ScheduleQuestion Question(Plan plan, IReadOnlyList<CrewTask> wanted, IReadOnlyList<TaskAccount> given, Roster roster)
    {
        LabourTable labour = plan.Records.Labour;
        Dictionary<LocalDate, WorkWeather> weather = Weather.ToDictionary(w => w.Day);
        ILookup<LocalDate, (IReadOnlyList<Guid> To, int Minutes)> taken = given
            .Where(a => a.Given.Stage == GivenStage.Given)
            .ToLookup(a => a.Given.Day, a => (a.Given.To, a.Given.Asked.MinutesBy(labour)));
        return new ScheduleQuestion(
            [
                .. WorkItem
                    .Of(wanted, given)
                    .Where(i => i.IsOpen && (i.Account is null || i.Account.Given.To.Count == 0) && i.Task.Window.NotAfter >= First)
                    .Select(i => i.Task)
                    .OrderBy(t => t.Window.Best)
                    .ThenBy(t => t.Id, StringComparer.Ordinal)
                    .Take(MostTasks)
                    .SelectMany(t => ScheduleQuestion.JobsOf(t, t.MinutesBy(labour)))
                    .Select(j => j.At(plan)),
            ],
            [
                .. Enumerable
                    .Range(0, Days)
                    .Select(d => First.PlusDays(d))
                    .SelectMany(day => roster.Teams.Select(t => roster.On(t, day, weather.GetValueOrDefault(day), taken[day]))),
            ],
            roster.Closures,
            Weather
        )
        {
            Pinned = Pins.GroupBy(p => p.TaskId, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => (g.Last().TeamId, g.Last().Day), StringComparer.Ordinal),
        };
    }

    /// <summary>What stands for the work and the people of a question: another as soon as any of it changes.</summary>
    public static string MarkOf(ScheduleQuestion question) =>
        Convert.ToHexString(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join(
                        '\n',
                        question
                            .Jobs.Select(j =>
                                $"{j.Task.Id} {j.Task.Mark} {j.Task.Window} {j.Task.AreaId} {j.Task.People} {j.Minutes} {j.IsInBed} {j.IsTall}"
                            )
                            .Concat(question.TeamDays.Select(t => $"{t.TeamId} {t.Day:R} {t.People} {t.Minutes} {string.Join(' ', t.Skills)}"))
                            .Concat(question.Closures.Select(c => $"{c.First:R} {c.Last:R} {c.AreaId}"))
                    )
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
        Dictionary<TeamDay, int> days = question.TeamDays.Select((t, i) => (t, i)).ToDictionary(x => x.t, x => x.i);
        Dictionary<(string, int), int> at = answer.Schedule.Placed.ToDictionary(p => (p.Job.Task.Id, p.Job.Piece), p => days[p.At]);
        return new ScheduleResult(
            [.. question.Jobs.Select((j, i) => new SchedulePlace(i, at.GetValueOrDefault((j.Task.Id, j.Piece), -1)))],
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
