using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.SignIn;

/// <summary>Takes an invitation to a site.</summary>
[OpenToAll]
public sealed class JoinModel(PassStore passes, PeopleStore people, SiteRegistry sites, UserManager<Person> users, SignIns signIns, Visitor visitor)
    : PageModel
{
    [BindProperty(SupportsGet = true)]
    public string Code { get; set; } = string.Empty;

    [BindProperty]
    public AccountInput Account { get; set; } = new();

    /// <summary>The site that the invitation is to; null where it is no longer good.</summary>
    public string? SiteName { get; private set; }

    /// <summary>As what.</summary>
    public SiteRole Role { get; private set; }

    public Task OnGetAsync() => Fill();

    [OpenToAll]
    public async Task<IActionResult> OnPostAsync()
    {
        await Fill();
        ModelState.Clear();
        if (SiteName is null)
            return Page();
        try
        {
            Person person = await Account.Add(users);
            if (!await Join(person))
            {
                await users.DeleteAsync(person);
                SiteName = null;
                return Page();
            }
            await signIns.Begin(person, "invitation");
            return Redirect("/");
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                ModelState.AddModelError(AccountInput.Field(fault.Field) ?? string.Empty, new FactWriter(Core.Planning.SiteUnits.Metric).Say(fault));
            return Page();
        }
    }

    [OpenToAll]
    public async Task<IActionResult> OnPostAcceptAsync()
    {
        await Fill();
        if (visitor.Person is not { } person || SiteName is null || !await Join(person))
            return Page();
        TempData["Said"] = $"You belong to {SiteName} now.";
        return Redirect("/");
    }

    // Whoever is more there already stays so.
    private async Task<bool> Join(Person person)
    {
        if (await passes.Take(PassKind.Invitation, Code) is not { SiteId: { } site, Role: { } role })
            return false;
        if (visitor.Memberships.FirstOrDefault(m => m.SiteId == site) is not { } present || present.Role < role)
            await people.Settle(site, person.Id, role);
        return true;
    }

    private async Task Fill()
    {
        if (await passes.Look(PassKind.Invitation, Code) is { SiteId: { } site, Role: { } role })
            (SiteName, Role) = ((await sites.Sites()).FirstOrDefault(s => s.Id == site)?.Name, role);
    }
}
