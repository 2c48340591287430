using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace UnrulyMeadow.Web.Pages;

/// <summary>Says what went wrong and what can be done.</summary>
[IgnoreAntiforgeryToken]
public sealed class FaultModel : PageModel
{
    public string Heading { get; private set; } = string.Empty;

    public string Text { get; private set; } = string.Empty;

    public void OnGet(int? code) => Say(code);

    private void Say(int? code) => (Heading, Text) = (code ?? 500) switch
    {
        404 => ("There is no such page", "It may have been removed, or the address is mistyped. Nothing was changed."),
        400 => ("That could not be taken", "The page had stood open too long or its form was changed on the way. Go back, load the page again and send once more; nothing was saved."),
        413 or 411 => ("That file is too large", "Files of up to 20 MB are taken. Leave out what is not needed, or bring in a few years at a time. Nothing was changed."),
        _ => ("Something went wrong here", "It was not your doing, and nothing was half-saved. Go back and try once more; if it happens again, the program's log says why."),
    };
}
