using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>Plants of one kind that a night may spoil.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Count">How many stand.</param>
/// <param name="Odds">Odds that the night is as cold as spoils them, 0 to 1.</param>
public sealed record PlantAtRisk(Plant Plant, int Count, double Odds);

/// <summary>What a night that is forecast may do to one planter.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Night">The day whose morning is meant.</param>
/// <param name="LowC">The lowest that is expected there, the frost pockets of its area and its own taken off, °C.</param>
/// <param name="ErrorC">How far off that may be: the standard deviation of forecasts made so long before, °C.</param>
/// <param name="Plants">What is at risk, the likeliest first.</param>
/// <param name="FleeceM2">Fleece that covers it to the ground or over its rim, m².</param>
public sealed record PlanterAtRisk(Planter Planter, LocalDate Night, double LowC, double ErrorC, IReadOnlyList<PlantAtRisk> Plants, double FleeceM2)
{
    /// <summary>The arithmetic behind the odds of one kind.</summary>
    public Working Explain(PlantAtRisk plant) =>
        new(
            WorkingKind.ColdNightOdds,
            Quantity.Share(plant.Odds),
            [],
            [
                new Fact(
                    WorkingPhrase.ColdNightStep,
                    ("low", Quantity.Celsius(LowC, 1)),
                    ("error", Quantity.CelsiusApart(ErrorC, 1)),
                    ("damage", Quantity.Celsius(plant.Plant.TopDamageC, 1))
                ),
            ]
        )
        {
            Parts = [("plant", plant.Plant), ("planter", Planter)],
        };

    /// <summary>Odds that anything of it is spoiled.</summary>
    public double Odds => Plants.Max(p => p.Odds);
}

/// <summary>What cold nights that are forecast put at risk.</summary>
public static class ColdNights
{
    /// <summary>Odds below which nobody is told: a crew that is called out in vain stops listening (common practice: one night in ten).</summary>
    public const double WorthTelling = 0.1;

    private const double HarmlessC = 8;
    private const double OverhangM = 0.3;

    /// <summary>
    /// Standard deviation of the lowest temperature that is forecast some days ahead, °C: 1.2 a day ahead to 3.5 a week ahead (from memory of
    /// verification by national services).
    /// </summary>
    /// <param name="leadDays">Days ahead, 1 or more.</param>
    public static double ErrorC(int leadDays) => 1.2 + ((3.5 - 1.2) * (Math.Clamp(leadDays, 1, 7) - 1) / 6);

    /// <summary>Looks at every planter and every night of a forecast.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="forecast">Nights.</param>
    /// <param name="today">The day on which it was forecast.</param>
    /// <param name="errorC">How far forecasts are off so many days ahead here, a standard deviation in °C; null for the usual one.</param>
    /// <returns>By night, then the likeliest first; quiet nights are not in it.</returns>
    public static IReadOnlyList<PlanterAtRisk> Of(Plan plan, IReadOnlyList<DayForecast> forecast, LocalDate today, Func<int, double>? errorC = null)
    {
        errorC ??= ErrorC;
        List<(Planter Planter, double PocketC)> inUse =
        [
            .. plan.Planters.Where(p => !p.IsRetired).Select(p => (p, plan.AreaOf(p).FrostPocketC + p.Survey.FrostPocketC)),
        ];
        double deepest = inUse.Select(p => p.PocketC).DefaultIfEmpty(0).Max();
        // Warmer than this nothing of the palette comes to harm.
        List<(DayForecast Night, double ErrorC)> nights =
        [
            .. forecast
                .Where(f => f.Day > today)
                .Select(f => (f, errorC(Period.DaysBetween(today, f.Day))))
                .Where(n => n.f.MinC - deepest <= HarmlessC + (3 * n.Item2)),
        ];
        if (nights.Count == 0)
            return [];
        var risks = new List<PlanterAtRisk>();
        foreach ((Planter planter, double pocket) in inUse)
        {
            List<(Plant Plant, int Count, Display Display)> standing =
            [
                .. plan.DisplaysOf(planter.Id)
                    .Where(d => d.Layer != DisplayLayer.Bulbs && d.Lift > nights[0].Night.Day && d.Install < nights[^1].Night.Day)
                    .SelectMany(d => d.Items.Select(i => (Plant: plan.Plant(i.PlantId), i.Count, d)))
                    .Where(x => x.Plant.DiesWithFrost || x.Plant.IsTender),
            ];
            if (standing.Count == 0)
                continue;
            foreach ((DayForecast night, double error) in nights)
            {
                double low = night.MinC - pocket;
                List<PlantAtRisk> plants =
                [
                    .. standing
                        .Where(s => s.Display.StandsOn(night.Day) && s.Display.Install < night.Day)
                        .GroupBy(s => s.Plant.Id)
                        .Select(g => new PlantAtRisk(g.First().Plant, g.Sum(s => s.Count), Normal.CDF(low, error, g.First().Plant.TopDamageC)))
                        .Where(p => p.Odds >= WorthTelling)
                        .OrderByDescending(p => p.Odds),
                ];
                if (plants.Count > 0)
                    risks.Add(new PlanterAtRisk(planter, night.Day, low, error, plants, Fleece(planter, plants)));
            }
        }
        return [.. risks.OrderBy(r => r.Night).ThenByDescending(r => r.Odds)];
    }

    /// <summary>What is covered for the coming night, and what comes off as no cold follows.</summary>
    /// <param name="risks">What nights to come put at risk.</param>
    /// <param name="today">Today.</param>
    /// <param name="planters">Planters, by id.</param>
    /// <param name="done">What was covered and uncovered before.</param>
    public static IEnumerable<CareJob> Jobs(
        IReadOnlyCollection<PlanterAtRisk> risks,
        LocalDate today,
        IReadOnlyDictionary<string, Planter> planters,
        IReadOnlyCollection<CareDone> done
    )
    {
        ILookup<string, CareDone> of = done.ToLookup(d => d.PlanterId);
        bool IsCovered(string planter) =>
            of[planter].Where(d => d.Work is CareWork.Cover or CareWork.Uncover && d.Day < today).MaxBy(d => d.Day) is { Work: CareWork.Cover };
        HashSet<string> cold = [.. risks.Where(r => r.Night <= today.PlusDays(2)).Select(r => r.Planter.Id)];
        foreach (PlanterAtRisk risk in risks.Where(r => r.Night == today.PlusDays(1) && !IsCovered(r.Planter.Id)))
            yield return new CareJob(risk.Planter, CareWork.Cover, today, today);
        foreach (string id in of.Select(g => g.Key).Where(id => planters.ContainsKey(id) && !cold.Contains(id) && IsCovered(id)))
            yield return new CareJob(planters[id], CareWork.Uncover, today, today);
    }

    // The surface with leaf that hangs over, and down the sides of what stands above it.
    private static double Fleece(Planter planter, IReadOnlyList<PlantAtRisk> plants)
    {
        double side = Math.Sqrt(planter.Form.SurfaceCm2) / 100;
        double high = plants.Max(p => p.Plant.HeightCm) / 100;
        // Nobody cuts fleece finer than to a tenth of a square metre.
        return Math.Ceiling(Math.Pow(side + (2 * OverhangM) + (2 * high), 2) * 10) / 10;
    }
}
