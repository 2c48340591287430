using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>Asks for bare spells to be closed, shows what is proposed, and makes what is accepted.</summary>
[Needs(SiteRole.Planner)]
public sealed class CloseModel(PageFrame frame, JobDesk desk, ChangeStore changes) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Area { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Planter { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Budget { get; set; }

    [BindProperty(SupportsGet = true)]
    public bool Stock { get; set; }

    [BindProperty(SupportsGet = true, Name = "ways[]")]
    public string[] Ways { get; set; } = [];

    [BindProperty(SupportsGet = true)]
    public string? Colours { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? MostPlanters { get; set; }

    /// <summary>Days from an order to its delivery; empty for the usual.</summary>
    [BindProperty(SupportsGet = true)]
    public string? LeadDays { get; set; }

    [BindProperty(SupportsGet = true)]
    public bool Asked { get; set; }

    /// <summary>The work that was asked for; null to look for it by its question.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>True when what is shown was worked out for the plan and the weather of now.</summary>
    public bool IsOfNow { get; private set; } = true;

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public Job? Job { get; private set; }

    public GapResult? Found { get; private set; }

    public int BareDays { get; private set; }

    public int BarePlanters { get; private set; }

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        if (!Asked)
            return Page();
        return await frame.Saving(this, Field, async () =>
        {
            GapAsk ask = Read();
            (Job, Found, IsOfNow) = await desk.Look<GapAsk, GapResult>(JobKinds.CloseGaps, ask, Now, JobId);
            return Page();
        });
    }

    /// <summary>Has the changes looked for that would close the bare spells.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        await Load();
        return await frame.Saving(this, Field, async () =>
        {
            Job asked = await desk.Ask(JobKinds.CloseGaps, Read(), Now, PageFrame.Asker(HttpContext));
            return Redirect(
                "/year/close"
                    + QueryString.Create([
                        new("day", Words.Iso(View.Day)),
                        new("asked", "true"),
                        new("job", $"{asked.Id}"),
                        new("area", Area),
                        new("planter", Planter),
                        new("budget", Budget),
                        new("mostPlanters", MostPlanters),
                        new("leadDays", LeadDays),
                        new("colours", Colours),
                        .. Stock ? [new KeyValuePair<string, string?>("stock", "true")] : Array.Empty<KeyValuePair<string, string?>>(),
                        .. Ways.Select(w => new KeyValuePair<string, string?>("ways[]", w)),
                    ])
            );
        });
    }

    /// <summary>Makes the changes that were ticked.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAcceptAsync(string[] take)
    {
        await Load();
        return await frame.Saving(this, Field, async () =>
        {
            (Job, GapResult result) = await desk.Proposed<GapResult>(JobKinds.CloseGaps, JobId);
            Found = result;
            List<GapProposal> chosen = [.. result.Proposals.Where(p => take.Contains(p.Id, StringComparer.Ordinal))];
            if (chosen.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick at least one change, or leave the page: nothing is done until you accept it");
            string what = chosen.Count == 1 ? chosen[0].Say : $"{chosen.Count} changes to close bare spells";
            await changes.Make(GapProposal.Together(chosen), what);
            TempData["Said"] =
                $"{chosen.Count} of {result.Proposals.Count} changes made; {chosen.Sum(c => c.DaysGained)} planter-days come into colour.";
            return Redirect($"/year?day={Words.Iso(View.Day)}");
        });
    }

    /// <summary>The plants that a proposal sets out, as they are called.</summary>
    public Plant? PlantOf(GapProposal proposal) => proposal.PlantId is null ? null : Now.Plan.FindPlant(proposal.PlantId);

    /// <summary>The planter's ribbon with a change alone, the plan as it is outlined over it.</summary>
    public async Task<YearRow?> RowOf(GapProposal proposal)
    {
        if (Now.Plan.FindPlanter(proposal.PlanterId) is not { } planter)
            return null;
        SeasonKernel kernel = await frame.State.Kernel(View.Start);
        var replaced = proposal.Before.Select(b => b.Id).ToHashSet(StringComparer.Ordinal);
        List<Display> displays = [.. Now.Plan.DisplaysOf(planter.Id).Where(d => !replaced.Contains(d.Id)), .. proposal.After, .. proposal.Added];
        return new YearRow(kernel.Try(Now.Plan, planter, displays), kernel.Of(Now.Plan, planter), Scale, [], displays, Units);
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "budget" => "Budget",
            "mostPlanters" => "MostPlanters",
            "leadDays" => "LeadDays",
            _ when fault.StartsWith("colours", StringComparison.Ordinal) => "Colours",
            _ => null,
        };

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Of(View.Start);
        List<PlanterSeason> here = [.. (await frame.Soon(frame.State.Year(View.Start, null))).Planters.Where(p => Holds(p.Planter))];
        LocalDate from = From();
        BareDays = here.Sum(p => p.BareSpells.Where(s => s.LastDay >= from).Sum(s => s.Days));
        BarePlanters = here.Count(p => p.BareSpells.Any(s => s.LastDay >= from));
    }

    private bool Holds(Planter planter) =>
        (string.IsNullOrEmpty(Area) || planter.AreaId == Area) && (string.IsNullOrEmpty(Planter) || planter.Id == Planter);

    // What is past cannot be changed; a plan year still ahead is open from its first day.
    private LocalDate From() => frame.Today > View.Start ? frame.Today : View.Start;

    private GapAsk Read()
    {
        var faults = new FaultList();
        decimal? budget = null;
        if (!string.IsNullOrWhiteSpace(Budget))
        {
            budget = TypedNumber.Money(Budget);
            if (budget is null)
                faults.Add("budget", $"\"{Budget}\" is no amount of money; write 250 or 99.50, or leave it empty for no limit");
        }
        int? planters = null;
        if (!string.IsNullOrWhiteSpace(MostPlanters))
        {
            if (int.TryParse(MostPlanters, NumberStyles.None, CultureInfo.InvariantCulture, out int most))
                planters = most;
            else
                faults.Add("mostPlanters", "must be a whole number, or empty for no limit");
        }
        int lead = GapQuestion.UsualLeadDays;
        if (!string.IsNullOrWhiteSpace(LeadDays) && !int.TryParse(LeadDays, NumberStyles.None, CultureInfo.InvariantCulture, out lead))
            faults.Add("leadDays", "must be a whole number of days");
        faults.ThrowIfAny();
        string[] colours = [.. (Colours ?? string.Empty).Split([',', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];
        var ask = new GapAsk(
            View.Start,
            From(),
            budget,
            Stock,
            [.. Ways.Select(w => Enum.TryParse(w, out GapMoveKind kind) && Enum.IsDefined(kind) ? kind : (GapMoveKind?)null).OfType<GapMoveKind>()],
            colours,
            2,
            null,
            planters,
            string.IsNullOrEmpty(Area) && string.IsNullOrEmpty(Planter)
                ? []
                : [.. Now.Plan.Planters.Where(p => !p.IsRetired && Holds(p)).Select(p => p.Id)],
            lead
        );
        faults.AddAll(string.Empty, ask.ToQuestion().Faults());
        faults.ThrowIfAny();
        return ask;
    }
}
