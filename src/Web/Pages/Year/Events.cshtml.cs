using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>Days on which the site must look its best.</summary>
[Needs(SiteRole.Guest)]
public sealed class EventsModel(PageFrame frame, EventStore events) : PageModel
{
    [BindProperty(SupportsGet = true)]
    public string? Id { get; set; }

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? FirstDay { get; set; }

    [BindProperty]
    public string? LastDay { get; set; }

    [BindProperty]
    public long? Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<(SiteEvent Event, EventOutlook? Outlook)> All { get; private set; } = [];

    public async Task OnGetAsync()
    {
        await Load();
        if (Now.Plan.Events.FirstOrDefault(e => e.Id == Id) is { } chosen)
            (Name, FirstDay, LastDay, Version) = (chosen.Name, Words.Iso(chosen.FirstDay), Words.Iso(chosen.LastDay), Now.Versions.Event(chosen.Id));
        else
            Id = null;
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            f =>
                f switch
                {
                    "name" => "Name",
                    "firstDay" => "FirstDay",
                    "lastDay" => "LastDay",
                    _ => null,
                },
            async () =>
            {
                var faults = new FaultList();
                if (Words.ReadDay(FirstDay) is not { } first)
                {
                    faults.Add("firstDay", "must be a date");
                    first = frame.Today;
                }
                LocalDate last = string.IsNullOrWhiteSpace(LastDay) ? first : Words.ReadDay(LastDay) ?? first.PlusDays(-1);
                string name = (Name ?? string.Empty).Trim();
                bool isNew = string.IsNullOrEmpty(Id);
                string id = isNew ? Ids.From($"{name} {first.Year}", x => Now.Plan.Events.Any(e => e.Id == x)) : Id!;
                var what = new SiteEvent(id, name, first, last);
                faults.AddAll(string.Empty, what.Faults());
                faults.ThrowIfAny();
                await events.Save(what, isNew ? null : Version ?? 0);
                TempData["Said"] = $"{name} saved.";
                return Redirect("/year/events");
            },
            Load,
            Compare
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await events.Remove(Id ?? string.Empty, Version ?? 0);
                TempData["Said"] = "The event is removed.";
                return Redirect("/year/events");
            },
            Load,
            Compare
        );
    }

    private IReadOnlyList<FormDifference> Compare(SiteNow now)
    {
        if (now.Plan.Events.FirstOrDefault(e => e.Id == Id) is not { } theirs)
            return [];
        Version = now.Versions.Event(theirs.Id);
        return FormDifference.Between(
            new
            {
                Name,
                FirstDay,
                LastDay,
            },
            new
            {
                theirs.Name,
                FirstDay = Words.Iso(theirs.FirstDay),
                LastDay = Words.Iso(theirs.LastDay),
            }
        );
    }

    private async Task Load()
    {
        Now = await frame.Now();
        var found = new List<(SiteEvent, EventOutlook?)>();
        foreach (SiteEvent what in Now.Plan.Events)
            found.Add((what, EventOutlook.Of(await frame.Soon(frame.State.Year(SiteYear.UsualStart(what.FirstDay, Now.IsSouthern), null)), what)));
        All = found;
    }
}
