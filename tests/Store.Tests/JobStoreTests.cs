using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Long work, and changes made together, in the real database.</summary>
public sealed class JobStoreTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private readonly JobStore _jobs = new(database.Database);
    private readonly WaitingWork _waiting = new(database.Whole);

    [Fact]
    public async Task The_same_question_is_one_job_until_it_failed_or_was_called_off()
    {
        (Job first, bool isNew) = await _jobs.Ask("close-gaps", "A1", "{}");
        Assert.True(isNew);
        Assert.Equal((first.Id, false), ((await _jobs.Ask("close-gaps", "A1", "{}")).Job.Id, (await _jobs.Ask("close-gaps", "A1", "{}")).IsNew));
        Assert.True(await _jobs.Cancel(first.Id));
        (Job second, bool anew) = await _jobs.Ask("close-gaps", "A1", "{}");
        Assert.True(anew);
        Assert.NotEqual(first.Id, second.Id);
    }

    [Fact]
    public async Task Two_who_ask_at_once_get_one_job_and_one_of_them_hands_it_on()
    {
        var asked = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => Task.Run(() => _jobs.Ask("turn-window", "B1", "{}"))));
        Assert.Single(asked.Select(a => a.Job.Id).Distinct());
        Assert.Single(asked, a => a.IsNew);
    }

    [Fact]
    public async Task A_job_that_was_called_off_hears_it_at_its_next_step_and_leaves_no_result()
    {
        Job job = (await _jobs.Ask("rehearse", "C1", "{}")).Job;
        Assert.Equal(JobState.Running, (await _jobs.Take(job.Id))!.State);
        Assert.True(await _jobs.Progress(job.Id, 2, 9, "looking", "{\"first\":1}"));
        Assert.True(await _jobs.Cancel(job.Id));
        Assert.False(await _jobs.Progress(job.Id, 3, 9, "looking"));
        await _jobs.Finish(job.Id, "{\"last\":1}");
        Job over = (await _jobs.Find(job.Id))!;
        Assert.Equal((JobState.Cancelled, 2), (over.State, over.Done));
        Assert.DoesNotContain("last", over.Result!, StringComparison.Ordinal);
        Assert.Null(await _jobs.Take(job.Id));
    }

    [Fact]
    public async Task Work_that_a_process_left_behind_is_taken_up_again_from_its_beginning()
    {
        Job job = (await _jobs.Ask("rehearse", "D1", "{\"kind\":1}")).Job;
        await _jobs.Take(job.Id);
        await _jobs.Progress(job.Id, 5, 9, "looking");
        Job again = (await _jobs.Take(job.Id))!;
        Assert.Equal((JobState.Running, 0), (again.State, again.Done));
        await _jobs.Finish(job.Id, "{\"done\":true}");
        Assert.Equal(JobState.Done, (await _jobs.Find(job.Id))!.State);
        Assert.DoesNotContain(await _jobs.Open(), j => j.Id == job.Id);
    }

    [Fact]
    public async Task One_who_asks_a_hundred_things_waits_for_the_last_and_another_is_served_next()
    {
        foreach (Job open in await _jobs.Open())
            await _jobs.Cancel(open.Id);
        for (int i = 0; i < 100; i++)
            await _jobs.Ask("close-gaps", $"E{i}", "{}", "greedy");
        Assert.Equal("E99", Assert.Single(await _jobs.Open()).Inputs);
        await _jobs.Ask("turn-window", "E-turn", "{}", "greedy");
        await _jobs.Ask("rehearse", "E-rehearse", "{}", "greedy");
        Job begun = (await _waiting.TakeNext())!.Value.Job;
        await _jobs.Ask("close-gaps", "E-mine", "{}", "patient");
        Assert.Equal("E-mine", (await _waiting.TakeNext())!.Value.Job.Inputs);
        Assert.Equal("E-turn", (await _waiting.TakeNext())!.Value.Job.Inputs);
        Assert.Equal("E-rehearse", (await _waiting.TakeNext())!.Value.Job.Inputs);
        Assert.Null(await _waiting.TakeNext());
        Assert.Equal("E99", begun.Inputs);
        foreach (Job open in await _jobs.Open())
            await _jobs.Cancel(open.Id);
    }
}

/// <summary>Several displays changed at one click.</summary>
public sealed class ChangeStoreTests(TestDatabase database) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private static readonly JsonSerializerOptions Json = PlanFile.Options;
    private readonly PlanStore _plans = new(database.Database, Json);
    private readonly ChangeStore _changes = new(new PlanStore(database.Database, Json));
    private Plan _demo = null!;

    public async ValueTask InitializeAsync()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        await _plans.Replace(PlanFile.Read(file));
        _demo = await _plans.Load();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Displays_that_change_places_in_time_are_written_together_and_taken_back_together()
    {
        Display winter = Find("kiosk-basket-fall");
        Display spring = Find("kiosk-basket-spring");
        // The one now reaches into days that the other gives up.
        var change = new PlanChange(
            [winter, spring],
            [winter with { Lift = new LocalDate(2027, 4, 10) }, spring with { Install = new LocalDate(2027, 4, 10) }],
            [],
            new Dictionary<string, int> { ["forced-daffodils"] = 12 }
        );
        Guid id = await _changes.Make(change, "later spring");
        Plan after = await _plans.Load();
        Assert.Equal(new LocalDate(2027, 4, 10), after.Displays.First(d => d.Id == winter.Id).Lift);
        Assert.Equal(48, after.Lots.First(l => l.Id == "forced-daffodils").Count);
        Assert.Equal("later spring", (await _changes.Last())!.What);
        await _changes.Undo(id);
        Assert.Equal(PlanFile.Write(_demo), PlanFile.Write(await _plans.Load()));
        await Assert.ThrowsAsync<InvalidInputException>(() => _changes.Undo(id));
    }

    [Fact]
    public async Task A_change_that_does_not_fit_is_refused_whole()
    {
        Display winter = Find("kiosk-basket-fall");
        Display added = winter with { Id = "kiosk-new", Install = new LocalDate(2026, 12, 1), Lift = new LocalDate(2027, 2, 1) };
        await Assert.ThrowsAsync<InvalidInputException>(() =>
            _changes.Make(new PlanChange([], [], [added], new Dictionary<string, int>()), "overlaps")
        );
        await Assert.ThrowsAsync<InvalidInputException>(() =>
            _changes.Make(
                new PlanChange(
                    [winter],
                    [winter with { Lift = winter.Lift.PlusDays(3) }],
                    [],
                    new Dictionary<string, int> { ["forced-daffodils"] = 999 }
                ),
                "too many"
            )
        );
        Assert.Equal(PlanFile.Write(_demo), PlanFile.Write(await _plans.Load()));
    }

    [Fact]
    public async Task What_someone_has_changed_since_is_neither_overwritten_nor_taken_back()
    {
        Display fall = Find("flag-pot-fall");
        var displays = new DisplayStore(new PlanStore(database.Database, Json));
        await displays.Save(fall with { Lift = fall.Lift.PlusDays(-1) }, (await _plans.Now()).Versions.Display(fall.Id));
        await Assert.ThrowsAsync<LostUpdateException>(() =>
            _changes.Make(new PlanChange([fall], [fall with { Lift = fall.Lift.PlusDays(-5) }], [], new Dictionary<string, int>()), "stale")
        );
        Display now = (await _plans.Load()).Displays.First(d => d.Id == fall.Id);
        Guid id = await _changes.Make(
            new PlanChange([now], [now with { Lift = now.Lift.PlusDays(-5) }], [], new Dictionary<string, int>()),
            "earlier"
        );
        await displays.Save(fall, (await _plans.Now()).Versions.Display(fall.Id));
        await Assert.ThrowsAsync<InvalidInputException>(() => _changes.Undo(id));
    }

    [Fact]
    public async Task Cuts_fates_days_of_their_own_and_forced_bulbs_come_back_as_they_were_saved()
    {
        Display fall = Find("great-pot-fall");
        Display full = fall with
        {
            Items = [fall.Items[0] with { Since = fall.Install.PlusDays(-100), Fate = PlantFate.SeedSaved }],
            Cuts = [new CutBack(fall.Items[0].PlantId, fall.Install.PlusDays(30), 12) { Share = 0.5 }],
        };
        await _changes.Make(new PlanChange([fall], [full], [], new Dictionary<string, int>()), "details");
        Display read = (await _plans.Load()).Displays.First(d => d.Id == fall.Id);
        Assert.Equal((full.Items[0].Since, full.Items[0].Fate, full.Cuts[0]), (read.Items[0].Since, read.Items[0].Fate, read.Cuts[0]));
    }

    [Fact]
    public async Task Kept_plans_come_back_whole_and_a_name_is_used_once()
    {
        var variants = new VariantStore(database.Database, PlanFile.Write, PlanFile.Read);
        await variants.Keep("as it was", _demo);
        PlanVariant kept = Assert.Single(await variants.All());
        Assert.Equal(PlanFile.Write(_demo), PlanFile.Write((await variants.Load(kept.Id))!.Value.Plan));
        await Assert.ThrowsAsync<InvalidInputException>(() => variants.Keep("as it was", _demo));
        await variants.Drop(kept.Id);
        Assert.Null(await variants.Load(kept.Id));
    }

    private Display Find(string id) => _demo.Displays.First(d => d.Id == id);
}
