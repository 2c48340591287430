using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.Sites;

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
        services.AddSingleton<ReckoningThreads>();
        services.AddSingleton<SiteRegistry>();
        services.AddSingleton<SharedPaletteStore>();
        services.AddSingleton<PaletteFollower>();
        services.AddScoped<CurrentSite>();
        services.AddScoped(s => s.GetRequiredService<CurrentSite>().Memory);
        services.AddScoped(s => s.GetRequiredService<SiteMemory>().Database);
        services.AddScoped(s => s.GetRequiredService<SiteMemory>().Plans);
        services.AddScoped(s => s.GetRequiredService<SiteMemory>().State);
        services.AddScoped<PlanterStore>();
        services.AddScoped<PaletteStore>();
        services.AddScoped<LotStore>();
        services.AddScoped(s => new CrewStore(s.GetRequiredService<SiteDatabase>(), s.GetRequiredService<PlanStore>(), PlanFile.Stored));
        services.AddScoped(s => new SupplyStore(s.GetRequiredService<SiteDatabase>(), s.GetRequiredService<PlanStore>(), PlanFile.Stored));
        services.AddScoped<PhotoStore>();
        services.AddScoped<MapStore>();
        services.AddScoped<DraftStore>();
        services.AddScoped<LookFirst>();
        services.AddScoped<DisplayStore>();
        services.AddScoped<RecipeStore>();
        services.AddScoped<WeatherStore>();
        services.AddScoped<LogStore>();
        services.AddScoped(s => new TrialStore(s.GetRequiredService<SiteDatabase>(), PlanFile.Stored));
        services.AddScoped<LearntHere>();
        services.AddScoped(s => new VariantStore(s.GetRequiredService<SiteDatabase>(), PlanFile.Write, PlanFile.Read));
        services.AddScoped(s => new PlanHistory(s.GetRequiredService<SiteDatabase>(), PlanFile.Read));
        services.AddScoped<EventStore>();
        services.AddSingleton<MessageStore>();
        services.AddSingleton<IClock>(SystemClock.Instance);
        return services;
    }
}
