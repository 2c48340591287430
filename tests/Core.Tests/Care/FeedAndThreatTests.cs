using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>Arithmetic of feed, what wind topples, what is looked for.</summary>
public sealed class FeedAndThreatTests
{
    private static readonly LocalDate July = A.Day(2027, 7, 12);

    // Extension services of the US: ppm N = (oz in 100 US gal) × percent N × 0.75; 10 oz of 20-20-20 make 150 ppm.
    [Theory]
    [InlineData(150, 20, 10)]
    [InlineData(200, 20, 13.33)]
    [InlineData(100, 15, 8.89)]
    public void Ounces_in_a_hundred_gallons_and_grams_in_a_litre_are_the_same_feed(double ppm, double percent, double ounces)
    {
        Assert.Equal(ounces, LiquidFeed.OuncesIn100Gallons(ppm, percent), 0.01);
        Assert.Equal(ounces * 28.3495 / (100 * 3.78541), LiquidFeed.GramsPerLitre(ppm, percent), 0.005);
    }

    [Fact, FromMemory]
    public void Coated_feed_lasts_as_long_as_it_says_at_its_temperature_half_as_long_ten_degrees_warmer_and_waits_in_frost()
    {
        Assert.Equal(1, SlowRelease.Released(Enumerable.Repeat(21.0, 105)), 1e-9);
        Assert.Equal(0.5, SlowRelease.Released(Enumerable.Repeat(11.0, 105)), 1e-9);
        Assert.Equal(1, SlowRelease.Released(Enumerable.Repeat(31.0, 53)), 0.02);
        Assert.Equal(0, SlowRelease.Released(Enumerable.Repeat(-4.0, 100)));
    }

    // Statics: a body tips when the wind's moment about its foot's edge passes its weight's.
    [Fact]
    public void A_container_topples_where_moments_balance_and_what_is_taller_or_lighter_falls_sooner()
    {
        Planter pot = A.Pot();
        double gust = WeatherThreats.TopplingGustMs(pot, 0, 0);
        double force = 0.5 * 1.25 * 1.2 * gust * gust * 0.6 * 0.5;
        Assert.Equal(PlanterLoad.Of(pot)!.DryKg * 9.81 * 0.44 / 2, force * 0.25, 1e-6);
        Assert.True(WeatherThreats.TopplingGustMs(pot, 150, 80) < WeatherThreats.TopplingGustMs(pot, 60, 80));
        Assert.True(WeatherThreats.TopplingGustMs(pot, 150, 80) < gust);
        Assert.True(WeatherThreats.TopplingGustMs(A.Pot(30, 20, 40), 150, 40) < WeatherThreats.TopplingGustMs(pot, 150, 80));
    }

    [Fact]
    public void A_calm_mild_week_threatens_nothing()
    {
        Plan plan = Summer("petunia-magenta");
        Assert.Empty(Threats(plan, 14, 24, 2));
        Assert.Empty(ColdNights.Of(plan, Week(14, 24, 2), July));
    }

    [Fact]
    public void Heat_wind_and_the_first_hard_frost_are_each_named_with_what_they_threaten()
    {
        Plan plan = Summer("lobelia-blue");
        Assert.Contains(Threats(plan, 26, 39, 2), t => t.Kind == ThreatKind.HeatStalls && t.Plants.Single().Id == "lobelia-blue");
        Planter tall = A.Pot(28, 20, 35);
        Plan topHeavy = A.Plan(
            [tall],
            A.Palette,
            [A.Show("s", A.Day(2027, 5, 20), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("canna-red", 1))]
        );
        WeatherThreat storm = Threats(topHeavy, 14, 22, 16).First(t => t.Kind == ThreatKind.Storm);
        Assert.Equal(tall.Id, Assert.Single(storm.Planters).Id);
        Assert.Equal(CareWork.Secure, WeatherThreats.Jobs([storm], July).First().Work);
        Plan clay = A.Plan([A.Pot() with { Wall = WallMaterial.Terracotta }], [], []);
        Assert.Contains(Threats(clay, -9, -1, 2), t => t.Kind == ThreatKind.HardFreeze);
        // Once a winter.
        Assert.DoesNotContain(
            WeatherThreats.Of(clay, Week(-9, -1, 2), July, 40, [new CareDone("pot", null, CareWork.Winter, July.PlusDays(-20))]),
            t => t.Kind == ThreatKind.HardFreeze
        );
    }

    [Theory, CommonPractice]
    [InlineData("petunia-magenta", 7, 18, 12, Pest.Botrytis)]
    [InlineData("petunia-magenta", 7, 18, 0, Pest.Budworm)]
    [InlineData("tulip-darwin-orange", 4, 9, 0, Pest.TulipFire)]
    [InlineData("coral-bells-lime", 6, 18, 0, Pest.VineWeevil)]
    public void Each_pest_is_looked_for_on_its_plants_in_its_season_and_weather(string plant, int month, double meanC, double rainMm, Pest pest)
    {
        LocalDate day = A.Day(2027, month, 12);
        Plan plan = A.Plan(
            A.Palette,
            A.Show(
                "d",
                day.PlusDays(-60),
                day.PlusDays(90),
                plant.StartsWith("tulip", StringComparison.Ordinal) ? DisplayLayer.Bulbs : DisplayLayer.Seasonal,
                new DisplayItem(plant, 3)
            )
        );
        List<CareDay> days =
        [
            .. Enumerable.Range(-10, 11).Select(d => CareDay.Of(day.PlusDays(d), meanC - 5, meanC + 5, rainMm, 45, CareDaySource.Measured)),
        ];
        Assert.Contains(Scouting.Of(plan, days, false, day, day.PlusDays(6), []), j => j.Pest == pest);
        // Six months on nobody looks for it, and where it was looked for last week nobody looks again.
        Assert.DoesNotContain(Scouting.Of(plan, days, true, day, day.PlusDays(6), []), j => j.Pest == pest);
        Assert.Empty(Scouting.Of(plan, days, false, day, day.PlusDays(6), [new CareDone("pot", null, CareWork.Scout, day.PlusDays(-5))]));
    }

    private static Plan Summer(string plant) =>
        A.Plan(A.Palette, A.Show("s", A.Day(2027, 5, 20), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem(plant, 6)));

    private static List<DayForecast> Week(double min, double max, double wind) =>
        [.. Enumerable.Range(0, 7).Select(d => new DayForecast(July.PlusDays(d), min, max, 0, wind))];

    private static IReadOnlyList<WeatherThreat> Threats(Plan plan, double min, double max, double wind) =>
        WeatherThreats.Of(plan, Week(min, max, wind), July, 60, []);
}
