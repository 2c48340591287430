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

    // Goods that are ordered today are there in a week (common practice).
    private const int GoodsDays = 7;

    private const int FewestDays = 28;

    // Days of work so near each other are one turn.
    private const int DaysOfATurn = 6;

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
        TurnSlot[] slots =
        [
            .. turns.Select((day, i) => new TurnSlot(day, i + 1 < turns.Length ? turns[i + 1] : turns[0].PlusYears(1), day == bulbsIn)),
        ];
        // A turn that has passed is caught up with as soon as goods can be there, where that leaves its display some weeks.
        LocalDate soon = plan.Site.Rules.WorkingDayFrom(wish.From.PlusDays(GoodsDays));
        return
        [
            .. slots
                .Select(s => s.From < wish.From && soon.PlusDays(FewestDays) <= s.To ? s with { From = soon } : s)
                .Where(s => s.From >= wish.From),
        ];
    }

    /// <summary>Turns to be made for days on which displays go in or out and that no turn of the plan holds: one for days near each other.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="displays">The displays.</param>
    /// <param name="from">Days before this one are left alone.</param>
    public static IReadOnlyList<Turn> Missing(Plan plan, IEnumerable<Display> displays, LocalDate from)
    {
        var spans = new List<(LocalDate First, LocalDate Last)>();
        IEnumerable<LocalDate> days = displays
            .SelectMany(d => d.IsOpenEnded ? [d.Install] : new[] { d.Install, d.Lift })
            .Where(d => d >= from && !plan.Turns.Any(t => t.Holds(d)))
            .Distinct()
            .Order();
        foreach (LocalDate day in days)
        {
            bool near =
                spans.Count > 0
                && Period.DaysBetween(spans[^1].Last, day) <= DaysOfATurn
                && !plan.Turns.Any(t => t.FirstDay <= day && t.LastDay >= spans[^1].First);
            if (near)
                spans[^1] = (spans[^1].First, day);
            else
                spans.Add((day, day));
        }
        var made = new List<Turn>();
        bool Taken(string name) => plan.Turns.Concat(made).Any(t => string.Equals(t.Name, name, StringComparison.OrdinalIgnoreCase));
        foreach ((LocalDate first, LocalDate last) in spans)
        {
            string month = first.ToString("MMMM uuuu", System.Globalization.CultureInfo.InvariantCulture);
            string name = Taken(month) ? first.ToString("d MMMM uuuu", System.Globalization.CultureInfo.InvariantCulture) : month;
            made.Add(new Turn(Ids.From(name, id => plan.Turns.Concat(made).Any(t => t.Id == id)), name, first, last));
        }
        return made;
    }
}
