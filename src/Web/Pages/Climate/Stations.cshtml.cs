using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Climate;

/// <summary>The stations: brings records in, takes monthly normals, and says which one the site computes with.</summary>
[Needs(SiteRole.Guest)]
public sealed class StationsModel(PageFrame frame, WeatherStore weather, LiveStore live, HeavyWork heavy) : PageModel
{
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

    /// <summary>Stations taken out, which can be put back.</summary>
    public IReadOnlyList<StationSummary> Removed { get; private set; } = [];

    [BindProperty]
    public bool LeaveOut { get; set; }

    [BindProperty]
    public NormalsInput Normals { get; set; } = new();

    [BindProperty]
    public LikeInput Like { get; set; } = new();

    /// <summary>Most years given as a file at once.</summary>
    public const int MostGeneratedYears = 300;

    // Dates that no spreadsheet refuses, and that have not happened.
    private const int SheetFirstYear = 2101;

    /// <summary>The normals behind a record: its own, or those it was generated from.</summary>
    public static DailyNormals NormalsOf(WeatherRecord record) => record.GeneratedFrom ?? DailyNormals.From(record);

    /// <summary>True while the station was chosen by hand; otherwise the nearest is followed.</summary>
    public bool IsChosen { get; private set; }

    public LiveReading? Live { get; private set; }

    public Instant Instant => frame.Instant;

    /// <summary>Distance from the site, km; null where the site's place is not known.</summary>
    public double? DistanceKm(StationSummary station) =>
        Now.Plan.Site.Place is { } place ? station.Station.DistanceKm(place.LatitudeDeg, place.LongitudeDeg) : null;

    public async Task OnGetAsync() => await Load();

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                if (Upload is null)
                    throw new InvalidInputException("file", "choose a file first");
                WeatherFileContents contents = await heavy.Do(async () =>
                {
                    await using Stream stream = Upload.OpenReadStream();
                    return await Task.Run(() =>
                        WeatherFile.Read(
                            stream,
                            FileUnits == nameof(WeatherUnits.UsCustomary) ? WeatherUnits.UsCustomary : WeatherUnits.Metric,
                            string.IsNullOrWhiteSpace(Location) ? null : Location.Trim(),
                            LeaveOut
                        )
                    );
                });
                Station station = StationOf(contents);
                int added = await weather.Merge(station, contents.Days, frame.Instant);
                frame.Forget();
                TempData["Said"] = Said(station, contents, added);
                return Redirect("/climate/ground");
            },
            Load
        );
    }

    /// <summary>Years generated from the normals of the record in use, as a file that any reader of weather takes.</summary>
    public async Task<IActionResult> OnGetGenerateAsync(int years, int seed)
    {
        await Load();
        if (Now.Record is not { YearsUsed.Count: > 0 } record)
            return NotFound();
        if (years is < 1 or > MostGeneratedYears)
            return BadRequest();
        return File(
            ClimateSheets.Weather(WeatherGenerator.Generate(NormalsOf(record), seed, SheetFirstYear, years)),
            "text/csv",
            $"generated-{years}-years-seed-{seed}.csv"
        );
    }

    /// <summary>A station's record of days, to the last digit, as a file that is read here again.</summary>
    public async Task<IActionResult> OnGetDaysAsync(string? station)
    {
        await Load();
        if (Stations.FirstOrDefault(s => s.Id == station && !s.IsNormals) is not { } found)
            return NotFound();
        return File(StationSheet.Write(await weather.Days(found.Id)), "text/csv", $"{Ids.From(found.Name, _ => false)}.csv");
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostNearestAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (Now.Plan.Site.Place is null)
                    throw new InvalidInputException(
                        string.Empty,
                        "Say on the Site page where the site lies, and the nearest station can be followed."
                    );
                await weather.ChooseNearest();
                return Redirect("/climate/stations");
            },
            Load
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostNormalsAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            NormalsInput.Field,
            async () =>
            {
                (Station station, MonthlyNormals normals) = Normals.Read(frame.Units, Now.Plan.Site.Place);
                NormalsInput.Check(station, normals);
                return await Take(station, normals);
            },
            Load
        );
    }

    /// <summary>Takes the climate of a place that the site's is like.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostLikeAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            LikeInput.Field,
            async () =>
            {
                ReferenceClimate climate = await Task.Run(() => Like.Read(frame.Units));
                return await Take(climate.Station, climate.Normals);
            },
            Load
        );
    }

    private async Task<IActionResult> Take(Station station, MonthlyNormals normals)
    {
        await weather.SaveNormals(station, normals, frame.Instant);
        frame.Forget();
        TempData["Said"] =
            $"{station.Name}: {WeatherStore.GeneratedYears} years are generated from its normals. Odds read from them are rougher than from a record.";
        return Redirect("/climate/ground");
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostChooseAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await weather.Choose(StationId ?? string.Empty);
                return Redirect("/climate/stations");
            },
            Load
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await weather.Remove(StationId ?? string.Empty, frame.Instant);
                TempData["Said"] = "The station is taken out. It can be put back below, with all its days.";
                return Redirect("/climate/stations");
            },
            Load
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPutBackAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await weather.PutBack(StationId ?? string.Empty);
                TempData["Said"] = "The station is back.";
                return Redirect("/climate/stations");
            },
            Load
        );
    }

    private static string Said(Station station, WeatherFileContents contents, int added)
    {
        string said = $"{station.Name}: {contents.Days.Count:#,0} days read, {added:#,0} of them new.";
        if (contents.FlaggedValues > 0)
            said += $" {contents.FlaggedValues:#,0} values left out because the source flags them.";
        if (contents.RefusedCount > 0)
            said +=
                $" {contents.RefusedCount:#,0} lines refused: "
                + string.Join("; ", contents.Refused.Take(5).Select(r => $"line {r.Line} {r.Why}"))
                + (contents.RefusedCount > 5 ? "; …" : ".");
        foreach (string note in contents.Notes.Take(5))
            said += $" Note: {note}.";
        if (contents.Locations.Count > 1)
            said += $" The file holds {string.Join(", ", contents.Locations)}; {contents.Locations[0]} was read.";
        return said;
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "file" => "Upload",
            "id" => "StationId",
            "name" => "StationName",
            "latitudeDeg" => "Latitude",
            "longitudeDeg" => "Longitude",
            "elevationM" => "Elevation",
            "location" => "Location",
            "climateId" => "ClimateId",
            _ => null,
        };

    private Station StationOf(WeatherFileContents contents)
    {
        UnitsText units = frame.Units;
        var faults = new FaultList();
        string id = Text(StationId)
            ?? contents.Station?.Id
            ?? contents.StationId
            ?? (Text(StationName) is { } name ? Ids.From(name, _ => false) : string.Empty);
        StationSummary? known = Stations.FirstOrDefault(s => s.Id == id);
        double? Number(string? text, string field, double? otherwise)
        {
            if (Text(text) is not { } given)
            {
                if (otherwise is null)
                    faults.Add(field, "is needed: the file does not tell it");
                return otherwise;
            }
            if (TypedNumber.Read(given) is { } v)
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
            units.ReadMetres(Number(Elevation, "elevationM", units.Metres(known?.ElevationM ?? contents.Station?.ElevationM ?? 0)) ?? 0)
        );
        faults.AddAll(string.Empty, station.Faults());
        faults.ThrowIfAny();
        return station;
    }

    private static string? Text(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();

    private async Task Load()
    {
        Now = await frame.Now();
        Stations = await weather.Stations();
        Removed = await weather.RemovedStations();
        IsChosen = await weather.IsChosen();
        (Live, _) = await live.Load();
    }
}
