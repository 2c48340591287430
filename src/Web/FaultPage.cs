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
        if (WhyNotWritten(thrown) is { } why)
            return OfUnwritten(context, why);
        int code = thrown switch
        {
            _ when thrown is not null && IsAway(thrown) => StatusCodes.Status503ServiceUnavailable,
            InvalidInputException or LostUpdateException or PostgresException or BadHttpRequestException => StatusCodes.Status400BadRequest,
            _ => StatusCodes.Status500InternalServerError,
        };
        if (code == StatusCodes.Status503ServiceUnavailable && !WaitedTooLong(thrown))
        {
            // Connections that were cut with this one would each fail once more; the next page gets a fresh one. Where one question waited
            // too long the others are well, and to open all anew would hold a busy database up further.
            context.RequestServices.GetRequiredService<MeadowDatabase>().Source.Clear();
        }
        context.Response.StatusCode = code;
        return Write(context, code, thrown is InvalidInputException or LostUpdateException ? thrown.Message : null);
    }

    /// <summary>Why the database can be read and takes nothing; null where that is not so.</summary>
    public static string? WhyNotWritten(Exception? thrown) =>
        thrown switch
        {
            PostgresException { SqlState: PostgresErrorCodes.DiskFull } =>
                "The disk of the database is full: what is there can be read, and nothing new is taken.",
            PostgresException { SqlState: PostgresErrorCodes.ReadOnlySqlTransaction } => "The database can only be read at the moment.",
            PostgresException { SqlState: PostgresErrorCodes.IoError } => "The disk of the database does not take or give what it should.",
            PostgresException { SqlState: PostgresErrorCodes.OutOfMemory } => "The machine of the database is out of memory.",
            { InnerException: { } inner } => WhyNotWritten(inner),
            _ => null,
        };

    /// <summary>True when the database itself does not answer, and not only refuses what it was asked.</summary>
    public static bool IsAway(Exception thrown) =>
        thrown switch
        {
            // Classes 08 and 57P: the connection failed, or the server is going down or coming up; 53300: it takes no more connections.
            PostgresException p => WhyNotWritten(p) is not null
                || p.SqlState.StartsWith("08", StringComparison.Ordinal)
                || p.SqlState.StartsWith("57P", StringComparison.Ordinal)
                || p.SqlState == PostgresErrorCodes.TooManyConnections
                || p.SqlState == "55000",
            DbException => true,
            TimeoutException => true,
            _ => thrown.InnerException is { } inner && IsAway(inner),
        };

    private static bool WaitedTooLong(Exception? thrown) =>
        thrown is TimeoutException || (thrown?.InnerException is { } inner && WaitedTooLong(inner));

    private static (string Heading, string Text) Words(int code) =>
        code switch
        {
            401 => ("You are not signed in", "Sign in, go back and send it once more; nothing was saved."),
            403 => ("That is not yours to do", "Somebody who may do more at this site can do it, or an owner can let you. Nothing was changed."),
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
                "Too much at once",
                "Large files are read one at a time, and one person sends so much in a minute. Go back in a minute and send it once more; nothing was saved."
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

    /// <summary>Answers what is sent where nothing is taken at the moment.</summary>
    /// <param name="context">The request.</param>
    /// <param name="why">Why, in a sentence.</param>
    public static Task OfUnwritten(HttpContext context, string why)
    {
        context.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
        return Write(context, StatusCodes.Status503ServiceUnavailable, why);
    }

    private static Task Write(HttpContext context, int code, string? why = null)
    {
        (string heading, string text) =
            code == StatusCodes.Status503ServiceUnavailable && why is not null
                ? (
                    "Nothing can be saved at the moment",
                    "What you sent was not saved, whole or in part. Pages can be read meanwhile: go back, keep what you typed, and send it again later."
                )
                : Words(code);
        if (why is not null)
            text = System.Net.WebUtility.HtmlEncode(PlainText.Cut(PlainText.Mended(why), 1000)) + "</p>\n    <p>" + text;
        // By which whoever runs the app finds it in the log.
        if (code >= StatusCodes.Status500InternalServerError)
            text += $"</p>\n    <p class=\"quiet\">Request {System.Net.WebUtility.HtmlEncode(context.TraceIdentifier)}";
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
                <p class="brand"><a href="{context.Request.PathBase}/">Unruly Meadow</a></p>
              </header>
              <main id="main" tabindex="-1">
                <h1>{heading}</h1>
                <p>{text}</p>
                <p><a href="{context.Request.PathBase}/year">Back to the year</a></p>
              </main>
            </body>
            </html>

            """
        );
    }
}
