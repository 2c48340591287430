using Hangfire;
using Hangfire.AspNetCore;
using Hangfire.PostgreSql;
using Hangfire.PostgreSql.Factories;
using Microsoft.AspNetCore.Antiforgery;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>Long work over several processes, on the site's own database.</summary>
public static class JobServices
{
    // A job whose process ended is taken up by another after so long without a sign of life.
    private static readonly TimeSpan Abandoned = TimeSpan.FromSeconds(20);

    /// <summary>Adds the desk, the runner and the workers.</summary>
    /// <param name="services">Services.</param>
    /// <param name="connection">The database; Hangfire opens connections of its own.</param>
    /// <param name="doneHere">True where this process does the work too; otherwise another must.</param>
    public static IServiceCollection AddJobs(this IServiceCollection services, string connection, bool doneHere)
    {
        services.AddSingleton<WaitingWork>();
        services.AddScoped<JobStore>();
        services.AddScoped<ChangeStore>();
        services.AddScoped<JobDesk>();
        services.AddSingleton<JobThreads>();
        services.AddSingleton<JobRunner>();
        // The storage is the container's own and not the one of the whole process, which another app beside could have set.
        services.AddSingleton<JobStorage>(_ =>
        {
            var options = new PostgreSqlStorageOptions
            {
                QueuePollInterval = TimeSpan.FromMilliseconds(500),
                InvisibilityTimeout = Abandoned,
                UseSlidingInvisibilityTimeout = true,
                JobExpirationCheckInterval = TimeSpan.FromHours(1),
                CountersAggregateInterval = TimeSpan.FromHours(1),
            };
            return new PostgreSqlStorage(new NpgsqlConnectionFactory(connection, options), options);
        });
        // So is what makes runners: Hangfire's own is the process's, and an app that starts beside would be handed this one's work.
        services.AddSingleton<JobActivator>(p => new AspNetCoreJobActivator(p.GetRequiredService<IServiceScopeFactory>()));
        services.AddHangfire(h => h.UseSimpleAssemblyNameTypeSerializer().UseRecommendedSerializerSettings());
        if (doneHere)
        {
            services.AddHangfireServer(o =>
            {
                o.WorkerCount = 1;
                o.SchedulePollingInterval = TimeSpan.FromSeconds(1);
                o.StopTimeout = TimeSpan.FromSeconds(1);
                o.ShutdownTimeout = TimeSpan.FromSeconds(2);
            });
        }
        return services;
    }

    /// <summary>What the setting <c>MEADOW_JOBS</c> says: "here", as where it is not set, or "elsewhere".</summary>
    /// <exception cref="InvalidOperationException">It says something else.</exception>
    public static bool IsDoneHere(string? setting) =>
        setting switch
        {
            null or "" or "here" => true,
            "elsewhere" => false,
            _ => throw new InvalidOperationException($"MEADOW_JOBS is \"here\" or \"elsewhere\", not \"{setting}\"."),
        };

    /// <summary>Does long work until the process is told to end, and serves no pages.</summary>
    /// <param name="connection">The database.</param>
    public static async Task Work(string connection)
    {
        HostApplicationBuilder builder = Host.CreateApplicationBuilder();
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.Services.AddSite(connection).AddJobs(connection, doneHere: true);
        using IHost host = builder.Build();
        host.TakeUpJobs();
        await host.RunAsync();
    }

    /// <summary>
    /// Takes up, at the start and each minute, what was asked for and whose caller ended before it could wake a worker: what is written down
    /// is done, whatever happens between the writing and the waking.
    /// </summary>
    public static void TakeUpJobs(this IHost app) =>
        app
            .Services.GetRequiredService<IHostApplicationLifetime>()
            .ApplicationStarted.Register(() =>
            {
                app.Services.GetRequiredService<IBackgroundJobClient>().Enqueue<JobRunner>(r => r.Run(null, CancellationToken.None));
                app.Services.GetRequiredService<IRecurringJobManager>()
                    .AddOrUpdate<JobRunner>("waiting jobs", r => r.Run(null, CancellationToken.None), Cron.Minutely);
                app.Services.GetRequiredService<IRecurringJobManager>()
                    .AddOrUpdate<PaletteFollower>("shared palette", f => f.Run(CancellationToken.None), Cron.Minutely);
            });

    /// <summary>Where a page looks how far a job is, and calls it off.</summary>
    public static void MapJobs(this IEndpointRouteBuilder app)
    {
        app.MapGet("/jobs/{id:guid}", async (Guid id, JobStore jobs) => await jobs.Find(id) is { } job
                    ? Results.Json(
                        new
                        {
                            state = job.State.ToString(),
                            done = job.Done,
                            total = job.Total,
                            said = job.Said,
                            over = job.IsOver,
                            hasResult = job.Result is not null,
                        }
                    )
                    : Results.NotFound())
            .WithMetadata(new NeedsAttribute(SiteRole.Guest));
        app.MapPost("/jobs/{id:guid}/cancel", async (Guid id, HttpContext http, JobStore jobs, IAntiforgery antiforgery) =>
            {
                if (!await antiforgery.IsRequestValidAsync(http))
                    return Results.BadRequest();
                await jobs.Cancel(id);
                // Back to the page that it was called off on, where that page is one of ours.
                string back = http.Request.Headers.Referer.ToString();
                bool ours =
                    Uri.TryCreate(back, UriKind.Absolute, out Uri? from)
                    && from.Authority == http.Request.Host.Value
                    && from.PathAndQuery is ['/', not ('/' or '\\'), ..];
                return Results.LocalRedirect(ours ? from!.PathAndQuery : http.Request.PathBase + "/year");
            })
            .WithMetadata(new NeedsAttribute(SiteRole.Crew));
    }
}
