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
    /// <summary>Says of a page that it is asked for once more.</summary>
    public const string Again = "meadow-again";

    // At once the first time, for then it is waited for.
    private const string FirstSeconds = "0";
    private const string LaterSeconds = "1";
    private static readonly TimeSpan AgainLasts = TimeSpan.FromSeconds(10);

    /// <inheritdoc />
    public void OnException(ExceptionContext context)
    {
        if (context.Exception is not StillReckoningException)
            return;
        HttpRequest asked = context.HttpContext.Request;
        context.HttpContext.Response.Headers["Refresh"] = asked.Cookies.ContainsKey(Again) ? LaterSeconds : FirstSeconds;
        context.HttpContext.Response.Cookies.Append(
            Again,
            "1",
            new CookieOptions
            {
                Path = asked.PathBase + asked.Path,
                MaxAge = AgainLasts,
                HttpOnly = true,
                Secure = asked.IsHttps,
                SameSite = SameSiteMode.Strict,
                IsEssential = true,
            }
        );
        context.Result = new ViewResult
        {
            ViewName = "/Pages/Shared/Reckoning.cshtml",
            ViewData = new ViewDataDictionary(metadata, context.ModelState),
        };
        context.ExceptionHandled = true;
    }
}
