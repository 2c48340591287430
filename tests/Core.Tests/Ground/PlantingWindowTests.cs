using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Tests.Ground;

/// <summary>What follows from ground temperatures for planting, on New York's and Seattle's records and on plain ones.</summary>
public sealed class PlantingWindowTests
{
    private static readonly WeatherRecord NewYork = A.Record("New York").ForOdds;
    private static readonly WeatherRecord Cold = A.Record(1991, 12, d => Course(d, 4, 16));

    [Fact]
    [CommonPractice]
    public void Tulips_at_18_cm_can_be_planted_in_New_York_from_October_on()
    {
        PlantingWindow window = Window(NewYork, 18);
        LocalDate opens = window.OpensSafely!.Value;
        Assert.InRange(opens, new LocalDate(2001, 10, 1), new LocalDate(2001, 11, 15));
        Assert.True(window.Opens.By(0.5) <= opens);
    }

    [Fact]
    [CommonPractice]
    public void Planting_ends_six_weeks_at_best_and_four_at_least_before_the_ground_freezes()
    {
        PlantingWindow window = Window(Cold, 8, SurfaceCover.Bare);
        LocalDate frozen = window.Freeze.Freezes.By(0.5)!.Value;
        Assert.Equal(frozen.PlusDays(-42), window.BestUntil);
        Assert.Equal(frozen.PlusDays(-28), window.LastSafe.By(0.5));
        Assert.Equal(1, window.OddsOfRooting(window.OpensSafely!.Value));
        Assert.Equal(0, window.OddsOfRooting(new LocalDate(2002, 1, 20)));
    }

    [Fact]
    public void Deeper_ground_freezes_later_and_thaws_later_or_not_at_all()
    {
        GroundTemperatures bed = GroundClimate.Of(Cold).Of(ThermalClass.Bed(SurfaceCover.Bare));
        GroundFreeze shallow = GroundFreeze.From(bed, Cold, 5);
        GroundFreeze deep = GroundFreeze.From(bed, Cold, 30);
        Assert.True(shallow.Freezes.By(0.5) < (deep.Freezes.By(0.5) ?? new LocalDate(2003, 1, 1)));
        Assert.True(shallow.MeanFrozenDays > deep.MeanFrozenDays);
        Assert.Equal(1, GroundFreeze.From(bed, Cold, 300).Freezes.ShareWithout);
        Assert.True(shallow.Thaws.By(0.5) > shallow.Freezes.By(0.5));
    }

    [Fact]
    public void Frozen_means_five_days_in_a_row_at_or_below_half_a_degree_of_frost()
    {
        float[] soil = [1, -0.5f, -0.6f, -0.5f, -0.9f, 0, -0.5f, -1, -1, -1, -1, -1, 2, -3];
        // A short cold snap after the long spell is ice still: it thaws after that.
        Assert.Equal((6, 13, 6), GroundFreeze.Frozen(soil, 0, soil.Length));
        Assert.Equal((-1, -1, 0), GroundFreeze.Frozen(soil, 0, 6));
    }

    [Fact]
    [FromMemory]
    public void Tulips_planted_in_November_have_their_cold_in_New_York_and_those_planted_in_February_have_not()
    {
        BulbKind tulip = BulbKind.All.Single(k => k.Name == "tulip");
        float[] soil = GroundClimate.Of(NewYork).At(new BulbPlace(BulbPlace.UsualBed.Class, tulip.UsualDepthCm));
        ColdWeeks autumn = ColdWeeks.From(soil, NewYork, new LocalDate(2001, 11, 1));
        ColdWeeks late = ColdWeeks.From(soil, NewYork, new LocalDate(2001, 2, 15));
        Assert.InRange(autumn.ReachedBy(0.5), 14, 26);
        Assert.Equal(0, autumn.Shortfall(tulip));
        Assert.True(late.Shortfall(tulip) > 2);
        Assert.Equal(1, late.ShareShort(tulip), 0.1);
    }

    [Fact]
    public void Where_frost_never_ends_planting_the_cold_does()
    {
        float[] soil = GroundClimate.Of(NewYork).At(BulbPlace.UsualBed);
        BulbKind tulip = BulbKind.All.Single(k => k.Name == "tulip");
        LocalDate latest = ColdWeeks.LatestDay(soil, NewYork, tulip, 0.9)!.Value;
        Assert.InRange(latest, new LocalDate(2001, 11, 15), new LocalDate(2002, 2, 1));
        Assert.True(ColdWeeks.From(soil, NewYork, latest).ReachedBy(0.9) >= tulip.LowWeeks);
        Assert.True(ColdWeeks.From(soil, NewYork, latest.PlusDays(7)).ReachedBy(0.9) < tulip.LowWeeks);
    }

    [Fact]
    public void Where_it_never_cools_no_window_opens_and_no_cold_is_had()
    {
        WeatherRecord tropics = A.Record(1991, 12, d => (22 + (d.Day % 3), 31), latitude: 5);
        PlantingWindow window = Window(tropics, 18);
        Assert.Null(window.OpensSafely);
        Assert.Null(window.LastSafeDay);
        Assert.Equal(0, ColdWeeks.From(GroundClimate.Of(tropics).At(BulbPlace.UsualBed), tropics, new LocalDate(2001, 11, 1)).ReachedBy(0.5));
        Assert.Equal(1, FrostOdds.From(tropics, FrostEnd.LastSpring, 0).ShareWithout);
        Assert.Empty(GroundRemark.For(GroundClimate.Of(tropics).Of(BulbPlace.UsualBed.Class), tropics, WallMaterial.None));
    }

    [Fact]
    public void Where_no_month_is_free_of_frost_the_season_has_no_length_and_the_ground_is_mostly_frozen()
    {
        WeatherRecord arctic = A.Record(1991, 12, d => Course(d, -12, 14), latitude: 74);
        Assert.True(SeasonLength.From(arctic, 0).ReachedBy(0.5) < 40);
        Assert.True(GroundFreeze.From(GroundClimate.Of(arctic).Of(ThermalClass.Bed(SurfaceCover.Bare)), arctic, 10).MeanFrozenDays > 200);
    }

    [Fact]
    public void South_of_the_equator_everything_comes_half_a_year_later()
    {
        WeatherRecord south = A.Record(1991, 12, d => Course(d.PlusDays(-182), 4, 16), latitude: -45);
        PlantingWindow north = Window(Cold, 8, SurfaceCover.Bare);
        PlantingWindow turned = Window(south, 8, SurfaceCover.Bare);
        Assert.InRange(turned.OpensSafely!.Value.Month, 2, 6);
        int apart =
            Period.DaysBetween(new LocalDate(2001, 8, 1), north.Freeze.Freezes.By(0.5)!.Value)
            - Period.DaysBetween(new LocalDate(2001, 2, 1), turned.Freeze.Freezes.By(0.5)!.Value);
        Assert.InRange(apart, -12, 12);
        ColdWeeks cold = ColdWeeks.From(GroundClimate.Of(south).At(BulbPlace.UsualBed), south, new LocalDate(2001, 5, 1));
        Assert.Equal(
            ColdWeeks.From(GroundClimate.Of(Cold).At(BulbPlace.UsualBed), Cold, new LocalDate(2001, 11, 1)).ReachedBy(0.5),
            cold.ReachedBy(0.5),
            2.0
        );
    }

    [Fact]
    public void A_pots_roots_are_in_more_danger_than_a_beds_and_remedies_lower_it()
    {
        ThermalClass pot = ThermalClass.Pot(40, 36, WallMaterial.Terracotta);
        double kill = RootSurvival.EstimateRootKillingC(RootSurvival.TopHardinessOfZoneC(6));
        RootSurvival alone = RootSurvival.From(GroundClimate.Of(NewYork).Of(pot), NewYork);
        double odds = alone.Odds(kill);
        Assert.True(RootSurvival.From(GroundClimate.Of(NewYork).Of(ThermalClass.Bed(SurfaceCover.Mulch)), NewYork).Odds(kill) > odds);
        IReadOnlyList<RootRemedy> remedies = RootRemedy.For(pot, NewYork, kill);
        Assert.Equal(6, remedies.Count);
        Assert.All(remedies, r => Assert.True(r.Survival.Odds(kill) >= odds, $"{r.What}"));
        (double low, double high) = alone.Between(kill, estimated: true);
        Assert.InRange(odds, low, high);
        (double surer, double surest) = alone.Between(kill, estimated: false);
        Assert.True(surest - surer < high - low);
    }

    [Theory]
    [InlineData(6, -23.33)]
    [InlineData(7, -17.78)]
    [Published("USDA Plant Hardiness Zone Map, definition of zones")]
    public void The_tops_of_a_zones_plants_stand_its_coldest_air(int zone, double air) =>
        Assert.Equal(air, RootSurvival.TopHardinessOfZoneC(zone), 2);

    // Species' own figures spread from a tenth to six tenths of what their tops stand; the estimate lies among them.
    [Theory]
    [InlineData(-26, -2.8)]
    [InlineData(-23, -6.7)]
    [InlineData(-29, -12.2)]
    [InlineData(-34, -17.8)]
    [InlineData(-40, -23.3)]
    [FromMemory]
    public void Roots_die_at_a_milder_temperature_than_tops(double top, double root)
    {
        double estimate = RootSurvival.EstimateRootKillingC(top);
        Assert.True(estimate > top);
        Assert.InRange(root, estimate - (2 * RootSurvival.EstimateErrorC), estimate + (2 * RootSurvival.EstimateErrorC));
    }

    [Fact]
    public void A_frozen_terracotta_pot_is_said_to_crack_to_dry_evergreens_and_to_close_its_drain()
    {
        WeatherRecord thawing = A.Record(1991, 12, d => d.Month is 12 or 1 or 2
                ? d.Day % 14 < 9
                    ? (-16, -9)
                    : (1, 6)
                : Course(d, 10, 8));
        IReadOnlyList<GroundRemark> said = GroundRemark.For(
            GroundClimate.Of(thawing).Of(ThermalClass.Pot(40, 36, WallMaterial.Terracotta)),
            thawing,
            WallMaterial.Terracotta
        );
        Assert.Contains(said, r => r.Says.Kind is GroundRemarkKind.PotMayCrack);
        Assert.Contains(said, r => r.Says.Kind is GroundRemarkKind.DrainFreezesShut);
        Assert.DoesNotContain(
            GroundRemark.For(GroundClimate.Of(thawing).Of(ThermalClass.Pot(40, 36, WallMaterial.Timber)), thawing, WallMaterial.Timber),
            r => r.Says.Kind is GroundRemarkKind.PotMayCrack
        );
    }

    [Fact]
    public void Wet_mild_winters_rot_bulbs_and_hot_walls_overheat_roots()
    {
        WeatherRecord wet = WeatherRecord.From(
            A.Station(),
            A.Days(new LocalDate(1991, 1, 1), new LocalDate(2003, 1, 1), d => Course(d, 9, 5)).Select(d => d with { PrecipitationMm = 6 })
        );
        Assert.Contains(GroundRemark.For(GroundClimate.Of(wet).Of(BulbPlace.UsualBed.Class), wet, WallMaterial.None), r =>
            r.Says.Kind is GroundRemarkKind.BulbsMayRot
        );
        WeatherRecord hot = A.Record(1991, 12, d => (26 + (d.Day % 2), 41), latitude: 25);
        ThermalClass dark = ThermalClass.Pot(30, 28, WallMaterial.Metal, Exposure.FullSun) with { WallAbsorptance = 0.95 };
        Assert.Contains(GroundRemark.For(GroundClimate.Of(hot).Of(dark), hot, WallMaterial.Metal), r =>
            r.Says.Kind is GroundRemarkKind.RootsOverheat
        );
    }

    [Fact]
    public void The_hardest_winter_is_the_one_with_the_coldest_roots()
    {
        WeatherRecord record = A.Record(1991, 12, d => d.Year == 1996 && d.Month == 1 ? (-25, -18)
            : d.Year == 1999 && d.Month == 7 ? (24, 38)
            : Course(d, 8, 11));
        NotableYears years = NotableYears.From(record, []);
        Assert.Equal((2001, 1995, 1998), (years.Past, years.HardestWinter, years.HottestSummer));
        Assert.Equal(-25, years.HardestAirC);
        Assert.InRange(years.HardestRootC, -25, -15);
    }

    [Fact]
    public void A_short_record_lends_its_normals_and_keeps_its_doubt()
    {
        WeatherRecord four = A.Record("New York");
        Assert.True(four.IsShort);
        Assert.Equal(WeatherRecord.GeneratedYears, four.ForOdds.YearsUsed.Count);
        Assert.Equal(4, four.ForOdds.KnownYears);
        Assert.Same(Cold, Cold.ForOdds);
    }

    [Fact]
    public void Days_as_odds_keep_years_without_the_day_behind_all_others()
    {
        YearDay[] years = [.. Enumerable.Range(0, 10).Select(i => new YearDay(2000 + i, i < 7 ? new LocalDate(2000 + i, 12, 1 + i) : null))];
        var odds = new DayOdds(years, false, 10);
        Assert.Equal(0.3, odds.ShareWithout, 9);
        Assert.Equal(new LocalDate(2001, 12, 1), odds.By(0));
        Assert.Null(odds.By(0.9));
        Assert.Equal(0.4, odds.ShareBy(new LocalDate(2026, 12, 4)), 9);
        Assert.True(odds.StandardErrorDays(0.1) > odds.StandardErrorDays(0.5));
        Assert.True(new DayOdds(years, false, 4).StandardErrorDays(0.5) > odds.StandardErrorDays(0.5));
    }

    private static PlantingWindow Window(WeatherRecord record, double depthCm, SurfaceCover cover = SurfaceCover.Litter) =>
        PlantingWindow.From(GroundClimate.Of(record).Of(ThermalClass.Bed(cover)), record, depthCm);

    private static (double Min, double Max) Course(LocalDate d, double mean, double half)
    {
        double m = mean - (half * Math.Cos(2 * Math.PI * (d.DayOfYear - 20) / 365.25));
        return (m - 4, m + 4);
    }
}
