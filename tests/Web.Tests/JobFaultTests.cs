using System.Diagnostics;
using System.Net;
using System.Text.Json;
using AngleSharp.Dom;
using Npgsql;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Store.Tests;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Long work when processes are killed, share it, or lose the database: real processes on a real database.</summary>
public sealed class JobFaultTests : IAsyncLifetime
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(3);

    private readonly MeadowApp _site = new();
    private readonly List<AppProcess> _started = [];
    private JobStore _jobs = null!;

    public async ValueTask InitializeAsync()
    {
        await _site.InitializeAsync(withServer: false);
        _jobs = new JobStore(_site.Database);
        // Planters enough that the work takes a while.
        var plans = new PlanStore(_site.Database, PlanFile.Stored);
        Plan demo = await plans.Load();
        List<(Core.Planters.Planter Planter, int Copy)> copies =
        [
            .. Enumerable.Range(0, 2).SelectMany(c => demo.Planters.Select(p => (p with { Id = $"{p.Id}-{c}", Name = $"{p.Name} {c}" }, c))),
        ];
        await plans.Replace(
            new Plan(
                demo.Site,
                demo.Areas,
                [.. copies.Select(c => c.Planter)],
                demo.Palette,
                [
                    .. Enumerable
                        .Range(0, 2)
                        .SelectMany(c => demo.Displays.Select(d => d with { Id = $"{d.Id}-{c}", PlanterId = $"{d.PlanterId}-{c}" })),
                ],
                demo.Turns
            )
        );
    }

    public async ValueTask DisposeAsync()
    {
        foreach (AppProcess process in _started)
            process.Dispose();
        await _site.DisposeAsync();
    }

    [Fact]
    public async Task Work_of_a_process_that_is_killed_is_taken_up_by_another_and_done()
    {
        AppProcess first = await Start();
        Guid job = await Ask(first.Browser, "/year/close?asked=true");
        await Until(async () => (await _jobs.Find(job))!.State == JobState.Running);
        await first.Kill();
        Assert.False((await _jobs.Find(job))!.IsOver, "it was done before the process was killed: give it more to do");
        await Start();
        await Until(async () => (await _jobs.Find(job))!.State == JobState.Done);
        Assert.NotNull((await _jobs.Find(job))!.Result);
    }

    [Fact]
    public async Task A_worker_without_pages_does_what_an_app_without_a_worker_was_asked()
    {
        AppProcess pages = await Start(works: false);
        Guid job = await Ask(pages.Browser, "/year/ahead?years=3&tulips=LiftEachYear");
        await Task.Delay(TimeSpan.FromSeconds(2));
        Assert.Equal(JobState.Waiting, (await _jobs.Find(job))!.State);
        using Process worker = AppProcess.Errand(_site.Whole.ConnectionString, "work");
        try
        {
            await Until(async () => (await _jobs.Find(job))!.State == JobState.Done);
        }
        finally
        {
            worker.Kill();
            await worker.WaitForExitAsync();
        }
    }

    [Fact]
    public async Task What_was_written_down_before_a_worker_was_woken_is_done_and_what_was_asked_of_another_plan_says_so()
    {
        LoadedPlan loaded = await new PlanStore(_site.Database, PlanFile.Stored).Now();
        var now = new SiteNow(loaded, await new WeatherStore(_site.Database).Load(loaded.Mark.StationId!));
        var question = new TurnAsk(loaded.Plan.Turns[^1].Id);
        string text = JsonSerializer.Serialize(question, JobJson.Options);
        string inputs = JobDesk.Inputs(JobKinds.TurnWindow, question, now, null);
        (Job written, _) = await _jobs.Ask(JobKinds.TurnWindow, inputs, text, "one");
        (Job ofAnother, _) = await _jobs.Ask(JobKinds.TurnWindow, "as of a plan before", text, "other");
        await Start();
        await Until(async () => (await _jobs.Find(written.Id))!.IsOver && (await _jobs.Find(ofAnother.Id))!.IsOver);
        Assert.Equal(JobState.Done, (await _jobs.Find(written.Id))!.State);
        Job refused = (await _jobs.Find(ofAnother.Id))!;
        Assert.Equal(JobState.Failed, refused.State);
        Assert.Contains("has changed since this was asked: ask again", refused.Said, StringComparison.Ordinal);
        Assert.Null(refused.Result);
    }

    [Fact]
    public async Task Two_processes_share_the_work_and_the_same_question_to_both_is_one_job()
    {
        HttpClient one = (await Start()).Browser;
        HttpClient other = (await Start()).Browser;
        string[] questions =
        [
            .. new[] { 3, 5 }.SelectMany(y => new[] { "LiftEachYear", "LeaveAndReplace" }.Select(t => $"/year/ahead?years={y}&tulips={t}")),
        ];
        // Everybody waits for one answer of a kind at a time, so each question is somebody's own.
        string names = string.Join(',', questions.Select((_, i) => $$"""{ "name": "Planner {{i}}", "role": "Planner" }"""));
        using var people = new MemoryStream(System.Text.Encoding.UTF8.GetBytes($"[{names}]"));
        await TappingPeople.Bring(new PeopleStore(_site.Whole), _site.Database.Site, people);
        async Task<Guid> Asks(HttpClient at, int i)
        {
            using var somebody = new HttpClient { BaseAddress = at.BaseAddress };
            await somebody.TapIn($"Planner {i}");
            return await Ask(somebody, questions[i]);
        }
        Guid[] asked = await Task.WhenAll(questions.SelectMany((_, i) => new[] { Asks(one, i), Asks(other, i) }));
        Assert.Equal(questions.Length, asked.Distinct().Count());
        await Until(async () => (await _jobs.Open()).Count == 0);
        foreach (Guid job in asked)
            Assert.Equal(JobState.Done, (await _jobs.Find(job))!.State);
        Assert.Equal(2L, await Sql("select count(distinct data->>'ServerId') from hangfire.state where name = 'Processing'"));
    }

    [Fact]
    public async Task Work_goes_on_when_every_connection_to_the_database_is_cut()
    {
        HttpClient browser = (await Start()).Browser;
        Guid job = await Ask(browser, "/year/close?asked=true&stock=true");
        await Until(async () => (await _jobs.Find(job))!.State != JobState.Waiting);
        for (int i = 0; i < 4; i++)
        {
            await Cut();
            await Task.Delay(300);
        }
        await Until(async () => (await _jobs.Find(job))!.State == JobState.Done);
        // A page may meet one connection that was cut; the next finds none.
        using HttpResponseMessage first = await browser.GetAsync(new Uri("/year", UriKind.Relative));
        using HttpResponseMessage page = await browser.GetAsync(new Uri("/year", UriKind.Relative));
        Assert.Equal(HttpStatusCode.OK, page.StatusCode);
    }

    // What a restart of PostgreSQL does to the app: all that it was talking over is gone.
    private async Task Cut()
    {
        await Sql("select count(pg_terminate_backend(pid)) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()");
        NpgsqlConnection.ClearAllPools();
    }

    private async Task<object?> Sql(string query)
    {
        await using var connection = new NpgsqlConnection(_site.Whole.ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(query, connection);
        return await command.ExecuteScalarAsync();
    }

    private static async Task<Guid> Ask(HttpClient browser, string path)
    {
        using HttpResponseMessage asked = await browser.Ask(path);
        IDocument page = await Pages.Parse(asked);
        string? id = page.QuerySelector("[data-job]")?.GetAttribute("data-job")
            ?? page.QuerySelector("input[name=job]")?.GetAttribute("value")
            ?? page.QuerySelector("[data-job-done]")?.GetAttribute("data-job-done");
        Assert.True(id is not null, $"{path} names no job");
        return Guid.Parse(id);
    }

    private static async Task Until(Func<Task<bool>> holds)
    {
        for (Stopwatch watch = Stopwatch.StartNew(); ; await Task.Delay(100))
        {
            try
            {
                if (await holds())
                    return;
            }
            catch (NpgsqlException)
            {
                // Cut off with the rest; the next look has a connection of its own.
            }
            Assert.True(watch.Elapsed < Longest, "it does not come to that");
        }
    }

    private async Task<AppProcess> Start(bool works = true)
    {
        AppProcess process = await AppProcess.Start(_site.Whole.ConnectionString, works);
        _started.Add(process);
        return process;
    }
}
