using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;

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

    /// <summary>Moves plants of a lot to another site, where they are a lot of their own; both sites tell of it, or neither.</summary>
    /// <param name="lotId">The lot.</param>
    /// <param name="version">The version at which it was read.</param>
    /// <param name="count">How many.</param>
    /// <param name="other">The other site's plan.</param>
    /// <param name="day">The day.</param>
    /// <exception cref="InvalidInputException">There are not so many, or the other site does not know the kind.</exception>
    /// <exception cref="LostUpdateException">Somebody has changed the lot in between.</exception>
    public Task Move(string lotId, long version, int count, PlanStore other, LocalDate day)
    {
        string from = string.Empty;
        return plans.WriteBoth(
            other,
            async edit =>
            {
                await edit.Expect("lot", [(lotId, version)], _ => "This lot");
                Plan plan = edit.Before.Plan;
                Lot lot = plan.Lots.First(l => l.Id == lotId);
                if (count < 1 || count > lot.Count)
                    throw new InvalidInputException("count", $"must be from 1 to the {lot.Count} that are there");
                await edit.Because(MovementKind.Moved, day);
                await edit.Put([lot with { Count = lot.Count - count }]);
                from = plan.Site.Name;
                return (Lot: lot, Plant: plan.Plant(lot.PlantId));
            },
            async (edit, handed) =>
            {
                Plan plan = edit.Before.Plan;
                // One id may stand for different kinds where palettes were not shared.
                if (
                    plan.FindPlant(handed.Plant.Id) is not { IsRetired: false } plant
                    || !plant.BotanicalName.Equals(handed.Plant.BotanicalName, StringComparison.OrdinalIgnoreCase)
                )
                    throw new InvalidInputException(
                        "site",
                        $"{plan.Site.Name} has no {handed.Plant.CommonName} in its palette: add the kind there first"
                    );
                string said = $"From {from}. {handed.Lot.Note}".Trim();
                await edit.Because(MovementKind.Moved, day);
                await edit.Put([
                    handed.Lot with
                    {
                        Id = Ids.From($"{plant.Id}-{day.ToString("uuuu-MM", null)}", x => plan.Lots.Any(l => l.Id == x)),
                        Count = count,
                        Place = PlainText.Cut($"from {from}", 60),
                        FromPlanterId = null,
                        Note = PlainText.Cut(said, Lot.MostNote),
                        Form = GoodsForm.Of(plant).Any(f => f.Name == handed.Lot.Form) ? handed.Lot.Form : null,
                    },
                ]);
            },
            handed => ($"{count} {handed.Plant.CommonName} moved to another site", $"{count} {handed.Plant.CommonName} from {from}")
        );
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
