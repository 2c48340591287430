using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// The chance that a plant's roots live through a winter where it stands: the lowest root-zone temperature of each winter
/// against the temperature that kills its roots.
/// </summary>
/// <param name="Class">Where it stands.</param>
/// <param name="Winters">Each winter's lowest, °C.</param>
/// <param name="KnownYears">Years of knowledge behind them.</param>
public sealed record RootSurvival(ThermalClass Class, IReadOnlyList<(int Year, double LowestC)> Winters, int KnownYears)
{
    /// <summary>How far an estimated killing temperature may be off, K (from memory: species of one zone differ as much).</summary>
    public const double EstimateErrorC = 4;

    /// <summary>Mean of the winters' lowest, °C.</summary>
    public double MeanC => Winters.Count == 0 ? double.NaN : Winters.Average(w => w.LowestC);

    /// <summary>Their standard deviation, K; NaN with fewer than two.</summary>
    public double DeviationC => Winters.Count < 2 ? double.NaN : Winters.Select(w => w.LowestC).StandardDeviation();

    /// <summary>Looks through a record's winters.</summary>
    public static RootSurvival From(GroundTemperatures ground, WeatherRecord record) =>
        new(
            ground.Class,
            [.. BulbYear.Of(record).Select(y => (y.Year, (double)ground.RootMin.AsSpan(y.From, y.Days).ToArray().Min()))],
            record.KnownYears
        );

    /// <summary>Odds that roots killed at a temperature live through one winter, from a normal distribution of the winters' lowest.</summary>
    /// <param name="rootKillingC">At or below this roots die, °C.</param>
    public double Odds(double rootKillingC)
    {
        if (Winters.Count == 0)
            return double.NaN;
        double sd = DeviationC;
        return double.IsNaN(sd) || sd < 0.05 ? (MeanC > rootKillingC ? 1 : 0) : 1 - Normal.CDF(MeanC, sd, rootKillingC);
    }

    /// <summary>
    /// Between which odds the truth lies in four cases of five, for the years known and, where the killing temperature
    /// was estimated, for its error too.
    /// </summary>
    public (double Low, double High) Between(double rootKillingC, bool estimated)
    {
        if (Winters.Count == 0)
            return (0, 1);
        double sd = Math.Max(0.5, double.IsNaN(DeviationC) ? 3 : DeviationC);
        double z = (MeanC - rootKillingC) / sd;
        double error = Math.Sqrt((1.0 / KnownYears) + (z * z / (2 * Math.Max(1, KnownYears - 1))));
        double other = estimated ? EstimateErrorC / 2 / sd : 0;
        double half = 1.2816 * Math.Sqrt((error * error) + (other * other));
        return (Normal.CDF(0, 1, z - half), Normal.CDF(0, 1, z + half));
    }

    /// <summary>
    /// The temperature that kills roots, where only the hardiness of the tops is known: 0.4 times it, from −3 to −20 °C.
    /// From memory of published lists, in which roots of hardy evergreens die between a tenth and six tenths of what
    /// their tops stand.
    /// </summary>
    /// <param name="topHardinessC">What the tops stand, °C.</param>
    public static double EstimateRootKillingC(double topHardinessC) => Math.Clamp(0.4 * topHardinessC, -20, -3);

    /// <summary>The coldest air of a hardiness zone, which its plants' tops must stand, °C.</summary>
    /// <param name="zone">1 to 13.</param>
    public static double TopHardinessOfZoneC(int zone) => ((-60 + (10 * (zone - 1))) - 32) * 5.0 / 9;

    /// <summary>The arithmetic behind the odds.</summary>
    public Working Explain(double rootKillingC, bool estimated)
    {
        (double low, double high) = Between(rootKillingC, estimated);
        return new Working(
            "Roots live through a winter",
            $"{Odds(rootKillingC):P0}",
            [
                new("where", Class.Describe()),
                new("roots die at", $"{rootKillingC:0.0} °C{(estimated ? $", estimated, ± {EstimateErrorC:0} K" : string.Empty)}"),
                new("lowest by winter, °C", string.Join(", ", Winters.Take(40).Select(w => $"{w.LowestC:0.0}"))),
                new("years of knowledge", $"{KnownYears}"),
            ],
            "1 − Φ((Tk − μ)/σ), μ and σ of the winters' lowest temperature 2 cm inside the wall, or 15 cm down in a bed",
            estimated
                ? "Normal distribution; roots at 0.4 of the tops' hardiness, from memory"
                : "Normal distribution; the plant's own root-killing temperature",
            [
                $"Mean lowest {MeanC:0.0} °C, standard deviation {DeviationC:0.0} K, coldest {(Winters.Count == 0 ? double.NaN : Winters.Min(w => w.LowestC)):0.0} °C.",
                $"Four times in five the true odds lie between {low:P0} and {high:P0}.",
            ]
        );
    }
}

/// <summary>Something that would keep roots warmer, with what it would bring.</summary>
/// <param name="What">In words.</param>
/// <param name="Survival">The winters so changed.</param>
public sealed record RootRemedy(string What, RootSurvival Survival)
{
    /// <summary>All remedies that fit a container, computed anew, best first for a killing temperature.</summary>
    /// <param name="what">The container as it is; a bed has only mulch.</param>
    /// <param name="record">The weather.</param>
    /// <param name="rootKillingC">At or below this roots die, °C.</param>
    public static IReadOnlyList<RootRemedy> For(ThermalClass what, WeatherRecord record, double rootKillingC) =>
        [
            .. Changes(what)
                .AsParallel()
                .AsOrdered()
                .Select(c => new RootRemedy(c.What, RootSurvival.From(GroundClimate.Of(record).Of(c.Class), record)))
                .OrderByDescending(r => r.Survival.Odds(rootKillingC)),
        ];

    private static IEnumerable<(string What, ThermalClass Class)> Changes(ThermalClass what)
    {
        if (what.IsBed)
        {
            if (what.Cover != SurfaceCover.Mulch)
                yield return ("5 cm of mulch", what with { Cover = SurfaceCover.Mulch });
            yield break;
        }
        double k = (what.HalfWidthM + 0.10) / what.HalfWidthM;
        yield return (
            "a pot 20 cm wider",
            what with
            {
                AreaM2 = what.AreaM2 * k * k,
                PerimeterM = what.PerimeterM * k,
                HalfWidthM = what.HalfWidthM * k,
                DepthM = what.DepthM + 0.1,
            }
        );
        yield return ("a wall of 5 cm of wood", what with { WallResistance = Math.Max(what.WallResistance, 0.05 / 0.14) });
        yield return ("grouped with others", what with { Shelter = WinterShelter.Grouped });
        yield return ("wrapped in 5 cm of straw or bubble film", what with { Shelter = WinterShelter.Wrapped });
        yield return ("moved into an unheated room", what with { Shelter = WinterShelter.UnheatedRoom });
        yield return ("sunk in a mulched bed", ThermalClass.Bed(SurfaceCover.Mulch, what.Sun));
    }
}
