using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

/// <summary>When the ground takes a planting.</summary>
public sealed class PlantingTimeTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly PlantingTime Cold = new(new SeasonKernel(A.Record(2001, 6, Continental), Start));
    private static readonly PlantingTime Mild = new(new SeasonKernel(A.Record("Seattle"), Start));

    [Fact, CommonPractice]
    public void Where_the_ground_freezes_in_november_nothing_new_takes_hold_late_in_that_month()
    {
        Assert.NotEmpty(Cold.Against(A.Shipped("pansy-yellow"), false, A.Day(2026, 11, 28)));
        Assert.NotEmpty(Cold.Against(A.Shipped("tulip-mid-red"), false, A.Day(2026, 11, 28)));
        Assert.Empty(Cold.Against(A.Shipped("tulip-mid-red"), true, A.Day(2026, 11, 28)));
        Assert.Empty(Cold.Against(A.Shipped("pansy-yellow"), false, A.Day(2026, 9, 20)));
        Assert.Empty(Cold.Against(A.Shipped("petunia-magenta"), false, A.Day(2027, 5, 25)));
        Assert.Empty(Mild.Against(A.Shipped("pansy-yellow"), false, A.Day(2026, 11, 10)));
    }

    [Fact, CommonPractice]
    public void Bulbs_wait_for_cool_soil() =>
        Assert.Contains(Mild.Against(A.Shipped("tulip-mid-red"), false, A.Day(2026, 9, 3)), s => s.Kind is PlantingHinder.SoilTooWarm);

    [Fact]
    public void A_pot_freezes_in_a_continental_january_and_not_in_may()
    {
        Assert.True(Cold.IsFrozen(A.Pot(), A.Day(2027, 1, 20)));
        Assert.False(Cold.IsFrozen(A.Pot(), A.Day(2027, 6, 1)));
        Assert.False(Mild.IsFrozen(A.Pot(), A.Day(2027, 5, 1)));
    }

    [Fact]
    public void A_summer_recipe_looked_at_in_november_is_proposed_for_the_summer_turn_and_an_autumn_one_is_not()
    {
        var fall = new Turn("fall", "Fall", A.Day(2026, 12, 7), A.Day(2026, 12, 18));
        var summer = new Turn("summer", "Summer", A.Day(2027, 6, 7), A.Day(2027, 6, 18));
        Plan with = A.Plan([A.Pot()], A.Palette, [], [fall, summer]);
        Plan without = A.Plan([A.Pot()], A.Palette, [], []);
        var kernel = new SeasonKernel(A.Record(2001, 6, Continental), Start);
        var flowering = new SiteFlowering(A.Record(2001, 6, Continental), Start);
        var time = new PlantingTime(kernel);
        Plant[] petunias = [A.Shipped("petunia-magenta")];
        Assert.Equal(summer.FirstDay, time.Proposed(with, petunias, A.Day(2026, 12, 5), flowering));
        LocalDate alone = time.Proposed(without, petunias, A.Day(2026, 12, 5), flowering);
        Assert.InRange(alone, flowering.AllClear, A.Day(2027, 6, 30));
        Assert.True(Site.Default.Rules.WorksOn(alone));
        Assert.InRange(time.Proposed(without, [A.Shipped("pansy-yellow")], A.Day(2026, 12, 5), flowering), A.Day(2027, 2, 1), A.Day(2027, 5, 15));
    }

    // The middle of a northern continent: −13 °C in January, 23 in July.
    private static (double Min, double Max) Continental(LocalDate d)
    {
        double mean = 5 - (18 * Math.Cos(2 * Math.PI * (d.DayOfYear - 15) / 365.25));
        return (mean - 5, mean + 5);
    }

    [Theory]
    [InlineData(WorkWeekSchool.MondayToFriday, 30)]
    [InlineData(WorkWeekSchool.MondayToSaturday, 28)]
    [InlineData(WorkWeekSchool.EveryDay, 28)]
    public void A_saturday_is_worked_where_the_crew_works_on_it(WorkWeekSchool week, int day) =>
        Assert.Equal(A.Day(2026, 11, day), new HouseRules { WorkWeek = week }.WorkingDayFrom(A.Day(2026, 11, 28)));
}
