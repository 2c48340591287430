using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>Lays kinds of bulbs over many planters, so that none are mixed by accident, and plants them with the turn.</summary>
[Needs(SiteRole.Planner)]
public sealed class SpreadModel(PageFrame frame, JobDesk desk, ChangeStore changes) : PageModel
{
    /// <summary>Kinds that the form asks for at once.</summary>
    public const int Lines = 8;

    [FromRoute]
    public string Id { get; set; } = string.Empty;

    /// <summary>The work that was asked for; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    [BindProperty(Name = "planters[]")]
    public string[] Planters { get; set; } = [];

    /// <summary>The planters ticked, parted by blanks, as a browser with scripts sends them.</summary>
    [BindProperty]
    public string? PlanterList { get; set; }

    [BindProperty(Name = "kinds[]")]
    public string?[] Kinds { get; set; } = [];

    [BindProperty(Name = "counts[]")]
    public string?[] Counts { get; set; } = [];

    [BindProperty]
    public string? Lift { get; set; }

    [BindProperty]
    public string? Scheme { get; set; }

    [BindProperty]
    public bool Alike { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn Turn { get; private set; } = null!;

    /// <summary>Planters whose bulb layer is empty from the turn on.</summary>
    public IReadOnlyList<Planter> Open { get; private set; } = [];

    /// <summary>Bulbs to choose from; those at hand first.</summary>
    public IReadOnlyList<(Plant Plant, int AtHand)> Bulbs { get; private set; } = [];

    public Job? Job { get; private set; }

    public SpreadResult? Found { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        if (await desk.Find(JobKinds.Spread, JobId) is { } job)
        {
            SpreadAsk ask = JsonSerializer.Deserialize<SpreadAsk>(job.Question, JobJson.Options)!;
            Planters = [.. ask.PlanterIds];
            (Kinds, Counts) = ([.. ask.Kinds.Keys], [.. ask.Kinds.Values.Select(c => c.ToString(CultureInfo.InvariantCulture))]);
            (Lift, Scheme, Alike) = (Words.Iso(ask.Lift), ask.Scheme.ToString(), !ask.NeighboursDiffer);
            (Job, Found) = (job, desk.Result<SpreadResult>(job));
            return Page();
        }
        Planters = [.. Open.Select(p => p.Id)];
        List<(Plant Plant, int AtHand)> stored = [.. Bulbs.Where(b => b.AtHand > 0).Take(Lines)];
        Kinds = [.. stored.Select(b => b.Plant.Id)];
        Counts = [.. stored.Select(b => b.AtHand.ToString(CultureInfo.InvariantCulture))];
        Lift = Words.Iso(UsualLift());
        return Page();
    }

    /// <summary>Has the kinds laid over the planters.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        if (!await Find())
            return NotFound();
        Planters = Ticked.Of(Planters, PlanterList);
        return await frame.Saving(
            this,
            f => f == "lift" ? "Lift" : null,
            async () =>
            {
                Job asked = await desk.Ask(JobKinds.Spread, Read(), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/turns/{Id}/spread?job={asked.Id}#found");
            }
        );
    }

    /// <summary>Plants what was proposed.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAcceptAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                (Job, SpreadResult result) = await desk.Proposed<SpreadResult>(JobKinds.Spread, JobId);
                Found = result;
                var added = new List<Display>();
                foreach (SpreadPlanter planter in result.Planted)
                {
                    LocalDate day = TurnChange.DayOf(Turn, added.Count, result.Planted.Count);
                    string id = Ids.From($"{planter.PlanterId} bulbs {day.ToString("uuuu-MM", null)}", x =>
                        Now.Plan.Displays.Any(d => d.Id == x) || added.Exists(d => d.Id == x)
                    );
                    added.Add(
                        new Display(
                            id,
                            planter.PlanterId,
                            DisplayLayer.Bulbs,
                            day,
                            result.Lift,
                            [.. planter.Takes.Select(t => new DisplayItem(t.PlantId, t.Count))]
                        )
                    );
                }
                await changes.Make(new PlanChange([], [], added, FromStock(result)), $"{Turn.Name}: bulbs spread over {added.Count} planters");
                TempData["Said"] = $"Bulbs are spread over {added.Count} planters.";
                return Redirect($"/turns/{Turn.Id}");
            }
        );
    }

    /// <summary>What was typed in one line.</summary>
    public (string? Plant, string? Count) Line(int i) => (Kinds.ElementAtOrDefault(i), Counts.ElementAtOrDefault(i));

    private SpreadAsk Read()
    {
        var faults = new FaultList();
        if (Words.ReadDay(Lift) is not { } lift)
            throw new InvalidInputException("lift", "must be a date");
        var kinds = new Dictionary<string, int>(StringComparer.Ordinal);
        for (int i = 0; i < Kinds.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(Kinds[i]))
                continue;
            if (Now.Plan.FindPlant(Kinds[i]!) is not { } plant)
                faults.Add(string.Empty, $"Line {i + 1}: choose a bulb");
            else if (!int.TryParse(Counts.ElementAtOrDefault(i), NumberStyles.None, CultureInfo.InvariantCulture, out int count) || count < 1)
                faults.Add(string.Empty, $"{plant.CommonName}: say how many there are, a whole number from 1 to 10,000");
            else if (!kinds.TryAdd(plant.Id, count))
                faults.Add(string.Empty, $"{plant.CommonName} is given twice: give it once with the sum");
        }
        faults.ThrowIfAny();
        LocalDate start = SiteYear.UsualStart(Turn.FirstDay, Now.IsSouthern);
        var ask = new SpreadAsk(
            start,
            Turn.FirstDay,
            lift,
            Enum.TryParse(Scheme, out SpreadScheme scheme) && Enum.IsDefined(scheme) ? scheme : SpreadScheme.OneEach,
            !Alike,
            [.. Open.Where(p => Planters.Contains(p.Id, StringComparer.Ordinal)).Select(p => p.Id)],
            kinds
        );
        faults.AddAll(string.Empty, ask.ToQuestion(Now.Plan).Faults());
        faults.ThrowIfAny();
        return ask;
    }

    // What is at hand of the kinds is taken from its lots; the rest is to be bought.
    private Dictionary<string, int> FromStock(SpreadResult result)
    {
        var used = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var kind in result.Planted.SelectMany(p => p.Takes).GroupBy(t => t.PlantId, StringComparer.Ordinal))
        {
            int left = kind.Sum(t => t.Count);
            foreach (Lot lot in Usable(kind.Key))
            {
                int take = Math.Min(left, lot.Count);
                if (take > 0)
                    used[lot.Id] = take;
                left -= take;
            }
        }
        return used;
    }

    private IEnumerable<Lot> Usable(string plantId) =>
        Now.Plan.Lots.Where(l => l.PlantId == plantId && l.State is LotState.Waiting or LotState.Stored && l.Condition != LotCondition.Poor);

    // Bulbs come out with the turn in late spring, where there is one.
    private LocalDate UsualLift() =>
        Now.Plan.Turns.Where(t => t.FirstDay > Turn.FirstDay.PlusMonths(5)).Select(t => t.FirstDay).DefaultIfEmpty(Turn.FirstDay.PlusMonths(8)).Min();

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return false;
        Turn = turn;
        Open =
        [
            .. Now.Plan.Planters.Where(p =>
                !p.IsRetired
                && !Now
                    .Plan.DisplaysOf(p.Id)
                    .Any(d => d.Layer == DisplayLayer.Bulbs && d.Lift > turn.FirstDay && d.Install < turn.FirstDay.PlusMonths(8))
            ),
        ];
        Bulbs =
        [
            .. Now
                .Plan.Palette.Where(p => !p.IsRetired && SpringCalendar.IsSpringBulb(p))
                .Select(p => (p, Usable(p.Id).Sum(l => l.Count)))
                .OrderByDescending(b => b.Item2)
                .ThenBy(b => b.p.CommonName, StringComparer.Ordinal),
        ];
        return true;
    }
}
