using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>All planters by area, with what stands in them.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame) : PageModel
{
    private Dictionary<string, PlanterSeason> _seasons = [];

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>The area shown; all when empty.</summary>
    [BindProperty(SupportsGet = true, Name = "area")]
    public string? Area { get; set; }

    /// <summary>Planters of the area that is looked at.</summary>
    public LongList<Planter> List { get; private set; } = null!;

    /// <summary>The planters shown, by area; in another order those of all areas together, under none.</summary>
    public IReadOnlyList<(Area? Area, IReadOnlyList<Planter> Planters)> Shown { get; private set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        _seasons = (await frame.Soon(frame.State.Year(View.Start, null))).Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
        var areas = Now.Plan.Areas.Select((a, i) => (a.Id, i)).ToDictionary(a => a.Id, a => a.i, StringComparer.Ordinal);
        int Days(Planter p) => _seasons.TryGetValue(p.Id, out PlanterSeason? s) && s.Years > 0 ? s.DaysInColour : 0;
        List = LongList.Of(
            Request.Query,
            "planters",
            [.. Now.Plan.Planters.Where(p => string.IsNullOrEmpty(Area) || p.AreaId == Area).OrderBy(p => areas[p.AreaId])],
            p => p.Name,
            "by area",
            [
                new("name", "by name", all => all.OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase)),
                new("small", "smallest first", all => all.OrderBy(p => p.Form.PlantableLitres)),
                new("large", "largest first", all => all.OrderByDescending(p => p.Form.PlantableLitres)),
                new("bare", "barest first", all => all.OrderBy(Days)),
                new("colour", "longest in colour", all => all.OrderByDescending(Days)),
            ]
        );
        if (List.By.Length > 0)
        {
            Shown = [(null, List.Shown)];
            return;
        }
        var here = List.Shown.ToLookup(p => p.AreaId, StringComparer.Ordinal);
        // An area without planters is told of where nothing is looked for.
        bool all = !List.IsAsked && string.IsNullOrEmpty(Area) && List.Part.Parts == 1;
        Shown = [.. Now.Plan.Areas.Where(a => all || here.Contains(a.Id)).Select(a => ((Area?)a, (IReadOnlyList<Planter>)[.. here[a.Id]]))];
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
