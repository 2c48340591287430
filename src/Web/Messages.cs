using System.Text.Json;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>What one page says through the next lies in the database; the browser carries its number, never the words.</summary>
/// <param name="messages">Where words are kept.</param>
/// <param name="log">The log.</param>
public sealed class Messages(MessageStore messages, ILogger<Messages> log) : ITempDataProvider
{
    private const string Cookie = "meadow-said";
    private const int MostUnits = 4000;

    /// <inheritdoc />
    public IDictionary<string, object> LoadTempData(HttpContext context)
    {
        var said = new Dictionary<string, object>(StringComparer.Ordinal);
        if (!IsSeen(context) || !Guid.TryParse(context.Request.Cookies[Cookie], out Guid id))
            return said;
        try
        {
            if (messages.Take(id) is { } text && JsonSerializer.Deserialize<Dictionary<string, string>>(text) is { } kept)
            {
                foreach ((string key, string value) in kept)
                    said[key] = value;
            }
        }
        catch (System.Data.Common.DbException e)
        {
            // Words that are lost harm nobody; the page itself says that the database is away.
            log.LogWarning("A message was lost: {Why}", e.Message);
        }
        return said;
    }

    // A preview that a script asks for in the moment between a save and its page must not take the words that the page would say.
    private static bool IsSeen(HttpContext context) => context.Request.Headers["Sec-Fetch-Mode"] is not [{ } mode] || mode == "navigate";

    /// <inheritdoc />
    public void SaveTempData(HttpContext context, IDictionary<string, object> values)
    {
        Dictionary<string, string> said = values
            .Where(v => v.Value is string)
            .ToDictionary(v => v.Key, v => PlainText.Cut(PlainText.Mended((string)v.Value), MostUnits), StringComparer.Ordinal);
        if (said.Count > 0 && Keep(said) is { } number)
        {
            context.Response.Cookies.Append(
                Cookie,
                $"{number}",
                new CookieOptions
                {
                    HttpOnly = true,
                    Secure = context.Request.IsHttps,
                    SameSite = SameSiteMode.Strict,
                    IsEssential = true,
                }
            );
        }
        else if (IsSeen(context) && context.Request.Cookies.ContainsKey(Cookie))
        {
            context.Response.Cookies.Delete(Cookie);
        }
    }

    private Guid? Keep(Dictionary<string, string> said)
    {
        try
        {
            return messages.Keep(JsonSerializer.Serialize(said));
        }
        catch (System.Data.Common.DbException e)
        {
            // What was done is done; only that it was goes unsaid.
            log.LogWarning("A message was lost: {Why}", e.Message);
            return null;
        }
    }
}
