using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.ViewFeatures;

namespace UnrulyMeadow.Web;

/// <summary>Leaves a page whose figures are still being reckoned; see <see cref="Site.PageFrame.Soon{T}"/>.</summary>
public sealed class StillReckoningException : Exception;

/// <summary>
/// In place of a page whose figures are still being reckoned, shows one that says so and opens the page by itself once they are there.
/// </summary>
public sealed class ShowsReckoning(IModelMetadataProvider metadata) : IExceptionFilter
{
    private const string AskAgainSeconds = "1";

    /// <inheritdoc />
    public void OnException(ExceptionContext context)
    {
        if (context.Exception is not StillReckoningException)
            return;
        context.HttpContext.Response.Headers["Refresh"] = AskAgainSeconds;
        context.Result = new ViewResult
        {
            ViewName = "/Pages/Shared/Reckoning.cshtml",
            ViewData = new ViewDataDictionary(metadata, context.ModelState),
        };
        context.ExceptionHandled = true;
    }
}
