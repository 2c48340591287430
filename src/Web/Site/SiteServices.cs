using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>What any process of the app needs of the site: its stores and what is known of it now.</summary>
public static class SiteServices
{
    /// <summary>Adds the stores and the site.</summary>
    /// <param name="services">Services.</param>
    /// <param name="connection">The database.</param>
    public static IServiceCollection AddSite(this IServiceCollection services, string connection)
    {
        services.AddHttpContextAccessor();
        services.AddSingleton(_ => new MeadowDatabase(connection));
        services.AddSingleton<JsonSerializerOptions>(PlanFile.Stored);
        services.AddSingleton(s => new PlanStore(s.GetRequiredService<MeadowDatabase>(), s.GetRequiredService<JsonSerializerOptions>(), () =>
            s.GetRequiredService<IHttpContextAccessor>().HttpContext is { } http ? PageFrame.Asker(http) : "command line"
        ));
        services.AddSingleton<PlanterStore>();
        services.AddSingleton<PaletteStore>();
        services.AddSingleton<LotStore>();
        services.AddSingleton<PhotoStore>();
        services.AddSingleton<MapStore>();
        services.AddSingleton<DraftStore>();
        services.AddSingleton<DisplayStore>();
        services.AddSingleton<RecipeStore>();
        services.AddSingleton<WeatherStore>();
        services.AddSingleton<LogStore>();
        services.AddSingleton(s => new VariantStore(s.GetRequiredService<MeadowDatabase>(), PlanFile.Write, PlanFile.Read));
        services.AddSingleton(s => new PlanHistory(s.GetRequiredService<MeadowDatabase>(), PlanFile.Read));
        services.AddSingleton<EventStore>();
        services.AddSingleton<MessageStore>();
        services.AddSingleton<SiteState>();
        services.AddSingleton<IClock>(SystemClock.Instance);
        return services;
    }
}
