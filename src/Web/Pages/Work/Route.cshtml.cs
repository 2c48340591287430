using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>What goes on which vehicle for a day's work, from where in the holding area, and in what order stops are gone to.</summary>
[Needs(SiteRole.Guest)]
public sealed class RouteModel(PageFrame frame, CrewDesk desk, JobDesk jobs, Visitor visitor) : PageModel
{
    // Work of people who are in no team.
    private const string NoTeam = "none";

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true, Name = "team")]
    public string? TeamId { get; set; }

    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate Day { get; private set; }

    public Roster Roster { get; private set; } = Roster.None;

    /// <summary>Teams that have open work on the day, with how many tasks.</summary>
    public IReadOnlyList<(string Id, string Name, int Tasks)> Teams { get; private set; } = [];

    /// <summary>The team that is looked at; null for people in no team.</summary>
    public Team? Team { get; private set; }

    public Vehicle Vehicle => Roster.VehicleOf(Team);

    /// <summary>The team's open work of the day.</summary>
    public IReadOnlyList<KeptTask> Tasks { get; private set; } = [];

    /// <summary>Tasks whose place nobody knows: they are in no trip.</summary>
    public IReadOnlyList<KeptTask> Nowhere { get; private set; } = [];

    public IReadOnlyList<Pick> Picks { get; private set; } = [];

    public Load Load { get; private set; } = Load.None;

    public MapPlace? Yard { get; private set; }

    public Job? Job { get; private set; }

    public RouteResult? Result { get; private set; }

    public bool MayGive => visitor.May(SiteRole.Lead);

    public string Here => $"/work/route?day={Words.Iso(Day)}&team={Uri.EscapeDataString(TeamId ?? string.Empty)}";

    /// <summary>The way of the trips, for the drawing.</summary>
    public IReadOnlyList<IReadOnlyList<MapPoint>> Ways { get; private set; } = [];

    /// <summary>A task of the day.</summary>
    public CrewTask TaskOf(string id) => Tasks.First(t => t.Given.Asked.Id == id).Given.Asked;

    public async Task OnGetAsync()
    {
        if (await Ask() is not { } ask)
            return;
        (Job, RouteResult? result, bool isOfNow) = await jobs.Look<RouteAsk, RouteResult>(JobKinds.Route, ask, Now, JobId);
        Result = isOfNow ? result : null;
        if (Result is null || Yard is not { } yard)
            return;
        Ways = await frame.Soon(frame.State.Derived<IReadOnlyList<IReadOnlyList<MapPoint>>>(Now, ("route ways", Job!.Id), n =>
            {
                var ways = new WalkingWays(n.Plan.Map);
                return
                [
                    .. Result.Trips.Select(t =>
                        (IReadOnlyList<MapPoint>)
                            [
                                .. t
                                    .Stops.Select(s => s.Place)
                                    .Prepend(yard)
                                    .Zip(t.Stops.Select(s => s.Place).Append(yard))
                                    .SelectMany(leg => ways.Way(leg.First, leg.Second)),
                            ]
                    ),
                ];
            }));
    }

    /// <summary>Has the stops put into order.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostAsync() =>
        Act(async ask =>
        {
            // A load that no vehicle takes is refused here, where it can be mended.
            ask.Question(Now.Plan);
            Job asked = await jobs.Ask(JobKinds.Route, ask, Now, PageFrame.Asker(HttpContext));
            return Redirect($"{Here}&job={asked.Id}");
        });

    /// <summary>Has the sheets follow the order.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostFollowAsync() =>
        Act(async ask =>
        {
            (Job, RouteResult? result, bool isOfNow) = await jobs.Look<RouteAsk, RouteResult>(JobKinds.Route, ask, Now, JobId);
            if (result is null || !isOfNow)
                throw new InvalidInputException(string.Empty, "The work has changed since the stops were put into order: do it again");
            var ids = Tasks.ToDictionary(t => t.Given.Asked.Id, t => t.Given.Id);
            await desk.Store.Order([.. result.Order.Select(o => ids[o]), .. Nowhere.Select(t => t.Given.Id)]);
            TempData["Said"] = "The sheets of the day follow this order.";
            return Redirect(Here);
        });

    private async Task<IActionResult> Act(Func<RouteAsk, Task<IActionResult>> act)
    {
        RouteAsk? ask = await Ask();
        return await frame.Saving(
            this,
            _ => null,
            () => ask is null ? throw new InvalidInputException(string.Empty, "Nothing that can be driven to is given for this day") : act(ask)
        );
    }

    private async Task<RouteAsk?> Ask()
    {
        Now = await frame.Now();
        Day = Words.ReadDay(DayText) ?? frame.Today;
        (Roster, _) = await desk.Store.Roster();
        List<KeptTask> given = [.. (await desk.Of(Day)).Where(t => t.Kept is { } k && k.Given.Day == Day && t.Item.IsOpen).Select(t => t.Kept!)];
        List<(string Id, KeptTask Task)> byTeam = [.. given.Select(t => (Roster.TeamOf(t.Given.To)?.Id ?? NoTeam, t))];
        Teams =
        [
            .. Roster
                .Teams.Select(t => (t.Id, t.Name))
                .Append((NoTeam, "in no team"))
                .Select(t => (t.Item1, t.Item2, byTeam.Count(x => x.Id == t.Item1)))
                .Where(t => t.Item3 > 0),
        ];
        if (!Teams.Any(t => t.Id == TeamId))
            TeamId = Teams.Count == 0 ? null : Teams[0].Id;
        Team = Roster.Teams.FirstOrDefault(t => t.Id == TeamId);
        Tasks = [.. byTeam.Where(x => x.Id == TeamId).Select(x => x.Task)];
        Yard = RoutePlaces.Yard(Now.Plan, Roster);
        var stops = new List<RouteStop>();
        var nowhere = new List<KeptTask>();
        foreach (KeptTask task in Tasks)
        {
            Load load = Load.Of(task.Given.Asked, Now.Plan);
            Load += load;
            if (RoutePlaces.Of(Now.Plan, task.Given.Asked) is { } place)
                stops.Add(new RouteStop(task.Given.Asked.Id, place, load));
            else
                nowhere.Add(task);
        }
        Nowhere = nowhere;
        Picks = await desk.Picks([.. Tasks.Select(t => t.Given.Asked)]);
        return stops.Count == 0 || Yard is not { } yard ? null : new RouteAsk(Vehicle, yard, stops, RouteAsk.MarkOf(Now.Plan));
    }
}
