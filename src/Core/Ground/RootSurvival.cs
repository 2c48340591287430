using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

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
            WorkingKind.RootsLiveThroughWinter,
            Quantity.Share(Odds(rootKillingC)),
            [
                new WorkingInput(InputName.Where, Class.Describe()),
                new WorkingInput(
                    InputName.RootsDieAt,
                    new Fact(
                        WorkingPhrase.RootsLiveThroughWinterRootsDie,
                        ("rootKilling", Quantity.Celsius(rootKillingC, 1)),
                        (
                            "estimateError",
                            estimated
                                ? (object?)
                                    new Fact(
                                        WorkingPhrase.RootsLiveThroughWinterRootsDieAtPartEstimated,
                                        ("estimateError", Quantity.CelsiusApart(EstimateErrorC))
                                    )
                                : string.Empty
                        )
                    )
                ),
                new WorkingInput(
                    InputName.LowestByWinter,
                    new Fact(WorkingPhrase.Listed, ("items", Winters.Take(40).Select(w => (object?)Quantity.Celsius(w.LowestC, 1)).ToList()))
                ),
                new WorkingInput(InputName.YearsOfKnowledge, KnownYears),
            ],
            [
                new Fact(
                    WorkingPhrase.MeanLowestStandardDeviationColdest,
                    ("mean", Quantity.Celsius(MeanC, 1)),
                    ("deviation", Quantity.CelsiusApart(DeviationC, 1)),
                    ("lowest", Quantity.Celsius(Winters.Count == 0 ? double.NaN : Winters.Min(w => w.LowestC), 1))
                ),
                new Fact(WorkingPhrase.FourTimesInFiveTrueOdds, ("low", Quantity.Share(low)), ("high", Quantity.Share(high))),
            ]
        )
        {
            Parts =
            [
                (
                    "source",
                    estimated ? (object?)WorkingPhrase.NormalDistributionRootsTopsHardinessFrom : WorkingPhrase.NormalDistributionPlantOwnRootKilling
                ),
            ],
        };
    }
}

/// <summary>Something that would keep roots warmer, with what it would bring.</summary>
/// <param name="What">Of which kind.</param>
/// <param name="Survival">The winters so changed.</param>
public sealed record RootRemedy(RootRemedyKind What, RootSurvival Survival)
{
    /// <summary>All remedies that fit a container, computed anew, best first for a killing temperature.</summary>
    /// <param name="what">The container as it is; a bed has only mulch.</param>
    /// <param name="record">The weather.</param>
    /// <param name="rootKillingC">At or below this roots die, °C.</param>
    public static IReadOnlyList<RootRemedy> For(ThermalClass what, WeatherRecord record, double rootKillingC) =>
        [
            .. SideBySide
                .Each([.. Changes(what)], c => new RootRemedy(c.What, RootSurvival.From(GroundClimate.Of(record).Of(c.Class), record)))
                .OrderByDescending(r => r.Survival.Odds(rootKillingC)),
        ];

    private static IEnumerable<(RootRemedyKind What, ThermalClass Class)> Changes(ThermalClass what)
    {
        if (what.IsBed)
        {
            if (what.Cover != SurfaceCover.Mulch)
                yield return (RootRemedyKind.Mulch, what with { Cover = SurfaceCover.Mulch });
            yield break;
        }
        double k = (what.HalfWidthM + 0.10) / what.HalfWidthM;
        yield return (
            RootRemedyKind.WiderPot,
            what with
            {
                AreaM2 = what.AreaM2 * k * k,
                PerimeterM = what.PerimeterM * k,
                HalfWidthM = what.HalfWidthM * k,
                DepthM = what.DepthM + 0.1,
            }
        );
        yield return (RootRemedyKind.WoodenWall, what with { WallResistance = Math.Max(what.WallResistance, 0.05 / 0.14) });
        yield return (RootRemedyKind.Grouped, what with { Shelter = WinterShelter.Grouped });
        yield return (RootRemedyKind.Wrapped, what with { Shelter = WinterShelter.Wrapped });
        yield return (RootRemedyKind.UnheatedRoom, what with { Shelter = WinterShelter.UnheatedRoom });
        yield return (RootRemedyKind.SunkInABed, ThermalClass.Bed(SurfaceCover.Mulch, what.Sun));
    }
}
