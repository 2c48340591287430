using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>Every area's run of bulbs, what is wrong with it, and exchanges that would spread it over spring.</summary>
[Needs(SiteRole.Guest)]
public sealed class SequenceModel(PageFrame frame, JobDesk desk, ChangeStore changes) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>The area whose bulbs are to be spread; null to look only.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Area { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public IReadOnlyList<AreaSequence> Areas { get; private set; } = [];

    public YearScale Scale { get; private set; } = null!;

    /// <summary>The day of the thread, held to the days drawn.</summary>
    public LocalDate Day { get; private set; }

    /// <summary>The work that was asked for; null to look for it by its question.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>True when the result shown was computed of the plan and weather as they are.</summary>
    public bool IsOfNow { get; private set; } = true;

    public Job? Job { get; private set; }

    public SequenceResult? Found { get; private set; }

    public async Task OnGetAsync()
    {
        await Load();
        if (Areas.All(a => a.Area.Id != Area))
            return;
        (Job, Found, IsOfNow) = await desk.Look<SequenceAsk, SequenceResult>(JobKinds.Sequence, Question(), Now, JobId);
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
                Job asked = await desk.Ask(JobKinds.Sequence, Question(), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/year/sequence?area={Uri.EscapeDataString(Area ?? string.Empty)}&day={Words.Iso(View.Day)}&job={asked.Id}#found");
            }
        );
    }

    /// <summary>True where there is something to compute.</summary>
    public bool CanAsk => Areas.Any(a => a.Area.Id == Area);

    private SequenceAsk Question() => new SequenceAsk(View.Start, From(), Area!);

    /// <summary>Makes the exchanges that were ticked.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAcceptAsync(Guid job, string[] take)
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                (Job, SequenceResult result) = await desk.Proposed<SequenceResult>(JobKinds.Sequence, job);
                Found = result;
                List<SequenceProposal> chosen = [.. result.Proposals.Where(p => take.Contains(p.Id, StringComparer.Ordinal))];
                if (chosen.Count == 0)
                    throw new InvalidInputException(
                        string.Empty,
                        "Tick at least one exchange, or leave the page: nothing is done until you accept it"
                    );
                await changes.Make(
                    PlanChange.Of([.. chosen.Select(c => c.Before)], [.. chosen.Select(c => c.After)]),
                    chosen.Count == 1 ? chosen[0].Say : $"{chosen.Count} exchanges to spread the bulbs over spring"
                );
                TempData["Said"] = $"{chosen.Count} of {result.Proposals.Count} exchanges made.";
                return Redirect($"/year/sequence?day={Words.Iso(View.Day)}");
            }
        );
    }

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        if (Now.Plan.Planters.Count > 0)
            Areas = await frame.Soon(frame.State.Sequences(View.Start));
        (int from, int to) = Areas.Count == 0 ? (0, 0) : Areas[0].Spring;
        Scale = to > from ? YearScale.Over(View.Start.PlusDays(from), View.Start.PlusDays(to - 1)) : YearScale.Of(View.Start);
        LocalDate last = Scale.Start.PlusDays(Scale.Days - 1);
        Day =
            View.Day < Scale.Start ? Scale.Start
            : View.Day > last ? last
            : View.Day;
    }

    // What is in the ground stays; a plan year still ahead is open from its first day.
    private LocalDate From() => frame.Today > View.Start ? frame.Today : View.Start;

    /// <summary>The kinds that show most often, with in how many planters.</summary>
    public static string Kinds(IEnumerable<BulbShow> shows)
    {
        // By id: comparing kinds figure by figure takes long.
        List<(string Name, int Planters)> kinds =
        [
            .. shows
                .GroupBy(s => s.Plant.Id, StringComparer.Ordinal)
                .Select(g => (g.First().Plant.CommonName, g.Count()))
                .OrderByDescending(k => k.Item2),
        ];
        return string.Join(", ", kinds.Take(6).Select(k => k.Planters == 1 ? k.Name : $"{k.Name} ({k.Planters})"))
            + (kinds.Count > 6 ? $" and {kinds.Count - 6} more" : string.Empty);
    }

    /// <summary>The sentence that heads the page.</summary>
    public string Sentence()
    {
        if (Now.Record is null && Areas.Count > 0)
            return "No weather yet, so nobody can say when bulbs flower";
        if (Areas.All(a => a.Shows.Count == 0))
            return "No spring bulbs are planted in this year";
        List<AreaSequence> atOnce = [.. Areas.Where(a => a.Findings.Any(f => f.Fault == SequenceFault.AllAtOnce))];
        List<AreaSequence> bare = [.. Areas.Where(a => a.Findings.Any(f => f.Fault == SequenceFault.AllBare))];
        string[] parts =
        [
            .. atOnce.Count > 0 ? [$"all at once in {Words.List([.. atOnce.Select(a => a.Area.Name)])}"] : Array.Empty<string>(),
            .. bare.Count > 0 ? [$"all bare at times in {Words.List([.. bare.Select(a => a.Area.Name)])}"] : Array.Empty<string>(),
        ];
        return parts.Length == 0
            ? $"Bulbs follow each other in {(Areas.Count == 1 ? "the area" : $"all {Areas.Count} areas")}"
            : char.ToUpperInvariant(parts[0][0]) + string.Join("; ", parts)[1..];
    }
}
