using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>"Is this one right?": one planter on a day, its year, its displays, what is worth a look, and what happened.</summary>
public sealed class ShowModel(PageFrame frame, LogStore log) : PageModel
{
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

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return NotFound();
        Planter = planter;
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Across(View.Start);
        Season = (await frame.State.Year(View.Start, null)).Planters.First(p => p.Planter.Id == Id);
        Displays = [.. Now.Plan.DisplaysOf(Id)];
        Remarks = [.. (await frame.State.Remarks(View.Start)).Where(r => r.PlanterId == Id)];
        History = await log.Latest(Id, 200);
        Bulbs = Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.StandsOn(View.Day))
            ?? Displays.FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.Install > View.Day && d.Install < View.Start.PlusMonths(12));
        BulbStack? stack = Bulbs is { } b && b.StandsOn(View.Day) ? BulbStack.LayOut(planter, Now.Plan.Site, Now.Plan.BulbsOf(b)) : null;
        Bloom = stack is not null && Now.Record is { } record ? await frame.State.Bloom(stack, Springward(Bulbs!.Install)) : null;
        Drawing = new CutAway(planter, stack, Bloom, StandingPlant.On(Now.Plan, planter, Season, View.Day), View.Day, PageFrame.Units(Now));
        return Page();
    }

    // Bulbs that stay for years flower anew each spring: the forecast is for the bulb year that holds the day.
    private NodaTime.LocalDate Springward(NodaTime.LocalDate install)
    {
        NodaTime.LocalDate year = StackBloom.BulbYearStart(View.Day, Now.IsSouthern);
        return install > year ? install : year;
    }
}
