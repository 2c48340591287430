using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Site;

/// <summary>A task of a day with how it is kept.</summary>
/// <param name="Item">The task.</param>
/// <param name="Kept">As it was given; null where nobody was given it.</param>
public sealed record DayTask(WorkItem Item, KeptTask? Kept)
{
    /// <summary>What is asked.</summary>
    public CrewTask Task => Item.Task;

    /// <summary>How far it is; null where nobody was given it.</summary>
    public TaskAccount? Account => Kept?.Account;

    /// <summary>Lines that were done otherwise than asked, and stand so until a planner has seen them.</summary>
    public IReadOnlyList<LineState> Differing =>
        Kept is { IsSettled: false } && Account is { State: TaskState.Done } account
            ?
            [
                .. account.Lines.Where(l =>
                    l.Line.Kind is LineKind.In or LineKind.Out && (l.Missing > 0 || l.Done > l.Line.Count || l.CameAs is not null)
                ),
            ]
            : [];

    /// <summary>True where somebody has to look at it: it was done otherwise, left, told twice over, or the plan has moved.</summary>
    public bool IsToSee =>
        Differing.Count > 0
        || Item.Difference is not null
        || Kept is { Refused: not null, IsSettled: false }
        || Account is { State: TaskState.NotDone }
        || (Kept is { IsSettled: false } && (Account?.Lines.Any(l => l.Disagrees) ?? false));
}

/// <summary>What the crew's pages read, each thing computed once: tasks of a day, who has them, how far they are.</summary>
/// <param name="frame">The page's frame.</param>
/// <param name="site">The site.</param>
/// <param name="supply">Orders.</param>
/// <param name="store">Tasks that were given.</param>
/// <param name="people">People of the site.</param>
/// <param name="live">What a live station expects.</param>
/// <param name="care">What planters ask for between turns.</param>
public sealed class CrewDesk(PageFrame frame, CurrentSite site, SupplyDesk supply, CrewStore store, PeopleStore people, LiveStore live, CareDesk care)
{
    // What was to be done so many days ago and nobody has told of is still asked.
    private const int LeftDays = 21;

    private IReadOnlyList<SiteMember>? _members;

    /// <summary>The store.</summary>
    public CrewStore Store => store;

    /// <summary>People who do the day's work, by name.</summary>
    public async Task<IReadOnlyList<SiteMember>> Members() =>
        _members ??= [
            .. (await people.Of(site.Memory.Database.Site)).Where(m => m.Role >= SiteRole.Crew).OrderBy(m => m.Name, StringComparer.CurrentCulture),
        ];

    /// <summary>Tasks that follow from the plan and from orders between two days, both included.</summary>
    public async Task<IReadOnlyList<CrewTask>> Wanted(LocalDate first, LocalDate last)
    {
        SiteNow now = await frame.Now();
        IReadOnlyList<CrewTask> planned = await frame.Soon(
            frame.State.Derived<IReadOnlyList<CrewTask>>(now, ("tasks", first, last), n => CrewTasks.Between(n.Plan, [], first, last))
        );
        return
        [
            .. planned,
            .. (await supply.Supply())
                .Accounts.Select(a => CrewTasks.Of(a))
                .OfType<CrewTask>()
                .Where(t => first <= t.Window.Best && t.Window.Best <= last),
            .. (await Care()).Where(t => first <= t.Window.Best && t.Window.Best <= last),
        ];
    }

    // What a lead asks of the crew between turns: of today and this week. It is never left out because it takes a moment.
    private async Task<IReadOnlyList<CrewTask>> Care()
    {
        IReadOnlyList<CareWork> asked = (await store.Roster()).Roster.Asked;
        return asked.Count > 0 ? (await frame.Soon(care.Now())).Tasks(asked) : [];
    }

    /// <summary>What is taken from where for some tasks.</summary>
    public async Task<IReadOnlyList<Pick>> Picks(IReadOnlyList<CrewTask> tasks)
    {
        SiteNow now = await frame.Now();
        return await frame.Soon(
            frame.State.Derived(now, ("picks", string.Join(' ', tasks.Select(t => $"{t.Id} {t.Mark}"))), n => PickList.Of(n.Plan, tasks))
        );
    }

    /// <summary>What the weather of some days keeps the crew from: by the live station's forecast as far as it reaches, by most years beyond.</summary>
    public async Task<IReadOnlyList<WorkWeather>> Weather(LocalDate first, int days, double heatLimitC)
    {
        SiteNow now = await frame.Now();
        (LiveReading? heard, IReadOnlyList<LiveDay> told) = await live.Load();
        bool counts = heard is not null && (now.Record is null || heard.IsNear(now.Record.Station));
        List<DayForecast> forecast =
        [
            .. told.Where(d => counts && d.Forecast && d.Day >= frame.Today)
                .Select(d => new DayForecast(d.Day, d.MinC, d.MaxC, d.PrecipitationMm, d.WindMs)),
        ];
        return await frame.Soon(
            frame.State.Derived(now, ("work weather", first, days, heatLimitC, string.Join(' ', forecast)), n =>
                WorkWeather.Of(n.Record, forecast, first, days, heatLimitC)
            )
        );
    }

    /// <summary>
    /// Tasks that stand for a day: those given for it, those still open from before, and those that the plan wants on it or in days around
    /// it within their window.
    /// </summary>
    /// <param name="day">The day.</param>
    public async Task<IReadOnlyList<DayTask>> Of(LocalDate day)
    {
        SiteNow now = await frame.Now();
        LocalDate first = day.PlusDays(-LeftDays);
        LocalDate last = now.Plan.Turns.Where(t => t.Holds(day)).Select(t => t.LastDay).Append(day.PlusDays(3)).Max();
        IReadOnlyList<CrewTask> wanted = await Wanted(first, last);
        // Of a day in the past or to come, what is open today stands on today's.
        IReadOnlyList<KeptTask> kept = await store.Between(first, last);
        var byId = kept.ToDictionary(k => k.Given.Id);
        // What moved out of the days that are looked at is asked after one by one.
        IEnumerable<CrewTask> moved = kept.Where(k =>
                k.Given.Stage == GivenStage.Given && k.Given.Asked.Window.Best is var best && (best < first || best > last)
            )
            .Select(k => Now(now.Plan, k.Given.Asked))
            .OfType<CrewTask>();
        IReadOnlyList<WorkItem> items = WorkItem.Of([.. wanted, .. moved], [.. kept.Select(k => k.Account)]);
        return
        [
            .. items
                .Select(i => new DayTask(i, i.Account is { } a ? byId[a.Given.Id] : null))
                .Where(t =>
                    t.Kept is { } given
                        ? given.Given.Day == day
                            || (given.Given.Day < day && given.Given.Stage == GivenStage.Given)
                            || (t.IsToSee && given.Given.Day < day)
                        : t.Task.Window.Best <= day || t.Task.Window.Holds(day)
                )
                .OrderBy(t => t.Kept?.Given.Place ?? 0)
                .ThenBy(t => t.Task.Window.Best),
        ];
    }

    /// <summary>What the plan wants now of a task that was given; null where it wants it no more.</summary>
    public static CrewTask? Now(Plan plan, CrewTask asked) =>
        plan.FindPlanter(asked.PlanterId) is { } planter
        && Changeover.Of(plan, planter).FirstOrDefault(c => CrewTasks.IdOf(planter.Id, c.Day) == asked.Id) is { } change
            ? CrewTasks.Of(plan, change)
            : null;
}
