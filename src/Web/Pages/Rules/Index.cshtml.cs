using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Rules;

/// <summary>"Which schools does this crew follow?": every matter on which good practitioners disagree.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, PlanStore plans) : PageModel
{
    [BindProperty]
    public Dictionary<string, string?> Schools { get; set; } = [];

    [BindProperty]
    public string? Institution { get; set; }

    [BindProperty]
    public long Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>Planters that follow another school in a matter.</summary>
    public ILookup<string, Planter> Otherwise { get; private set; } = null!;

    public async Task OnGetAsync()
    {
        await Find();
        HouseRules rules = Now.Plan.Site.Rules;
        Schools = HouseRuleMatter.All.ToDictionary(m => m.Key, m => (string?)m.Of(rules), StringComparer.Ordinal);
        Institution = string.Join(" ", rules.InstitutionColours);
        Version = Now.Mark.Version;
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        await Find();
        return await frame.Saving(
            this,
            f => f.Contains("institution", StringComparison.Ordinal) ? "Institution" : null,
            async () =>
            {
                HouseRules rules = HouseRuleMatter.Read(Schools, Now.Plan.Site.Rules) with
                {
                    InstitutionColours =
                    [
                        .. (Institution ?? string.Empty)
                            .Split([' ', ',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                            .Select(c => c.ToLowerInvariant()),
                    ],
                };
                IReadOnlyList<Fault> faults = rules.Faults();
                if (faults.Count > 0)
                    throw new InvalidInputException(faults);
                await plans.SaveSite(Now.Plan.Site with { Rules = rules }, Version);
                TempData["Said"] = "House rules saved: the season, the orders, the sheets and the checks follow them.";
                return Redirect("/rules");
            },
            compare: now =>
            {
                (Now, Version) = (now, now.Mark.Version);
                HouseRules theirs = now.Plan.Site.Rules;
                return FormDifference.Between(
                    new { Schools, Institution },
                    new
                    {
                        Schools = HouseRuleMatter.All.ToDictionary(m => m.Key, m => (string?)m.Of(theirs), StringComparer.Ordinal),
                        Institution = string.Join(" ", theirs.InstitutionColours),
                    }
                );
            }
        );
    }

    private async Task Find()
    {
        Now = await frame.Now();
        Otherwise = HouseRuleMatter
            .All.SelectMany(m => Now.Plan.Planters.Where(p => m.Of(p.Rules) is not null).Select(p => (m.Key, Planter: p)))
            .ToLookup(x => x.Key, x => x.Planter);
    }
}
