using System.Net;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>Who may what: every page and every handler of the app is asked as nobody, as each role, and as somebody of another site.</summary>
public sealed class EveryDoorTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    // The table. What is not in it is for those who read: pages that are only looked at.
    private static readonly string[] Open =
    [
        "/signin",
        "/signout",
        "/welcome",
        "/join/{code}",
        "/phone/{code}",
        "/calendar/{code}.ics",
        "/health",
        "/health/live",
        "/health/ready",
    ];

    private static readonly string[] SignedIn = ["/", "/me", "/sites"];

    // For those who see to the installation: of the test's people the owner.
    private static readonly string[] Stewards =
    [
        "GET /sites/palette",
        "POST /sites/palette",
        "POST /sites",
        "POST /sites?steward",
        "POST /sites?giveup",
    ];

    private static bool IsOfSteward(Way way) => Stewards.Contains($"{way}", StringComparer.OrdinalIgnoreCase);

    private static readonly Dictionary<string, SiteRole> Least = new(StringComparer.OrdinalIgnoreCase)
    {
        ["GET /people"] = SiteRole.Crew,
        ["GET /year/act"] = SiteRole.Planner,
        ["GET /year/propose"] = SiteRole.Planner,
        ["GET /year/close"] = SiteRole.Planner,
        ["GET /turns/{id}/spread"] = SiteRole.Planner,
        ["GET /planters/{id}/edit"] = SiteRole.Planner,
        ["GET /planters/new"] = SiteRole.Planner,
        ["GET /planters/table"] = SiteRole.Planner,
        ["GET /tables/{kind}"] = SiteRole.Planner,
        ["GET /stack/{id}/build"] = SiteRole.Planner,
        ["GET /palette/{id}/edit"] = SiteRole.Planner,
        ["GET /palette/new"] = SiteRole.Planner,
        ["GET /palette/import"] = SiteRole.Planner,
        ["GET /begin"] = SiteRole.Planner,
        ["GET /site/plan"] = SiteRole.Owner,
        ["GET /site/aside"] = SiteRole.Owner,
        ["POST /log"] = SiteRole.Crew,
        ["POST /review"] = SiteRole.Crew,
        ["POST /planters/{id}?photo"] = SiteRole.Crew,
        ["POST /daysheet?kept"] = SiteRole.Crew,
        ["POST /turns/{id}?ask"] = SiteRole.Crew,
        ["POST /year/rehearse?ask"] = SiteRole.Crew,
        ["POST /year/ahead?ask"] = SiteRole.Crew,
        ["POST /year/sequence?ask"] = SiteRole.Crew,
        ["POST /jobs/{id:guid}/cancel"] = SiteRole.Crew,
        ["POST /planters/{id}?dropphoto"] = SiteRole.Lead,
        ["POST /planters/{id}?exposure"] = SiteRole.Lead,
        ["POST /planters/{id}/sun"] = SiteRole.Lead,
        ["POST /planters/{id}/sun?preview"] = SiteRole.Lead,
        ["POST /displays/{id}?patch"] = SiteRole.Lead,
        ["POST /stock"] = SiteRole.Lead,
        ["POST /stock?remove"] = SiteRole.Lead,
        ["POST /stock?out"] = SiteRole.Crew,
        ["POST /stock?move"] = SiteRole.Lead,
        ["GET /supply/orders/{id:guid}/receive"] = SiteRole.Crew,
        ["POST /supply/orders/{id:guid}/receive"] = SiteRole.Crew,
        ["POST /supply/orders/{id:guid}?claim"] = SiteRole.Lead,
        ["POST /supply/holding?move"] = SiteRole.Crew,
        ["POST /supply/materials?move"] = SiteRole.Crew,
        ["POST /supply/materials?use"] = SiteRole.Lead,
        ["GET /today"] = SiteRole.Crew,
        ["GET /today?photo"] = SiteRole.Crew,
        ["POST /today?tell"] = SiteRole.Crew,
        ["POST /today?photo"] = SiteRole.Crew,
        ["POST /work?give"] = SiteRole.Lead,
        ["POST /work?move"] = SiteRole.Lead,
        ["POST /work?rain"] = SiteRole.Lead,
        ["POST /work?withdraw"] = SiteRole.Lead,
        ["POST /work?accept"] = SiteRole.Lead,
        ["POST /work?settle"] = SiteRole.Lead,
        ["POST /work?write"] = SiteRole.Lead,
        ["POST /work/schedule"] = SiteRole.Lead,
        ["POST /work/schedule?pin"] = SiteRole.Lead,
        ["POST /work/schedule?give"] = SiteRole.Lead,
        ["POST /work/route"] = SiteRole.Lead,
        ["POST /work/route?follow"] = SiteRole.Lead,
        ["POST /care?ask"] = SiteRole.Lead,
        ["POST /work/roster?away"] = SiteRole.Lead,
        ["POST /work/roster?back"] = SiteRole.Lead,
        ["POST /work/roster?closure"] = SiteRole.Lead,
        ["GET /work/calendars"] = SiteRole.Crew,
        ["POST /work/calendars?own"] = SiteRole.Crew,
        ["POST /work/calendars?withdrawown"] = SiteRole.Crew,
        ["POST /work/calendars?site"] = SiteRole.Lead,
        ["POST /work/calendars?withdrawsite"] = SiteRole.Lead,
        ["POST /people?phone"] = SiteRole.Lead,
        ["POST /people?role"] = SiteRole.Owner,
        ["POST /people?out"] = SiteRole.Owner,
        ["POST /people?invite"] = SiteRole.Owner,
        ["POST /people?calloff"] = SiteRole.Owner,
        ["POST /site"] = SiteRole.Owner,
        ["POST /site?back"] = SiteRole.Owner,
        ["POST /site?dropphotographs"] = SiteRole.Owner,
        ["POST /site?plan"] = SiteRole.Owner,
        ["POST /site/plan"] = SiteRole.Owner,
        ["POST /site/aside?remove"] = SiteRole.Owner,
    };

    private sealed record Way(string Method, string Route, string? Handler)
    {
        public string Address =>
            "/"
            + string.Join('/', Route.Split('/', StringSplitOptions.RemoveEmptyEntries).Select(p => p.StartsWith('{') ? Filled(p) : p))
            + (Handler is null ? string.Empty : $"?handler={Handler}");

        public override string ToString() => $"{Method} {Route}{(Handler is null ? string.Empty : $"?{Handler}")}";

        private static string Filled(string place) => place.Contains("guid", StringComparison.Ordinal) ? $"{Guid.Empty}" : "nothing-of-it";
    }

    private static SiteRole Needed(Way way) =>
        Least.TryGetValue($"{way}", out SiteRole own) ? own
        : way.Method == "GET" ? Least.GetValueOrDefault($"GET {way.Route}", SiteRole.Guest)
        : SiteRole.Planner;

    [Fact]
    public async Task Everybody_gets_what_the_table_says_and_nothing_else()
    {
        IReadOnlyList<Way> ways = await Ways();
        Assert.True(ways.Count > 120, $"{ways.Count} ways found");
        Assert.All(Least.Keys, k => Assert.Contains(ways, w => string.Equals($"{w}", k, StringComparison.OrdinalIgnoreCase)));
        var wrong = new List<string>();
        await Ask(app.Stranger(), "nobody", way => Open.Contains(way.Route));
        foreach (SiteRole role in Enum.GetValues<SiteRole>())
            await Ask(app.Browser(role), $"{role}", way =>
                Open.Contains(way.Route) || (IsOfSteward(way) ? role == SiteRole.Owner : SignedIn.Contains(way.Route) || role >= Needed(way))
            );
        Assert.True(wrong.Count == 0, string.Join('\n', wrong));

        async Task Ask(HttpClient browser, string who, Func<Way, bool> may)
        {
            foreach (Way way in ways.Where(w => w.Route is not "/signout" && !(w is { Method: "POST", Route: "/signin" })))
            {
                using var request = new HttpRequestMessage(new HttpMethod(way.Method), new Uri(way.Address, UriKind.Relative));
                if (way.Method == "POST")
                    request.Content = new FormUrlEncodedContent([]);
                using HttpResponseMessage answer = await browser.SendAsync(request);
                bool refused =
                    answer.StatusCode is HttpStatusCode.Forbidden or HttpStatusCode.Unauthorized
                    || (
                        answer.StatusCode == HttpStatusCode.Redirect
                        && answer.Headers.Location!.ToString().StartsWith("/signin?to=", StringComparison.Ordinal)
                    );
                // Where the gate lets somebody by, what is sent without its token is refused by the form itself, as it must be.
                bool unsigned = way.Method == "GET" || answer.StatusCode is HttpStatusCode.BadRequest;
                if (refused == may(way) || (may(way) && !unsigned))
                    wrong.Add($"{way} as {who}: {(int)answer.StatusCode} {answer.Headers.Location}");
            }
        }
    }

    [Fact]
    public async Task Nothing_of_a_site_is_there_for_somebody_of_another()
    {
        Store.SiteEntry other = await app.Whole.AddSite("Sorrel Park", "sorrel-park");
        using var people = new MemoryStream("""[{ "name": "Gwen Ottery", "role": "Owner" }]"""u8.ToArray());
        await TappingPeople.Bring(new PeopleStore(app.Whole), other.Id, people);
        HttpClient owner = app.Stranger();
        await owner.TapIn("Gwen Ottery");
        string slug = (await app.Whole.Sites()).Single(s => s.Id == app.Database.Site).Slug;
        foreach (Way way in (await Ways()).Where(w => !Open.Contains(w.Route) && !SignedIn.Contains(w.Route) && !IsOfSteward(w)))
        {
            using var request = new HttpRequestMessage(new HttpMethod(way.Method), new Uri($"/at/{slug}{way.Address}", UriKind.Relative));
            if (way.Method == "POST")
                request.Content = new FormUrlEncodedContent([]);
            using HttpResponseMessage answer = await owner.SendAsync(request);
            Assert.True(answer.StatusCode == HttpStatusCode.NotFound, $"{way}: {(int)answer.StatusCode}");
        }
        // And her own is, under its address and without it.
        Assert.Contains("Sorrel Park", (await owner.Open("/at/sorrel-park/planters")).Words(), StringComparison.Ordinal);
        Assert.Contains("Sorrel Park", (await owner.Open("/planters")).Words(), StringComparison.Ordinal);
    }

    // Every way in, by reflection: a new page is in it by itself.
    private async Task<IReadOnlyList<Way>> Ways()
    {
        var loader = app.Services.GetRequiredService<PageLoader>();
        var ways = new HashSet<Way>();
        foreach (RouteEndpoint endpoint in app.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>())
        {
            string route = "/" + endpoint.RoutePattern.RawText!.TrimStart('/');
            if (endpoint.Metadata.GetMetadata<PageActionDescriptor>() is { } page)
            {
                ways.Add(new Way("GET", route, null));
                foreach (HandlerMethodDescriptor handler in (await loader.LoadAsync(page, endpoint.Metadata)).HandlerMethods)
                    ways.Add(new Way(handler.HttpMethod.ToUpperInvariant(), route, handler.Name?.ToLowerInvariant()));
            }
            else
            {
                foreach (string method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"])
                    ways.Add(new Way(method, route, null));
            }
        }
        return [.. ways];
    }
}
