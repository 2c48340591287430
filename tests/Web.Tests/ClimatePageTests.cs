using System.Net;
using System.Text;
using System.Xml.Linq;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>A planner brings New York's file to an empty site and asks of the ground.</summary>
public sealed class NewYorkTests(EmptyApp app) : IClassFixture<EmptyApp>, IAsyncLifetime
{
    private readonly HttpClient _browser = app.Browser();

    public async ValueTask InitializeAsync()
    {
        using HttpResponseMessage sent = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            await File.ReadAllBytesAsync(Path.Combine(AppContext.BaseDirectory, "data", "new-york-seattle-2012-2015.csv")),
            "weather.csv",
            ("StationName", "New York"),
            ("StationId", "NYC"),
            ("Latitude", "40.7"),
            ("Longitude", "-74"),
            ("Location", "New York")
        );
        Assert.Equal("/climate/ground", sent.Headers.Location!.ToString());
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Tulips_at_18_cm_the_freeze_and_a_zone_6_evergreen_in_40_cm_of_terracotta_are_answered_with_their_doubt_and_working()
    {
        IDocument page = await _browser.Open("/climate/ground?weather=past");
        string words = page.Words();
        Assert.Matches(
            "Plant at 18 cm in the bed under thin litter from (1?[0-9]) November, tulips by [0-9]+ (December|January) for their cold; it does not freeze there",
            words
        );
        Assert.Contains("smoothed by 40 generated ones, which add no knowledge: every ± stays that of 4 years", words, StringComparison.Ordinal);
        Assert.Matches("winters that roots of an evergreen hardy to zone 6 live through in the terracotta pot, 40 cm", words);
        Assert.Contains("wrapped in 5 cm of straw or bubble film", words, StringComparison.Ordinal);
        Assert.Matches("± [0-9]+ d", words);
        IHtmlCollection<IElement> figures = page.QuerySelectorAll(".figure-row > div");
        Assert.True(figures.Length >= 5);
        Assert.All(figures, f => Assert.NotNull(f.QuerySelector("details.working")));
        Assert.NotNull(page.QuerySelector(".climate-figure .year-line"));
    }

    [Fact]
    public async Task A_timber_pot_keeps_more_winters_than_terracotta_and_a_colder_plant_more_still()
    {
        async Task<double> Winters(string query) =>
            double.Parse(
                (await _browser.Open("/climate/ground?" + query))
                    .QuerySelectorAll("table")
                    .First(t => t.TextContent.Contains("Do roots live", StringComparison.Ordinal))
                    .QuerySelector("tbody .num")!
                    .TextContent,
                System.Globalization.CultureInfo.InvariantCulture
            );
        double terracotta = await Winters("plant=zone-7");
        Assert.True(await Winters("plant=zone-7&wall=Timber") > terracotta);
        Assert.True(await Winters("plant=zone-4") > terracotta);
    }

    [Fact]
    public async Task The_odds_of_a_day_are_told_both_ways()
    {
        Assert.Matches("Planted out on 3 April, a freeze follows in [3-8] of 10 years", (await _browser.Open("/climate?out=2027-04-03")).Words());
        Assert.Matches("By 12 November a freeze has come in [2-8] of 10 years", (await _browser.Open("/climate?out=2027-11-12")).Words());
    }

    [Fact]
    public async Task The_nearest_station_is_followed_only_once_the_site_has_a_place()
    {
        IDocument page = await _browser.Open("/climate/stations");
        using var form = new FormUrlEncodedContent([
            new("__RequestVerificationToken", page.QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value),
        ]);
        using HttpResponseMessage answer = await _browser.PostAsync(new Uri("/climate/stations?handler=nearest", UriKind.Relative), form);
        Assert.Contains("Say on the Site page where the site lies", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_form_sent_to_a_page_that_takes_none_is_refused_politely()
    {
        IDocument page = await _browser.Open("/climate/stations");
        using var form = new FormUrlEncodedContent([
            new("__RequestVerificationToken", page.QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value),
        ]);
        using HttpResponseMessage answer = await _browser.PostAsync(new Uri("/climate", UriKind.Relative), form);
        Assert.Equal(HttpStatusCode.MethodNotAllowed, answer.StatusCode);
        Assert.Contains("This page takes no form", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Generated_years_can_be_brought_in_again_and_too_many_are_refused()
    {
        using HttpResponseMessage years = await _browser.GetAsync(new Uri("/climate/stations?handler=generate&years=12&seed=3", UriKind.Relative));
        await using Stream file = await years.Content.ReadAsStreamAsync();
        Assert.Equal(4383, Exchange.Weather.WeatherFile.Read(file).Days.Count);
        using HttpResponseMessage many = await _browser.GetAsync(new Uri("/climate/stations?handler=generate&years=100000&seed=3", UriKind.Relative));
        Assert.Equal(HttpStatusCode.BadRequest, many.StatusCode);
    }

    [Fact]
    public async Task Nonsense_in_the_question_is_answered_as_the_usual_question()
    {
        string words = (await _browser.Open("/climate/ground?depth=deep&where=moon&plant=zone-99&width=-3&wall=7&sun=x&weather=1066")).Words();
        Assert.Contains("at 18 cm in the bed under thin litter", words, StringComparison.Ordinal);
        Assert.Contains("hardy to zone 6", words, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("/climate?handler=csv", "text/csv", "last spring")]
    [InlineData("/climate/ground?handler=csv&depth=10", "text/csv", "lowest C")]
    [InlineData("/climate?handler=months", "text/csv", "rain mm")]
    [InlineData("/climate?handler=air", "text/csv", "middle C")]
    [InlineData("/climate/ground?handler=cold", "text/csv", "tulip")]
    [InlineData("/climate/ground?handler=roots", "text/csv", "sunk in a mulched bed")]
    [InlineData("/climate/ground?handler=days&where=pot", "text/csv", "2015-02-16")]
    [InlineData("/climate/stations?handler=generate&years=3&seed=9", "text/csv", "tmin_c")]
    [InlineData("/climate/ground?handler=windows", "text/csv", "safe until in 9 of 10")]
    public async Task Figures_leave_as_CSV(string path, string type, string holds)
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal(type, answer.Content.Headers.ContentType!.MediaType);
        string text = await answer.Content.ReadAsStringAsync();
        Assert.Contains(holds, text, StringComparison.Ordinal);
        Assert.True(text.Split("\r\n").Length > 4);
    }

    [Theory]
    [InlineData("/climate?handler=svg")]
    [InlineData("/climate/ground?handler=svg&weather=past")]
    public async Task Drawings_leave_as_SVG_that_stands_alone(string path)
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal("image/svg+xml", answer.Content.Headers.ContentType!.MediaType);
        XElement svg = XElement.Parse(await answer.Content.ReadAsStringAsync());
        Assert.Equal("http://www.w3.org/2000/svg", svg.Name.NamespaceName);
        Assert.All(svg.Descendants(), e => Assert.Equal(svg.Name.Namespace, e.Name.Namespace));
        Assert.DoesNotContain("var(--ink)", svg.ToString(), StringComparison.Ordinal);
    }
}

/// <summary>A planner without a record types the twelve normals of a place.</summary>
public sealed class NormalsAloneTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private static readonly string[] Paths =
    [
        "/climate?weather=hardest",
        "/climate",
        "/climate/ground?weather=hardest",
        "/climate/stations",
        "/year?weather=hardest-winter",
        "/planters/flag-pot",
        "/stack/bollard-pot-north",
        "/year/rehearse?kind=HardestWinter",
    ];

    [Fact]
    public async Task Generated_years_are_never_named_as_if_they_had_happened()
    {
        var weather = new WeatherStore(app.Database);
        await weather.SaveNormals(
            new Core.Climate.Station("twelve-normals", "Twelve normals", 43, -66, 10),
            new Core.Climate.MonthlyNormals(
                [-6, -5, -1, 4, 9, 14, 17, 17, 13, 7, 2, -4],
                [1, 2, 6, 12, 18, 23, 26, 25, 21, 15, 8, 3],
                [90, 80, 90, 85, 85, 80, 75, 80, 90, 95, 100, 95],
                "cold-continental"
            ),
            NodaTime.Instant.FromUtc(2026, 11, 23, 12, 0)
        );
        await weather.Choose("twelve-normals");
        foreach (string path in Paths)
        {
            IDocument page = await app.Browser().Over(path);
            string words = page.Words();
            if (path.Contains("inter", StringComparison.Ordinal))
                Assert.Contains("generated year ", words, StringComparison.Ordinal);
            Assert.DoesNotMatch(@"\b(0?1[0-4][0-9]|19[0-4][0-9])(–[0-9]{2}\b|: -?[0-9])", words);
            Assert.DoesNotMatch(@"\(0?1[0-4][0-9]\)", words);
        }
    }
}

/// <summary>Stations, normals and skylines over the demo.</summary>
public sealed class ClimatePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task One_wrong_line_refuses_a_file_until_it_is_left_out_on_purpose()
    {
        byte[] file = Encoding.UTF8.GetBytes("date,tmin,tmax\n2021-01-01,1,5\n2021-01-02,soon,6\n2021-01-03,2,7");
        (string, string)[] place = [("StationId", "SLIP"), ("Latitude", "43"), ("Longitude", "-66")];
        using HttpResponseMessage refused = await _browser.Upload("/climate/stations", string.Empty, file, "weather.csv", place);
        string words = (await Pages.Parse(refused)).Words();
        Assert.Contains("line 3: TMIN \"soon\" is no number", words, StringComparison.Ordinal);
        Assert.Contains("nothing was brought in", words, StringComparison.Ordinal);
        Assert.DoesNotContain("SLIP", (await _browser.Open("/climate/stations")).QuerySelector("table")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage taken = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            file,
            "weather.csv",
            [.. place, ("LeaveOut", "true")]
        );
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
    }

    [Fact]
    public async Task A_station_taken_out_gives_way_to_another_and_comes_back_whole()
    {
        var weather = new WeatherStore(app.Database);
        StationSummary used = (await weather.Stations()).Single(s => s.Days > 5000);
        using HttpResponseMessage added = await Normals("Spare", i => $"{3 + i}");
        Assert.Equal(HttpStatusCode.Redirect, added.StatusCode);
        using HttpResponseMessage gone = await _browser.PostFrom("/climate/stations", "/climate/stations?handler=remove", [("StationId", used.Id)]);
        Assert.Equal(HttpStatusCode.Redirect, gone.StatusCode);
        Assert.DoesNotContain(await weather.Stations(), s => s.Id == used.Id);
        // The nearest of the others may hold too little for a whole year, and then the page has no facts to tell.
        string facts = string.Join(' ', (await _browser.Open("/climate")).QuerySelectorAll(".facts").Select(e => e.TextContent));
        Assert.DoesNotContain(used.Name, facts, StringComparison.Ordinal);
        using HttpResponseMessage again = await _browser.PostFrom("/climate/stations", "/climate/stations?handler=remove", [("StationId", used.Id)]);
        Assert.Contains("there is no such station any more", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage back = await _browser.PostFrom("/climate/stations", "/climate/stations?handler=putBack", [("StationId", used.Id)]);
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        Assert.Contains(used, await weather.Stations());
        await weather.Choose(used.Id, byHand: false);
    }

    [Fact]
    public async Task A_month_typed_in_another_unit_is_named_and_nothing_is_kept()
    {
        using HttpResponseMessage refused = await Normals("Odd", i => i == 6 ? "-25" : $"{3 + i}");
        string words = (await Pages.Parse(refused)).Words();
        Assert.True(words.Contains("mean lowest of July: −25 °C lies 34 °C below the middle of its neighbours", StringComparison.Ordinal), words);
        Assert.DoesNotContain(
            "Odd",
            string.Join(' ', (await _browser.Open("/climate/stations")).QuerySelectorAll("h2, h3, td").Select(e => e.TextContent)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Twelve_normals_are_taken_whole_or_named_month_by_month_and_called_rougher()
    {
        using HttpResponseMessage refused = await Normals("Handbook", i => i == 4 ? "mild" : "3");
        string words = (await Pages.Parse(refused)).Words();
        Assert.Contains("May is no number: \"mild\"", words, StringComparison.Ordinal);
        Assert.Contains("value=\"mild\"", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        using HttpResponseMessage taken = await Normals("Handbook", i => $"{3 + i}");
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.Contains("twelve monthly normals, rougher", (await _browser.Open("/climate/stations")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_sites_place_gives_distances_carries_the_record_to_its_height_and_is_checked()
    {
        await using SettingsAsBefore _ = await SettingsAsBefore.Of(app);
        using HttpResponseMessage sent = await _browser.Send(
            "/site",
            null,
            ("Input.Latitude", "43.2"),
            ("Input.Longitude", "−66.8"),
            ("Input.Elevation", "106"),
            ("Input.AtElevation", "true")
        );
        Assert.Equal(HttpStatusCode.Redirect, sent.StatusCode);
        Assert.Matches("[0-9]+ km", (await _browser.Open("/climate/stations")).Words());
        string before = (await _browser.Open("/climate")).Words();
        using HttpResponseMessage flat = await _browser.Send(
            "/site",
            null,
            ("Input.Latitude", "43.2"),
            ("Input.Longitude", "-66.8"),
            ("Input.Elevation", "106"),
            ("Input.AtElevation", "false")
        );
        Assert.Equal(HttpStatusCode.Redirect, flat.StatusCode);
        Assert.NotEqual(before, (await _browser.Open("/climate")).Words());
        using HttpResponseMessage bad = await _browser.Send("/site", null, ("Input.Latitude", "143"), ("Input.Longitude", "0"));
        Assert.Contains("must be from -90 to 90 degrees", (await Pages.Parse(bad)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_skyline_decides_the_sun_and_outlives_a_change_of_measures()
    {
        IDocument page = await _browser.Open("/planters/flag-pot/sun");
        Assert.Equal(16, page.QuerySelectorAll("[data-sky-wall]").Length);
        Assert.Contains("Full sun over the growing season", page.Words(), StringComparison.Ordinal);
        using HttpResponseMessage bad = await Skyline(page, "flag-pot", "tall");
        Assert.Contains("wallDeg[0]: must be from 0 to 90 degrees", (await Pages.Parse(bad)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage saved = await Skyline(page, "flag-pot", "75");
        Assert.Equal("/planters/flag-pot", saved.Headers.Location!.ToString());
        Assert.Contains("it has shade, and no longer full sun", (await _browser.Open("/planters/flag-pot")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage edited = await _browser.Send("/planters/flag-pot/edit", null, ("Input.Note", "beside the new wall"));
        Assert.Equal(HttpStatusCode.Redirect, edited.StatusCode);
        Planter kept = (await new PlanStore(app.Database, PlanFile.Stored).Load()).FindPlanter("flag-pot")!;
        Assert.Equal(75, kept.Skyline!.WallDeg[3]);
    }

    private async Task<HttpResponseMessage> Skyline(IDocument page, string planter, string wall)
    {
        var fields = new List<KeyValuePair<string, string>>
        {
            new("__RequestVerificationToken", page.QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value),
            new("Version", page.QuerySelector<IHtmlInputElement>("input[name=Version]")!.Value),
            new("Growth", "0"),
            new("Surveyed", "2026"),
            new("LeafOn", "15"),
            new("LeafOff", "60"),
        };
        fields.AddRange(Enumerable.Range(0, 16).Select(k => new KeyValuePair<string, string>($"Walls[{k}]", wall)));
        fields.AddRange(Enumerable.Range(0, 16).Select(k => new KeyValuePair<string, string>($"Trees[{k}]", "0")));
        using var content = new FormUrlEncodedContent(fields);
        return await _browser.PostAsync(new Uri($"/planters/{planter}/sun", UriKind.Relative), content);
    }

    private async Task<HttpResponseMessage> Normals(string name, Func<int, string> month)
    {
        IDocument page = await _browser.Open("/climate/stations");
        var fields = new List<KeyValuePair<string, string>>
        {
            new("__RequestVerificationToken", page.QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value),
            new("Normals.Name", name),
            new("Normals.Latitude", "44"),
            new("Normals.Longitude", "-70"),
            new("Normals.Elevation", "20"),
            new("Normals.ClimateId", "continental"),
        };
        for (int m = 0; m < 12; m++)
        {
            fields.Add(new($"Normals.Min[{m}]", month(m)));
            fields.Add(new($"Normals.Max[{m}]", $"{20 + m}"));
            fields.Add(new($"Normals.Rain[{m}]", string.Empty));
        }
        using var content = new FormUrlEncodedContent(fields);
        return await _browser.PostAsync(new Uri("/climate/stations?handler=normals", UriKind.Relative), content);
    }

    /// <summary>Puts the settings back as they were, so that other checks find the demo as it is.</summary>
    private sealed class SettingsAsBefore(PlanStore plans, Core.Planning.Site before) : IAsyncDisposable
    {
        public static async Task<SettingsAsBefore> Of(MeadowApp app)
        {
            var plans = new PlanStore(app.Database, PlanFile.Stored);
            return new SettingsAsBefore(plans, (await plans.Load()).Site);
        }

        public async ValueTask DisposeAsync() => await plans.SaveSite(before, (await plans.Mark()).Version);
    }
}
