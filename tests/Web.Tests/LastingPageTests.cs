using System.Net;
using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What pages do when two people edit, when much is ticked, when a plan replaces another, and when what is stored does not fit.</summary>
public sealed class LastingPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    /// <summary>Pages that edit one thing, with a field that both change.</summary>
    public static TheoryData<string, string, string, string> Edits =>
        new()
        {
            { "/planters/flag-pot/edit", "Input.Note", "mine", "theirs" },
            { "/palette/snowdrop/edit", "Cells[height cm]", "15", "16" },
            { "/displays/flag-pot-summer-2027", "Input.Lift", "2027-09-20", "2027-09-21" },
            { "/turns/summer-2027", "Name", "Mine", "Theirs" },
            { "/site", "Input.Money", "£", "€" },
        };

    [Theory]
    [MemberData(nameof(Edits))]
    public async Task Of_two_who_edit_one_thing_the_second_compares_both_and_can_save_his_after_all(
        string path,
        string field,
        string mine,
        string theirs
    )
    {
        IDocument opened = await _browser.Open(path);
        IHtmlFormElement form = opened
            .QuerySelectorAll<IHtmlFormElement>("form[method=post]")
            .First(f => f.QuerySelector($"[name='{field}']") is not null);
        string target = form.GetAttribute("action") is ['/', ..] and var action ? action : path;
        using HttpResponseMessage first = await _browser.PostFrom(
            path,
            target,
            [.. Fields(form).Select(f => f.Item1 == field ? (field, theirs) : f)]
        );
        Assert.Equal(HttpStatusCode.Redirect, first.StatusCode);
        using HttpResponseMessage second = await _browser.PostFrom(path, target, [.. Fields(form).Select(f => f.Item1 == field ? (field, mine) : f)]);
        IDocument compared = await Pages.Parse(second);
        IElement table = compared.QuerySelector("table.differences")!;
        Assert.Contains(mine, table.TextContent, StringComparison.Ordinal);
        Assert.Contains(theirs, table.TextContent, StringComparison.Ordinal);
        // Saved again from the page as it stands, his are put in the place of the other's.
        IHtmlFormElement again = compared
            .QuerySelectorAll<IHtmlFormElement>("form[method=post]")
            .First(f => f.QuerySelector($"[name='{field}']") is not null);
        using HttpResponseMessage saved = await _browser.PostFrom(path, target, [.. Fields(again)]);
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        IDocument now = await _browser.Open(path);
        Assert.Contains(now.QuerySelectorAll($"[name='{field}']"), e => (e is IHtmlTextAreaElement t ? t.Value : e.GetAttribute("value")) == mine);
        await app.LoadDemo();
    }

    [Fact]
    public async Task What_a_page_says_waits_for_the_page_and_no_preview_takes_it()
    {
        const string Path = "/planters/flag-pot/edit";
        IHtmlFormElement form = (await _browser.Open(Path))
            .QuerySelectorAll<IHtmlFormElement>("form[method=post]")
            .First(f => f.QuerySelector("[name='Input.Note']") is not null);
        using HttpResponseMessage saved = await _browser.PostFrom(
            Path,
            Path,
            [.. Fields(form).Select(f => f.Item1 == "Input.Note" ? (f.Item1, "a word") : f)]
        );
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        using var preview = new HttpRequestMessage(HttpMethod.Get, Path);
        preview.Headers.Add("Sec-Fetch-Mode", "cors");
        using HttpResponseMessage drawn = await _browser.SendAsync(preview);
        Assert.Null((await Pages.Parse(drawn)).QuerySelector(".said"));
        Assert.Contains("saved", (await _browser.Open("/planters/flag-pot")).QuerySelector(".said")!.TextContent, StringComparison.Ordinal);
        Assert.Null((await _browser.Open("/planters/flag-pot")).QuerySelector(".said"));
        await app.LoadDemo();
    }

    [Fact]
    public async Task What_a_page_says_travels_in_no_cookie()
    {
        var rows = new StringBuilder("date,tmin,tmax\n");
        for (int y = 2000; y < 2025; y += 3)
            rows.Append(System.Globalization.CultureInfo.InvariantCulture, $"{y}-01-01,1,2\n{y}-01-02,9,{y % 7}\n");
        using HttpResponseMessage answer = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            Encoding.UTF8.GetBytes(rows.ToString()),
            "gaps.csv",
            ("StationId", "GAPS"),
            ("StationName", "Gaps"),
            ("Latitude", "43"),
            ("Longitude", "-66"),
            ("LeaveOut", "true")
        );
        Assert.Equal(HttpStatusCode.Redirect, answer.StatusCode);
        Assert.True(answer.Headers.GetValues("Set-Cookie").Sum(c => c.Length) < 400);
        Assert.Contains("lines refused", (await _browser.Open("/climate/stations")).Words(), StringComparison.Ordinal);
        Assert.DoesNotContain("lines refused", (await _browser.Open("/climate/stations")).Words(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task A_thousand_ticks_are_taken_as_fields_and_as_one_field(bool asOne)
    {
        Plan demo = await new PlanStore(app.Database, PlanFile.Stored).Load();
        using HttpResponseMessage turn = await _browser.Send(
            "/turns/new",
            null,
            ("Name", "Many ticks"),
            ("FirstDay", "2029-09-15"),
            ("LastDay", "2029-09-17")
        );
        Assert.Equal("/turns/many-ticks-2029", turn.Headers.Location!.ToString());
        string[] ids = [.. Enumerable.Range(0, 1500).Select(i => $"no-such-{i}").Prepend("shelter-pot-1")];
        (string, string)[] ticks = asOne ? [("planterList", string.Join(' ', ids))] : [.. ids.Select(i => ("planters[]", i))];
        using HttpResponseMessage laid = await _browser.PostFrom(
            "/year/act?day=2029-09-15",
            "/year/act?handler=ask&day=2029-09-15",
            [
                ("kind", "PlantRecipe"),
                ("turn", "many-ticks-2029"),
                ("recipe", demo.Recipes.First(r => r.Layer == DisplayLayer.Seasonal).Id),
                ("lift", "2029-12-01"),
                .. ticks,
            ]
        );
        Assert.Equal(HttpStatusCode.Redirect, laid.StatusCode);
        await app.LoadDemo();
    }

    [Fact]
    public async Task A_plan_file_shows_what_it_takes_away_before_it_takes_it_and_the_old_plan_comes_back()
    {
        byte[] whole = PlanFile.Write(await new PlanStore(app.Database, PlanFile.Stored).Load());
        using HttpResponseMessage same = await _browser.Upload("/site", "?handler=plan", whole, "own.json");
        Assert.StartsWith("/site/plan?draft=", same.Headers.Location!.ToString(), StringComparison.Ordinal);
        Assert.Contains("takes nothing away", (await _browser.Open(same.Headers.Location.ToString())).Words(), StringComparison.Ordinal);
        using var stream = new MemoryStream(whole);
        Plan plan = PlanFile.Read(stream);
        byte[] less = PlanFile.Write(
            new Plan(
                plan.Site,
                plan.Areas,
                [.. plan.Planters.Skip(1)],
                plan.Palette,
                [.. plan.Displays.Where(d => d.PlanterId != plan.Planters[0].Id)],
                plan.Turns,
                plan.Map,
                [.. plan.Lots.Where(l => l.FromPlanterId != plan.Planters[0].Id)],
                plan.Recipes,
                plan.Events
            )
        );
        using HttpResponseMessage look = await _browser.Upload("/site", "?handler=plan", less, "less.json");
        string preview = look.Headers.Location!.ToString();
        Assert.Contains(plan.Planters[0].Name, (await _browser.Open(preview)).QuerySelector("table.ledger")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(whole, PlanFile.Write(await new PlanStore(app.Database, PlanFile.Stored).Load()));
        using HttpResponseMessage taken = await _browser.Send(preview, null);
        Assert.Equal("/site", taken.Headers.Location!.ToString());
        Assert.Equal(less, PlanFile.Write(await new PlanStore(app.Database, PlanFile.Stored).Load()));
        using HttpResponseMessage back = await _browser.Send("/site", "handler=back");
        Assert.Equal(whole, PlanFile.Write(await new PlanStore(app.Database, PlanFile.Stored).Load()));
    }

    [Fact]
    public async Task What_does_not_fit_is_named_on_every_page_and_mended_on_its_own()
    {
        await Sql(
            (
                "update turn set people = 999 where false; alter table turn drop constraint "
                + "turn_people_check; update turn set people = 999 where id = 'summer-2027'"
            )
        );
        try
        {
            Assert.Contains("stands beside the plan", (await _browser.Open("/year")).Words(), StringComparison.Ordinal);
            IDocument page = await _browser.Open("/site/aside");
            Assert.Contains("people must be from 1 to 200", page.Words(), StringComparison.Ordinal);
            using HttpResponseMessage file = await _browser.GetAsync(
                new Uri(page.QuerySelector("a[download]")!.GetAttribute("href")!, UriKind.Relative)
            );
            Assert.Contains("\"people\": 999", await file.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            using HttpResponseMessage health = await _browser.GetAsync(new Uri("/health", UriKind.Relative));
            Assert.EndsWith("1 set aside", await health.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            using HttpResponseMessage removed = await _browser.Send("/site/aside", "handler=remove");
            Assert.Equal("/site/aside", removed.Headers.Location!.ToString());
            Assert.Contains("Nothing is set aside", (await _browser.Open("/site/aside")).Words(), StringComparison.Ordinal);
        }
        finally
        {
            await Sql("alter table turn add constraint turn_people_check check (people between 1 and 200)");
            await app.LoadDemo();
        }
    }

    [Fact]
    public async Task Everything_written_and_brought_into_an_empty_place_is_written_again_the_same()
    {
        await new PhotoStore(app.Database).Add(
            new PlanterPhoto(Guid.NewGuid(), "great-pot", new LocalDate(2026, 11, 1), "Café, “dry”", 8, 6),
            Picture(),
            [1]
        );
        await new VariantStore(app.Database, PlanFile.Write, PlanFile.Read).Keep(
            "kept, 1",
            await new PlanStore(app.Database, PlanFile.Stored).Load()
        );
        // A station taken out is kept with the rest, and comes along as one that was taken out.
        var weather = new WeatherStore(app.Database);
        await weather.Merge(
            new Core.Climate.Station("SPARE", "Spare", 43, -66, 5),
            [new Core.Climate.WeatherDay(new LocalDate(2020, 1, 1), -1, 4, null)],
            Instant.FromUtc(2026, 11, 23, 8, 0)
        );
        await weather.Remove("SPARE", Instant.FromUtc(2026, 11, 23, 9, 0));
        using var first = new MemoryStream();
        await Of(app.Database).Write(first);
        await using var empty = new Store.Tests.TestDatabase();
        await empty.InitializeAsync();
        // A new place holds what ships with the app.
        LoadedPlan fresh = await new PlanStore(empty.Database, PlanFile.Stored).Now();
        await Site.Starter.Add(fresh.Plan, fresh.Versions, new PaletteStore(new PlanStore(empty.Database, PlanFile.Stored)));
        first.Position = 0;
        Assert.Contains("1 photographs", await Of(empty.Database).Bring(first, Instant.FromUtc(2026, 11, 24, 8, 0)), StringComparison.Ordinal);
        Assert.Equal("SPARE", Assert.Single(await new WeatherStore(empty.Database).RemovedStations()).Id);
        using var second = new MemoryStream();
        await Of(empty.Database).Write(second);
        Assert.Equal(first.ToArray(), second.ToArray());
        // An archive in which a file is not what its manifest says is refused whole.
        using var changed = new MemoryStream();
        changed.Write(first.ToArray());
        using (var zip = new System.IO.Compression.ZipArchive(changed, System.IO.Compression.ZipArchiveMode.Update, leaveOpen: true))
        {
            zip.GetEntry("log.csv")!.Delete();
            await using Stream entry = zip.CreateEntry("log.csv").Open();
        }
        await using var third = new Store.Tests.TestDatabase();
        await third.InitializeAsync();
        changed.Position = 0;
        Core.InvalidInputException damaged = await Assert.ThrowsAsync<Core.InvalidInputException>(() =>
            Of(third.Database).Bring(changed, Instant.FromUtc(2026, 11, 24, 8, 0))
        );
        Assert.Contains("damaged", damaged.Message, StringComparison.Ordinal);
        first.Position = 0;
        await Assert.ThrowsAsync<Core.InvalidInputException>(() => Of(empty.Database).Bring(first, Instant.FromUtc(2026, 11, 24, 8, 0)));
    }

    [Fact]
    public async Task Only_the_names_that_the_app_is_served_under_are_answered()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, new Uri("/site", UriKind.Relative)) { Headers = { Host = "elsewhere.example" } };
        using HttpResponseMessage answer = await _browser.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    public async Task What_the_database_refuses_is_not_called_a_database_that_is_away()
    {
        Assert.False(FaultPage.IsAway(new PostgresException("invalid byte sequence", "ERROR", "ERROR", "22021")));
        Assert.False(FaultPage.IsAway(new PostgresException("deadlock detected", "ERROR", "ERROR", "40P01")));
        Assert.True(FaultPage.IsAway(new PostgresException("the database system is shutting down", "FATAL", "FATAL", "57P03")));
        Assert.True(FaultPage.IsAway(new NpgsqlException("Failed to connect")));
        using var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"/jobs/{Guid.NewGuid()}/cancel", UriKind.Relative))
        {
            Content = new FormUrlEncodedContent(await Token()),
        };
        request.Headers.TryAddWithoutValidation("Referer", "http://localhost//elsewhere.example");
        using HttpResponseMessage answer = await _browser.SendAsync(request);
        Assert.Equal("/year", answer.Headers.Location!.ToString());
    }

    private async Task<KeyValuePair<string, string>[]> Token() =>
        [
            KeyValuePair.Create(
                "__RequestVerificationToken",
                (await _browser.Open("/site")).QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value
            ),
        ];

    private static IEnumerable<(string, string)> Fields(IHtmlFormElement form)
    {
        foreach (
            IElement field in form.QuerySelectorAll("input[name], select[name], textarea[name]")
                .Where(f => f.GetAttribute("name") != "__RequestVerificationToken")
        )
        {
            if (field is not (IHtmlInputElement { Type: "file" } or IHtmlInputElement { Type: "radio" or "checkbox", IsChecked: false }))
                yield return (
                    field.GetAttribute("name")!,
                    field switch
                    {
                        IHtmlInputElement i => i.Value,
                        IHtmlSelectElement s => s.Value ?? string.Empty,
                        IHtmlTextAreaElement t => t.Value,
                        _ => string.Empty,
                    }
                );
        }
    }

    private static Everything Of(SiteDatabase database) => MeadowApp.Archive(database);

    private static byte[] Picture()
    {
        using var bitmap = new SkiaSharp.SKBitmap(8, 6);
        using SkiaSharp.SKData data = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Jpeg, 90);
        return data.ToArray();
    }

    private async Task Sql(string sql)
    {
        // As the owner of the tables, about the first site.
        await using NpgsqlConnection connection = await app.Whole.Source.OpenConnectionAsync();
        await using var command = new NpgsqlCommand($"select set_config('meadow.site', '{app.Database.Site}', false); {sql}", connection);
        await command.ExecuteNonQueryAsync();
    }
}
