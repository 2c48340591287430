using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

public sealed class SiteScoreTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord Mild = A.Record(2001, 6, A.Mild);

    [Fact]
    public void A_site_in_colour_all_year_scores_a_hundred_and_a_bare_one_nothing()
    {
        Assert.Equal(100, Score(Start, 365)!.Total, 0.5);
        Assert.Equal(
            0,
            SiteScore.Of(A.Plan([A.Pot()], [A.Annual()], []), SiteYear.From(A.Plan([A.Pot()], [A.Annual()], []), Mild, Start))!.Total,
            0.01
        );
        Assert.Null(SiteScore.Of(A.Plan([], [], []), SiteYear.From(A.Plan([], [], []), Mild, Start)));
    }

    [Fact]
    public void Half_a_year_in_colour_counts_for_its_share_and_names_its_weak_months()
    {
        SiteScore score = Score(Start, 182)!;
        Assert.Equal(0.5, score.Colour, 0.01);
        Assert.Equal((0.0, 1.0), (score.Steady, score.ByMonth[0].Colour));
        Assert.Equal(0, score.ByMonth[9].Colour);
        Assert.Equal(60 * 0.5 / 85 * 100, score.Total, 0.2);
    }

    [Theory]
    [InlineData(30, 1)]
    [InlineData(300, 0)]
    public void An_event_is_ready_when_planters_show_colour_on_each_of_its_days(int day, int inColour)
    {
        Plan plan = A.Plan(
            [A.Annual(rule: new AllYear())],
            A.Show("one", Start, Start.PlusDays(100), DisplayLayer.Seasonal, new DisplayItem("annual", 8))
        );
        var festival = new SiteEvent("festival", "Festival", Start.PlusDays(day), Start.PlusDays(day + 2));
        EventOutlook outlook = EventOutlook.Of(SiteYear.From(plan, Mild, Start), festival)!;
        Assert.Equal((inColour, 1), (outlook.InColour, outlook.Planters));
        Assert.Equal(1 - inColour, outlook.Weakest.Count);
        Assert.Null(EventOutlook.Of(SiteYear.From(plan, Mild, Start), festival with { FirstDay = Start.PlusYears(2), LastDay = Start.PlusYears(2) }));
    }

    [Fact]
    public void Two_plans_side_by_side_name_what_differs_most_first()
    {
        Plan One(int days) =>
            A.Plan(
                [A.Pot(), A.Pot(id: "other")],
                [A.Annual(rule: new AllYear())],
                [A.Show("one", Start, Start.PlusDays(days), DisplayLayer.Seasonal, new DisplayItem("annual", 8))]
            );
        YearComparison both = YearComparison.Of(SiteYear.From(One(100), Mild, Start), SiteYear.From(One(130), Mild, Start));
        Assert.Equal((30, "pot"), (both.Planters[0].Days, both.Planters[0].Before.Planter.Id));
        Assert.True(both.Planters[1].IsSame);
        Assert.Equal(30, both.After - both.Before);
    }

    [Fact]
    public void Years_asked_by_name_are_found_in_the_record()
    {
        WeatherRecord record = A.Record(2001, 8, d => (d.Year, d.Month) switch
            {
                (2004, 1) => (-15, -8),
                (2005, 7) => (22, 36),
                (2006, 3 or 4) => (-3, 3),
                _ => A.Mild(d),
            });
        var kernel = new SeasonKernel(record, Start);
        NotableRuns runs = NotableRuns.Of(kernel.Seasons, Start, [A.Pot().ThermalClass()], false)!;
        Assert.Equal((2003, 2004, 2005), (runs.HardestWinter, runs.HottestSummer, runs.LatestSpring));
        Assert.DoesNotContain(runs.Typical, new[] { 2003, 2004, 2005 });
        Assert.Equal((-15.0, 36.0), (runs.HardestAirC, Math.Ceiling(runs.HottestMeanC)));
        Assert.Null(NotableRuns.Of([], Start, [], false));
    }

    private static SiteScore? Score(LocalDate install, int days)
    {
        Plan plan = A.Plan(
            [A.Annual(rule: new AllYear())],
            A.Show("one", install, install.PlusDays(days), DisplayLayer.Seasonal, new DisplayItem("annual", 8))
        );
        return SiteScore.Of(plan, SiteYear.From(plan, Mild, Start));
    }
}
