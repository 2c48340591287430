using System.Net;
using System.Text.Json;
using AngleSharp.Dom;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The studio's pages over a copy of the demo that these tests change.</summary>
public sealed class StudioPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task The_planter_is_shown_from_above_at_true_spread_and_says_so_to_a_screen_reader()
    {
        IDocument page = await _browser.Open("/planters/shelter-pot-2?day=2027-07-10");
        IElement above = page.QuerySelector(".from-above")!;
        Assert.Contains("Fan flower, violet", above.QuerySelector("title")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("cm wide", above.QuerySelector("title")!.TextContent, StringComparison.Ordinal);
        Assert.NotEmpty(above.QuerySelectorAll(".plant .fine"));
        Assert.Contains("of the surface covered", page.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Places_of_another_count_and_words_for_numbers_are_refused_and_nothing_is_changed()
    {
        string before = (await _browser.Open("/arrange/gate-pot-right-summer-2027")).QuerySelector(".plants")!.InnerHtml;
        foreach (string places in new[] { "[[[1,2]]]", "[[[\"a\",2]]]", "not json", "[]" })
        {
            using HttpResponseMessage answer = await _browser.Send("/arrange/gate-pot-right-summer-2027", null, ("Places", places));
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            Assert.Contains("The places could not be read", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
        }
        Assert.Equal(before, (await _browser.Open("/arrange/gate-pot-right-summer-2027")).QuerySelector(".plants")!.InnerHtml);
    }

    [Fact]
    public async Task A_place_off_the_planter_is_brought_to_its_edge()
    {
        IDocument page = await _browser.Open("/arrange/shelter-pot-3-summer-2027");
        int[] counts =
        [
            .. page.QuerySelectorAll(".is-movable")
                .GroupBy(p => p.GetAttribute("data-item"))
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => g.Count()),
        ];
        string far = JsonSerializer.Serialize(counts.Select(n => Enumerable.Repeat(new[] { 900.0, 0 }, n)));
        using HttpResponseMessage saved = await _browser.Send("/arrange/shelter-pot-3-summer-2027", null, ("Places", far));
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        string at = (await _browser.Open("/arrange/shelter-pot-3-summer-2027")).QuerySelector(".is-movable")!.GetAttribute("transform")!;
        Assert.InRange(double.Parse(at.Split('(', ' ')[1], System.Globalization.CultureInfo.InvariantCulture), 20, 26);
    }

    [Fact]
    public async Task Part_of_a_display_is_replaced_by_count_and_the_sheet_of_that_day_says_just_that()
    {
        const string Path = "/displays/bollard-pot-south-summer-2027";
        using HttpResponseMessage refused = await _browser.Send(
            Path,
            $"{Path}?handler=patch",
            ("Patch.Day", "2027-07-05"),
            ("Patch.Item", "0"),
            ("Patch.Count", "400")
        );
        Assert.Contains("so many", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage places = await _browser.Send(
            Path,
            $"{Path}?handler=patch",
            ("Patch.Day", "2027-07-05"),
            ("Patch.Item", "0"),
            ("Patch.Count", "2"),
            ("Patch.At", "1, 99")
        );
        Assert.Contains("must name each of the 2", (await Pages.Parse(places)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage made = await _browser.Send(
            Path,
            $"{Path}?handler=patch",
            ("Patch.Day", "2027-07-05"),
            ("Patch.Item", "0"),
            ("Patch.Count", "2"),
            ("Patch.At", "1, 4"),
            ("Patch.With", "lobelia-blue")
        );
        Assert.Equal(HttpStatusCode.Redirect, made.StatusCode);
        string[] sheet = [.. (await _browser.Open("/daysheet?date=2027-07-05")).QuerySelectorAll(".job .moves > div").Select(d => d.TextContent)];
        Assert.Contains(sheet, t => t.Contains("out", StringComparison.Ordinal) && t.Contains("2 ", StringComparison.Ordinal));
        Assert.Contains(sheet, t => t.Contains("in", StringComparison.Ordinal) && t.Contains("2 Lobelia, blue", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_is_kept_from_a_past_day_is_taken_into_the_stock_once_and_can_be_taken_back()
    {
        const string Path = "/displays/flag-pot-fall";
        IDocument display = await _browser.Open(Path);
        string lifted = display.QuerySelector("[name='Input.Lift']")!.GetAttribute("value")!;
        using HttpResponseMessage said = await _browser.Send(Path, null, ("Input.Lift", "2026-11-20"), ("Input.Lines[0].Fate", "Keep"));
        Assert.Equal(HttpStatusCode.Redirect, said.StatusCode);
        const string Sheet = "/daysheet?date=2026-11-20";
        Assert.Contains("Kept from this day, not in the stock yet", (await _browser.Open(Sheet)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage stale = await _browser.Send(Sheet, $"{Sheet}&handler=kept", ("Mark", "000000"));
        Assert.Contains("has changed since you opened its sheet", (await Pages.Parse(stale)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage taken = await _browser.Send(Sheet, "handler=kept");
        Assert.Equal("/stock", taken.Headers.Location!.ToString());
        Assert.DoesNotContain("not in the stock yet", (await _browser.Open(Sheet)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage again = await _browser.PostFrom("/stock", $"{Sheet}&handler=kept", []);
        Assert.Contains("in the stock already", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);
        Assert.Contains("holding area", (await _browser.Open("/stock")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage back = await _browser.Send("/year", "/year?handler=undo");
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        Assert.DoesNotContain("holding area", (await _browser.Open("/stock")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage restored = await _browser.Send(Path, null, ("Input.Lift", lifted));
        Assert.Equal(HttpStatusCode.Redirect, restored.StatusCode);
    }

    [Fact]
    public async Task What_stands_for_years_may_be_planted_without_an_end_and_says_so()
    {
        using HttpResponseMessage refused = await _browser.Send(
            "/displays/new?planter=wall-pot-east",
            null,
            ("Input.Layer", "Seasonal"),
            ("Input.Install", "2030-04-01"),
            ("Input.Lift", ""),
            ("Input.Lines[0].PlantId", "box-green"),
            ("Input.Lines[0].Count", "1")
        );
        Assert.Contains("must be a date", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage made = await _browser.Send(
            "/displays/new?planter=wall-pot-east",
            null,
            ("Input.Layer", "Standing"),
            ("Input.Install", "2036-04-01"),
            ("Input.Lift", ""),
            ("Input.Lines[0].PlantId", "box-green"),
            ("Input.Lines[0].Count", "1")
        );
        Assert.Equal(HttpStatusCode.Redirect, made.StatusCode);
        Assert.Contains("for as long as it lives", (await _browser.Open("/planters/wall-pot-east")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_planters_strips_name_their_plan_years_and_show_the_next_one_below()
    {
        string words = (await _browser.Open("/planters/flag-pot?day=2027-06-20")).Words();
        Assert.Contains("Plan year 2026–27", words, StringComparison.Ordinal);
        Assert.Contains("Plan year 2027–28", words, StringComparison.Ordinal);
        Assert.DoesNotContain("This year", words, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_sky_that_disagrees_with_the_survey_says_so_and_is_taken_at_one_click()
    {
        const string Sun = "/planters/wall-pot-east/sun";
        string[] classes = ["Shade", "FullSun"];
        string said = string.Empty;
        foreach (string surveyed in classes)
        {
            using HttpResponseMessage survey = await _browser.Send("/planters/wall-pot-east/edit", null, ("Input.Exposure", surveyed));
            Assert.Equal(HttpStatusCode.Redirect, survey.StatusCode);
            said = (await _browser.Open(Sun)).Words();
            if (said.Contains("By the map it has", StringComparison.Ordinal))
                break;
        }
        Assert.Contains("the survey says", said, StringComparison.Ordinal);
        using HttpResponseMessage taken = await _browser.Send(Sun, "/planters/wall-pot-east?handler=exposure");
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.DoesNotContain("the survey says", (await _browser.Open(Sun)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_buyer_chooses_the_form_and_the_order_follows()
    {
        const string Supply = "/supply?turn=summer-2027";
        using HttpResponseMessage refused = await _browser.Send(
            Supply,
            $"{Supply}&handler=form",
            ("plant", "petunia-magenta"),
            ("from", "packs"),
            ("form", "crates")
        );
        Assert.Contains("is not sold as", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage made = await _browser.Send(
            Supply,
            $"{Supply}&handler=form",
            ("plant", "petunia-magenta"),
            ("from", "packs"),
            ("form", "plugs")
        );
        Assert.Equal(HttpStatusCode.Redirect, made.StatusCode);
        string row = (await _browser.Open(Supply))
            .QuerySelectorAll("tr")
            .First(r => r.TextContent.Contains("Petunia, magenta", StringComparison.Ordinal))
            .TextContent;
        Assert.Contains("grow on 5 weeks", row, StringComparison.Ordinal);
        Assert.Contains("tray of 84 plugs", row, StringComparison.Ordinal);
        foreach (string span in new[] { "/supply?turn=month:2027-05", "/supply?turn=year:2026-09" })
            Assert.Contains("Petunia, magenta", (await _browser.Open(span)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_bulb_sold_under_a_wrong_name_is_renamed_where_it_stands_and_the_log_keeps_both()
    {
        (string, string)[] entry =
        [
            ("EntryId", Guid.NewGuid().ToString()),
            ("planter", "gate-pot-left"),
            ("Kind", "Misnamed"),
            ("PlantId", "tulip-early-orange"),
            ("Day", "2026-11-20"),
        ];
        using HttpResponseMessage refused = await _browser.Send("/log?planter=gate-pot-left", null, [.. entry, ("Really", "")]);
        Assert.Contains("choose what it really is", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage made = await _browser.Send("/log?planter=gate-pot-left", null, [.. entry, ("Really", "tulip-mid-red")]);
        Assert.Equal(HttpStatusCode.Redirect, made.StatusCode);
        using HttpResponseMessage again = await _browser.Send("/log?planter=gate-pot-left", null, [.. entry, ("Really", "tulip-mid-red")]);
        Assert.Equal(HttpStatusCode.Redirect, again.StatusCode);
        string history = (await _browser.Open("/planters/gate-pot-left")).QuerySelector(".history")!.TextContent;
        Assert.Equal(2, history.Split("It is Tulip, mid red").Length);
        Assert.Contains("Tulip, early orange", history, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_bulb_stack_has_no_arrangement_and_an_unknown_display_is_not_found()
    {
        foreach (
            string path in new[] { "/arrange/flag-pot-bulbs", "/arrange/nothing", "/stack/nothing/build", "/stack/flag-pot/template?display=nothing" }
        )
        {
            using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        }
    }

    [Theory]
    [InlineData("From=2027-05-01&To=2027-03-01", "must not be before the first day")]
    [InlineData("From=2027-03-01&To=2027-05-01&Budget=plenty", "is no amount of money")]
    [InlineData("From=2027-03-01&To=2027-05-01&Kinds=99", "must be from 1 to 8")]
    [InlineData("From=never&To=2027-05-01", "must be a date")]
    public async Task A_wish_that_cannot_be_is_answered_beside_its_field_and_keeps_what_was_typed(string query, string said)
    {
        using HttpResponseMessage answer = await _browser.Ask($"/stack/flag-pot/build?{query}");
        IDocument page = await Pages.Parse(answer);
        Assert.Contains(said, page.Words(), StringComparison.Ordinal);
        Assert.Empty(page.QuerySelectorAll(".proposals section"));
    }

    [Fact]
    public async Task Colours_and_budget_that_leave_nothing_are_answered_in_words() =>
        Assert.Contains(
            "No stack of hardy bulbs fits",
            (await _browser.Over("/stack/flag-pot/build?asked=true&From=2027-03-01&To=2027-05-01&Budget=0.10&Kinds=5")).Words(),
            StringComparison.Ordinal
        );

    [Fact]
    public async Task Up_to_three_stacks_are_built_beside_the_page_and_each_is_opened_to_be_looked_over()
    {
        IDocument page = await _browser.Over("/stack/flag-pot/build?asked=true&From=2027-02-15&To=2027-05-31&Kinds=4");
        IElement[] stacks = [.. page.QuerySelectorAll(".proposals section")];
        // Each is solved for so many seconds; a busy machine finds fewer.
        Assert.InRange(stacks.Length, 1, 3);
        Assert.All(stacks, s => Assert.NotNull(s.QuerySelector("svg.week-strip path")));
        IDocument opened = await _browser.Open(stacks[0].QuerySelector("a.btn")!.GetAttribute("href")!);
        Assert.NotEmpty(opened.QuerySelectorAll("select[name='Input.Lines[0].PlantId']"));
    }

    [Fact]
    public async Task A_remedy_changes_the_form_of_a_stack_and_saves_nothing_by_itself()
    {
        using HttpResponseMessage tried = await _browser.Send("/stack/seat-trough-left", "handler=preview", ("Input.Lines[0].Count", "900"));
        IDocument page = await Pages.Parse(tried);
        string mend = page.QuerySelectorAll("button[name=mend]")
            .First(b => b.TextContent.Contains("instead of 900", StringComparison.Ordinal))
            .GetAttribute("value")!;
        using HttpResponseMessage mended = await _browser.Send(
            "/stack/seat-trough-left",
            "/stack/seat-trough-left?handler=mend",
            ("Input.Lines[0].Count", "900"),
            ("mend", mend)
        );
        IDocument after = await Pages.Parse(mended);
        Assert.NotEqual("900", after.QuerySelector("[name='Input.Lines[0].Count']")!.GetAttribute("value"));
        Assert.DoesNotContain("900 planned", after.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Clumps_and_pairs_of_a_stack_are_saved_and_shown_again()
    {
        string path = "/stack/bollard-pot-south";
        using HttpResponseMessage saved = await _browser.Send(path, null, ("Input.Lines[0].Clump", "5"));
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        IDocument page = await _browser.Open(path);
        Assert.Equal("5", page.QuerySelector("[name='Input.Lines[0].Clump']")!.GetAttribute("value"));
        Assert.Contains(
            "Tulip, mid red after Hyacinth, blue",
            page.QuerySelectorAll("[name='Input.Pairs[1]'] option[selected]").Select(o => o.TextContent)
        );
        using HttpResponseMessage wrong = await _browser.Send(path, null, ("Input.Lines[0].Clump", "900"));
        Assert.Contains("must be from 2 to 50", (await Pages.Parse(wrong)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Counts_changed_elsewhere_keep_the_places_of_the_kinds_whose_count_stayed()
    {
        IDocument page = await _browser.Open("/arrange/wall-pot-west-summer-2027");
        int[] counts =
        [
            .. page.QuerySelectorAll(".is-movable")
                .GroupBy(p => p.GetAttribute("data-item"))
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => g.Count()),
        ];
        string places = JsonSerializer.Serialize(counts.Select((n, k) => Enumerable.Range(0, n).Select(i => new[] { (double)i, k })));
        using HttpResponseMessage saved = await _browser.Send("/arrange/wall-pot-west-summer-2027", null, ("Places", places));
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        using HttpResponseMessage counted = await _browser.Send(
            "/displays/wall-pot-west-summer-2027",
            null,
            ("Input.Lines[1].Count", $"{counts[1] + 1}")
        );
        Assert.Equal(HttpStatusCode.Redirect, counted.StatusCode);
        IDocument after = await _browser.Open("/arrange/wall-pot-west-summer-2027");
        Assert.Contains(after.QuerySelectorAll(".is-movable[data-item='0']"), p => p.GetAttribute("transform") == "translate(0 0)");
        Assert.Equal(counts[1] + 1, after.QuerySelectorAll(".is-movable[data-item='1']").Length);
    }

    [Fact]
    public async Task A_recipe_of_a_name_that_is_taken_is_refused()
    {
        using HttpResponseMessage kept = await _browser.Send("/recipes?keep=flag-pot-fall", null, ("Name", "Five layers, violet to dark"));
        Assert.Contains("is already used", (await Pages.Parse(kept)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage nameless = await _browser.Send("/recipes?keep=flag-pot-fall", null, ("Name", ""));
        Assert.Contains("must not be empty", (await Pages.Parse(nameless)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_institutions_school_wants_colours_first()
    {
        using HttpResponseMessage refused = await _browser.Send("/rules", null, ("Schools[Colour]", "Institution"), ("Institution", ""));
        Assert.Contains("must name at least one colour", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage wrong = await _browser.Send("/rules", null, ("Schools[Colour]", "Institution"), ("Institution", "navy"));
        Assert.Contains("must be written #rrggbb", (await Pages.Parse(wrong)).Words(), StringComparison.Ordinal);
    }
}
