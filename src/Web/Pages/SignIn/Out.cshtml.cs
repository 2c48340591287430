using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Pages.SignIn;

/// <summary>Ends the session.</summary>
[OpenToAll]
public sealed class OutModel(SignIns signIns) : PageModel
{
    [OpenToAll]
    public async Task<IActionResult> OnPostAsync()
    {
        await signIns.End();
        return Redirect("/signin");
    }
}
