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
public sealed class ImportModel(PageFrame frame, PaletteStore palette, DraftStore drafts, HeavyWork heavy) : PageModel
{
    private const string Kind = "palette";

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
        if (await drafts.Find(Kind, id) is not { } draft)
        {
            TempData["Said"] = "That sheet was taken already, or waited more than a day. Choose it again.";
            return Redirect("/palette/import");
        }
        FileName = draft.Name;
        return await frame.Saving(this, Field, async () =>
        {
            Changes = await heavy.Do(() => Read(draft.Content));
            return Page();
        });
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() => await frame.Saving(this, Field, async () =>
        {
            if (Upload is null || Upload.Length == 0)
                throw new InvalidInputException("file", "choose a sheet first");
            return await heavy.Do<IActionResult>(async () =>
            {
                using var buffer = new MemoryStream();
                await Upload.CopyToAsync(buffer);
                byte[] content = buffer.ToArray();
                await Read(content);
                return Redirect($"/palette/import?draft={await drafts.Keep(Kind, Path.GetFileName(Upload.FileName), content)}");
            });
        });

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(Guid id) => await frame.Saving(this, Field, async () =>
        {
            if (await drafts.Find(Kind, id) is not { } draft)
                throw new InvalidInputException("file", "that sheet was taken already, or waited more than a day; choose it again");
            IReadOnlyList<PlantChange> changes = await heavy.Do(() => Read(draft.Content));
            await palette.Put([.. changes.Select(c => c.Plant)], (await frame.Now()).Versions);
            await drafts.Drop(id);
            TempData["Said"] = $"{changes.Count(c => c.IsNew)} plants added, {changes.Count(c => !c.IsNew)} changed.";
            return Redirect("/palette");
        });

    private static string? Field(string fault) => fault == "file" ? "Upload" : null;

    private async Task<IReadOnlyList<PlantChange>> Read(byte[] content)
    {
        using var stream = new MemoryStream(content);
        return PaletteSheet.Read(stream, (await frame.Now()).Plan.Palette);
    }
}
