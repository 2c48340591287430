using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Reckon;

/// <summary>A day's weather.</summary>
/// <param name="Day">The day.</param>
/// <param name="MinC">Lowest air, °C.</param>
/// <param name="MaxC">Highest air, °C.</param>
/// <param name="RainMm">Rain, mm.</param>
/// <param name="WindMs">Mean wind, m/s; left out where nobody knows.</param>
public sealed record CareDayInput(LocalDate Day, double MinC, double MaxC, double RainMm = 0, double? WindMs = null);

/// <summary>Water that was given.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="Day">The day.</param>
/// <param name="Litres">Litres; until it ran out below where left out.</param>
public sealed record GivenInput(string PlanterId, LocalDate Day, double? Litres = null);

/// <summary>Input of <c>water</c>.</summary>
/// <param name="PlanFile">A plan file.</param>
/// <param name="Days">Weather, day after day without a gap; full on the first.</param>
/// <param name="LatitudeDeg">Degrees north; the plan's own where left out.</param>
/// <param name="Planter">One planter; all where left out.</param>
/// <param name="Given">Water that was given.</param>
/// <param name="Emitters">Drip emitters at each planter.</param>
/// <param name="EmitterLitresAnHour">What each gives, L/h.</param>
public sealed record WaterInput(
    string PlanFile,
    IReadOnlyList<CareDayInput> Days,
    double? LatitudeDeg = null,
    string? Planter = null,
    IReadOnlyList<GivenInput>? Given = null,
    int Emitters = 1,
    double EmitterLitresAnHour = 2
);

/// <summary>The water of one planter at the end of the last day.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="HoldsLitres">Water between full and wilting.</param>
/// <param name="EasyLitres">What may lack before its thirstiest plant suffers.</param>
/// <param name="LackingLitres">What lacks to full.</param>
/// <param name="UsedLitres">What it used on the last day.</param>
/// <param name="Times">Waterings that the last day asks.</param>
/// <param name="DryOn">The first day at whose end it was dry; null where it never was.</param>
/// <param name="DripMinutes">Minutes of drip that fill it.</param>
/// <param name="IsSoaked">True where rain stands in it or ran through it.</param>
public sealed record PlanterWaterOutput(
    string Planter,
    double HoldsLitres,
    double EasyLitres,
    double LackingLitres,
    double UsedLitres,
    int Times,
    LocalDate? DryOn,
    double DripMinutes,
    bool IsSoaked
);

/// <summary>Output of <c>water</c>.</summary>
public sealed record WaterOutput(IReadOnlyList<PlanterWaterOutput> Planters);

/// <summary>Input of <c>feed</c>.</summary>
/// <param name="Litres">Litres of feed in water, 0 to 100,000.</param>
/// <param name="PpmN">Parts of nitrogen in a million.</param>
/// <param name="PercentN">Nitrogen of the feed, percent.</param>
/// <param name="MeansC">Daily means since a coated feed was given, °C; may be left out.</param>
/// <param name="NamedDays">Days that the coated feed lasts at 21 °C.</param>
public sealed record FeedInput(
    double Litres = 1,
    double PpmN = LiquidFeed.UsualPpm,
    double PercentN = LiquidFeed.UsualPercentN,
    IReadOnlyList<double>? MeansC = null,
    double NamedDays = SlowRelease.UsualDays
);

/// <summary>Output of <c>feed</c>.</summary>
/// <param name="Grams">Grams of feed in all.</param>
/// <param name="GramsPerLitre">Grams in a litre.</param>
/// <param name="OuncesIn100Gallons">Ounces in a hundred US gallons.</param>
/// <param name="Released">Share of the coated feed that is given off; null where no temperatures were given.</param>
public sealed record FeedOutput(double Grams, double GramsPerLitre, double OuncesIn100Gallons, double? Released);

/// <summary>Input of <c>tonight</c>.</summary>
/// <param name="PlanFile">A plan file.</param>
/// <param name="Today">The day on which it was forecast.</param>
/// <param name="Forecast">Days to come.</param>
/// <param name="HeatLimitC">Heat index above which the crew works mornings only, °C.</param>
public sealed record TonightInput(string PlanFile, LocalDate Today, IReadOnlyList<CareDayInput> Forecast, double HeatLimitC = WorkWeather.UsualHeatC);

/// <summary>A planter that a night puts at risk.</summary>
public sealed record NightOutput(
    string Planter,
    LocalDate Night,
    double LowC,
    double ErrorC,
    double FleeceM2,
    IReadOnlyList<PlantAtRiskOutput> Plants
);

/// <summary>A kind at risk.</summary>
public sealed record PlantAtRiskOutput(string Plant, int Count, double Odds);

/// <summary>What else a day threatens.</summary>
public sealed record ThreatOutput(ThreatKind Kind, LocalDate Day, double Odds, IReadOnlyList<string> Planters, IReadOnlyList<string> Plants);

/// <summary>Output of <c>tonight</c>.</summary>
public sealed record TonightOutput(IReadOnlyList<NightOutput> Nights, IReadOnlyList<ThreatOutput> Threats);

/// <summary>Topics of care between turns.</summary>
internal static class CareTopics
{
    private const int MostDays = 400;

    public static Topic Water { get; } =
        new Topic<WaterInput, WaterOutput>("water", "what planters use and lack, when they are dry, and how long drip runs", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            var faults = new FaultList();
            Check(faults, "days", input.Days, 1);
            for (int i = 1; i < input.Days.Count; i++)
            {
                if (input.Days[i].Day != input.Days[i - 1].Day.PlusDays(1))
                    faults.Add($"days[{i}].day", "must be the day after the one before");
            }
            double latitude = input.LatitudeDeg ?? plan.Site.Place?.LatitudeDeg ?? 45;
            faults.Range("latitudeDeg", latitude, -66, 66, "degrees");
            faults.Range("emitters", input.Emitters, 1, 1000, "emitters");
            faults.Range("emitterLitresAnHour", input.EmitterLitresAnHour, 0.1, 100, "L/h");
            if (input.Planter is { } one && plan.FindPlanter(one) is null)
                faults.Add("planter", "is no planter of the plan");
            foreach (GivenInput given in input.Given ?? [])
                faults.Range("given.litres", given.Litres ?? 0, 0, 100_000, "L");
            faults.ThrowIfAny();
            List<CareDay> days = [.. input.Days.Select(d => CareDay.Of(d.Day, d.MinC, d.MaxC, d.RainMm, latitude, CareDaySource.Measured))];
            ILookup<string, Watered> given2 = (input.Given ?? []).ToLookup(g => g.PlanterId, g => new Watered(g.Day, g.Litres));
            LocalDate last = days[^1].Day;
            List<PlanterWater> waters =
            [
                .. plan
                    .Planters.Where(p => input.Planter is null ? !p.IsRetired : p.Id == input.Planter)
                    .Select(p => PlanterWater.Of(plan, p, days, [.. given2[p.Id]])),
            ];
            return (
                new WaterOutput([
                    .. waters.Select(w => new PlanterWaterOutput(
                        w.Planter.Id,
                        Math.Round(w.Days[^1].HoldsLitres, 2),
                        Math.Round(w.Days[^1].EasyLitres, 2),
                        Math.Round(w.ToFill(last), 2),
                        Math.Round(w.Days[^1].UsedLitres, 2),
                        w.TimesOn(last),
                        w.DryOn(days[0].Day),
                        Math.Round(PlanterWater.DripMinutes(w.ToFill(last), input.Emitters, input.EmitterLitresAnHour), 1),
                        w.IsSoaked(last)
                    )),
                ]),
                [.. waters.Select(w => w.Explain(last))]
            );
        });

    public static Topic Feed { get; } =
        new Topic<FeedInput, FeedOutput>("feed", "feed dissolved in water, and what a coated feed has given off", input =>
        {
            var faults = new FaultList();
            faults.Range("litres", input.Litres, 0, 100_000, "L");
            faults.Range("ppmN", input.PpmN, 1, 2000, "ppm");
            faults.Range("percentN", input.PercentN, 1, 60, "percent");
            faults.Range("namedDays", input.NamedDays, 10, 1000, "days");
            IReadOnlyList<double> means = input.MeansC ?? [];
            for (int i = 0; i < means.Count; i++)
                faults.Range($"meansC[{i}]", means[i], -60, 60, "°C");
            faults.ThrowIfAny();
            double each = LiquidFeed.GramsPerLitre(input.PpmN, input.PercentN);
            return (
                new FeedOutput(
                    Math.Round(each * input.Litres, 2),
                    Math.Round(each, 3),
                    Math.Round(LiquidFeed.OuncesIn100Gallons(input.PpmN, input.PercentN), 2),
                    input.MeansC is null ? null : Math.Round(SlowRelease.Released(means, input.NamedDays), 3)
                ),
                [LiquidFeed.Explain(input.Litres, input.PpmN, input.PercentN)]
            );
        });

    public static Topic Tonight { get; } =
        new Topic<TonightInput, TonightOutput>(
            "tonight",
            "what a forecast puts at risk: cold nights with their odds, heat, storm, hard frost, snow",
            input =>
            {
                Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
                var faults = new FaultList();
                Check(faults, "forecast", input.Forecast, 1);
                faults.Range("heatLimitC", input.HeatLimitC, 20, 60, "°C");
                faults.ThrowIfAny();
                List<DayForecast> forecast = [.. input.Forecast.Select(d => new DayForecast(d.Day, d.MinC, d.MaxC, d.RainMm, d.WindMs))];
                IReadOnlyList<PlanterAtRisk> nights = ColdNights.Of(plan, forecast, input.Today);
                return (
                    new TonightOutput(
                        [
                            .. nights.Select(n => new NightOutput(
                                n.Planter.Id,
                                n.Night,
                                Math.Round(n.LowC, 2),
                                Math.Round(n.ErrorC, 2),
                                Math.Round(n.FleeceM2, 1),
                                [.. n.Plants.Select(p => new PlantAtRiskOutput(p.Plant.Id, p.Count, Math.Round(p.Odds, 3)))]
                            )),
                        ],
                        [
                            .. WeatherThreats
                                .Of(plan, forecast, input.Today, input.HeatLimitC, [])
                                .Select(t => new ThreatOutput(
                                    t.Kind,
                                    t.Day,
                                    Math.Round(t.Odds, 3),
                                    [.. t.Planters.Select(p => p.Id)],
                                    [.. t.Plants.Select(p => p.Id)]
                                )),
                        ]
                    ),
                    [.. nights.SelectMany(n => n.Plants.Take(1).Select(n.Explain))]
                );
            }
        );

    private static void Check(FaultList faults, string list, IReadOnlyList<CareDayInput> days, int fewest)
    {
        if (days.Count < fewest || days.Count > MostDays)
            faults.Add(list, $"must be {fewest} to {MostDays} days (there are {days.Count})");
        for (int i = 0; i < Math.Min(days.Count, MostDays); i++)
        {
            faults.Range($"{list}[{i}].minC", days[i].MinC, -70, 50, "°C");
            faults.Range($"{list}[{i}].maxC", days[i].MaxC, days[i].MinC, 60, "°C");
            faults.Range($"{list}[{i}].rainMm", days[i].RainMm, 0, 2000, "mm");
            faults.Range($"{list}[{i}].windMs", days[i].WindMs ?? 0, 0, 100, "m/s");
            faults.Day($"{list}[{i}].day", days[i].Day);
        }
    }
}
