using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>What days to come threaten beside cold nights.</summary>
public enum ThreatKind
{
    /// <summary>Heat stalls the flowers of some kinds.</summary>
    HeatStalls,

    /// <summary>Heat burns what stands in more sun than it bears.</summary>
    HeatBurns,

    /// <summary>The crew's heat index passes its limit.</summary>
    CrewHeat,

    /// <summary>Wind may topple containers.</summary>
    Storm,

    /// <summary>The first hard freeze: drip lines, drains, thin walls.</summary>
    HardFreeze,

    /// <summary>Wet snow lies heavy on evergreens.</summary>
    Snow,
}

/// <summary>What a day to come threatens.</summary>
/// <param name="Kind">What.</param>
/// <param name="Day">The day, or the first of several.</param>
/// <param name="Odds">Odds of it, 0 to 1.</param>
/// <param name="Planters">Which planters, the likeliest first; empty where the whole site is meant.</param>
/// <param name="Plants">Which kinds; empty where none in particular.</param>
public sealed record WeatherThreat(ThreatKind Kind, LocalDate Day, double Odds, IReadOnlyList<Planter> Planters, IReadOnlyList<Plant> Plants);

/// <summary>Reads threats out of a forecast.</summary>
public static class WeatherThreats
{
    // Gusts are about twice the mean wind of a day; a forecast of them is off by a third (common practice).
    private const double GustTimes = 2.2;
    private const double GustError = 0.3;

    // Air, kg/m³; drag of a bluff body; of the outline of a plant so much is leaf (from memory: engineering handbooks).
    private const double AirKgM3 = 1.25;
    private const double Drag = 1.2;
    private const double LeafShare = 0.6;
    private const double Gravity = 9.81;

    // A hard freeze: 28 °F, where water in thin lines freezes within a night (US National Weather Service's word for it).
    private const double HardFreezeC = -2.2;
    private const double BurnsFromC = 32;
    private const double SnowBelowC = 1;
    private const double HeavySnowMm = 10;
    private const double AirErrorC = 2;

    /// <summary>What blows a container over: the gust at which its overturning moment passes that of its weight, dry, m/s.</summary>
    /// <param name="planter">A container that stands.</param>
    /// <param name="plantsCm">How high its plants stand over the rim, cm.</param>
    /// <param name="spreadCm">How wide they are together, cm.</param>
    public static double TopplingGustMs(Planter planter, double plantsCm, double spreadCm)
    {
        PlanterForm form = planter.Form;
        double high = form.DepthCm / 100;
        double wide = Math.Max(form.TopLengthCm, form.BottomLengthCm) / 100;
        // It falls across its narrower foot.
        double foot = Math.Min(form.BottomLengthCm, form.BottomWidthCm) / 100;
        double plants = plantsCm / 100;
        double arm = (wide * high * high / 2) + (LeafShare * Math.Max(wide, spreadCm / 100) * plants * (high + (plants / 2)));
        double holds = PlanterLoad.Of(planter)!.DryKg * Gravity * foot / 2;
        return Math.Sqrt(holds / (0.5 * AirKgM3 * Drag * arm));
    }

    /// <summary>Reads a forecast.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="forecast">Days.</param>
    /// <param name="today">The day on which it was made.</param>
    /// <param name="heatLimitC">Heat index above which the crew works mornings only, °C.</param>
    /// <param name="done">What was done already.</param>
    /// <param name="errorC">How far lows are off so many days ahead here, a standard deviation in °C; null for the usual one.</param>
    /// <returns>By day; quiet days are not in it.</returns>
    public static IReadOnlyList<WeatherThreat> Of(
        Plan plan,
        IReadOnlyList<DayForecast> forecast,
        LocalDate today,
        double heatLimitC,
        IReadOnlyCollection<CareDone> done,
        Func<int, double>? errorC = null
    )
    {
        DayForecast[] days = [.. forecast.Where(f => f.Day >= today).OrderBy(f => f.Day)];
        if (days.Length == 0)
            return [];
        var threats = new List<WeatherThreat>();
        List<(Planter Planter, Display Display, Plant Plant)> standing =
        [
            .. plan
                .Planters.Where(p => !p.IsRetired)
                .SelectMany(p => plan.DisplaysOf(p.Id).Where(d => d.StandsOn(today)).Select(d => (p, d)))
                .SelectMany(x => x.d.Items.Select(i => (x.p, x.d, Plant: plan.FindPlant(i.PlantId))))
                .Where(x => x.Plant is not null)
                .Select(x => (x.p, x.d, x.Plant!)),
        ];
        Heat(days, standing, threats);
        foreach (WorkWeather hot in WorkWeather.Of(null, forecast, today, days.Length, heatLimitC))
        {
            if (hot.IsForecast && hot.Hinders.Contains(WeatherHinder.Hot))
                threats.Add(new WeatherThreat(ThreatKind.CrewHeat, hot.Day, 1, [], []));
        }
        // What blows each over is the same on every day.
        var topple = new Lazy<List<(Planter Planter, double GustMs)>>(() =>
            [
                .. standing
                    .Where(s => !s.Planter.Form.IsBed && s.Planter.Form.Shape != PlanterShape.Basket)
                    .GroupBy(s => s.Planter.Id)
                    .Select(g =>
                        (g.First().Planter, TopplingGustMs(g.First().Planter, g.Max(s => s.Plant.HeightCm), g.Max(s => s.Plant.MatureSpreadCm)))
                    ),
            ]
        );
        foreach (DayForecast day in days)
        {
            if (day.WindMs is { } wind && wind * GustTimes * (1 + (2 * GustError)) > 12)
                Storm(day.Day, wind * GustTimes, topple.Value, threats);
            if (day.MaxC <= SnowBelowC && day.RainMm >= HeavySnowMm)
            {
                (Planter Planter, Display Display, Plant Plant)[] evergreens =
                [
                    .. standing.Where(s => s.Plant.HasLastingTops && s.Plant.Green == GreenLeaf.Evergreen),
                ];
                if (evergreens.Length > 0)
                {
                    threats.Add(
                        new WeatherThreat(
                            ThreatKind.Snow,
                            day.Day,
                            0.8,
                            [.. evergreens.Select(e => e.Planter).DistinctBy(p => p.Id)],
                            [.. evergreens.Select(e => e.Plant).DistinctBy(p => p.Id)]
                        )
                    );
                }
            }
        }
        HardFreeze(plan, days, today, done, errorC ?? ColdNights.ErrorC, threats);
        return [.. threats.OrderBy(t => t.Day).ThenByDescending(t => t.Odds)];
    }

    /// <summary>What the crew does about a threat, if it can do anything, on the day before it or on the day itself.</summary>
    public static IEnumerable<CareJob> Jobs(IEnumerable<WeatherThreat> threats, LocalDate today)
    {
        foreach (WeatherThreat threat in threats)
        {
            (CareWork Work, LocalDate On)? what = threat.Kind switch
            {
                ThreatKind.Storm => (CareWork.Secure, threat.Day.PlusDays(-1)),
                ThreatKind.HardFreeze => (CareWork.Winter, threat.Day.PlusDays(-1)),
                ThreatKind.Snow => (CareWork.ShakeSnow, threat.Day.PlusDays(1)),
                _ => null,
            };
            if (what is not { } it)
                continue;
            LocalDate on = LocalDate.Max(it.On, today);
            foreach (Planter planter in threat.Planters)
                yield return new CareJob(planter, it.Work, on, on);
        }
    }

    private static void Heat(DayForecast[] days, List<(Planter Planter, Display Display, Plant Plant)> standing, List<WeatherThreat> threats)
    {
        // A week's mean above a kind's ceiling stalls it.
        double mean = days.Average(d => (d.MinC + d.MaxC) / 2);
        double error = AirErrorC / Math.Sqrt(2);
        (Planter Planter, Display Display, Plant Plant)[] stalled =
        [
            .. standing.Where(s => days.Length >= 4 && s.Plant.Roots.HeatCeilingC is { } ceiling && 1 - Normal.CDF(mean, error, ceiling) >= 0.5),
        ];
        if (stalled.Length > 0)
        {
            threats.Add(
                new WeatherThreat(
                    ThreatKind.HeatStalls,
                    days[0].Day,
                    1 - Normal.CDF(mean, error, stalled.Min(s => s.Plant.Roots.HeatCeilingC!.Value)),
                    [.. stalled.Select(s => s.Planter).DistinctBy(p => p.Id)],
                    [.. stalled.Select(s => s.Plant).DistinctBy(p => p.Id)]
                )
            );
        }
        (Planter Planter, Display Display, Plant Plant)[] shaded = [.. standing.Where(s => s.Planter.Exposure > s.Plant.LightHigh)];
        if (shaded.Length > 0 && days.FirstOrDefault(d => 1 - Normal.CDF(d.MaxC, AirErrorC, BurnsFromC) >= 0.5) is { } hot)
        {
            threats.Add(
                new WeatherThreat(
                    ThreatKind.HeatBurns,
                    hot.Day,
                    1 - Normal.CDF(hot.MaxC, AirErrorC, BurnsFromC),
                    [.. shaded.Select(s => s.Planter).DistinctBy(p => p.Id)],
                    [.. shaded.Select(s => s.Plant).DistinctBy(p => p.Id)]
                )
            );
        }
    }

    private static void Storm(LocalDate day, double gustMs, IEnumerable<(Planter Planter, double GustMs)> topple, List<WeatherThreat> threats)
    {
        List<(Planter Planter, double Odds)> falls =
        [
            .. topple
                .Select(t => (t.Planter, 1 - Normal.CDF(gustMs, Math.Max(0.5, gustMs * GustError), t.GustMs)))
                .Where(x => x.Item2 >= ColdNights.WorthTelling)
                .OrderByDescending(x => x.Item2),
        ];
        if (falls.Count > 0)
            threats.Add(new WeatherThreat(ThreatKind.Storm, day, falls[0].Odds, [.. falls.Select(f => f.Planter)], []));
    }

    private static void HardFreeze(
        Plan plan,
        DayForecast[] days,
        LocalDate today,
        IReadOnlyCollection<CareDone> done,
        Func<int, double> errorC,
        List<WeatherThreat> threats
    )
    {
        List<Planter> wanting =
        [
            .. plan.Planters.Where(p =>
                !p.IsRetired
                && (p.Watering == Watering.Drip || (!p.Form.IsBed && p.Wall is Ground.WallMaterial.Terracotta or Ground.WallMaterial.Glazed))
                // Once a winter.
                && !done.Any(d => d.Work == CareWork.Winter && d.PlanterId == p.Id && Period.DaysBetween(d.Day, today) < 200)
            ),
        ];
        if (wanting.Count == 0)
            return;
        double Odds(DayForecast night) => Normal.CDF(night.MinC, errorC(Period.DaysBetween(today, night.Day)), HardFreezeC);
        DayForecast? freeze = days.FirstOrDefault(d => d.Day > today && Odds(d) >= 0.3);
        if (freeze is not null)
            threats.Add(new WeatherThreat(ThreatKind.HardFreeze, freeze.Day, Odds(freeze), wanting, []));
    }
}
