using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>The plants that can be chosen; takes more from a plan file or from the palette that ships with the app.</summary>
public sealed class IndexModel(PageFrame frame, PlanStore plans) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Query { get; set; }

    [BindProperty]
    public IFormFile? Upload { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<Plant> Found { get; private set; } = [];

    public async Task OnGetAsync() => await Fill();

    public async Task<IActionResult> OnPostStarterAsync()
    {
        await using FileStream file = System.IO.File.OpenRead(Path.Combine(AppContext.BaseDirectory, "starter", "kittiwake-quay.plan.json"));
        return await Take(file);
    }

    public async Task<IActionResult> OnPostAsync()
    {
        if (Upload is null)
        {
            ModelState.Clear();
            ModelState.AddModelError("Upload", "choose a file first");
            await Fill();
            return Page();
        }
        await using Stream stream = Upload.OpenReadStream();
        return await Take(stream);
    }

    /// <summary>How many displays hold a plant.</summary>
    public int Uses(Plant plant) => Now.Plan.Displays.Count(d => d.Items.Any(i => i.PlantId == plant.Id));

    private async Task<IActionResult> Take(Stream stream)
    {
        return await frame.Saving(this, f => f == "file" ? "Upload" : null, async () =>
        {
            Plan plan = PlanFile.Read(stream);
            int added = await plans.AddPlants(plan.Palette);
            frame.Forget();
            TempData["Said"] = $"{added} plants added to the palette; {plan.Palette.Count - added} were there already.";
            return Redirect("/palette");
        }, Fill);
    }

    private async Task Fill()
    {
        Now = await frame.Now();
        string[] words = (Query ?? string.Empty).Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        Found = [.. Now.Plan.Palette
            .Where(p => words.All(w => $"{p.CommonName} {p.BotanicalName} {Words.Of(p.LifeForm)}".Contains(w, StringComparison.OrdinalIgnoreCase)))
            .OrderBy(p => p.LifeForm).ThenBy(p => p.CommonName)];
    }
}
