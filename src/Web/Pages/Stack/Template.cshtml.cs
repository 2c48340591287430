using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Stack;

/// <summary>Planting templates of a saved stack, one layer a page, to print to scale.</summary>
[Needs(SiteRole.Guest)]
public sealed class TemplateModel(PageFrame frame) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "display")]
    public string? DisplayId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public Display Display { get; private set; } = null!;

    public BulbStack Stack { get; private set; } = null!;

    public double Scale { get; private set; }

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (
            Now.Plan.FindPlanter(Id) is not { } planter
            || Now.Plan.DisplaysOf(Id).FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && (DisplayId is null || d.Id == DisplayId))
                is not { } display
        )
            return NotFound();
        (Planter, Display) = (planter, display);
        Stack = BulbStack.Of(Now.Plan, planter, display);
        Scale = PlantingTemplate.ScaleFor(planter.Form);
        return Page();
    }
}
