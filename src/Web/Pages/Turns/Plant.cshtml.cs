using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>Lays a turn out over many planters at once: what comes out, what stays on, what goes in.</summary>
public sealed class PlantModel(PageFrame frame, ChangeStore changes) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true)]
    public string? Area { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Recipe { get; set; }

    [BindProperty]
    public string[] Planters { get; set; } = [];

    /// <summary>The planters ticked, parted by blanks, as a browser with scripts sends them.</summary>
    [BindProperty]
    public string? PlanterList { get; set; }

    [BindProperty]
    public string[] Stays { get; set; } = [];

    [BindProperty]
    public string? Lift { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn Turn { get; private set; } = null!;

    /// <summary>Planters that the turn could change, with the seasonal display that would come out; null where the layer is empty.</summary>
    public IReadOnlyList<(Planter Planter, Display? Out)> Open { get; private set; } = [];

    /// <summary>Kinds that stand in what would come out.</summary>
    public IReadOnlyList<Plant> Standing { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        Planters = [.. Open.Select(o => o.Planter.Id)];
        LocalDate next = Now
            .Plan.Turns.Where(t => t.FirstDay > Turn.LastDay)
            .Select(t => t.FirstDay)
            .DefaultIfEmpty(Turn.FirstDay.PlusMonths(4))
            .Min();
        Lift = Words.Iso(next);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Find())
            return NotFound();
        Planters = Ticked.Of(Planters, PlanterList);
        return await frame.Saving(
            this,
            f =>
                f switch
                {
                    "lift" => "Lift",
                    "recipe" => "Recipe",
                    _ => null,
                },
            async () =>
            {
                PlanChange change = Laid();
                await changes.Make(change, $"{Turn.Name}: {change.Added.Count} planters laid out");
                TempData["Said"] = $"{change.Added.Count} planters are laid out for {Turn.Name}.";
                return Redirect($"/turns/{Turn.Id}");
            }
        );
    }

    private PlanChange Laid()
    {
        var faults = new FaultList();
        if (Now.Plan.Recipes.FirstOrDefault(r => r.Id == Recipe && r.Layer == DisplayLayer.Seasonal) is not { } recipe)
        {
            faults.Add("recipe", "choose what goes in");
            throw new InvalidInputException(faults.Faults);
        }
        if (Words.ReadDay(Lift) is not { } lift || lift <= Turn.LastDay)
            throw new InvalidInputException("lift", $"must be a date after the turn's last day {Words.DayYear(Turn.LastDay)}");
        List<(Planter Planter, Display? Out)> chosen = [.. Open.Where(o => Planters.Contains(o.Planter.Id, StringComparer.Ordinal))];
        if (chosen.Count == 0)
            throw new InvalidInputException(string.Empty, "Tick at least one planter");
        List<Display> before = [];
        List<Display> after = [];
        List<Display> added = [];
        for (int i = 0; i < chosen.Count; i++)
        {
            (Planter planter, Display? standing) = chosen[i];
            LocalDate day = TurnChange.DayOf(Turn, i, chosen.Count);
            ScaledRecipe scaled = ScaledRecipe.For(recipe, planter, Now.Plan.Site, Now.Plan.Plant);
            string id = Ids.From($"{planter.Id} {Turn.Name} {day.Year}", x => Now.Plan.Displays.Any(d => d.Id == x) || added.Exists(d => d.Id == x));
            if (standing is not null && standing.Install < day)
            {
                before.Add(standing);
                after.Add(
                    standing with
                    {
                        Lift = day,
                        Cuts = [.. standing.Cuts.Where(c => c.Day < day)],
                        Items =
                        [
                            .. standing.Items.Select(x => Stays.Contains(x.PlantId, StringComparer.Ordinal) ? x with { Fate = PlantFate.Stays } : x),
                        ],
                    }
                );
                added.Add(TurnChange.Next(standing, id, day, lift, Stays, scaled.Items));
            }
            else
            {
                added.Add(new Display(id, planter.Id, DisplayLayer.Seasonal, day, lift, scaled.Items));
            }
            if (added[^1].Items.Count == 0)
                throw new InvalidInputException("recipe", $"nothing of it fits {planter.Name}; leave that planter out");
        }
        return new PlanChange(before, after, added, new Dictionary<string, int>(StringComparer.Ordinal));
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return false;
        Turn = turn;
        var open = new List<(Planter, Display?)>();
        foreach (Planter planter in Now.Plan.Planters.Where(p => !p.IsRetired && (string.IsNullOrEmpty(Area) || p.AreaId == Area)))
        {
            List<Display> seasonal = [.. Now.Plan.DisplaysOf(planter.Id).Where(d => d.Layer == DisplayLayer.Seasonal)];
            // A planter that has its next display already is not laid out a second time.
            if (seasonal.Any(d => turn.FirstDay <= d.Install && d.Install <= turn.LastDay.PlusDays(28)))
                continue;
            open.Add((planter, seasonal.LastOrDefault(d => d.Install < turn.FirstDay && d.Lift >= turn.FirstDay)));
        }
        Open = open;
        Standing =
        [
            .. open.Where(o => o.Item2 is not null)
                .SelectMany(o => o.Item2!.Items)
                .Select(i => i.PlantId)
                .Distinct(StringComparer.Ordinal)
                .Select(Now.Plan.Plant)
                .OrderBy(p => p.CommonName, StringComparer.Ordinal),
        ];
        return true;
    }
}
