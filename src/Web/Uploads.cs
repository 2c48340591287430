using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace UnrulyMeadow.Web;

/// <summary>Limits of what can be sent.</summary>
public static class Uploads
{
    /// <summary>Largest file.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Room for the form around a file.</summary>
    public const long FormAllowance = 256 * 1024;
}

/// <summary>Answers a request that is too large with a page that says so, before its body is read.</summary>
public sealed class UploadLimitFilter : IResourceFilter
{
    /// <inheritdoc />
    public void OnResourceExecuting(ResourceExecutingContext context)
    {
        if (context.HttpContext.Request.ContentLength <= Uploads.MostBytes + Uploads.FormAllowance)
            return;
        if (context.HttpContext.Request.ContentLength is null && context.HttpContext.Features.Get<IHttpRequestBodyDetectionFeature>()?.CanHaveBody != true)
            return;
        context.Result = new StatusCodeResult(context.HttpContext.Request.ContentLength is null ? StatusCodes.Status411LengthRequired : StatusCodes.Status413PayloadTooLarge);
    }

    /// <inheritdoc />
    public void OnResourceExecuted(ResourceExecutedContext context)
    {
    }
}
