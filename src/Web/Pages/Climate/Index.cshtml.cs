using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Climate;

/// <summary>The air: frost as odds, the hardiness zone, heat, and all years with one on top.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, LiveStore live, DrawingSheet sheet) : PageModel
{
    [BindProperty(SupportsGet = true)]
    public string? Weather { get; set; }

    /// <summary>A day of which the odds are asked, as typed.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Out { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public WeatherRecord? Record => Now.Record is { YearsUsed.Count: > 0 } ? Now.Record : null;

    /// <summary>What the record says of the site's air; nothing without one.</summary>
    public ClimateFigures Figures { get; private set; } = null!;

    public IReadOnlyList<FrostAt> Frost => Figures.Frost;

    public FrostOdds Spring => Frost[1].Spring;

    public FrostOdds Fall => Frost[1].Fall;

    public HardinessZone Zone => Figures.Zone;

    public HeatSpells Heat => Figures.Heat;

    public ClimateRemarks Remarks => Figures.Remarks;

    public NotableYears Notable => Figures.Notable;

    public IReadOnlyList<MonthMeans> Months => Figures.Months;

    public LocalDate? OutDay { get; private set; }

    public LiveReading? Live { get; private set; }

    public LocalDate Today => frame.Today;

    public string OnTopName { get; private set; } = string.Empty;

    private YearOnTop? OnTop { get; set; }

    public async Task OnGetAsync() => await Load();

    public async Task<IActionResult> OnGetCsvAsync()
    {
        await Load();
        return Record is null
            ? NotFound()
            : File(ClimateSheets.Frost(Frost.SelectMany(f => new[] { f.Spring, f.Fall })), "text/csv", "frost-odds.csv");
    }

    public async Task<IActionResult> OnGetMonthsAsync()
    {
        await Load();
        return Record is null ? NotFound() : File(ClimateSheets.Months(Months), "text/csv", "months.csv");
    }

    public async Task<IActionResult> OnGetAirAsync()
    {
        await Load();
        return Record is not { } record
            ? NotFound()
            : File(
                ClimateSheets.Band(
                    DailyBand.From(i => (record.MinC[i] + record.MaxC[i]) / 2, record),
                    OnTop is null ? null : [.. OnTop.Low.Zip(OnTop.High, (a, b) => (a + b) / 2)],
                    record.Station.IsSouthern
                ),
                "text/csv",
                "air-means.csv"
            );
    }

    public async Task<IActionResult> OnGetSvgAsync()
    {
        await Load();
        return Record is null ? NotFound() : File(sheet.Standalone(Figure()), "image/svg+xml", "climate-air.svg");
    }

    /// <summary>The drawing.</summary>
    public System.Xml.Linq.XElement Figure()
    {
        WeatherRecord record = Record!;
        bool southern = record.Station.IsSouthern;
        return ClimateFigure.Air(
            (Spring, Fall),
            (Frost[2].Spring, Frost[2].Fall),
            Figures.Low,
            Figures.High,
            OnTop,
            YearScale.Of(BulbCalendar.CommonStart(southern)),
            frame.Units
        );
    }

    /// <summary>The odds of the day asked, in words.</summary>
    public string OutSentence()
    {
        LocalDate day = OutDay!.Value;
        bool towardsSummer = (day.Month < 7) != Record!.Station.IsSouthern;
        return towardsSummer
            ? $"Planted out on {day.ToString("d MMMM", null)}, a freeze follows {Words.InTen(Spring.OddsOn(day))}."
            : $"By {day.ToString("d MMMM", null)} a freeze has come {Words.InTen(Fall.OddsOn(day))}.";
    }

    private async Task Load()
    {
        Now = await frame.Now();
        (Live, IReadOnlyList<LiveDay> days) = await live.Load();
        if (Record is not { } record || await frame.Soon(frame.State.Climate()) is not { } figures)
            return;
        Figures = figures;
        OutDay = Words.ReadDay(Out) ?? Spring.DateAt(Now.Plan.Site.FrostRisk).Date;
        var years = new ClimateYears(record, Live?.IsNear(record.Station) == true ? days : []);
        if (new ClimateQuestion { Weather = Weather }.Shown(record, Notable, years.YearOf(frame.Today)) is { } shown)
            OnTop = years.Air(shown.Year, shown.Name);
        OnTopName = OnTop?.Name ?? string.Empty;
    }
}
