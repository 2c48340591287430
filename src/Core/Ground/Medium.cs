namespace UnrulyMeadow.Core.Ground;

/// <summary>What heat meets in soil or potting medium: solids, and water that freezes.</summary>
/// <param name="Name">For people.</param>
/// <param name="WaterShare">Water by volume, 0 to 0.7.</param>
/// <param name="ThawedConductivity">W/m·K above 0 °C.</param>
/// <param name="FrozenConductivity">W/m·K when frozen.</param>
/// <param name="SolidsHeatMJ">Heat capacity of everything but the water, MJ/m³K.</param>
/// <param name="FreezingRangeK">The water freezes from 0 °C down to this many degrees below it.</param>
public sealed record Medium(
    string Name,
    double WaterShare,
    double ThawedConductivity,
    double FrozenConductivity,
    double SolidsHeatMJ,
    double FreezingRangeK = 0.4
)
{
    /// <summary>Heat capacity of water, MJ/m³K.</summary>
    public const double WaterHeatMJ = 4.18;

    /// <summary>Heat capacity of the ice that a volume of water becomes, MJ/m³K of water.</summary>
    public const double IceHeatMJ = 1.93;

    /// <summary>Latent heat of freezing, MJ per m³ of water (334 kJ/kg).</summary>
    public const double LatentMJ = 334;

    /// <summary>Potting medium, wet as crews keep it.</summary>
    public static Medium Potting { get; } = new("potting medium, moist", 0.50, 0.5, 1.2, 0.25);

    /// <summary>Garden soil.</summary>
    public static Medium Soil { get; } = new("soil, moist", 0.30, 1.2, 1.8, 1.2);

    /// <summary>Heat capacity above 0 °C, MJ/m³K.</summary>
    public double ThawedHeatMJ => SolidsHeatMJ + (WaterShare * WaterHeatMJ);

    /// <summary>Heat capacity when frozen, MJ/m³K.</summary>
    public double FrozenHeatMJ => SolidsHeatMJ + (WaterShare * IceHeatMJ);

    /// <summary>Heat given up between 0 °C and the end of the freezing range, MJ/m³: the latent heat and the cooling.</summary>
    public double FreezingHeatMJ => (WaterShare * LatentMJ) + (FreezingRangeK * (ThawedHeatMJ + FrozenHeatMJ) / 2);

    /// <summary>Heat held at a temperature, MJ/m³; 0 at 0 °C without ice.</summary>
    public double EnthalpyMJ(double c) =>
        c >= 0 ? c * ThawedHeatMJ
        : c <= -FreezingRangeK ? ((c + FreezingRangeK) * FrozenHeatMJ) - FreezingHeatMJ
        : c / FreezingRangeK * FreezingHeatMJ;

    /// <summary>Thermal diffusivity above 0 °C, m²/s.</summary>
    public double ThawedDiffusivity => ThawedConductivity / (ThawedHeatMJ * 1e6);
}
