using System.Data.Common;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>
/// What one page says through the next lies in the database; the browser carries its number, never the words. Pages ask for their words at
/// once and without waiting, so they are read before a page begins and kept when its answer does.
/// </summary>
/// <param name="messages">Where words are kept.</param>
/// <param name="log">The log.</param>
public sealed class Messages(MessageStore messages, ILogger<Messages> log) : ITempDataProvider, IAsyncResourceFilter, IOrderedFilter
{
    private const string Cookie = "meadow-said";
    private const int MostUnits = 4000;

    /// <summary>Before that which saves words, so that what is done when an answer begins is done after it.</summary>
    public int Order => int.MinValue;

    /// <inheritdoc />
    public async Task OnResourceExecutionAsync(ResourceExecutingContext context, ResourceExecutionDelegate next)
    {
        HttpContext http = context.HttpContext;
        var words = new Said();
        http.Items[typeof(Said)] = words;
        if (IsSeen(http) && Guid.TryParse(http.Request.Cookies[Cookie], out Guid id))
            await Trying(async () => words.Found = await messages.Find(id) is { } text ? (id, text) : null);
        http.Response.OnStarting(() =>
            Trying(async () =>
            {
                if (words is { Found: { } found, AreTaken: true })
                    await messages.Drop(found.Id);
                if (words.Kept is { } kept)
                    await messages.Keep(kept.Id, kept.Text);
            })
        );
        await next();
    }

    /// <inheritdoc />
    public IDictionary<string, object> LoadTempData(HttpContext context)
    {
        if (Of(context) is not { Found: { } found } words)
            return new Dictionary<string, object>(StringComparer.Ordinal);
        words.AreTaken = true;
        return (JsonSerializer.Deserialize<Dictionary<string, string>>(found.Text) ?? []).ToDictionary(
            k => k.Key,
            k => (object)k.Value,
            StringComparer.Ordinal
        );
    }

    /// <inheritdoc />
    public void SaveTempData(HttpContext context, IDictionary<string, object> values)
    {
        Dictionary<string, string> said = values
            .Where(v => v.Value is string)
            .ToDictionary(v => v.Key, v => PlainText.Cut(PlainText.Mended((string)v.Value), MostUnits), StringComparer.Ordinal);
        if (said.Count > 0 && Of(context) is { } words)
        {
            var id = Guid.NewGuid();
            words.Kept = (id, JsonSerializer.Serialize(said));
            context.Response.Cookies.Append(
                Cookie,
                $"{id}",
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

    // A preview that a script asks for in the moment between a save and its page must not take the words that the page would say.
    private static bool IsSeen(HttpContext context) => context.Request.Headers["Sec-Fetch-Mode"] is not [{ } mode] || mode == "navigate";

    private static Said? Of(HttpContext context) => context.Items[typeof(Said)] as Said;

    // What was done is done; only that it was goes unsaid. The page itself says where the database is away.
    private async Task Trying(Func<Task> work)
    {
        try
        {
            await work();
        }
        catch (DbException e)
        {
            log.LogWarning("A message was lost: {Why}", e.Message);
        }
    }

    private sealed class Said
    {
        public (Guid Id, string Text)? Found { get; set; }

        public bool AreTaken { get; set; }

        public (Guid Id, string Text)? Kept { get; set; }
    }
}
