using AngleSharp.Dom;
using Microsoft.AspNetCore.Http;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Long lists come in parts, and what is looked for is found in whichever part it stands.</summary>
public sealed class LongListTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public void The_parts_of_a_list_hold_each_of_it_once_and_in_order()
    {
        var random = new Random(3);
        for (int i = 0; i < 300; i++)
        {
            int[] all = [.. Enumerable.Range(0, random.Next(0, 450))];
            int size = random.Next(1, 130);
            int parts = ListPage.Of(all.Length, null, size).Parts;
            Assert.Equal(all, Enumerable.Range(1, parts).SelectMany(n => ListPage.Of(all.Length, $"{n}", size).Take(all)));
        }
    }

    [Theory]
    [InlineData(null, 1)]
    [InlineData("", 1)]
    [InlineData("0", 1)]
    [InlineData("-3", 1)]
    [InlineData("3", 3)]
    [InlineData("99999999999999999999", 1)]
    [InlineData("77", 3)]
    [InlineData("two", 1)]
    public void A_part_that_is_not_there_is_the_nearest_or_the_first(string? asked, int shown) => Assert.Equal(shown, ListPage.Of(250, asked).Number);

    [Fact]
    public void Going_to_another_part_keeps_all_else_that_was_asked()
    {
        HttpRequest request = new DefaultHttpContext().Request;
        request.Path = "/planters";
        request.QueryString = new QueryString("?q=great%20pot&part=2");
        Assert.Equal("/planters?q=great%20pot&part=3", ListPage.Of(250, "2").Address(request, 3));
        Assert.Equal("/planters?q=great%20pot", ListPage.Of(250, "2").Address(request, 1));
    }

    [Fact]
    public void A_list_in_any_order_holds_each_found_row_once_over_all_its_parts()
    {
        var random = new Random(5);
        for (int i = 0; i < 200; i++)
        {
            int[] all = [.. Enumerable.Range(0, random.Next(0, 300)).Select(_ => random.Next(0, 60))];
            int size = random.Next(1, 90);
            string find = random.Next(3) == 0 ? $"{random.Next(0, 7)}" : "";
            string by = random.Next(3) switch
            {
                0 => "",
                1 => "up",
                _ => "down",
            };
            LongList<int> Part(int n) =>
                LongList.Of(
                    new QueryCollection(
                        new Dictionary<string, Microsoft.Extensions.Primitives.StringValues>
                        {
                            ["x-q"] = find,
                            ["x-by"] = by,
                            ["x-part"] = $"{n}",
                            ["by"] = "of another list",
                        }
                    ),
                    "numbers",
                    all,
                    row => $"{row}",
                    "as they come",
                    [new("up", "rising", rows => rows.Order()), new("down", "falling", rows => rows.OrderDescending())],
                    size,
                    "x-"
                );
            IEnumerable<int> found = all.Where(row => $"{row}".StartsWith(find, StringComparison.Ordinal));
            Assert.Equal(
                by switch
                {
                    "up" => found.Order(),
                    "down" => found.OrderDescending(),
                    _ => found,
                },
                Enumerable.Range(1, Part(1).Part.Parts).SelectMany(n => Part(n).Shown)
            );
            Assert.Equal(all.Length > size, Part(1).IsLong);
        }
    }

    [Fact]
    public void Looking_for_other_rows_keeps_what_else_the_address_says_and_begins_with_the_first_part()
    {
        HttpRequest request = new DefaultHttpContext().Request;
        request.Path = "/supply/money";
        request.QueryString = new QueryString("?year=2027&q=pot&by=down&part=3");
        var list = LongList.Of(request.Query, "numbers", [1, 2], row => $"{row}", "as they come", []);
        Assert.Equal([new("year", "2027")], list.Kept(request));
        Assert.Equal("/supply/money?year=2027&all=yes", list.Whole(request));
        // An order that there is not is the usual one.
        Assert.Equal("as they come", list.Order);
    }

    [Theory]
    [InlineData("/supply/money?year=2026&by=cheap", "th:contains('a day in colour')", 2, 1)]
    [InlineData("/review/season?year=2026&by=cost", "th:contains('a day in colour')", 8, -1)]
    [InlineData("/stock?standing-by=count", "th:contains('expected this year')", 3, -1)]
    [InlineData("/work?by=work&day=2026-11-23", "th:contains('within')", 6, -1)]
    public async Task Lists_that_come_in_parts_on_large_sites_stand_in_the_order_asked_for(string path, string table, int column, int way)
    {
        IDocument page = await _browser.Settled(path);
        IElement ledger = page.QuerySelector($"table.ledger {table}")!.Closest("table")!;
        decimal[] figures =
        [
            .. ledger
                .QuerySelectorAll($"tbody td:nth-child({column})")
                .Select(cell => string.Concat(cell.TextContent.Where(c => char.IsDigit(c) || c == '.')))
                .Where(text => text.Length > 0)
                .Select(text => decimal.Parse(text, System.Globalization.CultureInfo.InvariantCulture)),
        ];
        Assert.True(figures.Length > 2);
        Assert.Equal(way > 0 ? figures.Order() : figures.OrderDescending(), figures);
        // What stands whole on a page is ordered by its headings too, what comes in parts by the server alone.
        Assert.NotEqual(ledger.GetAttribute("data-order") is { Length: > 0 }, page.QuerySelector("form[data-remember]") is not null);
    }

    [Theory]
    [InlineData("/work?day=2026-11-23", "th:contains('within')", 2, "q")]
    [InlineData("/work?day=2026-11-23", "th:contains('within')", 3, "q")]
    [InlineData("/supply/orders", "th:contains('to come')", 2, "q")]
    [InlineData("/supply/money?year=2026", "th:contains('a day in colour')", 1, "q")]
    [InlineData("/review/season?year=2026", "th:contains('a day in colour')", 1, "q")]
    [InlineData("/stock", "th:contains('expected this year')", 2, "standing-q")]
    [InlineData("/supply/suppliers/saltmarsh-plants", "th:contains('in a pack')", 1, "q")]
    public async Task What_is_looked_for_is_what_is_left_of_a_list(string path, string heading, int column, string key)
    {
        async Task<IElement[]> Rows(string address) =>
            (await _browser.Settled(address)).QuerySelector($"table.ledger {heading}")?.Closest("table")!.QuerySelectorAll("tbody tr").ToArray()
            ?? [];
        IElement[] all = await Rows(path);
        string Named(IElement row) => (row.Children[column - 1].QuerySelector("a") ?? row.Children[column - 1]).TextContent.Trim();
        string wanted = Named(all[^1]);
        Assert.True(wanted.Length > 2);
        string asked = $"{path}{(path.Contains('?', StringComparison.Ordinal) ? '&' : '?')}{key}=";
        IElement[] found = await Rows(asked + Uri.EscapeDataString(wanted.ToUpperInvariant()));
        Assert.All(found, row => Assert.Contains(wanted, row.TextContent, StringComparison.OrdinalIgnoreCase));
        string[] named = [.. all.Where(r => Named(r) == wanted).Select(r => r.TextContent)];
        Assert.Equal(named, found.Select(r => r.TextContent).Intersect(named));
        Assert.InRange(found.Length, 1, all.Length - 1);
        Assert.Empty(await Rows(asked + "nowhere+to+be+found"));
    }

    [Fact]
    public async Task Planters_are_found_by_part_of_their_name_and_by_area()
    {
        IDocument all = await _browser.Open("/planters");
        string[] names = [.. Names(all)];
        Assert.True(names.Length > 20);
        string[] found = [.. Names(await _browser.Open("/planters?q=GREAT"))];
        Assert.Equal(names.Where(n => n.Contains("great", StringComparison.OrdinalIgnoreCase)), found);
        IElement area = all.QuerySelectorAll("#area option")[^1];
        IDocument here = await _browser.Open($"/planters?area={area.GetAttribute("value")}");
        Assert.StartsWith(area.TextContent, Assert.Single(here.QuerySelectorAll("caption")).TextContent, StringComparison.Ordinal);
        Assert.Empty(Names(await _browser.Open("/planters?q=nowhere+to+be+found")));
    }

    [Fact]
    public async Task Planters_of_all_areas_stand_in_the_order_that_is_asked_for()
    {
        string[] names = [.. Names(await _browser.Open("/planters"))];
        IDocument plain = await _browser.Open("/planters");
        foreach (IElement order in plain.QuerySelectorAll("#by option").Skip(1))
        {
            IDocument page = await _browser.Open($"/planters?by={order.GetAttribute("value")}");
            Assert.Equal(order.TextContent, page.QuerySelector("#by option[selected]")!.TextContent);
            Assert.Equal(names.Order(StringComparer.Ordinal), Names(page).Order(StringComparer.Ordinal));
        }
        int[] days = [.. (await _browser.Open("/planters?by=bare")).QuerySelectorAll("table.ledger td:last-child").Select(Figure)];
        Assert.True(days[^1] > days[0]);
        Assert.Equal(days.Order(), days);
        Assert.Equal(
            days.OrderDescending(),
            (await _browser.Open("/planters?by=colour")).QuerySelectorAll("table.ledger td:last-child").Select(Figure)
        );
        Assert.Equal(names, Names(await _browser.Open("/planters?by=no-such-order")));
    }

    [Fact]
    public async Task Kinds_of_the_palette_stand_in_the_order_that_is_asked_for_before_the_list_is_cut()
    {
        async Task<int[]> Column(string by, int column) =>
            [.. (await _browser.Open($"/palette?by={by}")).QuerySelectorAll($"table.palette-list td:nth-child({column})").Select(Figure)];
        int[] low = await Column("low", 4);
        int[] tall = await Column("tall", 4);
        Assert.Equal(low.Order(), low);
        Assert.Equal(tall.OrderDescending(), tall);
        Assert.True(tall[^1] > low[^1]);
        int[] used = await Column("used", 7);
        Assert.Equal(used.OrderDescending(), used);
        string[] names =
        [
            .. (await _browser.Open("/palette?by=name&all=yes")).QuerySelectorAll("table.palette-list th[scope=row] > a").Select(a => a.TextContent),
        ];
        Assert.Equal(names.Order(StringComparer.OrdinalIgnoreCase), names);
        int[] hardy = await Column("hardy", 6);
        Assert.Equal(hardy.Order(), hardy);
        // Of what shows, the year's first.
        var palette = await _browser.Open("/palette?by=colour");
        Assert.NotEmpty(palette.QuerySelectorAll("[data-results=narrowed] a[data-forget=palette]"));
        Assert.Empty((await _browser.Open("/palette")).QuerySelectorAll("[data-results=narrowed] a"));
    }

    // The first whole number of a cell.
    private static int Figure(IElement cell) =>
        int.Parse(
            string.Concat(
                cell.TextContent.Replace('−', '-').SkipWhile(c => c != '-' && !char.IsDigit(c)).TakeWhile(c => c == '-' || char.IsDigit(c))
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static IEnumerable<string> Names(IDocument page) => page.QuerySelectorAll("table.ledger td:first-child a").Select(a => a.TextContent);
}
