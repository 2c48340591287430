using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Work is given, told from a phone and done; the pages agree with the plan and the stock to the last plant.</summary>
public sealed class CrewPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private static int s_entries;

    private readonly HttpClient _planner = app.Browser(SiteRole.Planner);
    private readonly HttpClient _crew = app.Browser(SiteRole.Crew);

    private PlanStore Plans => new(app.Database, PlanFile.Stored);

    private CrewStore Store => new(app.Database, Plans, PlanFile.Stored);

    [Fact]
    public async Task Work_says_what_of_a_task_has_not_come_yet()
    {
        Assert.Contains(
            "to come: 20 Tulip, late dark (order 2)",
            (await app.Browser(SiteRole.Lead).Open("/work?day=2027-02-08")).Words(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_bed_told_short_is_in_the_plan_by_evening_and_what_is_sent_twice_counts_once()
    {
        (LocalDate day, GivenTask given, TaskLine line) = await Give();
        IDocument sheet = await _crew.Open($"/today?day={Iso(day)}");
        IElement stop = sheet.QuerySelector($"[data-given='{given.Id}']")!;
        Assert.Equal(given.Asked.Mark, stop.GetAttribute("data-mark"));
        Assert.Contains(given.Asked.Place, stop.TextContent, StringComparison.Ordinal);
        // Another of the crew has nothing to do with it unless it is given to them.
        Assert.Null((await _planner.Open($"/today?day={Iso(day)}")).QuerySelector($"[data-given='{given.Id}']"));

        int planned = (await Plans.Load()).Displays.Single(d => d.Id == line.DisplayId).Items.First(i => i.PlantId == line.PlantId).Count;
        object first = Entry(
            given,
            day,
            [
                new
                {
                    line = line.Number,
                    done = line.Count - 1,
                    @short = "Missing",
                },
            ]
        );
        object rest = Entry(
            given,
            day,
            [.. given.Asked.Lines.Where(l => l.Number != line.Number).Select(l => new { line = l.Number, done = l.Count })],
            45
        );
        foreach (object[] sent in new[] { new[] { rest }, [first, rest], [first] })
            Assert.All(await Tell(sheet, sent), a => Assert.Null(a.Why));
        KeptTask kept = (await Store.Find(given.Id))!;
        Assert.Equal(2, kept.Account.Entries.Count);
        Assert.Equal(TaskState.Done, kept.Account.State);
        Plan after = await Plans.Load();
        Display display = after.Displays.Single(d => d.Id == line.DisplayId);
        Assert.Equal(planned - 1, display.Items.First(i => i.PlantId == line.PlantId).Count);
        Assert.Equal(line.Count - 1, after.Records.CountOf(line.DisplayId!, line.PlantId!));
        Assert.True(after.Records.Labour.Rates.Sum(r => r.Times) > 0);
        Assert.Contains("of your own", (await _crew.Open("/work/labour")).Words(), StringComparison.Ordinal);

        // One more was there after all, and then not: what was made of it is taken back, and what is told last is followed.
        foreach (int count in new[] { line.Count, line.Count - 1 })
        {
            Assert.All(
                await Tell(
                    sheet,
                    Entry(
                        given,
                        day,
                        [
                            new
                            {
                                line = line.Number,
                                done = count,
                                @short = "Missing",
                            },
                        ]
                    )
                ),
                a => Assert.Null(a.Why)
            );
            Plan mended = await Plans.Load();
            Assert.Equal(
                planned - line.Count + count,
                mended.Displays.Single(d => d.Id == line.DisplayId).Items.First(i => i.PlantId == line.PlantId).Count
            );
            Assert.Equal(count, mended.Records.CountOf(line.DisplayId!, line.PlantId!));
        }
        kept = (await Store.Find(given.Id))!;
        Assert.Null(kept.Refused);

        // The planner sees what fell short, and wants it after all.
        IDocument work = await _planner.Open($"/work?day={Iso(day)}");
        Assert.Contains($"{line.Count - 1} of {line.Count}", work.Words(), StringComparison.Ordinal);
        using (
            HttpResponseMessage wanted = await _planner.PostFrom(
                $"/work?day={Iso(day)}",
                $"/work?day={Iso(day)}&handler=rest",
                [("given[]", $"{given.Id}|{kept.Version}")]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, wanted.StatusCode);
        Plan again = await Plans.Load();
        CrewTask left = CrewTasks.Between(again, [], day, day).Single(t => t.PlanterId == given.Asked.PlanterId);
        Assert.Equal(1, left.Lines.Where(l => l.Kind == LineKind.In).Sum(l => l.Count));
        Assert.Contains(given.Asked.Place, (await _planner.Open($"/work?day={Iso(day)}")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_refused_entry_says_why_and_harms_no_other_and_five_hundred_in_any_order_are_taken_once()
    {
        (LocalDate day, GivenTask given, TaskLine line) = await Give();
        IDocument sheet = await _crew.Open($"/today?day={Iso(day)}");
        object good = Entry(given, day, [new { line = line.Number, done = 1 }]);
        List<(string Id, string? Why)> answers = await Tell(
            sheet,
            good,
            new
            {
                id = "no identity",
                given = given.Id,
                day = Iso(day),
            },
            new
            {
                id = Guid.CreateVersion7(),
                given = Guid.NewGuid(),
                day = Iso(day),
                mark = given.Asked.Mark,
                lines = Array.Empty<object>(),
            },
            Entry(given, day, [new { line = 99, done = 1 }]),
            Entry(given, day, [new { line = line.Number, done = -4 }]),
            Entry(
                given,
                day,
                [
                    new
                    {
                        line = line.Number,
                        done = 1,
                        cameAs = "no-such-kind",
                    },
                ]
            )
        );
        Assert.Equal(6, answers.Count);
        Assert.Equal(1, answers.Count(a => a.Why is null));
        Assert.Contains(answers, a => a.Why == "that line is not on the sheet: open the sheet again");
        // In the language of who holds the phone.
        using (
            HttpResponseMessage spanish = await Post(
                sheet,
                JsonSerializer.Serialize(new { entries = new[] { Entry(given, day, [new { line = 99, done = 1 }]) } }),
                "es"
            )
        )
            Assert.Contains("esa l", await spanish.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Single((await Store.Find(given.Id))!.Account.Entries);

        List<object> many =
        [
            .. Enumerable.Range(0, 500).Select(i => Entry(given, day, [new { line = line.Number, done = i % Math.Max(1, line.Count) }])),
        ];
        int last = 499 % Math.Max(1, line.Count);
        object[] shuffled = [.. many.Concat(many.Take(100))];
        new Random(7).Shuffle(shuffled);
        Assert.All(await Tell(sheet, shuffled), a => Assert.Null(a.Why));
        TaskAccount account = (await Store.Find(given.Id))!.Account;
        Assert.Equal(501, account.Entries.Count);
        Assert.Equal(last, account.Lines.Single(l => l.Line.Number == line.Number).Done);

        // What is no sheet's is refused as a whole, in words.
        using HttpResponseMessage nonsense = await Post(sheet, "{\"entries\": 7}");
        Assert.Equal(HttpStatusCode.BadRequest, nonsense.StatusCode);
        using var content = new StringContent(JsonSerializer.Serialize(new { entries = many }), Encoding.UTF8, "application/json");
        using HttpResponseMessage forged = await _crew.PostAsync(new Uri("/today?handler=tell", UriKind.Relative), content);
        Assert.Equal(HttpStatusCode.BadRequest, forged.StatusCode);
    }

    [Fact]
    public async Task A_tick_for_a_task_taken_back_is_kept_as_told_and_changes_nothing_and_work_moves_in_two_taps_when_it_rains()
    {
        (LocalDate day, GivenTask given, TaskLine line) = await Give();
        IDocument sheet = await _crew.Open($"/today?day={Iso(day)}");
        long version = (await Store.Find(given.Id))!.Version;
        string here = $"/work?day={Iso(day)}";
        using (HttpResponseMessage rain = await _planner.Send(here, "handler=rain"))
            Assert.Equal(HttpStatusCode.Redirect, rain.StatusCode);
        Assert.Equal(day.PlusDays(1), (await Store.Find(given.Id))!.Given.Day);
        // Whoever has the page of before open is told.
        using (HttpResponseMessage late = await _planner.PostFrom(here, $"{here}&handler=withdraw", [("given[]", $"{given.Id}|{version}")]))
            Assert.Contains("someone else", (await Pages.Parse(late)).Words(), StringComparison.Ordinal);
        version = (await Store.Find(given.Id))!.Version;
        string next = $"/work?day={Iso(day.PlusDays(1))}";
        using (HttpResponseMessage back = await _planner.PostFrom(next, $"{next}&handler=withdraw", [("given[]", $"{given.Id}|{version}")]))
            Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        long revision = (await Plans.Mark()).Revision;
        Assert.All(await Tell(sheet, Entry(given, day, [.. given.Asked.Lines.Select(l => new { line = l.Number, done = l.Count })])), a =>
            Assert.Null(a.Why)
        );
        KeptTask kept = (await Store.Find(given.Id))!;
        Assert.Equal(TaskState.Withdrawn, kept.Account.State);
        Assert.Single(kept.Account.Entries);
        Assert.Equal(0, (await Plans.Load()).Records.CountOf(line.DisplayId!, line.PlantId!));
        Assert.True((await Plans.Mark()).Revision >= revision);
    }

    [Fact]
    public async Task A_photograph_queues_too_and_what_is_no_picture_says_so()
    {
        (LocalDate day, GivenTask given, _) = await Give();
        IDocument sheet = await _crew.Open($"/today?day={Iso(day)}");
        var id = Guid.CreateVersion7();
        Assert.Contains("JPEG", await Picture("no picture"u8.ToArray()), StringComparison.Ordinal);
        using var bitmap = new SkiaSharp.SKBitmap(8, 6);
        using SkiaSharp.SKData jpeg = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Jpeg, 90);
        for (int times = 0; times < 2; times++)
            Assert.Contains("\"why\":null", await Picture(jpeg.ToArray()), StringComparison.Ordinal);
        Assert.Equal([id], (await Store.Find(given.Id))!.Photographs);
        using HttpResponseMessage shown = await _crew.GetAsync(new Uri($"/today?handler=photo&id={id}&small=true", UriKind.Relative));
        Assert.Equal("image/jpeg", shown.Content.Headers.ContentType!.MediaType);

        async Task<string> Picture(byte[] bytes)
        {
            using var form = new MultipartFormDataContent
            {
                { new StringContent(id.ToString()), "id" },
                { new StringContent(given.Id.ToString()), "given" },
                { new ByteArrayContent(bytes), "photograph", "photograph.jpg" },
            };
            using var request = new HttpRequestMessage(HttpMethod.Post, "/today?handler=photo") { Content = form };
            request.Headers.Add("RequestVerificationToken", Token(sheet));
            using HttpResponseMessage answer = await _crew.SendAsync(request);
            return await answer.Content.ReadAsStringAsync();
        }
    }

    [Fact]
    public async Task Other_work_is_written_down_and_given_and_what_is_wrong_keeps_what_was_typed()
    {
        using (
            HttpResponseMessage nothing = await _planner.Send(
                "/work?day=2026-12-01",
                "handler=write",
                ("Kind", "Other"),
                ("Minutes", "-5"),
                ("Note", "")
            )
        )
        {
            IDocument page = await Pages.Parse(nothing);
            Assert.Contains("whole number", page.Words(), StringComparison.Ordinal);
            Assert.Equal("-5", page.QuerySelector<IHtmlInputElement>("[name=Minutes]")!.Value);
        }
        Guid crew = await CrewMember();
        using (
            HttpResponseMessage written = await _planner.Send(
                "/work?day=2026-12-01",
                "handler=write",
                ("Kind", "Scout"),
                ("Minutes", "30"),
                ("Note", "look under the leaves"),
                ("to[]", crew.ToString())
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, written.StatusCode);
        Assert.Contains("look under the leaves", (await _crew.Open("/today?day=2026-12-01")).Words(), StringComparison.Ordinal);
        Assert.Contains("buscar plagas", (await Spanish("/today?day=2026-12-01")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task All_that_was_given_and_told_stands_in_the_file_of_everything_and_comes_back_the_same()
    {
        (LocalDate day, GivenTask given, _) = await Give();
        IDocument sheet = await _crew.Open($"/today?day={Iso(day)}");
        await Tell(sheet, Entry(given, day, [.. given.Asked.Lines.Select(l => new { line = l.Number, done = l.Count })], 30));
        byte[] written = Exchange.Crew.CrewFile.Write(await Store.All());
        await using var other = new Store.Tests.TestDatabase();
        await other.InitializeAsync();
        var plans = new PlanStore(other.Database, PlanFile.Stored);
        await plans.Replace(await Plans.Load());
        var there = new CrewStore(other.Database, plans, PlanFile.Stored);
        using (var stream = new MemoryStream(written))
            await there.Bring(Exchange.Crew.CrewFile.Read(stream));
        Assert.Equal(Encoding.UTF8.GetString(written), Encoding.UTF8.GetString(Exchange.Crew.CrewFile.Write(await there.All())));
        Assert.Equal((await Plans.Load()).Records.Plantings.Count, (await plans.Load()).Records.Plantings.Count);
    }

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    private static object Entry(GivenTask given, LocalDate day, IReadOnlyList<object> lines, int? minutes = null) =>
        new
        {
            // A phone's identities grow with every entry, however quickly it makes them.
            id = Guid.CreateVersion7(DateTimeOffset.UnixEpoch.AddDays(20_000).AddMilliseconds(Interlocked.Increment(ref s_entries))),
            given = given.Id,
            day = Iso(day),
            mark = given.Asked.Mark,
            lines,
            minutes,
        };

    private static string Token(IDocument page) =>
        page.QuerySelector<IHtmlInputElement>("[data-crew-day] input[name=__RequestVerificationToken]")!.Value;

    private async Task<List<(string Id, string? Why)>> Tell(IDocument sheet, params object[] entries)
    {
        using HttpResponseMessage answer = await Post(sheet, JsonSerializer.Serialize(new { entries }));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        using JsonDocument json = JsonDocument.Parse(await answer.Content.ReadAsStringAsync());
        return
        [
            .. json
                .RootElement.GetProperty("answers")
                .EnumerateArray()
                .Select(a => (a.GetProperty("id").GetString()!, a.GetProperty("why").GetString())),
        ];
    }

    private async Task<HttpResponseMessage> Post(IDocument sheet, string body, string language = "en")
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/today?handler=tell");
        request.Headers.AcceptLanguage.ParseAdd(language);
        request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        request.Headers.Add("RequestVerificationToken", Token(sheet));
        return await _crew.SendAsync(request);
    }

    private async Task<IDocument> Spanish(string path)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, path);
        request.Headers.AcceptLanguage.ParseAdd("es");
        using HttpResponseMessage answer = await _crew.SendAsync(request);
        return await Pages.Parse(answer);
    }

    private async Task<Guid> CrewMember() => (await new PeopleStore(app.Whole).Of(app.Database.Site)).First(m => m.Role == SiteRole.Crew).Id;

    // A planter of the summer turn, given to a crew member through the page.
    private async Task<(LocalDate Day, GivenTask Given, TaskLine Line)> Give()
    {
        Plan plan = await Plans.Load();
        Turn summer = plan.Turns.First(t => t.Id == "summer-2027");
        HashSet<string> given = [.. (await Store.Between(summer.FirstDay, summer.LastDay.PlusDays(1))).Select(k => k.Given.Asked.Id)];
        CrewTask task = CrewTasks
            .Between(plan, [], summer.FirstDay, summer.LastDay)
            .Where(t => t.Lines.Any(l => l.Kind == LineKind.In && l.Count > 3))
            .OrderBy(t => t.Id, StringComparer.Ordinal)
            .First(t => !given.Contains(t.Id));
        LocalDate day = task.Window.Best;
        Guid crew = await CrewMember();
        using HttpResponseMessage done = await _planner.PostFrom(
            $"/work?day={Iso(day)}",
            $"/work?day={Iso(day)}&handler=give",
            [("tasks[]", task.Id), ("to[]", crew.ToString()), ("On", Iso(day))]
        );
        Assert.Equal(HttpStatusCode.Redirect, done.StatusCode);
        GivenTask kept = (await Store.Between(day, day)).Select(k => k.Given).Single(g => g.Asked.Id == task.Id);
        return (day, kept, kept.Asked.Lines.First(l => l.Kind == LineKind.In && l.Count > 3));
    }
}
