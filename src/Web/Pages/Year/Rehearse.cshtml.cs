using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>What may go wrong, what it would take, and what a cover or a reserve would save.</summary>
[Needs(SiteRole.Guest)]
public sealed class RehearseModel(PageFrame frame, JobDesk desk) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Kind { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public RehearsalKind Chosen { get; private set; }

    /// <summary>The work that was asked for; null to look for it by its question.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>True when the result shown was computed of the plan and weather as they are.</summary>
    public bool IsOfNow { get; private set; } = true;

    public Job? Job { get; private set; }

    public RehearsalAnswer? Answer { get; private set; }

    public async Task OnGetAsync()
    {
        await Load();
        if (Now.Plan.Planters.Count == 0)
            return;
        (Job, Answer, IsOfNow) = await desk.Look<RehearsalAsk, RehearsalAnswer>(JobKinds.Rehearse, Question(), Now, JobId);
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
                Job asked = await desk.Ask(JobKinds.Rehearse, Question(), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/year/rehearse?kind={Chosen}&day={Words.Iso(View.Day)}&job={asked.Id}");
            }
        );
    }

    /// <summary>True where there is something to compute.</summary>
    public bool CanAsk => Now.Plan.Planters.Count > 0;

    private RehearsalAsk Question() => new RehearsalAsk(View.Start, frame.Today > View.Start ? frame.Today : View.Start, Chosen);

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Chosen = Enum.TryParse(Kind, out RehearsalKind kind) && Enum.IsDefined(kind) ? kind : RehearsalKind.HardestWinter;
    }

    /// <summary>A planter's name.</summary>
    public string NameOf(string planterId) => Now.Plan.FindPlanter(planterId)?.Name ?? planterId;

    /// <summary>A plant's name.</summary>
    public string PlantOf(string plantId) => Now.Plan.FindPlant(plantId)?.CommonName ?? plantId;
}
