using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>What to order for a turn.</summary>
public sealed class IndexModel(PageFrame frame) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "turn")]
    public string? TurnId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn? Turn { get; private set; }

    public TurnOrder? Order { get; private set; }

    public IReadOnlyList<DayOutsideTurns> Outside { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        Turn = Choose(Now.Plan, TurnId, frame.Today);
        if (TurnId is { Length: > 0 } && Turn?.Id != TurnId)
            return NotFound();
        Order = Turn is null ? null : TurnOrder.For(Now.Plan, Turn, frame.Today);
        Outside = DayOutsideTurns.Of(Now.Plan);
        return Page();
    }

    public async Task<IActionResult> OnGetCsvAsync()
    {
        IActionResult page = await OnGetAsync();
        return Order is null ? page : File(CsvSheets.Order(Order), "text/csv; charset=utf-8", $"order-{Turn!.Id}.csv");
    }

    /// <summary>The turn asked for, or the next one, or the last.</summary>
    internal static Turn? Choose(Plan plan, string? id, NodaTime.LocalDate today) =>
        plan.Turns.FirstOrDefault(t => t.Id == id) ?? plan.Turns.FirstOrDefault(t => t.LastDay >= today) ?? (plan.Turns.Count > 0 ? plan.Turns[^1] : null);
}
