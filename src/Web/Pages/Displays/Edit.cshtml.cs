using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Displays;

/// <summary>Plants a display ("new") or changes one, with what is worth a look shown as it is typed.</summary>
[Needs(SiteRole.Guest)]
public sealed class EditModel(PageFrame frame, DisplayStore displays, ChangeStore changes) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "planter")]
    public string? PlanterId { get; set; }

    /// <summary>A kind that a new display begins with; null for none.</summary>
    [BindProperty(SupportsGet = true, Name = "plant")]
    public string? FirstPlantId { get; set; }

    [BindProperty]
    public DisplayInput Input { get; set; } = new();

    /// <summary>Part of it to be replaced, as typed.</summary>
    [BindProperty]
    public PatchInput Patch { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    public double GrownCover { get; private set; }

    public bool IsNew => Id == "new";

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        Display? display = Now.Plan.Displays.FirstOrDefault(d => d.Id == Id);
        if (display is { Layer: DisplayLayer.Bulbs })
            return Redirect($"/stack/{display.PlanterId}?display={display.Id}");
        if (!Find(display?.PlanterId))
            return NotFound();
        if (display is not null)
            Input = DisplayInput.From(display, Now.Versions.Display(Id), Units);
        else if (IsNew)
            Input = Fresh();
        else
            return NotFound();
        await Load();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        Now = await frame.Now();
        if (!Find(null))
            return NotFound();
        ModelState.Clear();
        await Load();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        if (!Find(Now.Plan.Displays.FirstOrDefault(d => d.Id == Id)?.PlanterId))
            return NotFound();
        return await frame.Saving(
            this,
            DisplayInput.Field,
            async () =>
            {
                Display display = Input.Read(Now.Plan, Planter.Id, null, Units);
                if (
                    Now
                        .Plan.DisplaysOf(Planter.Id)
                        .FirstOrDefault(d => d.Layer == display.Layer && d.Id != display.Id && d.Lift == display.Install) is
                    { } before
                )
                    display = TurnChange.WithStays(before, display);
                await displays.Save(display, Input.Version, $"{Planter.Name}: plants and counts {(Input.Version is null ? "planned" : "changed")}");
                TempData["Said"] = $"The {Words.Of(display.Layer)} display from {Words.DayYear(display.Install)} is saved.";
                return Redirect($"/planters/{Planter.Id}?day={Words.Iso(display.Install)}");
            },
            Load,
            now =>
            {
                (Now, Planter) = (now, now.Plan.FindPlanter(Planter.Id) ?? Planter);
                return Input.Compare(now, Input.DisplayId, Units);
            }
        );
    }

    /// <summary>Makes a remedy's change in the form; it is saved when the planner saves.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMendAsync(string? mend)
    {
        Now = await frame.Now();
        if (!Find(Now.Plan.Displays.FirstOrDefault(d => d.Id == Id)?.PlanterId))
            return NotFound();
        ModelState.Clear();
        await Load();
        if (RemarksView.Find(Remarks, mend) is { } found)
        {
            Input.Take(found.Remedy.After, Units);
            await Load();
            TempData["Said"] = $"Changed below, not saved yet: {frame.Facts.Say(found.Remedy)}.";
        }
        else
        {
            ModelState.AddModelError(string.Empty, "That remark is there no more. Look again.");
        }
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync()
    {
        Now = await frame.Now();
        Display? display = Now.Plan.Displays.FirstOrDefault(d => d.Id == Id);
        if (!Find(display?.PlanterId))
            return NotFound();
        return await frame.Saving(
            this,
            DisplayInput.Field,
            async () =>
            {
                await displays.Remove(Id, Input.Version ?? 0);
                TempData["Said"] = "The display is taken out of the plan.";
                return Redirect($"/planters/{Planter.Id}");
            },
            Load,
            now =>
            {
                (Now, Planter) = (now, now.Plan.FindPlanter(Planter.Id) ?? Planter);
                return Input.Compare(now, Id, Units);
            }
        );
    }

    /// <summary>Takes part of it out on a day, and fills the places with something else or leaves them open.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostPatchAsync()
    {
        Now = await frame.Now();
        Display? display = Now.Plan.Displays.FirstOrDefault(d => d.Id == Id);
        if (display is null || !Find(display.PlanterId))
            return NotFound();
        Input = DisplayInput.From(display, Now.Versions.Display(Id), Units);
        return await frame.Saving(
            this,
            PatchInput.Field,
            async () =>
            {
                DisplayPatch patch = Patch.Read(Now.Plan);
                string id = Ids.From($"{Planter.Id} {display.Layer} {patch.Day.ToString("uuuu-MM", null)}", x =>
                    Now.Plan.Displays.Any(d => d.Id == x)
                );
                (Display before, Display after) = patch.Of(Now.Plan, display, id);
                string what =
                    $"{Planter.Name}: {patch.Count} {Now.Plan.Plant(display.Items[patch.Item].PlantId).CommonName} out on {Words.DayYear(patch.Day)}"
                    + (patch.With is { } with ? $", {with.Count} {Now.Plan.Plant(with.PlantId).CommonName} in" : string.Empty);
                await changes.Make(new PlanChange([display], [before], [after], new Dictionary<string, int>(StringComparer.Ordinal)), what);
                TempData["Said"] = $"{what}. The rest stands on.";
                return Redirect($"/planters/{Planter.Id}?day={Words.Iso(patch.Day)}");
            },
            Load
        );
    }

    // A new display follows the last seasonal one, and stays for about a season.
    private DisplayInput Fresh()
    {
        LocalDate after = Now
            .Plan.DisplaysOf(Planter.Id)
            .Where(d => d.Layer == DisplayLayer.Seasonal)
            .Select(d => d.Lift)
            .DefaultIfEmpty(frame.Today)
            .Max();
        return new DisplayInput
        {
            Install = Words.Iso(after),
            Lift = Words.Iso(after.PlusMonths(4)),
            Lines = [new DisplayLine { PlantId = Now.Plan.FindPlant(FirstPlantId)?.Id }, new DisplayLine()],
        };
    }

    private bool Find(string? planterId)
    {
        if (Now.Plan.FindPlanter(planterId ?? PlanterId ?? string.Empty) is not { } planter)
            return false;
        Planter = planter;
        PlanterId = planter.Id;
        return true;
    }

    /// <summary>The cuts planned, as far as they can be read.</summary>
    public IReadOnlyList<CutBack> Cuts { get; private set; } = [];

    /// <summary>What a cut does, in words.</summary>
    public string Does(CutBack cut)
    {
        Plant plant = Now.Plan.Plant(cut.PlantId);
        bool once = plant.Windows.Any(w => w.Part == ColourPart.Flower && !w.Rule.FollowsTheCrew);
        string what = (
            $"{plant.CommonName}, {(cut.Share < 1 ? $"{cut.Share:P0} of them " : string.Empty)}cut to "
            + $"{Units.Length(cut.HeightShare(plant) * plant.HeightCm)} on {Words.Day(cut.Day)}: flowers stand about {Units.Length(cut.FlowersAtCm(plant))} high"
        );
        string heads = once && cut.HeadSize(plant) > 1.05 ? $", fewer heads, {cut.HeadSize(plant):0.0} times as wide" : string.Empty;
        string held =
            once && cut.DelayDays(plant) > 3 ? $"; cut in leaf, before its flowers, it opens {cut.DelayDays(plant)} days later" : string.Empty;
        string again = plant.Tending.FlushAfterDays is { } after ? $"; in flower again after about {after:0} days" : string.Empty;
        return what + heads + held + again + ".";
    }

    private async Task Load()
    {
        if (Input.Lines.Count == 0)
            Input.Lines.Add(new DisplayLine());
        IReadOnlyList<DisplayItem> items = [.. Input.Readable(Now.Plan, Units).Where(i => Now.Plan.Plant(i.PlantId).GoesOutInLeaf)];
        var layer = Input.Layer == nameof(DisplayLayer.Standing) ? DisplayLayer.Standing : DisplayLayer.Seasonal;
        if (items.Count == 0 || Words.ReadDay(Input.Install) is not { } install)
            return;
        LocalDate lift = Words.ReadDay(Input.Lift) ?? (layer == DisplayLayer.Standing ? Display.OpenEnd(install) : install);
        if (lift <= install)
            return;
        Cuts =
        [
            .. Input
                .ReadCuts(Units)
                .Where(c => Now.Plan.FindPlant(c.PlantId) is not null && items.Any(i => i.PlantId == c.PlantId))
                .OrderBy(c => c.Day),
        ];
        var display = new Display(Input.DisplayId is { Length: > 0 } known ? known : "preview", Planter.Id, layer, install, lift, items);
        Remarks = (await frame.State.Checks()).For(display);
        GrownCover =
            items.Sum(i =>
            {
                double spread = Now.Plan.Plant(i.PlantId).MatureSpreadCm;
                return i.Count * Math.PI / 4 * spread * spread;
            }) / Planter.Form.SurfaceCm2;
    }
}
