using NodaTime;

namespace UnrulyMeadow.Core.Palette;

/// <summary>A cut planned for one kind of plant in a display: deadheading hard, trimming, cutting down.</summary>
/// <param name="PlantId">What is cut; it must stand in the display.</param>
/// <param name="Day">When.</param>
/// <param name="HeightCm">How high the cut is made, cm; null for about half its height.</param>
public sealed record CutBack(string PlantId, LocalDate Day, double? HeightCm = null)
{
    /// <summary>Panicle hydrangeas and their like flower about two feet above the cut, cm (common practice).</summary>
    public const double FlowersAboveCutCm = 61;

    // What flowers once a year is held back by three weeks when it is cut to half in leaf, by five at the most (common practice).
    private const double DelayAtGroundDays = 42;
    private const double MostDelayDays = 35;

    // Of its width a fifth is left after a cut at the ground, three fifths at half its height (common practice).
    private const double WidthAtGround = 0.2;

    /// <summary>The height of the cut as a share of the plant's, 0 to 1.</summary>
    /// <param name="plant">The plant.</param>
    public double HeightShare(Palette.Plant plant) => HeightCm is { } height ? Math.Clamp(height / plant.HeightCm, 0, 1) : 0.5;

    /// <summary>Days by which a cut in leaf, before the flowers, holds back what flowers once a year: the more the lower.</summary>
    /// <param name="plant">The plant.</param>
    public int DelayDays(Palette.Plant plant) => (int)Math.Round(Math.Min(MostDelayDays, DelayAtGroundDays * (1 - HeightShare(plant))));

    /// <summary>Share of its width that is left: what is shorn covers little until it has grown again.</summary>
    /// <param name="plant">The plant.</param>
    public double WidthLeft(Palette.Plant plant) => WidthAtGround + ((1 - WidthAtGround) * HeightShare(plant));

    /// <summary>How high a shrub that was cut flowers, cm: about two feet above the cut, and no higher than it grows.</summary>
    /// <param name="plant">The plant.</param>
    public double FlowersAtCm(Palette.Plant plant) => Math.Min(plant.HeightCm, (HeightCm ?? (plant.HeightCm / 2)) + FlowersAboveCutCm);

    /// <summary>
    /// Size of its flower heads against those of an uncut plant: fewer and larger the lower the cut, up to half as wide again
    /// at the ground (common practice).
    /// </summary>
    /// <param name="plant">The plant.</param>
    public double HeadSize(Palette.Plant plant) => 1 + (0.5 * (1 - HeightShare(plant)));

    /// <summary>Share of the plants that is cut, 0 to 1; half of them keep flowering while the other half grows again.</summary>
    public double Share { get; init; } = 1;

    /// <summary>
    /// Which plants each cut falls on, with their share of the kind: cuts of shares that together make no more than all fall on
    /// different plants; otherwise they fall on the same, as many as the largest.
    /// </summary>
    /// <param name="cuts">Cuts of one kind.</param>
    public static IReadOnlyList<(double Share, IReadOnlyList<CutBack> Cuts)> Groups(IReadOnlyList<CutBack> cuts) =>
        cuts.Count == 0 ? []
        : cuts.Count > 1 && cuts.Sum(c => c.Share) <= 1.0001 ? [.. cuts.Select(c => (c.Share, (IReadOnlyList<CutBack>)[c]))]
        : [(cuts.Max(c => c.Share), cuts)];

    /// <summary>Every fault of the cut on its own.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("plantId", PlantId, 60);
        if (HeightCm is { } height)
            faults.Range("heightCm", height, 1, 1000, "cm");
        faults.Range("share", Share, 0.05, 1, string.Empty);
        return faults.Faults;
    }
}
