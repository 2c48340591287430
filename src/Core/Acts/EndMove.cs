using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Acts;

/// <summary>An end of a display.</summary>
public enum DisplayEnd
{
    /// <summary>The day it goes in.</summary>
    Install,

    /// <summary>The day it comes out.</summary>
    Lift,
}

/// <summary>Moves one end of a display to another day; what goes in, or came out, in the same layer on that same day moves with it.</summary>
public static class EndMove
{
    /// <summary>What it would do.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="display">The display.</param>
    /// <param name="end">Its end.</param>
    /// <param name="day">The day it moves to.</param>
    /// <param name="today">What was done before this day is done, and no end is moved to a day before it.</param>
    /// <returns>The displays as they become; none with a remark that says why not.</returns>
    public static PlanterAct Of(Plan plan, Display display, DisplayEnd end, LocalDate day, LocalDate today)
    {
        LocalDate was = end == DisplayEnd.Install ? display.Install : display.Lift;
        PlanterAct Not(ActHinder hinder, params (string, object?)[] told) =>
            new(plan.FindPlanter(display.PlanterId)!, [], [], [], [], [new Fact(hinder, told)]);
        if (was < today || day < today)
            return Not(ActHinder.Begun);
        if (day == was)
            return Not(ActHinder.AsItIs);
        Display[] layer = [.. plan.DisplaysOf(display.PlanterId).Where(d => d.Layer == display.Layer)];
        Display? partner = Array.Find(layer, d => d.Id != display.Id && (end == DisplayEnd.Install ? d.Lift : d.Install) == was);
        Display[] before = partner is null ? [display] : [display, partner];
        Display[] after =
        [
            end == DisplayEnd.Install ? display with { Install = day } : display with { Lift = day },
            .. partner is null ? [] : new[] { end == DisplayEnd.Install ? partner with { Lift = day } : partner with { Install = day } },
        ];
        foreach (Display moved in after)
        {
            if (moved.Faults() is [var fault, ..])
                return Not(ActHinder.Faulty, ("fault", $"{fault}"));
            Display? other = Array.Find(layer, o => before.All(b => b.Id != o.Id) && o.Install < moved.Lift && moved.Install < o.Lift);
            if (other is not null)
                return Not(ActHinder.LayerTaken, ("layer", other.Layer), ("from", other.Install), ("to", other.Lift));
        }
        return new PlanterAct(plan.FindPlanter(display.PlanterId)!, before, after, [], [], []);
    }
}
