using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Sites;

/// <summary>
/// The addresses of a site's pages: <c>/at/SITE/year</c>. The part before the page is the request's base, which every link repeats. Where
/// there is one site alone, its people find its pages without it.
/// </summary>
public static class SiteAddresses
{
    /// <summary>What a site's addresses begin with.</summary>
    public const string Prefix = "/at";

    /// <summary>The beginning of a site's addresses.</summary>
    public static string Base(SiteEntry site) => $"{Prefix}/{site.Slug}";

    /// <summary>Finds the site that each request is about.</summary>
    public static void UseSites(this IApplicationBuilder app) => app.Use(Enter);

    private static SiteEntry Entry(Membership m) => new(m.SiteId, m.Slug, m.SiteName);

    private static async Task Enter(HttpContext http, RequestDelegate next)
    {
        CurrentSite current = http.RequestServices.GetRequiredService<CurrentSite>();
        SiteRegistry registry = http.RequestServices.GetRequiredService<SiteRegistry>();
        // A site that somebody does not belong to is not there for them.
        IReadOnlyList<Membership> theirs = http.RequestServices.GetRequiredService<Visitor>().Memberships;
        if (http.Request.Path.StartsWithSegments(Prefix, StringComparison.Ordinal, out PathString rest) && rest.Value is { Length: > 1 } named)
        {
            int end = named.IndexOf('/', 1);
            string slug = end < 0 ? named[1..] : named[1..end];
            http.Request.PathBase = http.Request.PathBase.Add($"{Prefix}/{slug}");
            http.Request.Path = end < 0 ? "/" : named[end..];
            if (theirs.FirstOrDefault(s => s.Slug == slug) is { } site)
                current.Enter(Entry(site));
        }
        else if (theirs is [var only])
        {
            current.Enter(Entry(only));
        }
        await next(http);
        registry.MakeRoom();
    }
}

/// <summary>Keeps a page that sends somebody on within the site that it is about.</summary>
public sealed class StaysOnSite : IResultFilter
{
    /// <inheritdoc />
    public void OnResultExecuting(ResultExecutingContext context)
    {
        if (context.Result is RedirectResult { Url: ['/', not ('/' or '\\'), ..] or "/" } on)
            on.Url = context.HttpContext.Request.PathBase + on.Url;
    }

    /// <inheritdoc />
    public void OnResultExecuted(ResultExecutedContext context) { }
}
