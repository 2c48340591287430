using System.Collections.Concurrent;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Hostile;

/// <summary>
/// The app is killed while people write: what was said to be saved is there, once, and nothing else changed by halves. HOSTILE_MINUTES
/// sets how often.
/// </summary>
public sealed class Kills : IAsyncLifetime
{
    private readonly MeadowApp _site = new();

    public ValueTask InitializeAsync() => _site.InitializeAsync(withServer: false);

    public ValueTask DisposeAsync() => _site.DisposeAsync();

    [Fact]
    public async Task What_was_acknowledged_outlives_every_kill()
    {
        int kills = Attacker.Minutes is null ? 2 : 30;
        var logged = new ConcurrentBag<Guid>();
        var notes = new ConcurrentDictionary<string, string>(StringComparer.Ordinal);
        string[] planters = ["great-pot", "flag-pot", "kiosk-basket"];
        for (int k = 0; k < kills; k++)
        {
            using AppProcess app = await AppProcess.Start(_site.Database.ConnectionString);
            using var over = new CancellationTokenSource();
            Task[] writers =
            [
                .. Enumerable
                    .Range(0, 2)
                    .Select(w =>
                        Writing(
                            app,
                            async (browser, i) =>
                            {
                                Guid id = Guid.NewGuid();
                                await Send(
                                    browser,
                                    "/log",
                                    string.Empty,
                                    [
                                        ["EntryId", $"{id}"],
                                        ["planter", planters[w]],
                                        ["Day", "2026-11-01"],
                                        ["Kind", "Note"],
                                        ["Note", $"{k} {w} {i}"],
                                        ["By", "Rosa"],
                                    ]
                                );
                                logged.Add(id);
                            },
                            over.Token
                        )
                    ),
                .. planters.Select(p =>
                    Writing(
                        app,
                        async (browser, i) =>
                        {
                            string note = $"{k} {i}";
                            notes[p + " tried"] = note;
                            await Send(
                                browser,
                                $"/planters/{p}/edit",
                                string.Empty,
                                [
                                    ["Input.Note", note],
                                ]
                            );
                            notes[p] = note;
                        },
                        over.Token
                    )
                ),
            ];
            // Killed while all are writing, at no special moment.
            int before = logged.Count;
            for (
                int waited = 0;
                (logged.Count < before + 8 || !planters.All(p => notes.GetValueOrDefault(p)?.StartsWith($"{k} ", StringComparison.Ordinal) == true))
                    && waited < 600;
                waited++
            )
                await Task.Delay(100);
            await Task.Delay(TimeSpan.FromMilliseconds(70 * (k % 9)));
            await app.Kill();
            await over.CancelAsync();
            await Task.WhenAll(writers);
        }
        var stored = new List<Guid>();
        await foreach (Observation seen in new LogStore(_site.Database).All())
            stored.Add(seen.Id);
        Assert.True(logged.Count > kills * 5, $"only {logged.Count} entries were acknowledged");
        Assert.Empty(logged.Except(stored));
        Assert.Equal(stored.Count, stored.Distinct().Count());
        LoadedPlan now = await new PlanStore(_site.Database, PlanFile.Stored).Now();
        Assert.Empty(now.Aside);
        // The last note acknowledged, or the one that was on its way when the app was killed.
        foreach (string p in planters)
            Assert.Contains(now.Plan.FindPlanter(p)!.Note, new[] { notes[p], notes[p + " tried"] });
        TestContext.Current.TestOutputHelper?.WriteLine($"{kills} kills: {logged.Count} entries acknowledged, none lost, none twice");
    }

    private static Task Writing(AppProcess app, Func<HttpClient, int, Task> write, CancellationToken over) =>
        Task.Run(
            async () =>
            {
                using var browser = new HttpClient { BaseAddress = app.Browser.BaseAddress };
                for (int i = 0; !over.IsCancellationRequested; i++)
                {
                    try
                    {
                        await write(browser, i);
                    }
                    catch (Exception e) when (e is HttpRequestException or IOException or TaskCanceledException)
                    {
                        // Killed midway: not acknowledged.
                        return;
                    }
                }
            },
            CancellationToken.None
        );

    private static async Task Send(HttpClient browser, string page, string query, string[][] fields)
    {
        string body = await browser.GetStringAsync(new Uri(page, UriKind.Relative));
        Operation form = (await Attacker.Forms(page, body)).First(f => f.Fields!.Any(x => x[0] == fields[0][0]));
        List<string[]> all = [.. form.Fields!.Where(f => fields.All(x => x[0] != f[0])), .. fields];
        using var content = new FormUrlEncodedContent(all.Select(f => KeyValuePair.Create(f[0], f[1])));
        using HttpResponseMessage answer = await browser.PostAsync(new Uri(form.Path + query, UriKind.Relative), content);
        // A saved form leads on to another page; one that was refused is shown again.
        if (!answer.IsSuccessStatusCode || answer.RequestMessage!.Method == HttpMethod.Post)
            throw new HttpRequestException($"{(int)answer.StatusCode}");
    }
}
