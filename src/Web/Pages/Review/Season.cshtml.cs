using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Review;

/// <summary>A plan year as it was: what was expected and seen, lost, worked and paid, and what to repeat.</summary>
[Needs(SiteRole.Guest)]
public sealed class SeasonModel(PageFrame frame, LogStore log, CrewStore crew, SupplyDesk supply) : PageModel
{
    /// <summary>The calendar year in which the plan year begins.</summary>
    [BindProperty(SupportsGet = true, Name = "year")]
    public string? YearText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate Start { get; private set; }

    public SeasonReport Report { get; private set; } = null!;

    public IReadOnlyList<SupplierRecord> Suppliers { get; private set; } = [];

    /// <summary>The planters that are shown.</summary>
    public LongList<PlanterResult> Planters { get; private set; } = null!;

    /// <summary>Kinds of which something was seen.</summary>
    public IEnumerable<KindResult> Kinds => Report.Kinds.Where(k => k.Rating is not null || k.Lost > 0 || k.Well + k.Poorly > 0);

    public Task OnGetAsync() => Load();

    /// <summary>The report as a workbook.</summary>
    public async Task<IActionResult> OnGetXlsxAsync()
    {
        await Load();
        List<IReadOnlyList<object?>> rows =
        [
            .. Report.Planters.Select(p =>
                Row("planter", p.Planter.Name, p.Rating, p.DaysExpected, p.DaysKnown, p.DaysSeen, p.Lost, p.Minutes, p.Cost, Said(p.Last))
            ),
            .. Report.Areas.Select(a =>
                Row(
                    "area",
                    a.Area.Name,
                    a.Rating,
                    a.Planters.Sum(p => p.DaysExpected),
                    a.Planters.Sum(p => p.DaysKnown),
                    a.Planters.Sum(p => p.DaysSeen),
                    a.Planters.Sum(p => p.Lost),
                    a.Planters.Sum(p => p.Minutes),
                    a.Planters.Sum(p => p.Cost),
                    null
                )
            ),
            .. Report.Recipes.Select(r =>
                Row(
                    "recipe",
                    r.Recipe.Name,
                    r.Rating,
                    r.DaysExpected,
                    r.DaysKnown,
                    r.DaysSeen,
                    r.Lost,
                    null,
                    null,
                    Words.Count(r.Displays.Count, "display", "displays")
                )
            ),
            .. Report.Kinds.Select(k => Row("kind", k.Plant.CommonName, k.Rating, null, null, null, k.Lost, null, null, $"{k.Planted} planted")),
            .. Suppliers.Select(s =>
                Row("supplier", s.Supplier.Name, null, null, null, null, s.Refused + s.Missing, null, -s.Credited, $"{s.Arrived} came")
            ),
        ];
        return File(
            TypedTable.WriteWorkbook(
                ["what", "name", "rating", "days in colour expected", "days looked at", "days in colour seen", "lost", "hours", "cost", "said"],
                rows
            ),
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            $"season-{Start.Year}.xlsx"
        );
    }

    private static IReadOnlyList<object?> Row(
        string what,
        string name,
        double? rating,
        int? expected,
        int? known,
        int? seen,
        int? lost,
        double? minutes,
        decimal? cost,
        string? said
    ) =>
        [
            what,
            name,
            rating is { } r ? Math.Round(r, 1) : null,
            expected,
            known,
            seen,
            lost,
            minutes is { } m ? Math.Round(m / 60, 1) : null,
            cost is { } c ? Math.Round(c, 2) : null,
            said,
        ];

    private string? Said(Observation? last) =>
        last?.Review is { } review ? ReviewText.Found(frame.Facts, review) + (last.Note.Length > 0 ? ". " + last.Note : string.Empty) : null;

    private async Task Load()
    {
        Now = await frame.Now();
        Start = SiteYear.UsualStart(frame.Today, Now.IsSouthern);
        if (int.TryParse(YearText, NumberStyles.None, CultureInfo.InvariantCulture, out int year) && year is >= 1951 and <= 2149)
            Start = new LocalDate(year, Start.Month, 1);
        LocalDate today = frame.Today;
        LocalDate last = Start.PlusYears(1).PlusDays(-1);
        MoneyReport money = await supply.Money(Start);
        SupplyNow bought = await supply.Supply();
        SiteYear season = await frame.Soon(frame.State.Year(Start, null));
        Suppliers = SupplierRecord.Of(bought.Accounts, [.. bought.Claims.Select(c => c.It)], Start, last);
        IReadOnlyList<Observation> seen = await log.Between(Start, last);
        string told = await crew.Mark(Start, last);
        LocalDate start = Start;
        Report = await frame.Soon(
            frame.State.Derived(Now, ("season report", start, today, told, seen.Count, seen.Max(o => o.RecordedAt), money.Total), n =>
                SeasonReport.Of(
                    n.Plan,
                    season,
                    today,
                    seen,
                    ReckoningThreads.Read(() => crew.Minutes(start, last)),
                    money.ByPlanter.ToDictionary(p => p.Key, p => p.Value.Expected - p.Value.Credited, StringComparer.Ordinal)
                )
            )
        );
        Planters = LongList.Of(
            Request.Query,
            "season-planters",
            Report.Planters,
            p => p.Planter.Name,
            "the best first",
            [
                new("name", "by name", all => all.OrderBy(p => p.Planter.Name, StringComparer.OrdinalIgnoreCase)),
                new("poor", "the worst rated first", all => all.OrderBy(p => p.Rating is null).ThenBy(p => p.Rating)),
                new("lost", "most lost first", all => all.OrderByDescending(p => p.Lost)),
                new("hours", "most hours first", all => all.OrderByDescending(p => p.Minutes)),
                new("cost", "the dearest first", all => all.OrderByDescending(p => p.Cost)),
                new("day", "the dearest day in colour first", all => all.OrderByDescending(p => p.CostOfDay)),
            ]
        );
    }
}
