using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Acts;

/// <summary>What an act does to one planter.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Before">Displays that change, as they are.</param>
/// <param name="After">The same, by the same ids, as they become.</param>
/// <param name="Added">Displays that are new.</param>
/// <param name="Removed">Displays that go.</param>
/// <param name="Remarks">Why nothing is done, or not all that was asked: each an <see cref="ActHinder"/>.</param>
public sealed record PlanterAct(
    Planter Planter,
    IReadOnlyList<Display> Before,
    IReadOnlyList<Display> After,
    IReadOnlyList<Display> Added,
    IReadOnlyList<Display> Removed,
    IReadOnlyList<Fact> Remarks
)
{
    /// <summary>True when something changes.</summary>
    public bool Changes => After.Count + Added.Count + Removed.Count > 0;
}

/// <summary>What an act does to all planters that were chosen.</summary>
/// <param name="Question">The act.</param>
/// <param name="Planters">What becomes of each, in the order of the plan.</param>
public sealed record ActAnswer(ActQuestion Question, IReadOnlyList<PlanterAct> Planters)
{
    /// <summary>Plants more, or fewer below zero, than were planned, by kind; kinds that stay the same are left out.</summary>
    public IReadOnlyDictionary<string, int> Plants()
    {
        var counts = new Dictionary<string, int>(StringComparer.Ordinal);
        void Count(IEnumerable<Display> displays, int sign)
        {
            foreach (DisplayItem item in displays.SelectMany(d => d.Items))
                counts[item.PlantId] = counts.GetValueOrDefault(item.PlantId) + (sign * item.Count);
        }
        foreach (PlanterAct act in Planters)
        {
            Count(act.After.Concat(act.Added), 1);
            Count(act.Before.Concat(act.Removed), -1);
        }
        return counts.Where(c => c.Value != 0).ToDictionary(StringComparer.Ordinal);
    }

    /// <summary>What the plants that come cost more than those that go: each kind bought in its cheapest packs, with the site's spares.</summary>
    /// <param name="plan">The plan that it was asked of.</param>
    public decimal Cost(Plan plan) =>
        Plants()
            .Sum(p =>
            {
                Plant plant = plan.Plant(p.Key);
                int wanted = PackPurchase.WithSpares(Math.Abs(p.Value), plan.Site.SparesOf(plant));
                return Math.Sign(p.Value) * (plant.Packs.Count == 0 ? 0 : PackPurchase.Cheapest(wanted, plant.Packs).Cost);
            });

    /// <summary>The plan as it becomes.</summary>
    /// <param name="plan">The plan that it was asked of.</param>
    public Plan Made(Plan plan) =>
        plan.Changed(
            Planters.SelectMany(p => p.Before.Concat(p.Removed)).Select(d => d.Id).ToHashSet(StringComparer.Ordinal),
            [.. Planters.SelectMany(p => p.After.Concat(p.Added))]
        );
}
