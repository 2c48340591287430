using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
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
        Assert.Contains("before the frost all-clear", remark.What, StringComparison.Ordinal);
        Assert.Contains("of 10 years", remark.Why, StringComparison.Ordinal);
        OddsDate clear = FrostOdds.From(NewYork, FrostEnd.LastSpring, 0).DateAt(0.1);
        FrostOdds spring = FrostOdds.From(NewYork, FrostEnd.LastSpring, 0);
        NodaTime.LocalDate allClear = remark.Remedies[0].After.Install;
        Assert.True(spring.OddsOn(allClear) <= 0.1);
        Assert.InRange(NodaTime.Period.DaysBetween(new NodaTime.LocalDate(2027, clear.Date!.Value.Month, clear.Date.Value.Day), allClear), 0, 2);
        Assert.Contains(allClear.ToString("d MMM", null), remark.Mend, StringComparison.Ordinal);
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
        Assert.Equal("box may lose its roots in winter", remark.What);
        Assert.Contains("of 10 winters (between", remark.Why, StringComparison.Ordinal);
        Assert.Empty(RemarksOn(box with { RootKillingC = -23 }, A.Day(2026, 4, 5), A.Day(2029, 9, 1)));
        Assert.Empty(RemarksOn(box, A.Day(2027, 4, 5), A.Day(2027, 11, 1)));
    }

    [Fact]
    public void Without_weather_nothing_is_said_of_frost()
    {
        Plan plan = A.Plan([A.Annual("lantana", 0)], A.Show("one", A.Day(2027, 4, 5), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("lantana", 3)));
        Assert.Empty(Grave(new DisplayChecks(plan, null).All(A.Day(2027, 1, 1))));
    }

    [Theory]
    [InlineData(Exposure.Shade, Exposure.PartSun, "too much")]
    [InlineData(Exposure.FullSun, Exposure.FullSun, null)]
    public void Light_that_a_plant_does_not_stand_is_warned(Exposure low, Exposure high, string? said)
    {
        var remarks = RemarksOn(A.Annual("fern") with { LightLow = low, LightHigh = high }, A.Day(2027, 6, 1), A.Day(2027, 9, 1)).ToList();
        if (said is null)
            Assert.Empty(remarks);
        else
            Assert.Contains(said, Assert.Single(remarks).What, StringComparison.Ordinal);
    }

    [Fact]
    public void Dry_and_wet_plants_in_one_planter_clash_even_from_different_layers()
    {
        Plant dry = A.Annual("stonecrop") with { Water = WaterNeed.Low };
        Plant wet = A.Annual("winterberry") with { Water = WaterNeed.High };
        Plan plan = A.Plan(
            [dry, wet],
            A.Show("one", A.Day(2025, 4, 1), A.Day(2030, 1, 1), DisplayLayer.Standing, new DisplayItem("winterberry", 1)),
            A.Show("two", A.Day(2027, 6, 1), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("stonecrop", 3)));
        Assert.Contains(new DisplayChecks(plan, NewYork).For(plan.Displays[1]), r => r.What == "stonecrop and winterberry want different water");
    }

    [Fact]
    public void Tulips_planted_in_February_are_warned_of_too_little_cold_and_those_of_October_are_not()
    {
        Remark remark = Assert.Single(LookAtTulips(A.Day(2027, 2, 8)));
        Assert.Contains("too little cold ahead", remark.What, StringComparison.Ordinal);
        Assert.Contains("12–18 weeks", remark.Why, StringComparison.Ordinal);
        Assert.Empty(LookAtTulips(A.Day(2026, 10, 20)));
    }

    [Fact]
    public void Every_remark_says_why_how_to_mend_and_shows_its_working() =>
        Assert.All(RemarksOn(A.Annual("lantana", 0) with { LightHigh = Exposure.PartSun }, A.Day(2027, 4, 5), A.Day(2027, 9, 1)), r =>
        {
            Assert.NotEmpty(r.Why);
            Assert.NotEmpty(r.Mend);
            Assert.NotEmpty(r.Working.Rule);
            Assert.NotEmpty(r.Working.Source);
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
