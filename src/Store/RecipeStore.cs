using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Keeps recipes: displays saved as patterns for other planters.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class RecipeStore(PlanStore plans)
{
    /// <summary>Adds a recipe.</summary>
    /// <exception cref="InvalidInputException">It is faulty, or its name is taken.</exception>
    public Task Add(Recipe recipe)
    {
        IReadOnlyList<Fault> faults = recipe.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return plans.Write(async edit =>
        {
            await edit.Expect("recipe", [(recipe.Id, null)], _ => "This recipe");
            await edit.Put([recipe]);
            return true;
        });
    }

    /// <summary>Removes a recipe; what was planted from it stays.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("recipe", id, version, "This recipe");
            return true;
        });
}
