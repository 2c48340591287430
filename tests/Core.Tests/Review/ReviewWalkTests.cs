using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Tests.Review;

/// <summary>Review walks are due midway and at the end of what stands, and never while it is being planted.</summary>
public sealed class ReviewWalkTests
{
    [Fact, CommonPractice]
    public void Between_two_turns_one_walks_midway_and_a_week_before_the_next()
    {
        Turn Turn(string id, LocalDate first, int days) => new(id, id, first, first.PlusDays(days));
        IReadOnlyList<ReviewWalk> walks = ReviewWalk.Of([
            Turn("fall", A.Day(2027, 9, 27), 11),
            Turn("summer", A.Day(2027, 5, 17), 11),
            Turn("bulbs", A.Day(2027, 10, 18), 4),
            Turn("at-once", A.Day(2027, 10, 23), 2),
        ]);
        Assert.Equal(["summer", "fall", "fall", "bulbs"], walks.Select(w => w.Turn.Id));
        Assert.Equal([true, false, true, true], walks.Select(w => w.IsLast));
        Assert.Equal(A.Day(2027, 9, 20), walks[2].Day);
        Assert.Equal(Period.DaysBetween(A.Day(2027, 5, 28), walks[1].Day), Period.DaysBetween(walks[1].Day, A.Day(2027, 9, 27)), 1.0);
        Assert.All(walks, w => Assert.True(w.Day < w.Turn.FirstDay));
    }
}
