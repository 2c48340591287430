using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.Sites;

/// <summary>A site in the overview.</summary>
/// <param name="Site">The site, and what the reader is there.</param>
/// <param name="IsKnown">False while its figures are being reckoned.</param>
/// <param name="Planters">Planters in use.</param>
/// <param name="Bare">Planters with a bare spell on a day of this week; null without weather.</param>
/// <param name="Turn">The next turn; null for none.</param>
public sealed record SiteRow(Membership Site, bool IsKnown, int Planters = 0, int? Bare = null, Turn? Turn = null);

/// <summary>The sites of whoever reads: where it is bare this week.</summary>
[NeedsSignIn]
public sealed class IndexModel(
    Visitor visitor,
    SiteRegistry sites,
    MeadowDatabase database,
    PeopleStore people,
    SharedPaletteStore shared,
    PaletteFollower follower,
    IClock clock
) : PageModel
{
    private const int LongestName = 60;
    private const int WeekDays = 7;

    // For all sites together; what takes longer is filled in once it is there.
    private static readonly TimeSpan AtOnce = TimeSpan.FromMilliseconds(200);

    [BindProperty]
    public string? Name { get; set; }

    /// <summary>The sites.</summary>
    public IReadOnlyList<SiteRow> Rows { get; private set; } = [];

    /// <summary>Those who see to the installation; for them alone.</summary>
    public IReadOnlyList<(Guid Id, string Name)> Stewards { get; private set; } = [];

    /// <summary>Owners of the reader's sites who do not see to the installation yet.</summary>
    public IReadOnlyList<SiteMember> Candidates { get; private set; } = [];

    public Task OnGetAsync() => Fill();

    /// <summary>Lets an owner see to the installation too.</summary>
    [NeedsSteward]
    public async Task<IActionResult> OnPostStewardAsync(Guid person)
    {
        await Fill();
        if (Candidates.FirstOrDefault(c => c.Id == person) is not { } chosen)
            return NotFound();
        await people.SetSteward(person, isSteward: true);
        TempData["Said"] = $"{chosen.Name} sees to the installation too.";
        return Redirect("/sites");
    }

    /// <summary>Gives up seeing to the installation.</summary>
    [NeedsSteward]
    public async Task<IActionResult> OnPostGiveUpAsync()
    {
        ModelState.Clear();
        try
        {
            await people.SetSteward(visitor.Person!.Id, isSteward: false);
        }
        catch (InvalidInputException e)
        {
            ModelState.AddModelError(string.Empty, e.Message);
            await Fill();
            return Page();
        }
        TempData["Said"] = "Others see to the installation from now on.";
        return Redirect("/sites");
    }

    [NeedsSteward]
    public async Task<IActionResult> OnPostAsync()
    {
        Person steward = visitor.Person!;
        string name = (Name ?? string.Empty).Trim();
        ModelState.Clear();
        if (name.Length == 0 || PlainText.Fault(name, LongestName, lines: false) is not null)
        {
            ModelState.AddModelError(nameof(Name), name.Length == 0 ? "is needed" : $"takes up to {LongestName} letters on one line");
            await Fill();
            return Page();
        }
        SiteEntry site = await database.AddSite(name, Ids.From(name, _ => false));
        await people.Settle(site.Id, steward.Id, SiteRole.Owner);
        sites.Forget();
        PlanStore plans = sites.Of(site.Id).Plans;
        bool isShared = await shared.LatestSharing() is not null;
        if (isShared)
            await follower.Follow(site.Id, steward.Name);
        LoadedPlan empty = await plans.Now();
        await Starter.Add(empty.Plan, empty.Versions, new PaletteStore(plans), withPlants: !isShared);
        return Redirect($"{SiteAddresses.Base(site)}/begin");
    }

    private async Task Fill()
    {
        List<(Membership Site, Task<SiteRow> Row)> asked = [.. visitor.Memberships.Select(m => (m, Task.Run(() => Look(m))))];
        await Task.WhenAny(Task.WhenAll(asked.Select(a => a.Row)), Task.Delay(AtOnce));
        if (visitor.IsSteward)
        {
            Stewards = await people.Stewards();
            var candidates = new List<SiteMember>();
            foreach (Membership at in visitor.Memberships)
                candidates.AddRange((await people.Of(at.SiteId)).Where(m => m.Role == SiteRole.Owner && Stewards.All(s => s.Id != m.Id)));
            Candidates = [.. candidates.DistinctBy(c => c.Id).OrderBy(c => c.Name, StringComparer.CurrentCulture)];
        }
        Rows = [.. asked.Select(a => a.Row.IsCompletedSuccessfully ? a.Row.Result : new SiteRow(a.Site, IsKnown: false))];
    }

    private async Task<SiteRow> Look(Membership at)
    {
        SiteState state = sites.Of(at.SiteId).State;
        SiteNow now = await state.Now();
        LocalDate today = clock.GetCurrentInstant().InZone(state.Zone).Date;
        Turn? next = now.Plan.Turns.Where(t => t.LastDay >= today).OrderBy(t => t.FirstDay).FirstOrDefault();
        int planters = now.Plan.Planters.Count(p => !p.IsRetired);
        if (now.Record is null)
            return new SiteRow(at, true, planters, null, next);
        SiteYear year = await state.Year(SiteYear.UsualStart(today, now.IsSouthern), null);
        int bare = year.Planters.Count(p => p.BareSpells.Any(b => b.FirstDay < today.PlusDays(WeekDays) && b.LastDay >= today));
        return new SiteRow(at, true, planters, bare, next);
    }
}
