using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>"Is this one right?": one planter on a day, its year, its displays, what is worth a look, and what happened.</summary>
[Needs(SiteRole.Guest)]
public sealed class ShowModel(
    PageFrame frame,
    LogStore log,
    PlanterStore planters,
    PhotoStore photos,
    DisplayStore displays,
    ChangeStore changes,
    HeavyWork heavy
) : PageModel
{
    // Of a planter that is written of each week, ten years.
    private const int MostEntries = 600;

    [BindProperty]
    public IFormFile? Upload { get; set; }

    [BindProperty]
    public string? Caption { get; set; }

    public IReadOnlyList<PlanterPhoto> Photos { get; private set; } = [];

    public long Version { get; private set; }

    /// <summary>The planter's sun over the next years, as trees grow.</summary>
    /// <summary>The plan year after, so that what crosses its end is seen whole; null without weather.</summary>
    public PlanterSeason? NextSeason { get; private set; }

    public YearScale NextScale { get; private set; } = null!;

    public ExposureForecast? Ahead { get; private set; }

    public IReadOnlyList<Core.Facts.Fact> OutOfLook { get; private set; } = [];

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

    /// <summary>True while remarks are still being looked for.</summary>
    public bool IsLooking { get; private set; }

    /// <summary>True while the sun of the next years is still being followed.</summary>
    public bool IsFollowingSun { get; private set; }

    /// <summary>What stood, and how it did, year by year, the last first.</summary>
    public IReadOnlyList<YearOfPlace> Years { get; private set; } = [];

    public CutAway Drawing { get; private set; } = null!;

    /// <summary>What stands on the day, from above.</summary>
    public PlanterOnDay OnDay { get; private set; } = null!;

    /// <summary>What the last change of each display did, where it can be taken back.</summary>
    public IReadOnlyDictionary<string, string> Undoable { get; private set; } = new Dictionary<string, string>(StringComparer.Ordinal);

    /// <summary>When each seasonal display makes way by the house rule.</summary>
    public IReadOnlyDictionary<string, TurnDay> TurnDays { get; private set; } = new Dictionary<string, TurnDay>(StringComparer.Ordinal);

    public StackBloom? Bloom { get; private set; }

    public Display? Bulbs { get; private set; }

    public async Task<IActionResult> OnGetAsync() => await Load() ? Page() : NotFound();

    /// <summary>The planter from above on the day that is asked for, by itself.</summary>
    public async Task<IActionResult> OnGetAboveAsync() =>
        await Load() ? Content(FromAbove.Draw(OnDay, frame.Units).ToString(), "text/html; charset=utf-8") : NotFound();

    public async Task<IActionResult> OnGetPhotoAsync(Guid photo, bool small)
    {
        if (await photos.Bytes(Id, photo, small) is not { } bytes)
            return NotFound();
        Response.Headers.CacheControl = "private,max-age=31536000,immutable";
        return File(bytes, "image/jpeg");
    }

    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostPhotoAsync() =>
        await Save(async () =>
        {
            if (Upload is null || Upload.Length == 0)
                throw new InvalidInputException("photo", "choose a picture first");
            string caption = Caption?.Trim() ?? string.Empty;
            var faults = new FaultList();
            faults.Note("caption", caption, 200);
            faults.ThrowIfAny();
            Photograph picture = await Photograph.Of(Upload, heavy);
            await photos.Add(
                new PlanterPhoto(Guid.CreateVersion7(), Id, frame.Today, caption, picture.Width, picture.Height),
                picture.Jpeg,
                picture.Thumb
            );
            return "Photograph added; nothing but the picture was kept of the file.";
        });

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostDropPhotoAsync(Guid photo) =>
        await Save(async () =>
        {
            await photos.Remove(Id, photo);
            return "Photograph removed.";
        });

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRetireAsync(long version) =>
        await Save(async () =>
        {
            Planter changed = Planter with { IsRetired = !Planter.IsRetired };
            await planters.Save(changed, version);
            return changed.IsRetired
                ? $"{changed.Name} is retired: its history stays, and nothing new is planned for it."
                : $"{changed.Name} is in use again.";
        });

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync(long version) =>
        await Save(
            async () =>
            {
                await planters.Remove(Id, version);
                return $"{Planter.Name} removed.";
            },
            "/planters"
        );

    /// <summary>Makes the change that a remark's button names.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMendAsync(string? mend)
    {
        return await Save(
            async () =>
            {
                // The remark and the version come from one reading of the plan.
                long version = Now.Versions.Display((mend ?? string.Empty).Split("||")[0]);
                if (version == 0 || RemarksView.Find(Remarks, mend) is not { } found)
                    throw new InvalidInputException(string.Empty, "That remark is there no more: the display has changed since. Look at it again.");
                await displays.Save(found.Remedy.After, version, $"{Planter.Name}: {frame.Facts.Say(found.Remedy)}");
                return $"Done: {frame.Facts.Say(found.Remedy)}. It can be taken back below.";
            },
            $"/planters/{Id}{Query()}#remarks"
        );
    }

    /// <summary>Takes the class of sun that its sky gives in place of the survey's word.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostExposureAsync() =>
        await Save(async () =>
        {
            if (Ahead is not { } sky)
                throw new InvalidInputException(string.Empty, "Neither a measured sky nor a map tells how much sun it has.");
            await planters.Save(Planter with { Exposure = sky.Years[0].Class }, Now.Versions.Planter(Id));
            return $"{Planter.Name}: {Words.Of(sky.Years[0].Class)}, and no longer {Words.Of(Planter.Exposure)}.";
        });

    /// <summary>Takes the last change of a display back.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostUndoAsync(string? display) =>
        await Save(
            async () =>
            {
                if (Displays.All(d => d.Id != display))
                    throw new InvalidInputException(string.Empty, "That display is no longer in this planter. Page Changes lists all that was done.");
                await changes.UndoLastOf(display!);
                return "Taken back.";
            },
            $"/planters/{Id}{Query()}"
        );

    private string Query() => Words.ReadDay(DayText) is { } day ? $"?day={Words.Iso(day)}" : string.Empty;

    private async Task<IActionResult> Save(Func<Task<string>> work, string? to = null)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            f =>
                f == "photo" ? "Upload"
                : f == "caption" ? "Caption"
                : null,
            async () =>
            {
                TempData["Said"] = await work();
                return Redirect(to ?? $"/planters/{Id}");
            }
        );
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return false;
        Version = Now.Versions.Planter(Id);
        Photos = await photos.Of(Id);
        OutOfLook = LookGroup.Differences(planter, Now.Plan.PlantersOfLook(planter.Survey.LookGroup));
        if ((Now.Plan.Site.Place?.LatitudeDeg ?? Now.Record?.Station.LatitudeDeg) is { } latitude)
        {
            Task<ExposureForecast?> ahead = frame.State.SunOf(planter, latitude, frame.Today.Year);
            Ahead = await frame.IfSoon(ahead);
            IsFollowingSun = !ahead.IsCompleted;
        }
        Planter = planter;
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Across(View.Start);
        Season = await frame.Soon(frame.State.Season(planter, View.Start));
        NextScale = YearScale.Across(View.Start.PlusMonths(12));
        NextSeason = Now.Record is null ? null : await frame.Soon(frame.State.Season(planter, NextScale.Start));
        Displays = [.. Now.Plan.DisplaysOf(Id)];
        IReadOnlyList<Remark>? remarks = await frame.IfSoon(
            frame.State.RemarksOn([.. Displays.Where(d => d.Lift > View.Start && d.Install < View.Start.PlusMonths(12))])
        );
        (Remarks, IsLooking) = (remarks ?? [], remarks is null);
        Undoable = (await changes.LastOf(Displays.Select(d => d.Id))).ToDictionary(c => c.Key, c => c.Value.What, StringComparer.Ordinal);
        Years = YearOfPlace.Of(Now.Plan, planter, await log.Latest(Id, MostEntries), Now.IsSouthern, frame.Today);
        Bulbs = Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.StandsOn(View.Day))
            ?? Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.Install > View.Day && d.Install < View.Start.PlusMonths(12));
        BulbStack? stack = Bulbs is { } b && b.StandsOn(View.Day) ? BulbStack.Of(Now.Plan, planter, b) : null;
        Bloom = stack is not null && Now.Record is { } record ? await frame.Soon(frame.State.Bloom(stack, Springward(Bulbs!.Install))) : null;
        SiteFlowering flowering = await frame.State.Flowering(View.Start);
        OnDay = PlanterOnDay.Of(Now.Plan, planter, Season, flowering, View.Day, stack, Bloom);
        var turns = new Dictionary<string, TurnDay>(StringComparer.Ordinal);
        foreach (
            Display d in Displays.Where(d => d.Layer == DisplayLayer.Seasonal && d.Install >= View.Start && d.Install < View.Start.PlusMonths(12))
        )
        {
            if (TurnDay.Of(Now.Plan, planter, d, flowering) is { } turn)
                turns[d.Id] = turn;
        }
        TurnDays = turns;
        Drawing = new CutAway(planter, stack, Bloom, StandingPlant.On(Now.Plan, planter, Season, View.Day), View.Day, frame.Units);
        return true;
    }

    // Bulbs that stay for years flower anew each spring: the forecast is for the bulb year that holds the day.
    private NodaTime.LocalDate Springward(NodaTime.LocalDate install)
    {
        NodaTime.LocalDate year = StackBloom.BulbYearStart(View.Day, Now.IsSouthern);
        return install > year ? install : year;
    }
}
