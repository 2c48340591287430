using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Site;

/// <summary>Looks at a plan file before it takes the place of the present plan: what it holds, and what would be lost.</summary>
[Needs(SiteRole.Owner)]
public sealed class PlanModel(PageFrame frame, PlanStore plans, DraftStore drafts, HeavyWork heavy) : PageModel
{
    internal const string Kind = "plan";

    [BindProperty(SupportsGet = true, Name = "draft")]
    public Guid? Draft { get; set; }

    public string FileName { get; private set; } = string.Empty;

    public Plan Plan { get; private set; } = null!;

    /// <summary>What the present plan holds that the other does not.</summary>
    public PlanReplacement Lost { get; private set; } = null!;

    public SiteNow Now { get; private set; } = null!;

    /// <summary>What is said of a plan that was brought in.</summary>
    internal static string BroughtIn(Plan plan) =>
        (
            $"{plan.Site.Name} is brought in: {plan.Planters.Count} planters, {plan.Palette.Count} "
            + $"plants, {plan.Displays.Count} displays. The log, the weather and all photographs stayed."
        );

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (Draft is not { } id || await drafts.Find(Kind, id) is not { } draft)
        {
            TempData["Said"] = "That plan was taken already, or waited more than a day. Choose it again.";
            return Redirect("/site");
        }
        FileName = draft.Name;
        Plan = await Read(draft.Content);
        Lost = await plans.WouldReplace(Plan);
        return Page();
    }

    /// <summary>Puts it in the place of the present plan.</summary>
    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        if (Draft is not { } id || await drafts.Find(Kind, id) is not { } draft)
        {
            TempData["Said"] = "That plan was taken already, or waited more than a day. Choose it again.";
            return Redirect("/site");
        }
        Plan plan = await Read(draft.Content);
        await plans.Replace(plan, PlanFile.Write);
        await drafts.Drop(id);
        TempData["Said"] = BroughtIn(plan);
        return Redirect("/site");
    }

    private Task<Plan> Read(byte[] content) =>
        heavy.Do(() =>
            Task.Run(() =>
            {
                using var stream = new MemoryStream(content);
                return PlanFile.Read(stream);
            })
        );
}
