using System.Text.Json;
using Hangfire;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Sites;

/// <summary>Lets all sites follow the palette that they share, each through the door of its own plan.</summary>
/// <param name="database">The database.</param>
/// <param name="shared">The shared palette.</param>
/// <param name="json">How plants are written as JSON.</param>
/// <param name="log">The log.</param>
public sealed class PaletteFollower(MeadowDatabase database, SharedPaletteStore shared, JsonSerializerOptions json, ILogger<PaletteFollower> log)
{
    private const int MostTries = 5;

    /// <summary>Follows at every site that has not yet; does nothing where nothing was shared since.</summary>
    /// <param name="stopping">Set when this process ends.</param>
    [AutomaticRetry(Attempts = 3, DelaysInSeconds = [5, 30, 60], LogEvents = false)]
    public async Task Run(CancellationToken stopping)
    {
        if (await shared.LatestSharing() is not { } latest)
            return;
        HashSet<Guid> done = [.. (await shared.Followings()).Where(f => f.Number >= latest.Number).Select(f => f.SiteId)];
        foreach (SiteEntry site in (await database.Sites()).Where(s => !done.Contains(s.Id)))
        {
            try
            {
                await Follow(site.Id, latest.SharedBy, stopping);
            }
            catch (LostUpdateException)
            {
                // It is tried again within a minute; the others need not wait for it.
                log.LogWarning("The palette of site {Site} is being changed all the while, and does not follow the shared one yet.", site.Id);
            }
        }
    }

    /// <summary>Follows at one site.</summary>
    /// <param name="site">The site.</param>
    /// <param name="by">Who is said to have changed its plan.</param>
    /// <param name="stopping">Stops between two tries.</param>
    public async Task Follow(Guid site, string by, CancellationToken stopping = default)
    {
        var plans = new PlanStore(database.At(site), json, () => by);
        for (int tries = 1; ; tries++)
        {
            try
            {
                await shared.Follow(plans, Starter.Plant, stopping);
                return;
            }
            catch (LostUpdateException) when (tries < MostTries)
            {
                // Somebody changed the site's palette meanwhile: what is theirs now is looked at again.
                log.LogInformation("The palette of site {Site} changed while it followed the shared one; tried again.", site);
            }
        }
    }
}
