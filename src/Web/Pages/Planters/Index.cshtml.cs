using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>All planters by area, with what stands in them.</summary>
public sealed class IndexModel(PageFrame frame) : PageModel
{
    private Dictionary<string, PlanterSeason> _seasons = [];

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        _seasons = (await frame.Soon(frame.State.Year(View.Start, null))).Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
    }

    /// <summary>What stands in a planter on the day, seasonal plants first.</summary>
    public IEnumerable<Plant> Standing(Planter planter) =>
        Now
            .Plan.DisplaysOf(planter.Id)
            .Where(d => d.StandsOn(View.Day))
            .OrderByDescending(d => d.Layer == Core.Planning.DisplayLayer.Seasonal)
            .SelectMany(d => d.Items.Select(i => Now.Plan.Plant(i.PlantId)));

    /// <summary>Days in colour in the plan year; a dash without weather.</summary>
    public string DaysInColour(Planter planter) =>
        _seasons.TryGetValue(planter.Id, out PlanterSeason? s) && s.Years > 0 ? s.DaysInColour.ToString() : "—";
}
