using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Exchange.Maps;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Grounds;

/// <summary>"What will visitors see on that day?": the site to scale, every planter painted with what shows.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, MapStore maps, DrawingSheet sheet, HeavyWork heavy) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true, Name = "draw")]
    public string? Draw { get; set; }

    [BindProperty]
    public IFormFile? Upload { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public GroundsMap Map { get; private set; } = null!;

    public IReadOnlyList<(Planter Planter, PaintStretch Paint)> Painted { get; private set; } = [];

    public IReadOnlyList<PathBalance> Paths { get; private set; } = [];

    public IReadOnlyList<AreaWalk> Walks { get; private set; } = [];

    /// <summary>Planters that trees will shade; null while that is computed.</summary>
    public IReadOnlyList<ExposureForecast>? Changing { get; private set; } = [];

    public IReadOnlyList<RootReach> Roots { get; private set; } = [];

    public int NotPlaced { get; private set; }

    public IReadOnlyList<Planter> Bare => [.. Painted.Where(p => p.Paint.Showing != Showing.Colour).Select(p => p.Planter)];

    /// <summary>The sentence of the day.</summary>
    public string Sentence
    {
        get
        {
            if (Painted.Count == 0)
                return Now.Plan.Planters.Count == 0 ? "No planters yet" : $"None of {Now.Plan.Planters.Count} planters stands on the map yet";
            int shown = Painted.Count - Bare.Count;
            return Bare.Count switch
            {
                0 => $"All {Painted.Count} planters on the map show colour",
                1 => $"{shown} of {Painted.Count} planters show colour; not the {Bare[0].Name}",
                _ => (
                    $"{shown} of {Painted.Count} planters show colour; not the "
                    + $"{string.Join(", ", Bare.Take(3).Select(p => p.Name))}{(Bare.Count > 3 ? $" and {Bare.Count - 3} more" : string.Empty)}"
                ),
            };
        }
    }

    public async Task OnGetAsync() => await Load();

    /// <summary>Every planter's looks through the plan year, for a map that is moved through it.</summary>
    public async Task<IActionResult> OnGetLooksAsync(string? start)
    {
        Now = await frame.Now();
        LocalDate from = Words.ReadDay(start) is { Day: 1 } day ? day : SiteYear.UsualStart(frame.Today, Now.IsSouthern);
        SiteYear year = await frame.State.Year(from, null);
        var colours = new List<string>();
        var known = new Dictionary<string, int>(StringComparer.Ordinal);
        int Number(string colour)
        {
            if (!known.TryGetValue(colour, out int n))
            {
                known[colour] = n = colours.Count;
                colours.Add(colour);
            }
            return n;
        }
        var painted = await frame.State.Derived(Now, ("looks", year), _ =>
            SideBySide.Each([.. year.Planters.Where(p => p.Planter.Place is not null)], p => (p.Planter.Id, Stretches: PlanterPaint.Of(p)))
        );
        var looks = painted.ToDictionary(
            p => p.Id,
            p =>
                p.Stretches.Select(s =>
                        (int[])[s.FromIndex, (int)s.Showing, .. s.Colours.SelectMany(c => new[] { Number(c.Colour), (int)Math.Round(c.Share * 100) })]
                    )
                    .ToArray(),
            StringComparer.Ordinal
        );
        Response.Headers.CacheControl = "private,max-age=60";
        return new JsonResult(new { colours, looks }, new JsonSerializerOptions());
    }

    /// <summary>The map as GeoJSON.</summary>
    public async Task<IActionResult> OnGetGeoJsonAsync()
    {
        Now = await frame.Now();
        if (Now.Plan.Site.Place is null)
        {
            TempData["Said"] = "Say first where the site lies: a map file needs its place on earth.";
            return Redirect("/site");
        }
        return File(MapFile.Write(Now.Plan), "application/geo+json", "grounds.geojson");
    }

    /// <summary>The map as a picture.</summary>
    public async Task<IActionResult> OnGetSvgAsync()
    {
        await Load();
        return File(sheet.Standalone(Map.Draw()), "image/svg+xml", $"grounds-{Words.Iso(View.Day)}.svg");
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f => f == "file" ? "Upload" : null,
            async () =>
            {
                if (Upload is null || Upload.Length == 0)
                    throw new InvalidInputException("file", "choose a file first");
                SiteNow now = await frame.Now();
                MapChanges changes = await heavy.Do(async () =>
                {
                    await using Stream stream = Upload.OpenReadStream();
                    return await Task.Run(() => MapFile.Read(stream, now.Plan));
                });
                await maps.Put(changes.Features, changes.Planters, changes.NewAreas, now.Versions);
                TempData["Said"] =
                    $"{changes.Features.Count} features and {changes.Planters.Count} planters taken from {Path.GetFileName(Upload.FileName)}.";
                return Redirect("/grounds");
            },
            Load
        );

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostFeatureAsync(string? kind, string? name, string? points, string? height, string? width, string? growth) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Now = await frame.Now();
                UnitsText units = frame.Units;
                double Read(string? text) =>
                    string.IsNullOrWhiteSpace(text) ? 0
                    : TypedNumber.Read(text) is { } v ? Math.Round(units.ReadMetres(v), 2)
                    : double.NaN;
                MapKind what =
                    Enum.TryParse(kind, out MapKind k) && Enum.IsDefined(k) ? k : throw new InvalidInputException("kind", "choose what it is");
                MapPoint[] corners =
                [
                    .. (points ?? string.Empty)
                        .Split(';', StringSplitOptions.RemoveEmptyEntries)
                        .Select(p =>
                            p.Split(' ') is [var e, var n]
                                ? new MapPoint(Metres(e), Metres(n))
                                : throw new InvalidInputException("points", "click the map to give its points")
                        ),
                ];
                var feature = new MapFeature
                {
                    Id = Ids.From(string.IsNullOrWhiteSpace(name) ? what.ToString() : name, x => Now.Plan.Map.Any(f => f.Id == x)),
                    Kind = what,
                    Name = name?.Trim() ?? string.Empty,
                    Points = corners,
                    HeightM = Read(height),
                    WidthM = Read(width),
                    RootM = what == MapKind.Tree ? Read(width) : 0,
                    GrowthM = Read(growth),
                    SurveyedIn = frame.Today.Year,
                };
                await maps.Put([feature], [], [], Now.Versions);
                TempData["Said"] = $"{(feature.Name.Length > 0 ? feature.Name : Words.Of(what))} added to the map.";
                return Redirect("/grounds");

                static double Metres(string text) =>
                    double.TryParse(text, System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out double v)
                        ? Math.Round(v, 2)
                        : double.NaN;
            },
            Load
        );

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostDropAsync(string? id, long version) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await maps.Remove(id ?? string.Empty, version);
                TempData["Said"] = "Taken off the map.";
                return Redirect("/grounds");
            },
            Load
        );

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Across(View.Start);
        SiteYear year = await frame.Soon(frame.State.Year(View.Start, null));
        int index = Math.Clamp(Period.DaysBetween(View.Start, View.Day), 0, Scale.Days - 1);
        LocalDate day = View.Day;
        NotPlaced = Now.Plan.Planters.Count(p => p.Place is null && !p.IsRetired);
        UnitsText units = frame.Units;
        (Painted, Map, Paths) = await frame.Soon(
            frame.State.Derived(Now, ("grounds", year, day, frame.Base, units.System), now => Drawn(now, year, day, index, frame.Base, units))
        );
        Walks = await frame.Soon(frame.State.Derived(Now, "walks", now => WalkingWays.Of(now.Plan.Areas, now.Plan.Planters, now.Plan.Map)));
        if ((Now.Plan.Site.Place?.LatitudeDeg ?? Now.Record?.Station.LatitudeDeg) is { } latitude)
            Changing = await frame.IfSoon(frame.State.SunAhead(latitude, frame.Today.Year));
        int thisYear = frame.Today.Year;
        Roots = await frame.Soon(frame.State.Derived(Now, ("roots", thisYear), now => RootReach.Of(now.Plan.Planters, now.Plan.Map, thisYear)));
    }

    private sealed record DrawnGrounds(
        IReadOnlyList<(Planter Planter, PaintStretch Paint)> Painted,
        GroundsMap Map,
        IReadOnlyList<PathBalance> Paths
    );

    private static DrawnGrounds Drawn(SiteNow now, SiteYear year, LocalDate day, int index, string addresses, UnitsText units)
    {
        List<PlanterSeason> placed = [.. year.Planters.Where(p => p.Planter.Place is not null && !p.Planter.IsRetired)];
        IReadOnlyList<(Planter, PaintStretch)> painted =
        [
            .. placed.Select(p => (p.Planter, p.Years == 0 ? new PaintStretch(0, Showing.Bare, []) : PlanterPaint.On(p, index))),
        ];
        var map = new GroundsMap(now.Plan.Map, painted, day.Year, units, addresses);
        _ = map.Html;
        return new DrawnGrounds(painted, map, PathBalance.Of(now.Plan.Map, placed, index));
    }
}
