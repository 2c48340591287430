using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using Serilog;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web;
using UnrulyMeadow.Web.Calendars;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Safekeeping;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

if (args.Length > 0 && Errands.Knows(args[0]))
    return await Errands.Run(args);

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog(
    (context, log) =>
    {
        log.MinimumLevel.Information()
            .MinimumLevel.Override("System.Net.Http", Serilog.Events.LogEventLevel.Warning)
            .MinimumLevel.Override("Polly", Serilog.Events.LogEventLevel.Error)
            .MinimumLevel.Override("Microsoft.AspNetCore", Serilog.Events.LogEventLevel.Warning)
            // It says of every page with a form that it may not be stored, which is what it is to be.
            .MinimumLevel.Override("Microsoft.AspNetCore.Antiforgery", Serilog.Events.LogEventLevel.Error)
            .MinimumLevel.Override("Hangfire", Serilog.Events.LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", Serilog.Events.LogEventLevel.Error);
        Telemetry.Write(log, context.Configuration);
    }
);
builder.WebHost.ConfigureKestrel(k =>
{
    k.AddServerHeader = false;
    k.Limits.MaxRequestBodySize = Uploads.ServerMostBytes;
});
builder.Services.Configure<FormOptions>(f =>
{
    f.MultipartBodyLengthLimit = Uploads.MostBytes + Uploads.FormAllowance;
    f.ValueLengthLimit = Uploads.MostFieldChars;
    f.ValueCountLimit = Uploads.MostFields;
});

// Only the names that the app is served under are answered: a page elsewhere that points its own name here finds nobody.
builder.Services.Configure<HostFilteringOptions>(h =>
{
    h.AllowedHosts =
    [
        .. (builder.Configuration["MEADOW_HOSTS"] ?? "localhost;127.0.0.1;[::1]").Split(
            ';',
            StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
        ),
    ];
    h.AllowEmptyHosts = false;
    h.IncludeFailureMessage = false;
});
string connection = Environment.GetEnvironmentVariable("MEADOW_DB")
    ?? builder.Configuration["MEADOW_DB"]
    ?? throw new InvalidOperationException("Set MEADOW_DB to the PostgreSQL connection string, or start with ./meadow start.");
builder.Services.AddSite(connection);
builder.Services.AddPeople();
Provider.Add(builder.Services, builder.Configuration);
builder.Services.AddRateLimits(builder.Configuration);
builder.Services.AddHealth(builder.Configuration);
builder.Services.AddTelemetry(builder.Configuration);
bool readsOnly = ReadingOnly.IsSet(builder.Configuration);
if (!readsOnly)
    builder.Services.AddHostedService<DailyBackup>();
builder.Services.AddSingleton<Messages>();
builder.Services.AddSingleton<ITempDataProvider>(s => s.GetRequiredService<Messages>());
builder.Services.AddSingleton<HeavyWork>();
builder.Services.AddSingleton<KeyStore>();
builder.Services.AddDataProtection().SetApplicationName("unruly-meadow");
builder.Services.AddOptions<KeyManagementOptions>().Configure<KeyStore>(SigningKeys.Use);
if (readsOnly)
    builder.Services.AddReadingOnly();
builder.Services.AddScoped<Everything>();
builder.Services.AddScoped<LiveStore>();
builder.Services.AddScoped<CareDesk>();
builder.Services.AddSingleton<UnrulyMeadow.Web.Drawing.DrawingSheet>();
if (!readsOnly)
    builder.Services.AddLiveStation(builder.Configuration);
builder.Services.AddScoped<PageFrame>();
builder.Services.AddScoped<SupplyDesk>();
builder.Services.AddScoped<CrewDesk>();
builder.Services.AddJobs(connection, !readsOnly && JobServices.IsDoneHere(builder.Configuration["MEADOW_JOBS"]));
builder
    .Services.AddRazorPages(o =>
    {
        o.Conventions.AddPageRoute("/Planters/Edit", "/planters/new");
        o.Conventions.AddPageRoute("/Palette/Edit", "/palette/new");
        o.Conventions.ConfigureFilter(new RefuseFormsWithoutHandler());
    })
    .AddMvcOptions(o =>
    {
        o.MaxModelBindingCollectionSize = Uploads.MostFields;
        o.Filters.AddService<Messages>();
        o.Filters.Add<ShowsReckoning>();
        o.Filters.Add<StaysOnSite>();
    });

// Pages are mostly drawings, which shrink to a tenth on the way to a phone.
builder.Services.AddResponseCompression();
builder.Services.AddRouting(o => o.LowercaseUrls = true);
builder.Services.AddAntiforgery(o =>
{
    o.Cookie.SameSite = SameSiteMode.Strict;
    o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
});

// Behind a proxy that ends TLS, who asks and by what scheme is taken from it: from this machine alone, or from those named.
builder.Services.Configure<ForwardedHeadersOptions>(f =>
{
    f.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
    foreach (
        string proxy in (builder.Configuration["MEADOW_PROXIES"] ?? string.Empty).Split(
            ';',
            StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
        )
    )
        f.KnownProxies.Add(System.Net.IPAddress.Parse(proxy));
});

var app = builder.Build();
if (readsOnly)
    await ReadingOnly.Check(app.Services.GetRequiredService<HealthStore>());
else
    app.Services.GetRequiredService<MeadowDatabase>().Migrate();
if (Listening.Refusal(app.Configuration, await app.Services.GetRequiredService<PeopleStore>().HasOwner()) is { } refusal)
{
    await Console.Error.WriteLineAsync(refusal);
    return 2;
}
app.UseForwardedHeaders();
app.UseSecurityHeaders(
    new HeaderPolicyCollection()
        .AddStrictTransportSecurityMaxAge()
        .AddFrameOptionsDeny()
        .AddContentTypeOptionsNoSniff()
        .AddReferrerPolicySameOrigin()
        .AddContentSecurityPolicy(csp =>
        {
            csp.AddDefaultSrc().Self();
            csp.AddObjectSrc().None();
            csp.AddFormAction().Self();
            csp.AddFrameAncestors().None();
            csp.AddBaseUri().Self();
        })
);
app.UseRequestLog();
app.UseResponseCompression();
app.UseExceptionHandler(new ExceptionHandlerOptions { ExceptionHandler = FaultPage.OfException, AllowStatusCode404Response = true });
app.UseStatusCodePages(FaultPage.OfCode);
app.UseHostFiltering();
app.Use(readsOnly ? ReadingOnly.Refuse : ReadingOnly.Mark);
app.Use(Uploads.Refuse);
app.UseStaticFiles(
    new StaticFileOptions
    {
        OnPrepareResponse = c =>
            c.Context.Response.Headers.CacheControl = c.Context.Request.Query.ContainsKey("v") ? "public,max-age=31536000,immutable" : "no-cache",
    }
);
app.UseVisitors();
app.UseLanguages();
app.UseSites();
app.UseRouting();
app.UseRateLimiter();
app.UseGate();
Moment.Use(app);
app.MapRazorPages();
app.MapJobs();
app.MapCalendars();
app.MapHealth();
if (!readsOnly)
    app.TakeUpJobs();
app.MapGet("/", async (PageFrame frame, CurrentSite site) => Results.LocalRedirect(
            !site.IsKnown ? "/sites"
            : (await frame.Now()).Plan.Planters.Count == 0 ? frame.Base + "/begin"
            : frame.Base + "/year"
        ))
    .WithMetadata(new NeedsSignInAttribute());

// Ready means that the plan is there to be drawn, and not only that somebody answers.
app.MapGet("/health", async (MeadowDatabase database, SiteRegistry sites) =>
    {
        if (await database.FirstSite() is not { } first)
            return Results.Text("ready, no site yet");
        SiteNow now = await sites.Of(first.Id).State.Now();
        return Results.Text(now.Aside.Count == 0 ? $"ready {now.Mark.Revision}" : $"ready {now.Mark.Revision}, {now.Aside.Count} set aside");
    })
    .WithMetadata(new OpenToAllAttribute());

// The year is the page that is opened first; what it needs is computed while the browser is being opened.
app.Lifetime.ApplicationStarted.Register(() =>
    _ = Task.Run(async () =>
    {
        try
        {
            using IServiceScope scope = app.Services.CreateScope();
            if (await scope.ServiceProvider.GetRequiredService<MeadowDatabase>().FirstSite() is not { } first)
                return;
            scope.ServiceProvider.GetRequiredService<CurrentSite>().Enter(first);
            var frame = scope.ServiceProvider.GetRequiredService<PageFrame>();
            YearView view = YearView.From(null, await frame.Now(), frame.Today);
            await frame.State.Year(view.Start, null);
            await frame.State.RemarksFrom(view.Start);
            _ = (await frame.Now()).Inputs.Value;
            SiteFlowering flowering = await frame.State.Flowering(view.Start);
            foreach (Plant plant in (await frame.Now()).Plan.Palette)
                flowering.Usual(plant);
        }
        catch (Exception e)
        {
            app.Logger.LogWarning(e, "The year could not be computed ahead.");
        }
    })
);
await app.RunAsync();
return 0;

/// <summary>The app's entry, named so that tests can start it.</summary>
public partial class Program;
