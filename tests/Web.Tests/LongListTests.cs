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

    private static IEnumerable<string> Names(IDocument page) => page.QuerySelectorAll("table.ledger td:first-child a").Select(a => a.TextContent);
}
