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

    /// <summary>Words that a planter's name must hold.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Find { get; set; }

    /// <summary>The area shown; all when empty.</summary>
    [BindProperty(SupportsGet = true, Name = "area")]
    public string? Area { get; set; }

    /// <summary>In what order, one of <see cref="Orders"/>; empty for by area.</summary>
    [BindProperty(SupportsGet = true, Name = "by")]
    public string? By { get; set; }

    /// <summary>Orders of the list: what stands in the address, and in words.</summary>
    public static readonly IReadOnlyList<(string By, string Said)> Orders =
    [
        ("name", "by name"),
        ("small", "smallest first"),
        ("large", "largest first"),
        ("bare", "barest first"),
        ("colour", "longest in colour"),
    ];

    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartText { get; set; }

    /// <summary>Planters that the words and the area leave, and the part of them that is shown.</summary>
    public ListPage Part { get; private set; } = null!;

    /// <summary>The planters shown, by area; in another order those of all areas together, under none.</summary>
    public IReadOnlyList<(Area? Area, IReadOnlyList<Planter> Planters)> Shown { get; private set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        _seasons = (await frame.Soon(frame.State.Year(View.Start, null))).Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
        var search = new WordSearch(Find);
        List<Planter> found = Ordered(
            Now.Plan.Planters.Where(p => (string.IsNullOrEmpty(Area) || p.AreaId == Area) && search.Match(p.Name) is not null)
        );
        Part = ListPage.Of(found.Count, PartText);
        List<Planter> part = [.. Part.Take(found)];
        if (By is not null)
        {
            Shown = [(null, part)];
            return;
        }
        var here = part.ToLookup(p => p.AreaId, StringComparer.Ordinal);
        // An area without planters is told of where nothing is looked for.
        bool all = search.IsEmpty && string.IsNullOrEmpty(Area) && Part.Parts == 1;
        Shown = [.. Now.Plan.Areas.Where(a => all || here.Contains(a.Id)).Select(a => ((Area?)a, (IReadOnlyList<Planter>)[.. here[a.Id]]))];
    }

    private List<Planter> Ordered(IEnumerable<Planter> planters)
    {
        if (!Orders.Any(o => o.By == By))
            By = null;
        var areas = Now.Plan.Areas.Select((a, i) => (a.Id, i)).ToDictionary(a => a.Id, a => a.i, StringComparer.Ordinal);
        int Days(Planter p) => _seasons.TryGetValue(p.Id, out PlanterSeason? s) && s.Years > 0 ? s.DaysInColour : 0;
        return
        [
            .. By switch
            {
                "name" => planters.OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase),
                "small" => planters.OrderBy(p => p.Form.PlantableLitres),
                "large" => planters.OrderByDescending(p => p.Form.PlantableLitres),
                "bare" => planters.OrderBy(Days),
                "colour" => planters.OrderByDescending(Days),
                _ => planters.OrderBy(p => areas[p.AreaId]),
            },
        ];
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
