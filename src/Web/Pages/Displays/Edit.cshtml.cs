using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Displays;

/// <summary>Plants a display ("new") or changes one, with what is worth a look shown as it is typed.</summary>
public sealed class EditModel(PageFrame frame, DisplayStore displays) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "planter")]
    public string? PlanterId { get; set; }

    [BindProperty]
    public DisplayInput Input { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    public double GrownCover { get; private set; }

    public bool IsNew => Id == "new";

    public UnitsText Units => PageFrame.Units(Now);

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        Display? display = Now.Plan.Displays.FirstOrDefault(d => d.Id == Id);
        if (display is { Layer: DisplayLayer.Bulbs })
            return Redirect($"/stack/{display.PlanterId}?display={display.Id}");
        if (!Find(display?.PlanterId))
            return NotFound();
        if (display is not null && await displays.Version(Id) is { } version)
            Input = DisplayInput.From(display, version, Units);
        else if (IsNew)
            Input = Fresh();
        else
            return NotFound();
        Look();
        return Page();
    }

    public async Task<IActionResult> OnPostPreviewAsync()
    {
        Now = await frame.Now();
        if (!Find(null))
            return NotFound();
        ModelState.Clear();
        Look();
        return Page();
    }

    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        if (!Find(Now.Plan.Displays.FirstOrDefault(d => d.Id == Id)?.PlanterId))
            return NotFound();
        return await frame.Saving(this, DisplayInput.Field, async () =>
        {
            Display display = Input.Read(Now.Plan, Planter.Id, null, Units);
            await displays.Save(display, Input.Version);
            TempData["Said"] = $"The {Words.Of(display.Layer)} display from {Words.DayYear(display.Install)} is saved.";
            return Redirect($"/planters/{Planter.Id}?day={Words.Iso(display.Install)}");
        }, Again);
    }

    public async Task<IActionResult> OnPostRemoveAsync()
    {
        Now = await frame.Now();
        Display? display = Now.Plan.Displays.FirstOrDefault(d => d.Id == Id);
        if (!Find(display?.PlanterId))
            return NotFound();
        return await frame.Saving(this, DisplayInput.Field, async () =>
        {
            await displays.Remove(Id, Input.Version ?? 0);
            TempData["Said"] = "The display is taken out of the plan.";
            return Redirect($"/planters/{Planter.Id}");
        }, Again);
    }

    // A new display follows the last seasonal one, and stays for about a season.
    private DisplayInput Fresh()
    {
        LocalDate after = Now.Plan.DisplaysOf(Planter.Id).Where(d => d.Layer == DisplayLayer.Seasonal).Select(d => d.Lift).DefaultIfEmpty(frame.Today).Max();
        return new DisplayInput { Install = Words.Iso(after), Lift = Words.Iso(after.PlusMonths(4)), Lines = [new DisplayLine(), new DisplayLine()] };
    }

    private bool Find(string? planterId)
    {
        if (Now.Plan.FindPlanter(planterId ?? PlanterId ?? string.Empty) is not { } planter)
            return false;
        Planter = planter;
        PlanterId = planter.Id;
        return true;
    }

    private Task Again()
    {
        Look();
        return Task.CompletedTask;
    }

    private void Look()
    {
        if (Input.Lines.Count == 0)
            Input.Lines.Add(new DisplayLine());
        IReadOnlyList<DisplayItem> items = [.. Input.Readable(Now.Plan, Units).Where(i => Now.Plan.Plant(i.PlantId).Bulb is null)];
        if (items.Count == 0 || Words.ReadDay(Input.Install) is not { } install || Words.ReadDay(Input.Lift) is not { } lift || lift <= install)
            return;
        var layer = Input.Layer == nameof(DisplayLayer.Standing) ? DisplayLayer.Standing : DisplayLayer.Seasonal;
        var display = new Display(Input.DisplayId is { Length: > 0 } known ? known : "preview", Planter.Id, layer, install, lift, items);
        Remarks = [.. new DisplayChecks(Now.Plan, Now.Record).For(display)];
        GrownCover = items.Sum(i =>
        {
            double spread = Now.Plan.Plant(i.PlantId).MatureSpreadCm;
            return i.Count * Math.PI / 4 * spread * spread;
        }) / Planter.Form.SurfaceCm2;
    }
}
