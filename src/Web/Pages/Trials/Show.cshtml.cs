using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Trials;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Trials;

/// <summary>One trial: what stands where, and what it says.</summary>
[Needs(SiteRole.Guest)]
public sealed class ShowModel(PageFrame frame, TrialStore trials, LogStore log, Visitor visitor) : PageModel
{
    public SiteNow Now { get; private set; } = null!;

    public Trial Trial { get; private set; } = null!;

    /// <summary>Scores by planter.</summary>
    public IReadOnlyDictionary<string, double> Scores { get; private set; } = new Dictionary<string, double>();

    /// <summary>What it says: of all places, and of pots and ground by themselves where both are in it.</summary>
    public IReadOnlyList<(string Where, TrialResult Result)> Results { get; private set; } = [];

    public bool MayPlan => visitor.Role >= SiteRole.Planner;

    public async Task<IActionResult> OnGetAsync(Guid id)
    {
        if (await trials.Find(id) is not { } trial)
            return NotFound();
        Trial = trial;
        Now = await frame.Now();
        var scores = trial.Scores(Now.Plan, await log.Between(trial.First, trial.Last));
        Scores = scores.ToDictionary(s => s.Planting.PlanterId, s => s.Score.Score, StringComparer.Ordinal);
        bool InGround(TrialPlanting p) => Now.Plan.FindPlanter(p.PlanterId)!.Form.IsBed;
        List<(string, IEnumerable<TrialScore>)> parts = [("everywhere", scores.Select(s => s.Score))];
        if (scores.Any(s => InGround(s.Planting)) && scores.Any(s => !InGround(s.Planting)))
        {
            parts.Add(("in pots", scores.Where(s => !InGround(s.Planting)).Select(s => s.Score)));
            parts.Add(("in the ground", scores.Where(s => InGround(s.Planting)).Select(s => s.Score)));
        }
        Results = [.. parts.Select(p => (p.Item1, Trial.Judge(p.Item2))).Where(r => r.Item2 is not null).Select(r => (r.Item1, r.Item2!))];
        return Page();
    }

    /// <summary>Takes it out; what was planted and logged stays.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync(Guid id)
    {
        await trials.Remove(id);
        return Redirect("/trials");
    }
}
