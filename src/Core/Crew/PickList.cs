using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Crew;

/// <summary>Plants of one kind that are taken from one place.</summary>
/// <param name="Place">Where they stand; null where none of ours serve, so that they are still to come or missing.</param>
/// <param name="Plant">The kind.</param>
/// <param name="Form">The form in which they stand.</param>
/// <param name="Count">How many.</param>
public sealed record Pick(string? Place, Plant Plant, GoodsForm Form, int Count);

/// <summary>What is taken from where for some tasks.</summary>
public static class PickList
{
    /// <summary>Works it out: each planting takes from the lots that the plan keeps for it.</summary>
    /// <param name="plan">The plan, with its stock.</param>
    /// <param name="tasks">The tasks.</param>
    /// <returns>By place, then by kind; what stands nowhere last.</returns>
    public static IReadOnlyList<Pick> Of(Plan plan, IReadOnlyCollection<CrewTask> tasks)
    {
        List<(CrewTask Task, TaskLine Line)> wanted =
        [
            .. tasks.SelectMany(t => t.Lines.Where(l => l is { Kind: LineKind.In, PlantId: not null }).Select(l => (t, l))),
        ];
        if (wanted.Count == 0)
            return [];
        HashSet<string> kinds = [.. wanted.Select(w => w.Line.PlantId!)];
        LocalDate from = wanted.Min(w => w.Task.Window.Best);
        ILookup<(string, LocalDate, string, string), StockReservation> kept = StockReservation
            .OfKinds(plan, kinds, from)
            .ToLookup(r => (r.PlanterId, r.Day, r.DisplayId, r.Lot.PlantId));
        var picks = new List<Pick>();
        foreach ((CrewTask task, TaskLine line) in wanted)
        {
            if (plan.FindPlant(line.PlantId) is not { } plant)
                continue;
            int open = line.Count;
            foreach (StockReservation lot in kept[(task.PlanterId ?? string.Empty, task.Window.Best, line.DisplayId ?? string.Empty, plant.Id)])
            {
                int count = Math.Min(open, lot.Count);
                open -= count;
                picks.Add(new Pick(lot.Lot.Place, plant, GoodsForm.Chosen(plant, lot.Lot.Form ?? line.Form), count));
            }
            if (open > 0)
                picks.Add(new Pick(null, plant, GoodsForm.Chosen(plant, line.Form), open));
        }
        return
        [
            .. picks
                .Where(p => p.Count > 0)
                .GroupBy(p => (p.Place, p.Plant.Id, p.Form.Name))
                .Select(g => g.First() with { Count = g.Sum(p => p.Count) })
                .OrderBy(p => p.Place is null)
                .ThenBy(p => p.Place, StringComparer.CurrentCulture)
                .ThenBy(p => p.Plant.CommonName, StringComparer.CurrentCulture),
        ];
    }
}
