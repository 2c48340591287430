using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using AngleSharp.Dom;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;
using NodaTime;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>Signing in by the organisation's own provider, of which a small one is simulated.</summary>
public sealed class ProviderTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    [Fact]
    public async Task Who_is_known_there_comes_in_by_an_invitation_and_from_then_on_without()
    {
        await using Simulated simulated = await Simulated.Start();
        await using WebApplicationFactory<Program> host = Host(simulated);
        simulated.Subject = "7781";
        // Known there, and not here.
        HttpClient stranger = host.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        IDocument refused = await Pages.Parse(await Through(stranger, simulated, "/year"));
        Assert.Contains("ask for an invitation", refused.Words(), StringComparison.Ordinal);
        string code = await new PassStore(app.Whole).Make(
            new Pass(
                PassKind.Invitation,
                app.Database.Site,
                null,
                SiteRole.Crew,
                null,
                SystemClock.Instance.GetCurrentInstant() + Duration.FromHours(1)
            )
        );
        using HttpResponseMessage invited = await Through(stranger, simulated, $"/join/{code}");
        Assert.Equal($"/join/{code}", invited.Headers.Location!.ToString());
        using HttpResponseMessage joined = await stranger.Send($"/join/{code}", "handler=accept");
        Assert.Equal("/", joined.Headers.Location!.ToString());
        HttpClient later = host.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        using HttpResponseMessage known = await Through(later, simulated, "/planters");
        Assert.Equal("/planters", known.Headers.Location!.ToString());
        Assert.Contains("Somebody of the organisation", (await later.Open("/planters")).Words(), StringComparison.Ordinal);
        // Another there is another here.
        simulated.Subject = "7782";
        IDocument other = await Pages.Parse(
            await Through(host.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false }), simulated, "/year")
        );
        Assert.Contains("ask for an invitation", other.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_answer_that_was_not_asked_for_or_is_signed_by_another_lets_nobody_in()
    {
        await using Simulated simulated = await Simulated.Start();
        await using WebApplicationFactory<Program> host = Host(simulated);
        HttpClient browser = host.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        using HttpResponseMessage unasked = await browser.GetAsync(new Uri("/signin/provider?code=x&state=y", UriKind.Relative));
        Assert.Equal("/signin?refused=provider", unasked.Headers.Location!.ToString());
        simulated.SignsWithAnotherKey = true;
        using HttpResponseMessage forged = await Through(browser, simulated, "/year");
        Assert.Equal("/signin?refused=provider", forged.Headers.Location!.ToString());
    }

    [Theory]
    [InlineData("http://login.example", "meadow")]
    [InlineData("no address", "meadow")]
    [InlineData("https://login.example", "")]
    public void Half_a_provider_or_one_that_could_be_listened_to_is_refused_at_the_start(string authority, string client) =>
        Assert.Throws<InvalidOperationException>(() =>
            Provider.Of(
                new ConfigurationBuilder().AddInMemoryCollection([new("MEADOW_OIDC_AUTHORITY", authority), new("MEADOW_OIDC_CLIENT", client)]).Build()
            )
        );

    private WebApplicationFactory<Program> Host(Simulated simulated) =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("MEADOW_DB", app.Whole.ConnectionString);
            b.UseSetting("MEADOW_OIDC_AUTHORITY", simulated.Address);
            b.UseSetting("MEADOW_OIDC_CLIENT", "meadow");
            b.UseSetting("MEADOW_OIDC_SECRET", "a secret");
            b.UseSetting("MEADOW_OIDC_NAME", "the harbour office");
        });

    // From the sign-in page to the provider, back with its answer, and on as far as the app decides.
    private static async Task<HttpResponseMessage> Through(HttpClient browser, Simulated simulated, string to)
    {
        using HttpResponseMessage ask = await browser.GetAsync(new Uri($"/signin?handler=provider&to={Uri.EscapeDataString(to)}", UriKind.Relative));
        Uri there = ask.Headers.Location!;
        Assert.StartsWith(simulated.Address, there.ToString(), StringComparison.Ordinal);
        using var wire = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false });
        using HttpResponseMessage answered = await wire.GetAsync(there);
        HttpResponseMessage back = await browser.GetAsync(new Uri(answered.Headers.Location!.PathAndQuery, UriKind.Relative));
        return back.Headers.Location!.ToString().Contains("refused", StringComparison.Ordinal)
            ? back
            : await browser.GetAsync(new Uri(back.Headers.Location!.ToString(), UriKind.RelativeOrAbsolute));
    }

    private sealed class Simulated : IAsyncDisposable
    {
        private readonly WebApplication _app;
        private readonly RSA _key = RSA.Create(2048);
        private readonly ConcurrentDictionary<string, string> _nonces = new(StringComparer.Ordinal);

        private Simulated()
        {
            WebApplicationBuilder builder = WebApplication.CreateSlimBuilder();
            builder.Logging.ClearProviders();
            _app = builder.Build();
            _app.Urls.Add("http://127.0.0.1:0");
        }

        public string Address { get; private set; } = string.Empty;

        public string Subject { get; set; } = "1";

        public bool SignsWithAnotherKey { get; set; }

        public static async Task<Simulated> Start()
        {
            var simulated = new Simulated();
            simulated.Map();
            await simulated._app.StartAsync();
            simulated.Address = simulated._app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
            return simulated;
        }

        public async ValueTask DisposeAsync()
        {
            await _app.DisposeAsync();
            _key.Dispose();
        }

        private void Map()
        {
            _app.MapGet("/.well-known/openid-configuration", () => Results.Json(
                    new
                    {
                        issuer = Address,
                        authorization_endpoint = $"{Address}/authorize",
                        token_endpoint = $"{Address}/token",
                        jwks_uri = $"{Address}/keys",
                        response_types_supported = new[] { "code" },
                        subject_types_supported = new[] { "public" },
                        id_token_signing_alg_values_supported = new[] { "RS256" },
                    }
                ));
            _app.MapGet("/keys", () =>
            {
                RSAParameters open = _key.ExportParameters(false);
                return Results.Json(
                    new
                    {
                        keys = new[]
                        {
                            new
                            {
                                kty = "RSA",
                                use = "sig",
                                alg = "RS256",
                                kid = "one",
                                n = Base64UrlEncoder.Encode(open.Modulus),
                                e = Base64UrlEncoder.Encode(open.Exponent),
                            },
                        },
                    }
                );
            });
            _app.MapGet("/authorize", (HttpRequest request) =>
            {
                string code = $"{Guid.NewGuid():N}";
                _nonces[code] = request.Query["nonce"].ToString();
                return Results.Redirect(
                    QueryHelpers.AddQueryString(
                        request.Query["redirect_uri"].ToString(),
                        new Dictionary<string, string?>(StringComparer.Ordinal) { ["code"] = code, ["state"] = request.Query["state"] }
                    )
                );
            });
            _app.MapPost("/token", async (HttpRequest request) =>
            {
                IFormCollection asked = await request.ReadFormAsync();
                using RSA other = RSA.Create(2048);
                var key = new RsaSecurityKey(SignsWithAnotherKey ? other.ExportParameters(true) : _key.ExportParameters(true)) { KeyId = "one" };
                string token = new JsonWebTokenHandler().CreateToken(
                    new SecurityTokenDescriptor
                    {
                        Issuer = Address,
                        Audience = "meadow",
                        Expires = DateTime.UtcNow.AddMinutes(5),
                        Claims = new Dictionary<string, object>(StringComparer.Ordinal)
                        {
                            ["sub"] = Subject,
                            ["name"] = "Somebody of the organisation",
                            ["nonce"] = _nonces[asked["code"].ToString()],
                        },
                        SigningCredentials = new SigningCredentials(key, SecurityAlgorithms.RsaSha256),
                    }
                );
                return Results.Json(
                    new
                    {
                        access_token = "none",
                        token_type = "Bearer",
                        expires_in = 300,
                        id_token = token,
                    }
                );
            });
        }
    }
}
