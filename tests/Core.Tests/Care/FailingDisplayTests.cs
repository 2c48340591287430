using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>A display is called early where the log says that it is past mending, and left alone where it is not.</summary>
public sealed class FailingDisplayTests
{
    private static readonly LocalDate Planted = A.Day(2027, 5, 15);
    private static readonly LocalDate Today = A.Day(2027, 7, 30);

    private static readonly Plan Plan = A.Plan(
        [A.Pot()],
        [A.Annual("petunia"), A.Annual("begonia"), A.Tulip()],
        [
            A.Show("summer", Planted, A.Day(2027, 10, 10), DisplayLayer.Seasonal, new DisplayItem("petunia", 6), new DisplayItem("begonia", 4)),
            A.Show("bulbs", A.Day(2026, 10, 10), A.Day(2028, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 40)),
        ]
    );

    private static Observation Entry(ObservationKind kind, string? plant, int daysAgo, int? count = null) =>
        new(Guid.NewGuid(), "pot", plant, Today.PlusDays(-daysAgo), kind, string.Empty, "Rosa") { Count = count };

    private static Observation Look(int daysAgo, int rating, ReviewVerdict verdict) =>
        Entry(ObservationKind.Reviewed, null, daysAgo) with
        {
            Review = new PlanterReview(rating, verdict),
        };

    private static IReadOnlyList<FailingDisplay> On(params Observation[] log) => FailingDisplay.Of(Plan, log, Today);

    [Fact, CommonPractice]
    public void Half_lost_or_over_is_past_mending_and_less_is_not()
    {
        Assert.Empty(On());
        Assert.Empty(On(Entry(ObservationKind.Died, "petunia", 5, 4)));
        FailingDisplay failing = Assert.Single(On(Entry(ObservationKind.Died, "petunia", 5, 3), Entry(ObservationKind.Eaten, "begonia", 3, 2)));
        Assert.Equal(("summer", 5, 10), (failing.Display.Id, failing.Gone, failing.Planted));
        Assert.Equal(Period.DaysBetween(Today, A.Day(2027, 10, 10)), failing.DaysLeft);
        Assert.Equal(6, Assert.Single(On(Entry(ObservationKind.Over, "petunia", 9))).Gone);
        // Tulips over in July are as they should be.
        Assert.Empty(On(Entry(ObservationKind.Over, "tulip", 60)));
    }

    [Fact]
    public void What_shows_again_was_corrected_or_was_of_the_display_before_calls_nothing()
    {
        Assert.Empty(On(Entry(ObservationKind.Over, "petunia", 20), Entry(ObservationKind.Peak, "petunia", 2)));
        Assert.Empty(On(Entry(ObservationKind.Over, "petunia", 20) with { IsCorrected = true }));
        Assert.Empty(On(Entry(ObservationKind.Over, "petunia", 90)));
    }

    [Fact]
    public void The_last_review_decides_and_what_comes_out_soon_is_left_to_its_turn()
    {
        Assert.Equal(1, Assert.Single(On(Look(20, 4, ReviewVerdict.Keep), Look(3, 1, ReviewVerdict.Change))).Poor!.Review!.Rating);
        Assert.Single(On(Look(3, 3, ReviewVerdict.Drop)));
        Assert.Empty(On(Look(20, 1, ReviewVerdict.Drop), Look(3, 4, ReviewVerdict.Keep)));
        Assert.Empty(FailingDisplay.Of(Plan, [Look(3, 1, ReviewVerdict.Drop)], A.Day(2027, 10, 2)));
    }
}
