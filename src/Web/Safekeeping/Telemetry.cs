using System.Diagnostics;
using System.Diagnostics.Metrics;
using Npgsql;
using OpenTelemetry;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;
using Serilog;
using Serilog.Formatting.Compact;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>
/// What is told to those who run the app: measures and traces by OpenTelemetry, where <c>OTEL_EXPORTER_OTLP_ENDPOINT</c> names somebody who
/// listens, and the log. Neither names people, nor holds the codes that stand in some addresses.
/// </summary>
public static class Telemetry
{
    private const string Name = "UnrulyMeadow";
    private const string Service = "unruly-meadow";
    private const string Endpoint = "OTEL_EXPORTER_OTLP_ENDPOINT";

    private static readonly Meter Own = new(Name);
    private static readonly Counter<long> Jobs = Own.CreateCounter<long>("meadow.jobs", "{job}", "Pieces of long work that ended.");
    private static readonly Histogram<double> JobSeconds = Own.CreateHistogram<double>("meadow.job.duration", "s", "How long they took.");

    /// <summary>Tells of a piece of long work that ended.</summary>
    /// <param name="kind">What was done.</param>
    /// <param name="how">How it ended: done, refused, failed, called off.</param>
    /// <param name="took">How long it took.</param>
    public static void Tell(string kind, string how, TimeSpan took)
    {
        var of = new TagList { { "kind", kind }, { "ended", how } };
        Jobs.Add(1, of);
        JobSeconds.Record(took.TotalSeconds, of);
    }

    /// <summary>Adds what is told, where somebody listens.</summary>
    public static IServiceCollection AddTelemetry(this IServiceCollection services, IConfiguration settings)
    {
        if (string.IsNullOrWhiteSpace(settings[Endpoint]))
            return services;
        services.AddSingleton<CacheMeter>();
        services
            .AddOpenTelemetry()
            .ConfigureResource(r => r.AddService(Service))
            .WithTracing(t => t.AddAspNetCoreInstrumentation(o => o.EnrichWithHttpRequest = HideCodes).AddNpgsql())
            .WithMetrics(m => m.AddAspNetCoreInstrumentation().AddMeter(Name, "Npgsql", "Microsoft.AspNetCore.Server.Kestrel"))
            .UseOtlpExporter();
        return services;
    }

    /// <summary>Writes the log: for people, or as JSON where <c>MEADOW_LOG</c> is "json", a line for each request then.</summary>
    public static void Write(LoggerConfiguration log, IConfiguration settings)
    {
        log.Enrich.FromLogContext();
        if (IsJson(settings))
            log.WriteTo.Console(new CompactJsonFormatter());
        else
            log.WriteTo.Console();
    }

    /// <summary>Logs requests, by the pattern of their address and not by the address itself.</summary>
    public static void UseRequestLog(this WebApplication app)
    {
        if (!IsJson(app.Configuration))
            return;
        app.UseSerilogRequestLogging(o =>
        {
            o.IncludeQueryInRequestPath = false;
            o.MessageTemplate = "{Method} {Route} answered {StatusCode} in {Elapsed:0.0} ms, request {RequestId}";
            o.GetMessageTemplateProperties = (http, _, elapsed, code) =>
                [
                    new Serilog.Events.LogEventProperty("Method", new Serilog.Events.ScalarValue(http.Request.Method)),
                    new Serilog.Events.LogEventProperty("Route", new Serilog.Events.ScalarValue(Pattern(http))),
                    new Serilog.Events.LogEventProperty("StatusCode", new Serilog.Events.ScalarValue(code)),
                    new Serilog.Events.LogEventProperty("Elapsed", new Serilog.Events.ScalarValue(elapsed)),
                    new Serilog.Events.LogEventProperty("RequestId", new Serilog.Events.ScalarValue(http.TraceIdentifier)),
                ];
        });
    }

    private static bool IsJson(IConfiguration settings) => string.Equals(settings["MEADOW_LOG"], "json", StringComparison.OrdinalIgnoreCase);

    private static string Pattern(HttpContext http) => (http.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText ?? "none";

    // A code in an address is good for somebody until it is used.
    private static void HideCodes(Activity activity, HttpRequest request)
    {
        if (
            request.Path.StartsWithSegments("/join", StringComparison.OrdinalIgnoreCase)
            || request.Path.StartsWithSegments("/phone", StringComparison.OrdinalIgnoreCase)
        )
            activity.SetTag("url.path", request.Path.Value!.Split('/')[1]);
        activity.SetTag("url.query", null);
    }
}

/// <summary>How much a process keeps of sites.</summary>
public sealed class CacheMeter : IDisposable
{
    private readonly Meter _meter = new("UnrulyMeadow");

    /// <summary>Measures the sites that are kept.</summary>
    public CacheMeter(SiteRegistry sites) =>
        _meter.CreateObservableGauge("meadow.sites.kept", () => sites.KeptCount, "{site}", "Sites of which this process keeps what it computed.");

    /// <inheritdoc />
    public void Dispose() => _meter.Dispose();
}
