using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>One person with two sites under one roof: every address says which site it is of, and nothing of one is done to the other.</summary>
public sealed class TwoSitesTests(MeadowApp app) : IClassFixture<MeadowApp>, IAsyncLifetime
{
    private const string First = "/at/kittiwake-quay";
    private const string Second = "/at/sorrel-park";
    private const int MostPages = 70;

    // Addresses that belong to no site.
    private static readonly string[] Siteless = ["/", "/me", "/sites", "/signout", "/signin"];

    public async ValueTask InitializeAsync()
    {
        if ((await app.Whole.Sites()).Any(s => s.Slug == "sorrel-park"))
            return;
        HttpClient owner = app.Browser();
        using HttpResponseMessage added = await owner.Send("/sites", null, ("Name", "Sorrel Park"));
        Assert.Equal($"{Second}/begin", added.Headers.Location!.ToString());
        SiteEntry other = (await app.Whole.Sites()).Single(s => s.Slug == "sorrel-park");
        await using FileStream file = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
        Core.Planning.Plan demo = PlanFile.Read(file);
        await new PlanStore(app.Whole.At(other.Id), PlanFile.Stored).Replace(
            new Core.Planning.Plan(
                demo.Site with
                {
                    Name = "Sorrel Park",
                },
                demo.Areas,
                demo.Planters,
                demo.Palette,
                demo.Displays,
                demo.Turns,
                demo.Map,
                demo.Lots,
                demo.Recipes,
                demo.Events
            )
        );
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Every_link_and_form_of_a_sites_pages_stays_on_that_site()
    {
        HttpClient owner = app.Browser();
        var asked = new HashSet<string>(StringComparer.Ordinal);
        var kinds = new Dictionary<string, int>(StringComparer.Ordinal);
        var queue = new Queue<string>([
            $"{Second}/year",
            $"{Second}/grounds",
            $"{Second}/daysheet",
            $"{Second}/log",
            $"{Second}/people",
            $"{Second}/site",
        ]);
        var wrong = new List<string>();
        while (queue.TryDequeue(out string? path) && asked.Count < MostPages)
        {
            if (!asked.Add(path))
                continue;
            using HttpResponseMessage answer = await owner.GetAsync(new Uri(path, UriKind.Relative));
            if (!answer.IsSuccessStatusCode && answer.StatusCode != HttpStatusCode.Redirect)
                wrong.Add($"{path}: {(int)answer.StatusCode}");
            if (answer.StatusCode == HttpStatusCode.Redirect && !answer.Headers.Location!.ToString().StartsWith(Second, StringComparison.Ordinal))
                wrong.Add($"{path} sends on to {answer.Headers.Location}");
            if (answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            using IDocument page = await Pages.Parse(answer);
            foreach (
                (string where, string to) in page.QuerySelectorAll(
                        "a[href], form[action], [formaction], [data-live-preview], [data-more], [data-looks], [data-sheet-marks]"
                    )
                    .SelectMany(e =>
                        new[] { "href", "action", "formaction", "data-live-preview", "data-more", "data-looks", "data-sheet-marks" }.Select(n =>
                            (n, To: e.GetAttribute(n))
                        )
                    )
                    .Where(t => t.To?.StartsWith('/') == true)
                    .Select(t => (t.n, t.To!))
            )
            {
                string plain = to.Split('?', '#')[0];
                if (Siteless.Contains(plain))
                    continue;
                if (!plain.StartsWith(Second + "/", StringComparison.Ordinal))
                    wrong.Add($"{path}: {where} {to}");
                string kind = string.Join('/', plain.Split('/').Take(4)) + plain.Split('/').Length;
                kinds[kind] = kinds.GetValueOrDefault(kind) + 1;
                if (where == "href" && kinds[kind] <= 3)
                    queue.Enqueue(to.Split('#')[0]);
            }
        }
        Assert.True(asked.Count > 40, $"{asked.Count} pages");
        Assert.True(wrong.Count == 0, string.Join('\n', wrong.Distinct(StringComparer.Ordinal).Take(40)));
    }

    [Fact]
    public async Task What_is_saved_at_one_site_is_saved_there_and_the_page_that_follows_is_of_it()
    {
        HttpClient owner = app.Browser();
        using HttpResponseMessage saved = await owner.Send($"{Second}/planters/flag-pot/edit", null, ("Input.Note", "only at the park"));
        Assert.Equal($"{Second}/planters/flag-pot", saved.Headers.Location!.ToString().Split('?')[0]);
        Assert.Contains("only at the park", (await owner.Open($"{Second}/planters/flag-pot")).Words(), StringComparison.Ordinal);
        Assert.DoesNotContain("only at the park", (await owner.Open($"{First}/planters/flag-pot")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Without_a_site_in_its_address_a_page_asks_which_and_a_form_is_not_taken()
    {
        HttpClient owner = app.Browser();
        using HttpResponseMessage which = await owner.GetAsync(new Uri("/year", UriKind.Relative));
        Assert.Equal("/sites", which.Headers.Location!.ToString());
        IDocument sites = await owner.Open("/sites");
        Assert.Contains(sites.QuerySelectorAll("table.sites td a"), a => a.GetAttribute("href") == $"{First}/year");
        using HttpResponseMessage lost = await owner.PostFrom($"{First}/log", "/log", [("Kind", "Note")]);
        Assert.Equal(HttpStatusCode.NotFound, lost.StatusCode);
        // Somebody with one site alone needs no such address.
        HttpClient planner = app.Browser(SiteRole.Planner);
        Assert.Contains("Kittiwake Quay", (await planner.Open("/year")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_overview_says_for_each_site_what_the_sites_own_year_says()
    {
        HttpClient owner = app.Browser();
        IDocument sites = await owner.Settled("/sites");
        IElement row = sites.QuerySelectorAll("table.sites tbody tr").First(r => r.TextContent.Contains("Kittiwake Quay", StringComparison.Ordinal));
        Assert.Equal("24", row.QuerySelectorAll("td.num")[0].TextContent.Trim());
        Assert.Contains("no weather yet", sites.Words(), StringComparison.Ordinal);
        Assert.True(int.TryParse(row.QuerySelectorAll("td.num")[1].TextContent.Trim(), out int bare) && bare is > 0 and <= 24);
    }
}
