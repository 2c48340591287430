using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.People;

/// <summary>
/// Lets in whoever may ask what they ask, before anything of it is read. A page or handler that says of nobody that they may is
/// refused to everybody.
/// </summary>
public static class Gate
{
    /// <summary>The claim that names the session.</summary>
    public const string SessionClaim = "session";

    private const string SignInPage = "/signin";
    private const string OverviewPage = "/sites";

    /// <summary>Finds out who asks.</summary>
    public static void UseVisitors(this IApplicationBuilder app)
    {
        app.UseAuthentication();
        app.Use(
            async (http, next) =>
            {
                if (
                    Guid.TryParse(http.User.FindFirstValue(SessionClaim), out Guid session)
                    && await http.RequestServices.GetRequiredService<SessionStore>().Find(session) is { } known
                )
                    http.RequestServices.GetRequiredService<Visitor>().Enter(session, known);
                await next(http);
            }
        );
    }

    /// <summary>Refuses what whoever asks may not.</summary>
    public static void UseGate(this IApplicationBuilder app) => app.Use(Pass);

    /// <summary>What an endpoint needs; null where it says nothing.</summary>
    /// <param name="metadata">The endpoint's.</param>
    /// <param name="method">How it is asked.</param>
    /// <param name="handler">The handler that is named, if any.</param>
    public static object? NeedOf(EndpointMetadataCollection metadata, string method, string? handler)
    {
        bool reads = HttpMethods.IsGet(method) || HttpMethods.IsHead(method);
        if (metadata.GetMetadata<CompiledPageActionDescriptor>() is not { } page)
            return Need(metadata);
        HandlerMethodDescriptor? found = page.HandlerMethods.FirstOrDefault(h =>
            string.Equals(h.HttpMethod, reads ? HttpMethods.Get : method, StringComparison.OrdinalIgnoreCase)
            && string.Equals(h.Name ?? string.Empty, handler ?? string.Empty, StringComparison.OrdinalIgnoreCase)
        );
        object? own = found is null ? null : Need(found.MethodInfo.GetCustomAttributes(inherit: true));
        // What writes says for itself who may; what reads is as open as its page. What no handler takes is refused further on.
        return own ?? (reads || found is null ? Need(page.HandlerTypeInfo.GetCustomAttributes(inherit: true)) : null);
    }

    /// <summary>True where somebody may.</summary>
    public static bool May(object? need, Visitor visitor) =>
        need switch
        {
            OpenToAllAttribute => true,
            NeedsSignInAttribute => visitor.Person is not null,
            NeedsAttribute n => visitor.May(n.Role),
            NeedsStewardAttribute => visitor.IsSteward,
            _ => false,
        };

    private static object? Need(IEnumerable<object> said) =>
        said.FirstOrDefault(a => a is NeedsAttribute or NeedsSignInAttribute or NeedsStewardAttribute or OpenToAllAttribute);

    private static async Task Pass(HttpContext http, RequestDelegate next)
    {
        if (http.GetEndpoint() is not { } endpoint)
        {
            await next(http);
            return;
        }
        string? handler = http.Request.RouteValues["handler"] as string ?? http.Request.Query["handler"];
        object? need = NeedOf(endpoint.Metadata, http.Request.Method, handler);
        Visitor visitor = http.RequestServices.GetRequiredService<Visitor>();
        CurrentSite site = http.RequestServices.GetRequiredService<CurrentSite>();
        visitor.At(site.Entry);
        bool looks = HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method);
        if (May(need, visitor))
        {
            // A page that is somebody's is nobody else's, whatever lies between.
            if (need is not OpenToAllAttribute)
                http.Response.OnStarting(KeepPrivate, http.Response);
            await next(http);
        }
        else if (visitor.Person is null)
        {
            string wanted = http.Request.PathBase + http.Request.Path + http.Request.QueryString;
            if (looks && IsPage(http.Request))
                http.Response.Redirect(SignInPage + QueryString.Create("to", wanted));
            else
                http.Response.StatusCode = StatusCodes.Status401Unauthorized;
        }
        else if (need is NeedsAttribute && !site.IsKnown)
        {
            // Under no site's address: which one is meant is asked. Under the address of one that is not theirs there is nothing.
            if (looks && !http.Request.PathBase.HasValue)
                http.Response.Redirect(OverviewPage);
            else
                http.Response.StatusCode = StatusCodes.Status404NotFound;
        }
        else
        {
            http.Response.StatusCode = StatusCodes.Status403Forbidden;
        }
    }

    private static Task KeepPrivate(object response)
    {
        IHeaderDictionary headers = ((HttpResponse)response).Headers;
        if (headers.CacheControl.Count == 0)
            headers.CacheControl = "private, no-cache";
        return Task.CompletedTask;
    }

    // A part that a script asks for is refused plainly; a page leads to signing in.
    private static bool IsPage(HttpRequest request) => request.Headers["Sec-Fetch-Mode"] is not [{ } mode] || mode == "navigate";
}

/// <summary>Begins and ends the sessions of people.</summary>
/// <param name="sessions">Sessions.</param>
/// <param name="http">The request.</param>
/// <param name="visitor">Who asks.</param>
public sealed class SignIns(SessionStore sessions, IHttpContextAccessor http, Visitor visitor)
{
    private HttpContext Http => http.HttpContext!;

    /// <summary>What the request came from, as its browser says.</summary>
    public string Device => Devices.Named(Http.Request.Headers.UserAgent.ToString());

    /// <summary>Signs a person in, with a session of its own.</summary>
    /// <param name="person">The person.</param>
    /// <param name="how">How, for the record.</param>
    /// <param name="onlyAt">The only site that the session is good at; null for all of theirs.</param>
    public async Task Begin(Person person, string how, Guid? onlyAt = null)
    {
        if (visitor is { Session: { } before, Person: { } was })
            await sessions.End(was.Id, before);
        Guid session = await sessions.Begin(person.Id, Device, how, onlyAt);
        var identity = new ClaimsIdentity(
            [new Claim(Gate.SessionClaim, $"{session}"), new Claim(ClaimTypes.NameIdentifier, $"{person.Id}")],
            IdentityConstants.ApplicationScheme
        );
        await Http.SignInAsync(
            IdentityConstants.ApplicationScheme,
            new ClaimsPrincipal(identity),
            new AuthenticationProperties { IsPersistent = true }
        );
    }

    /// <summary>Ends the session of whoever asks.</summary>
    public async Task End()
    {
        if (visitor is { Session: { } session, Person: { } person })
            await sessions.End(person.Id, session);
        await Http.SignOutAsync(IdentityConstants.ApplicationScheme);
    }

    /// <summary>Writes down that somebody was not let in.</summary>
    public Task Refused(Person? person, string what) => sessions.Note(person?.Id, what, Device);
}

/// <summary>Names of devices, as far as a browser tells.</summary>
public static class Devices
{
    private static readonly (string Sign, string Name)[] Systems =
    [
        ("iPhone", "iPhone"),
        ("iPad", "iPad"),
        ("Android", "Android"),
        ("Windows", "Windows"),
        ("Mac OS X", "Mac"),
        ("CrOS", "Chromebook"),
        ("Linux", "Linux"),
    ];

    private static readonly (string Sign, string Name)[] Browsers =
    [
        ("Edg/", "Edge"),
        ("Firefox/", "Firefox"),
        ("Chrome/", "Chrome"),
        ("Safari/", "Safari"),
    ];

    /// <summary>A device in a few words.</summary>
    /// <param name="agent">What the browser says of itself.</param>
    public static string Named(string agent)
    {
        string? browser = Browsers.FirstOrDefault(b => agent.Contains(b.Sign, StringComparison.Ordinal)).Name;
        string? system = Systems.FirstOrDefault(s => agent.Contains(s.Sign, StringComparison.Ordinal)).Name;
        return (browser, system) switch
        {
            (null, null) => "something that does not say what it is",
            (null, _) => system,
            (_, null) => browser,
            _ => $"{browser} on {system}",
        };
    }
}
