using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ModelBinding;

namespace UnrulyMeadow.Web;

/// <summary>Limits of what can be sent.</summary>
public static class Uploads
{
    /// <summary>Largest file.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>
    /// Largest request that the server itself lets in. A file over <see cref="MostBytes"/> is answered with a page that says
    /// so; beyond this the connection is cut.
    /// </summary>
    public const long ServerMostBytes = 200 * 1024 * 1024;

    /// <summary>Room for the form around a file.</summary>
    public const long FormAllowance = 256 * 1024;
}

/// <summary>Answers a request that is too large with a page that says so, before its body is read.</summary>
public sealed class UploadLimitFilter : IResourceFilter
{
    /// <inheritdoc />
    public void OnResourceExecuting(ResourceExecutingContext context)
    {
        // The page that says so is reached with the same request.
        if (context.HttpContext.Features.Get<IStatusCodeReExecuteFeature>() is not null)
            return;
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

/// <summary>Keeps a page from reading the body of its request: the page that names a fault must not stumble over it again.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class WithoutFormAttribute : Attribute, IResourceFilter
{
    /// <inheritdoc />
    public void OnResourceExecuting(ResourceExecutingContext context)
    {
        context.ValueProviderFactories.RemoveType<FormValueProviderFactory>();
        context.ValueProviderFactories.RemoveType<FormFileValueProviderFactory>();
        context.ValueProviderFactories.RemoveType<JQueryFormValueProviderFactory>();
    }

    /// <inheritdoc />
    public void OnResourceExecuted(ResourceExecutedContext context)
    {
    }
}
