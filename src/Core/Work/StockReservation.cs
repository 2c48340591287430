using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Work;

/// <summary>Plants of a lot that are kept for one planting.</summary>
/// <param name="Lot">The lot.</param>
/// <param name="PlanterId">The planter they go into.</param>
/// <param name="Day">The day they go in.</param>
/// <param name="DisplayId">The display they go in with.</param>
/// <param name="Count">How many.</param>
public sealed record StockReservation(Lot Lot, string PlanterId, LocalDate Day, string DisplayId, int Count)
{
    /// <summary>
    /// True when a lot may serve for a plant: it is neither poor nor in quarantine, and forced bulbs serve only where forced ones are planned.
    /// </summary>
    public static bool Serves(Lot lot, Plant plant, bool forced) =>
        lot.PlantId == plant.Id
        && lot.Count > 0
        && lot.Condition != LotCondition.Poor
        && lot.State != LotState.Quarantine
        && lot.State == LotState.Forced == forced;

    /// <summary>True for plants that still stand in a planter, and are kept when they come out of it.</summary>
    public bool IsToCome { get; init; }

    /// <summary>What displays that are not in the plan yet could take from the stock, each plant once.</summary>
    /// <param name="plan">The plan, with its stock.</param>
    /// <param name="reserved">What the plan takes already.</param>
    /// <param name="gone">Ids of displays that make way: what they take is free again.</param>
    /// <param name="wanted">The displays.</param>
    /// <returns>Plants, and what they would cost to buy at the least guide price of each kind.</returns>
    public static (int Plants, decimal Worth) AtHand(
        Plan plan,
        IEnumerable<StockReservation> reserved,
        IReadOnlySet<string> gone,
        IEnumerable<Display> wanted
    )
    {
        ILookup<string, StockReservation> taken = reserved
            .Where(r => !r.IsToCome && !gone.Contains(r.DisplayId))
            .ToLookup(r => r.Lot.Id, StringComparer.Ordinal);
        var lots = plan.Lots.Select(l => (Lot: l, Left: l.Count - taken[l.Id].Sum(r => r.Count))).Where(l => l.Left > 0).ToList();
        (int plants, decimal worth) = (0, 0);
        foreach (
            var of in wanted
                .SelectMany(d => d.Items.Select(i => (d.Install, i.PlantId, i.Forced, i.Count)))
                .GroupBy(i => (i.PlantId, i.Forced))
                .Where(g => plan.FindPlant(g.Key.PlantId) is not null)
        )
        {
            Plant plant = plan.Plant(of.Key.PlantId);
            int here = Math.Min(
                of.Sum(i => i.Count),
                lots.Where(l => Serves(l.Lot, plant, of.Key.Forced) && of.Any(i => i.Install >= l.Lot.Since)).Sum(l => l.Left)
            );
            plants += here;
            worth += here * (plant.Packs.Count == 0 ? 0 : plant.Packs.Min(p => p.Price / p.Size));
        }
        return (plants, Math.Round(worth, 2, MidpointRounding.AwayFromZero));
    }

    /// <summary>
    /// What the plan takes from the stock and from what it keeps itself until then, first planted first served, each plant
    /// once. Lots serve from the day since which they are kept; what goes into a bed for good serves nothing else.
    /// </summary>
    /// <param name="plan">The plan, with its stock.</param>
    /// <param name="changes">What is still to be done, in any order.</param>
    public static IReadOnlyList<StockReservation> Of(Plan plan, IEnumerable<Changeover> changes)
    {
        List<Changeover> toDo = [.. changes.OrderBy(c => c.Day)];
        List<Lot> lots = [.. plan.Lots, .. toDo.SelectMany(c => KeptPlants.ToPlantAgain(c, plan.Lots))];
        if (lots.Count == 0)
            return [];
        int[] left = [.. lots.Select(l => l.Count)];
        var taken = new List<StockReservation>();
        foreach (Changeover change in toDo)
        {
            foreach (ChangeoverItem item in change.ToPlant)
            {
                int wanted = item.Count;
                for (int i = 0; i < lots.Count && wanted > 0; i++)
                {
                    if (left[i] == 0 || lots[i].Since > change.Day || !Serves(lots[i], item.Plant, item.Item.Forced))
                        continue;
                    int count = Math.Min(left[i], wanted);
                    left[i] -= count;
                    wanted -= count;
                    taken.Add(
                        new StockReservation(lots[i], change.Planter.Id, change.Day, item.Display.Id, count) { IsToCome = i >= plan.Lots.Count }
                    );
                }
            }
        }
        return taken;
    }

    /// <summary>
    /// What of the stock is taken for some kinds from a day on. A lot serves its own kind alone: of thousands of planters, those that hold one of
    /// these kinds are all that take from the same lots.
    /// </summary>
    /// <param name="plan">The plan, with its stock.</param>
    /// <param name="kinds">Ids of kinds.</param>
    /// <param name="from">The first day.</param>
    public static IReadOnlyList<StockReservation> OfKinds(Plan plan, IReadOnlySet<string> kinds, LocalDate from) =>
        !plan.Lots.Any(l => l.Count > 0 && kinds.Contains(l.PlantId))
            ? []
            :
            [
                .. Of(
                        plan,
                        plan.Planters.Where(p => plan.DisplaysOf(p.Id).Any(d => d.Lift >= from && d.Items.Any(i => kinds.Contains(i.PlantId))))
                            .SelectMany(p => Changeover.Of(plan, p))
                            .Where(c => c.Day >= from)
                    )
                    .Where(r => !r.IsToCome && kinds.Contains(r.Lot.PlantId)),
            ];
}
