using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace UnrulyMeadow.Web;

/// <summary>A form sent to a page that takes none, as from a window left open since an older version, is refused politely.</summary>
public sealed class RefuseFormsWithoutHandler : IPageFilter
{
    /// <inheritdoc />
    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    /// <inheritdoc />
    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        bool asks = HttpMethods.IsGet(context.HttpContext.Request.Method) || HttpMethods.IsHead(context.HttpContext.Request.Method);
        if (context.HandlerMethod is null && !asks)
            context.Result = new StatusCodeResult(StatusCodes.Status405MethodNotAllowed);
    }

    /// <inheritdoc />
    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }
}
