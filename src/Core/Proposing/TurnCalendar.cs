using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Proposing;

/// <summary>The time between two turns.</summary>
/// <param name="From">The day of the turn that begins it.</param>
/// <param name="To">The day of the next.</param>
/// <param name="TakesBulbs">True for the turn at which hardy bulbs go in.</param>
public sealed record TurnSlot(LocalDate From, LocalDate To, bool TakesBulbs);

/// <summary>
/// On what days a crew that turns so often would turn: fall, the bulbs' turn before winter, early spring, summer after the frost
/// all-clear, and midsummer (common practice), each moved to the plan's own turn where one is near.
/// </summary>
public static class TurnCalendar
{
    // A turn of the plan within so many days is the one that is meant.
    private const int NearDays = 24;

    // Cool-season bedding goes out so many days before the all-clear, where the ground lets it (common practice: six to eight weeks).
    private const int SpringAheadDays = 49;

    // What is set out in early summer has flowered so many days later (common practice).
    private const int MidsummerAfterDays = 60;

    /// <summary>The times between turns, in order; the last ends a year after the first turn.</summary>
    /// <param name="plan">The plan, for its turns and working days.</param>
    /// <param name="planters">Planters that are worked on.</param>
    /// <param name="wish">How often the crew turns, and from when on.</param>
    /// <param name="flowering">The site's flowering in the plan year.</param>
    /// <param name="time">When the ground takes a planting.</param>
    public static IReadOnlyList<TurnSlot> Of(Plan plan, IReadOnlyList<Planter> planters, YearWish wish, SiteFlowering flowering, PlantingTime time)
    {
        LocalDate end = wish.Start.PlusYears(1);
        LocalDate InYear(int month, int day)
        {
            var date = new LocalDate(wish.Start.Year, flowering.IsSouthern ? ((month + 5) % 12) + 1 : month, day);
            return date < wish.Start ? date.PlusYears(1) : date;
        }
        LocalDate bulbs = InYear(10, 15);
        for (int i = 0; i < 8 && time.SoilC(bulbs) > PlantingTime.WarmestSoilC; i++)
            bulbs = bulbs.PlusDays(7);
        LocalDate summer = flowering.AllClear is var clear && clear < InYear(5, 1) ? InYear(5, 1) : clear;
        LocalDate spring = summer.PlusDays(-SpringAheadDays);
        for (int i = 0; i < 6 && planters.Any(p => time.IsFrozen(p, spring)); i++)
            spring = spring.PlusDays(7);
        List<LocalDate> days = [bulbs, summer];
        if (wish.Turns >= 3)
            days.Add(spring);
        if (wish.Turns >= 4)
            days.Add(InYear(9, 20));
        if (wish.Turns >= 5)
            days.Add(summer.PlusDays(MidsummerAfterDays));
        LocalDate Near(LocalDate day)
        {
            Turn? own = plan
                .Turns.Where(t => Math.Abs(Period.DaysBetween(day, t.FirstDay)) <= NearDays)
                .MinBy(t => Math.Abs(Period.DaysBetween(day, t.FirstDay)));
            // Where the plan has no turn for it, a day on which the crew works; tender plants wait for the all-clear in any case.
            LocalDate meant = own?.FirstDay ?? plan.Site.Rules.WorkingDayFrom(day);
            return day == summer && meant < clear ? plan.Site.Rules.WorkingDayFrom(clear) : meant;
        }
        LocalDate bulbsIn = Near(bulbs);
        LocalDate[] turns = [.. days.Select(Near).Where(d => d >= wish.Start && d < end).Distinct().Order()];
        return
        [
            .. turns
                .Select((day, i) => new TurnSlot(day, i + 1 < turns.Length ? turns[i + 1] : turns[0].PlusYears(1), day == bulbsIn))
                .Where(s => s.From >= wish.From),
        ];
    }
}
