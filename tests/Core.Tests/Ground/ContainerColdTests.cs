using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Ground;

/// <summary>
/// What New York's winters of 2012–2015 (NOAA, coldest air −16 °C) do inside pots and beds. The ranges come from a trial at
/// 1.5 cm and hourly air without wind or sun, so the wind is left out here and all stands in shade.
/// </summary>
public sealed class ContainerColdTests
{
    private const double OneZoneC = 50.0 / 9;

    private static readonly WeatherRecord Windy = A.Record("New York");
    private static readonly WeatherRecord NewYork = WeatherRecord.From(
        Windy.Station,
        Enumerable
            .Range(0, Windy.MinC.Length)
            .Select(i => new WeatherDay(Windy.FirstDay.PlusDays(i), Windy.MinC[i], Windy.MaxC[i], Windy.PrecipitationMm[i]))
    );
    private static readonly GroundForcing Forcing = GroundForcing.From(NewYork);

    [Theory]
    [InlineData(30, -16, -14)]
    [InlineData(45, -15, -10)]
    [InlineData(60, -14, -9)]
    [InlineData(90, -13, -8)]
    [CommonPractice]
    public void Roots_along_the_wall_of_a_terracotta_pot_feel_nearly_the_coldest_air_and_less_so_the_wider_it_is(
        double widthCm,
        double low,
        double high
    ) => Assert.InRange(Lowest(Pot(widthCm), Forcing), low, high);

    [Fact]
    [CommonPractice]
    public void Litter_and_mulch_keep_a_bed_from_freezing_at_15_cm_where_bare_soil_freezes()
    {
        Assert.InRange(Lowest(Bed(SurfaceCover.Bare), Forcing), -5, -3);
        Assert.InRange(Lowest(Bed(SurfaceCover.Litter), Forcing), -0.1, 0.6);
        Assert.InRange(Lowest(Bed(SurfaceCover.Mulch), Forcing), 0.9, 2);
    }

    // The trade says two zones; it depends on the bed it is compared with, so the range is asserted and never the two.
    [Theory]
    [InlineData(30)]
    [InlineData(45)]
    [InlineData(60)]
    [InlineData(90)]
    [CommonPractice]
    public void A_pot_costs_one_and_a_half_to_three_zones_against_a_bed_under_litter(double widthCm)
    {
        double litter = ZonesColder(widthCm, SurfaceCover.Litter);
        Assert.InRange(litter, 1.5, 3);
        Assert.InRange(ZonesColder(widthCm, SurfaceCover.Bare), 0.8, 1.9);
        Assert.True(ZonesColder(widthCm, SurfaceCover.Mulch) > litter);
    }

    [Fact]
    public void Every_remedy_for_a_pot_in_winter_keeps_its_roots_warmer()
    {
        double alone = Lowest(Pot(40), Forcing);
        Assert.True(Lowest(Pot(60), Forcing) > alone);
        Assert.True(Lowest(ThermalClass.Pot(40, 36, WallMaterial.Timber), Forcing) > alone);
        foreach (WinterShelter shelter in new[] { WinterShelter.Grouped, WinterShelter.Wrapped, WinterShelter.UnheatedRoom })
            Assert.True(Lowest(Pot(40) with { Shelter = shelter }, Forcing) > alone, shelter.ToString());
        Assert.True(Lowest(Bed(SurfaceCover.Mulch), Forcing) > alone);
    }

    [Fact]
    public void Dark_walls_in_full_sun_heat_roots_more_than_pale_walls_or_shade()
    {
        ThermalClass dark = Pot(30) with { Sun = Exposure.FullSun, WallAbsorptance = 0.95 };
        float Hottest(ThermalClass c) => GroundModel.Run(c, Forcing).RootMax.Max();
        Assert.True(Hottest(dark) > Hottest(dark with { WallAbsorptance = 0.3 }) + 1);
        Assert.True(Hottest(dark) > Hottest(dark with { Sun = Exposure.Shade }) + 1);
    }

    [Fact]
    public void On_paving_the_floor_of_a_pot_swings_less_than_on_feet()
    {
        float[] Floor(bool feet) => GroundModel.Run(Pot(40) with { OnFeet = feet }, Forcing).AtDepth(36);
        Assert.True(Floor(false).Min() > Floor(true).Min());
        Assert.True(Floor(false).Max() < Floor(true).Max());
    }

    [Fact]
    public void Wind_carries_more_heat_off_than_still_air() => Assert.True(Lowest(Pot(40), GroundForcing.From(Windy)) < Lowest(Pot(40), Forcing));

    [Fact]
    public void Snow_lying_keeps_a_bed_warmer()
    {
        var snowy = WeatherRecord.From(
            NewYork.Station,
            Enumerable
                .Range(0, NewYork.MinC.Length)
                .Select(i => new WeatherDay(
                    NewYork.FirstDay.PlusDays(i),
                    NewYork.MinC[i],
                    NewYork.MaxC[i],
                    0,
                    NewYork.FirstDay.PlusDays(i).Month is 1 or 2 or 12 ? 200 : 0
                ))
        );
        Assert.True(Lowest(Bed(SurfaceCover.Bare), GroundForcing.From(snowy)) > Lowest(Bed(SurfaceCover.Bare), Forcing) + 2);
    }

    [Fact]
    public void Planters_of_one_family_share_a_thermal_class()
    {
        Planter a = A.Pot();
        Assert.Equal(a.ThermalClass(), (a with { Id = "b", Name = "another" }).ThermalClass());
        Assert.NotEqual(a.ThermalClass(), (a with { Wall = WallMaterial.Timber }).ThermalClass());
        Assert.NotEqual(a.ThermalClass(), (a with { Exposure = a.Exposure == Exposure.Shade ? Exposure.FullSun : Exposure.Shade }).ThermalClass());
    }

    [Theory]
    [InlineData("#ffffff", 0.3)]
    [InlineData("#000000", 0.95)]
    public void Pale_walls_take_up_less_sun_than_dark_ones(string colour, double absorptance) =>
        Assert.Equal(absorptance, Walls.Absorptance(colour), 2);

    [Fact]
    public void A_terracotta_wall_has_the_resistance_the_trial_used() => Assert.Equal(0.025, Walls.Resistance(WallMaterial.Terracotta), 4);

    private static ThermalClass Pot(double widthCm) => ThermalClass.Pot(widthCm, widthCm * 0.9, WallMaterial.Terracotta);

    private static ThermalClass Bed(SurfaceCover cover) => ThermalClass.Bed(cover, Exposure.Shade);

    private static double Lowest(ThermalClass what, GroundForcing forcing) => GroundModel.Run(what, forcing).RootMin.Min();

    // How much colder the air must be for the bed at 15 cm to be as cold as the pot 2 cm inside its wall.
    private static double ZonesColder(double widthCm, SurfaceCover bed)
    {
        double pot = Lowest(Pot(widthCm), Forcing);
        double low = 0;
        double high = 40;
        for (int i = 0; i < 9; i++)
        {
            double shift = (low + high) / 2;
            WeatherRecord colder = NewYork.AtElevation(NewYork.Station.ElevationM + (shift / WeatherRecord.LapseCPerKm * 1000));
            if (Lowest(Bed(bed), GroundForcing.From(colder)) > pot)
                low = shift;
            else
                high = shift;
        }
        return low / OneZoneC;
    }
}
