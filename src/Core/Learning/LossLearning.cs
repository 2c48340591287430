using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Learning;

/// <summary>What losses in the log teach of some plants: which share of what is planted is lost here.</summary>
/// <param name="Plant">The kind; null for all kinds of which spares are ordered.</param>
/// <param name="Planted">Plants that stood where somebody looked.</param>
/// <param name="Lost">Of these, plants that died, were eaten, stolen or broken.</param>
/// <param name="Planters">Plantings of which this is known.</param>
/// <param name="Posterior">The share that is lost, as believed now.</param>
public sealed record LossLearning(Plant? Plant, int Planted, int Lost, int Planters, ShareBelief Posterior)
{
    /// <summary>
    /// What befalls a planter befalls all that stands in it: however many plants it holds, it counts as no more than so many seen by themselves
    /// (common practice).
    /// </summary>
    public const int MostFromOnePlanting = 10;

    /// <summary>One of twenty is lost, as sure as if a tray of twenty had been seen (common practice: what is ordered beyond the count).</summary>
    public static ShareBelief Prior { get; } = new(1, 19);

    /// <summary>
    /// Reads the log. A planting teaches what an entry says that names the kind, or a review of its planter if the kind stands in leaf; any other
    /// teaches nothing: silence is no survival.
    /// </summary>
    /// <param name="plan">The plan, with what stood where.</param>
    /// <param name="log">The log.</param>
    /// <param name="today">Today.</param>
    /// <returns>Kinds, those first of which most is lost, and all kinds of which spares are ordered taken together.</returns>
    public static (IReadOnlyList<LossLearning> Kinds, LossLearning All) Of(Plan plan, IEnumerable<Observation> log, LocalDate today)
    {
        ILookup<string, Observation> of = log.Where(o => o.Counts).ToLookup(o => o.PlanterId, StringComparer.Ordinal);
        var plantings = new List<(Plant Plant, int Planted, int Lost)>();
        foreach (Display display in plan.Displays.Where(d => d.Install <= today))
        {
            List<Observation> seen = [.. of[display.PlanterId].Where(o => o.Day >= display.Install && o.Day <= display.Lift)];
            foreach (var item in display.Items.GroupBy(i => i.PlantId, StringComparer.Ordinal))
            {
                if (
                    plan.FindPlant(item.Key) is not { } plant
                    || !seen.Any(o => o.PlantId == plant.Id || (o.Kind == ObservationKind.Reviewed && plant.GoesOutInLeaf))
                )
                    continue;
                int planted = item.Sum(i => i.Count);
                int lost = seen.Where(o => o.PlantId == plant.Id && Observation.IsLoss(o.Kind)).Sum(o => o.Count ?? 1);
                plantings.Add((plant, planted, Math.Min(planted, lost)));
            }
        }
        return (
            [
                .. plantings
                    .GroupBy(p => p.Plant.Id, StringComparer.Ordinal)
                    .Select(g => Of(g.First().Plant, [.. g]))
                    .OrderByDescending(l => l.Posterior.Mean)
                    .ThenBy(l => l.Plant!.CommonName, StringComparer.Ordinal),
            ],
            Of(null, [.. plantings.Where(p => !p.Plant.IsLasting && p.Plant.LifeForm != LifeForm.CutStems)])
        );
    }

    private static LossLearning Of(Plant? plant, IReadOnlyList<(Plant Plant, int Planted, int Lost)> plantings)
    {
        ShareBelief now = Prior;
        foreach ((_, int planted, int lost) in plantings)
        {
            double weight = Math.Min(1, (double)MostFromOnePlanting / planted);
            now = now.After(lost * weight, planted * weight);
        }
        return new LossLearning(plant, plantings.Sum(p => p.Planted), plantings.Sum(p => p.Lost), plantings.Count, now);
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            WorkingKind.LossesLearnt,
            Quantity.Share(Posterior.Mean),
            [new WorkingInput(InputName.PlantedSeen, Planted), new WorkingInput(InputName.LostSeen, Lost)],
            [
                new Fact(
                    WorkingPhrase.LossesLearntStep,
                    ("planters", Planters),
                    ("most", MostFromOnePlanting),
                    ("hits", Quantity.Number(Posterior.Hits - Prior.Hits, 1)),
                    ("all", Quantity.Number(Posterior.Hits + Posterior.Misses - Prior.Hits - Prior.Misses, 1)),
                    ("low", Quantity.Share(Posterior.Nine.Low)),
                    ("high", Quantity.Share(Posterior.Nine.High))
                ),
            ]
        )
        {
            Parts = Plant is { } plant ? [("plant", plant)] : [],
        };
}
