using System.Globalization;
using System.Text;
using Npgsql;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Safekeeping;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Endurance;

/// <summary>
/// Three people with phones and two planners work on two sites while web processes, the worker and PostgreSQL are killed at random
/// moments; afterwards a backup is restored elsewhere. ENDURE_MINUTES sets for how long; ENDURE_SEED asks the same again.
/// </summary>
public sealed class KillTests
{
    private const int KillsInSuite = 3;

    // So much is written between two kills, so that each comes under load.
    private const int WrittenBetween = 6;

    // Five minutes of tenths of a second: other tests may take nearly all of the machine.
    private const int MostWaits = 3000;

    private static readonly DateTimeOffset Now = new(2026, 11, 23, 12, 0, 0, TimeSpan.Zero);

    private static double? Minutes =>
        double.TryParse(Environment.GetEnvironmentVariable("ENDURE_MINUTES"), CultureInfo.InvariantCulture, out double m) ? m : null;

    private static int Seed => int.TryParse(Environment.GetEnvironmentVariable("ENDURE_SEED"), CultureInfo.InvariantCulture, out int s) ? s : 1107;

    [Fact]
    public async Task Nothing_that_was_acknowledged_is_lost_or_doubled_nobody_sees_what_is_not_theirs_and_the_backup_is_equal()
    {
        await using Cluster cluster = await Cluster.Make();
        MeadowApp site = MeadowApp.On(cluster.ConnectionString);
        await site.InitializeAsync(withServer: false);
        SiteDatabase one = site.Database;
        SiteDatabase other = await SecondSite(site);
        int kills = 0;
        int acknowledged;
        using (Fleet fleet = await Fleet.Start(site.Whole.ConnectionString))
        {
            using Colleague desmond = new(fleet, "Desmond Ferrant", "kittiwake-quay", "sorrel-park", 1);
            using Colleague pilar = new(fleet, "Pilar Ruvane", "kittiwake-quay", "sorrel-park", 2);
            using Colleague jory = new(fleet, "Jory Tamsel", "kittiwake-quay", "sorrel-park", 3);
            using Colleague ivo = new(fleet, "Ivo Stannard", "sorrel-park", "kittiwake-quay", 4);
            using Colleague elin = new(fleet, "Elin Rook", "sorrel-park", "kittiwake-quay", 5);
            Colleague[] all = [desmond, pilar, jory, ivo, elin];
            using var over = new CancellationTokenSource();
            Task[] work =
            [
                desmond.Plan("flag-pot", over.Token),
                ivo.Plan("flag-pot", over.Token),
                pilar.Log("great-pot", over.Token),
                jory.Log("kiosk-basket", over.Token),
                elin.Log("great-pot", over.Token),
            ];
            var random = new Random(Seed);
            long until = Environment.TickCount64 + (long)((Minutes ?? 0) * 60_000);
            while (Minutes is null ? kills < KillsInSuite : Environment.TickCount64 < until)
            {
                await Written(all);
                await Task.Delay(random.Next(400));
                // The first ones of each kind, then whichever comes.
                Task killing = (kills < 3 ? kills : random.Next(3)) switch
                {
                    0 => fleet.KillWeb(kills),
                    1 => KillDatabase(cluster),
                    _ => fleet.KillWorker(),
                };
                await killing;
                kills++;
            }
            await Written(all);
            await over.CancelAsync();
            await Task.WhenAll(work);
            // The test's own connections were cut with all others.
            site.Whole.Source.Clear();
            NpgsqlConnection.ClearAllPools();
            Assert.Empty(all.SelectMany(c => c.Wrong));
            await Look(one, [pilar, jory], desmond);
            await Look(other, [elin], ivo);
            acknowledged = all.Sum(c => c.Acknowledged);
        }
        await RestoreElsewhere(cluster, site.Whole);
        TestContext.Current.TestOutputHelper?.WriteLine($"{kills} kills (seed {Seed}): {acknowledged} writes acknowledged, none lost, none twice");
        await site.DisposeAsync();
    }

    private static async Task KillDatabase(Cluster cluster)
    {
        await cluster.Kill();
        await cluster.Start();
    }

    private static async Task<SiteDatabase> SecondSite(MeadowApp site)
    {
        SiteDatabase other = site.Whole.At((await site.Whole.AddSite("Sorrel Park", "sorrel-park")).Id);
        using var people = new MemoryStream(
            Encoding.UTF8.GetBytes(
                """[{ "name": "Gwen Ottery", "role": "Owner" }, { "name": "Ivo Stannard", "role": "Planner" }, { "name": "Elin Rook", "role": "Crew" }]"""
            )
        );
        await TappingPeople.Bring(new PeopleStore(site.Whole), other.Site, people);
        await using FileStream file = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
        await new PlanStore(other, PlanFile.Stored).Replace(PlanFile.Read(file));
        return other;
    }

    private static async Task Written(Colleague[] all)
    {
        int[] before = [.. all.Select(c => c.Acknowledged)];
        for (
            int waited = 0;
            all.Sum(c => c.Acknowledged) < before.Sum() + WrittenBetween || all.Where((c, i) => c.Acknowledged == before[i]).Any();
            waited++
        )
        {
            Assert.True(
                waited < MostWaits,
                $"without {string.Join("; ", all.Where((c, i) => c.Acknowledged == before[i]).Select(c => $"{c.Name}, at last: {c.Answered}"))}"
            );
            await Task.Delay(100);
        }
    }

    private static async Task Look(SiteDatabase at, Colleague[] crew, Colleague planner)
    {
        var stored = new List<Observation>();
        await foreach (Observation seen in new LogStore(at).All())
            stored.Add(seen);
        Assert.Empty(crew.SelectMany(c => c.Logged).Except(stored.Select(o => o.Id)));
        Assert.Equal(stored.Count, stored.Select(o => o.Id).Distinct().Count());
        LoadedPlan now = await new PlanStore(at, PlanFile.Stored).Now();
        Assert.Empty(now.Aside);
        // The last note that was acknowledged, or one that was on its way when a process was killed.
        Assert.Contains(now.Plan.FindPlanter("flag-pot")!.Note, planner.Notes);
        List<string> events = [.. now.Plan.Events.Select(e => e.Name).Where(n => n.StartsWith("Fair", StringComparison.Ordinal))];
        Assert.Equal(events.Count, events.Distinct(StringComparer.Ordinal).Count());
        Assert.Empty(planner.Events.Except(events));
        Assert.Empty(events.Except(planner.Events).Except(planner.Unsure));
    }

    private static async Task RestoreElsewhere(Cluster cluster, MeadowDatabase whole)
    {
        string folder = Directory.CreateTempSubdirectory("meadow-endurance-backup-").FullName;
        await new Backup(whole, Cluster.Programs).Write(folder, null, Now);
        await using var empty = new Store.Tests.TestDatabase { Server = cluster.ConnectionString, Migrated = false };
        await empty.InitializeAsync();
        await new Backup(empty.Whole, Cluster.Programs).Restore(folder, null);
        foreach (SiteEntry site in await whole.Sites())
            Assert.Equal(await MeadowApp.Everything(whole.At(site.Id)), await MeadowApp.Everything(empty.Whole.At(site.Id)));
        Directory.Delete(folder, recursive: true);
    }
}
