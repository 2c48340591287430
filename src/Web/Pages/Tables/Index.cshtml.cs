using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Tables;

/// <summary>Displays, turns or stock as a table: rows pasted or brought in are looked at first, then taken as one change or not at all.</summary>
[Needs(SiteRole.Planner)]
public sealed class IndexModel(PageFrame frame, ChangeStore changes, LookFirst looks) : PageModel
{
    /// <summary>"displays", "turns" or "stock".</summary>
    [FromRoute(Name = "kind")]
    public string KindText { get; set; } = string.Empty;

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
    public PlanSheetChange? Table { get; private set; }

    public PlanSheetKind Kind { get; private set; }

    private string Here => $"/tables/{KindText}";

    /// <summary>What the table is called.</summary>
    public string Name => Words.Capital(KindText);

    /// <summary>The page that it belongs to.</summary>
    public (string View, string Path) Home =>
        Kind switch
        {
            PlanSheetKind.Displays => ("Planters", "/planters"),
            PlanSheetKind.Turns => ("Turns", "/turns"),
            _ => ("Stock", "/stock"),
        };

    /// <summary>A row as it may be pasted.</summary>
    public string Example =>
        Kind switch
        {
            PlanSheetKind.Displays => "Gate pot\tseasonal\t2027-05-17\t2027-09-27\tPetunia, magenta\t9",
            PlanSheetKind.Turns => "Summer turn\t2027-05-17\t2027-06-04",
            _ => "Daffodil, early yellow\t60\tforced\tCold frame 2\t2026-10-12\tgood",
        };

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        if (Draft is not { } id)
            return Page();
        return await looks.Show(this, KindText, id, Here, async (_, content) => Table = await looks.Read(() => Read(content)));
    }

    /// <summary>What there is, as CSV.</summary>
    public async Task<IActionResult> OnGetCsvAsync() =>
        await Find() ? File(TypedTable.WriteCsv(PlanSheets.Columns(Kind), PlanSheets.Of(Now.Plan, Kind)), "text/csv", $"{KindText}.csv") : NotFound();

    /// <summary>What there is, as a workbook.</summary>
    public async Task<IActionResult> OnGetXlsxAsync() =>
        await Find()
            ? File(
                TypedTable.WriteWorkbook(PlanSheets.Columns(Kind), PlanSheets.Of(Now.Plan, Kind)),
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"{KindText}.xlsx"
            )
            : NotFound();

    /// <summary>Looks at the rows.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Find())
            return NotFound();
        return await looks.Keep(this, KindText, Here, Rows ?? string.Empty, Upload, content =>
        {
            Read(content);
            return Task.CompletedTask;
        });
    }

    /// <summary>Takes what was looked at.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(Guid id)
    {
        if (!await Find())
            return NotFound();
        return await looks.Take(this, KindText, id, Here, async (_, content) =>
        {
            PlanSheetChange table = await looks.Read(() => Read(content));
            if (table.Lines.Count > 0)
                await changes.Make(
                    new PlanChange(
                        table.DisplaysBefore,
                        table.DisplaysAfter,
                        table.DisplaysAdded,
                        new Dictionary<string, int>(StringComparer.Ordinal)
                    )
                    {
                        TurnsBefore = table.TurnsBefore,
                        TurnsAfter = table.TurnsAfter,
                        LotsBefore = table.LotsBefore,
                        LotsAfter = table.LotsAfter,
                    },
                    $"A table of {KindText}: {Count(table)}"
                );
            TempData["Said"] = $"{Words.Capital(Count(table))}. It can be taken back as one.";
            return Home.Path;
        });
    }

    /// <summary>How many are new and changed, in words.</summary>
    public static string Count(PlanSheetChange table) => $"{table.Lines.Count(l => l.IsNew)} added, {table.Lines.Count(l => !l.IsNew)} changed";

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (!KindText.All(char.IsAsciiLetterLower) || !Enum.TryParse(KindText, ignoreCase: true, out PlanSheetKind kind))
            return false;
        Kind = kind;
        return true;
    }

    private PlanSheetChange Read(byte[] content)
    {
        using var stream = new MemoryStream(content);
        return PlanSheets.Read(TypedTable.Read(stream), Now.Plan, Kind);
    }
}
