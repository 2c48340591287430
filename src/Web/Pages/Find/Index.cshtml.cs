using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Find;

/// <summary>Everything that answers some words; the list that "/" opens on every page.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame) : PageModel
{
    /// <summary>What was typed.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Query { get; set; }

    /// <summary>What was found.</summary>
    public IReadOnlyList<SiteHit> Hits { get; private set; } = [];

    /// <summary>Finds it.</summary>
    public async Task OnGetAsync() => Hits = SiteFinder.Find(await frame.Now(), frame.Today, Query);
}
