using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Planters;

public sealed class SkylineTests
{
    private static readonly double[] None = new double[Skyline.Sectors];

    [Fact]
    [Published("FAO Irrigation and Drainage Paper 56, eq. 34: daylight hours")]
    public void Under_an_open_sky_the_hours_of_sun_are_the_daylight_hours()
    {
        foreach (double latitude in new[] { 0.0, 40.7, -34 })
        {
            SunYear year = SunYear.Of(Skyline.Open, latitude, 2026);
            foreach (MonthSun m in year.Months)
                Assert.Equal(SolarGeometry.DaylightHours(latitude, A.Day(2026, m.Month, 15).DayOfYear), m.Hours, 0.2);
        }
    }

    [Fact]
    public void Mornings_and_afternoons_are_alike_under_an_open_sky() =>
        Assert.All(SunYear.Of(Skyline.Open, 52, 2026).Months, m => Assert.Equal(m.MorningHours, m.AfternoonHours, 0.1));

    [Fact]
    public void A_wall_in_the_east_takes_the_morning_and_leaves_the_afternoon()
    {
        SunYear year = SunYear.Of(Walls(45, "NE", "ENE", "E", "ESE", "SE"), 45, 2026);
        Assert.True(year.Months[5].MorningHours < year.Months[5].AfternoonHours - 2);
    }

    [Fact]
    public void A_high_wall_to_the_south_leaves_winter_in_shade_and_summer_in_part_or_full_sun()
    {
        SunYear year = SunYear.Of(Walls(40, "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W"), 45, 2026);
        Assert.Equal(Exposure.Shade, year.Seasons[3].Class);
        Assert.NotEqual(Exposure.Shade, year.Seasons[1].Class);
    }

    [Fact]
    public void South_of_the_equator_summer_is_December_and_the_wall_that_shades_stands_in_the_north()
    {
        Skyline north = Walls(40, "E", "ENE", "NE", "NNE", "N", "NNW", "NW", "WNW", "W");
        SunYear year = SunYear.Of(north, -45, 2026);
        Assert.Equal(Exposure.Shade, year.Seasons[3].Class);
        Assert.True(year.Months[11].Hours > year.Months[5].Hours);
    }

    [Fact]
    public void A_tree_lets_more_sun_through_in_winter_than_in_leaf()
    {
        Skyline tree = Skyline.Open with { TreeDeg = [.. Enumerable.Repeat(80.0, 16)] };
        var high = new SunPosition(60, 180);
        Assert.Equal(tree.LeafOffShare, tree.Passing(high, 2026, 0));
        Assert.Equal(tree.LeafOnShare, tree.Passing(high, 2026, 1), 9);
        Assert.Equal(1, tree.Passing(new SunPosition(85, 180), 2026, 1));
    }

    [Fact]
    public void Canopy_grows_each_year_until_it_closes_the_sky()
    {
        Skyline tree = Skyline.Open with
        {
            TreeDeg = [.. Enumerable.Range(0, 16).Select(i => i == 8 ? 40.0 : 0)],
            SurveyedIn = 2026,
            TreeGrowthDeg = 5,
        };
        Assert.Equal(40, tree.CanopyDeg(8, 2020));
        Assert.Equal(60, tree.CanopyDeg(8, 2030));
        Assert.Equal(90, tree.CanopyDeg(8, 2050));
        Assert.Equal(0, tree.CanopyDeg(0, 2050));
        Assert.True(SunYear.Of(tree, 45, 2032).Months[5].Hours < SunYear.Of(tree, 45, 2026).Months[5].Hours);
    }

    [Theory]
    [InlineData(6, Exposure.FullSun)]
    [InlineData(5.9, Exposure.PartSun)]
    [InlineData(3, Exposure.PartSun)]
    [InlineData(2.9, Exposure.Shade)]
    [CommonPractice]
    public void Six_hours_are_full_sun_and_three_are_part_sun(double hours, Exposure exposure) => Assert.Equal(exposure, SunYear.ClassOf(hours));

    [Fact]
    public void Wrong_angles_are_named_with_their_sector()
    {
        Assert.Contains(Skyline.Open with { WallDeg = [.. Enumerable.Repeat(91.0, 16)] } is var bad ? bad.Faults() : [], f =>
            f.Field == "wallDeg[3]"
        );
        Assert.Contains((Skyline.Open with { TreeDeg = [1, 2] }).Faults(), f => f.Field == "treeDeg");
        Assert.Empty(Skyline.Open.Faults());
    }

    private static Skyline Walls(double height, params string[] sectors)
    {
        double[] walls = [.. None];
        foreach (string sector in sectors)
            walls[Skyline.SectorNames.ToList().IndexOf(sector)] = height;
        return Skyline.Open with { WallDeg = walls };
    }
}
