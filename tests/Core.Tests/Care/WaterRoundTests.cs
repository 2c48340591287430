using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>Who is watered when: by the balance, and by what crews do for what is new, roots or winters.</summary>
public sealed class WaterRoundTests
{
    private static readonly LocalDate May = A.Day(2027, 5, 15);

    private static Plan Plan(Display display) => A.Plan([A.Pot()], [A.Annual("petunia"), A.Tulip()], [display]);

    private static IReadOnlyList<WaterStop> On(Plan plan, LocalDate day, double min, double max, double rain = 0, LocalDate? given = null)
    {
        List<CareDay> days =
        [
            .. Enumerable.Range(-3, 7).Select(i => CareDay.Of(day.PlusDays(i), min, max, i == 0 ? rain : 0, 45, CareDaySource.Measured)),
        ];
        Watered[] water = given is { } on ? [new Watered(on)] : [];
        return WaterRound.Of(
            plan,
            plan.Planters.Select(p => PlanterWater.Of(plan, p, days, water)),
            day,
            given is { } last ? new Dictionary<string, LocalDate> { ["pot"] = last } : new Dictionary<string, LocalDate>()
        );
    }

    [Fact, CommonPractice]
    public void What_is_new_is_watered_every_other_day_for_a_fortnight_unless_it_rains_or_freezes()
    {
        Plan plan = Plan(A.Show("summer", May, A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", 8)));
        Assert.Equal(WaterReason.NewlyPlanted, Assert.Single(On(plan, May.PlusDays(2), 8, 14)).Reason);
        Assert.Empty(On(plan, May.PlusDays(3), 8, 14, given: May.PlusDays(2)));
        Assert.Empty(On(plan, May.PlusDays(2), 8, 14, rain: 80));
        Assert.Empty(On(plan, May.PlusDays(2), -8, -1));
        Assert.Empty(On(plan, May.PlusDays(40), 3, 9, given: May.PlusDays(39)));
    }

    [Fact, CommonPractice]
    public void Bulbs_are_watered_weekly_while_they_root_and_nothing_bare_is()
    {
        LocalDate october = A.Day(2026, 10, 10);
        Plan plan = Plan(A.Show("bulbs", october, A.Day(2027, 5, 20), DisplayLayer.Bulbs, new DisplayItem("tulip", 20)));
        Assert.Equal(WaterReason.BulbsRoot, Assert.Single(On(plan, october.PlusDays(8), 4, 12)).Reason);
        Assert.Empty(On(plan, october.PlusDays(10), 4, 12, given: october.PlusDays(8)));
        Assert.Empty(On(plan, A.Day(2027, 6, 10), 12, 20));
    }

    [Fact]
    public void A_round_is_one_task_an_area_with_a_line_for_each_planter_and_the_same_again()
    {
        LocalDate day = A.Day(2027, 7, 10);
        Plan plan = Plan(A.Show("summer", May, A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", 24)));
        IReadOnlyList<WaterStop> stops = On(plan, day, 22, 38);
        Assert.Equal(WaterReason.Dry, Assert.Single(stops).Reason);
        CrewTask task = Assert.Single(CareTasks.Of([.. WaterRound.Jobs(stops, day)], plan.Areas, day));
        Assert.Equal("care:Water:quay:2027-07-10", task.Id);
        Assert.Equal(stops.Sum(s => s.Litres), task.Lines.Sum(l => l.Litres ?? 0), 1e-9);
        Assert.Equal(task.Mark, CareTasks.Of([.. WaterRound.Jobs(stops, day)], plan.Areas, day)[0].Mark);
        Assert.Equal(TaskKind.Water, task.Kind);
        Assert.Equal(new TaskWindow(day, day, day), task.Window);
    }

    // A crew that is not asked to tell has watered when it was due: a pot is asked every few days, not every day and ever drier.
    [Fact]
    public void Where_nobody_tells_what_was_dry_is_taken_to_have_been_watered()
    {
        LocalDate first = A.Day(2027, 7, 1);
        Plan plan = Plan(A.Show("summer", A.Day(2027, 5, 15), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", 8)));
        List<CareDay> days = [.. Enumerable.Range(0, 40).Select(i => CareDay.Of(first.PlusDays(i), 16, 28, 0, 45, CareDaySource.Measured))];
        int asked = 0;
        double most = 0;
        for (LocalDate day = first.PlusDays(20); day < first.PlusDays(40); day = day.PlusDays(1))
        {
            PlanterWater water = PlanterWater.Of(plan, plan.Planters[0], days, [], day);
            asked += WaterRound.Of(plan, [water], day, new Dictionary<string, LocalDate>(), isTold: false).Count;
            most = Math.Max(most, water.ToFill(day));
        }
        Assert.InRange(asked, 4, 16);
        Assert.True(most < PlanterWater.Of(plan, plan.Planters[0], days, []).ToFill(days[^1].Day));
        // Bulbs that root come once a week by the calendar.
        LocalDate october = A.Day(2026, 10, 10);
        Plan bulbs = Plan(A.Show("bulbs", october, A.Day(2027, 5, 20), DisplayLayer.Bulbs, new DisplayItem("tulip", 20)));
        List<CareDay> cool = [.. Enumerable.Range(0, 30).Select(i => CareDay.Of(october.PlusDays(i), 3, 9, 0, 45, CareDaySource.Measured))];
        int weekly = Enumerable
            .Range(7, 14)
            .Count(i =>
                WaterRound
                    .Of(
                        bulbs,
                        [PlanterWater.Of(bulbs, bulbs.Planters[0], cool, [], october.PlusDays(i))],
                        october.PlusDays(i),
                        new Dictionary<string, LocalDate>(),
                        isTold: false
                    )
                    .Any(s => s.Reason == WaterReason.BulbsRoot)
            );
        Assert.Equal(2, weekly);
    }
}
