using System.Net;
using System.Text;
using AngleSharp.Dom;
using Microsoft.Extensions.DependencyInjection;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The pages over the demo, on the real database.</summary>
public sealed class DemoPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    public static TheoryData<string> AllPages =>
        [
            "/year",
            "/year?day=2027-04-14&weather=2012&sort=worst",
            "/planters",
            "/planters/new",
            "/planters/bollard-pot-north",
            "/planters/bollard-pot-north/edit",
            "/stack/bollard-pot-north",
            "/stack/kiosk-basket",
            "/stack/bollard-pot-north/template",
            "/stack/bollard-pot-north/build",
            "/stack/bollard-pot-north/build?From=2027-02-15&To=2027-05-31&Kinds=3",
            "/arrange/flag-pot-summer-2027",
            "/arrange/ticket-trough-east-fall?day=2027-03-01",
            "/rules",
            "/recipes",
            "/recipes?recipe=five-layers&planter[]=wall-pot-west",
            "/recipes?keep=flag-pot-fall",
            "/displays/new?planter=flag-pot",
            "/displays/flag-pot-fall",
            "/changes",
            "/turns",
            "/turns/new",
            "/turns/fall-2026",
            "/supply",
            "/supply?turn=bulbs-2026",
            "/supply/basket",
            "/supply/basket?turn=summer-2027&plugs=true",
            "/supply/orders",
            "/supply/orders/019a0000-0000-7000-8000-0000000000a1",
            "/supply/orders/019a0000-0000-7000-8000-0000000000a2/receive",
            "/supply/suppliers",
            "/supply/suppliers/quillon-bulbs",
            "/supply/holding",
            "/supply/holding?day=2026-12-24",
            "/supply/materials",
            "/supply/materials?material=feed",
            "/supply/money",
            "/supply/money?year=2025",
            "/daysheet",
            "/daysheet?turn=bulbs-2026",
            "/log",
            "/log?planter=kiosk-basket",
            "/review",
            "/review/season",
            "/care",
            "/climate",
            "/climate?weather=hardest",
            "/climate?out=2027-10-20",
            "/climate/ground",
            "/climate/ground?where=planter-great-pot&weather=hottest&depth=10",
            "/climate/ground?where=pot&width=30&wall=Timber",
            "/climate/stations",
            "/planters/great-pot/sun",
            "/palette",
            "/palette?q=tulip",
            "/palette?planter=flag-pot&from=2027-02-15",
            "/palette/snowdrop",
            "/palette/snowdrop/edit",
            "/palette/new",
            "/palette/import",
            "/palette/compare?compare[]=snowdrop&compare[]=canna-red",
            "/grounds",
            "/grounds?day=2027-07-14&draw=bed",
            "/stock",
            "/site",
        ];

    [Theory]
    [MemberData(nameof(AllPages))]
    public async Task Every_page_answers_without_inline_script_or_style_and_under_a_strict_policy(string path)
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        string policy = Assert.Single(answer.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("default-src 'self'", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
        IDocument page = await Pages.Parse(answer);
        Assert.All(page.QuerySelectorAll("script"), s => Assert.False(string.IsNullOrEmpty(s.GetAttribute("src"))));
        Assert.Empty(page.QuerySelectorAll("style, [style]"));
        Assert.DoesNotContain(page.All, e => e.Attributes.Any(a => a.Name.StartsWith("on", StringComparison.Ordinal)));
        Assert.Single(page.QuerySelectorAll("h1"));
        Assert.All(page.QuerySelectorAll("form[method=post]"), f => Assert.NotNull(f.QuerySelector("input[name=__RequestVerificationToken]")));
    }

    [Theory]
    [InlineData("/planters/nowhere")]
    [InlineData("/stack/nowhere")]
    [InlineData("/displays/nowhere")]
    [InlineData("/displays/new?planter=nowhere")]
    [InlineData("/turns/nowhere")]
    [InlineData("/supply?turn=nowhere")]
    [InlineData("/nowhere")]
    public async Task What_is_not_there_is_said_politely(string path)
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        Assert.Contains("There is no such page", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_year_draws_a_rule_for_every_planter_and_counts_the_bare_spells()
    {
        IDocument page = await _browser.Open("/year?day=2027-04-14");
        Assert.Equal(24, page.QuerySelectorAll("li.row-rule svg.ribbon").Length);
        Assert.Contains("Bare in five of 24 planters; South bed most of all", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(8, page.QuerySelectorAll(".ticks").Count(t => t.ParentElement!.ClassName == "ribbon"));
        Assert.Equal("2027-04-14", page.QuerySelector("[data-day-marker]")!.GetAttribute("data-day"));
        Assert.All(page.QuerySelectorAll("li.row-rule"), r => Assert.Equal(365, r.GetAttribute("data-odds")!.Length));
        Assert.True(page.QuerySelectorAll("details.working").Length >= 26);
        Assert.NotNull(page.QuerySelector("svg.frost .ice"));
    }

    [Fact]
    public async Task True_plant_colours_stand_in_the_ribbon()
    {
        IDocument page = await _browser.Open("/planters/bollard-pot-north?day=2027-04-14");
        string[] fills = [.. page.QuerySelectorAll(".ribbon .band").Select(b => b.GetAttribute("fill")!)];
        Assert.Contains("#c5283d", fills);
        Assert.Contains("#4a58b8", fills);
    }

    [Fact]
    public async Task An_observation_shows_on_the_planters_history_and_its_ribbon()
    {
        IDocument page = await _browser.Open("/planters/shelter-pot-2?day=2026-11-23");
        Assert.Contains("Brown after the second wet week", page.QuerySelector(".history")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(2, page.QuerySelectorAll(".ribbon .seen").Length);
    }

    [Fact]
    public async Task The_deliberate_mistakes_are_named_on_the_year_page()
    {
        string words = string.Empty;
        // They are looked for beside the page, which waits only a little.
        for (int tries = 0; tries < 120 && !words.Contains("goes out before the frost all-clear", StringComparison.Ordinal); tries++)
        {
            await Task.Delay(tries == 0 ? 0 : 250, TestContext.Current.CancellationToken);
            words = (await _browser.Open("/year?day=2027-04-14")).Words();
        }
        Assert.Contains("Lantana, gold goes out before the frost all-clear", words, StringComparison.Ordinal);
        Assert.Contains("Stonecrop, pink and Winterberry, red want different water", words, StringComparison.Ordinal);
        Assert.Contains("Tulip, mid rose goes in with too little cold ahead", words, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_stack_shows_depth_fit_dates_and_where_its_hand_over_is_broken()
    {
        IDocument page = await _browser.Open("/stack/bollard-pot-north");
        Assert.Equal(5, page.QuerySelector(".ledger tbody")!.QuerySelectorAll("tr").Length);
        Assert.NotEmpty(page.QuerySelectorAll(".cutaway .bulb"));
        Assert.DoesNotContain("broken, ", page.Words(), StringComparison.Ordinal);
        IDocument ring = await _browser.Open("/stack/bandstand-ring");
        Assert.Contains("Crocus, white → ", ring.Words(), StringComparison.Ordinal);
        Assert.Contains("broken, ", ring.Words(), StringComparison.Ordinal);
        Assert.NotEmpty(ring.QuerySelectorAll(".handover .gap"));
    }

    [Fact]
    public async Task A_stack_is_tried_without_being_saved()
    {
        using HttpResponseMessage answer = await _browser.Send("/stack/wall-pot-west", "handler=preview", ("Input.Lines[0].Count", "900"));
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("900 planned", page.Words(), StringComparison.Ordinal);
        Assert.DoesNotContain("900 planned", (await _browser.Open("/stack/wall-pot-west")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_display_that_clashes_is_refused_with_the_dates_and_keeps_what_was_typed()
    {
        using HttpResponseMessage answer = await _browser.Send(
            "/displays/new?planter=flag-pot",
            null,
            ("Input.Install", "2027-05-01"),
            ("Input.Lift", "2027-06-01"),
            ("Input.Lines[0].PlantId", "pansy-violet"),
            ("Input.Lines[0].Count", "7")
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("the seasonal layer is filled from Mon 19 Apr 2027 to Mon 27 Sep 2027", page.Words(), StringComparison.Ordinal);
        Assert.Equal("2027-05-01", page.QuerySelector("[name='Input.Install']")!.GetAttribute("value"));
        Assert.Equal("7", page.QuerySelector("[name='Input.Lines[0].Count']")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_lift_before_its_install_is_refused_beside_its_field()
    {
        using HttpResponseMessage answer = await _browser.Send(
            "/displays/new?planter=kiosk-basket",
            null,
            ("Input.Install", "2028-05-01"),
            ("Input.Lift", "2028-04-01"),
            ("Input.Lines[0].PlantId", "pansy-violet"),
            ("Input.Lines[0].Count", "7")
        );
        Assert.Contains(
            "must be after the install day",
            (await Pages.Parse(answer)).QuerySelector("#Input_Lift_fault")!.TextContent,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_bulb_cannot_be_smuggled_into_the_seasonal_layer()
    {
        using HttpResponseMessage answer = await _browser.Send(
            "/displays/new?planter=kiosk-basket",
            null,
            ("Input.Install", "2028-05-01"),
            ("Input.Lift", "2028-08-01"),
            ("Input.Lines[0].PlantId", "tulip-mid-red"),
            ("Input.Lines[0].Count", "7")
        );
        Assert.Contains("cannot stand in the seasonal layer", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
        Assert.NotEmpty((await _browser.Open("/year")).QuerySelectorAll("li.row-rule"));
    }

    [Fact]
    public async Task A_tender_plant_set_out_early_is_warned_while_it_is_typed()
    {
        using HttpResponseMessage answer = await _browser.Send(
            "/displays/new?planter=flag-pot",
            "handler=preview",
            ("Input.Install", "2028-04-02"),
            ("Input.Lift", "2028-09-01"),
            ("Input.Lines[0].PlantId", "lantana-gold"),
            ("Input.Lines[0].Count", "7")
        );
        Assert.Contains(
            "Lantana, gold goes out before the frost all-clear",
            (await Pages.Parse(answer)).QuerySelector("[data-preview=remarks]")!.TextContent,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task An_order_downloads_as_csv()
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri("/supply?turn=bulbs-2026&handler=csv", UriKind.Relative));
        Assert.Equal("text/csv", answer.Content.Headers.ContentType!.MediaType);
        Assert.Contains("order-bulbs-2026.csv", answer.Content.Headers.ContentDisposition!.ToString(), StringComparison.Ordinal);
        Assert.Contains("Tulip, mid red", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_day_sheet_gives_depths_counts_and_cautions()
    {
        string words = (await _browser.Open("/daysheet?turn=bulbs-2026&date=2026-10-19")).Words();
        Assert.Contains("11 Tulip, mid red, base at 25 cm", words, StringComparison.Ordinal);
        Assert.Contains("gloves, wash hands", words, StringComparison.Ordinal);
        Assert.Contains("Drip line out first", words, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_crew_member_reads_the_day_sheet_and_logs_in_Spanish_and_the_planners_pages_stay_English()
    {
        IDocument sheet = await _browser.Open("/daysheet?turn=bulbs-2026&date=2026-10-19&language=es");
        Assert.Equal("es", sheet.DocumentElement.GetAttribute("lang"));
        Assert.Contains("Primero saque la línea de goteo", sheet.Words(), StringComparison.Ordinal);
        Assert.Contains("base a 25 cm", sheet.Words(), StringComparison.Ordinal);
        Assert.Contains("lun 19 oct 2026", sheet.Words(), StringComparison.Ordinal);
        // What was chosen holds for the pages after it.
        IDocument log = await _browser.Open("/log");
        Assert.Contains("¿Qué vio?", log.Words(), StringComparison.Ordinal);
        Assert.Contains("primer color", log.Words(), StringComparison.Ordinal);
        Assert.Equal("en", (await _browser.Open("/turns")).DocumentElement.GetAttribute("lang"));
        Assert.Contains(
            "Drip line out first",
            (await _browser.Open("/daysheet?turn=bulbs-2026&date=2026-10-19&language=en")).Words(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_day_in_no_turn_has_its_sheet_is_named_and_goes_into_the_nearest_turn_at_a_click()
    {
        Assert.Contains("Kiosk basket", (await _browser.Open("/daysheet?date=2027-01-11")).Words(), StringComparison.Ordinal);
        Assert.Contains("In no turn", (await _browser.Open("/supply")).Words(), StringComparison.Ordinal);
        Assert.Contains("in or out in no turn", (await _browser.Open("/year?day=2027-04-14")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage taken = await _browser.PostFrom(
            "/turns",
            "/turns?handler=take",
            [("display", "kiosk-basket-fall"), ("day", "2027-01-11")]
        );
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.DoesNotContain("11 Jan 2027", (await _browser.Open("/turns")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage again = await _browser.PostFrom(
            "/turns",
            "/turns?handler=take",
            [("display", "kiosk-basket-fall"), ("day", "2027-01-11")]
        );
        Assert.Contains("lies in no turn no more", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_plan_that_waits_to_be_looked_at_still_waits_when_another_file_is_being_read()
    {
        byte[] plan = await _browser.GetByteArrayAsync(new Uri("/site?handler=plan", UriKind.Relative));
        using HttpResponseMessage sent = await _browser.Upload("/site", "?handler=plan", plan, "plan.json");
        string waits = $"{sent.Headers.Location}";
        var read = new TaskCompletionSource<bool>();
        Task other = app.Services.GetRequiredService<HeavyWork>().Do(() => read.Task);
        Assert.Contains("another file is being read just now", (await _browser.Open(waits)).Words(), StringComparison.Ordinal);
        read.SetResult(true);
        await other;
        Assert.Contains("plan.json takes nothing away", (await _browser.Open(waits)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_plan_downloads_and_comes_back_byte_for_byte()
    {
        byte[] first = await _browser.GetByteArrayAsync(new Uri("/site?handler=plan", UriKind.Relative));
        using HttpResponseMessage answer = await _browser.Upload("/site", "?handler=plan", first, "plan.json");
        Assert.Equal(HttpStatusCode.Redirect, answer.StatusCode);
        Assert.Equal(first, await _browser.GetByteArrayAsync(new Uri("/site?handler=plan", UriKind.Relative)));
    }

    [Theory]
    [InlineData("\"version\": 2", "\"version\": 9", "this program reads versions 1 and 2; the file says 9")]
    [InlineData("\"plantId\": \"viola-white\"", "\"plantId\": \"ghost\"", "there is no plant")]
    public async Task A_plan_that_is_wrong_is_refused_and_the_present_one_stays(string from, string to, string said)
    {
        string text = Encoding.UTF8.GetString(await _browser.GetByteArrayAsync(new Uri("/site?handler=plan", UriKind.Relative)));
        using HttpResponseMessage answer = await _browser.Upload(
            "/site",
            "?handler=plan",
            Encoding.UTF8.GetBytes(text.Replace(from, to, StringComparison.Ordinal)),
            "plan.json"
        );
        Assert.Contains(said, (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
        Assert.Equal(text, Encoding.UTF8.GetString(await _browser.GetByteArrayAsync(new Uri("/site?handler=plan", UriKind.Relative))));
    }

    [Theory]
    [InlineData("", "is empty")]
    [InlineData("not weather at all", "names no date column")]
    [InlineData("date,tmin,tmax\n\0\0", "is no text file")]
    public async Task A_file_that_is_no_weather_is_refused_and_nothing_changes(string text, string said)
    {
        using HttpResponseMessage answer = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            Encoding.UTF8.GetBytes(text),
            "weather.csv",
            ("Latitude", "43"),
            ("Longitude", "-66")
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains(said, page.QuerySelector("#Upload_fault")?.TextContent ?? page.Words(), StringComparison.Ordinal);
        Assert.Equal("43", page.QuerySelector("[name=Latitude]")!.GetAttribute("value"));
        Assert.Contains("30 years used", (await _browser.Open("/climate")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_file_beyond_20_MB_is_refused_politely()
    {
        using HttpResponseMessage answer = await _browser.Upload("/climate/stations", string.Empty, new byte[22 * 1024 * 1024], "weather.csv");
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        Assert.Contains("That file is too large", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_form_without_its_antiforgery_token_is_refused()
    {
        using var content = new FormUrlEncodedContent([new("PlanterId", "kiosk-basket"), new("Kind", "Peak")]);
        using HttpResponseMessage answer = await _browser.PostAsync(new Uri("/log", UriKind.Relative), content);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Theory]
    [InlineData("'; drop table planter; --")]
    [InlineData("<script>alert(1)</script>")]
    public async Task Sql_and_script_in_a_text_field_stay_text(string text)
    {
        using HttpResponseMessage answer = await _browser.Send("/log?planter=kiosk-basket", null, ("Kind", "Note"), ("Note", text));
        Assert.Equal(HttpStatusCode.Redirect, answer.StatusCode);
        using HttpResponseMessage page = await _browser.GetAsync(new Uri("/log?planter=kiosk-basket", UriKind.Relative));
        Assert.Contains(text, (await Pages.Parse(page)).QuerySelector(".history")!.TextContent, StringComparison.Ordinal);
        Assert.DoesNotContain("<script>alert", await page.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_log_entry_sent_twice_stands_once()
    {
        IDocument page = await _browser.Open("/log?planter=gate-pot-left");
        var fields = new (string, string)[]
        {
            ("EntryId", page.QuerySelector("[name=EntryId]")!.GetAttribute("value")!),
            ("Kind", "Peak"),
            ("Note", "at their best"),
        };
        using HttpResponseMessage first = await _browser.Send("/log?planter=gate-pot-left", null, fields);
        using HttpResponseMessage again = await _browser.Send("/log?planter=gate-pot-left", null, fields);
        Assert.Equal(HttpStatusCode.Redirect, again.StatusCode);
        Assert.Single((await _browser.Open("/log?planter=gate-pot-left")).QuerySelectorAll(".history li"));
    }

    [Fact]
    public async Task An_observation_of_tomorrow_is_refused_and_keeps_its_words()
    {
        using HttpResponseMessage answer = await _browser.Send(
            "/log?planter=gate-pot-left",
            null,
            ("Kind", "Note"),
            ("Note", "seen in a dream"),
            ("Day", "2026-11-24")
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("must not be after today", page.QuerySelector("#Day_fault")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("seen in a dream", page.QuerySelector("[name=Note]")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_planter_saved_over_somebody_elses_change_is_refused_with_what_was_typed()
    {
        IDocument mine = await _browser.Open("/planters/tea-trough/edit");
        string version = mine.QuerySelector("[name='Input.Version']")!.GetAttribute("value")!;
        using HttpResponseMessage theirs = await _browser.Send("/planters/tea-trough/edit", null, ("Input.Note", "theirs"));
        Assert.Equal(HttpStatusCode.Redirect, theirs.StatusCode);
        using HttpResponseMessage answer = await _browser.Send("/planters/tea-trough/edit", null, ("Input.Note", "mine"), ("Input.Version", version));
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("was changed by someone else", page.Words(), StringComparison.Ordinal);
        Assert.Contains("mine", page.QuerySelector("[name='Input.Note']")!.TextContent, StringComparison.Ordinal);
    }
}
