using System.Globalization;
using Microsoft.AspNetCore.Localization;

namespace UnrulyMeadow.Web.Site;

/// <summary>
/// The language of what a crew sees: as the page's address asks, else as it was last chosen on this browser, else as the browser prefers,
/// else English. Numbers are written alike in all of them.
/// </summary>
public static class Languages
{
    private const string Query = "language";

    /// <summary>The language of this request, by its two letters.</summary>
    public static string Current => Texts.Languages.FirstOrDefault(l => l == CultureInfo.CurrentUICulture.Name) ?? "en";

    /// <summary>Each language with its name in itself.</summary>
    public static IReadOnlyList<(string Language, string Name)> All { get; } = [("en", "English"), ("es", "Español")];

    /// <summary>Settles the language of each request.</summary>
    public static void UseLanguages(this IApplicationBuilder app)
    {
        var plain = CultureInfo.InvariantCulture;
        CultureInfo[] known = [.. All.Select(l => CultureInfo.GetCultureInfo(l.Language))];
        app.UseRequestLocalization(
            new RequestLocalizationOptions
            {
                DefaultRequestCulture = new RequestCulture(plain, known[0]),
                SupportedCultures = [plain],
                SupportedUICultures = known,
                RequestCultureProviders =
                [
                    new QueryStringRequestCultureProvider { QueryStringKey = Query, UIQueryStringKey = Query },
                    new CookieRequestCultureProvider(),
                    new AcceptLanguageHeaderRequestCultureProvider(),
                ],
            }
        );
        app.Use(
            (http, next) =>
            {
                // What was chosen by an address holds for the pages after it.
                if (Array.Find(known, k => k.Name == http.Request.Query[Query]) is { } chosen)
                {
                    http.Response.Cookies.Append(
                        CookieRequestCultureProvider.DefaultCookieName,
                        CookieRequestCultureProvider.MakeCookieValue(new RequestCulture(plain, chosen)),
                        new CookieOptions
                        {
                            HttpOnly = true,
                            Secure = http.Request.IsHttps,
                            SameSite = SameSiteMode.Strict,
                            MaxAge = TimeSpan.FromDays(400),
                        }
                    );
                }
                return next(http);
            }
        );
    }

    /// <summary>The address of a page in a language.</summary>
    /// <param name="request">The page as it was asked for.</param>
    /// <param name="language">The language, by its two letters.</param>
    public static string Address(HttpRequest request, string language) =>
        request.PathBase
        + request.Path
        + QueryString.Create([
            .. request.Query.Where(q => q.Key is not (Query or "handler")).SelectMany(q => q.Value.Select(v => KeyValuePair.Create(q.Key, v))),
            KeyValuePair.Create<string, string?>(Query, language),
        ]);
}
