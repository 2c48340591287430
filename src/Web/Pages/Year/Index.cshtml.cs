using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>"When are we bare?": one rule per planter, twelve months across.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, LogStore log, VariantStore variants, ChangeStore changes, CareDesk care) : PageModel
{
    // Up to so many rules are all drawn; beyond, areas are folded and the barest stand open.
    private const int MostOpen = 60;
    private const int MostAtOnce = 100;

    private Dictionary<string, PlanterSeason> _planned = [];
    private ILookup<string, Observation> _seen = Array.Empty<Observation>().ToLookup(o => o.PlanterId);

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Weather { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Sort { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Area { get; set; }

    /// <summary>A rehearsal or a kept plan that the year is set against.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Beside { get; set; }

    [BindProperty(SupportsGet = true)]
    public int Skip { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>What days to come threaten.</summary>
    public CareThreats Threats { get; private set; } = new(true, null);

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    /// <summary>The year that is drawn.</summary>
    public SiteYear Year { get; private set; } = null!;

    /// <summary>The comparison with what stands beside; null for none.</summary>
    public YearComparison? Comparison { get; private set; }

    public RehearsalResult? Rehearsal { get; private set; }

    public string BesideName { get; private set; } = string.Empty;

    public IReadOnlyList<int> WeatherYears { get; private set; } = [];

    public NotableRuns? Notable { get; private set; }

    public int? WeatherYear { get; private set; }

    public FrostOdds? Spring { get; private set; }

    public FrostOdds? Fall { get; private set; }

    public IReadOnlyList<Turn> Turns { get; private set; } = [];

    public IReadOnlyList<EventOutlook> Events { get; private set; } = [];

    public SiteScore? Score { get; private set; }

    /// <summary>Remarks; null while they are still being looked for.</summary>
    public IReadOnlyList<Remark>? Remarks { get; private set; }

    public IReadOnlyList<PlanVariant> Variants { get; private set; } = [];

    public MadeChange? LastChange { get; private set; }

    public IReadOnlyList<YearGroup> Groups { get; private set; } = [];

    public bool WorstFirst => Sort == "worst";

    public UnitsText Units => frame.Units;

    public async Task OnGetAsync()
    {
        await Load();
        Groups = [.. Grouped()];
        if (Now.Record is { YearsUsed.Count: > 0 } record)
        {
            Spring = FrostOdds.From(record, FrostEnd.LastSpring, 0);
            Fall = FrostOdds.From(record, FrostEnd.FirstFall, 0);
        }
        Turns = [.. Now.Plan.Turns.Where(t => t.LastDay >= View.Start && t.FirstDay < View.Start.PlusMonths(12))];
        SiteYear year = Year;
        var outlook = await frame.Soon(
            frame.State.Derived(Now, ("outlook", year), now =>
                Tuple.Create(now.Plan.Events.Select(e => EventOutlook.Of(year, e)).OfType<EventOutlook>().ToList(), SiteScore.Of(now.Plan, year))
            )
        );
        (Events, Score) = (outlook.Item1, outlook.Item2);
        Remarks = (await frame.IfSoon(frame.State.RemarksFrom(View.Start)))?.Where(r => r.Working is not null).ToList();
        LastChange = await changes.Last();
        OutsideTurns = (await frame.Outside()).Select(o => (o.Planter.Id, o.Day)).Distinct().Count();
    }

    /// <summary>Days, planter by planter, on which something goes in or out in no turn.</summary>
    public int OutsideTurns { get; private set; }

    /// <summary>More rules of one area, or of all, for a page that unfolds them.</summary>
    public async Task<IActionResult> OnGetRowsAsync()
    {
        await Load();
        IReadOnlyList<PlanterSeason> here = Ordered(
            string.IsNullOrEmpty(Area) ? Year.Planters : [.. Year.Planters.Where(p => p.Planter.AreaId == Area)]
        );
        return Partial("_Rows", (IReadOnlyList<YearRow>)[.. here.Skip(Math.Max(0, Skip)).Take(MostAtOnce).Select(Row)]);
    }

    /// <summary>What it would do to move an end of a display to another day: told beside the rule while it is dragged.</summary>
    public async Task<IActionResult> OnGetEndAsync(string? display, DisplayEnd end, string? to)
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Of(View.Start);
        if (Now.Plan.Displays.FirstOrDefault(d => d.Id == display) is not { } moved || Words.ReadDay(to) is not { } day)
            return NotFound();
        return Partial("_EndMove", await EndMoveView.Of(Now, frame, View.Start, moved, end, day));
    }

    /// <summary>Moves it.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostEndAsync(string? display, DisplayEnd end, string? was, string? to)
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (Now.Plan.Displays.FirstOrDefault(d => d.Id == display) is not { } moved || Words.ReadDay(to) is not { } day)
                    throw new InvalidInputException(string.Empty, "That display is there no more: look at the year as it is now");
                if (Words.ReadDay(was) is { } seen && seen != (end == DisplayEnd.Install ? moved.Install : moved.Lift))
                    throw new InvalidInputException(string.Empty, "Somebody has moved that end meanwhile: look at the year as it is now");
                PlanterAct act = EndMove.Of(Now.Plan, moved, end, day, frame.Today);
                if (!act.Changes)
                    throw new InvalidInputException(string.Empty, string.Join("; ", act.Remarks.Select(frame.Facts.Say)));
                string what = $"{act.Planter.Name}: {Words.Of(end)} on {Words.DayYear(day)}";
                await changes.Make(PlanChange.Of(act.Before, act.After), what);
                return Redirect($"/year?day={Words.Iso(day)}");
            },
            OnGetAsync
        );
    }

    /// <summary>Keeps the present plan to compare with later.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostKeepAsync(string? name)
    {
        Now = await frame.Now();
        string called = (name ?? string.Empty).Trim();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await variants.Keep(called, Now.Plan);
                TempData["Said"] = $"The plan as it is now is kept as {called}. Choose it under beside to compare.";
                return Redirect("/year");
            },
            OnGetAsync
        );
    }

    /// <summary>Takes the last changes made together back.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostUndoAsync(Guid change)
    {
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                string what = await changes.Undo(change);
                TempData["Said"] = $"Taken back: {what}.";
                return Redirect("/year");
            },
            OnGetAsync
        );
    }

    /// <summary>Planters in colour in most years, by day, as the day marker counts them.</summary>
    public string InColourByDay()
    {
        var counts = new int[Scale.Days];
        foreach (PlanterSeason season in Year.Planters)
        {
            for (int d = 0; d < counts.Length; d++)
                counts[d] += season.ShareInColour[d] >= ColourOdds.InColour ? 1 : 0;
        }
        return string.Join(' ', counts);
    }

    /// <summary>A weather year as people name it.</summary>
    public string Named(int year) => UnrulyMeadow.Core.Climate.WeatherYear.Name(year, spansNewYear: View.Start.Month > 1);

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Of(View.Start);
        SiteYear all = await frame.Soon(frame.State.Year(View.Start, null));
        WeatherYears = all.WeatherYears;
        Notable = await frame.Soon(frame.State.Notable(View.Start));
        WeatherYear = Weather switch
        {
            "typical" => Notable?.Typical,
            "hardest-winter" => Notable?.HardestWinter,
            "hottest-summer" => Notable?.HottestSummer,
            "late-spring" => Notable?.LatestSpring,
            _ => int.TryParse(Weather, out int y) && WeatherYears.Contains(y) ? y : null,
        };
        Year = WeatherYear is null ? all : await frame.Soon(frame.State.Year(View.Start, WeatherYear));
        Variants = await variants.All();
        await SetBeside();
        Threats = await care.Threatening();
        _seen = (await log.Between(View.Start, View.Start.PlusMonths(12))).Where(o => o.Counts).ToLookup(o => o.PlanterId);
    }

    private async Task SetBeside()
    {
        SiteYear? planned = null;
        if (Enum.TryParse(Beside, out RehearsalKind kind) && Enum.IsDefined(kind))
        {
            Rehearsal = await frame.Soon(frame.State.Rehearsed(View.Start, kind, frame.Today));
            if (Rehearsal is not null)
                (planned, Year, BesideName) = (Rehearsal.Planned, Rehearsal.Under, Words.Of(kind));
        }
        else if (Guid.TryParse(Beside, out Guid id) && await variants.Load(id) is { } kept)
        {
            // Named years compare like with like only over all weather years.
            planned = await frame.Soon(frame.State.YearOf(id, kept.Plan, View.Start));
            (Year, BesideName) = (await frame.Soon(frame.State.Year(View.Start, null)), kept.Name);
            WeatherYear = null;
        }
        if (planned is null)
            return;
        Comparison = YearComparison.Of(planned, Year);
        _planned = planned.Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
    }

    private IEnumerable<YearGroup> Grouped()
    {
        IReadOnlyList<PlanterSeason> shown = string.IsNullOrEmpty(Area) ? Year.Planters : [.. Year.Planters.Where(p => p.Planter.AreaId == Area)];
        bool fold = shown.Count > MostOpen;
        if (WorstFirst)
        {
            yield return new YearGroup(Area ?? string.Empty, "Barest first", shown, Open(shown, fold, MostOpen));
            yield break;
        }
        int areas = Math.Max(1, shown.Select(p => p.Planter.AreaId).Distinct().Count());
        foreach (Area area in Now.Plan.Areas)
        {
            List<PlanterSeason> here = [.. shown.Where(p => p.Planter.AreaId == area.Id)];
            if (here.Count > 0)
                yield return new YearGroup(area.Id, area.Name, here, Open(here, fold, Math.Max(2, MostOpen / areas)));
        }
    }

    // Of a folded area the barest stand open, one for all whose year is the same day by day.
    private IReadOnlyList<YearRow> Open(IReadOnlyList<PlanterSeason> seasons, bool fold, int most)
    {
        if (!fold)
            return [.. Ordered(seasons, WorstFirst).Select(Row)];
        return
        [
            .. Ordered(seasons, true)
                .GroupBy(s =>
                    (s.DaysInColour, string.Join(';', s.BareSpells.Select(b => $"{b.FirstDay}{b.LastDay}")), s.Cover50.Sum(), s.Planter.Form.Shape)
                )
                .Take(most)
                .Select(g => Row(g.First()) with { AlikeIds = [.. g.Skip(1).Select(p => p.Planter.Id)] }),
        ];
    }

    // Folded areas stand with their barest open; those that are all drawn keep the plan's order.
    private IReadOnlyList<PlanterSeason> Ordered(IReadOnlyList<PlanterSeason> seasons, bool? barest = null) =>
        barest ?? (WorstFirst || seasons.Count > MostOpen || Year.Planters.Count > MostOpen)
            ?
            [
                .. seasons
                    .Select(s => (Season: s, Days: s.ShareInColour.Sum()))
                    .OrderBy(s => s.Days)
                    .ThenBy(s => s.Season.Planter.Name, StringComparer.Ordinal)
                    .Select(s => s.Season),
            ]
            : seasons;

    private YearRow Row(PlanterSeason season) =>
        new(
            season,
            _planned.GetValueOrDefault(season.Planter.Id),
            Scale,
            [.. _seen[season.Planter.Id]],
            [.. Now.Plan.DisplaysOf(season.Planter.Id)],
            Units
        )
        {
            // Under a rehearsed year, or beside another plan, the rules are only looked at.
            MovableFrom = Comparison is null && WeatherYear is null ? frame.Today : null,
        };
}
