using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Review;

/// <summary>A walk past all planters that is due before a turn.</summary>
/// <param name="Turn">The turn that ends what is looked at.</param>
/// <param name="Day">The day.</param>
/// <param name="IsLast">True for the walk at the end, false for the one midway.</param>
public sealed record ReviewWalk(Turn Turn, LocalDate Day, bool IsLast)
{
    // A week before it comes out it is still what it was; of what stands less than two months one walk tells enough (common practice).
    private const int DaysBefore = 7;
    private const int WorthTwoDays = 60;

    /// <summary>Walks that are due: midway between a turn and the next, and a week before the next takes out what stood.</summary>
    /// <param name="turns">The turns, in any order.</param>
    public static IReadOnlyList<ReviewWalk> Of(IEnumerable<Turn> turns)
    {
        var walks = new List<ReviewWalk>();
        LocalDate? before = null;
        foreach (Turn turn in turns.OrderBy(t => t.FirstDay))
        {
            LocalDate last = turn.FirstDay.PlusDays(-DaysBefore);
            if (before is { } since && Period.DaysBetween(since, turn.FirstDay) >= WorthTwoDays)
                walks.Add(new ReviewWalk(turn, since.PlusDays(Period.DaysBetween(since, turn.FirstDay) / 2), false));
            // Turns that follow each other at once leave nothing to look at between them.
            if (before is null || last > before)
                walks.Add(new ReviewWalk(turn, last, true));
            before = before is { } until ? LocalDate.Max(until, turn.LastDay) : turn.LastDay;
        }
        return walks;
    }
}
