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
    public async Task Plants_at_hand_go_to_another_site_of_ones_own_and_are_counted_once()
    {
        HttpClient owner = app.Browser();
        SiteEntry second = (await app.Whole.Sites()).Single(s => s.Slug == "sorrel-park");
        PlanStore here = new(app.Database, PlanFile.Stored);
        PlanStore there = new(app.Whole.At(second.Id), PlanFile.Stored);
        static int All(Core.Planning.Plan plan, string plant) => plan.Lots.Where(l => l.PlantId == plant).Sum(l => l.Count);
        Core.Planning.Plan before = await here.Load();
        Core.Planning.Plan others = await there.Load();
        Core.Planning.Lot lot = before.Lots.First(l => l.Count > 12);
        string page = $"{First}/stock?lot={lot.Id}";
        using HttpResponseMessage tooMany = await owner.Send(page, "handler=move", ("Moved", $"{lot.Count + 1}"), ("To", $"{second.Id}"));
        Assert.Contains(
            $"from 1 to the {lot.Count} that are there",
            (await Pages.Parse(tooMany)).QuerySelector("#Moved_fault")!.TextContent,
            StringComparison.Ordinal
        );
        using HttpResponseMessage nowhere = await owner.Send(page, "handler=move", ("Moved", "12"), ("To", $"{Guid.NewGuid()}"));
        Assert.Contains("choose one of your sites", (await Pages.Parse(nowhere)).QuerySelector("#To_fault")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(All(before, lot.PlantId), All(await here.Load(), lot.PlantId));

        using HttpResponseMessage moved = await owner.Send(page, "handler=move", ("Moved", "12"), ("To", $"{second.Id}"));
        Assert.Equal($"{First}/stock", moved.Headers.Location!.ToString());
        Assert.Equal(All(before, lot.PlantId) - 12, All(await here.Load(), lot.PlantId));
        Core.Planning.Plan after = await there.Load();
        Assert.Equal(All(others, lot.PlantId) + 12, All(after, lot.PlantId));
        Core.Planning.Lot came = after.Lots.Single(l => others.Lots.All(o => o.Id != l.Id));
        Assert.StartsWith("From ", came.Note, StringComparison.Ordinal);
        Assert.Contains("moved to another site", (await owner.Open($"{First}/changes")).Words(), StringComparison.Ordinal);
        string said = (await owner.Open($"{Second}/changes")).Words();
        Assert.Contains($"12 {before.Plant(lot.PlantId).CommonName} from", said, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("Marit Hollan", said, StringComparison.Ordinal);
        // Somebody of one site alone is not asked.
        Assert.Null((await app.Browser(SiteRole.Lead).Open($"/stock?lot={lot.Id}")).QuerySelector("[name=To]"));
    }

    [Fact]
    public async Task What_the_other_site_cannot_take_stays_where_it_is()
    {
        SiteEntry second = (await app.Whole.Sites()).Single(s => s.Slug == "sorrel-park");
        PlanStore here = new(app.Database, PlanFile.Stored);
        PlanStore there = new(app.Whole.At(second.Id), PlanFile.Stored);
        var stock = new LotStore(here);
        LoadedPlan others = await there.Now();
        Core.Palette.Plant unknown = (await here.Load()).Palette[0] with { Id = "seen-here-alone", CommonName = "Seen here alone" };
        await new PaletteStore(here).Save(unknown, null);
        var day = new NodaTime.LocalDate(2026, 11, 20);
        await stock.Save(
            new Core.Planning.Lot("alone", unknown.Id, 5, Core.Planning.LotState.Waiting, "bench", day, Core.Planning.LotCondition.Good),
            null
        );
        LoadedPlan now = await here.Now();
        Core.InvalidInputException refused = await Assert.ThrowsAsync<Core.InvalidInputException>(() =>
            stock.Move("alone", now.Versions.Lot("alone"), 5, there, day)
        );
        Assert.Contains("has no Seen here alone in its palette", refused.Message, StringComparison.Ordinal);
        Assert.Equal(now.Mark, (await here.Now()).Mark);
        Assert.Equal(others.Mark, (await there.Now()).Mark);
        // Two who move to each other's site at once wait for each other, and both do.
        string[] pair = [now.Plan.Lots.First(l => l.Count > 20).Id, others.Plan.Lots.First(l => l.Count > 20).Id];
        await Task.WhenAll(
            stock.Move(pair[0], now.Versions.Lot(pair[0]), 1, there, day),
            new LotStore(there).Move(pair[1], others.Versions.Lot(pair[1]), 1, here, day)
        );
        Assert.Equal(
            now.Plan.Lots.Sum(l => l.Count) + others.Plan.Lots.Sum(l => l.Count),
            (await here.Load()).Lots.Sum(l => l.Count) + (await there.Load()).Lots.Sum(l => l.Count)
        );
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
