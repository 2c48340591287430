using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Whole years proposed over the demo: looked at, changed, planned as one change, taken back as one.</summary>
public sealed class ProposePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const string Day = "2027-10-10";
    private static readonly string[] Pair = ["bollard-pot-north", "bollard-pot-south"];

    private readonly HttpClient _browser = app.Browser();

    private PlanStore Plans => new(app.Database, PlanFile.Stored);

    [Fact]
    public async Task Years_are_proposed_one_piece_is_exchanged_and_one_year_is_planned_and_taken_back()
    {
        Plan before = await Plans.Load();
        IDocument page = await Asked([("planterList", string.Join(' ', Pair)), ("Turns", "3")]);
        Assert.InRange(page.QuerySelectorAll(".year-card").Length, 1, 3);
        Assert.Equal(before.Displays.Count, (await Plans.Load()).Displays.Count);
        string instead = page.QuerySelectorAll<IHtmlOptionElement>("select[name='locks[]'] option")
            .First(o => o.Text.StartsWith("instead", StringComparison.Ordinal))
            .Value;
        string accept = page.QuerySelector<IHtmlFormElement>("form[action*='handler=accept']")!.GetAttribute("action")!;
        // What was settled is proposed with before it can be planned.
        using HttpResponseMessage early = await _browser.PostFrom(accept, accept, [("planterList", string.Join(' ', Pair)), ("locks[]", instead)]);
        Assert.Contains("propose again with it first", (await Pages.Parse(early)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage again = await _browser.PostFrom(
            accept,
            accept.Replace("handler=accept", "handler=again", StringComparison.Ordinal),
            [("locks[]", instead)]
        );
        page = await Done(again);
        Assert.Contains(page.QuerySelectorAll<IHtmlOptionElement>("select[name='locks[]'] option[selected]"), o => o.Value == instead);
        accept = page.QuerySelector<IHtmlFormElement>("form[action*='handler=accept']")!.GetAttribute("action")!;
        using HttpResponseMessage done = await _browser.PostFrom(accept, accept, [("planterList", string.Join(' ', Pair)), ("locks[]", instead)]);
        Assert.Equal(HttpStatusCode.Redirect, done.StatusCode);
        Plan made = await Plans.Load();
        Display[] added = [.. made.Displays.Where(d => before.Displays.All(b => b.Id != d.Id))];
        Assert.Equal(Pair, added.Select(d => d.PlanterId).Distinct().Order());
        // A second click on what is planned already changes nothing.
        using HttpResponseMessage twice = await _browser.PostFrom(accept, accept, [("planterList", string.Join(' ', Pair)), ("locks[]", instead)]);
        Assert.Equal(HttpStatusCode.OK, twice.StatusCode);
        Assert.Equal(made.Displays.Count, (await Plans.Load()).Displays.Count);
        await new ChangeStore(Plans).Undo((await new ChangeStore(Plans).Latest(1))[0].Id);
        Assert.Equal(before.Displays.Select(d => d.Id).Order(), (await Plans.Load()).Displays.Select(d => d.Id).Order());
    }

    [Theory]
    [InlineData("planterList", "", "must name at least one")]
    [InlineData("Budget", "much", "is no amount of money")]
    [InlineData("Turns", "7", "turns")]
    [InlineData("Bare", "few", "must be a whole number")]
    [InlineData("never[]", "no-such-plant", "not in the palette")]
    public async Task A_wish_that_cannot_be_is_refused_with_its_reason_and_what_was_typed_stays(string field, string value, string says)
    {
        var fields = new List<(string, string)> { ("planterList", Pair[0]), ("Turns", "3"), ("Budget", "250") };
        fields.RemoveAll(f => f.Item1 == field);
        fields.Add((field, value));
        using HttpResponseMessage asked = await _browser.PostFrom($"/year/propose?day={Day}", $"/year/propose?handler=ask&day={Day}", [.. fields]);
        Assert.Equal(HttpStatusCode.OK, asked.StatusCode);
        IDocument page = await Pages.Parse(asked);
        Assert.Contains(says, page.Words(), StringComparison.Ordinal);
        if (field is "Turns" or "Bare")
            Assert.Equal("250", page.QuerySelector<IHtmlInputElement>("#Budget")!.Value);
    }

    private async Task<IDocument> Asked(IEnumerable<(string, string)> fields)
    {
        using HttpResponseMessage asked = await _browser.PostFrom($"/year/propose?day={Day}", $"/year/propose?handler=ask&day={Day}", [.. fields]);
        return await Done(asked);
    }

    private async Task<IDocument> Done(HttpResponseMessage asked)
    {
        Assert.Equal(HttpStatusCode.Redirect, asked.StatusCode);
        string at = asked.Headers.Location!.OriginalString;
        for (int i = 0; ; i++)
        {
            IDocument page = await _browser.Open(at);
            if (page.QuerySelector("[data-job-done]") is not null)
                return page;
            Assert.True(i < 600, page.Words());
            await Task.Delay(200, TestContext.Current.CancellationToken);
        }
    }
}
