using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Site;

/// <summary>The site's settings and house rules, and the plan as a file.</summary>
public sealed class IndexModel(PageFrame frame, PlanStore plans) : PageModel
{
    [BindProperty]
    public SiteInput Input { get; set; } = new();

    [BindProperty]
    public IFormFile? Upload { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Input = SiteInput.From(Now.Plan.Site, Now.Mark.Version, PageFrame.Units(Now));
    }

    public async Task<IActionResult> OnGetPlanAsync()
    {
        Now = await frame.Now();
        return File(PlanFile.Write(Now.Plan), "application/json", $"{Ids.From(Now.Plan.Site.Name, _ => false)}.plan.json");
    }

    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        UnitsText units = PageFrame.Units(Now);
        return await frame.Saving(this, SiteInput.Field, async () =>
        {
            await plans.SaveSite(Input.Read(units) with { Rules = Now.Plan.Site.Rules }, Input.Version);
            TempData["Said"] = "Settings saved.";
            return Redirect("/site");
        });
    }

    public async Task<IActionResult> OnPostPlanAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(this, f => f == "file" ? "Upload" : null, async () =>
        {
            if (Upload is null)
                throw new InvalidInputException("file", "choose a file first");
            await using Stream stream = Upload.OpenReadStream();
            Plan plan = PlanFile.Read(stream);
            await plans.Replace(plan);
            frame.Forget();
            TempData["Said"] = $"{plan.Site.Name} is brought in: {plan.Planters.Count} planters, {plan.Palette.Count} plants, {plan.Displays.Count} displays. The log and the weather stayed.";
            return Redirect("/site");
        }, Settings);
    }

    private Task Settings()
    {
        Input = SiteInput.From(Now.Plan.Site, Now.Mark.Version, PageFrame.Units(Now));
        return Task.CompletedTask;
    }
}
