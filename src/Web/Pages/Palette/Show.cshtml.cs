using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>One plant: what it is, when it shows here, where it stood and how it did.</summary>
[Needs(SiteRole.Guest)]
public sealed class ShowModel(PageFrame frame, PaletteStore palette, SharedPaletteStore sharedPalette, LogStore log) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    public SiteNow Now { get; private set; } = null!;

    public Plant Plant { get; private set; } = null!;

    public FloweringStrip Strip { get; private set; } = null!;

    public IReadOnlyList<Display> Displays { get; private set; } = [];

    public IReadOnlyList<Observation> Seen { get; private set; } = [];

    public IReadOnlyList<string> Doubts { get; private set; } = [];

    /// <summary>Whether what is sold as an annual may return after a winter here, in a bed and in a pot; null where that is no question.</summary>
    public (string Bed, string Pot)? Returns { get; private set; }

    /// <summary>How often it was said to do well, and poorly.</summary>
    public (int Well, int Poorly) Rated =>
        (Seen.Count(o => o.Kind is ObservationKind.DidWell), Seen.Count(o => o.Kind is ObservationKind.DidPoorly or ObservationKind.Died));

    public long Version { get; private set; }

    /// <summary>Where it differs from the plant of the same name that all sites share; null where none is shared.</summary>
    public IReadOnlyList<CellChange>? OwnFigures { get; private set; }

    public async Task<IActionResult> OnGetAsync() => await Load() ? Page() : NotFound();

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRetireAsync(long version) =>
        await Change(
            version,
            p => p with { IsRetired = !p.IsRetired },
            p =>
                p.IsRetired
                    ? $"{p.CommonName} is retired: what stands stays, nothing new is planned with it."
                    : $"{p.CommonName} is back in the palette."
        );

    /// <summary>Puts it on the crew's shortlist, or takes it off.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostShortlistAsync(long version) =>
        await Change(
            version,
            p => p with { IsShortlisted = !p.IsShortlisted },
            p => p.IsShortlisted ? $"{p.CommonName} is on the shortlist: it is offered first." : $"{p.CommonName} is off the shortlist."
        );

    /// <summary>Takes the figures that all sites share in place of the site's own.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostSharedAsync(long version)
    {
        if (await sharedPalette.Shared(Id) is not { } shared)
            return NotFound();
        return await Change(version, p => SharedPalette.As(shared, p), p => $"{p.CommonName} has the shared figures again, and follows them.");
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync(long version)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await palette.Remove(Id, version);
                TempData["Said"] = $"{Plant.CommonName} removed from the palette.";
                return Redirect("/palette");
            }
        );
    }

    private async Task<IActionResult> Change(long version, Func<Plant, Plant> change, Func<Plant, string> said)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Plant changed = change(Plant);
                await palette.Save(changed, version);
                TempData["Said"] = said(changed);
                return Redirect($"/palette/{Id}");
            }
        );
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlant(Id) is not { } plant)
            return false;
        Plant = plant;
        Version = Now.Versions.Plant(Id);
        if (await sharedPalette.Shared(Id) is { } shared)
            OwnFigures = PaletteSheet.Differences(SharedPalette.As(shared, plant), plant);
        Strip = (await frame.State.Flowering(SiteYear.UsualStart(frame.Today, Now.IsSouthern))).Usual(plant);
        Displays = [.. Now.Plan.Displays.Where(d => d.Items.Any(i => i.PlantId == Id)).OrderByDescending(d => d.Install)];
        Seen = [.. (await log.OfPlant(Id, 200)).Where(o => o.Counts)];
        if (StayLosses.MayReturn(plant) && Now.Record is { YearsUsed.Count: > 0 } record)
        {
            string In(ThermalClass place) =>
                frame.Facts.Of(
                    StayLosses.MayReturnBy(
                        StayLosses.ReturnOdds(plant, RootSurvival.From(GroundClimate.Of(record.ForOdds).Of(place), record.ForOdds))
                    )
                );
            Returns = (In(BulbPlace.UsualBed.Class), In(ThermalClass.Pot(40, 36, WallMaterial.Terracotta)));
        }
        Doubts = [.. PaletteCheck.Of([plant]).Select(r => frame.Facts.Say(r.Says))];
        return true;
    }
}
