using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Stacks;

/// <summary>Fewest bulbs of one kind that read as a group rather than as strays (common practice).</summary>
public static class BulbCluster
{
    /// <summary>Of one kind in a bed.</summary>
    public const int InBed = 10;

    /// <summary>Small bulbs in a container: one clump.</summary>
    public const int SmallInContainer = 5;

    /// <summary>Large bulbs in a container.</summary>
    public const int InContainer = 3;

    /// <summary>Bulbs lower than this are small, cm.</summary>
    public const double SmallCm = 3;

    /// <summary>Bulbs that make a display in a bed.</summary>
    public const int MakeABed = 50;

    /// <summary>Beds this large are asked for a display, cm².</summary>
    public const double DisplayBedCm2 = 20_000;

    /// <summary>
    /// From the middle of one clump to the next when so many are spread evenly over a planter, in threes: √(2/√3 · surface/clumps), cm.
    /// </summary>
    public static double BetweenClumpsCm(Planter planter, int clumps) => Math.Sqrt(2 / Math.Sqrt(3) * planter.Form.SurfaceCm2 / Math.Max(1, clumps));

    /// <summary>The fewest of one kind in a planter.</summary>
    public static int Least(Planter planter, BulbFigures bulb) =>
        planter.Form.IsBed ? InBed
        : bulb.HeightCm < SmallCm ? SmallInContainer
        : InContainer;
}
