using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.Identity;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;

namespace UnrulyMeadow.Web.People;

/// <summary>
/// Signing in by the organisation's own OpenID Connect provider, where the settings name one: <c>MEADOW_OIDC_AUTHORITY</c>,
/// <c>MEADOW_OIDC_CLIENT</c>, <c>MEADOW_OIDC_SECRET</c>, and <c>MEADOW_OIDC_NAME</c> for people.
/// </summary>
/// <param name="Authority">Its address.</param>
/// <param name="Client">Who the app is there.</param>
/// <param name="Secret">By what it is known there; null for none.</param>
/// <param name="Name">What people call it.</param>
public sealed record Provider(string Authority, string Client, string? Secret, string Name)
{
    /// <summary>The scheme under which it signs in.</summary>
    public const string Scheme = "organisation";

    /// <summary>The provider that the settings name; null for none.</summary>
    /// <exception cref="InvalidOperationException">The settings name half of one, or one that could be listened to.</exception>
    public static Provider? Of(IConfiguration settings)
    {
        if (settings["MEADOW_OIDC_AUTHORITY"] is not { Length: > 0 } authority)
            return null;
        if (settings["MEADOW_OIDC_CLIENT"] is not { Length: > 0 } client)
            throw new InvalidOperationException("MEADOW_OIDC_AUTHORITY is set and MEADOW_OIDC_CLIENT is not: it says who the app is there.");
        if (!Uri.TryCreate(authority, UriKind.Absolute, out Uri? at) || (at.Scheme != Uri.UriSchemeHttps && !at.IsLoopback))
            throw new InvalidOperationException($"MEADOW_OIDC_AUTHORITY must be an https address, and is \"{authority}\".");
        return new Provider(authority.TrimEnd('/'), client, settings["MEADOW_OIDC_SECRET"], settings["MEADOW_OIDC_NAME"] ?? at.Host);
    }

    /// <summary>Who the provider says somebody is, as it is kept.</summary>
    /// <param name="subject">Its own name for them.</param>
    public string Key(string subject) => $"{Authority} {subject}";

    /// <summary>Adds it, where there is one.</summary>
    public static void Add(IServiceCollection services, IConfiguration settings)
    {
        if (Of(settings) is not { } provider)
            return;
        services.AddSingleton(provider);
        services
            .AddAuthentication()
            .AddOpenIdConnect(Scheme, o =>
            {
                o.Authority = provider.Authority;
                o.ClientId = provider.Client;
                o.ClientSecret = provider.Secret;
                o.SignInScheme = IdentityConstants.ExternalScheme;
                o.ResponseType = OpenIdConnectResponseType.Code;
                // The answer comes by an address, so that its cookies need not go with what other sites send.
                o.ResponseMode = OpenIdConnectResponseMode.Query;
                o.UsePkce = true;
                o.MapInboundClaims = false;
                o.RequireHttpsMetadata = !new Uri(provider.Authority).IsLoopback;
                o.CallbackPath = "/signin/provider";
                o.CorrelationCookie.SameSite = o.NonceCookie.SameSite = SameSiteMode.Lax;
                o.CorrelationCookie.SecurePolicy = o.NonceCookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                // What goes wrong on the way is told on the sign-in page.
                o.Events.OnRemoteFailure = context =>
                {
                    context.Response.Redirect("/signin?refused=provider");
                    context.HandleResponse();
                    return Task.CompletedTask;
                };
            });
    }
}
