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

    /// <summary>When a colour shows, in a few words.</summary>
    public static string Brief(Plant plant, ColourWindow window) => window.Rule switch
    {
        BulbForcing b => $"{b.ShowDays:0} days in spring, after {plant.Bulb!.ColdWeeksLow:0}–{plant.Bulb.ColdWeeksHigh:0} weeks of cold",
        AirHeat h => $"{h.ShowDays:0} days once the year has been warm enough",
        FromInstall { ShowDays: { } days } => $"{days:0} days from install",
        FromInstall => "from install until frost",
        AllYear => "all the time it stands",
        BareStem => "from leaf drop to leaf-out",
        InLeaf { LastDays: not null } => "before leaf drop",
        InLeaf => "in leaf",
        _ => "as nights cool",
    };

    /// <summary>The rules behind a plant's colours.</summary>
    public static Working Explain(Plant plant) => new(
        plant.CommonName,
        plant.BotanicalName,
        [
            new("height and spread", $"{plant.HeightCm:0} and {plant.MatureSpreadCm:0} cm, {plant.SpreadAtPurchaseCm:0} cm as bought"),
            new("packs", string.Join(", ", plant.Packs.Select(k => k.Form))),
        ],
        "Colour by rule over the station's weather",
        plant.Source,
        [.. plant.Windows.Select(w => $"{w.Part}, {w.Share:P0} of the spread: {w.Rule.Describe()}.")]);

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
