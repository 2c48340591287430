using System.Text.Json;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web;

/// <summary>What a live station answers, as it is read; every figure is checked before it is kept.</summary>
internal sealed record ToldStation(string? Id, string? Name, double? LatitudeDeg, double? LongitudeDeg);

/// <summary>This hour.</summary>
internal sealed record ToldPresent(Instant At, LocalDate Day, double AirC, double HumidityPct, double WindMs);

/// <summary>A day seen or expected.</summary>
internal sealed record ToldDay(LocalDate Day, double MinC, double MaxC, double PrecipitationMm, double? WindMs = null);

/// <summary>Asks a live station for its past, present and forecast.</summary>
/// <param name="http">The client, with its address, timeouts and retries.</param>
/// <param name="store">Where the answer is kept.</param>
public sealed class LiveStationClient(HttpClient http, LiveStore store)
{
    /// <summary>Days of the past asked for: the year so far and the one before it.</summary>
    public const int PastDays = 500;

    private const int ForecastDays = 7;
    private const int LongestName = 80;

    private static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web).ConfigureForNodaTime(
        DateTimeZoneProviders.Tzdb
    );

    /// <summary>Asks once, and keeps the answer whole or not at all.</summary>
    /// <param name="now">When it is asked.</param>
    /// <param name="stop">Ends the asking.</param>
    /// <exception cref="InvalidDataException">The answer holds something that cannot be.</exception>
    /// <exception cref="HttpRequestException">It does not answer.</exception>
    public async Task Ask(Instant now, CancellationToken stop)
    {
        ToldStation station = await Get<ToldStation>("station", stop);
        ToldPresent present = await Get<ToldPresent>("today", stop);
        ToldDay[] past = await Get<ToldDay[]>($"past?days={PastDays}", stop);
        ToldDay[] ahead = await Get<ToldDay[]>("forecast", stop);
        string name = (station.Name ?? string.Empty).Trim();
        Check(name.Length > 0 && Core.PlainText.Fault(name, LongestName, lines: false) is null, "the station's name");
        Check(station.LatitudeDeg is >= -90 and <= 90 && station.LongitudeDeg is >= -180 and <= 180, "the station's place");
        Check(present.AirC is >= -90 and <= 60 && present.HumidityPct is >= 0 and <= 100 && present.WindMs is >= 0 and <= 80, "this hour's reading");
        Check(past.Length <= PastDays && ahead.Length <= ForecastDays, "the number of days");
        Check(Array.TrueForAll(past, Believable) && Array.TrueForAll(ahead, Believable), "a day's readings");
        LocalDate today = now.InUtc().Date;
        Check(
            Array.TrueForAll(past, d => d.Day <= today.PlusDays(1)) && Array.TrueForAll(ahead, d => d.Day <= today.PlusDays(ForecastDays + 2)),
            "a day's date"
        );
        await store.Save(
            new LiveReading(name, station.LatitudeDeg!.Value, station.LongitudeDeg!.Value, now, present.AirC, present.HumidityPct, present.WindMs),
            [.. past.Select(d => Day(d, false)).Concat(ahead.Select(d => Day(d, true))).DistinctBy(d => d.Day)]
        );
    }

    private static LiveDay Day(ToldDay d, bool forecast) => new(d.Day, forecast, d.MinC, d.MaxC, d.PrecipitationMm, d.WindMs);

    private static bool Believable(ToldDay d) =>
        d.MinC is >= -90 and <= 60
        && d.MaxC >= d.MinC
        && d.MaxC <= 60
        && d.PrecipitationMm is >= 0 and <= 2000
        && d.WindMs is null or (>= 0 and <= 80)
        && d.Day.Year is > 1900 and < 2200;

    private static void Check(bool holds, string what)
    {
        if (!holds)
            throw new InvalidDataException($"the live station's answer cannot be believed: {what}");
    }

    private async Task<T> Get<T>(string path, CancellationToken stop)
    {
        using HttpResponseMessage answer = await http.GetAsync(path, stop);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<T>(Json, stop) ?? throw new InvalidDataException($"the live station answers nothing to {path}");
    }
}

/// <summary>Asks the live station again and again; when it is down the app works on with what was heard last.</summary>
/// <param name="services">Where clients come from.</param>
/// <param name="clock">The clock.</param>
/// <param name="every">Time between askings.</param>
/// <param name="log">Where silence is noted.</param>
public sealed class LiveStationPoller(IServiceProvider services, IClock clock, TimeSpan every, ILogger<LiveStationPoller> log) : BackgroundService
{
    // The station stands at the site that was there first.
    private async Task Ask(CancellationToken stop)
    {
        await using AsyncServiceScope scope = services.CreateAsyncScope();
        if (await scope.ServiceProvider.GetRequiredService<MeadowDatabase>().FirstSite() is not { } site)
            return;
        scope.ServiceProvider.GetRequiredService<CurrentSite>().Enter(site);
        await scope.ServiceProvider.GetRequiredService<LiveStationClient>().Ask(clock.GetCurrentInstant(), stop);
    }

    /// <inheritdoc />
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(every);
        do
        {
            try
            {
                await Ask(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e)
            {
                // Whatever goes wrong there, the app stays up; the age of the last reading tells the crew.
                log.LogWarning("The live station was not heard: {Why}", e.Message);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }
}

/// <summary>Sets the asking up.</summary>
public static class LiveStations
{
    /// <summary>The setting that names the live station's address; without it nothing is asked.</summary>
    public const string Setting = "MEADOW_STATION";

    private const long MostBytes = 1024 * 1024;

    /// <summary>Adds client and poller when an address is set.</summary>
    /// <exception cref="InvalidOperationException">The address is no http address.</exception>
    /// <param name="services">The app's services.</param>
    /// <param name="configuration">Its settings.</param>
    /// <param name="patience">
    /// How long one asking may take; five seconds when left out. All together, with three more tries, five times as long.
    /// </param>
    public static void AddLiveStation(this IServiceCollection services, IConfiguration configuration, TimeSpan? patience = null)
    {
        TimeSpan each = patience ?? TimeSpan.FromSeconds(5);
        if (configuration[Setting] is not { Length: > 0 } address)
            return;
        if (
            !Uri.TryCreate(address.TrimEnd('/') + "/", UriKind.Absolute, out Uri? uri)
            || (uri.Scheme != Uri.UriSchemeHttp && uri.Scheme != Uri.UriSchemeHttps)
        )
            throw new InvalidOperationException($"{Setting} must be an address such as http://127.0.0.1:5190, and is \"{address}\".");
        double seconds =
            double.TryParse(configuration[Setting + "_SECONDS"], System.Globalization.CultureInfo.InvariantCulture, out double s)
            && s is >= 1 and <= 86_400
                ? s
                : 600;
        services
            .AddHttpClient<LiveStationClient>(c =>
            {
                c.BaseAddress = uri;
                c.MaxResponseContentBufferSize = MostBytes;
            })
            .AddStandardResilienceHandler(o =>
            {
                o.AttemptTimeout.Timeout = each;
                o.TotalRequestTimeout.Timeout = each * 5;
                o.Retry.MaxRetryAttempts = 3;
                o.Retry.Delay = each / 12;
                o.CircuitBreaker.SamplingDuration = TimeSpan.FromSeconds(Math.Max(30, each.TotalSeconds * 2));
            });
        services.AddHostedService(p => new LiveStationPoller(
            p,
            p.GetRequiredService<IClock>(),
            TimeSpan.FromSeconds(seconds),
            p.GetRequiredService<ILogger<LiveStationPoller>>()
        ));
    }
}
