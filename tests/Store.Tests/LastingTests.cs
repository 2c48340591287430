using System.Text;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Nothing that was accepted breaks anything, and nothing that was accepted is lost.</summary>
public sealed class LastingTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private readonly PlanStore _plans = new(test.Database, PlanFile.Stored);

    private PaletteStore Palette => new(_plans);

    private PhotoStore Photos => new(test.Database);

    public async ValueTask InitializeAsync() => await _plans.Replace(Demo());

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_bulb_that_stands_in_a_stack_cannot_become_a_perennial_nor_a_petunia_a_bulb()
    {
        LoadedPlan now = await _plans.Now();
        Plant tulip = now.Plan.Plant("tulip-mid-rose");
        Plant petunia = now.Plan.Plant("petunia-magenta");
        foreach (
            Plant changed in new[]
            {
                tulip with
                {
                    LifeForm = LifeForm.Perennial,
                    Bulb = null,
                    Green = GreenLeaf.InSeason,
                },
                petunia with
                {
                    LifeForm = LifeForm.Bulb,
                    Bulb = tulip.Bulb,
                },
            }
        )
        {
            Assert.Empty(changed.Faults());
            var e = await Assert.ThrowsAsync<InvalidInputException>(() => Palette.Save(changed, now.Versions.Plant(changed.Id)));
            Assert.Contains("would no longer fit", e.Message, StringComparison.Ordinal);
            // A sheet is another door to the same room.
            await Assert.ThrowsAsync<InvalidInputException>(() => Palette.Put([changed], now.Versions));
        }
        Assert.Equal(PlanFile.Write(now.Plan), PlanFile.Write(await _plans.Load()));
    }

    [Fact]
    public async Task A_plant_that_only_a_recipe_names_is_in_use()
    {
        LoadedPlan now = await _plans.Now();
        await new RecipeStore(_plans).Add(
            new Recipe("hazel", "Hazel alone", DisplayLayer.Standing, now.Plan.Planters[0].Form, [new DisplayItem("witch-hazel-gold", 1)])
        );
        var e = await Assert.ThrowsAsync<InvalidInputException>(() => Palette.Remove("witch-hazel-gold", now.Versions.Plant("witch-hazel-gold")));
        Assert.Contains("recipe Hazel alone", e.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_a_newer_version_has_added_to_what_is_stored_is_passed_over()
    {
        await Sql("update plant set details = details || '{\"fragrance\": \"strong\"}'::jsonb where id = 'tulip-mid-rose'");
        await Sql("update site set rules = rules || '{\"mulch\": \"bark\"}'::jsonb");
        LoadedPlan now = await _plans.Now();
        Assert.Empty(now.Aside);
        Assert.NotNull(now.Plan.FindPlant("tulip-mid-rose"));
    }

    [Fact]
    public async Task What_is_stored_and_does_not_fit_is_set_aside_named_and_everything_else_works()
    {
        await Sql("update plant set details = (details || '{\"lifeForm\":\"perennial\"}'::jsonb) - 'bulb' where id = 'tulip-mid-rose'");
        await Sql("update planter set survey = '{\"soil\":\"moon-dust\"}' where id = 'flag-pot'");
        LoadedPlan now = await _plans.Now();
        Assert.Contains(now.Aside, a => a is { List: "planters", Id: "flag-pot" });
        Assert.Contains(now.Aside, a => a.List == "displays" && a.Why.Contains("there is no planter \"flag-pot\"", StringComparison.Ordinal));
        Assert.Contains(now.Aside, a => a.List == "displays" && a.Why.Contains("is no bulb", StringComparison.Ordinal));
        Assert.Equal(23, now.Plan.Planters.Count);
        // Other work goes on beside it.
        await new DisplayStore(_plans).SaveTurn(new Turn("beside", "Beside", new LocalDate(2027, 1, 4), new LocalDate(2027, 1, 8)), null);
        Assert.Contains("moon-dust", await _plans.AsideText("planters", "flag-pot"), StringComparison.Ordinal);
        await Assert.ThrowsAsync<InvalidInputException>(() => _plans.RemoveAside("planters", "great-pot"));
        // Mended, it stands in the plan again with all that rests on it.
        await Sql("update planter set survey = null where id = 'flag-pot'");
        Assert.NotNull((await _plans.Load()).FindPlanter("flag-pot"));
    }

    [Fact]
    public async Task A_plan_brought_in_keeps_photographs_and_versions_and_what_it_replaced_comes_back()
    {
        await Photos.Add(new PlanterPhoto(Guid.NewGuid(), "great-pot", new LocalDate(2026, 11, 1), "before", 4, 4), [1], [1]);
        LoadedPlan before = await _plans.Now();
        await _plans.Replace(before.Plan, PlanFile.Write);
        LoadedPlan same = await _plans.Now();
        Assert.Equal(before.Versions.Planter("great-pot"), same.Versions.Planter("great-pot"));
        Assert.Equal(before.Versions.Display("flag-pot-fall"), same.Versions.Display("flag-pot-fall"));
        Assert.NotEmpty(await Photos.Of("great-pot"));

        Plan less = Without(before.Plan, "great-pot");
        PlanReplacement lost = await _plans.WouldReplace(less);
        Assert.Equal(("great-pot", 1), (Assert.Single(lost.Planters).Id, lost.Photographs));
        await _plans.Replace(less, PlanFile.Write);
        Assert.True((await Photos.WithoutPlanter()).Photographs >= 1);
        var history = new PlanHistory(test.Database, PlanFile.Read);
        await _plans.Replace((await history.Load((await history.All())[0].Id))!, PlanFile.Write);
        Assert.Equal(PlanFile.Write(before.Plan), PlanFile.Write(await _plans.Load()));
        Assert.NotEmpty(await Photos.Of("great-pot"));
        // A page opened before the planter went can never fit the one that came back.
        Planter pot = before.Plan.FindPlanter("great-pot")!;
        await Assert.ThrowsAsync<LostUpdateException>(() =>
            new PlanterStore(_plans).Save(pot with { Note = "old page" }, before.Versions.Planter("great-pot"))
        );
    }

    [Fact]
    public async Task Planters_may_change_names_within_a_plan_that_is_brought_in()
    {
        Plan demo = Demo();
        (Planter one, Planter other) = (demo.Planters[0], demo.Planters[1]);
        await _plans.Replace(
            new Plan(
                demo.Site,
                demo.Areas,
                [one with { Name = other.Name }, other with { Name = one.Name }, .. demo.Planters.Skip(2)],
                demo.Palette,
                demo.Displays,
                demo.Turns,
                demo.Map,
                demo.Lots,
                demo.Recipes,
                demo.Events
            )
        );
        Assert.Equal(other.Name, (await _plans.Load()).FindPlanter(one.Id)!.Name);
    }

    [Fact]
    public async Task A_turn_moves_with_its_displays_in_one_step_and_comes_back_in_one()
    {
        LoadedPlan now = await _plans.Now();
        var changes = new ChangeStore(_plans);
        Turn turn = now.Plan.Turns[0];
        Display display = now.Plan.Displays.First(d => turn.Holds(d.Install));
        PlanChange change = PlanChange.Of([display], [display with { Install = display.Install.PlusDays(1) }]) with
        {
            TurnsBefore = [turn],
            TurnsAfter = [turn with { FirstDay = turn.FirstDay.PlusDays(-1) }],
        };
        // What does not fit leaves neither moved.
        PlanChange wrong = change with { TurnsAfter = [turn with { LastDay = turn.FirstDay.PlusDays(-9) }] };
        await Assert.ThrowsAsync<InvalidInputException>(() => changes.Make(wrong, "wrong"));
        Guid id = await changes.Make(change, "a day earlier");
        Assert.Equal(turn.FirstDay.PlusDays(-1), (await _plans.Load()).Turns.First(t => t.Id == turn.Id).FirstDay);
        await changes.Undo(id);
        Assert.Equal(PlanFile.Write(now.Plan), PlanFile.Write(await _plans.Load()));
        await new DisplayStore(_plans).SaveTurn(turn with { Name = "By another" }, (await _plans.Now()).Versions.Turn(turn.Id));
        await Assert.ThrowsAsync<LostUpdateException>(() => changes.Make(change, "stale"));
    }

    [Fact]
    public async Task A_name_typed_in_parts_is_the_name_typed_whole()
    {
        LoadedPlan now = await _plans.Now();
        Planter pot = now.Plan.FindPlanter("great-pot")!;
        await new PlanterStore(_plans).Save(pot with { Name = "Cafe\u0301 pot" }, now.Versions.Planter(pot.Id));
        Assert.Equal("Caf\u00e9 pot", (await _plans.Load()).FindPlanter(pot.Id)!.Name);
        var e = await Assert.ThrowsAsync<InvalidInputException>(() =>
            new PlanterStore(_plans).Add([pot with { Id = "second", Name = "Caf\u00e9 pot" }])
        );
        Assert.Contains("already used", e.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Texts_of_older_days_are_mended_the_logs_too()
    {
        Observation seen = new(
            Guid.NewGuid(),
            "kiosk-basket",
            null,
            new LocalDate(2026, 10, 20),
            ObservationKind.Note,
            "first\u0001line\nsecond\uFFFE",
            "Ro\u0007sa"
        );
        await new LogStore(test.Database).Record([seen]);
        await Sql("update planter set name = e'Kiosk\\x02basket' where id = 'kiosk-basket'");
        await Sql("update plant set details = jsonb_set(details, '{commonName}', to_jsonb(e'Snow\\x01drop'::text)) where id = 'snowdrop'");
        Assert.NotEmpty((await _plans.Now()).Aside);
        Assert.NotEmpty(await TextRepair.Mend(test.Whole));
        LoadedPlan now = await _plans.Now();
        Assert.Empty(now.Aside);
        Assert.Equal(("Kiosk basket", "Snow drop"), (now.Plan.FindPlanter("kiosk-basket")!.Name, now.Plan.Plant("snowdrop").CommonName));
        Observation mended = Assert.Single(await new LogStore(test.Database).Latest("kiosk-basket", 500), o => o.Id == seen.Id);
        Assert.Equal(("first line\nsecond\uFFFD", "Ro sa"), (mended.Note, mended.By));
        Assert.Equal("Every text is in order.", Assert.Single(await TextRepair.Mend(test.Whole)));
        Assert.Contains(
            "append-only",
            (await Assert.ThrowsAsync<PostgresException>(() => Sql("delete from observation"))).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_log_takes_entries_of_planters_that_are_gone_and_gives_all_of_them_in_one_order()
    {
        var log = new LogStore(test.Database);
        List<Observation> many =
        [
            .. Enumerable
                .Range(0, 5000)
                .Select(i => new Observation(
                    Guid.NewGuid(),
                    "long-gone",
                    "forgotten",
                    new LocalDate(2020, 1, 1).PlusDays(i % 400),
                    ObservationKind.Note,
                    $"note {i}",
                    "Rosa"
                )
                {
                    RecordedAt = Instant.FromUtc(2020, 1, 1, 0, 0).Plus(Duration.FromMilliseconds(i)),
                }),
        ];
        Assert.Equal(5000, await log.Record(many));
        Assert.Equal(0, await log.Record(many));
        var all = new List<Observation>();
        await foreach (Observation o in log.All())
            all.Add(o);
        Assert.Equal(many.OrderBy(o => o.Day).ThenBy(o => o.Id.ToString(), StringComparer.Ordinal), all.Where(o => o.PlanterId == "long-gone"));
    }

    [Fact]
    public async Task Ten_who_save_one_planter_at_once_are_one_saved_and_nine_told_and_twenty_plans_at_once_leave_one_of_them()
    {
        LoadedPlan now = await _plans.Now();
        Planter pot = now.Plan.FindPlanter("great-pot")!;
        var tries = await Task.WhenAll(
            Enumerable
                .Range(0, 10)
                .Select(i =>
                    Task.Run(async () =>
                    {
                        try
                        {
                            await new PlanterStore(new PlanStore(test.Database, PlanFile.Stored)).Save(
                                pot with
                                {
                                    Note = $"by {i}",
                                },
                                now.Versions.Planter(pot.Id)
                            );
                            return i;
                        }
                        catch (LostUpdateException)
                        {
                            return -1;
                        }
                    })
                )
        );
        Assert.Equal($"by {Assert.Single(tries, t => t >= 0)}", (await _plans.Load()).FindPlanter("great-pot")!.Note);
        Plan[] plans = [Demo(), Without(Demo(), "great-pot")];
        await Task.WhenAll(
            Enumerable.Range(0, 20).Select(i => Task.Run(() => new PlanStore(test.Database, PlanFile.Stored).Replace(plans[i % 2], PlanFile.Write)))
        );
        byte[] left = PlanFile.Write(await _plans.Load());
        Assert.Contains(plans, p => PlanFile.Write(p).AsSpan().SequenceEqual(left));
    }

    [Fact]
    public async Task Words_for_the_next_page_are_taken_once_however_many_there_are()
    {
        var messages = new MessageStore(test.Whole);
        var id = Guid.NewGuid();
        await messages.Keep(id, $"{{\"Said\":\"{new string('x', 100_000)}\"}}");
        Assert.Equal(100_000, (await messages.Find(id))!.Length - "{\"Said\": \"\"}".Length);
        await messages.Drop(id);
        Assert.Null(await messages.Find(id));
    }

    private async Task Sql(string sql)
    {
        await using NpgsqlConnection connection = await test.Database.Open();
        await connection.ExecuteAsync(sql);
    }

    private static Plan Without(Plan plan, string planter) =>
        new(
            plan.Site,
            plan.Areas,
            [.. plan.Planters.Where(p => p.Id != planter)],
            plan.Palette,
            [.. plan.Displays.Where(d => d.PlanterId != planter)],
            plan.Turns,
            plan.Map,
            [.. plan.Lots.Where(l => l.FromPlanterId != planter)],
            plan.Recipes,
            plan.Events
        );

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
