using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>Why a planter is watered.</summary>
public enum WaterReason
{
    /// <summary>Its thirstiest plant has used what is easily had.</summary>
    Dry,

    /// <summary>What was planted lately is kept moist until it has rooted.</summary>
    NewlyPlanted,

    /// <summary>Bulbs root until the ground freezes.</summary>
    BulbsRoot,

    /// <summary>Winter is dry, and roots that live through it must not be.</summary>
    WinterStill,
}

/// <summary>A planter that is watered on a day.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Reason">Why.</param>
/// <param name="Times">How often on that day.</param>
/// <param name="Litres">Litres in all.</param>
public sealed record WaterStop(Planter Planter, WaterReason Reason, int Times, double Litres);

/// <summary>Who is watered on a day, by hand; drip and rain see to the others.</summary>
public static class WaterRound
{
    // New plantings every other day for a fortnight, bulbs weekly while they root, what winters in pots every third week (common practice).
    private const int NewForDays = 14;
    private const int NewEveryDays = 2;
    private const int BulbsEveryDays = 7;
    private const int WinterEveryDays = 21;
    private const double LeastLitres = 0.5;

    /// <summary>Works the round out.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="waters">Balances of planters.</param>
    /// <param name="day">The day.</param>
    /// <param name="given">When somebody last watered, by planter.</param>
    /// <param name="isTold">True where the crew tells what it gave; else what is due by the calendar is taken to have been given when it was.</param>
    public static IReadOnlyList<WaterStop> Of(
        Plan plan,
        IEnumerable<PlanterWater> waters,
        LocalDate day,
        IReadOnlyDictionary<string, LocalDate> given,
        bool isTold = true
    )
    {
        var stops = new List<WaterStop>();
        foreach (PlanterWater water in waters.Where(w => w.Planter.Watering == Watering.Hand && !w.Planter.IsRetired))
        {
            if (water.On(day) is not { } now)
                continue;
            // Frozen medium takes none.
            if (now.Day.MaxC <= 0 || now.RainLitres >= now.EasyLitres)
                continue;
            List<Display> standing = [.. plan.DisplaysOf(water.Planter.Id).Where(d => d.StandsOn(day))];
            if (standing.Count == 0)
                continue;
            LocalDate last = LocalDate.Max(standing.Max(d => d.Install), given.GetValueOrDefault(water.Planter.Id, LocalDate.MinIsoValue));
            int since = Period.DaysBetween(last, day);
            bool Again(int everyDays) => isTold ? since >= everyDays : since > 0 && since % everyDays == 0;
            (WaterReason Reason, int Times)? due =
                water.TimesOn(day) is > 0 and var times ? (WaterReason.Dry, times)
                : standing.Exists(d => d.Layer != DisplayLayer.Bulbs && Period.DaysBetween(d.Install, day) is > 0 and <= NewForDays)
                && Again(NewEveryDays)
                && now.Day.MeanC > 5
                    ? (WaterReason.NewlyPlanted, 1)
                : standing.Exists(d => d.Layer == DisplayLayer.Bulbs && Period.DaysBetween(d.Install, day) is > 0 and < 90) && Again(BulbsEveryDays)
                    ? (WaterReason.BulbsRoot, 1)
                : !water.Planter.Form.IsBed && now.Day.MeanC is > 0 and < 8 && Again(WinterEveryDays) ? (WaterReason.WinterStill, 1)
                : null;
            if (due is not { } it)
                continue;
            double litres = Math.Max(LeastLitres, it.Times > 1 ? Math.Max(now.LackingLitres, now.UsedLitres) : now.LackingLitres);
            stops.Add(new WaterStop(water.Planter, it.Reason, it.Times, Math.Round(litres, 1)));
        }
        return stops;
    }

    /// <summary>A round as care that is asked on its day.</summary>
    public static IEnumerable<CareJob> Jobs(IEnumerable<WaterStop> stops, LocalDate day) =>
        stops.Select(s => new CareJob(s.Planter, CareWork.Water, day, day) { Litres = s.Litres });
}
