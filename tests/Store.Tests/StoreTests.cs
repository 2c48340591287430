using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

public sealed class StoreTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 9, 0);

    private PlanStore Plans => new(test.Database, PlanFile.Stored);

    private PlanterStore Planters => new(Plans);

    private PaletteStore Palette => new(Plans);

    private async Task<PlanVersions> Versions() => (await Plans.Now()).Versions;

    private DisplayStore Displays => new(Plans);

    private WeatherStore Weather => new(test.Database);

    private LogStore Log => new(test.Database);

    public async ValueTask InitializeAsync() => await Plans.Replace(Demo());

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_plan_comes_out_of_the_database_as_it_went_in() => Assert.Equal(PlanFile.Write(Demo()), PlanFile.Write(await Plans.Load()));

    [Fact]
    public async Task Migrating_twice_does_nothing_the_second_time()
    {
        test.Whole.Migrate();
        Assert.Equal(24, (await Plans.Load()).Planters.Count);
    }

    [Fact]
    public async Task Every_change_of_the_plan_raises_its_mark_and_reading_does_not()
    {
        PlanMark before = await Plans.Mark();
        await Plans.Load();
        Assert.Equal(before, await Plans.Mark());
        await Displays.SaveTurn(new Turn($"t-{Guid.NewGuid():N}"[..20], "A turn", new LocalDate(2027, 1, 4), new LocalDate(2027, 1, 8)), null);
        Assert.True((await Plans.Mark()).Revision > before.Revision);
    }

    [Fact]
    public async Task The_database_itself_refuses_two_displays_in_one_layer_at_once()
    {
        await using NpgsqlConnection connection = await test.Database.Open();
        var e = await Assert.ThrowsAsync<PostgresException>(() =>
            connection.ExecuteAsync(
                "insert into display (id, planter_id, layer, during) values ('clash', 'kiosk-basket', 'Seasonal', '[2026-12-01,2027-02-01)')"
            )
        );
        Assert.Equal(("23P01", "display_layer_once"), (e.SqlState, e.ConstraintName));
    }

    [Fact]
    public async Task A_clash_of_displays_is_said_in_a_sentence_and_nothing_is_written()
    {
        var clash = new Display(
            "clash",
            "kiosk-basket",
            DisplayLayer.Seasonal,
            new LocalDate(2026, 12, 1),
            new LocalDate(2027, 2, 1),
            [new DisplayItem("pansy-violet", 3)]
        );
        var e = await Assert.ThrowsAsync<InvalidInputException>(() => Displays.Save(clash, null));
        Assert.Contains("another display fills this layer", e.Message, StringComparison.Ordinal);
        Assert.DoesNotContain((await Plans.Load()).Displays, d => d.Id == "clash");
    }

    [Theory]
    [InlineData("'empty'")]
    [InlineData("'[2026-01-01,)'")]
    [InlineData("'(,2026-01-01)'")]
    public async Task A_display_without_both_ends_is_refused_by_the_database(string during)
    {
        await using NpgsqlConnection connection = await test.Database.Open();
        await Assert.ThrowsAsync<PostgresException>(() =>
            connection.ExecuteAsync($"insert into display (id, planter_id, layer, during) values ('open', 'flag-pot', 'Standing', {during})")
        );
    }

    [Fact]
    public async Task A_display_is_written_with_its_plants_in_their_order()
    {
        var display = new Display(
            "gap-filler",
            "kiosk-basket",
            DisplayLayer.Seasonal,
            new LocalDate(2027, 1, 11),
            new LocalDate(2027, 3, 22),
            [new DisplayItem("winter-heath-pink", 3), new DisplayItem("ivy-variegated", 2)]
        );
        await Displays.Save(display, null);
        Display read = (await Plans.Load()).Displays.Single(d => d.Id == "gap-filler");
        Assert.Equal(["winter-heath-pink", "ivy-variegated"], read.Items.Select(i => i.PlantId));
        Assert.Equal((display.Install, display.Lift), (read.Install, read.Lift));
    }

    [Fact]
    public async Task Of_two_people_saving_one_planter_the_second_is_told_and_loses_nothing_of_the_first()
    {
        Planter planter = (await Plans.Load()).FindPlanter("flag-pot")!;
        long version = (await Versions()).Planter("flag-pot");
        await Planters.Save(planter with { Note = "first" }, version);
        var e = await Assert.ThrowsAsync<LostUpdateException>(() => Planters.Save(planter with { Note = "second" }, version));
        Assert.Contains("changed by someone else", e.Message, StringComparison.Ordinal);
        Assert.Equal("first", (await Plans.Load()).FindPlanter("flag-pot")!.Note);
    }

    [Fact]
    public async Task A_planters_name_can_be_used_once()
    {
        Planter planter = (await Plans.Load()).FindPlanter("flag-pot")! with { Id = "flag-pot-again" };
        var e = await Assert.ThrowsAsync<InvalidInputException>(() => Planters.Add([planter]));
        Assert.Equal("name", Assert.Single(e.Faults).Field);
    }

    [Theory]
    [InlineData("'; drop table planter; --")]
    [InlineData("<script>alert(1)</script>")]
    [InlineData("naïve \"quotes\" \\ % _ {0}")]
    public async Task Text_of_any_kind_is_kept_as_text(string text)
    {
        Planter planter = (await Plans.Load()).FindPlanter("flag-pot")!;
        await Planters.Save(planter with { Note = text }, (await Versions()).Planter("flag-pot"));
        Assert.Equal(text, (await Plans.Load()).FindPlanter("flag-pot")!.Note);
    }

    [Fact]
    public async Task A_plan_that_breaks_a_rule_of_the_database_leaves_the_old_one_whole()
    {
        Plan demo = Demo();
        Planter first = demo.Planters[0];
        // A wall that no name stands for passes Core's checks of measures; the database refuses it.
        var broken = new Plan(demo.Site, demo.Areas, [first with { Wall = (WallMaterial)99 }], demo.Palette, [], []);
        await Assert.ThrowsAnyAsync<Exception>(() => Plans.Replace(broken));
        Assert.Equal(24, (await Plans.Load()).Planters.Count);
    }

    [Fact]
    public async Task Bringing_in_a_year_twice_adds_nothing_the_second_time()
    {
        var station = new Station("TWICE", "Twice", 45, 0, 3);
        WeatherDay[] days = [.. Enumerable.Range(0, 365).Select(i => new WeatherDay(new LocalDate(2021, 1, 1).PlusDays(i), 1, 9, null))];
        Assert.Equal(365, await Weather.Merge(station, days, Now));
        Assert.Equal(0, await Weather.Merge(station, days, Now));
        WeatherRecord? record = await Weather.Load("TWICE");
        Assert.Equal(365, record!.MinC.Length);
    }

    [Fact]
    public async Task A_later_file_corrects_readings_and_keeps_those_it_lacks()
    {
        var station = new Station("MEND", "Mend", 45, 0, 3);
        var day = new LocalDate(2021, 5, 1);
        await Weather.Merge(station, [new WeatherDay(day, 4, 14, 2)], Now);
        await Weather.Merge(station, [new WeatherDay(day, 5, null, null)], Now);
        WeatherRecord record = (await Weather.Load("MEND"))!;
        Assert.Equal((5, 14, 2), (record.MinC[0], record.MaxC[0], record.PrecipitationMm[0]));
    }

    [Fact]
    public async Task A_file_with_an_impossible_day_changes_nothing()
    {
        var station = new Station("HALF", "Half", 45, 0, 3);
        WeatherDay[] days = [new(new LocalDate(2021, 5, 1), 4, 14, 2), new(new LocalDate(2021, 5, 2), 20, 14, 2)];
        await Assert.ThrowsAsync<InvalidInputException>(() => Weather.Merge(station, days, Now));
        Assert.DoesNotContain(await Weather.Stations(), s => s.Id == "HALF");
    }

    [Fact]
    public async Task The_first_station_becomes_the_sites_and_another_can_be_chosen()
    {
        await Weather.Merge(new Station("ONE", "One", 45, 0, 3), [new WeatherDay(new LocalDate(2021, 5, 1), 4, 14, 2)], Now);
        await Weather.Merge(new Station("OTHER", "Other", 45, 0, 3), [new WeatherDay(new LocalDate(2021, 5, 1), 4, 14, 2)], Now);
        Assert.NotNull((await Plans.Mark()).StationId);
        await Weather.Choose("OTHER");
        Assert.Equal("OTHER", (await Plans.Mark()).StationId);
        await Assert.ThrowsAsync<InvalidInputException>(() => Weather.Choose("NOWHERE"));
    }

    [Fact]
    public async Task An_observation_sent_twice_is_recorded_once()
    {
        Observation seen = Seen("kiosk-basket");
        Assert.Equal(1, await Log.Record([seen]));
        Assert.Equal(0, await Log.Record([seen]));
        Observation read = Assert.Single(await Log.Latest("kiosk-basket", 500), o => o.Id == seen.Id);
        Assert.NotNull(read.RecordedAt);
        Assert.Equal(seen, read with { RecordedAt = null, PlantName = null });
    }

    [Fact]
    public async Task The_log_keeps_what_a_plant_was_called_when_its_name_is_corrected()
    {
        Observation seen = Seen("kiosk-basket");
        await Log.Record([seen]);
        LoadedPlan now = await Plans.Now();
        Plant plant = now.Plan.Plant(seen.PlantId!);
        await Palette.Save(plant with { CommonName = "Viola, cream" }, now.Versions.Plant(plant.Id));
        Observation read = Assert.Single(await Log.Latest("kiosk-basket", 500), o => o.Id == seen.Id);
        Assert.Equal(plant.CommonName, read.PlantName);
        LoadedPlan then = await Plans.Now();
        await Palette.Save(plant, then.Versions.Plant(plant.Id));
    }

    [Fact]
    public async Task The_log_can_be_neither_changed_nor_shortened()
    {
        await Log.Record([Seen("kiosk-basket")]);
        await using NpgsqlConnection connection = await test.Whole.Source.OpenConnectionAsync();
        foreach (string sql in new[] { "update observation set note = 'x'", "delete from observation", "truncate observation" })
            Assert.Contains(
                "append-only",
                (await Assert.ThrowsAsync<PostgresException>(() => connection.ExecuteAsync(sql))).Message,
                StringComparison.Ordinal
            );
    }

    [Fact]
    public async Task The_log_outlives_the_planter_it_speaks_of()
    {
        Observation seen = Seen("kiosk-basket");
        await Log.Record([seen]);
        Plan demo = Demo();
        await Plans.Replace(new Plan(demo.Site, demo.Areas, [], demo.Palette, [], []));
        Assert.Contains(await Log.Latest("kiosk-basket", 500), o => o.Id == seen.Id);
    }

    [Fact]
    public async Task Dates_pass_through_unharmed()
    {
        await using NpgsqlConnection connection = await test.Database.Open();
        Assert.Equal(
            new LocalDate(2027, 4, 14),
            await connection.QuerySingleAsync<LocalDate>("select @day", new { day = new LocalDate(2027, 4, 14) })
        );
    }

    private static Observation Seen(string planter) =>
        new(Guid.NewGuid(), planter, "viola-white", new LocalDate(2026, 10, 20), ObservationKind.Peak, string.Empty, "Rosa");

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }

    [Fact]
    public async Task Processes_that_start_at_once_on_a_new_database_all_find_it_ready()
    {
        await using var empty = new TestDatabase { Migrated = false };
        await empty.InitializeAsync();
        await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(_ =>
                    Task.Run(async () =>
                    {
                        await using var process = new MeadowDatabase(empty.Whole.ConnectionString);
                        process.Migrate();
                        SiteDatabase site = process.At((await process.FirstSite())!.Id);
                        Assert.Empty((await new PlanStore(site, PlanFile.Stored).Load()).Planters);
                    })
                )
        );
    }
}
