using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>What to order for a turn, a month or a whole plan year, and in what form.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, SupplyDesk desk, ChangeStore changes) : PageModel
{
    private const string MonthMark = "month:";
    private const string YearMark = "year:";

    // Of peat and bark.
    private const string MaterialColour = "#6d5a44";

    /// <summary>A turn's id, "month:2027-05" or "year:2026-09".</summary>
    [BindProperty(SupportsGet = true, Name = "turn")]
    public string? TurnId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>The turn, or the days of the month or year as if they were one.</summary>
    public Turn? Turn { get; private set; }

    public TurnOrder? Order { get; private set; }

    public IReadOnlyList<DayOutsideTurns> Outside { get; private set; } = [];

    /// <summary>By when what is bought is to be ordered: of the turn, or of all turns that begin in the month or year and are not over.</summary>
    public IReadOnlyList<OrderDeadline> Deadlines { get; private set; } = [];

    /// <summary>Materials that are to be ordered: for the turn, or at all.</summary>
    public IReadOnlyList<MaterialAccount> Materials { get; private set; } = [];

    /// <summary>From the last day to order to the day on which it is wanted, of goods and materials, as lines of a drawing.</summary>
    public IReadOnlyList<DateRule> Rules =>
        [
            .. Deadlines
                .Select(d => new DateRule(
                    $"{d.Turn.Name}: {Words.Sort(d)}",
                    d.Lines[0].Plant.LeadColour,
                    d.LastOrderDay,
                    d.By,
                    null,
                    $"{d.Turn.Name}: order {Words.Sort(d)} by {Words.DayYear(d.LastOrderDay)}, wanted {Words.DayYear(d.By)}"
                )
                {
                    IsToCome = !d.IsLate(Today),
                })
                .Concat(
                    Materials
                        .Where(m => m.OrderBy is not null)
                        .Select(m => new DateRule(
                            $"{m.ShortFor!.Name}: {m.Material.Name}",
                            MaterialColour,
                            m.OrderBy!.Value,
                            m.ShortFor.Delivery ?? m.ShortFor.FirstDay,
                            null,
                            $"{m.ShortFor.Name}: order {m.Material.Name} by {Words.DayYear(m.OrderBy.Value)}"
                        )
                        {
                            IsToCome = m.OrderBy >= Today,
                        })
                )
                .OrderBy(r => r.From),
        ];

    /// <summary>Lines with what is on its way of them, as they stand in the order.</summary>
    public IReadOnlyList<SupplyNeed> Needs { get; private set; } = [];

    public LocalDate Today => frame.Today;

    /// <summary>True for a turn of the plan, false for a month or a year.</summary>
    public bool IsTurn => Turn is { } t && Now.Plan.Turns.Any(x => x.Id == t.Id);

    /// <summary>Months of the plan year that holds the days shown, and that year itself.</summary>
    public IEnumerable<Turn> Spans
    {
        get
        {
            LocalDate start = SiteYear.UsualStart(Turn?.FirstDay ?? frame.Today, Now.IsSouthern);
            yield return Year(start);
            for (int m = 0; m < 12; m++)
                yield return Month(start.PlusMonths(m));
        }
    }

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        Turn = Span(TurnId) ?? Choose(Now.Plan, TurnId, frame.Today);
        if (TurnId is { Length: > 0 } && Turn?.Id != TurnId)
            return NotFound();
        Order = Turn is { } turn ? await desk.OrderOf(turn) : null;
        if (Order is not null)
        {
            var orders = new List<TurnOrder>();
            foreach (Turn t in IsTurn ? [] : Now.Plan.Turns.Where(t => Turn!.Holds(t.FirstDay) && t.LastDay >= Today))
                orders.Add(await desk.OrderOf(t));
            SupplyNow supply = await desk.Supply();
            List<OrderDeadline> all = [.. OrderDeadline.Of(IsTurn && Turn!.LastDay >= Today ? [Order] : orders)];
            // What is on its way already need not be ordered any more.
            Deadlines =
            [
                .. all.Select(d => d.Without(SupplyNeed.Of(orders.Prepend(Order).First(o => o.Turn.Id == d.Turn.Id), supply.Accounts, Now.Plan.Lots)))
                    .OfType<OrderDeadline>(),
            ];
            Materials =
            [
                .. (await desk.MaterialsIfSoon() ?? []).Where(m => m.IsToOrder && (!IsTurn || m.ShortFor is null || m.ShortFor.Id == Turn!.Id)),
            ];
            Needs = IsTurn ? SupplyNeed.Of(Order, supply.Accounts, Now.Plan.Lots) : [];
        }
        Outside = await frame.Outside();
        return Page();
    }

    public async Task<IActionResult> OnGetCsvAsync()
    {
        IActionResult page = await OnGetAsync();
        return Order is null ? page : File(CsvSheets.Order(Order), "text/csv; charset=utf-8", $"order-{Turn!.Id.Replace(':', '-')}.csv");
    }

    /// <summary>Has a kind bought in another form wherever it goes in during these days.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostFormAsync(string? plant, string? from, string? form)
    {
        IActionResult page = await OnGetAsync();
        if (Turn is not { } turn || Now.Plan.FindPlant(plant) is not { } sold)
            return page is PageResult ? NotFound() : page;
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (GoodsForm.Find(sold, form) is not { } chosen)
                    throw new InvalidInputException(
                        string.Empty,
                        $"{sold.CommonName} is not sold as \"{form}\"; it is sold as {string.Join(", ", GoodsForm.Of(sold).Select(f => f.Name))}."
                    );
                bool Goes(Display d, DisplayItem i) =>
                    i.PlantId == sold.Id
                    && turn.Holds(i.Since > d.Install ? i.Since.Value : d.Install)
                    && (string.IsNullOrEmpty(from) || GoodsForm.Of(Now.Plan.AsBought(Now.Plan.FindPlanter(d.PlanterId)!, i))[0].Name == from);
                List<Display> before = [.. Now.Plan.Displays.Where(d => d.Items.Any(i => Goes(d, i)))];
                List<Display> after =
                [
                    .. before.Select(d => d with { Items = [.. d.Items.Select(i => Goes(d, i) ? i with { Form = chosen.Name } : i)] }),
                ];
                await changes.Make(PlanChange.Of(before, after), $"{sold.CommonName}: bought as {chosen.Name} for {turn.Name}");
                TempData["Said"] = (
                    $"{sold.CommonName}: bought as {chosen.Name} for "
                    + $"{turn.Name}{(chosen.GrowOnWeeks > 0 ? $"; grown on for {chosen.GrowOnWeeks} weeks first" : string.Empty)}."
                );
                return Redirect($"/supply?turn={turn.Id}");
            }
        );
    }

    /// <summary>The turn asked for, or the next one, or the last.</summary>
    internal static Turn? Choose(Plan plan, string? id, LocalDate today) =>
        plan.Turns.FirstOrDefault(t => t.Id == id)
        ?? plan.Turns.FirstOrDefault(t => t.LastDay >= today)
        ?? (plan.Turns.Count > 0 ? plan.Turns[^1] : null);

    private static Turn? Span(string? id) =>
        id is null ? null
        : id.StartsWith(MonthMark, StringComparison.Ordinal) && Words.ReadDay($"{id[MonthMark.Length..]}-01") is { } month ? Month(month)
        : id.StartsWith(YearMark, StringComparison.Ordinal) && Words.ReadDay($"{id[YearMark.Length..]}-01") is { } year ? Year(year)
        : null;

    private static Turn Month(LocalDate first) =>
        new(
            $"{MonthMark}{first.ToString("uuuu-MM", CultureInfo.InvariantCulture)}",
            first.ToString("MMMM uuuu", CultureInfo.InvariantCulture),
            first,
            first.PlusMonths(1).PlusDays(-1)
        );

    private static Turn Year(LocalDate start) =>
        new(
            $"{YearMark}{start.ToString("uuuu-MM", CultureInfo.InvariantCulture)}",
            $"Plan year {Words.PlanYear(start)}",
            start,
            start.PlusMonths(12).PlusDays(-1)
        );
}
