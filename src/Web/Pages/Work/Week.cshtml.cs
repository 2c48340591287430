using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>A week's work on one landscape page, for the wall: teams down, days across.</summary>
[Needs(SiteRole.Guest)]
public sealed class WeekModel(PageFrame frame, CrewDesk desk, SupplyDesk supply) : PageModel
{
    // So many planters are named in one field of the page; of more, the area is named with how many.
    private const int MostNames = 7;

    [BindProperty(SupportsGet = true, Name = "from")]
    public string? FromText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate First { get; private set; }

    /// <summary>Days of the week on which somebody works or something is due.</summary>
    public IReadOnlyList<LocalDate> Days { get; private set; } = [];

    public Roster Roster { get; private set; } = Roster.None;

    /// <summary>Who works: teams, and people who are in none, with what they have by day.</summary>
    public IReadOnlyList<(string Who, ILookup<LocalDate, KeptTask> Work)> Rows { get; private set; } = [];

    public IReadOnlyList<WorkWeather> Weather { get; private set; } = [];

    public int Tasks { get; private set; }

    /// <summary>What is on at the site on a day, beside the crew's work.</summary>
    public IReadOnlyList<string> On(LocalDate day) => [.. _on[day]];

    private ILookup<LocalDate, string> _on = Array.Empty<(LocalDate, string)>().ToLookup(x => x.Item1, x => x.Item2);

    /// <summary>Work of one field in lines: an area with its planters, or with how many where they are many.</summary>
    public IEnumerable<string> Lines(IEnumerable<KeptTask> work)
    {
        List<KeptTask> all = [.. work.OrderBy(w => w.Given.Place)];
        foreach (IGrouping<string?, KeptTask> area in all.GroupBy(w => w.Given.Asked.AreaId))
        {
            string? name = Now.Plan.Areas.FirstOrDefault(a => a.Id == area.Key)?.Name;
            List<string> places = [.. area.Select(Called)];
            string said = all.Count > MostNames && places.Count > 2 ? Words.Count(places.Count, "task", "tasks") : string.Join(", ", places);
            yield return name is null ? said : $"{name}: {said}";
        }
    }

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        LocalDate from = Words.ReadDay(FromText) ?? frame.Today;
        First = from.PlusDays(1 - (int)from.DayOfWeek);
        LocalDate last = First.PlusDays(6);
        (Roster, _) = await desk.Store.Roster();
        IReadOnlyList<SiteMember> members = await desk.Members();
        List<KeptTask> given =
        [
            .. (await desk.Store.Between(First, last)).Where(k =>
                k.Given.Day >= First && k.Given.Day <= last && k.Given.Stage != GivenStage.Withdrawn
            ),
        ];
        Tasks = given.Count;
        Rows =
        [
            .. Roster.Teams.Select(t => (t.Name, given.Where(k => Roster.TeamOf(k.Given.To) == t).ToLookup(k => k.Given.Day))),
            .. given
                .Where(k => Roster.TeamOf(k.Given.To) is null)
                .GroupBy(k => string.Join(", ", k.Given.To.Select(p => members.FirstOrDefault(m => m.Id == p)?.Name ?? "somebody who left")))
                .OrderBy(g => g.Key, StringComparer.CurrentCulture)
                .Select(g => (g.Key.Length == 0 ? "nobody yet" : g.Key, g.ToLookup(k => k.Given.Day))),
        ];
        Weather = [.. (await desk.Weather(First, 7, Roster.HeatLimitC)).Where(w => w.Hinders.Count > 0)];
        IReadOnlyList<OrderAccount> orders = (await supply.Supply()).Accounts;
        _on = Enumerable
            .Range(0, 7)
            .Select(d => First.PlusDays(d))
            .SelectMany(day =>
                Now.Plan.Turns.Where(t => t.Holds(day))
                    .Select(t => t.Name)
                    .Concat(Now.Plan.Events.Where(e => e.FirstDay <= day && day <= e.LastDay).Select(e => e.Name))
                    .Concat(
                        orders
                            .Select(o => CrewTasks.Of(o))
                            .OfType<CrewTask>()
                            .Where(t => t.Window.Best == day)
                            .Select(t => $"delivery from {t.Place}")
                    )
                    .Concat(
                        Roster
                            .Closures.Where(c => c.First <= day && day <= c.Last)
                            .Select(c => $"{Now.Plan.Areas.FirstOrDefault(a => a.Id == c.AreaId)?.Name ?? "all"} closed: {c.Why}")
                    )
                    .Select(said => (day, said))
            )
            .ToLookup(x => x.day, x => x.said);
        HashSet<string> turns = [.. Now.Plan.Turns.Select(t => t.Name)];
        // The weekend is there only where something but a turn is on it.
        Days =
        [
            .. Enumerable
                .Range(0, 7)
                .Select(d => First.PlusDays(d))
                .Where(d => (int)d.DayOfWeek <= 5 || given.Exists(k => k.Given.Day == d) || _on[d].Except(turns).Any()),
        ];
    }

    private string Called(KeptTask task) =>
        (task.Given.Asked.Place.Length > 0 ? task.Given.Asked.Place : frame.Facts.Say(task.Given.Asked.Kind))
        + (task.Given.Stage == GivenStage.Done ? " (done)" : string.Empty);
}
