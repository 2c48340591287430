using Microsoft.AspNetCore.DataProtection;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>
/// A web process over a replica of the database, which can only be read: it answers pages and takes nothing. A proxy sends it what only
/// looks, and sends elsewhere whoever has just sent something, whose change the replica may not know yet.
/// </summary>
public static class ReadingOnly
{
    /// <summary>The setting that says so: "yes".</summary>
    public const string Setting = "MEADOW_READS_ONLY";

    /// <summary>The cookie that whoever sends something carries for some seconds; nginx reads no names with hyphens.</summary>
    public const string Cookie = "meadow_wrote";

    // A replica that is further behind is in trouble.
    private static readonly TimeSpan Behind = TimeSpan.FromSeconds(10);

    /// <summary>True where this process only reads.</summary>
    /// <exception cref="InvalidOperationException">The setting says neither "yes" nor nothing.</exception>
    public static bool IsSet(IConfiguration settings) =>
        settings[Setting] switch
        {
            null or "" or "no" => false,
            "yes" => true,
            { } other => throw new InvalidOperationException($"{Setting} is \"yes\" or not set, not \"{other}\"."),
        };

    /// <summary>Makes ready to only read: keys of forms are those that others have made.</summary>
    public static void AddReadingOnly(this IServiceCollection services) => services.AddDataProtection().DisableAutomaticKeyGeneration();

    /// <summary>Looks whether the replica is of this version.</summary>
    /// <exception cref="InvalidOperationException">It is not.</exception>
    public static async Task Check(HealthStore health)
    {
        if (await health.MissingMigrations() is > 0 and var missing)
            throw new InvalidOperationException($"The replica lacks {missing} migrations: start a process on the database itself first.");
    }

    /// <summary>Refuses what is sent.</summary>
    public static Task Refuse(HttpContext http, RequestDelegate next) =>
        IsLook(http.Request) ? next(http) : FaultPage.OfUnwritten(http, "This process shows pages over a copy of the database, and takes nothing.");

    /// <summary>Marks whoever has sent something, so that a proxy asks here what they look at next.</summary>
    public static Task Mark(HttpContext http, RequestDelegate next)
    {
        if (!IsLook(http.Request))
            http.Response.OnStarting(() =>
            {
                http.Response.Cookies.Append(
                    Cookie,
                    "1",
                    new CookieOptions
                    {
                        MaxAge = Behind,
                        HttpOnly = true,
                        Secure = http.Request.IsHttps,
                        SameSite = SameSiteMode.Strict,
                        IsEssential = true,
                    }
                );
                return Task.CompletedTask;
            });
        return next(http);
    }

    private static bool IsLook(HttpRequest request) => HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method);
}
