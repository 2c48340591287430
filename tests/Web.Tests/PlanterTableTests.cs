using System.Net;
using AngleSharp.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Planters pasted from a spreadsheet: looked at, then taken together, as one change.</summary>
public sealed class PlanterTableTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task Two_hundred_planters_are_pasted_looked_at_taken_as_one_change_and_taken_back()
    {
        string rows =
            "name\tarea\tshape\tlength\tdepth\n"
            + string.Concat(Enumerable.Range(1, 200).Select(i => $"Pasted {i}\tNew square\tpot\t{30 + i % 40}\t40\n"));
        Plan before = await Now();
        using HttpResponseMessage looked = await _browser.PostFrom("/planters/table", "/planters/table", [("Rows", rows)]);
        Assert.Equal(HttpStatusCode.Redirect, looked.StatusCode);
        string path = looked.Headers.Location!.ToString();
        IDocument page = await _browser.Open(path);
        Assert.Contains("200 planters would be added and 0 changed", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("New square", page.Words(), StringComparison.Ordinal);
        Assert.Equal(before.Planters.Count, (await Now()).Planters.Count);
        using HttpResponseMessage taken = await _browser.PostFrom(path, "/planters/table?handler=take", [("id", path.Split('=')[1])]);
        Assert.Equal("/planters", taken.Headers.Location!.ToString());
        Assert.Equal(before.Planters.Count + 200, (await Now()).Planters.Count);
        var changes = new ChangeStore(new PlanStore(app.Database, PlanFile.Stored));
        await changes.Undo((await changes.Latest(1))[0].Id);
        Assert.Equal(before.Planters.Count, (await Now()).Planters.Count);
        Assert.Equal(before.Areas.Count, (await Now()).Areas.Count);
    }

    [Fact]
    public async Task What_is_wrong_is_said_by_line_and_what_was_pasted_stays()
    {
        using HttpResponseMessage answer = await _browser.PostFrom(
            "/planters/table",
            "/planters/table",
            [("Rows", "Good pot\tQuay\tround\t50\t\t45\nBad pot\tround\tQuay\t50\t\t45")]
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("line 2", page.Words(), StringComparison.Ordinal);
        Assert.Contains("Bad pot", page.QuerySelector("textarea")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_planters_taken_out_as_CSV_and_as_a_workbook_and_brought_in_again_change_nothing()
    {
        byte[] file = await _browser.GetByteArrayAsync(new Uri("/planters/table?handler=csv", UriKind.Relative));
        using HttpResponseMessage same = await _browser.Upload("/planters/table", "", file, "planters.csv");
        Assert.Contains("Nothing would change", (await _browser.Open(same.Headers.Location!.ToString())).Words(), StringComparison.Ordinal);
        byte[] workbook = await _browser.GetByteArrayAsync(new Uri("/planters/table?handler=xlsx", UriKind.Relative));
        using HttpResponseMessage again = await _browser.Upload("/planters/table", "", workbook, "planters.xlsx");
        Assert.Contains("Nothing would change", (await _browser.Open(again.Headers.Location!.ToString())).Words(), StringComparison.Ordinal);
    }

    private async Task<Plan> Now() => (await new PlanStore(app.Database, PlanFile.Stored).Now()).Plan;

    [Fact]
    public async Task Displays_turns_and_stock_are_pasted_looked_at_taken_as_one_change_and_taken_back()
    {
        foreach (
            (string kind, string row, string told) in new[]
            {
                ("displays", "Flag pot\tseasonal\t2031-05-17\t2031-09-27\tpetunia-magenta\t5", "Flag pot, seasonal from 2031-05-17"),
                ("turns", "Far turn\t2031-05-17\t2031-05-20", "Far turn: 2031-05-17 to 2031-05-20"),
                ("stock", "petunia-magenta\t20\twaiting\tBench 3\t2026-11-20", "20 Petunia, magenta, waiting, Bench 3"),
            }
        )
        {
            using HttpResponseMessage wrong = await _browser.PostFrom($"/tables/{kind}", $"/tables/{kind}", [("Rows", "one\ttwo\tthree")]);
            IDocument refused = await Pages.Parse(wrong);
            Assert.Contains("line 1", refused.Words(), StringComparison.Ordinal);
            Assert.Equal("one\ttwo\tthree", refused.QuerySelector("textarea")!.TextContent.Trim());
            using HttpResponseMessage looked = await _browser.PostFrom($"/tables/{kind}", $"/tables/{kind}", [("Rows", row)]);
            string preview = looked.Headers.Location?.ToString() ?? string.Empty;
            Assert.True(preview.Length > 0, kind + (await Pages.Parse(looked)).Words());
            Assert.Contains(told, (await _browser.Open(preview)).Words(), StringComparison.Ordinal);
            using HttpResponseMessage taken = await _browser.PostFrom(preview, $"/tables/{kind}?handler=take", [("id", preview.Split("draft=")[1])]);
            Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
            IDocument made = await _browser.Open("/changes");
            Assert.Contains($"table of {kind}", made.Words(), StringComparison.OrdinalIgnoreCase);
            using HttpResponseMessage again = await _browser.PostFrom(
                $"/tables/{kind}",
                $"/tables/{kind}?handler=take",
                [("id", preview.Split("draft=")[1])]
            );
            Assert.Equal(HttpStatusCode.Redirect, again.StatusCode);
            Assert.Contains("was taken already", (await _browser.Open($"/tables/{kind}")).Words(), StringComparison.Ordinal);
            byte[] file = await _browser.GetByteArrayAsync(
                new Uri($"/tables/{kind}?handler=xlsx", UriKind.Relative),
                TestContext.Current.CancellationToken
            );
            Assert.Equal((byte)'P', file[0]);
        }
        using HttpResponseMessage none = await _browser.GetAsync(new Uri("/tables/2", UriKind.Relative), TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }
}
