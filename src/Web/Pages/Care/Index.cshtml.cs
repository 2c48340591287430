using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Care;

/// <summary>What a day asks between turns: what is watered, and what the nights to come threaten.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, CareDesk care) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate Day { get; private set; }

    /// <summary>Who is watered by hand on the day.</summary>
    public IReadOnlyList<WaterStop> Round { get; private set; } = [];

    /// <summary>What cold nights put at risk.</summary>
    public IReadOnlyList<PlanterAtRisk> Nights { get; private set; } = [];

    /// <summary>True where no forecast reaches the site.</summary>
    public bool IsWithoutForecast { get; private set; }

    /// <summary>The round by area.</summary>
    public IEnumerable<(Area Area, IReadOnlyList<WaterStop> Stops)> ByArea =>
        Now.Plan.Areas.Select(a => (a, (IReadOnlyList<WaterStop>)[.. Round.Where(s => s.Planter.AreaId == a.Id)])).Where(a => a.Item2.Count > 0);

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Day = Words.ReadDay(DayText) ?? frame.Today;
        Round = await care.Round(Day);
        (Nights, bool forecast) = await care.Nights();
        IsWithoutForecast = !forecast;
    }
}
