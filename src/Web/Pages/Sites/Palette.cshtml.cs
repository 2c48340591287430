using Hangfire;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.Sites;

/// <summary>The palette that all sites of the installation share: what a site's own would change of it, and how far each site follows.</summary>
[NeedsSteward]
public sealed class PaletteModel(
    Visitor visitor,
    SiteRegistry sites,
    SharedPaletteStore shared,
    IBackgroundJobClient background,
    MeadowDatabase database
) : PageModel
{
    /// <summary>The site whose palette is looked at.</summary>
    [BindProperty(SupportsGet = true)]
    public string? From { get; set; }

    /// <summary>The sharing that whoever sends has seen.</summary>
    [BindProperty]
    public long? Seen { get; set; }

    [BindProperty(Name = "kinds[]")]
    public string[] Kinds { get; set; } = [];

    [BindProperty(Name = "kindList")]
    public string? KindList { get; set; }

    /// <summary>The latest sharing; null where nothing was ever shared.</summary>
    public PaletteSharing? Latest { get; private set; }

    /// <summary>Kinds that are shared now.</summary>
    public int SharedCount { get; private set; }

    /// <summary>The sites whose palette the reader may share.</summary>
    public IReadOnlyList<Membership> Sources { get; private set; } = [];

    /// <summary>What sharing a site's palette would change; null where none was chosen.</summary>
    public IReadOnlyList<(Plant Plant, bool IsNew, bool Ends, IReadOnlyList<CellChange> Cells)>? Changes { get; private set; }

    /// <summary>The reader's sites and how far each follows; null where it has not yet.</summary>
    public IReadOnlyList<(Membership Site, PaletteFollowing? Following)> Followings { get; private set; } = [];

    /// <summary>Sites that the reader does not belong to, and how many of them have followed.</summary>
    public (int All, int Followed) Others { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        await Fill();
        return From is not null && Changes is null ? NotFound() : Page();
    }

    [NeedsSteward]
    public async Task<IActionResult> OnPostAsync()
    {
        ModelState.Clear();
        await Fill();
        if (Changes is null)
            return NotFound();
        HashSet<string> chosen = [.. Ticked.Of(Kinds, KindList)];
        try
        {
            await shared.Share(
                [.. Changes.Where(c => !c.Ends && chosen.Contains(c.Plant.Id)).Select(c => c.Plant)],
                [.. Changes.Where(c => c.Ends && chosen.Contains(c.Plant.Id)).Select(c => c.Plant.Id)],
                Seen,
                visitor.Person!.Name,
                Sources.First(s => s.Slug == From).SiteName
            );
        }
        catch (InvalidInputException e)
        {
            ModelState.AddModelError(string.Empty, e.Message);
            return Page();
        }
        catch (LostUpdateException)
        {
            ModelState.AddModelError(
                string.Empty,
                "Somebody else has shared a palette since you opened this page. What is below is compared with theirs; look and share again."
            );
            return Page();
        }
        background.Enqueue<PaletteFollower>(f => f.Run(CancellationToken.None));
        TempData["Said"] = "Shared. The sites follow within a minute; what is their own stays theirs.";
        return Redirect("/sites/palette");
    }

    private async Task Fill()
    {
        Sources = [.. visitor.Memberships.Where(m => m.Role >= SiteRole.Planner)];
        Latest = await shared.LatestSharing();
        IReadOnlyDictionary<string, Plant> now = await shared.Shared();
        SharedCount = now.Count;
        Dictionary<Guid, PaletteFollowing> followings = (await shared.Followings()).ToDictionary(f => f.SiteId);
        Followings = [.. visitor.Memberships.Select(m => (m, followings.GetValueOrDefault(m.SiteId)))];
        HashSet<Guid> own = [.. visitor.Memberships.Select(m => m.SiteId)];
        List<SiteEntry> others = [.. (await database.Sites()).Where(s => !own.Contains(s.Id))];
        Others = (others.Count, others.Count(s => followings.TryGetValue(s.Id, out PaletteFollowing? f) && f.Number == Latest?.Number));
        if (Sources.FirstOrDefault(s => s.Slug == From) is not { } source)
            return;
        Plan plan = await sites.Of(source.SiteId).Plans.Load();
        Changes =
        [
            .. plan.Palette.Where(p => !now.ContainsKey(p.Id)).Select(p => (p, true, false, (IReadOnlyList<CellChange>)[])),
            .. plan
                .Palette.Where(p => now.TryGetValue(p.Id, out Plant? common) && shared.Figures(SharedPalette.As(p, null)) != shared.Figures(common))
                .Select(p => (p, false, false, PaletteSheet.Differences(now[p.Id], SharedPalette.As(p, null)))),
            .. now.Values.Where(p => plan.FindPlant(p.Id) is null).Select(p => (p, false, true, (IReadOnlyList<CellChange>)[])),
        ];
    }
}
