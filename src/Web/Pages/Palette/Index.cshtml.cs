using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>"What can stand here and give colour then?": the catalogue, found by words and by fit.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, PaletteStore palette) : PageModel
{
    /// <summary>Rows drawn at once.</summary>
    public const int MostRows = 40;

    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Query { get; set; }

    [BindProperty(SupportsGet = true, Name = "kind")]
    public string? Kind { get; set; }

    [BindProperty(SupportsGet = true, Name = "planter")]
    public string? PlanterId { get; set; }

    [BindProperty(SupportsGet = true, Name = "from")]
    public string? FromText { get; set; }

    [BindProperty(SupportsGet = true, Name = "to")]
    public string? ToText { get; set; }

    [BindProperty(SupportsGet = true, Name = "only")]
    public string? Only { get; set; }

    [BindProperty(SupportsGet = true, Name = "all")]
    public string? All { get; set; }

    /// <summary>In what order, one of <see cref="Orders"/>; empty for the usual one: by kind, or as they fit.</summary>
    [BindProperty(SupportsGet = true, Name = "by")]
    public string? By { get; set; }

    /// <summary>Orders of the list: what stands in the address, and in words.</summary>
    public static readonly IReadOnlyList<(string By, string Said)> Orders =
    [
        ("name", "by name"),
        ("colour", "first in colour"),
        ("low", "lowest first"),
        ("tall", "tallest first"),
        ("hardy", "hardiest first"),
        ("used", "most planted first"),
    ];

    /// <summary>True where less than the whole palette is asked for, or it in another order.</summary>
    public bool IsNarrowed => new[] { Query, Kind, PlanterId, FromText, ToText, Only, By }.Any(a => !string.IsNullOrEmpty(a));

    [BindProperty(SupportsGet = true, Name = "compare[]")]
    public List<string> Compare { get; set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public SiteFlowering Flowering { get; private set; } = null!;

    public Planter? Planter { get; private set; }

    /// <summary>The weeks asked; null when nobody asked.</summary>
    public (LocalDate First, LocalDate Last)? Asked { get; private set; }

    public IReadOnlyList<(Plant Plant, FloweringStrip Strip, PlantFit? Fit)> Found { get; private set; } = [];

    public int FoundInAll { get; private set; }

    public IReadOnlyDictionary<string, int> Uses { get; private set; } = new Dictionary<string, int>();

    public string? Wrong { get; private set; }

    public string Heading
    {
        get
        {
            string what = $"{FoundInAll} {(FoundInAll == 1 ? "plant" : "plants")}";
            if (Planter is null || Asked is null)
                return string.IsNullOrWhiteSpace(Query) ? $"{what} in the palette" : $"{what} for “{Query}”";
            int fit = Found.Count(f => f.Fit!.Verdict == FitVerdict.Fits);
            string weeks = $"{Words.Short(Asked.Value.First)} to {Words.Short(Asked.Value.Last)}";
            return fit == 0
                ? $"Nothing fits the {Planter.Name} and shows from {weeks} without a doubt"
                : $"{fit} {(fit == 1 ? "plant fits" : "plants fit")} the {Planter.Name} and {(fit == 1 ? "shows" : "show")} from {weeks}";
        }
    }

    public async Task OnGetAsync() => await Load();

    /// <summary>The palette as a sheet.</summary>
    public async Task<IActionResult> OnGetCsvAsync()
    {
        Now = await frame.Now();
        return File(PaletteSheet.Write(Now.Plan.Palette), "text/csv", "palette.csv");
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostStarterAsync()
    {
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                SiteNow now = await frame.Now();
                (int plants, int recipes) = await Starter.Add(now.Plan, now.Versions, palette);
                TempData["Said"] = $"{Words.Count(plants, "plant", "plants")} added to the palette, and {Words.Count(recipes, "recipe", "recipes")}.";
                return Redirect("/palette");
            },
            Load
        );
    }

    /// <summary>The address of this list with something changed.</summary>
    public string With(string key, string? value)
    {
        var parts = new List<(string, string?)>
        {
            ("q", Query),
            ("kind", Kind),
            ("planter", PlanterId),
            ("from", FromText),
            ("to", ToText),
            ("only", Only),
            ("by", By),
            ("all", All),
        };
        parts.RemoveAll(p => p.Item1 == key);
        parts.Add((key, value));
        return "/palette?"
            + string.Join('&', parts.Where(p => !string.IsNullOrEmpty(p.Item2)).Select(p => $"{p.Item1}={Uri.EscapeDataString(p.Item2!)}"));
    }

    private async Task Load()
    {
        Now = await frame.Now();
        Planter = Now.Plan.FindPlanter(PlanterId ?? string.Empty);
        LocalDate? first = Words.ReadDay(FromText);
        LocalDate? last = Words.ReadDay(ToText) ?? first?.PlusDays(20);
        if (Planter is not null && first is null)
        {
            first = frame.Today;
            last = first.Value.PlusDays(20);
        }
        if (first is { } f && last is { } l)
        {
            if (l < f || l > f.PlusDays(366))
                Wrong = "The weeks must end after they begin, within a year; they are shown as three weeks.";
            Asked = (f, l < f || l > f.PlusDays(366) ? f.PlusDays(20) : l);
        }
        LocalDate start = SiteYear.UsualStart(Asked?.First ?? frame.Today, Now.IsSouthern);
        Flowering = await frame.State.Flowering(start);
        var search = new WordSearch(Query);
        LifeForm? kind = Enum.TryParse(Kind, out LifeForm k) && Enum.IsDefined(k) ? k : null;
        var matching = Now
            .Plan.Palette.Where(p =>
                (Only != "shortlist" || p.IsShortlisted)
                && (kind is null || p.LifeForm == kind)
                && search.Match(p.CommonName, PlantWords.Of(p)) is not null
            )
            .ToList();
        Uses = Now
            .Plan.Displays.SelectMany(d => d.Items.Select(i => i.PlantId).Distinct())
            .GroupBy(x => x, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);
        if (!Orders.Any(o => o.By == By))
            By = null;
        List<(Plant, FloweringStrip, PlantFit?)> rows = await frame.Soon(
            frame.State.Derived(Now, ("palette", start, PlanterId, Asked, Query, kind, Only, By, All), _ => Ordered(Rows(matching)))
        );
        FoundInAll = Planter is null && Asked is null ? matching.Count : rows.Count;
        Found = All == "yes" ? rows : [.. rows.Take(MostRows)];
        Compare = [.. Compare.Where(c => Now.Plan.FindPlant(c) is not null).Distinct(StringComparer.Ordinal).Take(4)];
    }

    private List<(Plant, FloweringStrip, PlantFit?)> Ordered(List<(Plant Plant, FloweringStrip Strip, PlantFit? Fit)> rows)
    {
        IEnumerable<(Plant Plant, FloweringStrip Strip, PlantFit? Fit)> ordered = By switch
        {
            "name" => rows.OrderBy(r => r.Plant.CommonName, StringComparer.OrdinalIgnoreCase),
            // What shows in hardly any year comes last.
            "colour" => rows.OrderBy(r => r.Strip.Spells.Count == 0).ThenBy(r => r.Strip.Spells.Count == 0 ? default : r.Strip.Spells[0].First),
            "low" => rows.OrderBy(r => r.Plant.HeightCm),
            "tall" => rows.OrderByDescending(r => r.Plant.HeightCm),
            "hardy" => rows.OrderBy(r => r.Plant.TopDamageC),
            "used" => rows.OrderByDescending(r => Uses.GetValueOrDefault(r.Plant.Id)),
            _ => rows,
        };
        return [.. ordered];
    }

    private List<(Plant, FloweringStrip, PlantFit?)> Rows(List<Plant> matching)
    {
        if (Planter is not null && Asked is { } asked)
        {
            var question = new FitQuestion(Flowering, Now.Plan.Site, Planter, Now.Plan.AreaOf(Planter), asked.First, asked.Last);
            return
            [
                .. question.Ask(matching).Where(x => Only != "fits" || x.Verdict != FitVerdict.Fails).Select(x => (x.Plant, x.Strip, (PlantFit?)x)),
            ];
        }
        if (Asked is { } weeks)
            return
            [
                .. matching
                    .Where(p => !p.IsRetired)
                    .Select(p => (p, Flowering.Of(p, Flowering.UsualInstall(p, weeks.First)), (PlantFit?)null))
                    .Where(r => r.Item2.OddsOver(weeks.First, weeks.Last) >= ColourOdds.InColour)
                    .OrderByDescending(r => r.Item2.OddsOver(weeks.First, weeks.Last)),
            ];
        var ordered = matching.OrderBy(p => p.IsRetired).ThenBy(p => p.LifeForm).ThenBy(p => p.CommonName, StringComparer.Ordinal);
        return [.. (All == "yes" || By is not null ? ordered : ordered.Take(MostRows)).Select(p => (p, Flowering.Usual(p), (PlantFit?)null))];
    }
}
