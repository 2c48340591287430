using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The year, its gaps, rehearsals, events and turns over a copy of the demo that these tests change.</summary>
public sealed class YearPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task The_year_says_at_a_glance_where_it_is_bare_how_sure_that_is_and_what_it_scores()
    {
        IDocument page = await _browser.Open("/year");
        Assert.Equal("11 Jan to 21 Mar: 70 days, bare in 28 of 28 years", Spell(page, "Kiosk basket"));
        Assert.InRange(int.Parse(page.QuerySelector(".score b")!.TextContent, System.Globalization.CultureInfo.InvariantCulture), 80, 95);
        Assert.Contains("60 × colour + 25 × steady + 15 × ready", page.QuerySelector(".score")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("Regatta", page.QuerySelector("svg[aria-label], .turns title")!.TextContent + page.Words(), StringComparison.Ordinal);
        Assert.NotEmpty(page.QuerySelectorAll(".cut-mark title"));
        Assert.NotEmpty(page.QuerySelectorAll(".turn-mark title"));
        Assert.Equal(365, page.QuerySelector("[data-in-colour]")!.GetAttribute("data-in-colour")!.Split(' ').Length);
    }

    [Theory]
    [InlineData("typical")]
    [InlineData("hardest-winter")]
    [InlineData("hottest-summer")]
    [InlineData("late-spring")]
    [InlineData("2004")]
    [InlineData("1066")]
    public async Task Any_weather_can_be_laid_over_the_year_and_an_unknown_one_is_passed_over(string weather)
    {
        IDocument page = await _browser.Open($"/year?weather={weather}");
        Assert.Equal(24, page.QuerySelectorAll("[data-odds]").Length);
        if (weather is not "1066")
            Assert.Equal(weather, page.QuerySelector<IHtmlSelectElement>("#weather")!.Value);
    }

    [Fact]
    public async Task A_rehearsal_is_the_same_view_with_the_planned_year_as_a_thin_line()
    {
        IDocument page = await _browser.Open("/year?beside=LateSpring");
        Assert.Contains("the latest on record", page.QuerySelector(".rehearsed")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(24, page.QuerySelectorAll("path.planned").Length);
        Assert.NotEmpty(page.QuerySelectorAll(".change.is-less"));
        IDocument detail = await _browser.Over("/year/rehearse?kind=LateSpring");
        Assert.Contains("planter-days of colour lost", detail.Words(), StringComparison.Ordinal);
        Assert.Contains("A reserve to hold", detail.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Gaps_are_proposed_three_of_them_accepted_the_year_mends_and_all_of_it_can_be_taken_back()
    {
        int before = Bare(await _browser.Open("/year"));
        IDocument asked = await _browser.Over("/year/close?asked=true");
        string[] ids = [.. asked.QuerySelectorAll<IHtmlInputElement>("input[name='take[]']").Select(i => i.Value)];
        Assert.True(ids.Length >= 5);
        Assert.Contains("no choice among them brings more than", asked.Words(), StringComparison.Ordinal);
        string job = asked.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value;
        using HttpResponseMessage accepted = await _browser.PostFrom(
            "/year/close?asked=true",
            "/year/close?handler=accept",
            [("job", job), .. ids.Take(3).Select(i => ("take[]", i))]
        );
        Assert.Equal(HttpStatusCode.Redirect, accepted.StatusCode);
        IDocument mended = await _browser.Open("/year");
        Assert.Contains("3 of", mended.Words(), StringComparison.Ordinal);
        Assert.True(Bare(mended) < before - 100);
        // What was proposed for the plan as it was does not fit the plan as it is.
        using HttpResponseMessage again = await _browser.PostFrom(
            "/year/close?asked=true",
            "/year/close?handler=accept",
            [("job", job), .. ids.Take(3).Select(i => ("take[]", i))]
        );
        Assert.Contains("someone else", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);
        string change = mended.QuerySelector<IHtmlInputElement>("input[name=change]")!.Value;
        using HttpResponseMessage undone = await _browser.PostFrom("/year", "/year?handler=undo", [("change", change)]);
        Assert.Equal(HttpStatusCode.Redirect, undone.StatusCode);
        Assert.Equal(before, Bare(await _browser.Open("/year")));
    }

    [Theory]
    [InlineData("budget=lots", "is no amount of money")]
    [InlineData("mostPlanters=few", "must be a whole number")]
    [InlineData("colours=red", "must be written #rrggbb")]
    [InlineData("stock=true&ways[]=CutBack", "conflicts with the ways allowed")]
    public async Task A_question_that_cannot_be_answered_says_what_is_wrong_and_keeps_what_was_typed(string query, string said)
    {
        IDocument page = await _browser.Open($"/year/close?asked=true&{query}");
        Assert.Contains(said, page.Words(), StringComparison.Ordinal);
        Assert.Empty(page.QuerySelectorAll(".gap-item"));
        if (query.StartsWith("budget", StringComparison.Ordinal))
            Assert.Equal("lots", page.QuerySelector<IHtmlInputElement>("#Budget")!.Value);
    }

    [Fact]
    public async Task Nothing_ticked_does_nothing_and_says_so()
    {
        IDocument asked = await _browser.Over("/year/close?asked=true&planter=kiosk-basket");
        using HttpResponseMessage answer = await _browser.PostFrom(
            "/year/close?asked=true&planter=kiosk-basket",
            "/year/close?handler=accept",
            [("job", asked.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value)]
        );
        Assert.Contains("Tick at least one change", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage gone = await _browser.PostFrom("/year", "/year/close?handler=accept", [("job", Guid.NewGuid().ToString())]);
        Assert.Contains("no longer kept", (await Pages.Parse(gone)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_event_is_added_shown_with_its_colour_and_removed_and_a_faulty_one_keeps_what_was_typed()
    {
        using HttpResponseMessage wrong = await _browser.Send(
            "/year/events",
            "/year/events",
            ("Name", "Harvest fair"),
            ("FirstDay", "2027-08-20"),
            ("LastDay", "2027-08-01")
        );
        IDocument kept = await Pages.Parse(wrong);
        Assert.Contains("must not be before the first day", kept.Words(), StringComparison.Ordinal);
        Assert.Equal("Harvest fair", kept.QuerySelector<IHtmlInputElement>("#Name")!.Value);
        using HttpResponseMessage added = await _browser.Send(
            "/year/events",
            "/year/events",
            ("Name", "Harvest fair"),
            ("FirstDay", "2027-08-20"),
            ("LastDay", "")
        );
        Assert.Equal(HttpStatusCode.Redirect, added.StatusCode);
        Assert.Contains("Harvest fair", (await _browser.Open("/year")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage removed = await _browser.Send("/year/events/harvest-fair-2027", "/year/events/harvest-fair-2027?handler=remove");
        Assert.DoesNotContain("Harvest fair", (await _browser.Open("/year")).QuerySelector(".under")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_kept_plan_can_be_compared_with_and_its_name_is_its_own()
    {
        using HttpResponseMessage kept = await _browser.Send("/year", "/year?handler=keep", ("name", "first draft"));
        Assert.Equal(HttpStatusCode.Redirect, kept.StatusCode);
        using HttpResponseMessage twice = await _browser.Send("/year", "/year?handler=keep", ("name", "first draft"));
        Assert.Contains("already used", (await Pages.Parse(twice)).Words(), StringComparison.Ordinal);
        string id = (await _browser.Open("/year"))
            .QuerySelectorAll<IHtmlOptionElement>("#beside option")
            .First(o => o.Text.Trim() == "first draft")
            .Value;
        Assert.Contains(
            "0 planters differ",
            (await _browser.Open($"/year?beside={id}")).QuerySelector(".rehearsed")!.TextContent,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_turn_shows_its_window_both_schools_and_what_goes_out_stays_and_comes_in()
    {
        IDocument page = await _browser.Over("/turns/summer-2027");
        Assert.StartsWith("The planned day, 17 May, is the best", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.NotNull(page.QuerySelector(".turn-curve"));
        Assert.Contains("delivery is from 10 May", page.Words(), StringComparison.Ordinal);
        Assert.Contains("When past its best", page.Words(), StringComparison.Ordinal);
        Assert.Contains("24 planters", page.QuerySelector("tfoot")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_turn_moves_with_all_its_displays_and_can_be_taken_back()
    {
        using HttpResponseMessage moved = await _browser.PostFrom("/turns/summer-2027", "/turns/summer-2027?handler=move", [("to", "2027-05-20")]);
        Assert.Equal(HttpStatusCode.Redirect, moved.StatusCode);
        Assert.Contains("20 May", (await _browser.Open("/turns")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage back = await _browser.PostFrom("/turns/summer-2027", "/turns/summer-2027?handler=move", [("to", "2027-05-17")]);
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        using HttpResponseMessage never = await _browser.PostFrom("/turns/summer-2027", "/turns/summer-2027?handler=move", [("to", "soon")]);
        Assert.Contains("must be a date", (await Pages.Parse(never)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage past = await _browser.PostFrom("/turns/winter-2026", "/turns/winter-2026?handler=move", [("to", "2026-11-25")]);
        Assert.Contains("its days are a record", (await Pages.Parse(past)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_becomes_of_a_kind_is_said_once_for_all_planters_of_a_turn()
    {
        using HttpResponseMessage said = await _browser.PostFrom(
            "/turns/summer-2027",
            "/turns/summer-2027?handler=fate",
            [("plant", "pansy-violet"), ("fate", "Compost")]
        );
        Assert.Equal(HttpStatusCode.Redirect, said.StatusCode);
        Assert.Equal("Compost", (await _browser.Open("/turns/summer-2027")).QuerySelector<IHtmlSelectElement>("#fate-pansy-violet")!.Value);
    }

    [Fact]
    public async Task A_turn_is_laid_out_over_many_planters_with_some_kinds_staying()
    {
        using HttpResponseMessage added = await _browser.Send(
            "/turns/new",
            null,
            ("Name", "Fall turn"),
            ("FirstDay", "2027-09-20"),
            ("LastDay", "2027-09-24"),
            ("People", "3")
        );
        Assert.Equal("/turns/fall-turn-2027", added.Headers.Location!.ToString());
        const string act = "/year/act?kind=PlantRecipe&turn=fall-turn-2027&day=2027-09-20";
        IDocument page = await _browser.Open(act);
        Assert.Contains(page.QuerySelectorAll<IHtmlInputElement>("input[name='stays[]']"), i => i.Value == "dusty-miller");
        Assert.DoesNotContain(page.QuerySelectorAll<IHtmlInputElement>("input[name='planters[]']"), i => i.IsChecked);
        const string ask = "/year/act?handler=ask&day=2027-09-20";
        (string, string)[] typed = [("kind", "PlantRecipe"), ("turn", "fall-turn-2027"), ("lift", "2027-12-01"), ("stays[]", "dusty-miller")];
        using HttpResponseMessage none = await _browser.PostFrom(act, ask, [.. typed, ("planters[]", "shelter-pot-1")]);
        Assert.Contains("choose one", (await Pages.Parse(none)).Words(), StringComparison.Ordinal);
        const string planters = "shelter-pot-1 shelter-pot-2";
        using HttpResponseMessage asked = await _browser.PostFrom(act, ask, [.. typed, ("recipe", "silver-and-violet"), ("planterList", planters)]);
        IDocument shown = await _browser.Settled(asked.Headers.Location!.ToString());
        string job = shown.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value;
        using HttpResponseMessage laid = await _browser.PostFrom(
            act,
            "/year/act?handler=accept&day=2027-09-20",
            [("job", job), ("kind", "PlantRecipe"), ("planterList", planters)]
        );
        Assert.Equal(HttpStatusCode.Redirect, laid.StatusCode);
        IElement row = (await _browser.Open("/turns/fall-turn-2027"))
            .QuerySelectorAll("tbody tr")
            .First(r => r.TextContent.Contains("Shelter pot 1", StringComparison.Ordinal));
        Assert.Contains("Silver-leaf groundsel", row.Children[2].TextContent, StringComparison.Ordinal);
        Assert.Contains("Fan flower", row.Children[3].TextContent, StringComparison.Ordinal);
        Assert.DoesNotContain("Silver-leaf groundsel", row.Children[1].TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_same_work_asked_twice_is_one_job_and_a_strange_id_is_not_found()
    {
        IDocument one = await _browser.Over("/year/close?asked=true&area=promenade");
        IDocument other = await _browser.Over("/year/close?asked=true&area=promenade");
        Assert.Equal(
            one.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value,
            other.QuerySelector<IHtmlInputElement>("input[name=job]")!.Value
        );
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri($"/jobs/{Guid.NewGuid()}", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    [Fact]
    public async Task Cuts_and_fates_are_typed_with_the_plants_and_a_cut_outside_the_display_is_refused()
    {
        using HttpResponseMessage wrong = await _browser.Send("/displays/band-pot-left-summer-2027", null, ("Input.Lines[0].Cuts", "2029-01-01"));
        Assert.Contains("must lie while it stands", (await Pages.Parse(wrong)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage saved = await _browser.Send(
            "/displays/band-pot-left-summer-2027",
            null,
            ("Input.Lines[0].Cuts", "2027-07-12 at 15 of 50%, 2027-08-20"),
            ("Input.Lines[0].Fate", "SeedSaved")
        );
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        IDocument page = await _browser.Open("/displays/band-pot-left-summer-2027");
        Assert.Equal("2027-07-12 at 15 of 50%, 2027-08-20", page.QuerySelector<IHtmlInputElement>("#Input_Lines_0__Cuts")!.Value);
        Assert.Matches("50.?% of them cut to 15 cm on [A-Za-z]* ?12 Jul[^:]*: flowers stand about 40 cm high", page.Words());
        using HttpResponseMessage unclear = await _browser.Send(
            "/displays/band-pot-left-summer-2027",
            null,
            ("Input.Lines[0].Cuts", "2027-07-12 at half")
        );
        Assert.Contains(
            "\"2027-07-12 at half\" is no cut; write 2027-07-19, or 2027-07-19 at 20 of 50%",
            (await Pages.Parse(unclear)).Words(),
            StringComparison.Ordinal
        );
        Assert.Equal("SeedSaved", page.QuerySelector<IHtmlSelectElement>("#Input_Lines_0__Fate")!.Value);
    }

    private static int Bare(IDocument page) =>
        int.Parse(page.Words().Split(" planter-days. Close")[0].Split(' ')[^1], System.Globalization.CultureInfo.InvariantCulture);

    private static string Spell(IDocument page, string planter) =>
        page.QuerySelectorAll(".under li")
            .First(l => l.TextContent.Contains(planter, StringComparison.Ordinal))
            .ChildNodes.OfType<IText>()
            .First(t => t.TextContent.Contains("days", StringComparison.Ordinal))
            .TextContent.Trim(' ', ',')
            .Replace('\u00a0', ' ');
}

/// <summary>The year of a site with more planters than fit a screen.</summary>
public sealed class ManyPlantersTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task Areas_are_folded_with_the_barest_open_and_the_rest_comes_when_asked()
    {
        var plans = new PlanStore(app.Database, PlanFile.Stored);
        Plan demo = await plans.Load();
        var planters = Enumerable.Range(0, 150).Select(i => demo.Planters[i % 5] with { Id = $"p{i}", Name = $"Planter {i}" }).ToList();
        var displays = Enumerable
            .Range(0, 150)
            .SelectMany(i => demo.DisplaysOf(demo.Planters[i % 5].Id).Select(d => d with { Id = $"{d.Id}-{i}", PlanterId = $"p{i}" }))
            .ToList();
        await plans.Replace(new Plan(demo.Site, demo.Areas, planters, demo.Palette, displays, demo.Turns, events: demo.Events));
        HttpClient browser = app.Browser();
        IDocument page = await browser.Open("/year");
        // Thirty planters of each of five kinds, and three of those kinds are pairs: one rule stands for all with the same year.
        Assert.InRange(page.QuerySelectorAll("[data-odds]").Length, 3, 5);
        Assert.Contains("more like it", page.QuerySelector(".who")!.TextContent + page.Words(), StringComparison.Ordinal);
        Assert.NotNull(page.QuerySelector(".area-ribbon"));
        IElement more = page.QuerySelector("[data-more]")!;
        Assert.Equal("150", more.GetAttribute("data-more-of"));
        IDocument first = await browser.Open($"{more.GetAttribute("data-more")}&skip=0");
        IDocument rest = await browser.Open($"{more.GetAttribute("data-more")}&skip=100");
        Assert.Equal((100, 50), (first.QuerySelectorAll("[data-odds]").Length, rest.QuerySelectorAll("[data-odds]").Length));
        Assert.Equal(150, first.QuerySelectorAll(".who a").Concat(rest.QuerySelectorAll(".who a")).Select(a => a.TextContent).Distinct().Count());
        Assert.Equal("150", page.QuerySelector("[data-planters]")!.GetAttribute("data-planters"));
    }
}
