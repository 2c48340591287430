using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Tests.Review;

/// <summary>The history of a place, year by year.</summary>
public sealed class PlaceHistoryTests
{
    [Fact]
    public void Every_display_and_every_entry_that_counts_stands_in_its_year_once_and_what_is_to_come_in_none()
    {
        Plan plan = A.Plan(
            [A.Pot()],
            [A.Annual("petunia"), A.Tulip()],
            [
                A.Show("bulbs", A.Day(2025, 10, 10), A.Day(2026, 5, 20), DisplayLayer.Bulbs, new DisplayItem("tulip", 20)),
                A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 10, 10), DisplayLayer.Seasonal, new DisplayItem("petunia", 8)),
                A.Show("next", A.Day(2027, 5, 20), A.Day(2027, 10, 10), DisplayLayer.Seasonal, new DisplayItem("petunia", 8)),
            ]
        );
        Observation Entry(LocalDate day, ObservationKind kind) => new(Guid.NewGuid(), "pot", null, day, kind, "seen", "Rosa");
        Observation[] log =
        [
            Entry(A.Day(2026, 7, 1), ObservationKind.Reviewed) with
            {
                Review = new PlanterReview(4, ReviewVerdict.Keep),
            },
            Entry(A.Day(2026, 8, 1), ObservationKind.Reviewed) with
            {
                Review = new PlanterReview(5, ReviewVerdict.Repeat),
            },
            Entry(A.Day(2026, 8, 3), ObservationKind.Stolen) with
            {
                Count = 2,
            },
            Entry(A.Day(2026, 8, 4), ObservationKind.Died) with
            {
                IsCorrected = true,
            },
            Entry(A.Day(2026, 9, 4), ObservationKind.Note),
        ];
        IReadOnlyList<YearOfPlace> years = YearOfPlace.Of(plan, plan.Planters[0], log, southern: false, A.Day(2026, 11, 1));
        Assert.Equal([A.Day(2026, 9, 1), A.Day(2025, 9, 1)], years.Select(y => y.Start));
        YearOfPlace last = years[1];
        Assert.Equal(["bulbs", "summer"], last.Displays.Select(d => d.Id));
        Assert.Equal((4.5, 2, 3), (last.Rating!.Value, last.Lost, last.Entries.Count));
        Assert.Equal(plan.Site.GuidePrice(plan.Plant("tulip"), 20) + plan.Site.GuidePrice(plan.Plant("petunia"), 8), last.Cost);
        Assert.Contains(last.Displays, d => d.StandsOn(last.Shown!.Value));
        Assert.Equal((0, null), (years[0].Displays.Count, years[0].Shown));
        // In the south the year begins in March.
        Assert.Equal(A.Day(2026, 3, 1), YearOfPlace.Of(plan, plan.Planters[0], log, southern: true, A.Day(2026, 11, 1))[0].Start);
    }
}
