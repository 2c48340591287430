using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Care;

/// <summary>A planter that asks for water while there is not enough for all.</summary>
/// <param name="Stop">What it asks for.</param>
/// <param name="Worth">What is lost where it gets none, in the site's currency.</param>
public sealed record RationedStop(WaterStop Stop, decimal Worth);

/// <summary>A round under a water ban: who is watered, and who is let go.</summary>
/// <param name="Watered">Who is watered.</param>
/// <param name="LetGo">Who is let go, those first of which least is lost for a litre.</param>
public sealed record WaterBan(IReadOnlyList<RationedStop> Watered, IReadOnlyList<RationedStop> LetGo)
{
    /// <summary>Litres that all together ask for.</summary>
    public double Asked => Watered.Concat(LetGo).Sum(s => s.Stop.Litres);

    // What bears drought is seldom lost to a missed round (common practice).
    private const decimal DroughtShare = 0.3m;

    /// <summary>
    /// Divides the litres of a day. A litre goes where it saves most: what is lost is the guide price of what stands there, of bedding and bulbs for
    /// the share of their time that is still to come, of lasting plants whole; what bears drought counts three tenths of it. A planter gets all it
    /// asks for or none.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="round">Who asks for water.</param>
    /// <param name="day">The day.</param>
    /// <param name="litres">Litres that may be given by hand on the day, 0 or more.</param>
    public static WaterBan Of(Plan plan, IReadOnlyList<WaterStop> round, LocalDate day, double litres)
    {
        List<RationedStop> ranked =
        [
            .. round
                .Select(s => new RationedStop(s, Worth(plan, s, day)))
                .OrderByDescending(s => s.Worth / (decimal)s.Stop.Litres)
                .ThenBy(s => s.Stop.Planter.Id, StringComparer.Ordinal),
        ];
        var watered = new List<RationedStop>();
        var letGo = new List<RationedStop>();
        double left = litres;
        foreach (RationedStop stop in ranked)
        {
            bool fits = stop.Stop.Litres <= left + 1e-9;
            (fits ? watered : letGo).Add(stop);
            if (fits)
                left -= stop.Stop.Litres;
        }
        letGo.Reverse();
        return new WaterBan(watered, letGo);
    }

    private static decimal Worth(Plan plan, WaterStop stop, LocalDate day) =>
        plan.DisplaysOf(stop.Planter.Id)
            .Where(d => d.StandsOn(day))
            .Sum(d => d.Items.Sum(i => plan.FindPlant(i.PlantId) is { } plant ? Worth(plan, d, i, plant, day) : 0));

    private static decimal Worth(Plan plan, Display display, DisplayItem item, Plant plant, LocalDate day)
    {
        decimal price = plan.Site.GuidePrice(plant, item.Count);
        if (!plant.IsLasting)
            price *= Period.DaysBetween(day, display.Lift) / Math.Max(1m, Period.DaysBetween(display.Install, display.Lift));
        return plant.Water == WaterNeed.Low ? price * DroughtShare : price;
    }
}
