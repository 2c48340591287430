using System.Net;
using System.Text;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.Tests;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What is done with the word of a live station: kept whole, doubted, and never missed when it is silent.</summary>
public sealed class LiveStationTests(TestDatabase test) : IClassFixture<TestDatabase>
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private static readonly Uri Address = new("http://station.invalid/");

    private LiveStore Store => new(test.Database);

    [Fact]
    public void Each_site_hears_the_nearest_station_that_is_near_enough()
    {
        HeardStation At(double latitude, double longitude) => new(new LiveReading("s", latitude, longitude, Now, 5, 80, 2), []);
        HeardStation quay = At(43, -66);
        HeardStation inland = At(44, -67);
        Station site = new("site", "Site", 43.2, -66.2, 0);
        Assert.Same(quay, HeardStation.For(site, [inland, quay], false));
        Assert.Same(inland, HeardStation.For(site with { LatitudeDeg = 43.9 }, [quay, inland], false));
        Assert.Null(HeardStation.For(site with { LatitudeDeg = -37 }, [quay, inland], false));
        Assert.Null(HeardStation.For(null, [quay, inland], false));
        // One site and one station: it speaks, and pages say that it is far.
        Assert.Same(quay, HeardStation.For(null, [quay], true));
    }

    [Fact]
    public async Task Its_word_is_kept_with_the_time_it_was_heard_and_replaced_by_the_next()
    {
        await Ask(Good);
        (LiveReading? heard, IReadOnlyList<LiveDay> days) = await Store.Load();
        Assert.Equal(("Quay, simulated", 6.5, Now), (heard!.Name, heard.AirC, heard.HeardAt));
        Assert.Equal([false, false, true, true], days.Select(d => d.Forecast));
        await Ask(p => p == "/forecast" ? """[{ "day": "2026-11-24", "leadDays": 1, "minC": 0, "maxC": 5, "precipitationMm": 1 }]""" : Good(p));
        Assert.Equal(1, (await Store.Load()).Days.Count(d => d.Forecast));
    }

    [Theory]
    [InlineData("/today", """{ "at": "2026-11-23T12:00:00Z", "day": "2026-11-23", "airC": 400, "humidityPct": 80, "windMs": 3 }""")]
    [InlineData("/past", """[{ "day": "2026-11-22", "minC": 9, "maxC": 2, "precipitationMm": 0 }]""")]
    [InlineData("/past", """[{ "day": "2199-11-22", "minC": 1, "maxC": 2, "precipitationMm": 0 }]""")]
    [InlineData("/station", """{ "id": "x", "name": "", "latitudeDeg": 43, "longitudeDeg": -66 }""")]
    [InlineData("/station", """{ "id": "x", "name": "Nowhere" }""")]
    [InlineData("/forecast", "<html>not JSON</html>")]
    [InlineData("/today", "null")]
    public async Task An_answer_that_cannot_be_is_refused_whole_and_the_last_one_stays(string path, string answer)
    {
        await Ask(Good);
        (LiveReading? before, IReadOnlyList<LiveDay> days) = await Store.Load();
        await Assert.ThrowsAnyAsync<Exception>(() => Ask(p => p.StartsWith(path, StringComparison.Ordinal) ? answer : Good(p)));
        (LiveReading? after, IReadOnlyList<LiveDay> same) = await Store.Load();
        Assert.Equal(before, after);
        Assert.Equal(days, same);
    }

    [Fact]
    public async Task When_it_is_down_the_asking_fails_and_the_last_word_stays()
    {
        await Ask(Good);
        await Assert.ThrowsAsync<HttpRequestException>(() => Ask(_ => null));
        Assert.Equal("Quay, simulated", (await Store.Load()).Reading!.Name);
    }

    [Fact]
    public async Task A_station_that_stumbles_twice_is_asked_again_and_heard()
    {
        int asked = 0;
        await using ServiceProvider app = App(p => ++asked <= 2 ? null : Good(p), TimeSpan.FromSeconds(2));
        HeardStation heard = await app.GetRequiredService<LiveStationClient>().Hear(Address, Now, CancellationToken.None);
        Assert.Equal("Quay, simulated", heard.Reading.Name);
        Assert.Equal(6, asked);
    }

    [Fact]
    public async Task A_station_that_never_answers_is_given_up()
    {
        await using ServiceProvider app = App(_ => "hang", TimeSpan.FromMilliseconds(300));
        await Assert.ThrowsAnyAsync<Exception>(() =>
            app.GetRequiredService<LiveStationClient>()
                .Hear(Address, Now, CancellationToken.None)
                .WaitAsync(TimeSpan.FromSeconds(20), TestContext.Current.CancellationToken)
        );
    }

    [Fact]
    public async Task The_poller_outlives_a_dead_station_and_an_app_without_one_asks_nobody()
    {
        await using ServiceProvider app = App(_ => null, TimeSpan.FromMilliseconds(50));
        using var poller = (LiveStationPoller)app.GetServices<IHostedService>().Single(s => s is LiveStationPoller);
        await poller.StartAsync(CancellationToken.None);
        await Task.Delay(600, TestContext.Current.CancellationToken);
        Assert.False(poller.ExecuteTask!.IsCompleted);
        await poller.StopAsync(CancellationToken.None);
        var none = new ServiceCollection();
        none.AddLiveStation(new ConfigurationBuilder().Build());
        Assert.Empty(none);
        Assert.Throws<InvalidOperationException>(() => none.AddLiveStation(Settings("ftp://somewhere")));
    }

    [Fact]
    public async Task The_days_of_another_place_are_forgotten_and_lie_over_no_distant_record()
    {
        await Ask(Good);
        await Ask(p =>
            p == "/station" ? Good(p).Replace("-66", "20", StringComparison.Ordinal)
            : p == "/past" ? "[]"
            : Good(p)
        );
        (LiveReading? moved, IReadOnlyList<LiveDay> days) = await Store.Load();
        Assert.DoesNotContain(days, d => !d.Forecast);
        Assert.True(moved!.IsNear(new Station("N", "near", 43.5, 20.5, 0)));
        Assert.False(moved.IsNear(new Station("F", "far", 40.7, -74, 0)));
    }

    [Theory]
    [InlineData(20, "just now")]
    [InlineData(600, "10 minutes ago")]
    [InlineData(7200, "2 hours ago")]
    [InlineData(260_000, "3 days ago")]
    public void The_age_of_the_last_word_is_told(int seconds, string said) =>
        Assert.Equal(said, Site.Words.Ago(Now, Now.Plus(Duration.FromSeconds(seconds))));

    private static string Good(string path) =>
        path switch
        {
            "/station" => """{ "id": "Q", "name": "Quay, simulated", "latitudeDeg": 43, "longitudeDeg": -66, "elevationM": 6 }""",
            "/today" => """{ "at": "2026-11-23T12:00:00Z", "day": "2026-11-23", "airC": 6.5, "humidityPct": 81, "windMs": 3.4 }""",
            "/forecast" =>
                """[{ "day": "2026-11-24", "leadDays": 1, "minC": 1, "maxC": 6, "precipitationMm": 0 }, { "day": "2026-11-25", "leadDays": 2, "minC": 2, "maxC": 7, "precipitationMm": 3 }]""",
            _ =>
                """[{ "day": "2026-11-21", "minC": 3, "maxC": 8, "precipitationMm": 0 }, { "day": "2026-11-22", "minC": 2, "maxC": 9, "precipitationMm": 4 }]""",
        };

    private static IConfiguration Settings(string address) =>
        new ConfigurationBuilder().AddInMemoryCollection([new(LiveStations.Setting, address)]).Build();

    private ServiceProvider App(Func<string, string?> answer, TimeSpan patience)
    {
        var services = new ServiceCollection();
        services.AddLogging();
        services.AddSingleton(Store);
        services.AddSingleton<IClock>(SystemClock.Instance);
        services.AddLiveStation(Settings("http://station.invalid"), patience);
        services.ConfigureHttpClientDefaults(b => b.ConfigurePrimaryHttpMessageHandler(() => new Stub(answer)));
        return services.BuildServiceProvider();
    }

    private async Task Ask(Func<string, string?> answer)
    {
        using var http = new HttpClient(new Stub(answer));
        HeardStation heard = await new LiveStationClient(http).Hear(Address, Now, CancellationToken.None);
        await Store.Save(heard.Reading, heard.Days);
    }

    private sealed class Stub(Func<string, string?> answer) : HttpMessageHandler
    {
        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
        {
            string body = answer(request.RequestUri!.AbsolutePath) ?? throw new HttpRequestException("refused");
            if (body == "hang")
                await Task.Delay(Timeout.Infinite, cancellationToken);
            return new HttpResponseMessage(HttpStatusCode.OK) { Content = new StringContent(body, Encoding.UTF8, "application/json") };
        }
    }
}
