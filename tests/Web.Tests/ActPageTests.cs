using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Acts on many planters over the demo: shown before they are done, done as one change, taken back as one.</summary>
public sealed class ActPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task Next_year_is_made_from_this_one_for_the_planters_left_ticked_and_taken_back_as_one()
    {
        Plan before = await Now();
        string[] chosen = ["bollard-pot-north", "bollard-pot-south", "ticket-trough-east"];
        IDocument page = await Asked([("kind", "SameAsLastYear"), ("planterList", string.Join(' ', chosen))]);
        Assert.Contains("3 of 3 planters would change", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(before.Displays.Count, (await Now()).Displays.Count);
        string job = page.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value;
        using HttpResponseMessage done = await _browser.PostFrom(
            "/year/act?day=2027-10-10",
            "/year/act?handler=accept&day=2027-10-10",
            [("job", job), ("kind", "SameAsLastYear"), ("planterList", string.Join(' ', chosen[..2]))]
        );
        Assert.Equal(HttpStatusCode.Redirect, done.StatusCode);
        Plan made = await Now();
        Assert.Equal(chosen[..2], made.Displays.Where(d => before.Displays.All(b => b.Id != d.Id)).Select(d => d.PlanterId).Distinct().Order());
        IDocument changes = await _browser.Open("/changes");
        Assert.Contains("Same as the year before, 2 planters", changes.Words(), StringComparison.Ordinal);
        // What was worked out for the plan as it was is refused now that it differs.
        using HttpResponseMessage again = await _browser.PostFrom(
            "/year/act?day=2027-10-10",
            "/year/act?handler=accept&day=2027-10-10",
            [("job", job), ("kind", "SameAsLastYear"), ("planterList", chosen[0])]
        );
        Assert.Equal(HttpStatusCode.OK, again.StatusCode);
        MadeChange last = (await new ChangeStore(Plans).Latest(1))[0];
        await new ChangeStore(Plans).Undo(last.Id);
        Assert.Equal(before.Displays.Select(d => d.Id).Order(), (await Now()).Displays.Select(d => d.Id).Order());
    }

    [Fact]
    public async Task What_is_still_to_go_in_is_taken_out_and_comes_back_whole()
    {
        Plan before = await Now();
        IDocument page = await Asked([("kind", "TakeOut"), ("planterList", "bollard-pot-north")], "2027-06-01");
        string job = page.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value;
        using HttpResponseMessage done = await _browser.PostFrom(
            "/year/act",
            "/year/act?handler=accept",
            [("job", job), ("kind", "TakeOut"), ("planterList", "bollard-pot-north")]
        );
        Assert.Equal(HttpStatusCode.Redirect, done.StatusCode);
        Assert.True((await Now()).DisplaysOf("bollard-pot-north").Count < before.DisplaysOf("bollard-pot-north").Count);
        await new ChangeStore(Plans).Undo((await new ChangeStore(Plans).Latest(1))[0].Id);
        Assert.Equal(
            before.DisplaysOf("bollard-pot-north").Select(d => (d.Id, d.Install, d.Lift, d.Items.Count)),
            (await Now()).DisplaysOf("bollard-pot-north").Select(d => (d.Id, d.Install, d.Lift, d.Items.Count))
        );
    }

    [Theory]
    [InlineData("MoveByDays", "days", "a week", "must be a whole number")]
    [InlineData("MoveByDays", "days", "999", "must be a whole number from")]
    [InlineData("PlantRecipe", "install", "soon", "must be a date")]
    [InlineData("ReplaceKind", "oldPlant", "nothing", "choose the kind that goes")]
    public async Task What_is_wrong_is_said_and_the_planters_stay_chosen(string kind, string field, string typed, string said)
    {
        using HttpResponseMessage answer = await _browser.PostFrom(
            "/year/act",
            "/year/act?handler=ask",
            [("kind", kind), (field, typed), ("planterList", "flag-pot great-pot")]
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains(said, page.Words(), StringComparison.Ordinal);
        Assert.Equal(
            ["flag-pot", "great-pot"],
            page.QuerySelectorAll<IHtmlInputElement>("input[name='planters[]']").Where(i => i.IsChecked).Select(i => i.Value).Order()
        );
    }

    [Theory]
    [InlineData("bollard", "/planters/bollard-pot-north")]
    [InlineData("petunia mag", "/palette/petunia-magenta")]
    [InlineData("house", "/rules")]
    [InlineData("12 may 2027", "/year?day=2027-05-12")]
    [InlineData("what if", "/year/rehearse")]
    public async Task Anything_is_found_by_words(string typed, string path)
    {
        IDocument page = await _browser.Open($"/find?q={Uri.EscapeDataString(typed)}");
        Assert.Contains(path, page.QuerySelectorAll(".hits a").Select(a => a.GetAttribute("href")));
    }

    [Fact]
    public async Task Plants_to_choose_from_come_with_why_they_fit_and_answer_words_and_colours()
    {
        string answer = await _browser.GetStringAsync(
            new Uri("/palette/choices?planter=bollard-pot-north&from=2027-05-17&to=2027-09-27&sort=leaf&q=purple", UriKind.Relative)
        );
        using var json = System.Text.Json.JsonDocument.Parse(answer);
        var plants = json.RootElement.GetProperty("plants").EnumerateArray().ToList();
        Assert.NotEmpty(plants);
        Plan plan = await Now();
        Assert.All(plants, p => Assert.True(plan.Plant(p.GetProperty("id").GetString()!).GoesOutInLeaf));
        Assert.Contains(plants, p => p.GetProperty("name").GetString()!.Contains("purple", StringComparison.Ordinal));
        Assert.All(plants, p => Assert.StartsWith("<svg", p.GetProperty("strip").GetString(), StringComparison.Ordinal));
    }

    private PlanStore Plans => new(app.Database, PlanFile.Stored);

    private async Task<Plan> Now() => (await Plans.Now()).Plan;

    private async Task<IDocument> Asked((string, string)[] fields, string day = "2027-10-10")
    {
        using HttpResponseMessage asked = await _browser.PostFrom($"/year/act?day={day}", $"/year/act?handler=ask&day={day}", [.. fields]);
        Assert.Equal(HttpStatusCode.Redirect, asked.StatusCode);
        return await _browser.Settled(asked.Headers.Location!.ToString());
    }

    [Fact]
    public async Task An_end_is_moved_on_the_rules_and_what_cannot_be_is_refused_in_words()
    {
        Plan plan = await new PlanStore(app.Database, PlanFile.Stored).Load();
        Display pot = plan.Displays.First(d =>
            d.PlanterId == "flag-pot" && d.Install > new LocalDate(2027, 4, 1) && d.Layer == DisplayLayer.Seasonal
        );
        string To(LocalDate day) => $"display={pot.Id}&end=Install&to={day:uuuu-MM-dd}";
        string told = (await _browser.Open($"/year?handler=end&{To(pot.Install.PlusDays(3))}&day=2027-05-01")).Words();
        Assert.Contains("3 days later", told, StringComparison.Ordinal);
        Assert.Contains("days in colour", told, StringComparison.Ordinal);
        Assert.Contains(
            "went in before today",
            (await _browser.Open($"/year?handler=end&{To(new LocalDate(2026, 1, 1))}")).Words(),
            StringComparison.Ordinal
        );
        using HttpResponseMessage refused = await _browser.PostFrom(
            "/year",
            "/year?handler=end",
            [("display", pot.Id), ("end", "Install"), ("to", "2026-01-01")]
        );
        Assert.Contains("went in before today", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage gone = await _browser.PostFrom(
            "/year",
            "/year?handler=end",
            [("display", "no-such"), ("end", "Lift"), ("to", "x")]
        );
        Assert.Contains("is there no more", (await Pages.Parse(gone)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage stale = await _browser.PostFrom(
            "/year",
            "/year?handler=end",
            [("display", pot.Id), ("end", "Install"), ("was", "2027-01-01"), ("to", $"{pot.Install.PlusDays(3):uuuu-MM-dd}")]
        );
        Assert.Contains("moved that end meanwhile", (await Pages.Parse(stale)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage moved = await _browser.PostFrom(
            "/year",
            "/year?handler=end",
            [("display", pot.Id), ("end", "Install"), ("to", $"{pot.Install.PlusDays(3):uuuu-MM-dd}")]
        );
        Assert.Equal(HttpStatusCode.Redirect, moved.StatusCode);
        Plan after = await new PlanStore(app.Database, PlanFile.Stored).Load();
        Assert.Equal(pot.Install.PlusDays(3), after.Displays.Single(d => d.Id == pot.Id).Install);
    }
}
