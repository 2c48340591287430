using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Ahead;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>The years ahead: cost and colour year by year, what falls due, and the next year written into the plan.</summary>
[Needs(SiteRole.Guest)]
public sealed class AheadModel(PageFrame frame, JobDesk desk, ChangeStore changes) : PageModel
{
    /// <summary>Years that can be asked.</summary>
    public static readonly int[] Spans = [3, 5, 8, 10];

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Years { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Tulips { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public int Span { get; private set; }

    public TulipCycle Cycle { get; private set; }

    /// <summary>The work that was asked for; null to look for it by its question.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>True when the result shown was computed of the plan and weather as they are.</summary>
    public bool IsOfNow { get; private set; } = true;

    public Job? Job { get; private set; }

    public AheadResult? Found { get; private set; }

    public async Task OnGetAsync()
    {
        await Load();
        if (Now.Plan.Planters.Count == 0)
            return;
        (Job, Found, IsOfNow) = await desk.Look<AheadAsk, AheadResult>(JobKinds.Ahead, Question(), Now, JobId);
    }

    /// <summary>Has it computed.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (!CanAsk)
                    return NotFound();
                Job asked = await desk.Ask(JobKinds.Ahead, Question(), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/year/ahead?years={Span}&tulips={Cycle}&day={Words.Iso(View.Day)}&job={asked.Id}");
            }
        );
    }

    /// <summary>True where there is something to compute.</summary>
    public bool CanAsk => Now.Plan.Planters.Count > 0;

    private AheadAsk Question() => new AheadAsk(View.Start, Span, Cycle);

    /// <summary>Writes the next plan year's displays into the plan.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostWriteAsync(Guid job)
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                (Job, AheadResult result) = await desk.Proposed<AheadResult>(JobKinds.Ahead, job);
                Found = result;
                if (result.NextAdded.Count == 0)
                    throw new InvalidInputException(string.Empty, "The next year is planned already: there is nothing to write");
                LocalDate next = result.Years[1].Start;
                await changes.Make(
                    new PlanChange(result.NextBefore, result.NextAfter, result.NextAdded, new Dictionary<string, int>(StringComparer.Ordinal)),
                    $"{result.NextAdded.Count} displays planned for {Words.PlanYear(next)}"
                );
                TempData["Said"] = $"{result.NextAdded.Count} displays are planned for {Words.PlanYear(next)}.";
                return Redirect($"/year?day={Words.Iso(next.PlusDays(30))}");
            }
        );
    }

    /// <summary>The sentence that heads the page.</summary>
    public string Sentence()
    {
        if (Found is not { } found)
            return $"{Span} years ahead";
        AheadYear dearest = found.Years.MaxBy(y => y.Cost.Total)!;
        string money = Now.Plan.Site.Money;
        return $"{found.Years.Count} years for {money}{found.Years.Sum(y => y.Cost.Total):#,0}, the dearest {Words.PlanYear(dearest.Start)}";
    }

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Span = int.TryParse(Years, out int years) && Spans.Contains(years) ? years : 5;
        Cycle = Enum.TryParse(Tulips, out TulipCycle cycle) && Enum.IsDefined(cycle) ? cycle : TulipCycle.ByHouseRule;
    }
}
