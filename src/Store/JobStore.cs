using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>How far a job is.</summary>
public enum JobState
{
    /// <summary>Nobody has taken it yet.</summary>
    Waiting,

    /// <summary>Being worked on.</summary>
    Running,

    /// <summary>Done; its result is there.</summary>
    Done,

    /// <summary>Given up; it says why.</summary>
    Failed,

    /// <summary>Called off.</summary>
    Cancelled,
}

/// <summary>A piece of long work.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What is done.</param>
/// <param name="Inputs">A hash of all that the result rests on.</param>
/// <param name="Question">What was asked, JSON.</param>
/// <param name="State">How far it is.</param>
/// <param name="Done">Steps done.</param>
/// <param name="Total">Steps in all; 0 while not known.</param>
/// <param name="Said">What it is at, or why it failed.</param>
/// <param name="Result">The result, JSON; a first one may be there before it is done.</param>
/// <param name="Units">Units in which it is worded; null for those of the site.</param>
public sealed record Job(
    Guid Id,
    string Kind,
    string Inputs,
    string Question,
    JobState State,
    int Done,
    int Total,
    string Said,
    string? Result,
    SiteUnits? Units = null
)
{
    /// <summary>True when nothing more will happen.</summary>
    public bool IsOver => State is JobState.Done or JobState.Failed or JobState.Cancelled;
}

/// <summary>Long work: what was asked, how far it is, and what came out.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class JobStore(SiteDatabase database)
{
    internal const string Columns = "id, kind, inputs, question::text, state, done, total, said, result::text, units";

    // Results older than this are dropped when something new is asked; they can be computed again.
    private const string KeptFor = "14 days";

    // A crew's whole day of questions; more is a loop somewhere.
    private const int MostWaiting = 60;

    /// <summary>
    /// Asks for work; the same question about the same inputs is the same job. What the same person asked before of this kind and
    /// nobody has begun yet is called off: one waits for one answer at a time.
    /// </summary>
    /// <param name="kind">What is to be done.</param>
    /// <param name="inputs">A hash of all that the result rests on.</param>
    /// <param name="question">The question, JSON.</param>
    /// <param name="by">Who asks; empty when nobody knows.</param>
    /// <param name="units">Units in which it is worded; null for those of the site.</param>
    /// <returns>The job, and whether it is new and a worker must be told.</returns>
    /// <exception cref="Core.InvalidInputException">Too much work waits already.</exception>
    public async Task<(Job Job, bool IsNew)> Ask(string kind, string inputs, string question, string by = "", SiteUnits? units = null)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync($"delete from job where ended_at < now() - interval '{KeptFor}'");
        for (int tries = 0; ; tries++)
        {
            if (await Known(connection, kind, inputs) is { } known)
                return (known, false);
            await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
            // Two who ask at once are counted one after the other.
            await connection.ExecuteAsync("select pg_advisory_xact_lock(hashtext('meadow.job'))", transaction: transaction);
            await connection.ExecuteAsync(
                "update job set state = 'Cancelled', ended_at = now() where kind = @kind and asked_by = @by and state = 'Waiting' and inputs <> @inputs",
                new
                {
                    kind,
                    by,
                    inputs,
                },
                transaction
            );
            if (
                await connection.ExecuteScalarAsync<int>("select count(*)::int from job where state = 'Waiting'", transaction: transaction)
                >= MostWaiting
            )
                throw new Core.InvalidInputException(string.Empty, $"{MostWaiting} pieces of work wait already: ask again in a few minutes");
            var id = Guid.NewGuid();
            int added = await connection.ExecuteAsync(
                """
                insert into job (id, kind, inputs, question, asked_by, units)
                values (@id, @kind, @inputs, @question::jsonb, @by, @units)
                on conflict (site_id, kind, inputs) where state in ('Waiting', 'Running', 'Done') do nothing
                """,
                new
                {
                    id,
                    kind,
                    inputs,
                    question,
                    by,
                    units = units?.ToString(),
                },
                transaction
            );
            await transaction.CommitAsync();
            if (await Known(connection, kind, inputs) is { } job)
                return (job, added == 1 && job.Id == id);
            if (tries > 3)
                throw new InvalidOperationException("The work could not be asked for.");
        }
    }

    /// <summary>
    /// The job that answers a question, or is to answer it; the last one that failed or was called off where there is none; null when nobody asked.
    /// </summary>
    public async Task<Job?> Find(string kind, string inputs)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QuerySingleOrDefaultAsync<JobRow>(
                (
                    $"select {Columns} from job where kind = @kind and inputs = @inputs order "
                    + "by state in ('Waiting', 'Running', 'Done') desc, asked_at desc limit 1"
                ),
                new { kind, inputs }
            )
        )?.ToJob();
    }

    /// <summary>A job, or null.</summary>
    public async Task<Job?> Find(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (await connection.QuerySingleOrDefaultAsync<JobRow>($"select {Columns} from job where id = @id", new { id }))?.ToJob();
    }

    /// <summary>Jobs that nobody has finished, oldest first.</summary>
    public async Task<IReadOnlyList<Job>> Open()
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (await connection.QueryAsync<JobRow>($"select {Columns} from job where state in ('Waiting', 'Running') order by asked_at")).Select(r =>
                r.ToJob()
            ),
        ];
    }

    /// <summary>Takes a job up again that its worker dropped a moment ago.</summary>
    /// <returns>The job; null when it is over or gone.</returns>
    public async Task<Job?> Take(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QuerySingleOrDefaultAsync<JobRow>(
                (
                    "update job set state = 'Running', heard_at = now(), done = 0, said = '' "
                    + $"where id = @id and state in ('Waiting', 'Running') returning {Columns}"
                ),
                new { id }
            )
        )?.ToJob();
    }

    /// <summary>Lets a job wait again, for the worker that comes next.</summary>
    public async Task GiveBack(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("update job set state = 'Waiting' where id = @id and state = 'Running'", new { id });
    }

    /// <summary>Says how far a job is.</summary>
    /// <param name="id">The job.</param>
    /// <param name="done">Steps done.</param>
    /// <param name="total">Steps in all.</param>
    /// <param name="said">What it is at.</param>
    /// <param name="result">A first result; null to leave what is there.</param>
    /// <returns>False when it was called off, and work should stop.</returns>
    public async Task<bool> Progress(Guid id, int done, int total, string said, string? result = null)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync(
                (
                    "update job set heard_at = now(), done = @done, total = @total, said = @said, "
                    + "result = coalesce(@result::jsonb, result) where id = @id and state = 'Running'"
                ),
                new
                {
                    id,
                    done,
                    total,
                    said,
                    result,
                }
            ) == 1;
    }

    /// <summary>Puts down a result.</summary>
    public async Task Finish(Guid id, string result)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            (
                "update job set state = 'Done', result = @result::jsonb, ended_at = now(), "
                + "done = greatest(done, total), said = '' where id = @id and state = 'Running'"
            ),
            new { id, result }
        );
    }

    /// <summary>Gives a job up.</summary>
    public async Task Fail(Guid id, string why)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "update job set state = 'Failed', said = @why, ended_at = now() where id = @id and state in ('Waiting', 'Running')",
            new { id, why }
        );
    }

    /// <summary>Calls a job off; a worker stops at its next step.</summary>
    /// <returns>False when it was over already.</returns>
    public async Task<bool> Cancel(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync(
                "update job set state = 'Cancelled', ended_at = now() where id = @id and state in ('Waiting', 'Running')",
                new { id }
            ) == 1;
    }

    private static async Task<Job?> Known(NpgsqlConnection connection, string kind, string inputs) =>
        (
            await connection.QuerySingleOrDefaultAsync<JobRow>(
                $"select {Columns} from job where kind = @kind and inputs = @inputs and state in ('Waiting', 'Running', 'Done')",
                new { kind, inputs }
            )
        )?.ToJob();
}

/// <summary>Work of every site that waits for a worker.</summary>
/// <param name="database">The database.</param>
public sealed class WaitingWork(MeadowDatabase database)
{
    // A worker says how far it is four times a second.
    private const string Silent = "20 seconds";

    /// <summary>
    /// Takes the next job to work on: one whose worker fell silent first, then whoever was served longest ago, and of theirs the
    /// oldest.
    /// </summary>
    /// <returns>The job and its site; null when none waits.</returns>
    public async Task<(Guid Site, Job Job)?> TakeNext()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        IEnumerable<(Guid, Job)> taken = await connection.QueryAsync<Guid, JobRow, (Guid, Job)>(
            $"""
            update job
            set state = 'Running', started_at = now(), heard_at = now(), done = 0, said = ''
            where (site_id, id) = (
              select j.site_id, j.id
              from job j
              where j.state = 'Waiting' or (j.state = 'Running' and coalesce(j.heard_at, j.started_at) < now() - interval '{Silent}')
              order by j.state = 'Running' desc,
                       (select max(k.started_at) from job k where k.asked_by = j.asked_by) nulls first,
                       j.asked_at
              for update skip locked
              limit 1)
            returning site_id, {JobStore.Columns}
            """,
            (site, row) => (site, row.ToJob())
        );
        return taken.Cast<(Guid, Job)?>().SingleOrDefault();
    }

    /// <summary>True while a job is held by a worker from whom nothing was heard for some seconds.</summary>
    public async Task<bool> IsAnySilent()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        return await connection.ExecuteScalarAsync<bool>(
            "select exists (select from job where state = 'Running' and coalesce(heard_at, started_at) < now() - interval '4 seconds')"
        );
    }
}

/// <summary>A job as its table holds it.</summary>
internal sealed record JobRow(
    Guid Id,
    string Kind,
    string Inputs,
    string Question,
    string State,
    int Done,
    int Total,
    string Said,
    string? Result,
    string? Units
)
{
    public Job ToJob() =>
        new(Id, Kind, Inputs, Question, Enum.Parse<JobState>(State), Done, Total, Said, Result, Units is null ? null : Enum.Parse<SiteUnits>(Units));
}
