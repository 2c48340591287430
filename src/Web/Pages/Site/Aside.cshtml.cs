using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Site;

/// <summary>What is stored and does not fit the plan: what it is, why it stands aside, and how it is mended.</summary>
[Needs(SiteRole.Owner)]
public sealed class AsideModel(PageFrame frame, PlanStore plans) : PageModel
{
    public SiteNow Now { get; private set; } = null!;

    public async Task OnGetAsync() => Now = await frame.Now();

    /// <summary>What is stored of one, as a file.</summary>
    public async Task<IActionResult> OnGetFileAsync(string? list, string? id)
    {
        Now = await frame.Now();
        if (Now.Aside.All(a => a.List != list || a.Id != id) || await plans.AsideText(list!, id!) is not { } text)
            return NotFound();
        Response.Headers.CacheControl = "no-store";
        return File(Encoding.UTF8.GetBytes(text), "application/json", $"{list}-{(Core.Ids.IsValid(id) ? id : "part")}.json");
    }

    /// <summary>Takes one out for good.</summary>
    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostRemoveAsync(string? list, string? id)
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await plans.RemoveAside(list ?? string.Empty, id ?? string.Empty);
                TempData["Said"] = "Taken out for good.";
                return Redirect("/site/aside");
            }
        );
    }

    /// <summary>How it is mended, in words.</summary>
    public static string Mend(SetAside a) =>
        a.List switch
        {
            "displays" or "recipes" or "lots" =>
                "Put the plant or planter that it names back as it was, and it stands in the plan again; or take it out.",
            "palette" => "Bring the plant in again with a palette sheet, under the same id; or take it out, where nothing uses it.",
            "site" => "Save the settings once more on the Site page.",
            _ => "Bring it in again with a plan file; or take it out.",
        };

    /// <summary>One of a list, in words.</summary>
    public static string One(SetAside a) =>
        a.List switch
        {
            "palette" => "plant",
            "map" => "part of the map",
            "site" => "settings",
            _ => a.List[..^1],
        };
}
