using System.Net;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>Sets up who may sign in and how.</summary>
public static class PeopleServices
{
    private const int ShortestPassword = 10;
    private const int MostWrongPasswords = 5;

    private static readonly TimeSpan LockedFor = TimeSpan.FromMinutes(10);
    private static readonly TimeSpan CookieLasts = TimeSpan.FromDays(30);

    /// <summary>Adds people, their sign-ins and the gate.</summary>
    public static IServiceCollection AddPeople(this IServiceCollection services)
    {
        services.AddSingleton<PeopleStore>();
        services.AddSingleton<PasskeyStore>();
        services.AddSingleton<SessionStore>();
        services.AddSingleton<PassStore>();
        services.AddSingleton<Doors>();
        services.AddScoped<Visitor>();
        services.AddScoped<SignIns>();
        services
            .AddIdentityCore<Person>(o =>
            {
                // Length alone makes a password hard to guess; rules of letters and signs make it hard to remember.
                o.Password.RequiredLength = ShortestPassword;
                o.Password.RequireDigit = o.Password.RequireLowercase = o.Password.RequireUppercase = o.Password.RequireNonAlphanumeric = false;
                o.Password.RequiredUniqueChars = 4;
                o.Lockout.MaxFailedAccessAttempts = MostWrongPasswords;
                o.Lockout.DefaultLockoutTimeSpan = LockedFor;
                o.User.AllowedUserNameCharacters = string.Empty;
            })
            .AddUserStore<IdentityStore>()
            .AddPasswordValidator<GuessedPasswords>()
            .AddSignInManager();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.AddSingleton<Installation>();
        services.AddOptions<AntiforgeryOptions>().Configure<Installation>((o, here) => o.Cookie.Name = here.Cookie("meadow-form"));
        services
            .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<Installation>(
                (o, here) =>
                {
                    o.Cookie.Name = here.Cookie("meadow-session");
                    o.Cookie.Path = "/";
                    o.Cookie.HttpOnly = true;
                    // A link in a message opens as the person who is signed in; what is sent is guarded by the forms themselves.
                    o.Cookie.SameSite = SameSiteMode.Lax;
                    o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                    o.ExpireTimeSpan = CookieLasts;
                    o.SlidingExpiration = true;
                    // Whether the session still lasts is asked of the database at every request.
                    o.Events = new CookieAuthenticationEvents();
                }
            );
        return services;
    }

    /// <summary>
    /// True where a tap signs in: the app is asked from its own machine, and nothing stands between that could carry others' questions to it.
    /// </summary>
    public static bool IsOnOwnMachine(HttpContext http, IConfiguration settings) =>
        string.IsNullOrWhiteSpace(settings["MEADOW_PROXIES"])
        && http.Connection.RemoteIpAddress is { } asker
        && IPAddress.IsLoopback(asker)
        && !http.Request.Headers.ContainsKey("X-Forwarded-For")
        && !http.Request.Headers.ContainsKey("X-Original-For");
}
