using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes lots of plants at hand.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class LotStore(PlanStore plans)
{
    /// <summary>Adds a lot, or changes it at the version it was read.</summary>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, or plant or planter is gone.</exception>
    public Task Save(Lot lot, long? version)
    {
        IReadOnlyList<Fault> faults = lot.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return plans.Write(async edit =>
        {
            await edit.Expect("lot", [(lot.Id, version)], _ => "This lot");
            await edit.Put([lot]);
            return true;
        });
    }

    /// <summary>Removes a lot.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("lot", id, version, "This lot");
            return true;
        });
}

/// <summary>A lot as its table holds it.</summary>
internal sealed record LotRow(
    string Id,
    string PlantId,
    int Count,
    string State,
    string Place,
    LocalDate Since,
    string Condition,
    string? FromPlanterId,
    string Note,
    string? Form,
    long Version
)
{
    public Lot ToLot() =>
        new(Id, PlantId, Count, Enum.Parse<LotState>(State), Place, Since, Enum.Parse<LotCondition>(Condition), FromPlanterId, Note, Form);
}
