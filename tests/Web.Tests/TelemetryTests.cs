using System.Collections.Concurrent;
using System.Net;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What those who run the app are told.</summary>
public sealed class TelemetryTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private const string Code = "2345678923456789abcd";

    [Fact]
    public async Task Requests_and_queries_are_told_to_who_listens_without_the_codes_in_addresses()
    {
        var heard = new ConcurrentDictionary<string, StringBuilder>(StringComparer.Ordinal);
        WebApplicationBuilder builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        await using WebApplication listener = builder.Build();
        listener.Urls.Add("http://127.0.0.1:0");
        listener.MapPost("/v1/{what}", async (string what, HttpRequest request) =>
        {
            using var body = new MemoryStream();
            await request.Body.CopyToAsync(body);
            StringBuilder said = heard.GetOrAdd(what, _ => new StringBuilder());
            lock (said)
                said.Append(Encoding.Latin1.GetString(body.ToArray()));
            return Results.Ok();
        });
        await listener.StartAsync(TestContext.Current.CancellationToken);
        string at = listener.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
        await using (
            WebApplicationFactory<Program> told = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            {
                b.UseSetting("MEADOW_DB", app.Whole.ConnectionString);
                b.UseSetting("OTEL_EXPORTER_OTLP_ENDPOINT", at);
                b.UseSetting("OTEL_EXPORTER_OTLP_PROTOCOL", "http/protobuf");
                b.UseSetting("OTEL_BSP_SCHEDULE_DELAY", "100");
                b.UseSetting("OTEL_METRIC_EXPORT_INTERVAL", "200");
            })
        )
        {
            HttpClient browser = told.CreateClient();
            using HttpResponseMessage page = await browser.GetAsync(new Uri($"/join/{Code}", UriKind.Relative));
            Assert.Equal(HttpStatusCode.OK, page.StatusCode);
            // The answer is here before the request is counted as ended.
            await MeadowApp.Until(() =>
                Task.FromResult(Heard("traces", "join/{code}") && Heard("traces", "code_hash") && Heard("metrics", "http.server.request.duration"))
            );
        }
        Assert.False(Heard("traces", Code) || Heard("metrics", Code));

        bool Heard(string what, string words)
        {
            if (!heard.TryGetValue(what, out StringBuilder? said))
                return false;
            lock (said)
                return said.ToString().Contains(words, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Health_says_what_is_ready_and_a_page_that_failed_names_its_request()
    {
        HttpClient anybody = app.Stranger();
        Assert.Equal("Healthy", await anybody.GetStringAsync(new Uri("/health/live", UriKind.Relative)));
        using HttpResponseMessage ready = await anybody.GetAsync(new Uri("/health/ready", UriKind.Relative));
        string said = await ready.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        foreach (string check in new[] { "database", "worker", "station", "disk", "backup" })
            Assert.Contains($"\"{check}\"", said, StringComparison.Ordinal);
        Assert.True(ready.StatusCode is HttpStatusCode.OK, said);
    }
}
