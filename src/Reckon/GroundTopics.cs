using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Reckon;

/// <summary>A container, or a bed when no width is given.</summary>
/// <param name="WidthCm">Inside width, cm; null for a bed.</param>
/// <param name="DepthCm">Depth of medium, cm; 0.9 of the width when left out.</param>
/// <param name="Wall">Its wall, default terracotta.</param>
/// <param name="Sun">Direct sun, default full.</param>
/// <param name="Cover">What covers the surface, default thin litter.</param>
/// <param name="Shelter">What stands around it in winter.</param>
/// <param name="OnFeet">True, the default, when air passes beneath; false on paving.</param>
public sealed record PotInput(
    double? WidthCm = null,
    double? DepthCm = null,
    WallMaterial Wall = WallMaterial.Terracotta,
    Exposure Sun = Exposure.FullSun,
    SurfaceCover Cover = SurfaceCover.Litter,
    WinterShelter Shelter = WinterShelter.Open,
    bool OnFeet = true
)
{
    /// <summary>Its thermal class.</summary>
    public ThermalClass Class(string field)
    {
        if (WidthCm is not { } width)
            return ThermalClass.Bed(Cover, Sun);
        var faults = new FaultList();
        double depth = DepthCm ?? (width * 0.9);
        faults.Range($"{field}.widthCm", width, 8, 300, "cm");
        faults.Range($"{field}.depthCm", depth, 8, 200, "cm");
        if (Wall == WallMaterial.None)
            faults.Add($"{field}.wall", "must be given for a container");
        faults.ThrowIfAny();
        return ThermalClass.Pot(width, depth, Wall, Sun, Cover) with { Shelter = Shelter, OnFeet = OnFeet };
    }
}

/// <summary>Input of <c>ground</c>.</summary>
/// <param name="Weather">The record.</param>
/// <param name="Planter">A container, or a bed.</param>
/// <param name="DepthCm">Depth asked, default 15 cm.</param>
/// <param name="From">First day printed; none is when left out.</param>
/// <param name="To">Last day printed.</param>
public sealed record GroundInput(WeatherInput Weather, PotInput? Planter = null, double DepthCm = 15, LocalDate? From = null, LocalDate? To = null);

/// <summary>A day's temperatures, °C.</summary>
public sealed record GroundDayOutput(LocalDate Day, double AtDepthC, double RootMinC, double RootMeanC, double RootMaxC);

/// <summary>Output of <c>ground</c>.</summary>
public sealed record GroundOutput(
    double LowestRootC,
    double HighestRootC,
    double LowestAtDepthC,
    double DeepestIceCm,
    double EnergyError,
    IReadOnlyList<GroundDayOutput> Days
);

/// <summary>Input of <c>planting-window</c>.</summary>
/// <param name="Weather">The record; a short one is smoothed by generated years.</param>
/// <param name="Planter">A container, or a bed.</param>
/// <param name="DepthCm">Depth to the bulb's base, default 18 cm.</param>
public sealed record PlantingWindowInput(WeatherInput Weather, PotInput? Planter = null, double DepthCm = 18);

/// <summary>A date as odds.</summary>
public sealed record DayOddsOutput(string? In1Of10, string? In5Of10, string? In9Of10, double ShareWithout, double? StandardErrorDays);

/// <summary>Output of <c>planting-window</c>.</summary>
public sealed record PlantingWindowOutput(
    string? Opens,
    string? BestUntil,
    string? LastSafeDay,
    DayOddsOutput Cool,
    DayOddsOutput Freezes,
    DayOddsOutput Thaws,
    int Years,
    int KnownYears
);

/// <summary>Input of <c>cold-weeks</c>.</summary>
/// <param name="Weather">The record; a short one is smoothed by generated years.</param>
/// <param name="Kind">snowdrop, crocus and muscari, hyacinth, daffodil or tulip.</param>
/// <param name="Planted">Planting day; only its place in the year counts.</param>
/// <param name="Planter">A container, or a bed.</param>
/// <param name="DepthCm">Depth; the kind's usual one when left out.</param>
public sealed record ColdWeeksInput(WeatherInput Weather, string Kind, LocalDate Planted, PotInput? Planter = null, double? DepthCm = null);

/// <summary>Output of <c>cold-weeks</c>.</summary>
public sealed record ColdWeeksOutput(
    double MedianWeeks,
    double In9Of10Weeks,
    double WantedLow,
    double WantedHigh,
    double ShortfallWeeks,
    double ShareShort,
    int Years
);

/// <summary>Input of <c>root-survival</c>.</summary>
/// <param name="Weather">The record; a short one is smoothed by generated years.</param>
/// <param name="Planter">A container, or a bed.</param>
/// <param name="RootKillingC">What kills the roots, °C; or a zone instead.</param>
/// <param name="HardyToZone">The zone the tops stand, 1 to 13, from which the roots are estimated.</param>
public sealed record RootSurvivalInput(WeatherInput Weather, PotInput? Planter = null, double? RootKillingC = null, int? HardyToZone = null);

/// <summary>One remedy.</summary>
public sealed record RemedyOutput(string What, double Odds);

/// <summary>Output of <c>root-survival</c>.</summary>
public sealed record RootSurvivalOutput(
    double RootKillingC,
    double Odds,
    double Low,
    double High,
    double MeanLowestC,
    double ColdestC,
    int Winters,
    int KnownYears,
    IReadOnlyList<RemedyOutput> Remedies
);

/// <summary>Topics of the ground.</summary>
internal static class GroundTopics
{
    public static Topic Ground { get; } =
        new Topic<GroundInput, GroundOutput>("ground", "temperature inside a bed or container day by day, by heat conduction with freezing", input =>
        {
            ThermalClass what = Class(input.Planter, input.DepthCm);
            WeatherRecord record = input.Weather.ReadDays();
            GroundTemperatures ground = GroundClimate.Of(record).Of(what);
            float[] depth = ground.AtDepth(input.DepthCm);
            int from = input.From is { } f ? Math.Max(0, record.IndexOf(f)) : 0;
            int to = input.From is null ? 0 : Math.Min(ground.Days, record.IndexOf(input.To ?? input.From.Value) + 1);
            return (
                new GroundOutput(
                    R(ground.RootMin.Min()),
                    R(ground.RootMax.Max()),
                    R(depth.Min()),
                    Math.Round(100.0 * ground.FrozenDepthM.Max(), 1),
                    Math.Round(ground.EnergyError, 9),
                    [
                        .. Enumerable
                            .Range(from, Math.Max(0, to - from))
                            .Select(i => new GroundDayOutput(
                                record.FirstDay.PlusDays(i),
                                R(depth[i]),
                                R(ground.RootMin[i]),
                                R(ground.RootMean[i]),
                                R(ground.RootMax[i])
                            )),
                    ]
                ),
                [ground.Explain()]
            );
        });

    public static Topic PlantingWindow { get; } =
        new Topic<PlantingWindowInput, PlantingWindowOutput>(
            "planting-window",
            "when bulbs can be planted at a depth, and when the ground freezes and thaws there",
            input =>
            {
                ThermalClass what = Class(input.Planter, input.DepthCm);
                WeatherRecord record = input.Weather.Read().ForOdds;
                PlantingWindow window = Core.Ground.PlantingWindow.From(GroundClimate.Of(record).Of(what), record, input.DepthCm);
                return (
                    new PlantingWindowOutput(
                        Text(window.OpensSafely),
                        Text(window.BestUntil),
                        Text(window.LastSafeDay),
                        Odds(window.Opens),
                        Odds(window.Freeze.Freezes),
                        Odds(window.Freeze.Thaws),
                        window.Opens.Years.Count,
                        record.KnownYears
                    ),
                    [window.Explain(what), window.Freeze.Explain(what)]
                );
            }
        );

    public static Topic ColdWeeks { get; } =
        new Topic<ColdWeeksInput, ColdWeeksOutput>(
            "cold-weeks",
            "weeks of cold that a kind of bulb gets from a planting day on, and what it lacks",
            input =>
            {
                BulbKind kind = BulbKind.All.FirstOrDefault(k => k.Name == input.Kind)
                    ?? throw new InvalidInputException("kind", $"must be one of {string.Join(", ", BulbKind.All.Select(k => k.Name))}");
                double depth = input.DepthCm ?? kind.UsualDepthCm;
                ThermalClass what = Class(input.Planter, depth);
                WeatherRecord record = input.Weather.Read().ForOdds;
                ColdWeeks cold = Core.Ground.ColdWeeks.From(GroundClimate.Of(record).At(new BulbPlace(what, depth)), record, input.Planted);
                return (
                    new ColdWeeksOutput(
                        R(cold.ReachedBy(0.5)),
                        R(cold.ReachedBy(0.9)),
                        kind.LowWeeks,
                        kind.HighWeeks,
                        R(cold.Shortfall(kind)),
                        Math.Round(cold.ShareShort(kind), 3),
                        cold.Weeks.Count
                    ),
                    [cold.Explain(kind, what, depth)]
                );
            }
        );

    public static Topic RootSurvival { get; } =
        new Topic<RootSurvivalInput, RootSurvivalOutput>(
            "root-survival",
            "the chance that roots live through a winter in a container, how sure it is, and what would help",
            input =>
            {
                if ((input.RootKillingC is null) == (input.HardyToZone is null))
                    throw new InvalidInputException("rootKillingC", "give either rootKillingC or hardyToZone");
                var faults = new FaultList();
                faults.Range("hardyToZone", input.HardyToZone ?? 1, 1, 13, string.Empty);
                faults.Range("rootKillingC", input.RootKillingC ?? -5, -40, 5, "°C");
                faults.ThrowIfAny();
                bool estimated = input.RootKillingC is null;
                double kill = input.RootKillingC
                    ?? Core.Ground.RootSurvival.EstimateRootKillingC(Core.Ground.RootSurvival.TopHardinessOfZoneC(input.HardyToZone!.Value));
                ThermalClass what = Class(input.Planter, 10);
                WeatherRecord record = input.Weather.Read().ForOdds;
                RootSurvival survival = Core.Ground.RootSurvival.From(GroundClimate.Of(record).Of(what), record);
                (double low, double high) = survival.Between(kill, estimated);
                return (
                    new RootSurvivalOutput(
                        R(kill),
                        Math.Round(survival.Odds(kill), 3),
                        Math.Round(low, 3),
                        Math.Round(high, 3),
                        R(survival.MeanC),
                        R(survival.Winters.Count == 0 ? double.NaN : survival.Winters.Min(w => w.LowestC)),
                        survival.Winters.Count,
                        record.KnownYears,
                        [
                            .. RootRemedy
                                .For(what, record, kill)
                                .Select(r => new RemedyOutput(Said.Metric.Say(r.What), Math.Round(r.Survival.Odds(kill), 3))),
                        ]
                    ),
                    [survival.Explain(kill, estimated)]
                );
            }
        );

    private static ThermalClass Class(PotInput? planter, double depthCm)
    {
        var faults = new FaultList();
        faults.Range("depthCm", depthCm, 1, 150, "cm");
        faults.ThrowIfAny();
        return (planter ?? new PotInput()).Class("planter");
    }

    private static DayOddsOutput Odds(DayOdds odds) =>
        new(
            Text(odds.By(0.1)),
            Text(odds.By(0.5)),
            Text(odds.By(0.9)),
            Math.Round(odds.ShareWithout, 3),
            double.IsNaN(odds.StandardErrorDays(0.1)) ? null : Math.Round(odds.StandardErrorDays(0.1), 1)
        );

    private static string? Text(LocalDate? day) => day?.ToString("MM-dd", null);

    private static double R(double v) => Math.Round(v, 2);
}
