using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Accuracy;

/// <summary>A published figure beside the one that is computed here.</summary>
/// <param name="What">What it is of.</param>
/// <param name="Source">Where it is published.</param>
/// <param name="Unit">Its unit; empty for none.</param>
/// <param name="Published">The published figure.</param>
/// <param name="Tolerance">How far ours may lie from it, by the digits in which it is printed.</param>
/// <param name="Compute">Ours.</param>
public sealed record PublishedCheck(string What, string Source, string Unit, double Published, double Tolerance, Func<double> Compute)
{
    private const string Fao = "FAO Irrigation and Drainage Paper 56 (Allen et al. 1998)";
    private const string Sine = "Baskerville & Emin 1969, single sine; computed from its formula";
    private const string Nws = "US National Weather Service, The Heat Index Equation (Rothfusz 1990)";
    private const string Difference = "Sharma, Wu & Dalal 2005, table 1";
    private const string Packing = "Graham, Lubachevsky, Nurmela & Östergård 1998, and later tables";
    private const string Handout = "extension handouts";

    /// <summary>Whether ours lies within the tolerance.</summary>
    public bool IsMet => Math.Abs(Compute() - Published) <= Tolerance;

    /// <summary>The checks; those that need days of weather or a whole run of the ground are in the tests alone.</summary>
    public static IReadOnlyList<PublishedCheck> All { get; } =
    [
        new("radiation at the top of the air, 20° S, 3 September", $"{Fao}, example 8", "MJ/m²", 32.2, 0.05, () =>
            SolarGeometry.ExtraterrestrialRadiation(-20, 246)
        ),
        new("daylight, 20° S, 3 September", $"{Fao}, example 9", "h", 11.7, 0.05, () => SolarGeometry.DaylightHours(-20, 246)),
        new("reference evapotranspiration, Brussels, 6 July", $"{Fao}, example 18", "mm", 3.9, 0.05, Brussels),
        new("reference evapotranspiration, Lyon, July", $"{Fao}, example 20 (eq. 52)", "mm", 5.0, 0.05, () =>
            ReferenceEvapotranspiration.Hargreaves(14.8, 26.6, 20.7, 40.55)
        ),
        new("degree-days of 4 to 18 °C above 10 °C", Sine, "°C·d", 2.751, 0.0005, () => ThermalTime.SingleSine(4, 18, 10)),
        new("degree-days of −2 to 12 °C above 5 °C", Sine, "°C·d", 2.228, 0.0005, () => ThermalTime.SingleSine(-2, 12, 5)),
        new("degree-days of −3 to 3 °C above 0 °C", Sine, "°C·d", 0.955, 0.0005, () => ThermalTime.SingleSine(-3, 3, 0)),
        new("heat index at 90 °F and 70 %", Nws, "°F", 105.9, 0.06, () => HeatIndex.F(90, 70)),
        new("heat index at 96 °F and 50 %", Nws, "°F", 107.6, 0.06, () => HeatIndex.F(96, 50)),
        new("heat index at 100 °F and 40 %", Nws, "°F", 109.3, 0.06, () => HeatIndex.F(100, 40)),
        new("hardiness zone of a mean annual minimum of −12 °C", "USDA Plant Hardiness Zone Map, definition of zones", "(8a)", 8, 0, () =>
            HardinessZone.Of(-12).Number
        ),
        new("difference of two blues", Difference, "ΔE₀₀", 2.0425, 0.00005, () =>
            ColourDifference.Ciede2000(new Lab(50, 2.6772, -79.7751), new Lab(50, 0, -82.7485))
        ),
        new("difference of grey and red", Difference, "ΔE₀₀", 27.1492, 0.00005, () =>
            ColourDifference.Ciede2000(new Lab(50, 2.5, 0), new Lab(73, 25, -18))
        ),
        new("difference of two greens", Difference, "ΔE₀₀", 1.2644, 0.00005, () =>
            ColourDifference.Ciede2000(new Lab(60.2574, -34.0099, 36.2677), new Lab(60.4626, -34.1751, 39.4387))
        ),
        new("difference of two blacks", Difference, "ΔE₀₀", 0.9082, 0.00005, () =>
            ColourDifference.Ciede2000(new Lab(2.0776, 0.0795, -1.1350), new Lab(0.9033, -0.0636, -0.5514))
        ),
        new("tapered pot, 63.5 over 50.8 cm wide, 50.8 cm deep", "frustum of a cone, V = πh(R² + Rr + r²)/3", "L", 130.8, 0.05, () =>
            new PlanterForm(PlanterShape.Round, 63.5, 63.5, 50.8, 50.8, 50.8, 0).FullLitres
        ),
        new("unit discs in a circle of radius 3.0000", Packing, "discs", 7, 0, () => DiscPacking.CountInCircle(3.0000001, 1)),
        new("unit discs in a circle of radius 3.8131", Packing, "discs", 10, 0, () => DiscPacking.CountInCircle(3.8132, 1)),
        new("unit discs in a circle of radius 4.2361", Packing, "discs", 13, 0, () => DiscPacking.CountInCircle(4.2362, 1)),
        new("plants per square foot, 8 in apart, in squares", Handout, "plants", 2.25, 0.005, () =>
            DiscPacking.PerSquareFoot(20.32, triangular: false)
        ),
        new("plants per square foot, 8 in apart, in triangles", Handout, "plants", 2.60, 0.005, () =>
            DiscPacking.PerSquareFoot(20.32, triangular: true)
        ),
    ];

    private static double Brussels()
    {
        const double LatitudeDeg = 50.8;
        const int Day = 187;
        return ReferenceEvapotranspiration.PenmanMonteith(
            12.3,
            21.5,
            ReferenceEvapotranspiration.Vapour(12.3, 21.5, 63, 84),
            ReferenceEvapotranspiration.WindAt2M(10 / 3.6, 10),
            ReferenceEvapotranspiration.SunFromHours(9.25, LatitudeDeg, Day),
            LatitudeDeg,
            100,
            Day
        );
    }
}
