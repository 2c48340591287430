using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Store;

/// <summary>Changes the site's map and where planters stand on it.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class MapStore(PlanStore plans)
{
    /// <summary>Writes features and planters' places together, all or none.</summary>
    /// <param name="features">Features, new ones and changed ones.</param>
    /// <param name="planters">Planters whose place or form changed, and new ones.</param>
    /// <param name="newAreas">Areas to make first.</param>
    /// <param name="read">The versions of what they were worked out from; what it does not hold is new.</param>
    /// <exception cref="LostUpdateException">Someone changed one of them in between.</exception>
    public Task Put(IReadOnlyList<MapFeature> features, IReadOnlyList<Planter> planters, IReadOnlyList<Area> newAreas, PlanVersions read)
    {
        var faults = new FaultList();
        foreach (MapFeature feature in features)
            faults.AddAll(feature.Id, feature.Faults());
        foreach (Planter planter in planters)
            faults.AddAll(planter.Id, planter.Faults());
        foreach (Area area in newAreas)
            faults.AddAll(area.Id, area.Faults());
        faults.ThrowIfAny();
        return plans.Write(async edit =>
        {
            await edit.Expect("map_feature", features.Select(f => (f.Id, Known(read.Feature(f.Id)))), id => $"The map's {id}");
            await edit.Expect("planter", planters.Select(p => (p.Id, Known(read.Planter(p.Id)))), id => $"The planter {id}");
            await edit.Put(newAreas);
            await edit.Put(features);
            await edit.Put(planters);
            return true;
        });
    }

    /// <summary>Removes a feature.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("map_feature", id, version, "This part of the map");
            return true;
        });

    private static long? Known(long version) => version == 0 ? null : version;
}
