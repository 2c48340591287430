using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Site;

/// <summary>The site's settings and house rules, and the plan as a file.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(
    PageFrame frame,
    PlanStore plans,
    PlanHistory history,
    PhotoStore photos,
    DraftStore drafts,
    Everything everything,
    HeavyWork heavy
) : PageModel
{
    [BindProperty]
    public SiteInput Input { get; set; } = new();

    [BindProperty]
    public IFormFile? Upload { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>Plans that were replaced and can be brought back, latest first.</summary>
    public IReadOnlyList<PlanBefore> Before { get; private set; } = [];

    /// <summary>Photographs of planters that the plan no longer holds.</summary>
    public (int Photographs, int Planters) Orphans { get; private set; }

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        await Settings();
    }

    public async Task<IActionResult> OnGetPlanAsync()
    {
        Now = await frame.Now();
        Response.Headers.CacheControl = "no-store";
        return File(PlanFile.Write(Now.Plan), "application/json", $"{Ids.From(Now.Plan.Site.Name, _ => false)}.plan.json");
    }

    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        UnitsText units = frame.Units;
        return await frame.Saving(
            this,
            SiteInput.Field,
            async () =>
            {
                await plans.SaveSite(Input.Read(units) with { Rules = Now.Plan.Site.Rules }, Input.Version);
                TempData["Said"] = "Settings saved.";
                return Redirect("/site");
            },
            Lists,
            now =>
            {
                Now = now;
                SiteInput theirs = SiteInput.From(now.Plan.Site, now.Mark.Version, units);
                Input.Version = theirs.Version;
                return FormDifference.Between(Input, theirs);
            }
        );
    }

    /// <summary>All that the site holds, in one file.</summary>
    public async Task<IActionResult> OnGetEverythingAsync()
    {
        Now = await frame.Now();
        Response.Headers.CacheControl = "no-store";
        FileStream file = new(
            Path.GetTempFileName(),
            FileMode.Create,
            FileAccess.ReadWrite,
            FileShare.None,
            81920,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        await heavy.Do(async () =>
        {
            await everything.Write(file);
            return true;
        });
        file.Position = 0;
        return File(file, "application/zip", $"{Ids.From(Now.Plan.Site.Name, _ => false)}.everything.zip");
    }

    /// <summary>Brings a plan back that another has replaced.</summary>
    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostBackAsync(Guid id)
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Plan plan = await history.Load(id) ?? throw new InvalidInputException(string.Empty, "That plan is no longer kept.");
                await plans.Replace(plan, PlanFile.Write);
                TempData["Said"] =
                    $"{plan.Site.Name} is back: {plan.Planters.Count} planters, {plan.Displays.Count} displays. What it replaced is kept in turn.";
                return Redirect("/site");
            },
            Settings
        );
    }

    /// <summary>Drops photographs of planters that the plan no longer holds.</summary>
    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostDropPhotographsAsync()
    {
        int dropped = await photos.DropWithoutPlanter();
        TempData["Said"] = $"{dropped} photographs dropped.";
        return Redirect("/site");
    }

    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostPlanAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            f => f == "file" ? "Upload" : null,
            async () =>
            {
                if (Upload is null)
                    throw new InvalidInputException("file", "choose a file first");
                return await heavy.Do<IActionResult>(async () =>
                {
                    using var buffer = new MemoryStream();
                    await Upload.CopyToAsync(buffer);
                    buffer.Position = 0;
                    Plan plan = await Task.Run(() => PlanFile.Read(buffer));
                    if (Now.Plan.Planters.Count + Now.Plan.Displays.Count + Now.Aside.Count > 0)
                        return Redirect($"/site/plan?draft={await drafts.Keep(PlanModel.Kind, Path.GetFileName(Upload.FileName), buffer.ToArray())}");
                    await plans.Replace(plan, PlanFile.Write);
                    TempData["Said"] = PlanModel.BroughtIn(plan);
                    return Redirect("/site");
                });
            },
            Settings
        );
    }

    private async Task Settings()
    {
        Input = SiteInput.From(Now.Plan.Site, Now.Mark.Version, frame.Units);
        await Lists();
    }

    private async Task Lists()
    {
        Before = await history.All();
        Orphans = await photos.WithoutPlanter();
    }
}
