using System.Text.Json;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web;

/// <summary>What a live station answers, as it is read; every figure is checked before it is kept.</summary>
internal sealed record ToldStation(string? Id, string? Name, double? LatitudeDeg, double? LongitudeDeg);

/// <summary>This hour.</summary>
internal sealed record ToldPresent(Instant At, LocalDate Day, double AirC, double HumidityPct, double WindMs);

/// <summary>A day seen or expected.</summary>
internal sealed record ToldDay(LocalDate Day, double MinC, double MaxC, double PrecipitationMm, double? WindMs = null);

/// <summary>What a live station said.</summary>
/// <param name="Reading">Where it stands, and this hour.</param>
/// <param name="Days">Days seen and expected.</param>
public sealed record HeardStation(LiveReading Reading, IReadOnlyList<LiveDay> Days)
{
    /// <summary>
    /// The station that speaks for a site: the nearest of those near enough. On an installation of one site and one station that one speaks,
    /// wherever it stands; pages say when it is too far.
    /// </summary>
    /// <param name="place">Where the site's record was measured, or the site lies; null where neither is known.</param>
    /// <param name="heard">Stations that answered.</param>
    /// <param name="isAlone">True on an installation of one site.</param>
    public static HeardStation? For(Station? place, IReadOnlyList<HeardStation> heard, bool isAlone) =>
        isAlone && heard.Count == 1
            ? heard[0]
            : heard
                .Where(h => place is not null && h.Reading.IsNear(place))
                .MinBy(h => place!.DistanceKm(h.Reading.LatitudeDeg, h.Reading.LongitudeDeg));
}

/// <summary>Asks live stations for their past, present and forecast.</summary>
/// <param name="http">The client, with its timeouts and retries.</param>
public sealed class LiveStationClient(HttpClient http)
{
    /// <summary>Days of the past asked for: the year so far and the one before it.</summary>
    public const int PastDays = 500;

    private const int ForecastDays = 7;
    private const int LongestName = 80;

    private static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web).ConfigureForNodaTime(
        DateTimeZoneProviders.Tzdb
    );

    /// <summary>Asks one station once.</summary>
    /// <param name="address">Its address.</param>
    /// <param name="now">When it is asked.</param>
    /// <param name="stop">Ends the asking.</param>
    /// <exception cref="InvalidDataException">The answer holds something that cannot be.</exception>
    /// <exception cref="HttpRequestException">It does not answer.</exception>
    public async Task<HeardStation> Hear(Uri address, Instant now, CancellationToken stop)
    {
        ToldStation station = await Get<ToldStation>(address, "station", stop);
        ToldPresent present = await Get<ToldPresent>(address, "today", stop);
        ToldDay[] past = await Get<ToldDay[]>(address, $"past?days={PastDays}", stop);
        ToldDay[] ahead = await Get<ToldDay[]>(address, "forecast", stop);
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
        return new HeardStation(
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

    private async Task<T> Get<T>(Uri address, string path, CancellationToken stop)
    {
        using HttpResponseMessage answer = await http.GetAsync(new Uri(address, path), stop);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<T>(Json, stop) ?? throw new InvalidDataException($"the live station answers nothing to {path}");
    }
}

/// <summary>Asks live stations again and again; when one is down the app works on with what was heard last.</summary>
/// <param name="services">Where clients come from.</param>
/// <param name="stations">Their addresses.</param>
/// <param name="clock">The clock.</param>
/// <param name="every">Time between askings.</param>
/// <param name="log">Where silence is noted.</param>
public sealed class LiveStationPoller(
    IServiceProvider services,
    IReadOnlyList<Uri> stations,
    IClock clock,
    TimeSpan every,
    ILogger<LiveStationPoller> log
) : BackgroundService
{
    // Each site hears the station nearest to it; one that is silent takes no word from the others.
    private async Task Ask(CancellationToken stop)
    {
        await using AsyncServiceScope scope = services.CreateAsyncScope();
        LiveStationClient client = scope.ServiceProvider.GetRequiredService<LiveStationClient>();
        var heard = new List<HeardStation>();
        foreach (Uri station in stations)
        {
            try
            {
                heard.Add(await client.Hear(station, clock.GetCurrentInstant(), stop));
            }
            catch (Exception e) when (!stop.IsCancellationRequested)
            {
                log.LogWarning("The live station was not heard: {Why}", e.Message);
            }
        }
        if (heard.Count == 0)
            return;
        IReadOnlyList<SiteEntry> sites = await scope.ServiceProvider.GetRequiredService<MeadowDatabase>().Sites();
        foreach (SiteEntry site in sites)
        {
            await using AsyncServiceScope at = services.CreateAsyncScope();
            at.ServiceProvider.GetRequiredService<CurrentSite>().Enter(site);
            LiveStore store = at.ServiceProvider.GetRequiredService<LiveStore>();
            if (HeardStation.For(await store.Place(), heard, sites.Count == 1) is { } told)
                await store.Save(told.Reading, told.Days);
        }
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
    /// <summary>The setting that names addresses of live stations, parted by blanks or commas; without it nothing is asked.</summary>
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
        if (configuration[Setting] is not { Length: > 0 } typed)
            return;
        var stations = new List<Uri>();
        foreach (string address in typed.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries))
        {
            if (
                !Uri.TryCreate(address.TrimEnd('/') + "/", UriKind.Absolute, out Uri? uri)
                || (uri.Scheme != Uri.UriSchemeHttp && uri.Scheme != Uri.UriSchemeHttps)
            )
                throw new InvalidOperationException($"{Setting} must be an address such as http://127.0.0.1:5190, and is \"{address}\".");
            stations.Add(uri);
        }
        double seconds =
            double.TryParse(configuration[Setting + "_SECONDS"], System.Globalization.CultureInfo.InvariantCulture, out double s)
            && s is >= 1 and <= 86_400
                ? s
                : 600;
        services
            .AddHttpClient<LiveStationClient>(c => c.MaxResponseContentBufferSize = MostBytes)
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
            stations,
            p.GetRequiredService<IClock>(),
            TimeSpan.FromSeconds(seconds),
            p.GetRequiredService<ILogger<LiveStationPoller>>()
        ));
    }
}
