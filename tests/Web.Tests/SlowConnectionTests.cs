using System.Net.Sockets;
using System.Text;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Connections that send a letter now and then, as a bad line or a bad neighbour does.</summary>
public sealed class SlowConnectionTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const int Slow = 200;

    [Fact]
    public async Task Two_hundred_slow_connections_keep_nobody_from_their_pages()
    {
        using AppProcess process = await AppProcess.Start(app.Whole.ConnectionString, works: false);
        Uri at = process.Browser.BaseAddress!;
        (await process.Browser.GetAsync(new Uri("/year", UriKind.Relative))).Dispose();
        using var over = new CancellationTokenSource();
        var lines = new List<TcpClient>();
        for (int i = 0; i < Slow; i++)
        {
            var line = new TcpClient();
            await line.ConnectAsync(at.Host, at.Port, TestContext.Current.CancellationToken);
            lines.Add(line);
            // Half of them never end their heading, the others never end what they send.
            string begun =
                i % 2 == 0
                    ? "GET /year HTTP/1.1\r\nHost: localhost\r\nX-Slow: "
                    : "POST /signin HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 100000\r\n\r\n";
            await line.GetStream().WriteAsync(Encoding.ASCII.GetBytes(begun), TestContext.Current.CancellationToken);
        }
        Task trickling = Task.WhenAll(lines.Select(l => Trickle(l, over.Token)));
        for (int i = 0; i < 8; i++)
        {
            using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(15));
            foreach (string page in new[] { "/year", "/planters/flag-pot", "/log" })
            {
                using HttpResponseMessage answer = await process.Browser.GetAsync(new Uri(page, UriKind.Relative), patience.Token);
                Assert.True(answer.IsSuccessStatusCode, $"{page}: {(int)answer.StatusCode}");
            }
        }
        await over.CancelAsync();
        await trickling;
        lines.ForEach(l => l.Dispose());
    }

    private static async Task Trickle(TcpClient line, CancellationToken over)
    {
        try
        {
            while (!over.IsCancellationRequested)
            {
                await line.GetStream().WriteAsync("a"u8.ToArray(), over);
                await Task.Delay(500, over);
            }
        }
        catch (Exception e) when (e is IOException or OperationCanceledException or ObjectDisposedException)
        {
            // The server has had enough of it, or the test is over.
        }
    }
}
