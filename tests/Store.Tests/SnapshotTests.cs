using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Each process follows what the others change by what changed alone, and sees what reading all anew would give it.</summary>
public sealed class SnapshotTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private readonly PlanStore _one = Process(test);
    private readonly PlanStore _other = Process(test);

    public async ValueTask InitializeAsync() => await _one.Replace(Demo());

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_second_process_that_follows_a_hundred_edits_holds_what_a_new_one_reads()
    {
        var random = new Random(11);
        await _other.Now();
        for (int i = 0; i < 100; i++)
        {
            await Edit(random.Next(2) == 0 ? _one : _other, random, i);
            if (i % 3 == 0)
                await SameAsAnew(_other);
            if (i == 60)
                await _one.Replace(Demo());
        }
        await SameAsAnew(_one);
        await SameAsAnew(_other);
    }

    [Fact]
    public async Task What_did_not_change_is_the_same_object_after_anothers_edit_and_after_anothers_plan()
    {
        LoadedPlan before = await _other.Now();
        Planter pot = before.Plan.FindPlanter("great-pot")!;
        await new PlanterStore(_one).Save(pot with { Note = "moved" }, before.Versions.Planter(pot.Id));
        LoadedPlan after = await _other.Now();
        Assert.Equal(["great-pot"], after.Plan.PlantersChangedSince(before.Plan)!);
        Assert.Same(before.Plan.Palette, after.Plan.Palette);
        await _one.Replace(Demo());
        Assert.Equal(["great-pot"], (await _other.Now()).Plan.PlantersChangedSince(after.Plan)!);
    }

    [Fact]
    public async Task A_row_that_a_hand_made_unreadable_is_set_aside_and_comes_back_when_it_is_mended()
    {
        await _other.Now();
        await using NpgsqlConnection hand = await test.Database.Open();
        await hand.ExecuteAsync("update planter set survey = '{\"soil\": \"treacle\"}' where id = 'great-pot'");
        LoadedPlan without = await _other.Now();
        Assert.Contains(without.Aside, a => a is { List: "planters", Id: "great-pot" });
        Assert.Null(without.Plan.FindPlanter("great-pot"));
        await SameAsAnew(_other);
        await hand.ExecuteAsync("update planter set survey = null where id = 'great-pot'");
        Assert.Empty((await _other.Now()).Aside);
        await SameAsAnew(_other);
    }

    [Fact]
    public async Task Every_pair_of_writes_that_meet_leaves_both_or_tells_one_of_them_and_never_hangs()
    {
        string[] kinds = ["planter", "plant", "display", "turn", "lot", "event", "recipe", "map", "site", "plan"];
        for (int a = 0; a < kinds.Length; a++)
        {
            for (int b = a; b < kinds.Length; b++)
            {
                Task[] both = [Quietly(_one, kinds[a], (100 * a) + b), Quietly(_other, kinds[b], 5000 + (100 * a) + b)];
                await Task.WhenAll(both).WaitAsync(TimeSpan.FromSeconds(30), TestContext.Current.CancellationToken);
            }
        }
        await SameAsAnew(_one);
        await SameAsAnew(_other);
    }

    private static PlanStore Process(TestDatabase test) => new(test.Database, PlanFile.Stored);

    private async Task SameAsAnew(PlanStore store)
    {
        LoadedPlan anew = await Process(test).Now();
        LoadedPlan kept = await store.Now();
        Assert.Equal(anew.Mark, kept.Mark);
        Assert.Equal(PlanFile.Write(anew.Plan), PlanFile.Write(kept.Plan));
        Assert.Equal(anew.Aside, kept.Aside);
        Assert.All(anew.Plan.Displays, d => Assert.Equal(anew.Versions.Display(d.Id), kept.Versions.Display(d.Id)));
        Assert.All(anew.Plan.Planters, p => Assert.Equal(anew.Versions.Planter(p.Id), kept.Versions.Planter(p.Id)));
        Assert.All(anew.Plan.Palette, p => Assert.Equal(anew.Versions.Plant(p.Id), kept.Versions.Plant(p.Id)));
    }

    // A write that comes second may be told so; nothing else may go wrong.
    private static async Task Quietly(PlanStore store, string kind, int number)
    {
        try
        {
            await Write(store, kind, number);
        }
        catch (LostUpdateException) { }
        catch (InvalidInputException) { }
    }

    private static async Task Write(PlanStore store, string kind, int number)
    {
        LoadedPlan now = await store.Now();
        Plan plan = now.Plan;
        switch (kind)
        {
            case "planter":
                Planter pot = plan.Planters[number % plan.Planters.Count];
                await new PlanterStore(store).Save(pot with { Note = $"note {number}" }, now.Versions.Planter(pot.Id));
                break;
            case "plant":
                var plant = plan.Palette[number % plan.Palette.Count];
                await new PaletteStore(store).Save(plant with { Source = $"source {number}" }, now.Versions.Plant(plant.Id));
                break;
            case "display":
                Display display = plan.Displays[number % plan.Displays.Count];
                Display longer = display with { Lift = display.Lift.PlusDays((number % 5) - 2) };
                await new DisplayStore(store).Save(longer, now.Versions.Display(display.Id));
                break;
            case "turn":
                Turn turn = plan.Turns[number % plan.Turns.Count];
                await new DisplayStore(store).SaveTurn(turn with { People = 1 + (number % 4) }, now.Versions.Turn(turn.Id));
                break;
            case "lot":
                var lot = new Lot($"lot-{number}", plan.Palette[0].Id, 3, LotState.Waiting, "shed", new(2026, 11, 1), LotCondition.Good);
                await new LotStore(store).Save(lot, null);
                break;
            case "event":
                await new EventStore(store).Save(new SiteEvent($"event-{number}", $"Fair {number}", new(2027, 6, 1), new(2027, 6, 2)), null);
                break;
            case "recipe":
                Display of = plan.Displays.First(d => d.Layer == DisplayLayer.Seasonal);
                var recipe = new Recipe($"recipe-{number}", $"Recipe {number}", of.Layer, plan.FindPlanter(of.PlanterId)!.Form, of.Items);
                await new RecipeStore(store).Add(recipe);
                break;
            case "map":
                var lawn = new MapFeature
                {
                    Id = $"lawn-{number}",
                    Kind = MapKind.Lawn,
                    Points = [new(0, 0), new(5, 0), new(5, 5)],
                };
                await new MapStore(store).Put([lawn], [], [], now.Versions);
                break;
            case "site":
                await store.SaveSite(plan.Site with { OnePersonKg = 10 + (number % 30) }, now.Mark.Version);
                break;
            default:
                await store.Replace(Demo(), PlanFile.Write);
                break;
        }
    }

    private static async Task Edit(PlanStore store, Random random, int number)
    {
        LoadedPlan now = await store.Now();
        switch (random.Next(10))
        {
            case 0 when now.Plan.Lots.Count > 0:
                Lot lot = now.Plan.Lots[random.Next(now.Plan.Lots.Count)];
                await new LotStore(store).Remove(lot.Id, now.Versions.Lot(lot.Id));
                break;
            case 1:
                Display gone = now.Plan.Displays[random.Next(now.Plan.Displays.Count)];
                await new DisplayStore(store).Remove(gone.Id, now.Versions.Display(gone.Id));
                break;
            case 2 when now.Plan.Events.Count > 0:
                await new EventStore(store).Remove(now.Plan.Events[0].Id, now.Versions.Event(now.Plan.Events[0].Id));
                break;
            case 3 when now.Plan.Recipes.Count > 0:
                await new RecipeStore(store).Remove(now.Plan.Recipes[0].Id, now.Versions.Recipe(now.Plan.Recipes[0].Id));
                break;
            default:
                string[] kinds = ["planter", "plant", "display", "turn", "lot", "event", "recipe", "map", "site"];
                await Quietly(store, kinds[random.Next(kinds.Length)], number);
                break;
        }
    }

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
