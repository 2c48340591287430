using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using NodaTime;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>
/// How the app is, for what watches over it: <c>/health/live</c> while the process answers, <c>/health/ready</c> while it can do its work.
/// What only grows old (the station's word, the latest backup, the disk) makes it degraded and not unready.
/// </summary>
public static class Health
{
    // A worker says that it is there every half minute.
    private static readonly Duration WorkerSilent = Duration.FromMinutes(2);
    private static readonly Duration StationSilent = Duration.FromHours(2);
    private static readonly TimeSpan BackupOld = TimeSpan.FromHours(36);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);

    private const long LeastDiskBytes = 1L << 30;

    /// <summary>Adds the checks.</summary>
    public static IServiceCollection AddHealth(this IServiceCollection services, IConfiguration settings)
    {
        services.AddSingleton<HealthStore>();
        services
            .AddHealthChecks()
            .Add(
                Check("database", HealthStatus.Unhealthy, async (p, _) =>
                    await p.GetRequiredService<HealthStore>().MissingMigrations() is > 0 and var missing ? $"{missing} migrations have not run" : null
                )
            )
            .Add(
                Check("worker", HealthStatus.Degraded, async (p, now) =>
                    await p.GetRequiredService<HealthStore>().WorkerHeard() is { } heard && now - heard < WorkerSilent
                        ? null
                        : "no worker was heard for two minutes: what is asked for waits"
                )
            )
            .Add(Check("station", HealthStatus.Degraded, async (p, now) =>
                {
                    if (
                        string.IsNullOrEmpty(settings[LiveStations.Setting])
                        || await p.GetRequiredService<MeadowDatabase>().FirstSite() is not { } site
                    )
                        return null;
                    return await p.GetRequiredService<HealthStore>().StationHeard(site.Id) is { } heard && now - heard < StationSilent
                        ? null
                        : "the live station was not heard for two hours";
                }))
            .Add(
                Check("disk", HealthStatus.Degraded, (_, _) =>
                    Task.FromResult(
                        new DriveInfo(AppContext.BaseDirectory).AvailableFreeSpace < LeastDiskBytes
                            ? "less than 1 GiB is free on the app's disk"
                            : null
                    )
                )
            )
            .Add(
                Check("backup", HealthStatus.Degraded, (_, now) =>
                    Task.FromResult(
                        settings[DailyBackup.Setting] is { Length: > 0 } folder
                        && (Backup.LatestAt(folder) is not { } at || now.ToDateTimeOffset() - at > BackupOld)
                            ? "the latest backup is older than a day and a half"
                            : null
                    )
                )
            );
        return services;
    }

    /// <summary>Maps both.</summary>
    public static void MapHealth(this IEndpointRouteBuilder app)
    {
        app.MapHealthChecks("/health/live", new HealthCheckOptions { Predicate = _ => false }).WithMetadata(new OpenToAllAttribute());
        app.MapHealthChecks("/health/ready", new HealthCheckOptions { ResponseWriter = Write }).WithMetadata(new OpenToAllAttribute());
    }

    private static HealthCheckRegistration Check(string name, HealthStatus worst, Func<IServiceProvider, Instant, Task<string?>> look) =>
        new(name, p => new Looking(() => look(p, p.GetRequiredService<IClock>().GetCurrentInstant())), worst, tags: null, Patience);

    private static Task Write(HttpContext http, HealthReport report)
    {
        http.Response.ContentType = "application/json";
        return http.Response.WriteAsync(
            JsonSerializer.Serialize(
                new
                {
                    status = report.Status.ToString(),
                    checks = report.Entries.ToDictionary(e => e.Key, e => new { status = e.Value.Status.ToString(), says = e.Value.Description }),
                },
                JsonSerializerOptions.Web
            )
        );
    }

    private sealed class Looking(Func<Task<string?>> look) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
        {
            try
            {
                string? wrong = await look().WaitAsync(cancellationToken);
                return wrong is null ? HealthCheckResult.Healthy() : new HealthCheckResult(context.Registration.FailureStatus, wrong);
            }
            catch (Exception e) when (FaultPage.IsAway(e) || e is IOException)
            {
                return new HealthCheckResult(context.Registration.FailureStatus, "the database does not answer");
            }
        }
    }
}
