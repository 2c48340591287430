using System.Diagnostics;
using System.Net;
using NodaTime;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Two web processes and a worker on one database, behind a proxy that asks them in turn.</summary>
public sealed class BehindProxyTests : IAsyncLifetime
{
    private const string Password = "meadow rain 47";

    private readonly MeadowApp _site = new();

    public ValueTask InitializeAsync() => _site.InitializeAsync(withServer: false);

    public ValueTask DisposeAsync() => _site.DisposeAsync();

    [Fact]
    public async Task People_work_on_through_whichever_process_is_asked_and_when_one_is_killed()
    {
        // A worker does the work of every site, and is told of none.
        await _site.Whole.AddSite("Sorrel Park", "sorrel-park");
        using AppProcess one = await AppProcess.Start(_site.Whole.ConnectionString, works: false);
        using AppProcess other = await AppProcess.Start(_site.Whole.ConnectionString, works: false);
        using Process worker = AppProcess.Errand(_site.Whole.ConnectionString, "work");
        try
        {
            await using Proxy proxy = await Proxy.Start([one, other]);
            using var browser = new HttpClient { BaseAddress = proxy.Address };
            // Through a proxy nobody taps.
            Assert.DoesNotContain("class=\"tap\"", await browser.GetStringAsync(new Uri("/signin", UriKind.Relative)), StringComparison.Ordinal);
            string code = await new PassStore(_site.Whole).Make(
                new Pass(
                    PassKind.Invitation,
                    _site.Database.Site,
                    null,
                    SiteRole.Planner,
                    null,
                    SystemClock.Instance.GetCurrentInstant() + Duration.FromHours(1)
                )
            );
            // The form comes from one process and is taken by the other, and so is the session.
            using HttpResponseMessage joined = await browser.Send(
                $"/join/{code}",
                null,
                ("Account.Name", "Somebody far away"),
                ("Account.SignIn", "far"),
                ("Account.Password", Password)
            );
            Assert.True(joined.IsSuccessStatusCode, $"{(int)joined.StatusCode}");
            for (int i = 0; i < 6; i++)
            {
                using HttpResponseMessage saved = await browser.Send("/planters/flag-pot/edit", null, ("Input.Note", $"note {i}"));
                Assert.True(saved.IsSuccessStatusCode);
                await browser.Says("/planters/flag-pot", $"note {i}");
            }
            // Long work is done elsewhere and is there for both.
            await browser.Ask("/year/rehearse?kind=LateSpring");
            await browser.Settled("/year/rehearse?kind=LateSpring");
            await one.Kill();
            for (int i = 0; i < 6; i++)
                await browser.Says("/planters/flag-pot", "note 5");
            LoadedPlan now = await new PlanStore(_site.Database, Exchange.PlanFiles.PlanFile.Stored).Now();
            Assert.Equal("note 5", now.Plan.FindPlanter("flag-pot")!.Note);
        }
        finally
        {
            worker.Kill();
            await worker.WaitForExitAsync(CancellationToken.None);
        }
    }

    [Fact]
    public async Task Where_the_proxy_ends_tls_the_session_goes_over_tls_alone()
    {
        using AppProcess app = await AppProcess.Start(_site.Whole.ConnectionString);
        using var request = new HttpRequestMessage(HttpMethod.Get, new Uri(app.Browser.BaseAddress!, "/signin"));
        request.Headers.Add("X-Forwarded-Proto", "https");
        using var stranger = new HttpClient();
        using HttpResponseMessage page = await stranger.SendAsync(request);
        Assert.Contains(page.Headers.GetValues("Set-Cookie"), c => c.Contains("secure", StringComparison.OrdinalIgnoreCase));
    }
}
