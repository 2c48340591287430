using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Pages.SignIn;

/// <summary>Signs a phone in by the code that a lead showed. A code is taken by a press of the button, not by a program that looks links up.</summary>
[OpenToAll]
public sealed class PhoneModel(PassStore passes, PeopleStore people, SignIns signIns) : PageModel
{
    [BindProperty(SupportsGet = true)]
    public string Code { get; set; } = string.Empty;

    /// <summary>Whose phone it is; null where the code is no longer good.</summary>
    public string? Name { get; private set; }

    public async Task OnGetAsync() => Name = await passes.Look(PassKind.Phone, Code) is { PersonId: { } id } ? (await people.Find(id))?.Name : null;

    [OpenToAll]
    public async Task<IActionResult> OnPostAsync()
    {
        if (await passes.Take(PassKind.Phone, Code) is not { PersonId: { } id, SiteId: { } site } || await people.Find(id) is not { } person)
            return Page();
        await signIns.Begin(person, "phone code", site);
        return Redirect("/");
    }
}
