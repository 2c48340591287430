using System.Net;
using Npgsql;
using UnrulyMeadow.Web.Safekeeping;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Endurance;

/// <summary>What is only looked at is asked of a process over a streaming replica.</summary>
public sealed class ReplicaTests
{
    [Fact]
    public async Task Pages_come_from_the_replica_what_is_sent_goes_to_the_database_and_nobody_misses_their_own_change()
    {
        await using Cluster cluster = await Cluster.Make();
        MeadowApp site = MeadowApp.On(cluster.ConnectionString);
        await site.InitializeAsync(withServer: false);
        using AppProcess app = await AppProcess.Start(site.Whole.ConnectionString);
        await using Cluster replica = await cluster.Replica();
        string database = new NpgsqlConnectionStringBuilder(site.Whole.ConnectionString).Database!;
        string copy = new NpgsqlConnectionStringBuilder(replica.ConnectionString) { Database = database }.ConnectionString;
        using (AppProcess reader = await AppProcess.Start(copy, settings: new Dictionary<string, string> { [ReadingOnly.Setting] = "yes" }))
        {
            await using Proxy proxy = await Proxy.Start([app], [reader]);
            using var cookies = new HttpClientHandler();
            using var browser = new HttpClient(cookies) { BaseAddress = proxy.Address };
            // Through a proxy nobody taps: the session is begun at the app itself, and holds on every port of this machine.
            using (var tapping = new HttpClient(cookies, disposeHandler: false) { BaseAddress = app.Browser.BaseAddress })
                await tapping.TapIn();
            for (int i = 0; i < 5; i++)
            {
                using HttpResponseMessage saved = await browser.Send("/planters/flag-pot/edit", null, ("Input.Note", $"note {i}"));
                Assert.True(saved.IsSuccessStatusCode, $"{(int)saved.StatusCode}");
                await browser.Says("/planters/flag-pot", $"note {i}");
            }
            // Once the mark is gone, the replica answers, and knows by now.
            Forget(cookies, proxy.Address);
            await Task.Delay(1000);
            foreach (
                string page in new[]
                {
                    "/year",
                    "/planters/flag-pot",
                    "/daysheet",
                    "/palette",
                    "/supply",
                    "/grounds",
                    "/log",
                    "/changes",
                    "/sites",
                    "/me",
                }
            )
            {
                using HttpResponseMessage answer = await browser.GetAsync(new Uri(page, UriKind.Relative));
                Assert.True(answer.IsSuccessStatusCode, $"{page}: {(int)answer.StatusCode}");
            }
            await browser.Says("/planters/flag-pot", "note 4");
            // What reaches the reader all the same is refused whole.
            using HttpResponseMessage refused = await reader.Browser.PostAsync(new Uri("/log", UriKind.Relative), new FormUrlEncodedContent([]));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, refused.StatusCode);
            Assert.Contains("Nothing can be saved at the moment", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            // The database itself is away. What is only looked at is still answered.
            await cluster.Stop();
            using HttpResponseMessage still = await browser.GetAsync(new Uri("/year", UriKind.Relative));
            Assert.True(still.IsSuccessStatusCode, $"{(int)still.StatusCode}");
            await cluster.Start();
        }
        NpgsqlConnection.ClearAllPools();
        site.Whole.Source.Clear();
        await site.DisposeAsync();
    }

    private static void Forget(HttpClientHandler cookies, Uri at)
    {
        foreach (Cookie cookie in cookies.CookieContainer.GetCookies(at).Where(c => c.Name == ReadingOnly.Cookie))
            cookie.Expired = true;
    }
}
