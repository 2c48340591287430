using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>Adds a turn ("new") or changes one.</summary>
public sealed class EditModel(PageFrame frame, DisplayStore displays) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? FirstDay { get; set; }

    [BindProperty]
    public string? LastDay { get; set; }

    [BindProperty]
    public int? Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public bool IsNew => Id == "new";

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (IsNew)
            return Page();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return NotFound();
        (Name, FirstDay, LastDay, Version) = (turn.Name, Words.Iso(turn.FirstDay), Words.Iso(turn.LastDay), await displays.TurnVersion(Id));
        return Page();
    }

    private static string? Field(string fault) => fault switch
    {
        "name" => "Name",
        "firstDay" => "FirstDay",
        "lastDay" => "LastDay",
        _ => null,
    };

    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(this, Field, async () =>
        {
            var faults = new FaultList();
            if (Words.ReadDay(FirstDay) is not { } first)
            {
                faults.Add("firstDay", "must be a date");
                first = frame.Today;
            }
            if (Words.ReadDay(LastDay) is not { } last)
            {
                faults.Add("lastDay", "must be a date");
                last = first;
            }
            string name = (Name ?? string.Empty).Trim();
            string id = IsNew ? Ids.From($"{name} {first.Year}", x => x == "new" || Now.Plan.Turns.Any(t => t.Id == x)) : Id;
            var turn = new Turn(id, name, first, last);
            faults.AddAll(string.Empty, turn.Faults());
            faults.ThrowIfAny();
            await displays.SaveTurn(turn, IsNew ? null : Version ?? 0);
            TempData["Said"] = $"{turn.Name} saved.";
            return Redirect("/turns");
        });
    }
}
