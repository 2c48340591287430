using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>Leaves of one bulb that stand over the flowers of another.</summary>
/// <param name="Early">The small one in flower.</param>
/// <param name="Late">The one whose leaves are up.</param>
/// <param name="LeafCm">How high those leaves stand on that day, cm.</param>
public sealed record LeavesOver(BloomForecast Early, BloomForecast Late, double LeafCm)
{
    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.LeavesOverFlower,
            new Fact(WorkingPhrase.LeavesOverFlowerValueOver, ("leaf", Quantity.Cm(LeafCm)), ("height", Quantity.Cm(Early.Plant.HeightCm))),
            [
                new WorkingInput(InputName.Day, new Fact(WorkingPhrase.HalfOpen, ("half", Early.Half!.Value))),
                new WorkingInput(
                    Late.Plant,
                    new Fact(WorkingPhrase.InFlowerFrom, ("height", Quantity.Cm(Late.Plant.HeightCm)), ("first", Late.First!.Value))
                ),
            ]
        )
        {
            Parts =
            [
                ("plant", Late.Plant),
                ("plant2", Early.Plant),
                ("risingDays", BulbShoot.RisingDays),
                ("leafShare", Quantity.Number(BulbShoot.LeafShare, 2)),
                ("highestLeaf", Quantity.Cm(BulbShoot.HighestLeafCm)),
            ],
        };
}

/// <summary>How far a bulb's shoot and leaves have come on a day.</summary>
public static class BulbShoot
{
    /// <summary>Days before first colour over which a shoot rises (common practice).</summary>
    public const int RisingDays = 38;

    /// <summary>Leaves reach this share of the height in flower (common practice).</summary>
    public const double LeafShare = 0.62;

    /// <summary>Leaves of tall bulbs stay below this, cm (common practice).</summary>
    public const double HighestLeafCm = 36;

    // Leaves hide flowers when they reach this share of their height.
    private const double Covers = 0.85;

    /// <summary>Share of its height that a shoot has on a day, 0 to 1.</summary>
    /// <param name="day">The day.</param>
    /// <param name="first">First colour.</param>
    public static double Grown(LocalDate day, LocalDate first) => Math.Clamp(1 - (Period.DaysBetween(day, first) / (double)RisingDays), 0, 1);

    /// <summary>Height of full leaves, cm.</summary>
    public static double LeafCm(Plant plant) => Math.Min(HighestLeafCm, LeafShare * plant.HeightCm);

    /// <summary>Whether the leaves of a later bulb stand over an earlier one in full flower; null when they do not.</summary>
    public static LeavesOver? Hides(BloomForecast early, BloomForecast late)
    {
        if (early.Half is not { } half || late.First is not { } first || first <= half)
            return null;
        double leaf = Grown(half, first) * LeafCm(late.Plant);
        return leaf > Covers * early.Plant.HeightCm ? new LeavesOver(early, late, leaf) : null;
    }
}
