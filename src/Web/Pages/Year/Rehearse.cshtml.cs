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
    private static readonly TimeSpan Wait = TimeSpan.FromMilliseconds(900);

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
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        Chosen = Enum.TryParse(Kind, out RehearsalKind kind) && Enum.IsDefined(kind) ? kind : RehearsalKind.HardestWinter;
        if (Now.Plan.Planters.Count == 0)
            return;
        Job = await desk.Ask(JobKinds.Rehearse, new RehearsalAsk(View.Start, frame.Today > View.Start ? frame.Today : View.Start, Chosen), Now, Wait);
        Answer = desk.Result<RehearsalAnswer>(Job);
    }

    /// <summary>A planter's name.</summary>
    public string NameOf(string planterId) => Now.Plan.FindPlanter(planterId)?.Name ?? planterId;

    /// <summary>A plant's name.</summary>
    public string PlantOf(string plantId) => Now.Plan.FindPlant(plantId)?.CommonName ?? plantId;
}
