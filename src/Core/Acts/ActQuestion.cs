using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Acts;

/// <summary>An act on many planters at once, as it is asked.</summary>
/// <param name="Kind">What is done.</param>
/// <param name="PlanterIds">The planters, each once.</param>
/// <param name="Start">First day of the plan year whose displays are meant.</param>
/// <param name="From">The first day that can still be changed: today, or a later one.</param>
public sealed record ActQuestion(ActKind Kind, IReadOnlyList<string> PlanterIds, LocalDate Start, LocalDate From)
{
    /// <summary>Most days by which displays can be moved at once.</summary>
    public const int MostDays = 180;

    /// <summary>How near a display must go in to a turn to be moved to it, days.</summary>
    public const int NearTurnDays = 45;

    /// <summary>The recipe, for <see cref="ActKind.PlantRecipe"/>.</summary>
    public string? RecipeId { get; init; }

    /// <summary>The display, for <see cref="ActKind.CopyDisplay"/>.</summary>
    public string? DisplayId { get; init; }

    /// <summary>The planter that is copied, for <see cref="ActKind.CopyYear"/>.</summary>
    public string? SourceId { get; init; }

    /// <summary>
    /// The turn, for <see cref="ActKind.MoveToTurn"/>; for <see cref="ActKind.PlantRecipe"/> the turn over whose days the crew plants it, or
    /// null for one day.
    /// </summary>
    public string? TurnId { get; init; }

    /// <summary>Kinds that stay on in what a recipe is planted over, for <see cref="ActKind.PlantRecipe"/>.</summary>
    public IReadOnlyList<string> Stays { get; init; } = [];

    /// <summary>The kind that goes, for <see cref="ActKind.ReplaceKind"/>.</summary>
    public string? OldPlantId { get; init; }

    /// <summary>The kind that comes, for <see cref="ActKind.ReplaceKind"/>.</summary>
    public string? NewPlantId { get; init; }

    /// <summary>Days later, or earlier below zero, for <see cref="ActKind.MoveByDays"/>.</summary>
    public int Days { get; init; }

    /// <summary>The day on which it goes in, for <see cref="ActKind.PlantRecipe"/> in no turn; null for others.</summary>
    public LocalDate? Install { get; init; }

    /// <summary>The day on which it comes out, for <see cref="ActKind.PlantRecipe"/>; null for what stands for good.</summary>
    public LocalDate? Lift { get; init; }

    /// <summary>The layer that is acted on; null for seasonal displays and bulbs.</summary>
    public DisplayLayer? Layer { get; init; }

    /// <summary>Every fault of the question.</summary>
    /// <param name="plan">The plan.</param>
    public IReadOnlyList<Fault> Faults(Plan plan)
    {
        var faults = new FaultList();
        if (PlanterIds.Count == 0)
            faults.Add("planters", "choose at least one");
        foreach (string id in PlanterIds.Where(p => plan.FindPlanter(p) is null).Take(3))
            faults.Add("planters", $"the planter {id} is no longer in the plan");
        switch (Kind)
        {
            case ActKind.PlantRecipe:
                Recipe? recipe = plan.Recipes.FirstOrDefault(r => r.Id == RecipeId);
                if (recipe is null)
                    faults.Add("recipe", "choose one");
                Turn? turn = plan.Turns.FirstOrDefault(t => t.Id == TurnId);
                if (TurnId is not null && turn is null)
                    faults.Add("turn", "is no longer in the plan: choose another, or a day");
                else if ((turn?.LastDay ?? Install) is not { } install)
                    faults.Add("install", "must be a date, or choose a turn");
                else if (install < From)
                    faults.Add("install", $"must not be before {From.ToString("d MMM uuuu", null)}");
                else if (Lift is { } lift && lift <= install)
                    faults.Add("lift", "must be after the day on which it goes in");
                if (Lift is null && recipe is not null && recipe.Layer != DisplayLayer.Standing)
                    faults.Add("lift", "must be a date");
                break;
            case ActKind.CopyDisplay when plan.Displays.All(d => d.Id != DisplayId):
                faults.Add("display", "choose one");
                break;
            case ActKind.CopyYear when plan.FindPlanter(SourceId) is null:
                faults.Add("source", "choose the planter that is copied");
                break;
            case ActKind.MoveByDays when Days is 0 or < -MostDays or > MostDays:
                faults.Add("days", $"must be a whole number from −{MostDays} to {MostDays}, and not 0");
                break;
            case ActKind.MoveToTurn when plan.Turns.All(t => t.Id != TurnId):
                faults.Add("turn", "choose one");
                break;
            case ActKind.ReplaceKind:
                if (plan.FindPlant(OldPlantId) is null)
                    faults.Add("oldPlant", "choose the kind that goes");
                if (plan.FindPlant(NewPlantId) is null)
                    faults.Add("newPlant", "choose the kind that comes");
                else if (OldPlantId == NewPlantId)
                    faults.Add("newPlant", "must be another kind than the one that goes");
                break;
        }
        return faults.Faults;
    }
}
