using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes planters.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class PlanterStore(PlanStore plans)
{
    /// <summary>Adds planters after the others, with the area that they stand in where it is new; all or none.</summary>
    /// <param name="planters">The planters.</param>
    /// <param name="newArea">The area to make first; null for none.</param>
    /// <exception cref="InvalidInputException">A figure is out of range, a name is taken, or an area is gone.</exception>
    public Task Add(IReadOnlyList<Planter> planters, Area? newArea = null)
    {
        Check(planters, newArea);
        return plans.Write(async edit =>
        {
            await edit.Expect("planter", planters.Select(p => (p.Id, (long?)null)), id => $"The planter {id}");
            await edit.Put(newArea is null ? Array.Empty<Area>() : [newArea]);
            await edit.Put(planters);
            return true;
        });
    }

    /// <summary>Adds planters and changes others, with the areas that are new; all or none.</summary>
    /// <param name="planters">The planters as they become.</param>
    /// <param name="newAreas">Areas to make first.</param>
    /// <param name="read">The versions that they were worked out from.</param>
    /// <exception cref="InvalidInputException">A figure is out of range, or a name is taken.</exception>
    /// <exception cref="LostUpdateException">Someone saved one of them in between.</exception>
    public Task Put(IReadOnlyList<Planter> planters, IReadOnlyList<Area> newAreas, PlanVersions read)
    {
        Check(planters, null);
        return plans.Write(async edit =>
        {
            await edit.Expect("planter", planters.Select(p => (p.Id, read.Planter(p.Id) is > 0 and var version ? version : (long?)null)), id =>
                $"The planter {id}"
            );
            await edit.Put(newAreas);
            await edit.Put(planters);
            return true;
        });
    }

    /// <summary>Changes a planter.</summary>
    /// <param name="planter">Its new figures.</param>
    /// <param name="version">The version they were read at.</param>
    /// <param name="newArea">The area that it moves to, to be made first; null for one that is there.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, its name is taken, or its area is gone.</exception>
    public Task Save(Planter planter, long version, Area? newArea = null)
    {
        Check([planter], newArea);
        return plans.Write(async edit =>
        {
            await edit.Expect("planter", [(planter.Id, version)], _ => $"The planter {planter.Name}");
            await edit.Put(newArea is null ? Array.Empty<Area>() : [newArea]);
            await edit.Put([planter]);
            return true;
        });
    }

    /// <summary>Removes a planter that nothing was ever planned for. Its photographs stay, as the log does.</summary>
    /// <exception cref="InvalidInputException">Displays or lots name it; they are named, and retirement is offered.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            var uses = (
                await edit.Query<string>(
                    """
                    select 'display ' || id from display where planter_id = @id
                    union all
                    select 'lot ' || id from lot where from_planter_id = @id
                    order by 1
                    """,
                    new { id }
                )
            ).ToList();
            if (uses.Count > 0)
                throw new InvalidInputException(
                    string.Empty,
                    $"It is in use by {PaletteStore.Some(uses)}. Retire it instead: its history stays, and nothing new is planned for it."
                );
            await edit.Remove("planter", id, version, "The planter");
            return true;
        });

    private static void Check(IReadOnlyList<Planter> planters, Area? newArea)
    {
        var faults = new FaultList();
        if (newArea is not null)
            faults.AddAll("area", newArea.Faults());
        foreach (Planter planter in planters)
            faults.AddAll(string.Empty, planter.Faults());
        faults.ThrowIfAny();
    }
}
