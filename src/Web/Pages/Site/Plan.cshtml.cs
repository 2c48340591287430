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
public sealed class PlanModel(PageFrame frame, PlanStore plans, LookFirst looks) : PageModel
{
    internal const string Kind = "plan";

    [BindProperty(SupportsGet = true, Name = "draft")]
    public Guid? Draft { get; set; }

    public string FileName { get; private set; } = string.Empty;

    public Plan Plan { get; private set; } = null!;

    /// <summary>What the present plan holds that the other does not; null where the file could not be read just now.</summary>
    public PlanReplacement? Lost { get; private set; }

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
        return await looks.Show(this, Kind, Draft ?? Guid.Empty, "/site", async (name, content) =>
        {
            FileName = name;
            Plan = await looks.Read(() => Read(content));
            Lost = await plans.WouldReplace(Plan);
        });
    }

    /// <summary>Puts it in the place of the present plan.</summary>
    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await looks.Take(this, Kind, Draft ?? Guid.Empty, "/site", async (_, content) =>
        {
            Plan plan = await looks.Read(() => Read(content));
            await plans.Replace(plan, PlanFile.Write);
            TempData["Said"] = BroughtIn(plan);
            return "/site";
        });
    }

    private static Plan Read(byte[] content)
    {
        using var stream = new MemoryStream(content);
        return PlanFile.Read(stream);
    }
}
