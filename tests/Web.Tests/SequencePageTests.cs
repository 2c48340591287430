using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Bulbs through spring, bulbs over many planters, and the years ahead, over a copy of the demo that these tests change.</summary>
public sealed class SequencePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task Each_area_shows_how_its_bulbs_follow_each_other_and_what_has_strayed()
    {
        IDocument page = await _browser.Open("/year/sequence");
        Assert.Equal("Bulbs follow each other in all 4 areas", page.QuerySelector("h1")!.TextContent);
        Assert.Equal(4, page.QuerySelectorAll("svg.sequence").Length);
        Assert.Contains(
            "North bed alone carries Daffodil, main yellow; 4 others carry Daffodil, early yellow",
            page.Words(),
            StringComparison.Ordinal
        );
        Assert.Contains("mid Tulip, mid rose (6), Tulip, mid red (2)", page.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Bulbs_in_the_ground_stay_and_the_page_says_why_nothing_can_be_exchanged()
    {
        IDocument page = await _browser.Over("/year/sequence?area=promenade");
        Assert.Contains("Nothing to exchange in Promenade", page.Words(), StringComparison.Ordinal);
        Assert.Contains("in the ground already", page.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_next_year_is_written_its_bulbs_are_spread_by_exchanges_and_all_of_it_is_taken_back()
    {
        byte[] before = PlanFile.Write(await Plan());
        IDocument ahead = await _browser.Over("/year/ahead?years=3&tulips=LiftEachYear");
        Assert.Equal(3, ahead.QuerySelectorAll("table.ahead tbody tr").Length);
        string job = ahead.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value;
        using HttpResponseMessage written = await Post("/year/ahead?handler=write&years=3&tulips=LiftEachYear", ("job", job));
        Assert.Equal(HttpStatusCode.Redirect, written.StatusCode);
        int planned = (await Plan()).Displays.Count(d => d.Install >= new NodaTime.LocalDate(2027, 9, 1));
        Assert.InRange(planned, 50, 100);
        // All bulbs of the steps' next year become one kind: they would flower all at once.
        var displays = new DisplayStore(new PlanStore(app.Database, PlanFile.Stored));
        Plan now = await Plan();
        foreach (
            Display d in now.Displays.Where(d =>
                d.Layer == DisplayLayer.Bulbs
                && d.Install >= new NodaTime.LocalDate(2027, 9, 1)
                && now.FindPlanter(d.PlanterId)!.AreaId == "ferry-steps"
            )
        )
            await displays.Save(
                d with
                {
                    Items = [new DisplayItem("tulip-mid-rose", 5)],
                    Pairs = [],
                },
                (await new PlanStore(app.Database, PlanFile.Stored).Now()).Versions.Display(d.Id)
            );
        IDocument spread = await _browser.Over("/year/sequence?area=ferry-steps&day=2028-04-01");
        Assert.StartsWith("All at once in Ferry Steps", spread.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        string[] take = [.. spread.QuerySelectorAll<IHtmlInputElement>("input[name='take[]']").Select(i => i.Value)];
        Assert.NotEmpty(take);
        using HttpResponseMessage none = await Post(
            "/year/sequence?handler=accept&area=ferry-steps&day=2028-04-01",
            ("job", spread.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value)
        );
        Assert.Contains("Tick at least one exchange", (await Pages.Parse(none)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage made = await Post(
            "/year/sequence?handler=accept&area=ferry-steps&day=2028-04-01",
            [("job", spread.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value), .. take.Select(t => ("take[]", t))]
        );
        Assert.Equal(HttpStatusCode.Redirect, made.StatusCode);
        Assert.DoesNotContain("All at once in Ferry Steps", (await _browser.Open("/year/sequence?day=2028-04-01")).Words(), StringComparison.Ordinal);
        // The year that was written stands under changes made by hand, and says so; taken back one by one, all of it goes.
        IDocument list = await _browser.Open("/changes");
        IElement row = list.QuerySelectorAll("tbody tr").First(r => r.TextContent.Contains("displays planned for 2027", StringComparison.Ordinal));
        Assert.Contains("changed again since", row.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage early = await Post("/changes?handler=undo", ("change", row.Id!["c-".Length..]));
        Assert.Contains("was changed again since", (await Pages.Parse(early)).Words(), StringComparison.Ordinal);
        await Undo();
        Assert.StartsWith(
            "All at once in Ferry Steps",
            (await _browser.Open("/year/sequence?day=2028-04-01")).QuerySelector("h1")!.TextContent,
            StringComparison.Ordinal
        );
        while ((await Plan()).Displays.Any(d => d.Install >= new NodaTime.LocalDate(2027, 9, 1)))
            await Undo();
        Assert.Equal(before, PlanFile.Write(await Plan()));
    }

    [Fact]
    public async Task Bulbs_are_spread_over_empty_planters_of_a_turn_and_planted_as_proposed()
    {
        await new LotStore(new PlanStore(app.Database, PlanFile.Stored)).Save(
            new Lot("red-in-store", "tulip-mid-red", 4, LotState.Stored, "Cellar", new NodaTime.LocalDate(2026, 7, 1), LotCondition.Good),
            null
        );
        using HttpResponseMessage added = await _browser.Send(
            "/turns/new",
            null,
            ("Name", "Next bulbs"),
            ("FirstDay", "2029-10-15"),
            ("LastDay", "2029-10-19")
        );
        const string path = "/turns/next-bulbs-2029/spread";
        IDocument empty = await _browser.Open(path);
        Assert.Equal(24, empty.QuerySelectorAll("input[name='planters[]']").Length);
        const string pots = "planters[]=shelter-pot-1&planters[]=shelter-pot-2&planters[]=shelter-pot-3";
        IDocument page = await _browser.Over(
            $"{path}?asked=true&{pots}&kinds[]=tulip-mid-red&counts[]=20&kinds[]=tulip-late-dark&counts[]=20&lift=2030-05-20&scheme=OneEach"
        );
        Assert.Equal(3, page.QuerySelectorAll("table.ledger tbody tr").Length);
        using HttpResponseMessage planted = await Post(
            $"{path}?handler=accept",
            ("job", page.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value)
        );
        Assert.Equal(HttpStatusCode.Redirect, planted.StatusCode);
        Assert.Equal(3, (await Plan()).Displays.Count(d => d.Install == new NodaTime.LocalDate(2029, 10, 15)));
        Assert.Equal(0, (await Plan()).Lots.Single(l => l.Id == "red-in-store").Count);
        await Undo();
        Assert.Equal(4, (await Plan()).Lots.Single(l => l.Id == "red-in-store").Count);
        Assert.DoesNotContain((await Plan()).Displays, d => d.Install == new NodaTime.LocalDate(2029, 10, 15));
    }

    [Theory]
    [InlineData("kinds[]=tulip-mid-red&counts[]=many", "say how many there are")]
    [InlineData("kinds[]=tulip-mid-red&counts[]=5", "conflicts with a single kind")]
    [InlineData("kinds[]=tulip-mid-red&counts[]=5&kinds[]=tulip-mid-red&counts[]=7", "is given twice")]
    [InlineData("kinds[]=petunia-magenta&counts[]=5&alike=true", "is no hardy spring bulb")]
    [InlineData("lift=2026-10-01&kinds[]=tulip-mid-red&counts[]=5&alike=true", "must be after the planting day")]
    [InlineData("kinds[]=&counts[]=", "choose at least one")]
    public async Task A_spread_that_cannot_be_made_says_why_and_keeps_what_was_typed(string query, string said)
    {
        string lift = query.StartsWith("lift", StringComparison.Ordinal) ? string.Empty : "&lift=2028-05-20";
        string planters = string.Concat(
            (await _browser.Open("/turns/summer-2027/spread"))
                .QuerySelectorAll<IHtmlInputElement>("input[name='planters[]']")
                .Take(3)
                .Select(i => $"&planters[]={i.Value}")
        );
        using HttpResponseMessage answer = await _browser.Ask($"/turns/summer-2027/spread?{planters[1..]}{lift}&{query}");
        IDocument page = await Pages.Parse(answer);
        Assert.Contains(said, page.Words(), StringComparison.Ordinal);
        if (query.Contains("many", StringComparison.Ordinal))
            Assert.Equal("many", page.QuerySelector<IHtmlInputElement>("input[name='counts[]']")!.Value);
    }

    [Fact]
    public async Task The_years_ahead_name_what_each_costs_what_falls_due_and_where_young_plants_close_the_gaps()
    {
        IDocument page = await _browser.Over("/year/ahead?years=5&tulips=LeaveAndReplace");
        Assert.Matches(@"^5 years for \$[\d,]+, the dearest 2026–27$", page.QuerySelector("h1")!.TextContent);
        Assert.Contains("they are replaced", page.Words(), StringComparison.Ordinal);
        IElement north = page.QuerySelectorAll(".gap-ahead").First(g => g.TextContent.Contains("North bed", StringComparison.Ordinal));
        Assert.NotEmpty(north.QuerySelectorAll(".crown"));
        int[] costs =
        [
            .. page.QuerySelectorAll("table.ahead tbody tr")
                .Select(r =>
                    int.Parse(
                        r.Children[9].QuerySelector("b")!.TextContent[1..],
                        System.Globalization.NumberStyles.AllowThousands,
                        System.Globalization.CultureInfo.InvariantCulture
                    )
                ),
        ];
        Assert.True(costs[1] < costs[0]);
        IDocument lifted = await _browser.Over("/year/ahead?years=5&tulips=LiftEachYear");
        Assert.NotEqual(page.QuerySelector("h1")!.TextContent, lifted.QuerySelector("h1")!.TextContent);
    }

    private async Task<Plan> Plan() => await new PlanStore(app.Database, PlanFile.Stored).Load();

    private async Task Undo()
    {
        using HttpResponseMessage undone = await Undone();
        Assert.Equal(HttpStatusCode.Redirect, undone.StatusCode);
    }

    private async Task<HttpResponseMessage> Undone() =>
        await Post("/year?handler=undo", ("change", (await _browser.Open("/year")).QuerySelector<IHtmlInputElement>("input[name=change]")!.Value));

    private async Task<HttpResponseMessage> Post(string to, params (string Name, string Value)[] fields) =>
        await _browser.PostFrom("/year", to, fields);
}
