using System.Data.Common;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Pages;

/// <summary>Says what went wrong and what can be done.</summary>
[IgnoreAntiforgeryToken]
public sealed class FaultModel(MeadowDatabase database) : PageModel
{
    public string Heading { get; private set; } = string.Empty;

    public string Text { get; private set; } = string.Empty;

    public void OnGet(int? code) => Say(code);

    // A refused form is answered by this page under the form's own method.
    public void OnPost(int? code) => Say(code);

    private void Say(int? code) => (Heading, Text) = (code ?? Thrown()) switch
    {
        404 => ("There is no such page", "It may have been removed, or the address is mistyped. Nothing was changed."),
        405 => ("This page takes no form", "The page you sent it from may be of an older version. Open it again and send once more; nothing was saved."),
        400 => ("That could not be taken", "The page had stood open too long or its form was changed on the way. Go back, load the page again and send once more; nothing was saved."),
        413 or 411 => ("That file is too large", "Files of up to 20 MB are taken. Leave out what is not needed, or bring in a few years at a time. Nothing was changed."),
        503 => ("The database does not answer", "Nothing was half-saved. It may be starting again: go back in a moment and try once more. If it stays away, ./meadow stop and ./meadow start bring both back."),
        _ => ("Something went wrong here", "It was not your doing, and nothing was half-saved. Go back and try once more; if it happens again, the program's log says why."),
    };

    // Without a code the page stands in for one that threw; a database that is away is said as such.
    private int Thrown()
    {
        if (HttpContext.Features.Get<IExceptionHandlerFeature>()?.Error is not DbException)
            return StatusCodes.Status500InternalServerError;
        // Connections that were cut with this one would each fail once more; the next page gets a fresh one.
        database.Source.Clear();
        Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
        return StatusCodes.Status503ServiceUnavailable;
    }
}
