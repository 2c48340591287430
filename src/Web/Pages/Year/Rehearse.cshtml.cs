using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>What may go wrong, what it would take, and what a cover or a reserve would save.</summary>
public sealed class RehearseModel(PageFrame frame, JobDesk desk) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Kind { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public RehearsalKind Chosen { get; private set; }

    public Job? Job { get; private set; }

    public RehearsalAnswer? Answer { get; private set; }

    public async Task OnGetAsync()
    {
        await Load();
        if (Now.Plan.Planters.Count == 0)
            return;
        (Job, Answer, _) = await desk.Look<RehearsalAsk, RehearsalAnswer>(JobKinds.Rehearse, Question(), Now);
    }

    /// <summary>Has it computed.</summary>
    public async Task<IActionResult> OnPostAskAsync()
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (CanAsk)
                    await desk.Ask(JobKinds.Rehearse, Question(), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/year/rehearse?kind={Chosen}&day={Words.Iso(View.Day)}");
            }
        );
    }

    /// <summary>True while nobody has asked what can be computed.</summary>
    public bool CanAsk => Now.Plan.Planters.Count > 0 && JobDesk.IsOpen(Job);

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
