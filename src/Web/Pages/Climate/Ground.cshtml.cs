using System.Xml.Linq;
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

/// <summary>Beds and pots: temperature at a depth, planting windows, cold weeks, and whether roots live.</summary>
[Needs(SiteRole.Guest)]
public sealed class GroundModel(PageFrame frame, LiveStore live, DrawingSheet sheet) : PageModel
{
    private static readonly double[] Depths = [8, 15, 18, 25];

    private static readonly (int Month, int Day)[] PlantingDays = [(9, 15), (10, 1), (10, 15), (11, 1), (11, 15), (12, 1), (12, 15), (1, 15)];

    [BindProperty(SupportsGet = true, Name = "")]
    public ClimateQuestion Question { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public UnitsText Units => frame.Units;

    public WeatherRecord? Record => Now.Record is { YearsUsed.Count: > 0 } ? Now.Record : null;

    /// <summary>The record that odds are read off: generated years where the station's own are few.</summary>
    public WeatherRecord Odds { get; private set; } = null!;

    public ThermalClass Class { get; private set; } = null!;

    public WallMaterial Wall { get; private set; }

    public string PlaceName { get; private set; } = string.Empty;

    public double DepthCm { get; private set; }

    public PlantingWindow Window { get; private set; } = null!;

    public IReadOnlyList<PlantingWindow> Windows { get; private set; } = [];

    public IReadOnlyList<LocalDate> Days { get; private set; } = [];

    /// <summary>The last planting day that gives tulips their cold in 9 of 10 winters; null when none does.</summary>
    public LocalDate? TulipsUntil => Cold[^1].Latest;

    public IReadOnlyList<(BulbKind Kind, double DepthCm, IReadOnlyList<ColdWeeks> Cold, LocalDate? Latest)> Cold { get; private set; } = [];

    public (double KillingC, bool Estimated, string Name) Roots { get; private set; }

    /// <summary>The class asked, or a pot of 40 cm where a bed was asked.</summary>
    public ThermalClass RootClass { get; private set; } = null!;

    public string RootPlace { get; private set; } = string.Empty;

    public RootSurvival Survival { get; private set; } = null!;

    public RootSurvival InBed { get; private set; } = null!;

    /// <summary>What roots feel where they are asked for.</summary>
    public GroundTemperatures RootZone { get; private set; } = null!;

    public IReadOnlyList<RootRemedy> Remedies { get; private set; } = [];

    public IReadOnlyList<GroundRemark> Remarks { get; private set; } = [];

    public string OnTopName => OnTop?.Name ?? string.Empty;

    private YearOnTop? OnTop { get; set; }

    private DailyBand Band { get; set; } = null!;

    public async Task OnGetAsync() => await Load();

    public async Task<IActionResult> OnGetCsvAsync()
    {
        await Load();
        return Record is null
            ? NotFound()
            : File(ClimateSheets.Band(Band, OnTop?.Low, Odds.Station.IsSouthern), "text/csv", "ground-temperature.csv");
    }

    public async Task<IActionResult> OnGetWindowsAsync()
    {
        await Load();
        return Record is null ? NotFound() : File(ClimateSheets.Windows(Windows), "text/csv", "planting-windows.csv");
    }

    public async Task<IActionResult> OnGetDaysAsync()
    {
        await Load();
        return Record is not { } record
            ? NotFound()
            : File(ClimateSheets.Days(GroundClimate.Of(record).Of(Class), DepthCm), "text/csv", "root-zone-days.csv");
    }

    public async Task<IActionResult> OnGetColdAsync()
    {
        await Load();
        return Record is null
            ? NotFound()
            : File(ClimateSheets.Cold(Cold.SelectMany(c => c.Cold.Select(w => (c.Kind, c.DepthCm, w)))), "text/csv", "cold-weeks.csv");
    }

    public async Task<IActionResult> OnGetRootsAsync()
    {
        await Load();
        return Record is null ? NotFound() : File(ClimateSheets.Roots(RootRows, Roots.KillingC, Roots.Estimated), "text/csv", "roots.csv");
    }

    public async Task<IActionResult> OnGetSvgAsync()
    {
        await Load();
        return Record is null ? NotFound() : File(sheet.Standalone(Figure()), "image/svg+xml", "climate-ground.svg");
    }

    /// <summary>The drawing.</summary>
    public XElement Figure() =>
        ClimateFigure.Ground(Band, OnTop, Window, TulipsUntil, YearScale.Of(BulbCalendar.CommonStart(Odds.Station.IsSouthern)), Units, PlaceName);

    /// <summary>The place as it stands, a bed to compare with, and every remedy.</summary>
    public IEnumerable<(string What, RootSurvival Survival)> RootRows =>
        new[] { (RootPlace + ", as it stands", Survival), ("in a bed under thin litter", InBed) }.Concat(
            Remedies.Select(r => (frame.Facts.Say(r.What), r.Survival))
        );

    /// <summary>The question as a query, for links.</summary>
    public string Query(string handler) =>
        "/climate/ground"
        + QueryString.Create(
            new Dictionary<string, string?>
            {
                ["handler"] = handler,
                ["where"] = Question.Where,
                ["depth"] = Question.Depth,
                ["weather"] = Question.Weather,
                ["plant"] = Question.Plant,
                ["width"] = Question.Width,
                ["wall"] = Question.Wall,
                ["sun"] = Question.Sun,
            }.Where(p => !string.IsNullOrEmpty(p.Value))
        );

    /// <summary>The sentence that heads the page.</summary>
    public string Sentence()
    {
        string depth = Units.WorkingDepth(DepthCm);
        if (Window.OpensSafely is not { } opens)
            return $"In the {PlaceName} it never cools enough at {depth} to plant bulbs.";
        string from = opens.ToString("d MMMM", null);
        GroundFreeze freeze = Window.Freeze;
        if (Window.LastSafeDay is { } last && Before(opens, last))
            return (
                $"Plant at {depth} in the {PlaceName} from {from} to {last.ToString("d MMMM", null)}; "
                + $"it freezes there {Words.InTen(1 - freeze.Freezes.ShareWithout)}."
            );
        if (Window.LastSafeDay is not null)
            return $"At {depth} in the {PlaceName} it freezes too soon after {from} for bulbs to root in 9 years of 10.";
        string frost =
            freeze.Freezes.ShareWithout >= 0.999 ? "it does not freeze there"
            : freeze.Freezes.ShareWithout > 0.95 ? "it hardly ever freezes there"
            : $"it freezes there {Words.InTen(1 - freeze.Freezes.ShareWithout)}";
        return TulipsUntil is { } cold && Before(opens, cold)
            ? $"Plant at {depth} in the {PlaceName} from {from}, tulips by {cold.ToString("d MMMM", null)} for their cold; {frost}."
            : $"Plant at {depth} in the {PlaceName} from {from}; {frost}, and tulips get too little cold.";
    }

    // Both as days of the common year, which begins in late summer.
    private bool Before(LocalDate a, LocalDate b) => BulbCalendar.Slot(a, Odds.Station.IsSouthern) < BulbCalendar.Slot(b, Odds.Station.IsSouthern);

    private async Task Load()
    {
        Now = await frame.Now();
        if (Record is not { } record)
            return;
        (LiveReading? heard, IReadOnlyList<LiveDay> told) = await live.Load();
        var years = new ClimateYears(record, heard?.IsNear(record.Station) == true ? told : []);
        Odds = record.ForOdds;
        DepthCm = Question.DepthCm(Units);
        (Class, Wall, PlaceName) = Question.Place(Now.Plan, frame.Facts);
        bool southern = Odds.Station.IsSouthern;
        (RootClass, RootPlace) = Class.IsBed
            ? (Question.Pot(Units), $"{Words.Of(Question.WallOfPot)} pot, {Units.Length(Question.WidthCm(Units))}")
            : (Class, PlaceName);
        GroundClimate.Of(Odds).Prepare([Class, RootClass, BulbPlace.UsualBed.Class]);
        GroundTemperatures ground = GroundClimate.Of(Odds).Of(Class);
        float[] soil = GroundClimate.Of(Odds).At(new BulbPlace(Class, DepthCm));
        Band = DailyBand.From(i => soil[i], Odds);
        Window = PlantingWindow.From(ground, Odds, DepthCm);
        Windows =
        [
            .. Depths
                .Append(DepthCm)
                .Distinct()
                .Order()
                .Where(d => Class.IsBed || d / 100 <= Class.DepthM)
                .Select(d => PlantingWindow.From(ground, Odds, d)),
        ];
        Days = [.. PlantingDays.Select(d => new LocalDate(d.Month < 8 ? 2002 : 2001, d.Month, d.Day)).Select(d => southern ? d.PlusMonths(-6) : d)];
        Cold =
        [
            .. BulbKind.All.Select(k =>
            {
                double depth = Class.IsBed ? k.UsualDepthCm : Math.Min(k.UsualDepthCm, Class.DepthM * 100);
                float[] there = GroundClimate.Of(Odds).At(new BulbPlace(Class, depth));
                return (
                    k,
                    depth,
                    (IReadOnlyList<ColdWeeks>)[.. Days.Select(d => ColdWeeks.From(there, Odds, d))],
                    ColdWeeks.LatestDay(there, Odds, k, 0.9)
                );
            }),
        ];
        Roots = Question.Roots(Now.Plan);
        RootZone = GroundClimate.Of(Odds).Of(RootClass);
        Survival = RootSurvival.From(RootZone, Odds);
        InBed = RootSurvival.From(GroundClimate.Of(Odds).Of(BulbPlace.UsualBed.Class), Odds);
        Remedies = RootRemedy.For(RootClass, Odds, Roots.KillingC);
        Remarks = [.. GroundRemark.For(RootZone, Odds, Class.IsBed ? Question.WallOfPot : Wall)];
        if (
            Question.Shown(
                record,
                NotableYears.From(record, [.. Now.Plan.Planters.Where(p => !p.Form.IsBed).Select(p => p.ThermalClass()).Distinct()]),
                years.YearOf(frame.Today)
            ) is
            { } shown
        )
            OnTop = years.Ground(shown.Year, shown.Name, new BulbPlace(Class, DepthCm));
    }
}
