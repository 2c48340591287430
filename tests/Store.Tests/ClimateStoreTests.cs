using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Stations near and far, normals, the site's place and skylines.</summary>
public sealed class ClimateStoreTests(TestDatabase test) : IClassFixture<TestDatabase>
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 9, 0);
    private static readonly WeatherDay Day = new(new LocalDate(2021, 5, 1), 4, 14, 2);

    private static readonly MonthlyNormals Normals = new(
        [-3, -2, 2, 7, 12, 17, 20, 19, 15, 9, 4, -1],
        [4, 6, 10, 16, 22, 27, 29, 28, 24, 18, 12, 6],
        [90, 80, 105, 105, 105, 110, 115, 110, 105, 100, 95, 95],
        "continental"
    );

    private PlanStore Plans => new(test.Database, PlanFile.Stored);

    private WeatherStore Weather => new(test.Database);

    [Fact]
    public async Task The_site_follows_the_nearest_station_until_somebody_chooses()
    {
        await Weather.Merge(new Station("FAR", "Far", 60, 20, 3), [Day], Now);
        await Place(new SitePlace(45, 10, 100));
        await Weather.ChooseNearest();
        Assert.Equal("FAR", (await Plans.Mark()).StationId);
        await Weather.Merge(new Station("NEAR", "Near", 45.2, 10.1, 90), [Day], Now);
        Assert.Equal("NEAR", (await Plans.Mark()).StationId);
        await Weather.Choose("FAR");
        await Weather.Merge(new Station("NEXT-DOOR", "Next door", 45, 10, 100), [Day], Now);
        Assert.Equal("FAR", (await Plans.Mark()).StationId);
        Assert.True(await Weather.IsChosen());
        await Weather.ChooseNearest();
        Assert.Equal("NEXT-DOOR", (await Plans.Mark()).StationId);
        // Across the date line the way round is the short one.
        await Weather.Merge(new Station("WEST", "West of it", 10, -179.9, 3), [Day], Now);
        await Place(new SitePlace(10, 179.9, 0));
        Assert.Equal("WEST", (await Plans.Mark()).StationId);
    }

    [Fact]
    public async Task Snow_wind_humidity_and_sun_come_back_as_they_went_in()
    {
        var full = new WeatherDay(new LocalDate(2020, 1, 2), -4, 2, 1, 120, 3.4, 81, 5.5);
        await Weather.Merge(new Station("FULL", "Full", -45, 0, 3), [full], Now);
        WeatherRecord record = (await Weather.Load("FULL"))!;
        Assert.Equal((120, 3.4, 81, 5.5), (record.SnowDepthMm[0], record.WindMs[0], record.HumidityPct[0], record.SunMJ[0]));
    }

    [Fact]
    public async Task Monthly_normals_stand_in_for_a_record_and_give_the_same_years_each_time()
    {
        var station = new Station("BOOK", "From a handbook", 44, -70, 20);
        await Weather.SaveNormals(station, Normals, Now);
        WeatherRecord record = (await Weather.Load("BOOK"))!;
        Assert.Equal(WeatherStore.GeneratedYears, record.YearsUsed.Count);
        Assert.Equal(MonthlyNormals.WorthYears, record.KnownYears);
        Assert.Equal(record.MinC, (await Weather.Load("BOOK"))!.MinC);
        Assert.True((await Weather.Stations()).Single(s => s.Id == "BOOK").IsNormals);
    }

    [Fact]
    public async Task A_daily_record_takes_the_place_of_normals_and_never_the_other_way_round()
    {
        var station = new Station("BOTH", "Both", 44, -70, 20);
        await Weather.SaveNormals(station, Normals, Now);
        await Weather.Merge(station, [Day], Now);
        Assert.False((await Weather.Stations()).Single(s => s.Id == "BOTH").IsNormals);
        var e = await Assert.ThrowsAsync<InvalidInputException>(() => Weather.SaveNormals(station, Normals, Now));
        Assert.Equal("id", e.Faults[0].Field);
        Assert.Single((await Weather.Load("BOTH"))!.MinC);
    }

    [Fact]
    public async Task Stations_beyond_the_polar_circles_are_kept()
    {
        await Weather.Merge(new Station("POLE", "Far north", 78.2, 15.6, 10), [Day], Now);
        Assert.NotNull(await Weather.Load("POLE"));
        await Assert.ThrowsAsync<InvalidInputException>(() => Weather.Merge(new Station("NOWHERE", "n", 91, 0, 0), [Day], Now));
    }

    [Fact]
    public async Task A_skyline_and_the_sites_place_survive_the_plan_file_and_the_database()
    {
        await using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        Plan demo = PlanFile.Read(file);
        Planter looked = demo.Planters[0] with
        {
            Skyline = Skyline.Open with { WallDeg = [.. Enumerable.Range(0, 16).Select(i => i * 2.5)], TreeGrowthDeg = 1.5 },
        };
        var plan = new Plan(
            demo.Site with
            {
                Place = new SitePlace(43.1, -66.9, 6, true),
            },
            demo.Areas,
            [looked, .. demo.Planters.Skip(1)],
            demo.Palette,
            demo.Displays,
            demo.Turns
        );
        await Plans.Replace(plan);
        Assert.Equal(PlanFile.Write(plan), PlanFile.Write(await Plans.Load()));
        var planters = new PlanterStore(new PlanStore(test.Database, PlanFile.Stored));
        await planters.Save(looked with { Skyline = null }, (await Plans.Now()).Versions.Planter(looked.Id));
        Assert.Null((await Plans.Load()).FindPlanter(looked.Id)!.Skyline);
    }

    private async Task Place(SitePlace place)
    {
        PlanMark mark = await Plans.Mark();
        await Plans.SaveSite((await Plans.Load()).Site with { Place = place, FrostRisk = 0.2, TimeZone = "Europe/Lisbon" }, mark.Version);
        Assert.Equal((0.2, "Europe/Lisbon"), ((await Plans.Load()).Site.FrostRisk, (await Plans.Load()).Site.TimeZone));
    }
}
