using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.SignIn;

/// <summary>Makes the first owner of an installation that has none, for whoever holds the code that the launcher printed.</summary>
[OpenToAll]
public sealed class WelcomeModel(
    PeopleStore people,
    PassStore passes,
    MeadowDatabase database,
    UserManager<Person> users,
    SignIns signIns,
    IConfiguration settings
) : PageModel
{
    [BindProperty(SupportsGet = true)]
    public string? Code { get; set; }

    [BindProperty]
    public AccountInput Account { get; set; } = new();

    [BindProperty]
    public bool Taps { get; set; }

    /// <summary>True where a tap may sign in.</summary>
    public bool OwnMachine => PeopleServices.IsOnOwnMachine(HttpContext, settings);

    public async Task<IActionResult> OnGetAsync() => await people.HasOwner() ? Redirect("/signin") : Page();

    [OpenToAll]
    public async Task<IActionResult> OnPostAsync()
    {
        if (await people.HasOwner())
            return Redirect("/signin");
        ModelState.Clear();
        try
        {
            if (Code is null || await passes.Look(PassKind.FirstOwner, Code) is null)
                throw new InvalidInputException("Code", "is not the one that was printed last; ./meadow owner prints a new one");
            bool taps = Taps && OwnMachine;
            Person owner = await Account.Add(
                users,
                p =>
                {
                    p.IsSteward = true;
                    p.Taps = taps;
                },
                withoutPassword: taps
            );
            if (await passes.Take(PassKind.FirstOwner, Code) is null)
            {
                await users.DeleteAsync(owner);
                throw new InvalidInputException("Code", "was used a moment ago by somebody else");
            }
            foreach (SiteEntry site in await database.Sites())
                await people.Settle(site.Id, owner.Id, SiteRole.Owner);
            await signIns.Begin(owner, "first owner");
            return Redirect("/");
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                ModelState.AddModelError(AccountInput.Field(fault.Field) ?? string.Empty, new FactWriter(Core.Planning.SiteUnits.Metric).Say(fault));
            return Page();
        }
    }
}
