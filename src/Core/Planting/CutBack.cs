using NodaTime;

namespace UnrulyMeadow.Core.Planting;

/// <summary>A cut planned for one kind of plant in a display: deadheading hard, trimming, cutting down.</summary>
/// <param name="PlantId">What is cut; it must stand in the display.</param>
/// <param name="Day">When.</param>
/// <param name="HeightCm">How high the cut is made, cm; null for about half its height.</param>
public sealed record CutBack(string PlantId, LocalDate Day, double? HeightCm = null)
{
    /// <summary>Panicle hydrangeas and their like flower about two feet above the cut, cm (common practice).</summary>
    public const double FlowersAboveCutCm = 61;

    /// <summary>Days by which a cut in leaf, before the flowers, holds back what flowers once a year (common practice: weeks).</summary>
    public const int SpringDelayDays = 21;

    /// <summary>Share of its width that is left after a cut (common practice: by half).</summary>
    public const double WidthLeft = 0.6;

    /// <summary>How high a shrub that was cut flowers, cm: about two feet above the cut, and no higher than it grows.</summary>
    /// <param name="plant">The plant.</param>
    public double FlowersAtCm(Plants.Plant plant) => Math.Min(plant.HeightCm, (HeightCm ?? (plant.HeightCm / 2)) + FlowersAboveCutCm);

    /// <summary>
    /// Size of its flower heads against those of an uncut plant: fewer and larger the lower the cut, up to half as wide again
    /// at the ground (common practice).
    /// </summary>
    /// <param name="plant">The plant.</param>
    public double HeadSize(Plants.Plant plant) => 1 + (0.5 * Math.Clamp(1 - ((HeightCm ?? (plant.HeightCm / 2)) / plant.HeightCm), 0, 1));

    /// <summary>Share of the plants that is cut, 0 to 1; half of them keep flowering while the other half grows again.</summary>
    public double Share { get; init; } = 1;

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
