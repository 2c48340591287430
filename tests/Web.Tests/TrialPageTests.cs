using System.Net;
using AngleSharp.Dom;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>A trial is laid out by names, followed by reviews, and answers in a sentence.</summary>
public sealed class TrialPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task Kinds_are_laid_out_over_planters_and_reviews_say_which_does_best()
    {
        HttpClient planner = app.Browser(SiteRole.Planner);
        Plan plan = await new PlanStore(app.Database, PlanFile.Stored).Load();
        LocalDate today = app.Services.GetRequiredService<IClock>().GetCurrentInstant().InUtc().Date;
        string[] kinds = [plan.Plant("pansy-violet").CommonName, plan.Plant("viola-white").CommonName];
        string[] pots = ["Shelter pot 1", "Shelter pot 2", "Shelter pot 3", "Shelter pot 4"];
        async Task<HttpResponseMessage> Lay(params string[] planters) =>
            await planner.PostFrom(
                "/trials",
                "/trials?handler=lay",
                [
                    ("Name", "Which for the shelters?"),
                    ("First", LocalDatePattern.Iso.Format(today.PlusDays(-30))),
                    ("Last", LocalDatePattern.Iso.Format(today.PlusDays(60))),
                    ("Kinds", string.Join('\n', kinds)),
                    ("Planters", string.Join('\n', planters)),
                ]
            );
        using (HttpResponseMessage refused = await Lay([.. pots, "Sheltr pot 9"]))
        {
            IDocument again = await Pages.Parse(refused);
            Assert.Contains("line 5: nothing is called so", again.QuerySelector("#Planters_fault")!.TextContent, StringComparison.Ordinal);
            Assert.Contains("Sheltr pot 9", again.QuerySelector("#Planters")!.TextContent, StringComparison.Ordinal);
        }
        using HttpResponseMessage laid = await Lay(pots);
        Assert.Equal(HttpStatusCode.Redirect, laid.StatusCode);
        string address = $"{laid.Headers.Location}";
        IDocument page = await planner.Open(address);
        Assert.Contains("None was scored yet", page.Words(), StringComparison.Ordinal);
        List<(string Planter, string Kind)> stands =
        [
            .. page.QuerySelectorAll("main ul.plain-list li")
                .Select(l => (l.QuerySelector("a")!.TextContent.Trim(), kinds.Single(k => l.TextContent.Contains(k, StringComparison.Ordinal)))),
        ];
        Assert.Equal(pots, stands.Select(s => s.Planter).Order(StringComparer.Ordinal));
        Assert.Equal([2, 2], stands.GroupBy(s => s.Kind).Select(g => g.Count()));

        await new LogStore(app.Database).Record([
            .. stands.Select(s => new Observation(
                Guid.NewGuid(),
                plan.Planters.Single(p => p.Name == s.Planter).Id,
                null,
                today,
                ObservationKind.Reviewed,
                string.Empty,
                "Rosa"
            )
            {
                Review = new PlanterReview(s.Kind == kinds[0] ? 5 : 2, ReviewVerdict.Keep),
            }),
        ]);
        page = await planner.Open(address);
        Assert.Contains($"{kinds[0]} does best; one is worse.", page.Words(), StringComparison.Ordinal);
        Assert.Contains($"{kinds[0]} does best", (await planner.Open("/trials")).Words(), StringComparison.Ordinal);
        using (HttpResponseMessage removed = await planner.PostFrom(address, $"{address}?handler=remove", []))
            Assert.Equal(HttpStatusCode.Redirect, removed.StatusCode);
        Assert.Contains("No trials yet", (await planner.Open("/trials")).Words(), StringComparison.Ordinal);
    }
}
