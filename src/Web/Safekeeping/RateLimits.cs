using System.Globalization;
using System.Threading.RateLimiting;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>How much one person may send, and how often one place may try to sign in. What is only looked at is not counted.</summary>
public static class RateLimits
{
    /// <summary>The setting for how much one person may send in a minute.</summary>
    public const string Setting = "MEADOW_WRITES_PER_MINUTE";

    // A planner at full speed saves about once in two seconds, and drawings ask for previews while something is dragged.
    private const int WritesPerMinute = 600;

    // Checking a password is dear on purpose; a crew behind one address signs in together in the morning.
    private const int SignInsPerMinute = 40;

    private static readonly string[] SignInPaths = ["/signin", "/welcome", "/join", "/phone"];

    /// <summary>Adds the limits.</summary>
    public static IServiceCollection AddRateLimits(this IServiceCollection services, IConfiguration settings)
    {
        int writes = int.TryParse(settings[Setting], CultureInfo.InvariantCulture, out int set) && set > 0 ? set : WritesPerMinute;
        return services.AddRateLimiter(o =>
        {
            o.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            o.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(http =>
            {
                if (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method))
                    return RateLimitPartition.GetNoLimiter("reads");
                string place = http.Connection.RemoteIpAddress?.ToString() ?? string.Empty;
                bool signsIn = Array.Exists(SignInPaths, p => http.Request.Path.StartsWithSegments(p, StringComparison.OrdinalIgnoreCase));
                Guid? person = http.RequestServices.GetRequiredService<Visitor>().Person?.Id;
                int most = signsIn ? Math.Max(SignInsPerMinute, writes / WritesPerMinute * SignInsPerMinute) : writes;
                return RateLimitPartition.GetSlidingWindowLimiter(
                    signsIn ? $"sign-in {place}" : $"{person?.ToString() ?? place}",
                    _ => new SlidingWindowRateLimiterOptions
                    {
                        PermitLimit = most,
                        Window = TimeSpan.FromMinutes(1),
                        SegmentsPerWindow = 6,
                    }
                );
            });
        });
    }
}
