namespace UnrulyMeadow.Web;

/// <summary>Limits of what can be sent.</summary>
public static class Uploads
{
    /// <summary>Largest file.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Room for the form around a file.</summary>
    public const long FormAllowance = 256 * 1024;

    /// <summary>
    /// Largest request that the server itself lets in. A file over <see cref="MostBytes"/> is answered with a page that says
    /// so; beyond this the connection is cut.
    /// </summary>
    public const long ServerMostBytes = 200 * 1024 * 1024;

    /// <summary>Most fields of one form: a site of thousands of planters, one ticked field each.</summary>
    public const int MostFields = 12_000;

    /// <summary>Longest field, characters.</summary>
    public const int MostFieldChars = 1024 * 1024;

    /// <summary>Answers a request that is too large, or does not say how large it is, before its body is read.</summary>
    public static Task Refuse(HttpContext context, RequestDelegate next)
    {
        HttpRequest request = context.Request;
        if (request.ContentLength > MostBytes + FormAllowance)
        {
            context.Response.StatusCode = StatusCodes.Status413PayloadTooLarge;
            return Task.CompletedTask;
        }
        else if (HttpMethods.IsPost(request.Method) && request.ContentLength is null)
        {
            context.Response.StatusCode = StatusCodes.Status411LengthRequired;
            return Task.CompletedTask;
        }
        return next(context);
    }
}
