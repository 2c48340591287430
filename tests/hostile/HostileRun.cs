using System.Diagnostics;
using System.Text.Json;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Hostile;

/// <summary>
/// Everything is sent to every door for a while: no answer is a 5xx or takes longer than five seconds, memory does not grow without
/// bound, and after whatever was accepted every page still loads. HOSTILE_MINUTES sets the time, HOSTILE_SEED the chance.
/// </summary>
public sealed class HostileRun(HostileApp app) : IClassFixture<HostileApp>
{
    private const int BetweenWalks = 150;
    private const int BetweenRestores = 900;
    private const long MostGrowthBytes = 300L << 20;

    [Fact]
    public async Task Nothing_that_is_sent_breaks_anything()
    {
        double minutes = Hostile.Attacker.Minutes ?? 0.6;
        int seed = int.TryParse(Environment.GetEnvironmentVariable("HOSTILE_SEED"), out int s) ? s : 20261128;
        var random = new Random(seed);
        Attacker attacker = app.Attacker();
        Attacker walker = app.Attacker();
        var since = new List<Operation>();
        var codes = new SortedDictionary<int, int>();
        await Walked(walker, since);
        long before = GC.GetTotalMemory(true);
        var clock = Stopwatch.StartNew();
        int sent = 0;
        foreach (Door door in app.Doors.Where(d => d.Method == "POST"))
            await Sent(await attacker.Bare(door, (await app.Plans.Now()).Plan, random));
        await app.Restore();
        while (clock.Elapsed.TotalMinutes < minutes)
        {
            Plan plan = (await app.Plans.Now()).Plan;
            Operation operation = await attacker.Through(app.Doors[random.Next(app.Doors.Count)], plan, random);
            Outcome outcome = await Sent(operation);
            // What was accepted often leads to a page with a yes to be given: it is given.
            if (outcome.Location is { } next && next.StartsWith('/') && random.Next(2) == 0)
            {
                Outcome page = await Sent(new Operation("GET", next));
                if (page.Code == 200 && await Attacker.Forms(next, page.Body) is { Count: > 0 } forms)
                    await Sent(forms[random.Next(forms.Count)]);
            }
            sent++;
            if (sent % BetweenWalks == 0)
                await Walked(walker, since);
            if (sent % BetweenRestores == 0)
                await app.Restore();
        }
        await Walked(walker, since);
        long grown = await Held(minutes >= 5) - before;
        Assert.True(grown < MostGrowthBytes, $"the app holds {grown >> 20} MB more than before");
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"seed {seed}: {sent} requests, {string.Join(", ", codes.Select(c => $"{c.Key}: {c.Value}"))}; {grown >> 20} MB more held"
        );

        async Task<Outcome> Sent(Operation operation)
        {
            if (operation.Method == "POST")
                since.Add(operation);
            Outcome outcome = await attacker.Send(operation);
            codes[outcome.Code] = codes.GetValueOrDefault(outcome.Code) + 1;
            Assert.False(
                Attacker.IsFailure(outcome),
                $"{outcome.Code} in {outcome.Took.TotalSeconds:0.0} s, seed {seed}, request {sent}: {operation}\n{Case(operation)}"
            );
            return outcome;
        }
    }

    // Nothing accepted may be set aside as it is loaded, nor make any page fail.
    private async Task Walked(Attacker walker, List<Operation> since)
    {
        LoadedPlan now = await app.Plans.Now();
        Assert.True(
            now.Aside.Count == 0,
            $"{string.Join('\n', now.Aside)} was accepted and does not fit. Since the last walk:\n{string.Join('\n', since)}"
        );
        IReadOnlyList<string> failed = await Walk.Failures(walker, app.Doors, now.Plan, 3);
        Assert.True(failed.Count == 0, $"{string.Join('\n', failed)}\nSince the last walk:\n{string.Join('\n', since)}");
        since.Clear();
    }

    // Buffers that the runtime's pools keep for the next request, the attacker's own among them, go back after a minute without any.
    private static async Task<long> Held(bool rests)
    {
        for (int i = 0; rests && i < 9; i++)
        {
            GC.Collect();
            await Task.Delay(TimeSpan.FromSeconds(10), TestContext.Current.CancellationToken);
        }
        return GC.GetTotalMemory(true);
    }

    // As it is kept among the cases.
    private static string Case(Operation operation) =>
        operation.File is { Length: > 4000 } ? string.Empty : JsonSerializer.Serialize(operation, StoredCases.Form);
}
