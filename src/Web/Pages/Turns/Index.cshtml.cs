using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>All turns, with what each changes.</summary>
public sealed class IndexModel(PageFrame frame) : PageModel
{
    public SiteNow Now { get; private set; } = null!;

    public async Task OnGetAsync() => Now = await frame.Now();

    /// <summary>How many displays go in and come out in a turn, and on how many days.</summary>
    public (int In, int Out, int Days) Moves(Turn turn) => (
        Now.Plan.Displays.Count(d => turn.Holds(d.Install)),
        Now.Plan.Displays.Count(d => turn.Holds(d.Lift)),
        Core.Work.DaySheet.DaysOf(Now.Plan, turn).Count);
}
