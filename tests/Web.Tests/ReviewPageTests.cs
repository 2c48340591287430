using System.Net;
using AngleSharp.Dom;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>A walk past all planters: what is expected, what is found, and what is planned there next time knows of it.</summary>
public sealed class ReviewPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task A_walk_goes_on_to_the_next_planter_and_a_second_look_stands_in_the_place_of_the_first()
    {
        HttpClient crew = app.Browser(SiteRole.Crew);
        var log = new LogStore(app.Database);
        IDocument walk = await crew.Open("/review");
        string[] planters = [.. walk.QuerySelectorAll(".walk > li").Select(l => l.Id!["planter-".Length..])];
        Assert.Contains("0 of", walk.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("Expected today", walk.Words(), StringComparison.Ordinal);
        Assert.Contains("The next walk is due", walk.Words(), StringComparison.Ordinal);
        async Task<HttpResponseMessage> Say(string planter, params (string, string)[] fields) =>
            await crew.PostFrom("/review", "/review", [("planter", planter), ("EntryId", $"{Guid.NewGuid()}"), .. fields]);
        using (HttpResponseMessage first = await Say(planters[0], ("Rating", "2"), ("Verdict", "Drop"), ("Cover", "40"), ("Note", "tatty")))
        {
            Assert.Equal(HttpStatusCode.Redirect, first.StatusCode);
            Assert.EndsWith($"#planter-{planters[1]}", $"{first.Headers.Location}", StringComparison.Ordinal);
        }
        using (
            HttpResponseMessage again = await Say(
                planters[0],
                ("Rating", "5"),
                ("Verdict", "Repeat"),
                ("InColour", "yes"),
                ("Note", "wrong pot before")
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, again.StatusCode);
        IDocument after = await crew.Open("/review");
        Assert.Contains("1 of", after.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        string found = after.QuerySelector($"#planter-{planters[0]} .found")!.TextContent;
        Assert.Contains("5 of 5, the same again, in colour", found, StringComparison.Ordinal);
        IReadOnlyList<Observation> kept = await log.Latest(planters[0], 10);
        Assert.Equal([1, 0], new[] { 2, 5 }.Select(r => kept.Count(o => o.Review?.Rating == r && o.IsCorrected)));
        // Whoever plans there next sees it.
        Assert.Contains("wrong pot before", (await app.Browser(SiteRole.Planner).Open($"/stack/{planters[0]}")).Words(), StringComparison.Ordinal);

        // The report of the season counts the look that holds, and goes out as a workbook.
        HttpClient planner = app.Browser(SiteRole.Planner);
        IDocument season = await planner.Open("/review/season");
        string report = season.Words();
        Assert.Contains("1 of", report, StringComparison.Ordinal);
        Assert.Contains("5.0 of 5 on average", report, StringComparison.Ordinal);
        Assert.Contains("wrong pot before", report, StringComparison.Ordinal);
        string link = season.QuerySelector("a[href*='SameAsLastYear']")!.GetAttribute("href")!;
        Assert.Contains("Planters: 1 chosen", (await planner.Open(link)).Words(), StringComparison.Ordinal);
        using (HttpResponseMessage sheet = await planner.GetAsync(new Uri("/review/season?handler=xlsx", UriKind.Relative)))
            Assert.Equal("PK"u8.ToArray(), (await sheet.Content.ReadAsByteArrayAsync())[..2]);

        // What is left out is asked for, and what was typed stays.
        using HttpResponseMessage open = await Say(planters[1], ("Rating", "4"), ("Note", "half eaten"));
        string page = await open.Content.ReadAsStringAsync();
        Assert.Contains("choose what is to become of it", page, StringComparison.Ordinal);
        Assert.Contains("half eaten", page, StringComparison.Ordinal);
        Assert.DoesNotContain(await log.Latest(planters[1], 10), o => o.Review is not null);
        using HttpResponseMessage gone = await Say("long-gone", ("Rating", "4"), ("Verdict", "Keep"));
        Assert.Contains("no such planter any more", await gone.Content.ReadAsStringAsync(), StringComparison.Ordinal);

        // A look that was never had is taken back under Log, and stays readable there.
        Observation mistaken = kept.Single(o => o.Review?.Rating == 5);
        string form = (await crew.Open($"/log?planter={planters[0]}")).QuerySelector($".history a[href*='{mistaken.Id}']")!.GetAttribute("href")!;
        using HttpResponseMessage back = await crew.PostFrom(
            form,
            "/log",
            [
                ("planter", planters[0]),
                ("Kind", nameof(ObservationKind.Withdrawn)),
                ("Day", $"{mistaken.Day:uuuu-MM-dd}"),
                ("corrects", $"{mistaken.Id}"),
            ]
        );
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        Assert.Contains("0 of", (await crew.Open("/review")).QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("wrong pot before", (await crew.Open($"/log?planter={planters[0]}")).Words(), StringComparison.Ordinal);
        Assert.DoesNotContain("wrong pot before", (await crew.Open($"/planters/{planters[0]}")).Words(), StringComparison.Ordinal);

        // An area with many planters is walked in parts that hold each once, and a look at the last of one leads to the first of the next.
        using (
            HttpResponseMessage many = await planner.PostFrom(
                "/planters/table",
                "/planters/table",
                [("Rows", "Row pot\tLong row\tround\t40\t\t40\t130")]
            )
        )
        {
            string preview = $"{many.Headers.Location}";
            using HttpResponseMessage taken = await planner.PostFrom(preview, "/planters/table?handler=take", [("id", preview.Split("draft=")[1])]);
            Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        }
        walk = await crew.Open("/review");
        string row = walk.QuerySelectorAll("nav a[href*='area=']").Single(a => a.TextContent == "Long row").GetAttribute("href")!;
        var walked = new List<string>();
        string[] parts =
        [
            .. (await crew.Open(row))
                .QuerySelectorAll("nav a")
                .Where(a => a.TextContent.Contains('–', StringComparison.Ordinal))
                .Select(a => a.GetAttribute("href")!),
        ];
        Assert.Equal(3, parts.Length);
        Assert.Equal(parts[1], (await crew.Open(row)).QuerySelector("a[rel=next]")!.GetAttribute("href"));
        foreach (string part in parts)
            walked.AddRange((await crew.Open(part)).QuerySelectorAll(".walk > li").Select(l => l.Id!["planter-".Length..]));
        Assert.Equal(130, walked.Distinct().Count());
        Assert.Equal(130, walked.Count);
        using HttpResponseMessage last = await crew.PostFrom(
            parts[0],
            "/review",
            [("planter", walked[59]), ("EntryId", $"{Guid.NewGuid()}"), ("Rating", "4"), ("Verdict", "Keep")]
        );
        Assert.EndsWith($"part=2#planter-{walked[60]}", $"{last.Headers.Location}", StringComparison.Ordinal);
    }
}
