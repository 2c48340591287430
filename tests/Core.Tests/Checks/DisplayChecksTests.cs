using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Checks;

public sealed class DisplayChecksTests
{
    private static readonly WeatherRecord NewYork = A.Record("New York");

    [Fact]
    public void A_tender_plant_before_the_ten_per_cent_frost_date_is_warned_with_the_odds_and_the_day()
    {
        Remark remark = Assert.Single(RemarksOn(A.Annual("lantana", 0), A.Day(2027, 4, 5), A.Day(2027, 9, 1)));
        Assert.Equal("BeforeAllClear:lantana", remark.Says.Key);
        Assert.Equal(Dimension.OutOfTen, Assert.IsType<Quantity>(remark.Says["odds"]).Dimension);
        OddsDate clear = FrostOdds.From(NewYork, FrostEnd.LastSpring, 0).DateAt(0.1);
        FrostOdds spring = FrostOdds.From(NewYork, FrostEnd.LastSpring, 0);
        NodaTime.LocalDate allClear = remark.Remedies[0].After.Install;
        Assert.True(spring.OddsOn(allClear) <= 0.1);
        Assert.InRange(NodaTime.Period.DaysBetween(new NodaTime.LocalDate(2027, clear.Date!.Value.Month, clear.Date.Value.Day), allClear), 0, 2);
        Assert.Equal(allClear, remark.Says["allClear"]);
    }

    [Fact]
    public void A_site_that_accepts_more_frost_has_its_all_clear_earlier()
    {
        var weather = A.Record("New York");
        var cautious = new SiteFlowering(weather, A.Day(2026, 9, 1), 0.05);
        var usual = new SiteFlowering(weather, A.Day(2026, 9, 1));
        var bold = new SiteFlowering(weather, A.Day(2026, 9, 1), 0.5);
        Assert.True(bold.AllClear < usual.AllClear && usual.AllClear < cautious.AllClear);
    }

    [Fact]
    public void After_the_all_clear_nothing_is_said() => Assert.Empty(RemarksOn(A.Annual("lantana", 0), A.Day(2027, 5, 20), A.Day(2027, 9, 1)));

    [Fact]
    public void A_plant_that_stands_frost_may_go_out_early() => Assert.Empty(RemarksOn(A.Annual("pansy", -10), A.Day(2027, 3, 1), A.Day(2027, 9, 1)));

    [Fact]
    public void A_shrub_whose_roots_a_pot_cannot_keep_is_warned_with_its_odds_and_one_whose_roots_are_hardy_is_not()
    {
        Plant box = A.Annual("box", -26) with { LifeForm = LifeForm.Shrub, RootKillingC = -3 };
        Remark remark = Assert.Single(RemarksOn(box, A.Day(2026, 4, 5), A.Day(2029, 9, 1)));
        Assert.Equal("RootsLostInWinter:box:pot", remark.Says.Key);
        Quantity Odds(string part) => Assert.IsType<Quantity>(remark.Says[part]);
        Assert.InRange(Odds("odds").Value * 10, Odds("low").Value, Odds("high").Value);
        Assert.Empty(RemarksOn(box with { RootKillingC = -23 }, A.Day(2026, 4, 5), A.Day(2029, 9, 1)));
        Assert.Empty(RemarksOn(box, A.Day(2027, 4, 5), A.Day(2027, 11, 1)));
    }

    [Fact]
    public void Without_weather_nothing_is_said_of_frost()
    {
        Plan plan = A.Plan(
            [A.Annual("lantana", 0)],
            A.Show("one", A.Day(2027, 4, 5), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("lantana", 3))
        );
        Assert.Empty(Grave(new DisplayChecks(plan, null).All(A.Day(2027, 1, 1))));
    }

    [Theory]
    [InlineData(Exposure.Shade, Exposure.PartSun, RemarkKind.TooMuchSun)]
    [InlineData(Exposure.FullSun, Exposure.FullSun, null)]
    public void Light_that_a_plant_does_not_stand_is_warned(Exposure low, Exposure high, RemarkKind? said)
    {
        var remarks = RemarksOn(A.Annual("fern") with { LightLow = low, LightHigh = high }, A.Day(2027, 6, 1), A.Day(2027, 9, 1)).ToList();
        if (said is null)
            Assert.Empty(remarks);
        else
            Assert.Equal(said, Assert.Single(remarks).Kind);
    }

    [Fact]
    public void Dry_and_wet_plants_in_one_planter_clash_even_from_different_layers()
    {
        Plant dry = A.Annual("stonecrop") with { Water = WaterNeed.Low };
        Plant wet = A.Annual("winterberry") with { Water = WaterNeed.High };
        Plan plan = A.Plan(
            [dry, wet],
            A.Show("one", A.Day(2025, 4, 1), A.Day(2030, 1, 1), DisplayLayer.Standing, new DisplayItem("winterberry", 1)),
            A.Show("two", A.Day(2027, 6, 1), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("stonecrop", 3))
        );
        Assert.Contains(new DisplayChecks(plan, NewYork).For(plan.Displays[1]), r => r.Says.Key == "DifferentWater:stonecrop:winterberry");
    }

    [Fact]
    public void Tulips_planted_in_February_are_warned_of_too_little_cold_and_those_of_October_are_not()
    {
        Remark remark = Assert.Single(LookAtTulips(A.Day(2027, 2, 8)));
        Assert.Equal(RemarkKind.TooLittleCold, remark.Kind);
        Assert.Equal((Quantity.Number(12), Quantity.Weeks(18)), (remark.Says["least"], remark.Says["most"]));
        Assert.Empty(LookAtTulips(A.Day(2026, 10, 20)));
    }

    [Fact]
    public void Every_remark_shows_its_working() =>
        Assert.All(RemarksOn(A.Annual("lantana", 0) with { LightHigh = Exposure.PartSun }, A.Day(2027, 4, 5), A.Day(2027, 9, 1)), r =>
        {
            Assert.NotNull(r.Working.Value);
            Assert.NotEmpty(r.Working.Inputs);
        });

    private static IEnumerable<Remark> RemarksOn(Plant plant, NodaTime.LocalDate install, NodaTime.LocalDate lift)
    {
        Plan plan = A.Plan([plant], A.Show("one", install, lift, DisplayLayer.Seasonal, new DisplayItem(plant.Id, 3)));
        return Grave(new DisplayChecks(plan, NewYork).For(plan.Displays[0]));
    }

    // What loses or weakens plants; looks and house rules have checks of their own.
    private static IEnumerable<Remark> Grave(IEnumerable<Remark> remarks) => remarks.Where(r => r.Gravity <= Gravity.Weakens);

    private static IEnumerable<Remark> LookAtTulips(NodaTime.LocalDate install)
    {
        Plan plan = A.Plan([A.Tulip()], A.Show("one", install, A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9)));
        return Grave(new DisplayChecks(plan, NewYork).For(plan.Displays[0]));
    }
}
