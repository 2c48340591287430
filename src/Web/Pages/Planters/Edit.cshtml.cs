using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>Adds a planter ("new") or changes one, with its volume shown as it is typed.</summary>
public sealed class EditModel(PageFrame frame, PlanterStore planters, PlanStore plans) : PageModel
{
    [BindProperty]
    public PlanterInput Input { get; set; } = new();

    [FromRoute]
    public string Id { get; set; } = "new";

    public SiteNow Now { get; private set; } = null!;

    public string Heading { get; private set; } = string.Empty;

    public bool IsNew => Id == "new";

    public string PreviewAddress => $"/planters/{Id}/edit?handler=preview";

    /// <summary>The measures as typed; null while they do not fit together.</summary>
    public PlanterForm? Volume
    {
        get
        {
            PlanterForm form = Input.ReadForm(PageFrame.Units(Now));
            return form.Faults().Count == 0 ? form : null;
        }
    }

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (IsNew)
        {
            Input.AreaId = Now.Plan.Areas.Count > 0 ? Now.Plan.Areas[0].Id : null;
            return Page();
        }
        if (Now.Plan.FindPlanter(Id) is not { } planter || await planters.Version(Id) is not { } version)
            return NotFound();
        Heading = planter.Name;
        Input = PlanterInput.From(planter, version, PageFrame.Units(Now));
        return Page();
    }

    public async Task<IActionResult> OnPostPreviewAsync()
    {
        Now = await frame.Now();
        Heading = Now.Plan.FindPlanter(Id)?.Name ?? string.Empty;
        ModelState.Clear();
        return Page();
    }

    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        UnitsText units = PageFrame.Units(Now);
        Heading = Now.Plan.FindPlanter(Id)?.Name ?? string.Empty;
        if (!IsNew && Now.Plan.FindPlanter(Id) is null)
            return NotFound();
        return await frame.Saving(this, PlanterInput.Field, async () =>
        {
            Area? area = NewArea();
            string id = IsNew ? Ids.From(Input.Name ?? string.Empty, x => x == "new" || Now.Plan.FindPlanter(x) is not null) : Id;
            Planter planter = Input.Read(id, area?.Id ?? Input.AreaId ?? string.Empty, units) with { Skyline = Now.Plan.FindPlanter(id)?.Skyline };
            var faults = new FaultList();
            if (area is not null)
                faults.AddAll("area", area.Faults());
            faults.AddAll(string.Empty, planter.Faults());
            if (Now.Plan.Planters.Any(p => p.Id != id && p.Name == planter.Name))
                faults.Add("name", "is already used; every name must be its own");
            faults.ThrowIfAny();
            if (area is not null && Now.Plan.Areas.All(a => a.Id != area.Id))
                await plans.AddArea(area);
            if (IsNew)
                await planters.Add(planter);
            else
                await planters.Save(planter, Input.Version);
            TempData["Said"] = IsNew ? $"{planter.Name} added." : $"{planter.Name} saved.";
            return Redirect($"/planters/{id}");
        });
    }

    // A new area is meant when none is chosen; one of the same name is taken instead of made twice.
    private Area? NewArea()
    {
        if (!string.IsNullOrEmpty(Input.AreaId))
            return null;
        string name = (Input.NewArea ?? string.Empty).Trim();
        Area? known = Now.Plan.Areas.FirstOrDefault(a => a.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
        return known ?? new Area(Ids.From(name, x => Now.Plan.Areas.Any(a => a.Id == x)), name, 1);
    }
}
