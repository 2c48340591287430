using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Changes;

/// <summary>Every change of the plan: when, by whom, what it did, and whether it can be taken back.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, ChangeStore changes, PeopleStore people) : PageModel
{
    private IReadOnlyDictionary<Guid, string> _names = new Dictionary<Guid, string>();

    private const int AtOnce = 50;

    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartText { get; set; }

    /// <summary>A change whose parts are shown, before and after.</summary>
    [BindProperty(SupportsGet = true, Name = "change")]
    public Guid? Open { get; set; }

    public ListPage Part { get; private set; } = null!;

    public IReadOnlyList<MadeChange> Made { get; private set; } = [];

    /// <summary>What the open change did to each part, figure by figure.</summary>
    public IReadOnlyList<PartDifference> Parts { get; private set; } = [];

    public async Task OnGetAsync() => await Load();

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostUndoAsync(Guid change) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                TempData["Said"] = $"Taken back: {await changes.Undo(change)}.";
                return Redirect("/changes");
            },
            Load
        );

    /// <summary>When a change was made, by the site's clock.</summary>
    public string When(MadeChange change) => change.MadeAt.InZone(frame.State.Zone).ToString("ddd d MMM uuuu, HH:mm", null);

    /// <summary>Who made it, as far as the app knows people.</summary>
    public string Who(MadeChange change) =>
        change.MadeBy == PageFrame.Asker(HttpContext) ? "you"
        : Guid.TryParse(change.MadeBy, out Guid id) ? _names.GetValueOrDefault(id, "somebody who was not signed in")
        : change.MadeBy.Length > 0 ? $"the {change.MadeBy}"
        : "nobody knows who";

    /// <summary>Why it cannot be taken back; null where it can.</summary>
    public static string? Hindrance(MadeChange change) =>
        change.UndoneBy is not null ? "taken back"
        : !change.IsKept ? "not kept with it; a plan that was replaced comes back on the page Site"
        : change.Newer is { } newer ? $"changed again since: {newer.What}"
        : null;

    private async Task Load()
    {
        await frame.Now();
        Part = ListPage.Of(await changes.Count(), PartText, AtOnce);
        Made = await changes.Latest(AtOnce, Part.First == 0 ? 0 : Part.First - 1);
        _names = await people.Names(Made.Select(c => Guid.TryParse(c.MadeBy, out Guid by) ? by : Guid.Empty));
        if (Open is { } id)
            Parts = [.. (await changes.PartsOf(id)).Select(p => PartDifference.Of(p.Key, p.Before, p.After))];
    }
}
