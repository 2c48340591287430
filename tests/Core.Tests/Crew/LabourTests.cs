using CsCheck;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Crew;

/// <summary>What work takes: figures of common practice, and how a crew's own times change them.</summary>
public sealed class LabourTests
{
    // CommonPractice: with an auger, 250 bulbs are two people's work for two half-days.
    [Fact]
    public void Two_people_with_an_auger_set_250_bulbs_in_two_half_days()
    {
        Plan plan = Bulbs(250, PlanterSurvey.Unseen);
        IReadOnlyList<WorkPart> parts = Labour.Of(Changeover.Of(plan, plan.Planters[0])[0]);
        WorkPart bored = Assert.Single(parts, p => p.Kind == WorkKind.SetBulbsByAuger);
        WorkRate rate = LabourTable.Usual[WorkKind.SetBulbsByAuger];
        Assert.Equal(2, rate.People);
        Assert.Equal(2 * 2 * 4 * 60, bored.MinutesBy(LabourTable.Usual), 1e-6);
        // By hand it would take longer: for fewer bulbs nobody fetches the auger.
        Assert.True(250 * LabourTable.Usual[WorkKind.SetBulbsInBed].Minutes > bored.MinutesBy(LabourTable.Usual));
        Assert.Contains(Labour.Of(Changeover.Of(Bulbs(30, PlanterSurvey.Unseen), plan.Planters[0])[0]), p => p.Kind == WorkKind.SetBulbsInBed);
    }

    [Fact]
    public void Fabric_more_than_doubles_the_planting_and_clay_lengthens_it_by_hand_alone()
    {
        double Minutes(int bulbs, PlanterSurvey survey)
        {
            Plan plan = Bulbs(bulbs, survey);
            return Labour.Of(Changeover.Of(plan, plan.Planters[0])[0]).Sum(p => p.MinutesBy(LabourTable.Usual));
        }
        double plain = Minutes(40, PlanterSurvey.Unseen);
        Assert.True(Minutes(40, PlanterSurvey.Unseen with { WeedFabric = true }) > 2 * plain);
        Assert.Equal(1.5 * plain, Minutes(40, PlanterSurvey.Unseen with { Soil = SoilKind.HeavyClay }), 1e-6);
        Assert.Equal(Minutes(200, PlanterSurvey.Unseen), Minutes(200, PlanterSurvey.Unseen with { Soil = SoilKind.HeavyClay }), 1e-6);
    }

    // Gelman and others, Bayesian Data Analysis, 3rd ed., eq. 2.12, worked by hand: a prior of mean 1 and standard deviation 0.3, four
    // observations of mean 2 with standard deviation 0.5: precisions 1/0.09 = 11.111 and 4/0.25 = 16, mean (11.111 + 32) / 27.111 = 1.5902,
    // standard deviation 1/√27.111 = 0.19206.
    [Fact]
    public void A_crews_own_times_draw_the_figures_to_them_as_a_normal_prior_and_normal_data_do()
    {
        WorkRate rate = LabourTable.Of([new TimesTaken(WorkKind.SetPacks, 4, 2)])[WorkKind.SetPacks];
        Assert.Equal(1.5902, rate.Minutes / rate.Usual, 1e-4);
        Assert.Equal(0.19206, rate.Spread / rate.Usual, 1e-5);
        Assert.Equal(LabourTable.Usual[WorkKind.TakeOut], LabourTable.Of([new TimesTaken(WorkKind.SetPacks, 4, 2)])[WorkKind.TakeOut]);
    }

    [Fact]
    public void More_times_bring_the_figure_nearer_to_their_mean_and_make_it_surer() =>
        Gen.Select(Gen.Int[1, 200], Gen.Double[0.2, 5])
            .Sample(
                (times, ratio) =>
                {
                    WorkRate few = LabourTable.Of([new TimesTaken(WorkKind.TakeOut, times, ratio)])[WorkKind.TakeOut];
                    WorkRate more = LabourTable.Of([new TimesTaken(WorkKind.TakeOut, times + 5, ratio)])[WorkKind.TakeOut];
                    Assert.True(Math.Abs(more.Minutes - (more.Usual * ratio)) <= Math.Abs(few.Minutes - (few.Usual * ratio)) + 1e-12);
                    Assert.True(more.Spread < few.Spread);
                    Assert.InRange(few.Minutes / few.Usual, Math.Min(1, ratio) - 1e-9, Math.Max(1, ratio) + 1e-9);
                },
                iter: 500
            );

    private static Plan Bulbs(int count, PlanterSurvey survey) =>
        A.Plan(
            [A.Bed(1200, 400) with { Survey = survey }],
            [A.Tulip()],
            [new Display("d", "bed", DisplayLayer.Bulbs, A.Day(2026, 10, 20), A.Day(2027, 6, 1), [new DisplayItem("tulip", count)])]
        );
}
