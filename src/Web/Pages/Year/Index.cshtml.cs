using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>"When are we bare?": one rule per planter, twelve months across.</summary>
public sealed class IndexModel(PageFrame frame, LogStore log) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Weather { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Sort { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public SiteYear Year { get; private set; } = null!;

    public IReadOnlyList<int> WeatherYears { get; private set; } = [];

    public int? WeatherYear { get; private set; }

    public FrostOdds? Spring { get; private set; }

    public FrostOdds? Fall { get; private set; }

    public ILookup<string, Observation> Seen { get; private set; } = Array.Empty<Observation>().ToLookup(o => o.PlanterId);

    public IReadOnlyList<Turn> Turns { get; private set; } = [];

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    public bool WorstFirst => Sort == "worst";

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Of(View.Start);
        SiteYear all = await frame.State.Year(View.Start, null);
        WeatherYears = all.WeatherYears;
        WeatherYear = int.TryParse(Weather, out int y) && WeatherYears.Contains(y) ? y : null;
        Year = WeatherYear is null ? all : await frame.State.Year(View.Start, WeatherYear);
        if (Now.Record is { YearsUsed.Count: > 0 } record)
        {
            Spring = FrostOdds.From(record, FrostEnd.LastSpring, 0);
            Fall = FrostOdds.From(record, FrostEnd.FirstFall, 0);
        }
        Seen = (await log.Between(View.Start, View.Start.PlusMonths(12))).ToLookup(o => o.PlanterId);
        Turns = [.. Now.Plan.Turns.Where(t => t.LastDay >= View.Start && t.FirstDay < View.Start.PlusMonths(12))];
        Remarks = [.. (await frame.State.Remarks(View.Start)).Where(r => r.Working is not null)];
    }

    /// <summary>The rules in groups: by area, or all together with the worst first.</summary>
    public IEnumerable<(string Heading, IReadOnlyList<PlanterSeason> Planters)> Groups()
    {
        if (WorstFirst)
        {
            yield return ("Barest first", [.. Year.Planters.OrderBy(p => p.DaysInColour).ThenBy(p => p.Planter.Name)]);
            yield break;
        }
        foreach (Area area in Now.Plan.Areas)
        {
            List<PlanterSeason> here = [.. Year.Planters.Where(p => p.Planter.AreaId == area.Id)];
            if (here.Count > 0)
                yield return (area.Name, here);
        }
    }

    /// <summary>Share of years in colour by day as one digit a day, tenths rounded down; "x" stands for all.</summary>
    public static string Odds(PlanterSeason season) =>
        string.Create(season.Days, season, (chars, s) =>
        {
            for (int d = 0; d < chars.Length; d++)
            {
                int tenths = (int)MathF.Round(s.ShareInColour[d] * 10);
                chars[d] = tenths >= 10 ? 'x' : (char)('0' + tenths);
            }
        });

    /// <summary>The address of this page with one thing changed.</summary>
    public string Address(string? weather = null, string? sort = null, LocalDate? day = null)
    {
        string w = weather ?? (WeatherYear?.ToString() ?? string.Empty);
        string s = sort ?? Sort ?? string.Empty;
        return $"/year?day={Words.Iso(day ?? View.Day)}" + (w.Length > 0 ? $"&weather={w}" : string.Empty) + (s.Length > 0 ? $"&sort={s}" : string.Empty);
    }
}
