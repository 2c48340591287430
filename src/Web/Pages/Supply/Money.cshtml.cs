using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>Money of a plan year: planned, committed, received, paid and credited, by turn, area and planter, against budgets.</summary>
[Needs(SiteRole.Guest)]
public sealed class MoneyModel(PageFrame frame, SupplyDesk desk) : PageModel
{
    /// <summary>The calendar year in which the plan year begins.</summary>
    [BindProperty(SupportsGet = true, Name = "year")]
    public string? YearText { get; set; }

    [BindProperty]
    public string? For { get; set; }

    [BindProperty]
    public string? Amount { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public LocalDate Start { get; private set; }

    public MoneyReport Report { get; private set; } = null!;

    /// <summary>Planters with their money.</summary>
    public LongList<PlanterMoney> Planters { get; private set; } = null!;

    public IReadOnlyList<Kept<Budget>> Budgets { get; private set; } = [];

    /// <summary>The budget for all, for an area or for a turn; null where there is none.</summary>
    public decimal? BudgetOf(string? area, string? turn) => Budgets.FirstOrDefault(b => b.It.AreaId == area && b.It.TurnId == turn)?.It.Amount;

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        return Page();
    }

    /// <summary>The report as a workbook.</summary>
    public async Task<IActionResult> OnGetXlsxAsync()
    {
        await Load();
        List<IReadOnlyList<object?>> rows =
        [
            Row("year", Words.PlanYear(Start), BudgetOf(null, null), Report.Total),
            .. Report.ByTurn.Select(t => Row("turn", t.Turn.Name, BudgetOf(null, t.Turn.Id), t.Money)),
            Row("elsewhere", "of no turn, or of one that is gone", null, Report.Elsewhere),
            .. Report.ByArea.Select(a =>
                Row("area", Now.Plan.Areas.FirstOrDefault(x => x.Id == a.Key)?.Name ?? a.Key, BudgetOf(a.Key, null), a.Value)
            ),
            .. Report
                .ByPlanter.OrderByDescending(p => p.Value.Expected)
                .Select(p => Row("planter", Now.Plan.FindPlanter(p.Key)?.Name ?? p.Key, null, p.Value)),
        ];
        return File(
            TypedTable.WriteWorkbook(["what", "name", "budget", "planned", "committed", "received", "paid", "credited", "expected"], rows),
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            $"money-{Start.Year}.xlsx"
        );
    }

    /// <summary>Sets a budget; 0 or nothing takes it away.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f => f == "amount" ? "Amount" : null,
            async () =>
            {
                await Load();
                string[] parts = (For ?? string.Empty).Split(':', 2);
                string? area = parts is ["area", var a] && Now.Plan.Areas.Any(x => x.Id == a) ? a : null;
                string? turn = parts is ["turn", var t] && Now.Plan.Turns.Any(x => x.Id == t) ? t : null;
                Kept<Budget>? kept = Budgets.FirstOrDefault(b => b.It.AreaId == area && b.It.TurnId == turn);
                decimal? amount = string.IsNullOrWhiteSpace(Amount) ? 0 : TypedNumber.Money(Amount);
                if (amount is null)
                    throw new InvalidInputException("amount", "is no amount of money; write 2500, or 0 to take the budget away");
                if (amount == 0 && kept is not null)
                    await desk.Store.RemoveBudget(kept.It.Id, kept.Version);
                else if (amount != 0)
                    await desk.Store.Save(new Budget(kept?.It.Id ?? Guid.CreateVersion7(), Start.Year, amount.Value, area, turn), kept?.Version);
                TempData["Said"] = amount == 0 ? "No budget there now." : "Budget set.";
                return Redirect($"/supply/money?year={Start.Year}");
            },
            Load
        );

    private static IReadOnlyList<object?> Row(string what, string name, decimal? budget, MoneySteps m) =>
        [what, name, budget, m.Planned, m.Committed, m.Received, m.Paid, m.Credited, m.Expected];

    private async Task Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        Start = SiteYear.UsualStart(frame.Today, Now.IsSouthern);
        if (int.TryParse(YearText, NumberStyles.None, CultureInfo.InvariantCulture, out int year) && year is >= 1951 and <= 2149)
            Start = new LocalDate(year, Start.Month, 1);
        Report = await desk.Money(Start);
        Budgets = [.. Supply.Budgets.Where(b => b.It.Year == Start.Year)];
        SiteYear? season = await frame.IfSoon(frame.State.Year(Start, null));
        Dictionary<string, int> days = season?.Planters.ToDictionary(p => p.Planter.Id, p => p.DaysInColour, StringComparer.Ordinal) ?? [];
        Planters = LongList.Of(
            Request.Query,
            "money-planters",
            [
                .. Report
                    .ByPlanter.OrderByDescending(p => p.Value.Expected)
                    .Select(p => new PlanterMoney(
                        p.Key,
                        Now.Plan.FindPlanter(p.Key)?.Name ?? p.Key,
                        p.Value.Expected,
                        days.TryGetValue(p.Key, out int d) ? d : null
                    )),
            ],
            p => p.Name,
            "the dearest first",
            [
                new("name", "by name", all => all.OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase)),
                new("cheap", "the cheapest first", all => all.OrderBy(p => p.Expected)),
                new("days", "longest in colour first", all => all.OrderByDescending(p => p.Days)),
                new("day", "the dearest day in colour first", all => all.OrderByDescending(p => p.OfDay)),
            ],
            50
        );
    }
}

/// <summary>What a planter costs in a plan year.</summary>
/// <param name="Id">The planter's.</param>
/// <param name="Name">The planter's; its id where it is gone.</param>
/// <param name="Expected">Money in all.</param>
/// <param name="Days">Days on which it is in colour; null where they are not known.</param>
public sealed record PlanterMoney(string Id, string Name, decimal Expected, int? Days)
{
    /// <summary>What a day in colour costs; null where there is none.</summary>
    public decimal? OfDay => Days > 0 ? Expected / Days : null;
}
