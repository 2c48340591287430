using System.Net;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Endurance;

/// <summary>What a machine does to the app: pages say so, writes are refused whole, and work goes on by itself once it is over.</summary>
public sealed class TroubleTests
{
    private static readonly TimeSpan Away = Environment.GetEnvironmentVariable("ENDURE_MINUTES") is null
        ? TimeSpan.FromSeconds(3)
        : TimeSpan.FromMinutes(5);

    [Fact]
    public async Task On_a_full_disk_pages_are_read_and_what_is_sent_is_refused_with_the_reason_until_there_is_room()
    {
        await using Cluster cluster = await Cluster.Make(megabytes: 400);
        await Trying(
            cluster,
            async () =>
            {
                // Nothing is left of the disk but what PostgreSQL holds already.
                await using FileStream fill = File.Create(Path.Combine(cluster.Data, "fill"));
                byte[] block = new byte[1 << 16];
                try
                {
                    while (true)
                        await fill.WriteAsync(block);
                }
                catch (IOException)
                {
                    await fill.FlushAsync(CancellationToken.None).ContinueWith(_ => { }, TaskScheduler.Default);
                }
            },
            () =>
            {
                File.Delete(Path.Combine(cluster.Data, "fill"));
                return Task.CompletedTask;
            },
            "The disk of the database is full"
        );
    }

    [Fact]
    public async Task A_database_that_can_only_be_read_is_read_and_takes_nothing_until_it_can_be_written_again()
    {
        await using Cluster cluster = await Cluster.Make();
        await Trying(cluster, () => ReadOnly("on"), () => ReadOnly("off"), "The database can only be read at the moment");

        async Task ReadOnly(string state)
        {
            await cluster.Do($"alter system set default_transaction_read_only = {state}");
            await cluster.Do("select pg_reload_conf()");
        }
    }

    [Fact]
    public async Task While_the_database_is_away_pages_say_so_and_afterwards_everything_goes_on_by_itself()
    {
        await using Cluster cluster = await Cluster.Make();
        MeadowApp site = MeadowApp.On(cluster.ConnectionString);
        await site.InitializeAsync(withServer: false);
        using (AppProcess app = await AppProcess.Start(site.Whole.ConnectionString))
        {
            Assert.True(await Logged(app, Guid.NewGuid()));
            await cluster.Stop();
            for (long until = Environment.TickCount64 + (long)Away.TotalMilliseconds; Environment.TickCount64 < until; )
            {
                foreach (string page in new[] { "/year", "/planters/flag-pot/edit", "/log" })
                {
                    using HttpResponseMessage answer = await app.Browser.GetAsync(new Uri(page, UriKind.Relative));
                    Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
                    Assert.Contains("The database does not answer", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
                }
                await Task.Delay(500);
            }
            await cluster.Start();
            await Works(app);
        }
        await site.DisposeAsync();
    }

    [Fact]
    public async Task When_the_clock_of_the_database_jumps_sessions_last_what_is_sent_is_recorded_once_and_long_work_is_done()
    {
        string clock = Path.Combine(Path.GetTempPath(), $"meadow-clock-{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(clock, "+0");
        await using Cluster cluster = await Cluster.Make(clock: clock);
        MeadowApp site = MeadowApp.On(cluster.ConnectionString);
        await site.InitializeAsync(withServer: false);
        using (AppProcess app = await AppProcess.Start(site.Whole.ConnectionString))
        {
            foreach (string jump in new[] { "+0", "+3h", "-2h", "+2d", "+0" })
            {
                await File.WriteAllTextAsync(clock, jump);
                await Works(app);
            }
            await using Npgsql.NpgsqlConnection connection = await site.Whole.Open();
            await File.WriteAllTextAsync(clock, "+2d");
            await using var asked = new Npgsql.NpgsqlCommand("select extract(epoch from clock_timestamp())::bigint", connection);
            long ahead = (long)(await asked.ExecuteScalarAsync())! - DateTimeOffset.UtcNow.ToUnixTimeSeconds();
            Assert.InRange(ahead, 2 * 86_400 - 60, 2 * 86_400 + 60);
        }
        await Stored(site.Database);
        await site.DisposeAsync();
        File.Delete(clock);
    }

    private static async Task Trying(Cluster cluster, Func<Task> begin, Func<Task> end, string reason)
    {
        MeadowApp site = MeadowApp.On(cluster.ConnectionString);
        await site.InitializeAsync(withServer: false);
        var recorded = new List<Guid>();
        var refused = new List<Guid>();
        using (AppProcess app = await AppProcess.Start(site.Whole.ConnectionString))
        {
            Guid id = Guid.NewGuid();
            Assert.True(await Logged(app, id));
            recorded.Add(id);
            await begin();
            // Room that PostgreSQL still holds is used up first.
            for (int tries = 0; refused.Count < 3; tries++)
            {
                Assert.True(tries < 3000, "nothing was refused");
                id = Guid.NewGuid();
                using HttpResponseMessage answer = await Send(app, id);
                if (IsSaved(answer))
                {
                    recorded.Add(id);
                    continue;
                }
                refused.Add(id);
                Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
                Assert.Contains(reason, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            }
            foreach (string page in new[] { "/year", "/planters/flag-pot", "/daysheet", "/log", "/palette" })
            {
                using HttpResponseMessage answer = await app.Browser.GetAsync(new Uri(page, UriKind.Relative));
                Assert.True(answer.IsSuccessStatusCode, $"{page}: {(int)answer.StatusCode}");
            }
            await end();
            await Works(app);
        }
        List<Guid> stored = await Stored(site.Database);
        Assert.Empty(recorded.Except(stored));
        Assert.Empty(refused.Intersect(stored));
        await site.DisposeAsync();
    }

    // Entries are recorded, each once, and what is asked for is worked out.
    private static async Task Works(AppProcess app)
    {
        Guid id = Guid.NewGuid();
        for (int tries = 0; !await Logged(app, id); tries++)
        {
            Assert.True(tries < 100, "the app does not come back by itself");
            await Task.Delay(200);
        }
        string kind = new[] { "LateSpring", "HalfCrew" }[Random.Shared.Next(2)];
        using HttpResponseMessage asked = await app.Browser.Ask($"/year/rehearse?kind={kind}");
        Assert.True(asked.IsSuccessStatusCode, $"rehearse: {(int)asked.StatusCode}");
        await app.Browser.Settled($"/year/rehearse?kind={kind}");
    }

    private static async Task<bool> Logged(AppProcess app, Guid id)
    {
        try
        {
            using HttpResponseMessage answer = await Send(app, id);
            return IsSaved(answer);
        }
        catch (Xunit.Sdk.XunitException)
        {
            return false;
        }
    }

    private static Task<HttpResponseMessage> Send(AppProcess app, Guid id) =>
        app.Browser.Send(
            "/log",
            null,
            ("EntryId", $"{id}"),
            ("planter", "great-pot"),
            ("Day", "2026-11-01"),
            ("Kind", "Note"),
            ("Note", new string('n', 300))
        );

    private static bool IsSaved(HttpResponseMessage answer) => answer.IsSuccessStatusCode && answer.RequestMessage!.Method == HttpMethod.Get;

    private static async Task<List<Guid>> Stored(SiteDatabase site)
    {
        var stored = new List<Guid>();
        await foreach (Observation seen in new LogStore(site).All())
            stored.Add(seen.Id);
        Assert.Equal(stored.Count, stored.Distinct().Count());
        return stored;
    }
}
