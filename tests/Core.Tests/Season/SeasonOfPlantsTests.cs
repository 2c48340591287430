using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

/// <summary>What practitioners say of plants through a year, on the plants that ship with the app.</summary>
[CommonPractice]
public sealed class SeasonOfPlantsTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord NewYork = A.Record("New York");
    private static readonly WeatherRecord Seattle = A.Record("Seattle");
    private static readonly WeatherRecord Mild = A.Record(2001, 6, A.Mild);

    [Fact]
    public void Petunias_cut_back_in_mid_summer_flower_again_for_two_to_three_months_and_uncut_ones_thin_but_do_not_stop()
    {
        PlantYears uncut = Follow(Mild, "petunia-magenta", A.Day(2027, 5, 20), A.Day(2027, 12, 1), 2027);
        PlantYears cut = Follow(Mild, "petunia-magenta", A.Day(2027, 5, 20), A.Day(2027, 12, 1), 2027, A.Day(2027, 7, 20));
        Assert.InRange(On(uncut, A.Day(2027, 9, 15), A.Day(2027, 3, 1)), 0.33, 0.5);
        Assert.True(On(cut, A.Day(2027, 9, 15), A.Day(2027, 3, 1)) > 0.9);
        Assert.Equal(0, On(cut, A.Day(2027, 7, 28), A.Day(2027, 3, 1)));
        int second = cut.Share(0, 0)[(Period.DaysBetween(A.Day(2027, 8, 5), A.Day(2027, 5, 20)) * -1)..].ToArray().Count(s => s > 0.5);
        Assert.InRange(second, 60, 92);
    }

    [Fact]
    public void Panicle_hydrangea_heads_brown_in_a_fortnight_of_heat_and_flower_again_once_cut_off()
    {
        WeatherRecord hot = A.Record(2001, 6, d => d.Month is 7 or 8 ? (20, 33) : A.Mild(d));
        PlantYear In(WeatherRecord record, params LocalDate[] cuts) =>
            Follow(record, "panicle-hydrangea", A.Day(2023, 4, 1), A.Day(2030, 1, 1), 2027, cuts).Years[0];
        PlantYear browned = In(hot);
        Assert.InRange(browned.Last - browned.First, 10, 24);
        WeatherRecord cool = A.Record(2001, 6, d => d.Month is 7 or 8 ? (14, 24) : A.Mild(d));
        Assert.True(In(cool).DaysShown > browned.DaysShown + 30);
        PlantYear again = In(hot, A.Day(2027, 3, 1).PlusDays(browned.Last + 3));
        Assert.InRange(again.Last - browned.Last, 60, 85);
        Assert.InRange(again.DaysShown - browned.DaysShown, 24, 32);
    }

    [Fact]
    public void Panicle_hydrangea_flowers_about_two_feet_above_the_cut_fewer_and_larger_if_cut_lower()
    {
        Plant plant = A.Shipped("panicle-hydrangea");
        var low = new CutBack(plant.Id, A.Day(2027, 3, 1), 20);
        var high = new CutBack(plant.Id, A.Day(2027, 3, 1), 60);
        Assert.Equal(20 + 61, low.FlowersAtCm(plant));
        Assert.True(low.HeadSize(plant) > high.HeadSize(plant));
        Assert.Equal(plant.HeightCm, new CutBack(plant.Id, A.Day(2027, 3, 1), 110).FlowersAtCm(plant));
    }

    [Fact]
    public void A_hard_cut_in_leaf_holds_a_late_summer_shrub_back_by_weeks_and_one_at_rest_does_not()
    {
        LocalDate old = A.Day(2023, 4, 1);
        int First(params LocalDate[] cuts) => Follow(Mild, "panicle-hydrangea", old, A.Day(2030, 1, 1), 2027, cuts).Years[0].First;
        int uncut = First();
        Assert.InRange(First(A.Day(2027, 5, 20)) - uncut, 14, 50);
        Assert.Equal(uncut, First(A.Day(2027, 3, 10)));
    }

    [Theory]
    [InlineData("pansy-violet")]
    [InlineData("viola-purple")]
    public void Pansies_and_violas_set_out_in_fall_live_through_frost_and_flower_in_spring(string id)
    {
        // Seattle's winters reach −7 °C, New York's of 2014 and 2015 −16 °C, which is more than pansies stand without snow.
        PlantYears years = Follow(Seattle, id, A.Day(2026, 9, 28), A.Day(2027, 5, 20), 2026);
        Assert.Equal(3, years.Years.Length);
        float Share(int year, int month, int day) =>
            years.Share(0, year)[Period.DaysBetween(A.Day(2026, 9, 28), A.Day(month > 8 ? 2026 : 2027, month, day))];
        for (int y = 0; y < years.Years.Length; y++)
        {
            Assert.Equal(LossKind.None, years.Years[y].Loss);
            // In proportion to the warmth of the fortnight: full at planting, less in November, least after the new year, more in April than in
            // February.
            Assert.True(Share(y, 10, 5) > 0.7);
            Assert.InRange(Share(y, 11, 20), 0.15, 0.75);
            Assert.True(Share(y, 4, 20) > Share(y, 2, 10));
            Assert.True(Share(y, 5, 10) > 0.5);
        }
        Assert.All(Follow(NewYork, id, A.Day(2026, 9, 28), A.Day(2027, 5, 20), 2026).Years, y => Assert.True(y.Last > 80, "past December's frosts"));
    }

    [Theory]
    [InlineData(4, 1)]
    [InlineData(4, 20)]
    [InlineData(5, 10)]
    [InlineData(6, 1)]
    public void Tender_stock_set_out_before_the_all_clear_is_lost_in_the_share_of_years_that_the_frost_odds_state(int month, int day)
    {
        var station = new Station("K", "K", 43, 0, 5);
        DailyNormals normals = new MonthlyNormals(
            [-6, -5, -1, 5, 11, 16, 19, 18, 13, 7, 2, -4],
            [2, 4, 9, 15, 21, 26, 29, 28, 23, 17, 10, 4],
            [80, 70, 85, 85, 90, 90, 95, 90, 85, 80, 80, 80],
            "continental"
        ).At(station);
        WeatherRecord record = WeatherGenerator.Generate(normals, 1, 1921, 90);
        LocalDate install = A.Day(2027, month, day);
        Plant lantana = A.Shipped("lantana-gold");
        PlantYears years = PlantYears.Of(
            lantana,
            A.Stands(install, A.Day(2027, 8, 1)),
            [.. WeatherRun.For(record, Start).Select(r => new GrowingSeason(r, false))],
            Start
        );
        double lost = years.Years.Count(y => y.Loss == LossKind.Frost) / (double)years.Years.Length;
        double stated = FrostOdds.From(record, FrostEnd.LastSpring, lantana.TopDamageC).OddsOn(install);
        Assert.Equal(stated, lost, 0.08);
    }

    [Fact]
    public void Petunias_in_full_shade_do_not_keep_their_days_of_colour_and_in_enough_sun_they_do()
    {
        int Days(Exposure exposure)
        {
            Planter pot = A.Pot() with { Exposure = exposure };
            Plan plan = A.Plan(
                [pot],
                [A.Shipped("petunia-magenta")],
                [A.Show("summer", A.Day(2027, 5, 25), A.Day(2027, 9, 30), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 9))]
            );
            return new SeasonKernel(NewYork, Start).Of(plan).Planters.Single().DaysInColour;
        }
        Assert.True(Days(Exposure.FullSun) > 80);
        Assert.InRange(Days(Exposure.Shade), 0, Days(Exposure.FullSun) / 4);
        // What is content with part sun loses nothing there.
        Assert.Equal(0, LightShortage.Steps(A.Shipped("impatiens-white"), Exposure.Shade));
        Assert.True(LightShortage.ColourShare(1) < 1 && LightShortage.WidthShare(2) < LightShortage.WidthShare(1));
    }

    [Fact]
    public void The_peak_is_the_day_of_most_flower_and_not_the_middle_of_a_span()
    {
        // Growing all the while, it shows most at the end of its even flowering.
        PlantYears petunia = Follow(Mild, "zinnia-orange", A.Day(2027, 5, 20), A.Day(2027, 9, 1), 2027);
        PlantYear year = petunia.Years[0];
        Assert.True(year.Peak > (year.First + year.Last) / 2 + 20);
        float Flower(int day) => petunia.Share(0, 0)[day - petunia.From] * petunia.AreaCm2(0)[day - petunia.From];
        for (int day = year.First; day <= year.Last; day++)
            Assert.True(Flower(day) <= Flower(year.Peak));
    }

    [Fact]
    public void Two_halves_of_a_bed_cut_at_different_times_never_stand_bare_together()
    {
        LocalDate[] days = [A.Day(2027, 7, 1), A.Day(2027, 8, 1)];
        Standing standing = A.Stands(A.Day(2027, 5, 20), A.Day(2027, 10, 1)) with
        {
            Cuts = [.. days.Select(d => new CutBack("petunia-magenta", d, 8) { Share = 0.5 })],
        };
        PlantYears halves = PlantYears.Of(A.Shipped("petunia-magenta"), standing, Seasons(Mild), A.Day(2027, 3, 1));
        Assert.Equal(0.5, On(halves, A.Day(2027, 7, 10), A.Day(2027, 3, 1)), 0.15);
        Assert.True(On(halves, A.Day(2027, 8, 10), A.Day(2027, 3, 1)) > 0.4);
        PlantYears both = PlantYears.Of(
            A.Shipped("petunia-magenta"),
            standing with
            {
                Cuts = [.. days.Select(d => new CutBack("petunia-magenta", d, 8))],
            },
            Seasons(Mild),
            A.Day(2027, 3, 1)
        );
        Assert.Equal(0, On(both, A.Day(2027, 8, 10), A.Day(2027, 3, 1)));
    }

    [Fact]
    public void Pansies_cut_back_in_December_do_not_flower_sooner_for_it()
    {
        PlantYears Pansy(params CutBack[] cuts) =>
            PlantYears.Of(
                A.Shipped("pansy-yellow"),
                A.Stands(A.Day(2026, 9, 28), A.Day(2027, 5, 20)) with
                {
                    Cuts = cuts,
                },
                [.. WeatherRun.For(Seattle, Start).Select(r => new GrowingSeason(r, false))],
                Start
            );
        PlantYears cut = Pansy(new CutBack("pansy-yellow", A.Day(2026, 12, 15)));
        PlantYears uncut = Pansy();
        for (int y = 0; y < cut.Years.Length; y++)
        {
            for (int d = 0; d < cut.Length; d++)
                Assert.True(cut.Share(0, y)[d] <= uncut.Share(0, y)[d] + 1e-6f);
        }
    }

    [Fact]
    public void A_bulb_whose_roots_a_pot_cannot_keep_is_lost_before_it_flowers_and_is_said_to_be()
    {
        WeatherRecord hard = A.Record(2001, 6, d => d.Month is 1 or 2 ? (-22, -12) : A.Mild(d));
        var item = new DisplayItem("tulip-mid-red", 9);
        Display bulbs = A.Show("bulbs", A.Day(2026, 10, 15), A.Day(2027, 6, 1), DisplayLayer.Bulbs, item);
        Plan plan = A.Plan([A.Pot(30, 24, 30)], [A.Shipped("tulip-mid-red")], [bulbs]);
        PlanterDetail detail = new SeasonKernel(hard, Start).Detail(plan, plan.Planters[0]);
        Assert.Equal(detail.Plants[0].Years.Count, detail.Plants[0].YearsLost(LossKind.Roots));
        Assert.Contains(new Core.Checks.DisplayChecks(plan, hard).All(Start), r => r.Kind == Core.Checks.RemarkKind.RootsLostInWinter);
        Plan bed = A.Plan([A.Bed()], [A.Shipped("tulip-mid-red")], [bulbs with { PlanterId = "bed" }]);
        Assert.Equal(0, new SeasonKernel(hard, Start).Detail(bed, bed.Planters[0]).Plants[0].YearsLost(LossKind.Roots));
    }

    [Theory]
    [InlineData(6, 0.2)]
    [InlineData(15, 0.45)]
    public void A_shorn_planter_loses_its_cover_and_regains_it_and_the_lower_the_longer(double heightCm, double least)
    {
        PlantYears Cut(params CutBack[] cuts) =>
            PlantYears.Of(
                A.Shipped("petunia-magenta"),
                A.Stands(A.Day(2027, 5, 20), A.Day(2027, 11, 1)) with
                {
                    Cuts = cuts,
                },
                Seasons(Mild),
                A.Day(2027, 3, 1)
            );
        PlantYears uncut = Cut();
        PlantYears cut = Cut(new CutBack("petunia-magenta", A.Day(2027, 7, 20), heightCm));
        double Cover(LocalDate day) =>
            cut.AreaCm2(0)[Period.DaysBetween(A.Day(2027, 5, 20), day)] / uncut.AreaCm2(0)[Period.DaysBetween(A.Day(2027, 5, 20), day)];
        Assert.InRange(Cover(A.Day(2027, 7, 21)), 0.5 * least, least + 0.2);
        Assert.True(Cover(A.Day(2027, 7, 30)) > Cover(A.Day(2027, 7, 21)));
        Assert.Equal(1, Cover(A.Day(2027, 9, 20)), 0.001);
        Assert.True(
            new CutBack("x", A.Day(2027, 4, 20), 6).DelayDays(A.Shipped("panicle-hydrangea"))
                > new CutBack("x", A.Day(2027, 4, 20), 90).DelayDays(A.Shipped("panicle-hydrangea"))
        );
    }

    [Theory]
    [InlineData("dahlia-crimson")]
    [InlineData("canna-bronze")]
    [InlineData("caladium-white")]
    [InlineData("elephant-ear-dark")]
    [InlineData("tuberous-begonia-rose")]
    public void Tubers_started_under_cover_stand_in_a_seasonal_display_like_any_bedding(string id)
    {
        var item = new DisplayItem(id, 5);
        Display display = A.Show("summer", A.Day(2027, 6, 1), A.Day(2027, 10, 20), DisplayLayer.Seasonal, item);
        Plan plan = A.Plan([A.Shipped(id)], display);
        var kernel = new SeasonKernel(NewYork, Start);
        PlanterSeason season = kernel.Of(plan).Planters.Single();
        Assert.True(season.ShareInColour[Period.DaysBetween(Start, A.Day(2027, 8, 15))] > 0.9);
        Assert.True(season.ShareInColour[Period.DaysBetween(Start, A.Day(2027, 6, 2))] < 0.1);
        // As a dormant tuber it belongs to the bulb layer as before.
        Assert.Single(A.Plan([A.Shipped(id)], display with { Layer = DisplayLayer.Bulbs }).Displays);
    }

    [Fact]
    public void Fall_chrysanthemums_bought_in_bud_hold_four_to_six_weeks_and_keep_their_size()
    {
        PlantYears years = Follow(NewYork, "chrysanthemum-bronze", A.Day(2026, 9, 15), A.Day(2026, 12, 10), 2026);
        Assert.All(years.Years.Where(y => y.Loss == LossKind.None), y => Assert.InRange(y.DaysShown, 28, 42));
        Assert.Equal(years.AreaCm2(0)[0], years.AreaCm2(0)[40]);
    }

    [Fact]
    public void Cool_season_plants_stall_in_heat_and_return_in_fall()
    {
        WeatherRecord hot = A.Record(2001, 6, d => d.Month is 7 or 8 ? (20, 33) : A.Mild(d));
        PlantYears years = Follow(hot, "marguerite-white", A.Day(2027, 5, 1), A.Day(2027, 11, 30), 2027);
        Assert.True(On(years, A.Day(2027, 6, 10), A.Day(2027, 3, 1)) > 0.9);
        Assert.Equal(0, On(years, A.Day(2027, 8, 10), A.Day(2027, 3, 1)), 0.01);
        Assert.True(On(years, A.Day(2027, 9, 25), A.Day(2027, 3, 1)) > 0.9);
        Assert.InRange(years.Years[0].DaysStalled, 50, 70);
    }

    [Fact, FromMemory]
    public void Five_kinds_at_five_depths_in_a_large_pot_flower_from_early_February_to_late_May_in_a_mild_maritime_climate()
    {
        Planter pot = A.Pot(90, 70, 75) with { Exposure = Exposure.PartSun, Wall = WallMaterial.Concrete };
        string[] kinds = ["crocus-early-violet", "daffodil-early-yellow", "hyacinth-blue", "tulip-mid-red", "tulip-late-dark"];
        Plan plan = A.Plan(
            [pot],
            [.. kinds.Select(A.Shipped)],
            [A.Show("bulbs", A.Day(2026, 10, 10), A.Day(2027, 6, 15), DisplayLayer.Bulbs, [.. kinds.Select(k => new DisplayItem(k, 20))])]
        );
        // Normals of a mild maritime coast, 1981–2010, from memory; the years 2012–2015 in Seattle were early ones.
        DailyNormals normals = new MonthlyNormals(
            [2.8, 2.8, 4, 5.7, 8.5, 11.3, 13.4, 13.6, 11.3, 7.9, 4.7, 2.6],
            [8.3, 9.7, 11.9, 14.8, 18.6, 21.3, 24.6, 24.7, 21.3, 15.6, 10.8, 7.9],
            ClimateId: "maritime"
        ).At(A.Station(47.5));
        PlanterDetail detail = new SeasonKernel(WeatherGenerator.Generate(normals, 1, 1991, 20), Start).Detail(plan, plan.Planters[0]);
        LocalDate first = detail.Plants.Min(p => p.First(0.5)!.Value);
        LocalDate last = detail.Plants.Max(p => p.Last(0.5)!.Value);
        Assert.InRange(first, A.Day(2027, 1, 20), A.Day(2027, 2, 20));
        Assert.InRange(last, A.Day(2027, 5, 5), A.Day(2027, 5, 31));
        // One after the other, without a week between the end of one and the beginning of the next.
        var order = detail.Plants.OrderBy(p => p.First(0.5)).ToList();
        for (int i = 1; i < order.Count; i++)
            Assert.True(
                Period.DaysBetween(order.Take(i).Max(p => p.Last(0.5)!.Value), order[i].First(0.5)!.Value) < 7,
                $"before {order[i].Plant.Id}"
            );
    }

    [Theory]
    [InlineData("New York", 2012, 3, 22, 4, 16)]
    [InlineData("New York", 2013, 4, 15, 5, 12)]
    [InlineData("New York", 2014, 4, 15, 5, 12)]
    [InlineData("New York", 2015, 4, 15, 5, 12)]
    [InlineData("Seattle", 2012, 4, 1, 5, 5)]
    [InlineData("Seattle", 2013, 3, 25, 4, 24)]
    [InlineData("Seattle", 2014, 3, 25, 4, 24)]
    [InlineData("Seattle", 2015, 3, 10, 4, 12)]
    [FromMemory]
    public void Each_real_year_replayed_brings_mid_tulips_when_that_spring_was_early_or_late(
        string place,
        int year,
        int month,
        int day,
        int toMonth,
        int toDay
    )
    {
        WeatherRecord record = place == "Seattle" ? Seattle : NewYork;
        LocalDate start = A.Day(2027, 1, 1);
        Plan plan = A.Plan(
            [A.Bed()],
            [A.Shipped("tulip-mid-red")],
            [new Display("bulbs", "bed", DisplayLayer.Bulbs, A.Day(2026, 11, 1), A.Day(2027, 7, 1), [new DisplayItem("tulip-mid-red", 200)])]
        );
        PlanterSeason season = new SeasonKernel(record, start).Of(plan, plan.Planters[0], year);
        int best = Array.IndexOf(season.Cover50, season.Cover50.Max());
        Assert.InRange(start.PlusDays(best), A.Day(2027, month, day), A.Day(2027, toMonth, toDay));
    }

    [Fact]
    public void A_winter_that_freezes_a_pot_through_takes_roots_that_a_bed_keeps()
    {
        WeatherRecord hard = A.Record(2001, 4, d => d.Month == 1 ? (-18, -10) : A.Mild(d));
        Plant shrub = A.Annual("shrub", -30) with
        {
            LifeForm = LifeForm.Shrub,
            Green = GreenLeaf.Evergreen,
            RootKillingC = -7,
            Windows = [new ColourWindow(ColourPart.Leaf, ["#6f2f44"], 0.6, new AllYear())],
        };
        PlantYears In(Planter planter) =>
            PlantYears.Of(
                shrub,
                A.Stands(A.Day(2024, 4, 1), A.Day(2030, 1, 1)) with
                {
                    Place = planter.PlaceAt(0),
                },
                [.. WeatherRun.For(hard, Start).Select(r => new GrowingSeason(r, false))],
                Start
            );
        Assert.All(In(A.Pot(40, 30, 35)).Years, y => Assert.Equal(LossKind.Roots, y.Loss));
        Assert.All(In(A.Bed()).Years, y => Assert.Equal(LossKind.None, y.Loss));
    }

    [Fact]
    public void Evergreen_tops_that_winter_spoiled_are_bare_until_midsummer()
    {
        WeatherRecord hard = A.Record(2001, 4, d => d is { Month: 1, Day: 10 } ? (-16, -4) : A.Mild(d));
        Plant shrub = A.Annual("shrub", -12) with
        {
            LifeForm = LifeForm.Shrub,
            Green = GreenLeaf.Evergreen,
            RootKillingC = -12,
            Windows = [new ColourWindow(ColourPart.Leaf, ["#6f2f44"], 0.6, new AllYear())],
        };
        PlantYears years = PlantYears.Of(
            shrub,
            A.Stands(A.Day(2024, 4, 1), A.Day(2030, 1, 1)),
            [.. WeatherRun.For(hard, Start).Select(r => new GrowingSeason(r, false))],
            Start
        );
        Assert.Equal((LossKind.Tops, Period.DaysBetween(Start, A.Day(2027, 1, 10))), (years.Years[0].Loss, years.Years[0].LostOn));
        Assert.Equal(0, years.Share(0, 0)[Period.DaysBetween(Start, A.Day(2027, 6, 30))]);
        Assert.Equal(1, years.Share(0, 0)[Period.DaysBetween(Start, A.Day(2027, 7, 1))]);
    }

    [Fact]
    public void Tulips_left_in_the_ground_show_less_every_year()
    {
        Plant tulip = A.Shipped("tulip-mid-red");
        float Best(int year)
        {
            Plan plan = A.Plan(
                [A.Bed()],
                [tulip],
                [new Display("bulbs", "bed", DisplayLayer.Bulbs, A.Day(2026, 11, 1), A.Day(2031, 7, 1), [new DisplayItem(tulip.Id, 150)])]
            );
            return new SeasonKernel(NewYork, A.Day(year, 9, 1)).Of(plan, plan.Planters[0]).Cover50.Max();
        }
        Assert.True(Best(2026) > Best(2027) && Best(2027) > Best(2028));
    }

    [Fact]
    public void What_stays_through_a_turn_goes_on_growing_from_the_day_it_first_went_in()
    {
        Plant silver = A.Shipped("dusty-miller");
        Display next = A.Show("next", A.Day(2027, 5, 20), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem(silver.Id, 3));
        float Area(Display display)
        {
            Plan plan = A.Plan([silver], display);
            PlantedItem item = Assert.Single(PlantedItem.Of(plan, plan.Planters[0], Start, Start.PlusMonths(12)));
            return new SeasonKernel(Mild, Start).Follow(item.Plant, item.Standing).AreaCm2(0)[0];
        }
        Assert.True(Area(next with { Items = [next.Items[0] with { Since = A.Day(2026, 9, 10) }] }) > 1.3 * Area(next));
    }

    private static PlantYears Follow(WeatherRecord record, string id, LocalDate install, LocalDate lift, int year, params LocalDate[] cuts)
    {
        LocalDate start = year == 2026 ? Start : A.Day(year, 3, 1);
        return PlantYears.Of(
            A.Shipped(id),
            A.Stands(install, lift) with
            {
                Cuts = [.. cuts.Select(c => new CutBack(id, c))],
            },
            [.. WeatherRun.For(record, start).Select(r => new GrowingSeason(r, false))],
            start
        );
    }

    private static GrowingSeason[] Seasons(WeatherRecord record) =>
        [.. WeatherRun.For(record, A.Day(2027, 3, 1)).Select(r => new GrowingSeason(r, false))];

    private static float On(PlantYears years, LocalDate day, LocalDate start) => years.Share(0, 0)[Period.DaysBetween(start, day) - years.From];
}
