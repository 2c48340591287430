using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Grounds;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>"Is this one right?": one planter on a day, its year, its displays, what is worth a look, and what happened.</summary>
public sealed class ShowModel(PageFrame frame, LogStore log, PlanterStore planters, PhotoStore photos) : PageModel
{
    [BindProperty]
    public IFormFile? Upload { get; set; }

    [BindProperty]
    public string? Caption { get; set; }

    public IReadOnlyList<PlanterPhoto> Photos { get; private set; } = [];

    public int Version { get; private set; }

    /// <summary>The planter's sun over the next years, as trees grow.</summary>
    public ExposureForecast? Ahead { get; private set; }

    public IReadOnlyList<string> OutOfLook { get; private set; } = [];

    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public PlanterSeason Season { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public IReadOnlyList<Display> Displays { get; private set; } = [];

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    public IReadOnlyList<Observation> History { get; private set; } = [];

    public CutAway Drawing { get; private set; } = null!;

    public StackBloom? Bloom { get; private set; }

    public Display? Bulbs { get; private set; }

    public async Task<IActionResult> OnGetAsync() => await Fill() ? Page() : NotFound();

    public async Task<IActionResult> OnGetPhotoAsync(Guid photo, bool small)
    {
        if (await photos.Bytes(Id, photo, small) is not { } bytes)
            return NotFound();
        Response.Headers.CacheControl = "private,max-age=31536000,immutable";
        return File(bytes, "image/jpeg");
    }

    public async Task<IActionResult> OnPostPhotoAsync() => await Save(async () =>
    {
        if (Upload is null || Upload.Length == 0)
            throw new InvalidInputException("photo", "choose a picture first");
        string caption = Caption?.Trim() ?? string.Empty;
        if (caption.Length > 200)
            throw new InvalidInputException("caption", "must be at most 200 characters");
        using var buffer = new MemoryStream();
        await Upload.CopyToAsync(buffer);
        Photograph picture = Photograph.Read(buffer.ToArray());
        await photos.Add(new PlanterPhoto(Guid.CreateVersion7(), Id, frame.Today, caption, picture.Width, picture.Height), picture.Jpeg, picture.Thumb);
        return "Photograph added; nothing but the picture was kept of the file.";
    });

    public async Task<IActionResult> OnPostDropPhotoAsync(Guid photo) => await Save(async () =>
    {
        await photos.Remove(Id, photo);
        return "Photograph removed.";
    });

    public async Task<IActionResult> OnPostRetireAsync(int version) => await Save(async () =>
    {
        Planter changed = Planter with { IsRetired = !Planter.IsRetired };
        await planters.Save(changed, version);
        return changed.IsRetired ? $"{changed.Name} is retired: its history stays, and nothing new is planned for it." : $"{changed.Name} is in use again.";
    });

    public async Task<IActionResult> OnPostRemoveAsync(int version) => await Save(async () =>
    {
        await planters.Remove(Id, version);
        return $"{Planter.Name} removed.";
    }, "/planters");

    private async Task<IActionResult> Save(Func<Task<string>> work, string? to = null)
    {
        if (!await Fill())
            return NotFound();
        return await frame.Saving(this, f => f == "photo" ? "Upload" : f == "caption" ? "Caption" : null, async () =>
        {
            TempData["Said"] = await work();
            return Redirect(to ?? $"/planters/{Id}");
        });
    }

    private async Task<bool> Fill()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter || await planters.Version(Id) is not { } version)
            return false;
        Version = version;
        Photos = await photos.Of(Id);
        OutOfLook = LookGroup.Differences(planter, Now.Plan.Planters);
        if ((Now.Plan.Site.Place?.LatitudeDeg ?? Now.Record?.Station.LatitudeDeg) is { } latitude)
            Ahead = ExposureForecast.Of(planter, Now.Plan.Map, latitude, frame.Today.Year);
        Planter = planter;
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Across(View.Start);
        Season = (await frame.State.Year(View.Start, null)).Planters.FirstOrDefault(p => p.Planter.Id == Id) ?? PlanterSeason.From(Now.Plan, planter, [], View.Start);
        Displays = [.. Now.Plan.DisplaysOf(Id)];
        Remarks = [.. (await frame.State.Remarks(View.Start)).Where(r => r.PlanterId == Id)];
        History = await log.Latest(Id, 200);
        Bulbs = Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.StandsOn(View.Day))
            ?? Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.Install > View.Day && d.Install < View.Start.PlusMonths(12));
        BulbStack? stack = Bulbs is { } b && b.StandsOn(View.Day) ? BulbStack.LayOut(planter, Now.Plan.Site, Now.Plan.BulbsOf(b)) : null;
        Bloom = stack is not null && Now.Record is { } record ? await frame.State.Bloom(stack, Springward(Bulbs!.Install)) : null;
        Drawing = new CutAway(planter, stack, Bloom, StandingPlant.On(Now.Plan, planter, Season, View.Day), View.Day, PageFrame.Units(Now));
        return true;
    }

    // Bulbs that stay for years flower anew each spring: the forecast is for the bulb year that holds the day.
    private NodaTime.LocalDate Springward(NodaTime.LocalDate install)
    {
        NodaTime.LocalDate year = StackBloom.BulbYearStart(View.Day, Now.IsSouthern);
        return install > year ? install : year;
    }
}
