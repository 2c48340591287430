using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>Water in planters: nothing is made or lost, sun and leaf take more, and crews' figures come out.</summary>
public sealed class PlanterWaterTests
{
    private static readonly LocalDate July = A.Day(2027, 7, 1);

    private static Plan Plan(Planter planter, Plant plant, int count) =>
        A.Plan(
            [planter],
            [plant],
            [
                A.Show("summer", A.Day(2027, 5, 15), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem(plant.Id, count)) with
                {
                    PlanterId = planter.Id,
                },
            ]
        );

    private static List<CareDay> Days(LocalDate from, int count, Func<int, double> rain, double min = 16, double max = 28) =>
        [.. Enumerable.Range(0, count).Select(i => CareDay.Of(from.PlusDays(i), min, max, rain(i), 45, CareDaySource.Measured))];

    private static Plant Bedding(WaterNeed need = WaterNeed.Medium) =>
        A.Annual("petunia") with
        {
            Water = need,
            SpreadAtPurchaseCm = 12,
            MatureSpreadCm = 30,
            GrowthPerDegreeDay = 0.006,
        };

    [Fact]
    public void Water_that_was_followed_before_is_kept_only_while_all_that_it_rests_on_stands()
    {
        Planter pot = A.Pot();
        Plant[] kinds = [Bedding(), Bedding(WaterNeed.High)];
        Plan[] plans = [.. kinds.SelectMany(k => new[] { Plan(pot, k, 5), Plan(pot, k, 9) })];
        List<CareDay>[] weather = [Days(July, 30, _ => 0), Days(July, 30, i => i % 7), Days(July.PlusDays(1), 30, _ => 0)];
        IReadOnlyList<Watered>[] given =
        [
            [],
            [new Watered(July.PlusDays(3), 2)],
            [new Watered(July.PlusDays(3))],
        ];
        LocalDate?[] untold = [null, July.PlusDays(20)];
        var random = new Random(11);
        T One<T>(IReadOnlyList<T> of) => of[random.Next(of.Count)];
        for (int i = 0; i < 200; i++)
        {
            (Plan plan, List<CareDay> days, IReadOnlyList<Watered> water, LocalDate? until) = (One(plans), One(weather), One(given), One(untold));
            // Another object of the same planter was never followed.
            PlanterWater anew = PlanterWater.Of(plan, pot with { }, days, water, until);
            Assert.Equal(anew.Days, PlanterWater.Of(plan, pot, days, water, until).Days);
            Assert.Same(PlanterWater.Of(plan, pot, days, water, until), PlanterWater.Of(plan, pot, [.. days], [.. water], until));
        }
    }

    [Fact]
    public void Nothing_is_made_or_lost()
    {
        Gen.Select(Gen.Double[0, 30].Array[60], Gen.Int[0, 59].Array[0, 10], Gen.Int[1, 20])
            .Sample(
                (rain, waterings, count) =>
                {
                    PlanterWater water = PlanterWater.Of(
                        Plan(A.Pot(), Bedding(), count),
                        A.Pot(),
                        Days(July, 60, i => rain[i] < 15 ? 0 : rain[i]),
                        [.. waterings.Select(w => new Watered(July.PlusDays(w), 5))]
                    );
                    double before = 0;
                    foreach (WaterDay d in water.Days)
                    {
                        // Where it is wilting, plants take no more: what they would is the only thing that is not in the balance.
                        double after = before + d.UsedLitres - d.RainLitres - d.GivenLitres + d.DrainedLitres;
                        Assert.Equal(Math.Min(after, d.HoldsLitres), d.LackingLitres, 1e-9);
                        Assert.InRange(d.LackingLitres, 0, d.HoldsLitres);
                        before = d.LackingLitres;
                    }
                },
                iter: 60
            );
    }

    // What roots reach is what holds their water: from the day on which a shrub is lifted that stood among bedding, not weeks later.
    [Fact]
    public void A_planter_holds_what_the_roots_of_the_day_reach()
    {
        Planter pot = A.Pot();
        Plant shrub = A.Shipped("dogwood-red");
        Plan plan = A.Plan(
            [pot],
            A.Palette,
            [
                A.Show("shrub", July, July.PlusDays(20), DisplayLayer.Standing, new DisplayItem(shrub.Id, 1)),
                A.Show("bedding", July.PlusDays(-10), July.PlusDays(60), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 4)),
            ]
        );
        PlanterWater water = PlanterWater.Of(plan, pot, Days(July, 40, _ => 0), []);
        Assert.True(shrub.RootDepthCm > plan.Plant("petunia-magenta").RootDepthCm);
        Assert.Equal(water.On(July)!.HoldsLitres, water.On(July.PlusDays(19))!.HoldsLitres);
        Assert.True(water.On(July.PlusDays(20))!.HoldsLitres < water.On(July.PlusDays(19))!.HoldsLitres);
        // What is left is neither drier nor wetter for it: of what lacked, as large a share lacks.
        PlanterWater filled = PlanterWater.Of(plan, pot, Days(July, 40, _ => 0), [new Watered(July.PlusDays(18))]);
        (WaterDay before, WaterDay after) = (filled.On(July.PlusDays(19))!, filled.On(July.PlusDays(20))!);
        Assert.True(before.LackingLitres > 0);
        Assert.Equal((before.LackingLitres / before.HoldsLitres * after.HoldsLitres) + after.UsedLitres, after.LackingLitres, 1e-9);
    }

    // FAO-56 (R. Allen and others, 1998), eq. 82 and 83: TAW = 1000 (θFC − θWP) Zr, RAW = p TAW. A square metre of our bed soil of 0.15 over
    // 0.35 m holds 52.5 mm, of which half is easily had.
    [Fact, FromMemory]
    public void A_bed_holds_what_its_root_zone_does()
    {
        Planter bed = A.Bed(100, 100);
        PlanterWater water = PlanterWater.Of(Plan(bed, Bedding(), 9), bed, Days(July, 2, _ => 0), []);
        Assert.Equal(52.5, water.Days[^1].HoldsLitres, 0.1);
        Assert.Equal(26.25, water.Days[^1].EasyLitres, 0.1);
    }

    // CommonPractice: full-sun pots in summer are watered once or twice a day, in part sun less, in the cold seldom; a bed goes for days.
    [Fact, CommonPractice]
    public void Full_sun_pots_are_watered_daily_in_summer_and_seldom_in_the_cold()
    {
        Planter small = A.Pot(36, 28, 30);
        PlanterWater hot = PlanterWater.Of(Plan(small, Bedding(WaterNeed.High), 6), small, Days(July, 20, _ => 0, 20, 34), []);
        // From full, a small pot of thirsty plants is dry within a day or two of heat.
        Assert.InRange(Period.DaysBetween(July, hot.DryOn(July)!.Value), 0, 2);
        PlanterWater mild = PlanterWater.Of(Plan(small, Bedding(), 6), small, Days(A.Day(2027, 11, 20), 20, _ => 0, -2, 4), []);
        Assert.True(mild.DryOn(A.Day(2027, 11, 20)) is null || mild.DryOn(A.Day(2027, 11, 20)) > A.Day(2027, 12, 1));
        Planter bed = A.Bed();
        PlanterWater ground = PlanterWater.Of(Plan(bed, Bedding(), 60), bed, Days(July, 20, _ => 0), []);
        Assert.InRange(Period.DaysBetween(July, ground.DryOn(July)!.Value), 4, 14);
    }

    [Fact]
    public void Sun_leaf_and_drought_never_make_it_wetter()
    {
        Gen.Select(Gen.Int[1, 15], Gen.Double[0, 12])
            .Sample(
                (count, rain) =>
                {
                    double Lacks(Planter p, int plants, double mm) =>
                        PlanterWater.Of(Plan(p, Bedding(), plants), p, Days(July, 6, i => i == 2 ? mm : 0), []).Days[^1].LackingLitres;
                    Planter sun = A.Pot();
                    Assert.True(Lacks(sun, count, rain) >= Lacks(sun with { Exposure = Exposure.Shade }, count, rain) - 1e-9);
                    Assert.True(Lacks(sun, count + 1, rain) >= Lacks(sun, count, rain) - 1e-9);
                    Assert.True(Lacks(sun, count, rain) >= Lacks(sun, count, rain + 5) - 1e-9);
                },
                iter: 60
            );
    }

    [Fact]
    public void What_was_given_corrects_the_balance_and_rain_alone_asks_for_nothing()
    {
        Planter pot = A.Pot();
        List<CareDay> days = Days(July, 8, _ => 0, 20, 33);
        PlanterWater dry = PlanterWater.Of(Plan(pot, Bedding(WaterNeed.High), 12), pot, days, []);
        LocalDate on = dry.DryOn(July)!.Value;
        Assert.True(dry.TimesOn(on) >= 1);
        PlanterWater watered = PlanterWater.Of(Plan(pot, Bedding(WaterNeed.High), 12), pot, days, [new Watered(on)]);
        Assert.Equal(0, watered.ToFill(on), 1e-9);
        Assert.Equal(0, watered.TimesOn(on));
        Planter rain = pot with { Watering = Watering.Rain };
        Assert.Equal(0, PlanterWater.Of(Plan(rain, Bedding(), 12), rain, days, []).TimesOn(July.PlusDays(7)));
        // Two emitters of two litres an hour give six litres in an hour and a half.
        Assert.Equal(90, PlanterWater.DripMinutes(6, 2, 2), 1e-9);
    }

    [Fact]
    public void A_station_that_was_silent_leaves_usual_days_and_what_was_measured_comes_before_what_was_forecast()
    {
        WeatherRecord record = A.Record(2000, 12, A.Mild);
        IReadOnlyList<CareDay> days = CareDay.Between(
            record,
            [(July, false, 10, 20, 3), (July, true, 0, 1, 9), (July.PlusDays(4), true, 12, 22, 0)],
            July,
            July.PlusDays(4),
            45
        );
        Assert.Equal(
            [CareDaySource.Measured, CareDaySource.Usual, CareDaySource.Usual, CareDaySource.Usual, CareDaySource.Forecast],
            days.Select(d => d.Source)
        );
        Assert.Equal((10.0, 3.0), (days[0].MinC, days[0].RainMm));
        Assert.All(days, d => Assert.True(d.ReferenceMm > 0));
    }
}
