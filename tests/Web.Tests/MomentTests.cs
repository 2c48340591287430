using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What a request looks at while others save: one state from its beginning to its end, and never older than what its own person saved.</summary>
public sealed class MomentTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly SiteState _state = app.Services.GetRequiredService<SiteRegistry>().Of(app.Database.Site).State;

    [Fact]
    public async Task Those_who_only_look_share_a_state_while_one_of_them_looks_and_whoever_saved_sees_what_was_saved()
    {
        SiteNow before = await _state.Now();
        using var looking = new Looking(app.Services, _state);
        Task<SiteNow> first = looking.Begin();
        Assert.Same(before, await looking.Seen());
        await Save("Save once");
        Assert.Same(before, await looking.Whole());
        SiteNow saved = await looking.Whole("meadow_wrote=1");
        Assert.True(saved.Mark.Revision > before.Mark.Revision);
        // Who began before looks on at what they began with.
        looking.End();
        Assert.Same(before, await first);
        await Save("Save twice");
        Assert.True((await looking.Whole()).Mark.Revision > saved.Mark.Revision);
    }

    [Fact]
    public async Task A_browser_that_saves_is_marked_for_its_next_questions_and_one_that_looks_is_not()
    {
        using HttpClient browser = app.Browser();
        using HttpResponseMessage saved = await browser.Send("/planters/tea-trough/edit", null, ("Input.Note", "beside the gate"));
        Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        Assert.Contains(saved.Headers.GetValues("Set-Cookie"), c => c.StartsWith("meadow_wrote=", StringComparison.Ordinal));
        using HttpResponseMessage looked = await browser.GetAsync(new Uri("/planters/tea-trough", UriKind.Relative));
        Assert.DoesNotContain(looked.Headers.TryGetValues("Set-Cookie", out IEnumerable<string>? set) ? set : [], c =>
            c.StartsWith("meadow_wrote=", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task Many_who_save_at_once_over_few_connections_are_all_answered()
    {
        using AppProcess process = await AppProcess.Start($"{app.Whole.ConnectionString};Maximum Pool Size=3", works: false);
        string[] planters = [.. (await _state.Now()).Plan.Planters.Select(p => p.Id).Take(20)];
        HttpStatusCode[] answers = await Task.WhenAll(
                planters.Select(async id =>
                {
                    using HttpResponseMessage answer = await process.Browser.Send(
                        $"/planters/{id}/edit",
                        null,
                        ("Input.Note", "with all the others")
                    );
                    return answer.StatusCode;
                })
            )
            .WaitAsync(TimeSpan.FromMinutes(2), TestContext.Current.CancellationToken);
        Assert.All(answers, a => Assert.Equal(HttpStatusCode.OK, a));
        IReadOnlyList<Core.Planters.Planter> kept = (await new PlanStore(app.Database, PlanFile.Stored).Now()).Plan.Planters;
        Assert.All(planters, id => Assert.Equal("with all the others", kept.Single(p => p.Id == id).Note));
    }

    [Fact]
    public async Task A_page_that_is_asked_for_again_waits_longer_than_one_that_is_asked_for_first()
    {
        var work = new TaskCompletionSource<string>();
        await Assert.ThrowsAsync<StillReckoningException>(() => Frame(null).Soon(work.Task));
        Task<string> again = Frame($"{ShowsReckoning.Again}=1").Soon(work.Task);
        await Task.Delay(500, TestContext.Current.CancellationToken);
        Assert.False(again.IsCompleted);
        work.SetResult("there");
        Assert.Equal("there", await again);

        PageFrame Frame(string? cookie)
        {
            var http = new DefaultHttpContext { RequestServices = app.Services };
            http.Request.Method = HttpMethods.Get;
            if (cookie is not null)
                http.Request.Headers.Cookie = cookie;
            return new PageFrame(null!, null!, NodaTime.SystemClock.Instance, new HttpContextAccessor { HttpContext = http });
        }
    }

    private async Task Save(string note)
    {
        PlanStore plans = new(app.Database, PlanFile.Stored);
        LoadedPlan now = await plans.Now();
        await new PlanterStore(plans).Save(now.Plan.FindPlanter("flag-pot")! with { Note = note }, now.Versions.Planter("flag-pot"));
    }

    // Requests that look at a site's state at their beginning and at their end; the first stays until it is let go.
    private sealed class Looking : IDisposable
    {
        private readonly RequestDelegate _run;
        private readonly TaskCompletionSource _gate = new();
        private readonly TaskCompletionSource<SiteNow> _seen = new();
        private readonly IServiceProvider _services;
        private SiteNow? _last;

        public Looking(IServiceProvider services, SiteState state)
        {
            _services = services;
            var pipeline = new ApplicationBuilder(services);
            Moment.Use(pipeline);
            pipeline.Run(async http =>
            {
                SiteNow begun = await state.Now();
                if (http.Items.ContainsKey(_gate))
                {
                    _seen.SetResult(begun);
                    await _gate.Task;
                }
                _last = await state.Now();
                Assert.Same(begun, _last);
            });
            _run = pipeline.Build();
        }

        public Task<SiteNow> Begin() => Ask(null, stays: true);

        public Task<SiteNow> Seen() => _seen.Task;

        public Task<SiteNow> Whole(string? cookie = null) => Ask(cookie, stays: false);

        public void End() => _gate.TrySetResult();

        public void Dispose() => End();

        private async Task<SiteNow> Ask(string? cookie, bool stays)
        {
            var http = new DefaultHttpContext { RequestServices = _services };
            http.Request.Method = HttpMethods.Get;
            if (cookie is not null)
                http.Request.Headers.Cookie = cookie;
            if (stays)
                http.Items[_gate] = true;
            await _run(http);
            return _last!;
        }
    }
}
