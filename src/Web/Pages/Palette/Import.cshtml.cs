using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>Brings in a sheet of plants: looks at it, says what it would change, and writes all of it or nothing.</summary>
[Needs(SiteRole.Planner)]
public sealed class ImportModel(PageFrame frame, PaletteStore palette, LookFirst looks) : PageModel
{
    private const string Kind = "palette";
    private const string Here = "/palette/import";

    [BindProperty]
    public IFormFile? Upload { get; set; }

    [BindProperty(SupportsGet = true, Name = "draft")]
    public Guid? Draft { get; set; }

    public string FileName { get; private set; } = string.Empty;

    /// <summary>What the sheet would do; null before one was looked at.</summary>
    public IReadOnlyList<PlantChange>? Changes { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Draft is not { } id)
            return Page();
        SiteNow now = await frame.Now();
        return await looks.Show(this, Kind, id, Here, async (name, content) =>
        {
            FileName = name;
            Changes = await looks.Read(() => Read(content, now));
        });
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await looks.Keep(this, Kind, Here, rows: null, Upload, async content => Read(content, await frame.Now()));

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(Guid id)
    {
        SiteNow now = await frame.Now();
        return await looks.Take(this, Kind, id, Here, async (_, content) =>
        {
            IReadOnlyList<PlantChange> changes = await looks.Read(() => Read(content, now));
            await palette.Put([.. changes.Select(c => c.Plant)], now.Versions);
            TempData["Said"] = $"{changes.Count(c => c.IsNew)} plants added, {changes.Count(c => !c.IsNew)} changed.";
            return "/palette";
        });
    }

    private static IReadOnlyList<PlantChange> Read(byte[] content, SiteNow now)
    {
        using var stream = new MemoryStream(content);
        return PaletteSheet.Read(stream, now.Plan.Palette);
    }
}
