using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>"How much sun has it?": the skyline of a planter, dragged or typed, and the direct sun that follows.</summary>
[Needs(SiteRole.Guest)]
public sealed class SunModel(PageFrame frame, PlanterStore planters, DrawingSheet sheet) : PageModel
{
    private static readonly int[] Ahead = [1, 2, 3, 4, 5];

    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty]
    public string?[] Walls { get; set; } = [];

    [BindProperty]
    public string?[] Trees { get; set; } = [];

    [BindProperty]
    public string? Growth { get; set; }

    [BindProperty]
    public string? Surveyed { get; set; }

    [BindProperty]
    public string? LeafOn { get; set; }

    [BindProperty]
    public string? LeafOff { get; set; }

    [BindProperty]
    public long Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    /// <summary>Where the site lies, or the station where nobody has said; null for neither.</summary>
    public double? LatitudeDeg => Now.Plan.Site.Place?.LatitudeDeg ?? Now.Record?.Station.LatitudeDeg;

    /// <summary>The skyline as typed; null while it holds a fault.</summary>
    public Skyline? Skyline { get; private set; }

    public SunYear? Sun { get; private set; }

    /// <summary>True when nobody has measured its sky and what is shown is read off the map.</summary>
    public bool IsFromMap { get; private set; }

    /// <summary>True while what is shown is what is saved.</summary>
    public bool IsSaved { get; private set; }

    /// <summary>What the map alone gives where a measured sky gives another class; null where they agree.</summary>
    public SunYear? ByMap { get; private set; }

    /// <summary>Years ahead in which the class changes because trees grow.</summary>
    public IReadOnlyList<(int Year, Exposure Class)> Changes { get; private set; } = [];

    public int Year => frame.Today.Year;

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        Skyline? known = MapSkyline.Of(Planter, Now.Plan.Map, Year);
        IsFromMap = Planter.Skyline is null && known is not null;
        IsSaved = known is not null;
        Take(known ?? Skyline.Open with { SurveyedIn = Year });
        Reckon();
        return Page();
    }

    /// <summary>Drops the measured sky, so that the map's holds.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMapAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (MapSkyline.OnMap(Planter, Now.Plan.Map, Year) is not { } seen || LatitudeDeg is not { } latitude)
                    throw new InvalidInputException(
                        string.Empty,
                        "The map tells nothing of its sky: it has no place there, or nothing tall is drawn."
                    );
                Exposure exposure = SunYear.Of(seen, latitude, Year).GrowingSeason;
                await planters.Save(Planter with { Skyline = null, Exposure = exposure }, Version);
                TempData["Said"] = $"{Planter.Name}: its sky is read off the map; it has {Words.Of(exposure)}.";
                return Redirect($"/planters/{Id}/sun");
            }
        );
    }

    public async Task<IActionResult> OnGetSvgAsync()
    {
        if (!await Find() || LatitudeDeg is not { } latitude)
            return NotFound();
        return File(
            sheet.Standalone(SkyDome.Draw(MapSkyline.Of(Planter, Now.Plan.Map, Year) ?? Skyline.Open, latitude, Year)),
            "image/svg+xml",
            $"sun-{Id}.svg"
        );
    }

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        if (!await Find())
            return NotFound();
        ModelState.Clear();
        Skyline typed = Read();
        Skyline = typed.Faults().Count == 0 ? typed : null;
        Reckon();
        return Page();
    }

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Skyline typed = Read();
                var faults = new FaultList();
                faults.AddAll(string.Empty, typed.Faults());
                faults.ThrowIfAny();
                Skyline = typed;
                Reckon();
                Exposure exposure = Sun?.GrowingSeason ?? Planter.Exposure;
                await planters.Save(Planter with { Skyline = typed, Exposure = exposure }, Version);
                TempData["Said"] =
                    exposure == Planter.Exposure
                        ? $"{Planter.Name}: skyline saved; it has {Words.Of(exposure)}, as before."
                        : $"{Planter.Name}: skyline saved; it has {Words.Of(exposure)}, and no longer {Words.Of(Planter.Exposure)}.";
                return Redirect($"/planters/{Id}");
            },
            () =>
            {
                Skyline typed = Read();
                Skyline = typed.Faults().Count == 0 ? typed : null;
                Reckon();
                return Task.CompletedTask;
            },
            now =>
            {
                (Now, Planter, Version) = (now, now.Plan.FindPlanter(Id) ?? Planter, now.Versions.Planter(Id));
                Skyline saved = Planter.Skyline ?? Skyline.Open;
                return FormDifference.Between(
                    new
                    {
                        Walls = Walls.Select(Number),
                        Trees = Trees.Select(Number),
                        Growth = Number(Growth),
                        Surveyed = Number(Surveyed),
                        LeafOn = Number(LeafOn),
                        LeafOff = Number(LeafOff),
                    },
                    new
                    {
                        Walls = saved.WallDeg,
                        Trees = saved.TreeDeg,
                        Growth = saved.TreeGrowthDeg,
                        Surveyed = (double)saved.SurveyedIn,
                        LeafOn = saved.LeafOnShare * 100,
                        LeafOff = saved.LeafOffShare * 100,
                    }
                );
            }
        );
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return false;
        Planter = planter;
        if (Version == 0)
            Version = Now.Versions.Planter(Id);
        return true;
    }

    private void Take(Skyline skyline)
    {
        string Text(double v) => v.ToString("0.##", CultureInfo.InvariantCulture);
        Skyline = skyline;
        Walls = [.. skyline.WallDeg.Select(Text)];
        Trees = [.. skyline.TreeDeg.Select(Text)];
        Growth = Text(skyline.TreeGrowthDeg);
        Surveyed = $"{skyline.SurveyedIn}";
        LeafOn = Text(skyline.LeafOnShare * 100);
        LeafOff = Text(skyline.LeafOffShare * 100);
    }

    private Skyline Read() =>
        new(
            [.. Walls.Take(Skyline.Sectors).Select(Number)],
            [.. Trees.Take(Skyline.Sectors).Select(Number)],
            Number(Surveyed) is var y && double.IsFinite(y) ? (int)y : 0,
            Number(Growth),
            Number(LeafOn) / 100,
            Number(LeafOff) / 100
        );

    private void Reckon()
    {
        if (Skyline is null || LatitudeDeg is not { } latitude)
            return;
        Sun = SunYear.Of(Skyline, latitude, Year);
        if (
            Planter.Skyline is not null
            && MapSkyline.OnMap(Planter, Now.Plan.Map, Year) is { } drawn
            && SunYear.Of(drawn, latitude, Year) is var byMap
            && byMap.GrowingSeason != Sun.GrowingSeason
        )
            ByMap = byMap;
        Exposure last = Sun.GrowingSeason;
        var changes = new List<(int, Exposure)>();
        foreach (int ahead in Ahead)
        {
            Exposure then = SunYear
                .Of(IsFromMap ? MapSkyline.Of(Planter, Now.Plan.Map, Year + ahead)! : Skyline, latitude, Year + ahead)
                .GrowingSeason;
            if (then != last)
                changes.Add((Year + ahead, then));
            last = then;
        }
        Changes = changes;
    }

    private static double Number(string? text) => string.IsNullOrWhiteSpace(text) ? 0 : TypedNumber.Read(text) ?? double.NaN;
}
