using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Whatever changes the plan is noted with what it was, and can be taken back while nothing rests on it.</summary>
public sealed class ChangeTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private readonly PlanStore _plans = new(test.Database, PlanFile.Stored, () => "a test");

    private ChangeStore Changes => new(_plans);

    public async ValueTask InitializeAsync()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        await _plans.Replace(PlanFile.Read(file));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Twenty_edits_of_any_kind_taken_back_latest_first_leave_the_plan_as_it_was_at_each_step()
    {
        var random = new Random(5);
        var steps = new List<byte[]> { await Written() };
        for (int i = 0; i < 20; i++)
        {
            await Edit(random, i);
            steps.Add(await Written());
        }
        IReadOnlyList<MadeChange> made = await Changes.Latest(20);
        Assert.All(made, c => Assert.Equal("a test", c.MadeBy));
        for (int i = 0; i < 20; i++)
        {
            await Changes.Undo(made[i].Id);
            Assert.Equal(steps[19 - i], await Written());
        }
        // Each taking back is a change as well: taken back in turn, the edits are there again.
        foreach (MadeChange back in (await Changes.Latest(20)).Take(20).ToList())
            await Changes.Undo(back.Id);
        Assert.Equal(steps[^1], await Written());
    }

    [Fact]
    public async Task What_the_page_says_can_be_taken_back_can_and_what_it_says_cannot_is_refused_with_what_rests_on_it()
    {
        var random = new Random(8);
        for (int i = 0; i < 30; i++)
        {
            if (i % 3 == 2)
            {
                List<MadeChange> standing = [.. (await Changes.Latest(200)).Where(c => c.CanBeUndone)];
                await Changes.Undo(standing[random.Next(standing.Count)].Id);
            }
            else
                await Edit(random, 100 + i);
        }
        foreach (MadeChange change in await Changes.Latest(200))
        {
            if (change is { IsKept: true, UndoneBy: null, Newer: { } newer })
            {
                var e = await Assert.ThrowsAsync<InvalidInputException>(() => Changes.Undo(change.Id));
                Assert.Contains("changed again since", e.Message, StringComparison.Ordinal);
                Assert.NotEmpty(newer.What);
            }
        }
        MadeChange last = (await Changes.Latest(200)).First(c => c.CanBeUndone);
        await Changes.Undo(last.Id);
        await Assert.ThrowsAsync<InvalidInputException>(() => Changes.Undo(last.Id));
    }

    [Fact]
    public async Task A_change_is_named_by_what_it_touched_and_holds_it_before_and_after()
    {
        LoadedPlan now = await _plans.Now();
        Planter pot = now.Plan.FindPlanter("great-pot")!;
        await new PlanterStore(_plans).Save(pot with { Note = "by the door" }, now.Versions.Planter(pot.Id));
        MadeChange made = Assert.Single(await Changes.Latest(1));
        Assert.Equal($"planter {pot.Name} changed", made.What);
        Assert.Equal(["planters:great-pot"], made.Touches);
        (string key, string? before, string? after) = Assert.Single(await Changes.PartsOf(made.Id));
        Assert.Equal("planters:great-pot", key);
        Assert.DoesNotContain("by the door", before!, StringComparison.Ordinal);
        Assert.Contains("by the door", after!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_plan_brought_in_is_listed_and_comes_back_where_replaced_plans_are_kept()
    {
        await Edit(new Random(3), 900);
        await InitializeAsync();
        MadeChange brought = Assert.Single(await Changes.Latest(1));
        Assert.StartsWith("a plan brought in", brought.What, StringComparison.Ordinal);
        Assert.False(brought.CanBeUndone);
        var e = await Assert.ThrowsAsync<InvalidInputException>(() => Changes.Undo(brought.Id));
        Assert.Contains("comes back on the page Site", e.Message, StringComparison.Ordinal);
        Assert.Null(await Changes.Last());
    }

    [Fact]
    public async Task Saving_what_is_there_already_is_no_change_and_a_refused_one_is_none_either()
    {
        int before = await Changes.Count();
        LoadedPlan now = await _plans.Now();
        await Assert.ThrowsAsync<LostUpdateException>(() => new PlanterStore(_plans).Save(now.Plan.Planters[0] with { Note = "x" }, 1));
        await Assert.ThrowsAsync<InvalidInputException>(() => new PlanterStore(_plans).Save(now.Plan.Planters[0] with { Name = "" }, 1));
        Assert.Equal(before, await Changes.Count());
    }

    [Fact]
    public async Task Two_who_take_one_change_back_at_once_take_it_back_once()
    {
        await Edit(new Random(1), 500);
        Guid id = (await Changes.Latest(1))[0].Id;
        int done = 0;
        await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    Task.Run(async () =>
                    {
                        try
                        {
                            await new ChangeStore(new PlanStore(test.Database, PlanFile.Stored)).Undo(id);
                            Interlocked.Increment(ref done);
                        }
                        catch (InvalidInputException) { }
                    })
                )
        );
        Assert.Equal(1, done);
    }

    private async Task<byte[]> Written() => PlanFile.Write(await _plans.Load());

    // One edit that always fits: of a planter, a plant, a display's days, a lot, a turn, an event, a recipe or the settings; some add and some
    // remove.
    private async Task Edit(Random random, int number)
    {
        LoadedPlan now = await _plans.Now();
        Plan plan = now.Plan;
        switch (random.Next(8))
        {
            case 0:
                Planter pot = plan.Planters[random.Next(3)];
                await new PlanterStore(_plans).Save(pot with { Note = $"note {number}" }, now.Versions.Planter(pot.Id));
                break;
            case 1:
                var plant = plan.Palette[random.Next(3)];
                await new PaletteStore(_plans).Save(plant with { Source = $"source {number}" }, now.Versions.Plant(plant.Id));
                break;
            case 2:
                Display gone = plan.Displays[random.Next(plan.Displays.Count)];
                await new DisplayStore(_plans).Remove(gone.Id, now.Versions.Display(gone.Id));
                break;
            case 3:
                var lot = new Lot($"lot-{number}", plan.Palette[0].Id, 3, LotState.Waiting, "shed", new(2026, 11, 1), LotCondition.Good);
                await new LotStore(_plans).Save(lot, null);
                break;
            case 4 when plan.Lots.Count > 0:
                await new LotStore(_plans).Remove(plan.Lots[^1].Id, now.Versions.Lot(plan.Lots[^1].Id));
                break;
            case 5:
                Turn turn = plan.Turns[random.Next(2)];
                await new DisplayStore(_plans).SaveTurn(turn with { People = 1 + (number % 7) }, now.Versions.Turn(turn.Id));
                break;
            case 6:
                await _plans.SaveSite(plan.Site with { OnePersonKg = 10 + (number % 40) + random.NextDouble() }, now.Mark.Version);
                break;
            default:
                await new EventStore(_plans).Save(new SiteEvent($"event-{number}", $"Fair {number}", new(2027, 6, 1), new(2027, 6, 2)), null);
                break;
        }
    }
}
