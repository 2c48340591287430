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
using UnrulyMeadow.Web;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.Site;

if (args.Length > 0 && Errands.Knows(args[0]))
    return await Errands.Run(args);

// Reckoning beside pages keeps threads of the pool busy or waiting; a page must not wait until the pool, which adds one in half a second, has more.
ThreadPool.SetMinThreads(32, 32);
var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog(
    (context, log) =>
        log
            .MinimumLevel.Information()
            .MinimumLevel.Override("System.Net.Http", Serilog.Events.LogEventLevel.Warning)
            .MinimumLevel.Override("Polly", Serilog.Events.LogEventLevel.Error)
            .MinimumLevel.Override("Microsoft.AspNetCore", Serilog.Events.LogEventLevel.Warning)
            .MinimumLevel.Override("Hangfire", Serilog.Events.LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", Serilog.Events.LogEventLevel.Error)
            .WriteTo.Console()
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
builder.Services.AddSingleton<ITempDataProvider, Messages>();
builder.Services.AddSingleton<HeavyWork>();
builder.Services.AddSingleton<KeyStore>();
builder.Services.AddDataProtection().SetApplicationName("unruly-meadow");
builder.Services.AddOptions<KeyManagementOptions>().Configure<KeyStore>(SigningKeys.Use);
builder.Services.AddSingleton<Everything>();
builder.Services.AddSingleton<LiveStore>();
builder.Services.AddSingleton<UnrulyMeadow.Web.Drawing.DrawingSheet>();
builder.Services.AddLiveStation(builder.Configuration);
builder.Services.AddScoped<PageFrame>();
builder.Services.AddJobs(connection, JobServices.IsDoneHere(builder.Configuration["MEADOW_JOBS"]));
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
        o.Filters.Add<ShowsReckoning>();
    });

// Pages are mostly drawings, which shrink to a tenth on the way to a phone.
builder.Services.AddResponseCompression();
builder.Services.AddRouting(o => o.LowercaseUrls = true);
builder.Services.AddAntiforgery(o => o.Cookie.SameSite = SameSiteMode.Strict);

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
app.Services.GetRequiredService<MeadowDatabase>().Migrate();
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
app.UseResponseCompression();
app.UseExceptionHandler(new ExceptionHandlerOptions { ExceptionHandler = FaultPage.OfException, AllowStatusCode404Response = true });
app.UseStatusCodePages(FaultPage.OfCode);
app.UseHostFiltering();
app.Use(Uploads.Refuse);
app.UseStaticFiles(
    new StaticFileOptions
    {
        OnPrepareResponse = c =>
            c.Context.Response.Headers.CacheControl = c.Context.Request.Query.ContainsKey("v") ? "public,max-age=31536000,immutable" : "no-cache",
    }
);
app.UseLanguages();
app.UseRouting();
app.MapRazorPages();
app.MapJobs();
app.TakeUpJobs();
app.MapGet("/", () => Results.Redirect("/year"));

// Ready means that the plan is there to be drawn, and not only that somebody answers.
app.MapGet("/health", async (SiteState state) =>
{
    SiteNow now = await state.Now();
    return Results.Text(now.Aside.Count == 0 ? $"ready {now.Mark.Revision}" : $"ready {now.Mark.Revision}, {now.Aside.Count} set aside");
});

// The year is the page that is opened first; what it needs is computed while the browser is being opened.
app.Lifetime.ApplicationStarted.Register(() =>
    _ = Task.Run(async () =>
    {
        try
        {
            using IServiceScope scope = app.Services.CreateScope();
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
