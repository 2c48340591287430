using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Climate;

/// <summary>Frost as odds, the hardiness zone, monthly means; brings a station's record in.</summary>
public sealed class IndexModel(PageFrame frame, WeatherStore weather) : PageModel
{
    /// <summary>28 °F, a killing freeze, in °C.</summary>
    public const double HardFreezeC = (28.0 - 32) * 5 / 9;

    [BindProperty]
    public IFormFile? Upload { get; set; }

    [BindProperty]
    public string? StationId { get; set; }

    [BindProperty]
    public string? StationName { get; set; }

    [BindProperty]
    public string? Latitude { get; set; }

    [BindProperty]
    public string? Longitude { get; set; }

    [BindProperty]
    public string? Elevation { get; set; }

    [BindProperty]
    public string? FileUnits { get; set; } = nameof(WeatherUnits.Metric);

    [BindProperty]
    public string? Location { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<StationSummary> Stations { get; private set; } = [];

    public WeatherRecord? Record => Now.Record is { YearsUsed.Count: > 0 } ? Now.Record : null;

    public (FrostOdds Spring, FrostOdds Fall) Light { get; private set; }

    public (FrostOdds Spring, FrostOdds Fall) Hard { get; private set; }

    public HardinessZone? Zone { get; private set; }

    public IReadOnlyList<MonthMeans> Months { get; private set; } = [];

    public YearScale Scale { get; private set; } = null!;

    public async Task OnGetAsync() => await Fill();

    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(this, Field, async () =>
        {
            if (Upload is null)
                throw new InvalidInputException("file", "choose a file first");
            await using Stream stream = Upload.OpenReadStream();
            WeatherFileContents contents = WeatherFile.Read(
                stream,
                FileUnits == nameof(WeatherUnits.UsCustomary) ? WeatherUnits.UsCustomary : WeatherUnits.Metric,
                string.IsNullOrWhiteSpace(Location) ? null : Location.Trim());
            Station station = StationOf(contents);
            int added = await weather.Merge(station, contents.Days, frame.Instant);
            frame.Forget();
            TempData["Said"] = Said(station, contents, added);
            return Redirect("/climate");
        }, Fill);
    }

    public async Task<IActionResult> OnPostChooseAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(this, _ => null, async () =>
        {
            await weather.Choose(StationId ?? string.Empty);
            return Redirect("/climate");
        }, Fill);
    }

    private static string Said(Station station, WeatherFileContents contents, int added)
    {
        string said = $"{station.Name}: {contents.Days.Count:#,0} days read, {added:#,0} of them new.";
        if (contents.FlaggedValues > 0)
            said += $" {contents.FlaggedValues:#,0} values left out because the source flags them.";
        if (contents.RefusedCount > 0)
            said += $" {contents.RefusedCount:#,0} lines refused: " + string.Join("; ", contents.Refused.Take(5).Select(r => $"line {r.Line} {r.Why}")) + (contents.RefusedCount > 5 ? "; …" : ".");
        if (contents.Locations.Count > 1)
            said += $" The file holds {string.Join(", ", contents.Locations)}; {contents.Locations[0]} was read.";
        return said;
    }

    private static string? Field(string fault) => fault switch
    {
        "file" => "Upload",
        "id" => "StationId",
        "name" => "StationName",
        "latitudeDeg" => "Latitude",
        "longitudeDeg" => "Longitude",
        "elevationM" => "Elevation",
        "location" => "Location",
        _ => null,
    };

    private Station StationOf(WeatherFileContents contents)
    {
        var faults = new FaultList();
        string id = Text(StationId) ?? contents.Station?.Id ?? contents.StationId ?? (Text(StationName) is { } name ? Ids.From(name, _ => false) : string.Empty);
        StationSummary? known = Stations.FirstOrDefault(s => s.Id == id);
        double? Number(string? text, string field, double? otherwise)
        {
            if (Text(text) is not { } given)
            {
                if (otherwise is null)
                    faults.Add(field, "is needed: the file does not tell it");
                return otherwise;
            }
            if (double.TryParse(given.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out double v) && double.IsFinite(v))
                return v;
            faults.Add(field, "must be a number");
            return null;
        }
        if (id.Length == 0)
            faults.Add("id", "is needed: the file names no station");
        var station = new Station(
            id,
            Text(StationName) ?? known?.Name ?? contents.Station?.Name ?? id,
            Number(Latitude, "latitudeDeg", known?.LatitudeDeg ?? contents.Station?.LatitudeDeg) ?? 0,
            Number(Longitude, "longitudeDeg", known?.LongitudeDeg ?? contents.Station?.LongitudeDeg) ?? 0,
            Number(Elevation, "elevationM", known?.ElevationM ?? contents.Station?.ElevationM ?? 0) ?? 0);
        faults.AddAll(string.Empty, station.Faults());
        faults.ThrowIfAny();
        return station;
    }

    private static string? Text(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();

    private async Task Fill()
    {
        Now = await frame.Now();
        Stations = await weather.Stations();
        if (Record is not { } record)
            return;
        Light = (FrostOdds.From(record, FrostEnd.LastSpring, 0), FrostOdds.From(record, FrostEnd.FirstFall, 0));
        Hard = (FrostOdds.From(record, FrostEnd.LastSpring, HardFreezeC), FrostOdds.From(record, FrostEnd.FirstFall, HardFreezeC));
        Zone = HardinessZone.From(record);
        Months = MonthMeans.From(record);
        Scale = YearScale.Of(new LocalDate(2001, record.Station.IsSouthern ? 7 : 1, 1));
    }
}
