using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using NodaTime;
using NodaTime.Testing;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Station.Tests;

/// <summary>A station that does not exist, but always says the same and errs as forecasts do.</summary>
public sealed class StationTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 16, 30);
    private static readonly LocalDate Today = new(2026, 11, 23);

    private static readonly StationSettings Settings = JsonSerializer.Deserialize<StationSettings>(
        File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.station.json")),
        JsonSerializerOptions.Web
    )!;

    private static readonly SimulatedWeather Weather = new(Settings);

    [Fact]
    public void The_error_of_the_lowest_grows_from_1_2_to_3_5_degrees_over_the_week()
    {
        LocalDate[] days = [.. Enumerable.Range(0, 4000).Select(new LocalDate(2024, 1, 1).PlusDays)];
        for (int lead = 1; lead <= 7; lead++)
        {
            double square = days.Average(d =>
            {
                ForecastDay expected = Weather.Forecast(d)[lead - 1];
                double error = expected.MinC - Weather.Past(expected.Day.PlusDays(1), 1)[0].MinC;
                return error * error;
            });
            // Lowest and highest change places where they cross, which takes a little off the error.
            Assert.Equal(1, Math.Sqrt(square) / SimulatedWeather.ErrorC(lead), 0.12);
        }
        Assert.Equal((1.2, 3.5), (SimulatedWeather.ErrorC(1), SimulatedWeather.ErrorC(7)));
    }

    [Fact]
    public void The_same_seed_tells_the_same_past_and_expects_the_same_week()
    {
        var again = new SimulatedWeather(Settings);
        Assert.Equal(Weather.Past(Today, 400), again.Past(Today, 400));
        Assert.Equal(Weather.Forecast(Today), again.Forecast(Today));
        Assert.NotEqual(Weather.Forecast(Today), new SimulatedWeather(Settings with { Seed = 1 }).Forecast(Today));
    }

    [Fact]
    public void What_was_forecast_becomes_past_day_by_day()
    {
        SeenDay tomorrow = Weather.Past(Today.PlusDays(2), 1)[0];
        Assert.Equal(tomorrow, Weather.Past(Today.PlusDays(40), 60).Single(d => d.Day == tomorrow.Day));
        Assert.Equal(Today.PlusDays(1), Weather.Forecast(Today)[0].Day);
        Assert.Equal(Today.PlusDays(-1), Weather.Past(Today, 10)[^1].Day);
    }

    [Fact]
    public void The_present_lies_between_the_days_lowest_and_highest()
    {
        for (int hour = 0; hour < 24; hour++)
        {
            Present present = Weather.Now(Now.Plus(Duration.FromHours(hour)));
            SeenDay[] around = [.. Weather.Past(present.Day.PlusDays(2), 3)];
            Assert.InRange(present.AirC, around.Min(d => d.MinC) - 0.1, around.Max(d => d.MaxC) + 0.1);
            Assert.InRange(present.HumidityPct, 15, 100);
        }
    }

    [Fact]
    public async Task It_answers_over_HTTP_as_JSON()
    {
        await using var service = new Service();
        HttpClient client = service.CreateClient();
        Assert.Equal("KTQ-LIVE", (await client.GetFromJsonAsync<JsonElement>("/station")).GetProperty("id").GetString());
        JsonElement past = await client.GetFromJsonAsync<JsonElement>("/past?days=3");
        Assert.Equal(["2026-11-20", "2026-11-21", "2026-11-22"], past.EnumerateArray().Select(d => d.GetProperty("day").GetString()));
        Assert.Equal(7, (await client.GetFromJsonAsync<JsonElement>("/forecast")).GetArrayLength());
        Assert.Equal("2026-11-23", (await client.GetFromJsonAsync<JsonElement>("/today")).GetProperty("day").GetString());
    }

    [Theory]
    [InlineData("/past?days=0")]
    [InlineData("/past?days=100000")]
    [InlineData("/past?days=many")]
    public async Task Too_much_or_nonsense_is_refused(string path)
    {
        await using var service = new Service();
        Assert.Equal(HttpStatusCode.BadRequest, (await service.CreateClient().GetAsync(path)).StatusCode);
    }

    [Fact]
    public void Settings_out_of_range_are_named() =>
        Assert.Contains(
            "latitudeDeg",
            Assert.Throws<InvalidInputException>(() => new SimulatedWeather(Settings with { LatitudeDeg = 100 })).Message,
            StringComparison.Ordinal
        );

    private sealed class Service : WebApplicationFactory<Program>
    {
        protected override void ConfigureWebHost(Microsoft.AspNetCore.Hosting.IWebHostBuilder builder)
        {
            builder.UseSetting("settings", Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.station.json"));
            builder.ConfigureServices(s => s.Replace(ServiceDescriptor.Singleton<IClock>(new FakeClock(Now))));
        }
    }
}
