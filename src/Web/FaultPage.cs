using System.Data.Common;
using System.Net.Mime;
using Microsoft.AspNetCore.Diagnostics;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>
/// Says what went wrong and what can be done. The page is plain text in a frame: it asks no database, no view and no file, so that
/// nothing that failed can make it fail too.
/// </summary>
public static class FaultPage
{
    /// <summary>Answers a request that ended with nothing but a code.</summary>
    public static Task OfCode(StatusCodeContext context) => Write(context.HttpContext, context.HttpContext.Response.StatusCode);

    /// <summary>Answers a request that threw.</summary>
    public static Task OfException(HttpContext context)
    {
        Exception? thrown = context.Features.Get<IExceptionHandlerFeature>()?.Error;
        int code = thrown switch
        {
            _ when thrown is not null && IsAway(thrown) => StatusCodes.Status503ServiceUnavailable,
            InvalidInputException or LostUpdateException or PostgresException or BadHttpRequestException => StatusCodes.Status400BadRequest,
            _ => StatusCodes.Status500InternalServerError,
        };
        if (code == StatusCodes.Status503ServiceUnavailable)
        {
            // Connections that were cut with this one would each fail once more; the next page gets a fresh one.
            context.RequestServices.GetRequiredService<MeadowDatabase>().Source.Clear();
        }
        context.Response.StatusCode = code;
        return Write(context, code, thrown is InvalidInputException or LostUpdateException ? thrown.Message : null);
    }

    /// <summary>True when the database itself does not answer, and not only refuses what it was asked.</summary>
    public static bool IsAway(Exception thrown) =>
        thrown switch
        {
            // Classes 08 and 57P: the connection failed, or the server is going down or coming up; 53300: it takes no more connections.
            PostgresException p => p.SqlState.StartsWith("08", StringComparison.Ordinal)
                || p.SqlState.StartsWith("57P", StringComparison.Ordinal)
                || p.SqlState == PostgresErrorCodes.TooManyConnections
                || p.SqlState == "55000",
            DbException => true,
            TimeoutException => true,
            _ => thrown.InnerException is { } inner && IsAway(inner),
        };

    private static (string Heading, string Text) Words(int code) =>
        code switch
        {
            404 => ("There is no such page", "It may have been removed, or the address is mistyped. Nothing was changed."),
            405 => (
                "This page takes no form",
                "The page you sent it from may be of an older version. Open it again and send once more; nothing was saved."
            ),
            400 => (
                "That could not be taken",
                "The page had stood open too long or its form was changed on the way. Go back, load the page again and send once more; nothing was saved."
            ),
            413 or 411 => (
                "That file is too large",
                "Files of up to 20 MB are taken. Leave out what is not needed, or bring in a few years at a time. Nothing was changed."
            ),
            414 or 431 => ("That address is too long", "Go back, load the page again and send once more; nothing was saved."),
            429 => (
                "Another file is being read",
                "Large files are read one at a time. Go back in a minute and send it once more; nothing was saved."
            ),
            503 => (
                "The database does not answer",
                (
                    "Nothing was half-saved. It may be starting again: go back in a moment and try "
                    + "once more. If it stays away, ./meadow stop and ./meadow start bring both back."
                )
            ),
            < 500 => ("That could not be taken", "Go back, load the page again and send once more; nothing was saved."),
            _ => (
                "Something went wrong here",
                "It was not your doing, and nothing was half-saved. Go back and try once more; if it happens again, the program's log says why."
            ),
        };

    private static Task Write(HttpContext context, int code, string? why = null)
    {
        (string heading, string text) = Words(code);
        if (why is not null)
            text = System.Net.WebUtility.HtmlEncode(PlainText.Cut(PlainText.Mended(why), 1000)) + "</p>\n    <p>" + text;
        context.Response.ContentType = MediaTypeNames.Text.Html + "; charset=utf-8";
        context.Response.Headers.CacheControl = "no-store";
        return context.Response.WriteAsync(
            $"""
            <!DOCTYPE html>
            <html lang="en">
            <head>
              <meta charset="utf-8">
              <meta name="viewport" content="width=device-width, initial-scale=1">
              <title>{heading} · Unruly Meadow</title>
              <link rel="icon" href="/favicon.svg" type="image/svg+xml">
              <link rel="stylesheet" href="/lib/bootstrap/bootstrap.min.css">
              <link rel="stylesheet" href="/css/meadow.css">
            </head>
            <body>
              <a class="skip" href="#main">Skip to the page</a>
              <header class="top">
                <p class="brand"><a href="/year">Unruly Meadow</a></p>
              </header>
              <main id="main" tabindex="-1">
                <h1>{heading}</h1>
                <p>{text}</p>
                <p><a href="/year">Back to the year</a></p>
              </main>
            </body>
            </html>

            """
        );
    }
}
