using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>All turns, with what each changes.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, ChangeStore changes) : PageModel
{
    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<DayOutsideTurns> Outside { get; private set; } = [];

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Outside = await frame.Outside();
        _moves = await frame.Soon(frame.State.Derived(Now, "moves of turns", now => now.Plan.Turns.ToDictionary(t => t.Id, t => Moves(now, t))));
    }

    /// <summary>Moves a day that lies in no turn into the nearest one, with all that changes hands on it in that planter.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(string? display, string? day)
    {
        await OnGetAsync();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                DayOutsideTurns loose = Outside.FirstOrDefault(o => o.Display.Id == display && Words.ReadDay(day) == o.Day)
                    ?? throw new InvalidInputException(string.Empty, "That day lies in no turn no more. Look again.");
                var moved = loose.Moved(Now.Plan);
                await changes.Make(
                    PlanChange.Of([.. moved.Select(m => m.Before)], [.. moved.Select(m => m.After)]),
                    $"{loose.Planter.Name}: {Words.DayYear(loose.Day)} moved into {loose.Nearest.Name}"
                );
                TempData["Said"] = $"{loose.Planter.Name} now changes on {Words.DayYear(loose.InTurn)}, with {loose.Nearest.Name}.";
                return Redirect("/turns#outside");
            },
            OnGetAsync
        );
    }

    /// <summary>How many displays go in and come out in a turn, and on how many days.</summary>
    public (int In, int Out, int Days) Moves(Turn turn) => _moves[turn.Id];

    private Dictionary<string, (int In, int Out, int Days)> _moves = [];

    private static (int In, int Out, int Days) Moves(SiteNow now, Turn turn) =>
        (
            now.Plan.Displays.Count(d => turn.Holds(d.Install)),
            now.Plan.Displays.Count(d => turn.Holds(d.Lift)),
            Core.Work.DaySheet.DaysOf(now.Plan, turn).Count
        );
}
