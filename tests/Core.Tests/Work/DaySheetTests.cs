using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Work;

public sealed class DaySheetTests
{
    private static readonly Turn Turn = new("fall", "Fall", A.Day(2026, 10, 1), A.Day(2026, 10, 20));

    private static readonly Plan Plan = A.Plan(
        [A.Pot() with { Watering = Watering.Drip }, A.Pot(id: "idle")],
        [A.Annual("petunia"), A.Annual("pansy"), A.Annual("ivy"), A.Tulip() with { Cautions = ["gloves"] }],
        [
            A.Show("summer", A.Day(2026, 5, 1), A.Day(2026, 10, 5), DisplayLayer.Seasonal, new DisplayItem("petunia", 5)),
            A.Show("winter", A.Day(2026, 10, 5), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)),
            A.Show("always", A.Day(2024, 5, 1), A.Day(2030, 5, 1), DisplayLayer.Standing, new DisplayItem("ivy", 2)),
            A.Show("bulbs", A.Day(2026, 10, 19), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9)),
        ],
        [Turn]
    );

    [Fact]
    public void A_turns_sheets_are_its_days_of_work() => Assert.Equal([A.Day(2026, 10, 5), A.Day(2026, 10, 19)], DaySheet.DaysOf(Plan, Turn));

    [Fact]
    public void A_sheet_says_what_comes_out_what_stays_and_what_goes_in()
    {
        SheetPlanter job = Assert.Single(DaySheet.For(Plan, A.Day(2026, 10, 5)).Planters);
        Assert.Equal("petunia", Assert.Single(job.Change.Out).Plant.Id);
        Assert.Equal("ivy", Assert.Single(job.Change.Stays).Plant.Id);
        Assert.Equal(("pansy", 8), (job.Change.In[0].Plant.Id, job.Change.In[0].Count));
    }

    [Fact]
    public void Bulbs_come_with_depth_and_cover_and_the_care_they_need()
    {
        DaySheet sheet = DaySheet.For(Plan, A.Day(2026, 10, 19));
        ChangeoverItem tulip = Assert.Single(Assert.Single(sheet.Planters).Change.In);
        Assert.Equal((15, 10), (tulip.DepthCm!.Value, tulip.CoverCm!.Value));
        Assert.Contains(sheet.Cautions, c => c.Kind is CautionKind.OfPlant && c["text"] is "gloves");
        Assert.DoesNotContain(sheet.Cautions, c => c.Kind is CautionKind.PoweredAuger);
    }

    [Fact, CommonPractice]
    public void Drip_lines_come_out_before_a_turn_and_go_back_after_it() =>
        Assert.Equal(StepKind.DripLineOut, DaySheet.For(Plan, A.Day(2026, 10, 5)).Planters[0].Steps[0].Kind);

    [Fact]
    public void What_holds_wherever_something_goes_in_is_said_once()
    {
        Plan two = A.Plan(
            [A.UsedPot(), A.UsedPot("second")],
            [A.Annual()],
            [
                A.Show("one", A.Day(2026, 10, 5), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 5)),
                A.Show("two", A.Day(2026, 10, 5), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 5)) with
                {
                    PlanterId = "second",
                },
            ]
        );
        DaySheet sheet = DaySheet.For(two, A.Day(2026, 10, 5));
        Assert.Contains(sheet.Everywhere, s => s.Kind is StepKind.SetOutInPots);
        Assert.All(sheet.Everywhere, s => Assert.All(sheet.Planters, p => Assert.Contains(s, p.Steps)));
        Assert.Empty(DaySheet.For(Plan, A.Day(2026, 10, 5)).Everywhere);
    }

    [Fact]
    public void A_planter_without_work_that_day_is_not_on_the_sheet() =>
        Assert.DoesNotContain(DaySheet.For(Plan, A.Day(2026, 10, 5)).Planters, p => p.Planter.Id == "idle");
}
