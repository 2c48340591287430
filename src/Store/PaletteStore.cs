using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes, retires and removes plants of the palette.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class PaletteStore(PlanStore plans)
{
    /// <summary>Writes plants, new ones and changed ones, all or none.</summary>
    /// <param name="plants">The plants.</param>
    /// <param name="read">The versions of those that they were worked out from; what it does not hold is new.</param>
    /// <param name="recipes">New recipes that go with them; null for none.</param>
    /// <exception cref="LostUpdateException">Someone changed one of them in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, or a plant in use would no longer fit where it stands.</exception>
    public Task Put(IReadOnlyList<Plant> plants, PlanVersions read, IReadOnlyList<Recipe>? recipes = null)
    {
        var faults = new FaultList();
        foreach (Plant plant in plants)
            faults.AddAll(plant.Id, plant.Faults());
        foreach (Recipe recipe in recipes ?? [])
            faults.AddAll(recipe.Id, recipe.Faults());
        faults.ThrowIfAny();
        return plans.Write(async edit =>
        {
            await edit.Expect("plant", plants.Select(p => (p.Id, read.Plant(p.Id) is > 0 and var v ? v : (long?)null)), id => $"The plant {id}");
            await edit.Put(plants);
            if (recipes is { Count: > 0 })
            {
                await edit.Expect("recipe", recipes.Select(r => (r.Id, (long?)null)), id => $"The recipe {id}");
                await edit.Put(recipes);
            }
            return true;
        });
    }

    /// <summary>Adds a plant, or changes it at the version it was read.</summary>
    /// <param name="plant">Its figures.</param>
    /// <param name="version">The version they were read at; null for a new plant.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, its id is taken, or it would no longer fit where it stands.</exception>
    public Task Save(Plant plant, long? version)
    {
        IReadOnlyList<Fault> faults = plant.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return plans.Write(async edit =>
        {
            await edit.Expect("plant", [(plant.Id, version)], _ => $"The plant {plant.CommonName}");
            await edit.Put([plant]);
            return true;
        });
    }

    /// <summary>Removes a plant that nothing uses.</summary>
    /// <exception cref="InvalidInputException">Displays, lots or recipes use it; they are named, and retirement is offered.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            var uses = (
                await edit.Query<string>(
                    """
                    select distinct p.name || ' from ' || lower(d.during)::text
                    from display_item i
                    join display d on d.id = i.display_id
                    join planter p on p.id = d.planter_id
                    where i.plant_id = @id
                    union all
                    select 'lot ' || id from lot where plant_id = @id
                    union all
                    select 'recipe ' || name from recipe where details -> 'items' @> jsonb_build_array(jsonb_build_object('plantId', @id))
                    order by 1
                    """,
                    new { id }
                )
            ).ToList();
            if (uses.Count > 0)
                throw new InvalidInputException(
                    string.Empty,
                    $"It is in use: {Some(uses)}. Retire it instead: what stands stays, and nothing new is planned with it."
                );
            await edit.Remove("plant", id, version, "The plant");
            return true;
        });

    /// <summary>The first few of a list, and how many more there are.</summary>
    internal static string Some(IReadOnlyList<string> names) =>
        string.Join(", ", names.Take(5)) + (names.Count > 5 ? $" and {names.Count - 5} more" : string.Empty);
}
