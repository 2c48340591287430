using Microsoft.Extensions.Configuration;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Store.Tests;
using UnrulyMeadow.Web.Safekeeping;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Backups come back whole, of today and of older versions, or say why they do not.</summary>
public sealed class SafekeepingTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const string PostgreSql = "/usr/lib/postgresql/15/bin";

    private static readonly DateTimeOffset Now = new(2026, 11, 23, 12, 0, 0, TimeSpan.Zero);

    [Fact]
    public async Task A_backup_written_while_people_work_is_restored_elsewhere_with_the_same_bytes_of_every_site()
    {
        SiteEntry other = await app.Whole.AddSite("Sorrel Park", "sorrel-park");
        using DirectoryInfoScope folder = new();
        using var over = new CancellationTokenSource();
        Task working = Working(over.Token);
        string own = await new Backup(app.Whole, PostgreSql).Write(folder.Path, null, Now, TestContext.Current.CancellationToken);
        await over.CancelAsync();
        await working;
        await using var empty = new TestDatabase { Migrated = false };
        await empty.InitializeAsync();
        await new Backup(empty.Whole, PostgreSql).Restore(folder.Path, null, TestContext.Current.CancellationToken);
        Assert.Equal((await app.Whole.Sites()).Select(s => s.Id), (await empty.Whole.Sites()).Select(s => s.Id));
        Assert.Contains(await empty.Whole.Sites(), s => s == other);
        // Once nobody works any more, what is written out of both places is the same.
        string second = await new Backup(app.Whole, PostgreSql).Write(folder.Path, null, Now.AddMinutes(1), TestContext.Current.CancellationToken);
        Assert.NotEqual(own, second);
        await using var again = new TestDatabase { Migrated = false };
        await again.InitializeAsync();
        await new Backup(again.Whole, PostgreSql).Restore(folder.Path, null, TestContext.Current.CancellationToken);
        foreach (SiteEntry site in await app.Whole.Sites())
            Assert.Equal(await MeadowApp.Everything(app.Whole.At(site.Id)), await MeadowApp.Everything(again.Whole.At(site.Id)));
        Assert.NotEmpty(await new PeopleStore(again.Whole).Of(app.Database.Site));
    }

    [Fact]
    public async Task With_a_key_nobody_reads_it_without_and_a_wrong_key_or_a_changed_byte_is_refused()
    {
        using DirectoryInfoScope folder = new();
        string key = Path.Combine(folder.Path, "key");
        string wrong = Path.Combine(folder.Path, "wrong");
        await File.WriteAllTextAsync(key, "a long key of nobody's\n", TestContext.Current.CancellationToken);
        await File.WriteAllTextAsync(wrong, "another key\n", TestContext.Current.CancellationToken);
        string backups = Path.Combine(folder.Path, "backups");
        string own = await new Backup(app.Whole, PostgreSql).Write(backups, key, Now, TestContext.Current.CancellationToken);
        string file = Assert.Single(Directory.GetFiles(own, "database*"));
        Assert.DoesNotContain("Kittiwake", await File.ReadAllTextAsync(file, TestContext.Current.CancellationToken), StringComparison.Ordinal);
        await using var empty = new TestDatabase { Migrated = false };
        await empty.InitializeAsync();
        var there = new Backup(empty.Whole, PostgreSql);
        await Assert.ThrowsAsync<InvalidInputException>(() => there.Restore(backups, null));
        await Assert.ThrowsAsync<InvalidInputException>(() => there.Restore(backups, wrong));
        await there.Restore(backups, key, TestContext.Current.CancellationToken);
        InvalidInputException taken = await Assert.ThrowsAsync<InvalidInputException>(() => there.Restore(backups, key));
        Assert.Contains("empty database", taken.Message, StringComparison.Ordinal);
        byte[] bytes = await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken);
        bytes[bytes.Length / 2] ^= 1;
        await File.WriteAllBytesAsync(file, bytes, TestContext.Current.CancellationToken);
        InvalidInputException damaged = await Assert.ThrowsAsync<InvalidInputException>(() => there.Restore(backups, key));
        Assert.Contains("damaged", damaged.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_backup_of_the_version_before_people_and_sites_restores_and_is_brought_up_to_date()
    {
        await using var empty = new TestDatabase { Migrated = false };
        await empty.InitializeAsync();
        string folder = Path.Combine(AppContext.BaseDirectory, "data", "backup-of-migration-16");
        BackupManifest manifest = await new Backup(empty.Whole, PostgreSql).Restore(folder, null, TestContext.Current.CancellationToken);
        Assert.Equal(16, manifest.Migrations);
        SiteEntry site = Assert.Single(await empty.Whole.Sites());
        Assert.Equal("kittiwake-quay", site.Slug);
        LoadedPlan plan = await new PlanStore(empty.Whole.At(site.Id), PlanFile.Stored).Now();
        Assert.Equal((24, 0), (plan.Plan.Planters.Count, plan.Aside.Count));
        Assert.NotEmpty(await new LogStore(empty.Whole.At(site.Id)).Latest(null, 5));
        Assert.False(await new PeopleStore(empty.Whole).HasOwner());
    }

    [Theory]
    [InlineData("http://127.0.0.1:5180", false, null, true)]
    [InlineData("http://localhost:5180;http://[::1]:5180", false, null, true)]
    [InlineData("http://0.0.0.0:80", true, null, false)]
    [InlineData("http://*:80", true, null, false)]
    [InlineData("http://meadow.example:80", true, null, false)]
    [InlineData("https://0.0.0.0:443", false, null, false)]
    [InlineData("https://0.0.0.0:443", true, null, true)]
    [InlineData("http://10.0.0.7:8080", true, "10.0.0.2", true)]
    [InlineData("http://10.0.0.7:8080", false, "10.0.0.2", false)]
    public void Other_machines_are_served_only_where_somebody_owns_it_and_nobody_listens_in(string urls, bool owned, string? proxies, bool served)
    {
        IConfiguration settings = new ConfigurationBuilder().AddInMemoryCollection([new("urls", urls), new("MEADOW_PROXIES", proxies)]).Build();
        Assert.Equal(served, Listening.Refusal(settings, owned) is null);
    }

    [Fact]
    public void Only_so_many_backups_are_kept_and_one_that_is_not_whole_counts_for_none()
    {
        using DirectoryInfoScope folder = new();
        for (int i = 1; i <= 5; i++)
        {
            string own = Directory.CreateDirectory(Path.Combine(folder.Path, $"meadow-2026112{i}T030000Z")).FullName;
            File.WriteAllText(Path.Combine(own, "manifest.json"), "{}");
        }
        Directory.CreateDirectory(Path.Combine(folder.Path, "meadow-20261129T030000Z.part"));
        Assert.Equal(new DateTimeOffset(2026, 11, 25, 3, 0, 0, TimeSpan.Zero), Backup.LatestAt(folder.Path));
        Assert.Equal(3, Backup.Prune(folder.Path, 2));
        Assert.Equal(3, Directory.GetDirectories(folder.Path).Length);
    }

    // Somebody who writes the log all the while.
    private Task Working(CancellationToken over) =>
        Task.Run(
            async () =>
            {
                var log = new LogStore(app.Database);
                while (!over.IsCancellationRequested)
                    await log.Record([
                        new Core.Review.Observation(
                            Guid.NewGuid(),
                            "flag-pot",
                            null,
                            new LocalDate(2026, 11, 1),
                            Core.Review.ObservationKind.Note,
                            "x",
                            "B"
                        ),
                    ]);
            },
            CancellationToken.None
        );

    private sealed class DirectoryInfoScope : IDisposable
    {
        public string Path { get; } = Directory.CreateTempSubdirectory("meadow-backup-").FullName;

        public void Dispose() => Directory.Delete(Path, recursive: true);
    }
}
