using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Web.Tests;

public sealed class OutlineInputTests
{
    private static readonly UnitsText Metric = new(SiteUnits.Metric);
    private static readonly UnitsText Us = new(SiteUnits.UsCustomary);

    [Fact]
    public void Sides_are_read_with_points_commas_and_degree_signs()
    {
        Assert.Equal(
            [new MeasuredSide(420, 90), new MeasuredSide(250, 88.5), new MeasuredSide(300, 90)],
            OutlineInput.ReadSides("4.2 90°\n\n2,5; 88,5\n3", Metric)
        );
        Assert.Equal(304.8, OutlineInput.ReadSides("10 90", Us)[0].LengthCm, 1e-9);
    }

    [Fact]
    public void Corners_are_written_and_read_back_in_either_unit()
    {
        var outline = new BedOutline(
            [new(0, 0), new(400, 0), new(400, 300), new(0, 300)],
            [
                [new(100, 100), new(200, 100), new(200, 200)],
            ],
            12
        );
        foreach (UnitsText units in new[] { Metric, Us })
        {
            BedOutline back = OutlineInput.Read(null, OutlineInput.Write(outline, units), 12, units)!;
            Assert.Equal(outline.AreaCm2, back.AreaCm2, 20.0);
            Assert.Single(back.Holes);
        }
    }

    [Fact]
    public void A_ring_that_says_its_first_corner_twice_is_closed_once() =>
        Assert.Equal(4, OutlineInput.Read(null, "0,0\n4,0\n4,4\n0,4\n0,0", 10, Metric)!.Ring.Count);

    [Fact]
    public void Nothing_typed_is_no_outline() => Assert.Null(OutlineInput.Read(" ", "\n", 10, Metric));

    [Theory]
    [InlineData("0 0\n4 zero", "corners", "line 2: \"zero\" is no number")]
    [InlineData("0 0 7\n4 1", "corners", "line 1: must be two numbers")]
    public void A_line_that_is_no_corner_is_named(string text, string field, string said)
    {
        Fault fault = Assert.Single(Assert.Throws<InvalidInputException>(() => OutlineInput.Read(null, text, 10, Metric)).Faults);
        Assert.Equal(field, fault.Field);
        Assert.Contains(said, fault.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_survey_typed_in_feet_and_pounds_is_kept_in_metres_and_kilograms_and_shown_again_as_typed()
    {
        var input = new SurveyInput
        {
            WallThickness = "1",
            Sightline = "40",
            DeckLimit = "100",
            FrostPocket = "3.6",
            Mulch = "2",
            TreeName = "Lime",
            TreeCrown = "100",
            TreeHeight = "200",
            TreeYear = "2026",
        };
        var faults = new FaultList();
        PlanterSurvey survey = input.Read(Us, false, faults);
        Assert.True(faults.IsEmpty);
        Assert.Equal(
            (2.54, 101.6, 488.2, 2.0, 5.08),
            (survey.WallThicknessCm, survey.SightlineCm, survey.DeckLimitKgM2, survey.FrostPocketC, survey.MulchCm)
        );
        Assert.Equal(254, survey.Tree!.RootCm);
        SurveyInput again = SurveyInput.From(survey, Us);
        Assert.Equal(("1", "40", "3.6"), (again.WallThickness, again.Sightline, again.FrostPocket));
    }

    [Fact]
    public void What_is_no_number_in_a_survey_is_refused_by_its_own_field()
    {
        var faults = new FaultList();
        PlanterSurvey survey = new SurveyInput
        {
            Ph = "sour",
            DrainHoles = "some",
            StoodSince = "soon",
        }.Read(Metric, false, faults);
        Assert.Equal("survey.stoodSince", Assert.Single(faults.Faults).Field);
        Assert.Equal(["drainHoles", "ph"], survey.Faults(false).Select(f => f.Field));
        Assert.Equal("Survey.Ph", SurveyInput.Field("ph"));
    }

    [Fact]
    public void Weights_and_areas_are_said_in_the_sites_units()
    {
        Assert.Equal(("148 kg", "325 lb"), (Metric.Weight(147.6), Us.Weight(147.6)));
        Assert.Equal(("2.5 m²", "26.9 ft²"), (Metric.Area(2.5), Us.Area(2.5)));
        Assert.Equal(("100 m", "328 ft"), (Metric.MapDistance(100), Us.MapDistance(100)));
    }
}
