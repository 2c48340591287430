using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>Who does what when: days and teams for all that is to be done, what finds no place and what would help, moved by hand and given.</summary>
[Needs(SiteRole.Guest)]
public sealed class ScheduleModel(PageFrame frame, CrewDesk desk, JobDesk jobs, Visitor visitor) : PageModel
{
    private const int UsualDays = 15;
    private const int MostPins = 60;

    [BindProperty(SupportsGet = true, Name = "from")]
    public string? FromText { get; set; }

    [BindProperty(SupportsGet = true, Name = "days")]
    public int? DaysAsked { get; set; }

    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>What a planner has put where it stands: "task|team|day" each.</summary>
    [BindProperty(SupportsGet = true, Name = "pin[]")]
    public List<string> Pins { get; set; } = [];

    /// <summary>The schedule that was looked at before something was moved.</summary>
    [BindProperty(SupportsGet = true, Name = "was")]
    public Guid? WasId { get; set; }

    /// <summary>Tasks that are ticked.</summary>
    [BindProperty(Name = "tasks[]")]
    public List<string> Tasks { get; set; } = [];

    /// <summary>The day of which the work is given.</summary>
    [BindProperty]
    public string? Day { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Roster Roster { get; private set; } = Roster.None;

    public IReadOnlyList<SiteMember> People { get; private set; } = [];

    public LocalDate First { get; private set; }

    public int Days { get; private set; }

    public ScheduleQuestion Question { get; private set; } = null!;

    public Job? Job { get; private set; }

    public ScheduleResult? Result { get; private set; }

    public Schedule? Schedule { get; private set; }

    public bool IsOfNow { get; private set; } = true;

    /// <summary>What the weather of the days keeps the crew from.</summary>
    public IReadOnlyList<WorkWeather> Weather { get; private set; } = [];

    /// <summary>True for those who place and give work.</summary>
    public bool MayGive => visitor.May(SiteRole.Lead);

    /// <summary>What moving by hand did to the rest; null where nothing was moved.</summary>
    public ScheduleChange? Change { get; private set; }

    public string Here => $"/work/schedule?from={Words.Iso(First)}&days={Days}{string.Concat(Pins.Select(p => $"&pin[]={Uri.EscapeDataString(p)}"))}";

    /// <summary>What a team is called.</summary>
    public string TeamName(string id) => Roster.Teams.FirstOrDefault(t => t.Id == id)?.Name ?? id;

    public async Task<IActionResult> OnGetAsync()
    {
        ScheduleAsk ask = await Ask();
        (Job, Result, IsOfNow) = await jobs.Look<ScheduleAsk, ScheduleResult>(JobKinds.Schedule, ask, Now, JobId);
        Schedule = IsOfNow ? Result?.Over(Question) : null;
        if (
            Schedule is { } schedule
            && await jobs.Find(JobKinds.Schedule, WasId) is { } was
            && JobDesk.Question<ScheduleAsk>(was).Mark == ask.Mark
            && jobs.Result<ScheduleResult>(was) is { } before
        )
            Change = ScheduleChange.Between(before.Over(Question), schedule, [.. ask.Pins.Select(p => p.TaskId)]);
        return Page();
    }

    /// <summary>Has the work placed.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostAsync() => Act(() => AskAnew(null));

    /// <summary>Puts what is ticked where it is wanted, and has the rest placed around it.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostPinAsync(string? place) =>
        Act(async () =>
        {
            if (Tasks.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick what is to be put elsewhere");
            Pins.RemoveAll(p => Tasks.Exists(t => p.StartsWith($"{t}|", StringComparison.Ordinal)));
            if (!string.IsNullOrEmpty(place))
                Pins.AddRange(Tasks.Select(t => $"{t}|{place}"));
            if (Pins.Count > MostPins)
                throw new InvalidInputException(string.Empty, $"At most {MostPins} tasks are put by hand: let the others be placed");
            return await AskAnew(JobId);
        });

    /// <summary>Gives a day's work to the teams as it is placed.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostGiveAsync() =>
        Act(async () =>
        {
            ScheduleAsk ask = await Ask();
            (Job, Result, IsOfNow) = await jobs.Look<ScheduleAsk, ScheduleResult>(JobKinds.Schedule, ask, Now, JobId);
            if (Result is null || !IsOfNow || Job is not { IsOver: true } || Words.ReadDay(Day) is not { } day)
                throw new InvalidInputException(string.Empty, "The work has changed since it was placed: place it again");
            Schedule = Result.Over(Question);
            int given = 0;
            foreach (var team in Schedule.Placed.Where(p => p.At.Day == day).GroupBy(p => p.At.TeamId, StringComparer.Ordinal))
            {
                // What is cut into half-days is given with its first.
                List<CrewTask> tasks =
                [
                    .. team.Select(p => p.Job.Task)
                        .DistinctBy(t => t.Id)
                        .Where(t => Schedule.Placed.Where(p => p.Job.Task.Id == t.Id).Min(p => p.At.Day) == day),
                ];
                if (tasks.Count == 0)
                    continue;
                await desk.Store.Give(tasks, day, Roster.Teams.First(t => t.Id == team.Key).Members, visitor.Person?.Id);
                given += tasks.Count;
            }
            if (given == 0)
                throw new InvalidInputException(string.Empty, "Nothing is placed on that day");
            TempData["Said"] = $"{Words.Count(given, "task", "tasks")} given for {Words.Day(day)}.";
            return Redirect($"/work?day={Words.Iso(day)}");
        });

    private async Task<IActionResult> AskAnew(Guid? was)
    {
        if (Roster.Teams.Count == 0)
            throw new InvalidInputException(string.Empty, "There is no team yet: say first who goes out together");
        Job asked = await jobs.Ask(JobKinds.Schedule, await Ask(), Now, PageFrame.Asker(HttpContext));
        return Redirect($"{Here}&job={asked.Id}{(was is null ? null : $"&was={was}")}");
    }

    private async Task<IActionResult> Act(Func<Task<IActionResult>> act)
    {
        ScheduleAsk ask = await Ask();
        return await frame.Saving(
            this,
            _ => null,
            act,
            async () =>
            {
                (Job, Result, IsOfNow) = await jobs.Look<ScheduleAsk, ScheduleResult>(JobKinds.Schedule, ask, Now, JobId);
                Schedule = IsOfNow ? Result?.Over(Question) : null;
            }
        );
    }

    private async Task<ScheduleAsk> Ask()
    {
        Now = await frame.Now();
        People = await desk.Members();
        First = Words.ReadDay(FromText) ?? frame.Today;
        Days = Math.Clamp(DaysAsked ?? UsualDays, 1, ScheduleAsk.MostDays);
        (Roster, _) = await desk.Store.Roster();
        Weather = await desk.Weather(First, Days, Roster.HeatLimitC);
        var ask = new ScheduleAsk(First, Days, [.. Pins.Select(Read).OfType<SchedulePin>()], Weather, string.Empty);
        IReadOnlyList<CrewTask> wanted = await desk.Wanted(ask.From, ask.Last);
        Question = ask.Question(Now.Plan, wanted, [.. (await desk.Store.Between(ask.From, ask.Last)).Select(k => k.Account)], Roster);
        return ask with { Mark = ScheduleAsk.MarkOf(Question) };
    }

    private static SchedulePin? Read(string pin) =>
        pin.Split('|') is [var task, var team, var day] && Words.ReadDay(day) is { } on ? new SchedulePin(task, team, on) : null;
}
