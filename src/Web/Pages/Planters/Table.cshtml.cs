using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>Planters as a table: rows pasted or brought in from a file are looked at first, then taken all together or not at all.</summary>
[Needs(SiteRole.Planner)]
public sealed class TableModel(PageFrame frame, PlanterStore planters, LookFirst looks) : PageModel
{
    /// <summary>The kind of drafts that are tables of planters.</summary>
    public const string Kind = "planters";

    /// <summary>The name of a table that a new site begins with.</summary>
    public const string Beginning = "begin";

    private const string Here = "/planters/table";

    /// <summary>Rows as pasted.</summary>
    [BindProperty]
    public string? Rows { get; set; }

    /// <summary>A file with rows.</summary>
    [BindProperty]
    public IFormFile? Upload { get; set; }

    /// <summary>The table that was looked at; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "draft")]
    public Guid? Draft { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>What it would do; null before one was looked at.</summary>
    public PlanterTable? Table { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (Draft is not { } id)
            return Page();
        return await looks.Show(this, Kind, id, Here, async (_, content) => Table = await looks.Read(() => Read(content)));
    }

    /// <summary>The planters as CSV.</summary>
    public async Task<IActionResult> OnGetCsvAsync()
    {
        var (headings, rows) = PlanterSheet.Of((await frame.Now()).Plan);
        return File(TypedTable.WriteCsv(headings, rows), "text/csv", "planters.csv");
    }

    /// <summary>The planters as a workbook.</summary>
    public async Task<IActionResult> OnGetXlsxAsync()
    {
        var (headings, rows) = PlanterSheet.Of((await frame.Now()).Plan);
        return File(TypedTable.WriteWorkbook(headings, rows), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "planters.xlsx");
    }

    /// <summary>Looks at the rows.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await looks.Keep(this, Kind, Here, Rows ?? string.Empty, Upload, content =>
        {
            Read(content);
            return Task.CompletedTask;
        });
    }

    /// <summary>Takes what was looked at.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(Guid id)
    {
        Now = await frame.Now();
        return await looks.Take(this, Kind, id, Here, async (name, content) =>
        {
            PlanterTable table = await looks.Read(() => Read(content));
            if (table.Rows.Count > 0)
                await planters.Put([.. table.Rows.Select(r => r.Planter)], table.NewAreas, Now.Versions);
            int added = table.Rows.Count(r => r.Before is null);
            int changed = table.Rows.Count - added;
            TempData["Said"] = $"{Words.Count(added, "planter", "planters")} added{(changed > 0 ? $", {changed} changed" : null)}.";
            return name == Beginning ? "/begin" : "/planters";
        });
    }

    private PlanterTable Read(byte[] content)
    {
        using var stream = new MemoryStream(content);
        return PlanterSheet.Read(TypedTable.Read(stream), Now.Plan);
    }
}
