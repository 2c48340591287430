using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes events.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class EventStore(PlanStore plans)
{
    /// <summary>Adds or changes an event.</summary>
    /// <param name="what">The event.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <exception cref="InvalidInputException">It is faulty, or its id is taken.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task Save(SiteEvent what, long? version)
    {
        IReadOnlyList<Fault> faults = what.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return plans.Write(async edit =>
        {
            await edit.Expect("site_event", [(what.Id, version)], _ => $"The event {what.Name}");
            await edit.Put([what]);
            return true;
        });
    }

    /// <summary>Removes an event.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("site_event", id, version, "This event");
            return true;
        });
}
