using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes displays and turns.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class DisplayStore(PlanStore plans)
{
    // Enough for the words of any change; what is longer is cut.
    internal const int MostSaid = 200;

    /// <summary>Writes a display with its plants, whole or not at all.</summary>
    /// <param name="display">The display.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <param name="what">What the change does, in a few words; null to name the display.</param>
    /// <exception cref="InvalidInputException">It is faulty, or another display fills the layer in part of that time.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task Save(Display display, long? version, string? what = null)
    {
        Throw(display.Faults());
        return plans.Write(
            async edit =>
            {
                await edit.Expect("display", [(display.Id, version)], _ => "This display");
                await edit.Put([display]);
                return true;
            },
            what
        );
    }

    /// <summary>Adds displays, all of them or none.</summary>
    /// <exception cref="InvalidInputException">One is faulty, or its layer is filled in part of that time.</exception>
    public Task AddAll(IReadOnlyList<Display> displays)
    {
        foreach (Display display in displays)
            Throw(display.Faults());
        return plans.Write(async edit =>
        {
            await edit.Expect("display", displays.Select(d => (d.Id, (long?)null)), _ => "This display");
            await edit.Put(displays);
            return true;
        });
    }

    /// <summary>Removes a display.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("display", id, version, "This display");
            return true;
        });

    /// <summary>Adds or changes a turn.</summary>
    /// <param name="turn">The turn.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    public Task SaveTurn(Turn turn, long? version)
    {
        Throw(turn.Faults());
        return plans.Write(async edit =>
        {
            await edit.Expect("turn", [(turn.Id, version)], _ => $"The turn {turn.Name}");
            await edit.Put([turn]);
            return true;
        });
    }

    private static void Throw(IReadOnlyList<Fault> faults)
    {
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
    }
}
