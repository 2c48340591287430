using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Planning;

/// <summary>Bulbs of one kind that a planner wants in a planter.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">How many.</param>
/// <param name="DepthCm">The chosen depth to the base, cm; null to follow the rule.</param>
public sealed record PlannedBulb(Plant Plant, int Count, double? DepthCm)
{
    /// <summary>How many go into one clump; null to spread them evenly.</summary>
    public int? Clump { get; init; }
}
