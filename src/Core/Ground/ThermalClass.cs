using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>What stands between a container and the open air besides its wall.</summary>
public enum WinterShelter
{
    /// <summary>Alone in the open.</summary>
    Open,

    /// <summary>Pushed together with others: half the wall loses no heat.</summary>
    Grouped,

    /// <summary>Wrapped in 5 cm of straw, leaves or bubble film (R 0.6 m²K/W on the wall).</summary>
    Wrapped,

    /// <summary>In an unheated, closed room from the first freeze on.</summary>
    UnheatedRoom,
}

/// <summary>What covers the surface.</summary>
public enum SurfaceCover
{
    /// <summary>Bare.</summary>
    Bare,

    /// <summary>Thin litter, dead leaves, the remains of a display (R 0.2 m²K/W).</summary>
    Litter,

    /// <summary>5 cm of mulch (R 0.6 m²K/W).</summary>
    Mulch,
}

/// <summary>
/// All that decides the temperature inside a planter, so that planters alike in it are computed once. Two classes are
/// the same when all members are equal.
/// </summary>
/// <param name="IsBed">A bed has no wall.</param>
/// <param name="AreaM2">Inside area at half depth, m²; 1 in a bed.</param>
/// <param name="PerimeterM">Inside perimeter at half depth, m; 0 in a bed.</param>
/// <param name="HalfWidthM">From the wall to the middle, m; 0 in a bed.</param>
/// <param name="DepthM">Depth of medium, m; ignored in a bed.</param>
/// <param name="WallResistance">Of the wall, m²K/W.</param>
/// <param name="WallAbsorptance">Share of the sun on the wall that warms it, 0 to 1.</param>
/// <param name="Sun">Direct sun.</param>
/// <param name="OnFeet">True when air passes beneath; otherwise it stands on paving.</param>
/// <param name="Cover">What covers the surface.</param>
/// <param name="Shelter">What stands around it in winter.</param>
/// <param name="Medium">What it is filled with.</param>
public sealed record ThermalClass(
    bool IsBed,
    double AreaM2,
    double PerimeterM,
    double HalfWidthM,
    double DepthM,
    double WallResistance,
    double WallAbsorptance,
    Exposure Sun,
    bool OnFeet,
    SurfaceCover Cover,
    WinterShelter Shelter,
    Medium Medium
)
{
    /// <summary>Roots are looked for this far inside a container's wall, m; most roots run there.</summary>
    public const double RootsInsideWallM = 0.02;

    /// <summary>Less mulch than this counts as litter, cm.</summary>
    public const double LeastMulchCm = 3;

    /// <summary>Roots in a bed are looked for at this depth, m.</summary>
    public const double BedRootDepthM = 0.15;

    /// <summary>A bed.</summary>
    public static ThermalClass Bed(SurfaceCover cover, Exposure sun = Exposure.FullSun) =>
        new(true, 1, 0, 0, 0, 0, 0, sun, false, cover, WinterShelter.Open, Medium.Soil);

    /// <summary>A round pot with straight sides.</summary>
    /// <param name="diameterCm">Inside, cm.</param>
    /// <param name="depthCm">Of medium, cm.</param>
    /// <param name="wall">Its wall.</param>
    /// <param name="sun">Direct sun.</param>
    /// <param name="cover">Surface.</param>
    public static ThermalClass Pot(
        double diameterCm,
        double depthCm,
        WallMaterial wall,
        Exposure sun = Exposure.Shade,
        SurfaceCover cover = SurfaceCover.Bare
    )
    {
        double d = diameterCm / 100;
        return new(
            false,
            Math.PI * d * d / 4,
            Math.PI * d,
            d / 2,
            depthCm / 100,
            Walls.Resistance(wall),
            Walls.UsualAbsorptance,
            sun,
            true,
            cover,
            WinterShelter.Open,
            Medium.Potting
        );
    }

    /// <summary>Resistance of the surface's cover, m²K/W.</summary>
    public double CoverResistance =>
        Cover switch
        {
            SurfaceCover.Litter => 0.2,
            SurfaceCover.Mulch => 0.6,
            _ => 0,
        };

    /// <summary>Resistance of the wall with what is around it, m²K/W.</summary>
    public double WholeWallResistance => WallResistance + (Shelter == WinterShelter.Wrapped ? 0.6 : 0);

    /// <summary>Share of the wall that stands free to the air.</summary>
    public double FreeWall => Shelter == WinterShelter.Grouped ? 0.5 : 1;

    /// <summary>In a few words, e.g. "container 40 cm wide, 35 cm deep".</summary>
    public Fact Describe() =>
        IsBed
            ? new Fact(GroundPhrase.BedUnder, ("cover", Cover))
            : new Fact(
                GroundPhrase.Container,
                ("wide", Quantity.Cm(HalfWidthM * 200)),
                ("deep", Quantity.Cm(DepthM * 100)),
                ("wall", new Quantity(WholeWallResistance, Dimension.ThermalResistance, 3))
            );
}
