using System.Collections.Concurrent;
using System.Text.Json;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Sites;

/// <summary>What a process keeps of one site: its plan, and what was computed from it.</summary>
/// <param name="Database">Its part of the database.</param>
/// <param name="Plans">Its plan.</param>
/// <param name="State">What is computed from it.</param>
public sealed record SiteMemory(SiteDatabase Database, PlanStore Plans, SiteState State);

/// <summary>The sites of the installation, and what this process keeps of those that were asked for lately.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How plants and their like are written as JSON.</param>
/// <param name="http">Who asks.</param>
/// <param name="threads">Compute what is kept.</param>
/// <param name="log">The log.</param>
public sealed class SiteRegistry(
    MeadowDatabase database,
    JsonSerializerOptions json,
    IHttpContextAccessor http,
    ReckoningThreads threads,
    ILogger<SiteState> log
)
{
    // A planter with its years, remarks and care takes about this much; sites take at most so much of the memory that there is.
    private const long PlanterBytes = 200_000;
    private const double MemoryShare = 0.25;

    // Whatever memory there is, a site of 5,000 planters is kept with another.
    private const int FewestPlantersKept = 6000;
    private const int FewestKept = 2;

    private static readonly int MostPlantersKept = (int)
        Math.Clamp(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes * MemoryShare / PlanterBytes, FewestPlantersKept, int.MaxValue);

    private static readonly TimeSpan ListHolds = TimeSpan.FromSeconds(2);

    private readonly ConcurrentDictionary<Guid, Kept> _kept = new();
    private volatile Listed _listed = new([], long.MinValue / 2);

    private sealed record Listed(IReadOnlyList<SiteEntry> Sites, long At);

    private sealed class Kept(SiteMemory memory)
    {
        public SiteMemory Memory => memory;

        public long UsedAt { get; set; }
    }

    /// <summary>The sites, by name. What another process adds is seen within seconds.</summary>
    public async Task<IReadOnlyList<SiteEntry>> Sites()
    {
        Listed listed = _listed;
        if (Environment.TickCount64 - listed.At < ListHolds.TotalMilliseconds)
            return listed.Sites;
        IReadOnlyList<SiteEntry> sites = await database.Sites();
        _listed = new Listed(sites, Environment.TickCount64);
        return sites;
    }

    /// <summary>Sites of which something is kept.</summary>
    public int KeptCount => _kept.Count;

    /// <summary>Looks at the list of sites anew when it is asked for next.</summary>
    public void Forget() => _listed = new([], long.MinValue / 2);

    /// <summary>What is kept of a site. Of sites that nobody asked for in a while nothing is kept when others need the room.</summary>
    public SiteMemory Of(Guid site)
    {
        Kept kept = _kept.GetOrAdd(site, id => new Kept(Made(id)));
        kept.UsedAt = Environment.TickCount64;
        return kept.Memory;
    }

    /// <summary>Lets go of what is kept beyond the room for it, that of the site asked for longest ago first.</summary>
    public void MakeRoom()
    {
        int planters = 0;
        int sites = 0;
        // Its own copy is taken in one moment; a sort over the dictionary itself fails when another request adds a site meanwhile.
        foreach ((Guid id, Kept kept) in _kept.ToArray().OrderByDescending(k => k.Value.UsedAt))
        {
            planters += kept.Memory.State.KeptPlanters;
            if (++sites > FewestKept && planters > MostPlantersKept)
                _kept.TryRemove(id, out _);
        }
    }

    private SiteMemory Made(Guid site)
    {
        SiteDatabase at = database.At(site);
        var plans = new PlanStore(at, json, () => http.HttpContext is { } asked ? PageFrame.Asker(asked) : "command line");
        return new SiteMemory(at, plans, new SiteState(plans, new WeatherStore(at), threads, log));
    }
}
