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
public sealed class ScheduleModel(PageFrame frame, CrewDesk desk, SupplyDesk supply, JobDesk jobs, Visitor visitor) : PageModel
{
    private const int UsualDays = 15;

    [BindProperty(SupportsGet = true, Name = "from")]
    public string? FromText { get; set; }

    [BindProperty(SupportsGet = true, Name = "days")]
    public int? DaysAsked { get; set; }

    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>What a planner has put where it stands: "task|team|day" each.</summary>
    [BindProperty(SupportsGet = true, Name = "pin[]")]
    public List<string> Pins { get; set; } = [];

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

    public string Here =>
        $"/work/schedule?from={Words.Iso(First)}&days={Days}{string.Concat(Pins.Select(p => $"&pin[]={Uri.EscapeDataString(p)}"))}";

    /// <summary>What a team is called.</summary>
    public string TeamName(string id) => Roster.Teams.FirstOrDefault(t => t.Id == id)?.Name ?? id;

    public async Task<IActionResult> OnGetAsync()
    {
        ScheduleAsk ask = await Ask();
        (Job, Result, IsOfNow) = await jobs.Look<ScheduleAsk, ScheduleResult>(JobKinds.Schedule, ask, Now, JobId);
        Schedule = IsOfNow ? Result?.Over(Question) : null;
        return Page();
    }

    /// <summary>Has the work placed.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostAsync() => Act(AskAnew);

    /// <summary>Puts a task where it is wanted, and has the rest placed around it.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostPinAsync(string? task, string? place) =>
        Act(async () =>
        {
            Pins.RemoveAll(p => p.StartsWith($"{task}|", StringComparison.Ordinal));
            if (!string.IsNullOrEmpty(place))
                Pins.Add($"{task}|{place}");
            return await AskAnew();
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

    private async Task<IActionResult> AskAnew()
    {
        if (Roster.Teams.Count == 0)
            throw new InvalidInputException(string.Empty, "There is no team yet: say first who goes out together");
        Job asked = await jobs.Ask(JobKinds.Schedule, await Ask(), Now, PageFrame.Asker(HttpContext));
        return Redirect($"{Here}&job={asked.Id}");
    }

    private async Task<IActionResult> Act(Func<Task<IActionResult>> act)
    {
        await Ask();
        return await frame.Saving(this, _ => null, act);
    }

    private async Task<ScheduleAsk> Ask()
    {
        Now = await frame.Now();
        People = await desk.Members();
        First = Words.ReadDay(FromText) ?? frame.Today;
        Days = Math.Clamp(DaysAsked ?? UsualDays, 1, ScheduleAsk.MostDays);
        (Roster, _) = await desk.Store.Roster();
        var ask = new ScheduleAsk(First, Days, [.. Pins.Select(Read).OfType<SchedulePin>()], string.Empty);
        var orders = (await supply.Supply()).Accounts;
        var given = (await desk.Store.Between(ask.From, ask.Last)).Select(k => k.Account).ToList();
        IReadOnlyList<(CrewTask, int)> tasks = ask.Tasks(Now.Plan, orders, given);
        ask = ask with { Mark = ScheduleAsk.MarkOf(tasks, Roster) };
        Question = ask.Question(tasks, Roster, ask.NoPlanting(Now));
        return ask;
    }

    private static SchedulePin? Read(string pin) =>
        pin.Split('|') is [var task, var team, var day] && Words.ReadDay(day) is { } on ? new SchedulePin(task, team, on) : null;
}
