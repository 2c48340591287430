using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Work;

/// <summary>A day on which a display goes in or comes out and that lies in no turn, so that no order and none of the turns' sheets hold it.</summary>
/// <param name="Display">The display.</param>
/// <param name="Planter">Its planter.</param>
/// <param name="Day">The day.</param>
/// <param name="GoesIn">True when it goes in then, false when it comes out.</param>
/// <param name="Nearest">The turn that lies nearest.</param>
/// <param name="InTurn">The day of that turn that lies nearest.</param>
public sealed record DayOutsideTurns(Display Display, Planter Planter, LocalDate Day, bool GoesIn, Turn Nearest, LocalDate InTurn)
{
    /// <summary>
    /// All of them between the first turn and the last, in order. What went in before anybody made turns, and what comes out
    /// years later, is none of them.
    /// </summary>
    public static IReadOnlyList<DayOutsideTurns> Of(Plan plan)
    {
        if (plan.Turns.Count == 0)
            return [];
        LocalDate first = plan.Turns.Min(t => t.FirstDay);
        LocalDate last = plan.Turns.Max(t => t.LastDay);
        var found = new List<DayOutsideTurns>();
        foreach (Display display in plan.Displays)
        {
            foreach ((LocalDate day, bool goesIn) in new[] { (display.Install, true), (display.Lift, false) })
            {
                if (day < first || day > last || plan.Turns.Any(t => t.Holds(day)))
                    continue;
                Turn nearest = plan.Turns.MinBy(t => Period.DaysBetween(day < t.FirstDay ? day : t.LastDay, day < t.FirstDay ? t.FirstDay : day))!;
                found.Add(
                    new DayOutsideTurns(
                        display,
                        plan.FindPlanter(display.PlanterId)!,
                        day,
                        goesIn,
                        nearest,
                        day < nearest.FirstDay ? nearest.FirstDay : nearest.LastDay
                    )
                );
            }
        }
        return [.. found.OrderBy(f => f.Day).ThenBy(f => f.Planter.Name, StringComparer.Ordinal)];
    }

    /// <summary>
    /// The planter's displays with the day moved into the nearest turn: all that change hands on it, so that nothing stands bare between.
    /// </summary>
    public IReadOnlyList<(Display Before, Display After)> Moved(Plan plan) =>
        [
            .. plan.DisplaysOf(Planter.Id)
                .Where(d => d.Install == Day || d.Lift == Day)
                .Select(d => (d, d with { Install = d.Install == Day ? InTurn : d.Install, Lift = d.Lift == Day ? InTurn : d.Lift })),
        ];
}
