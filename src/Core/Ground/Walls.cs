namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// Walls as heat meets them. Conductivities are handbook values from memory; thicknesses are usual ones of containers a
/// crew owns.
/// </summary>
public static class Walls
{
    /// <summary>Absorptance where the colour is not known.</summary>
    public const double UsualAbsorptance = 0.75;

    /// <summary>Usual thickness of a wall, m, and its conductivity, W/m·K.</summary>
    public static (double ThicknessM, double Conductivity) Of(WallMaterial wall) =>
        wall switch
        {
            WallMaterial.Terracotta => (0.025, 1.0),
            WallMaterial.Glazed => (0.025, 1.3),
            WallMaterial.Timber => (0.025, 0.14),
            WallMaterial.Metal => (0.002, 50),
            WallMaterial.Plastic => (0.006, 0.2),
            WallMaterial.Concrete => (0.05, 1.4),
            WallMaterial.Fibre => (0.02, 0.06),
            _ => (0, 1),
        };

    /// <summary>Resistance, m²K/W: thickness over conductivity; terracotta 0.025.</summary>
    /// <param name="wall">The material.</param>
    /// <param name="thicknessCm">Its thickness, cm; null for the usual one.</param>
    public static double Resistance(WallMaterial wall, double? thicknessCm = null)
    {
        (double thickness, double conductivity) = Of(wall);
        return (thicknessCm / 100 ?? thickness) / conductivity;
    }

    /// <summary>Share of sunlight that a colour turns to heat, from its relative luminance: 0.3 for white to 0.95 for black.</summary>
    /// <param name="colour">#rrggbb.</param>
    public static double Absorptance(string colour) => 0.95 - (0.65 * Colour.Srgb.Of(colour).Luminance);

    /// <summary>True for walls that frozen, swelling medium or soaked clay can crack (common practice).</summary>
    public static bool CanCrack(WallMaterial wall) => wall is WallMaterial.Terracotta or WallMaterial.Glazed;
}
