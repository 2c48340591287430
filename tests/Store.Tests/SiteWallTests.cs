using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>The wall between sites, as the database itself holds it.</summary>
public sealed class SiteWallTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private SiteDatabase _one = null!;
    private SiteDatabase _other = null!;

    public async ValueTask InitializeAsync()
    {
        _one = test.Database;
        _other = test.Whole.At((await test.Whole.AddSite("Sorrel Park", "sorrel-park")).Id);
        await using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        Plan demo = PlanFile.Read(file);
        foreach (SiteDatabase site in new[] { _one, _other })
        {
            await new PlanStore(site, PlanFile.Stored).Replace(demo, PlanFile.Write);
            await new LogStore(site).Record([
                new Observation(Guid.NewGuid(), "flag-pot", null, new LocalDate(2026, 11, 1), ObservationKind.Note, "x", "B"),
            ]);
            await new JobStore(site).Ask("kind", $"{Guid.NewGuid()}", "{}");
        }
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Two_sites_hold_the_same_names_and_neither_feels_the_others_changes()
    {
        var one = new PlanStore(_one, PlanFile.Stored);
        var other = new PlanStore(_other, PlanFile.Stored);
        byte[] before = PlanFile.Write(await other.Load());
        PlanMark mark = await other.Mark();
        LoadedPlan now = await one.Now();
        await new PlanterStore(one).Save(now.Plan.FindPlanter("flag-pot")! with { Note = "at one site" }, now.Versions.Planter("flag-pot"));
        Assert.Equal("at one site", (await one.Load()).FindPlanter("flag-pot")!.Note);
        Assert.Equal(before, PlanFile.Write(await other.Load()));
        Assert.Equal(mark, await other.Mark());
    }

    [Fact]
    public async Task Every_table_with_a_site_shows_a_connection_its_own_rows_and_nobody_elses()
    {
        string[] tables = await Tables();
        Assert.True(tables.Length > 20, string.Join(' ', tables));
        foreach (string table in tables)
        {
            string key = table == "site" ? "id" : "site_id";
            Assert.Equal(0L, await Count(_one, $"select count(*) from {table} where {key} <> '{_one.Site}'"));
            Assert.Equal(0L, await Count(_other, $"select count(*) from {table} where {key} = '{_one.Site}'"));
        }
        Assert.True(await Count(_other, "select count(*) from planter") == 24 && await Count(_one, "select count(*) from planter") == 24);
    }

    [Fact]
    public async Task A_connection_that_was_opened_for_no_site_sees_no_row_of_any()
    {
        await using NpgsqlConnection none = await test.Whole.Open();
        foreach (string table in await Tables())
            Assert.Equal(0L, await none.ExecuteScalarAsync<long>($"select count(*) from {table}"));
    }

    [Fact]
    public async Task Whoever_looks_over_all_sites_sees_which_there_are_and_what_work_waits_and_no_row_of_a_plan()
    {
        await using NpgsqlConnection all = await test.Whole.OpenOverAll();
        string[] seen = ["site", "job", "membership", "palette_following"];
        foreach (string table in (await Tables()).Except(seen))
            Assert.Equal(0L, await all.ExecuteScalarAsync<long>($"select count(*) from {table}"));
        Assert.True(await all.ExecuteScalarAsync<long>("select count(distinct site_id) from job") >= 2);
    }

    [Theory]
    [InlineData("insert into area (site_id, id, ordinal, name, frost_pocket_c) values ('{0}', 'smuggled', 1, 'Smuggled', 0)")]
    [InlineData("update planter set site_id = '{0}' where id = 'flag-pot'")]
    [InlineData("insert into display (site_id, id, planter_id, layer, during) values ('{0}', 'x', 'flag-pot', 'Bulbs', '[2030-01-01,2030-02-01)')")]
    public async Task Nothing_is_written_into_another_site(string sql)
    {
        await using NpgsqlConnection connection = await _one.Open();
        PostgresException e = await Assert.ThrowsAsync<PostgresException>(() =>
            connection.ExecuteAsync(string.Format(System.Globalization.CultureInfo.InvariantCulture, sql, _other.Site))
        );
        Assert.Equal("42501", e.SqlState);
    }

    [Theory]
    [InlineData("update planter set note = 'theirs' where site_id = '{0}'")]
    [InlineData("delete from upload_draft where site_id = '{0}'")]
    [InlineData("delete from job where site_id = '{0}'")]
    public async Task What_reaches_for_another_sites_rows_finds_none(string sql)
    {
        await using NpgsqlConnection connection = await _one.Open();
        Assert.Equal(0, await connection.ExecuteAsync(string.Format(System.Globalization.CultureInfo.InvariantCulture, sql, _other.Site)));
    }

    [Fact]
    public async Task A_connection_given_back_carries_its_site_to_nobody()
    {
        for (int i = 0; i < 40; i++)
        {
            await using (NpgsqlConnection used = await (i % 2 == 0 ? _one : _other).Open())
                Assert.Equal(24L, await used.ExecuteScalarAsync<long>("select count(*) from planter"));
            await using NpgsqlConnection next = await test.Whole.Source.OpenConnectionAsync(TestContext.Current.CancellationToken);
            Assert.Equal(string.Empty, await next.ExecuteScalarAsync<string>("select coalesce(current_setting('meadow.site', true), '')"));
        }
    }

    [Fact]
    public async Task Work_of_every_site_is_taken_by_one_worker_and_named_with_its_site()
    {
        var waiting = new WaitingWork(test.Whole);
        var taken = new HashSet<Guid>();
        while (await waiting.TakeNext() is { } work)
        {
            taken.Add(work.Site);
            Assert.NotNull(await new JobStore(test.Whole.At(work.Site)).Find(work.Job.Id));
            Assert.Null(await new JobStore(test.Whole.At(work.Site == _one.Site ? _other.Site : _one.Site)).Find(work.Job.Id));
            await new JobStore(test.Whole.At(work.Site)).Finish(work.Job.Id, "{}");
        }
        Assert.True(taken.Count >= 2);
    }

    private async Task<string[]> Tables()
    {
        await using NpgsqlConnection connection = await test.Whole.Source.OpenConnectionAsync();
        return
        [
            .. await connection.QueryAsync<string>(
                """
                select distinct c.table_name
                from information_schema.columns c
                where c.table_schema = 'public' and c.column_name = 'site_id' and c.table_name not in ('pass', 'session')
                union
                select 'site'
                order by 1
                """
            ),
        ];
    }

    private static async Task<long> Count(SiteDatabase site, string sql)
    {
        await using NpgsqlConnection connection = await site.Open();
        return await connection.ExecuteScalarAsync<long>(sql);
    }
}
