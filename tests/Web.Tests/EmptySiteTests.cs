using System.Net;
using System.Text;
using AngleSharp.Dom;
using NodaTime;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What a new user finds on an empty site.</summary>
public sealed class EmptySiteTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Theory]
    [InlineData("/begin", "A planned year in four steps: first, where is it?")]
    [InlineData("/year", "led from nothing to a planned year")]
    [InlineData("/planters", "Measure one inside")]
    [InlineData("/turns", "None yet")]
    [InlineData("/supply", "Nothing to order yet")]
    [InlineData("/daysheet", "No day sheet yet")]
    [InlineData("/log", "What did you see?")]
    public async Task An_empty_page_says_what_to_do_first(string path, string said) =>
        Assert.Contains(said, (await _browser.Open(path)).Words(), StringComparison.Ordinal);
}

/// <summary>A site without a record begins from a place like it.</summary>
public sealed class ReferenceClimatePageTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task A_place_like_ones_own_moved_to_what_is_known_gives_the_site_its_weather()
    {
        using HttpResponseMessage none = await Sent(("Like.Place", string.Empty), ("Like.ColdestLow", "cold"));
        IDocument refused = await Pages.Parse(none);
        Assert.Contains("must be chosen", refused.Words(), StringComparison.Ordinal);
        Assert.Contains("must be a number", refused.Words(), StringComparison.Ordinal);
        using HttpResponseMessage far = await Sent(("Like.Place", "Miami"), ("Like.LastFrost", "2026-07-01"));
        Assert.Contains("choose a place more like yours", (await Pages.Parse(far)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage taken = await Sent(("Like.Place", "Boston"), ("Like.LastFrost", "2026-05-10"), ("Like.HottestHigh", "27"));
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.Contains("Like Boston", (await _browser.Open("/climate/stations")).Words(), StringComparison.Ordinal);
        Assert.DoesNotContain("No weather yet", (await _browser.Open("/climate")).Words(), StringComparison.Ordinal);
    }

    private Task<HttpResponseMessage> Sent(params (string, string)[] fields) =>
        _browser.PostFrom("/climate/stations", "/climate/stations?handler=like", [.. fields]);
}

/// <summary>The page that leads a new site, step by step.</summary>
public sealed class BeginPageTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task A_new_site_gets_climate_palette_recipes_and_planters_named_in_words_and_what_is_wrong_loses_nothing()
    {
        using HttpResponseMessage nameless = await Sent("place", ("Name", " "), ("Like.Place", "Boston"));
        Assert.Contains("must not be empty", (await Pages.Parse(nameless)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage placeless = await Sent("place", ("Name", "Hill park"), ("Like.Place", string.Empty), ("Like.ColdestLow", "-6"));
        IDocument again = await Pages.Parse(placeless);
        Assert.Contains("must be chosen", again.Words(), StringComparison.Ordinal);
        Assert.Equal("Hill park", again.QuerySelector("[name=Name]")!.GetAttribute("value"));
        Assert.Equal("-6", again.QuerySelector("[name='Like.ColdestLow']")!.GetAttribute("value"));

        using HttpResponseMessage placed = await Sent("place", ("Name", "Hill park"), ("Units", "UsCustomary"), ("Like.Place", "Boston"));
        Assert.Equal(HttpStatusCode.Redirect, placed.StatusCode);
        Assert.Contains("plants in the palette", (await _browser.Open("/palette")).Words(), StringComparison.Ordinal);
        Assert.Contains("Summer pot in sun", (await _browser.Open("/recipes")).Words(), StringComparison.Ordinal);

        using HttpResponseMessage vague = await Sent("planters", ("Phrases", "some pots"));
        IDocument typed = await Pages.Parse(vague);
        Assert.Contains("no size is said", typed.Words(), StringComparison.Ordinal);
        Assert.Equal("some pots", typed.QuerySelector("textarea")!.TextContent.Trim());
        using HttpResponseMessage named = await Sent("planters", ("Phrases", "2 pots of 20 in"));
        string preview = named.Headers.Location!.ToString();
        Assert.Contains("2 planters would be added", (await _browser.Open(preview)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage taken = await _browser.PostFrom(preview, "/planters/table?handler=take", [("id", preview.Split("draft=")[1])]);
        Assert.Equal("/begin", taken.Headers.Location!.ToString());
        IDocument wish = await _browser.Open("/begin");
        Assert.Contains("what should the 2 planters look like", wish.Words(), StringComparison.Ordinal);
        Assert.Equal("pot-1 pot-2", wish.QuerySelector("[name=planterList]")!.GetAttribute("value"));
    }

    private Task<HttpResponseMessage> Sent(string handler, params (string, string)[] fields) =>
        _browser.PostFrom("/begin", $"/begin?handler={handler}", [.. fields]);
}

/// <summary>The first planter of a new user, on an empty site of its own.</summary>
public sealed class FirstPlanterTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task From_nothing_to_a_planter_with_a_display_and_its_day_sheet()
    {
        using HttpResponseMessage palette = await _browser.Send("/palette", "handler=starter");
        Assert.Equal(HttpStatusCode.Redirect, palette.StatusCode);
        using HttpResponseMessage weather = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            Weather(),
            "weather.csv",
            ("StationName", "Hill"),
            ("StationId", "HILL"),
            ("Latitude", "45"),
            ("Longitude", "0")
        );
        Assert.Equal(HttpStatusCode.Redirect, weather.StatusCode);
        Assert.Contains("Frost all-clear on", (await _browser.Open("/climate")).Words(), StringComparison.Ordinal);

        using HttpResponseMessage bad = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Name", "Gate trough"),
            ("Input.NewArea", "Court"),
            ("Input.Shape", "Trough"),
            ("Input.TopLength", "100"),
            ("Input.TopWidth", "40"),
            ("Input.Depth", "0")
        );
        IDocument refused = await Pages.Parse(bad);
        Assert.Contains("must be from 10 cm to 200 cm", refused.QuerySelector("#Input_Depth_fault")!.TextContent, StringComparison.Ordinal);
        Assert.Equal("Gate trough", refused.QuerySelector("[name='Input.Name']")!.GetAttribute("value"));
        Assert.Empty((await _browser.Open("/planters")).QuerySelectorAll("tbody a"));

        using HttpResponseMessage added = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Name", "Gate trough"),
            ("Input.NewArea", "Court"),
            ("Input.Shape", "Trough"),
            ("Input.TopLength", "100"),
            ("Input.TopWidth", "40"),
            ("Input.Depth", "40")
        );
        Assert.Equal("/planters/gate-trough", added.Headers.Location!.ToString());

        using HttpResponseMessage display = await _browser.Send(
            "/displays/new?planter=gate-trough",
            null,
            ("Input.Install", "2027-05-17"),
            ("Input.Lift", "2027-09-27"),
            ("Input.Lines[0].PlantId", "petunia-magenta"),
            ("Input.Lines[0].Count", "8")
        );
        Assert.Equal(HttpStatusCode.Redirect, display.StatusCode);
        using HttpResponseMessage stack = await _browser.Send(
            "/stack/gate-trough",
            null,
            ("Input.Install", "2026-11-25"),
            ("Input.Lift", "2027-05-17"),
            ("Input.Lines[0].PlantId", "tulip-mid-red"),
            ("Input.Lines[0].Count", "20")
        );
        Assert.Equal(HttpStatusCode.Redirect, stack.StatusCode);
        using HttpResponseMessage turn = await _browser.Send(
            "/turns/new",
            null,
            ("Name", "Summer turn"),
            ("FirstDay", "2027-05-17"),
            ("LastDay", "2027-05-21")
        );
        Assert.Equal(HttpStatusCode.Redirect, turn.StatusCode);

        string sheet = (await _browser.Open("/daysheet?turn=summer-turn-2027")).Words();
        Assert.Contains("20 Tulip, mid red", sheet, StringComparison.Ordinal);
        Assert.Contains("8 Petunia, magenta", sheet, StringComparison.Ordinal);
        Assert.Contains("Petunia, magenta", (await _browser.Open("/supply?turn=summer-turn-2027")).Words(), StringComparison.Ordinal);
        Assert.Contains(
            "Bare in one planter of 1: Gate trough",
            (await _browser.Open("/year?day=2027-04-14")).Words().Replace('\u00a0', ' '),
            StringComparison.Ordinal
        );
    }

    private static byte[] Weather()
    {
        var text = new StringBuilder("date,tmin,tmax\n");
        for (var d = new LocalDate(2010, 1, 1); d < new LocalDate(2020, 1, 1); d = d.PlusDays(1))
        {
            double mean = 11 - (11 * Math.Cos(2 * Math.PI * (d.DayOfYear - 25) / 365.25)) + ((d.Year % 3) - 1) + (3 * Math.Sin(d.DayOfYear * 1.7));
            text.Append($"{d.ToString("uuuu-MM-dd", null)},{mean - 5:0.0},{mean + 5:0.0}\n");
        }
        return Encoding.UTF8.GetBytes(text.ToString());
    }
}

/// <summary>A plan without any weather: what can be told is told, and the rest says what it waits for.</summary>
public sealed class NoWeatherTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    [Theory]
    [InlineData("/year", "No weather yet")]
    [InlineData("/year/sequence", "No weather yet, so nobody can say when bulbs flower")]
    [InlineData("/year/ahead?years=3", "No weather yet: costs can be told")]
    [InlineData("/year/rehearse?kind=LateSpring", "bring in a station")]
    [InlineData("/turns/bulbs-2026/spread", "No weather yet, so nobody can say which kinds are early")]
    public async Task Pages_of_the_year_say_that_they_wait_for_a_station(string path, string said)
    {
        var plans = new Store.PlanStore(app.Database, Exchange.PlanFiles.PlanFile.Stored);
        if ((await plans.Load()).Planters.Count == 0)
        {
            await using FileStream plan = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
            await plans.Replace(Exchange.PlanFiles.PlanFile.Read(plan));
        }
        IDocument page = await app.Browser().Over(path);
        Assert.Contains(said, page.Words(), StringComparison.OrdinalIgnoreCase);
    }
}

/// <summary>The site's own clock.</summary>
public sealed class TimeZoneTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    [Fact]
    public async Task A_day_begins_by_the_clock_of_the_site_and_not_of_the_machine()
    {
        var plans = new Store.PlanStore(app.Database, Exchange.PlanFiles.PlanFile.Stored);
        Core.Planning.Site site = (await plans.Load()).Site;
        // It is noon in Greenwich: on Kiritimati the next day has begun, on Midway it is still the same.
        foreach ((string zone, string today) in new[] { ("Pacific/Kiritimati", "2026-11-24"), ("Pacific/Midway", "2026-11-23") })
        {
            await plans.SaveSite(site with { TimeZone = zone }, (await plans.Mark()).Version);
            Assert.Equal(today, (await app.Browser().Open("/log")).QuerySelector("input[name=Day]")!.GetAttribute("value"));
        }
    }
}
