using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Hangfire;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>How questions and results of long work are written.</summary>
public static class JobJson
{
    /// <summary>As plan files are, but what is null may be left out and nothing is indented.</summary>
    public static JsonSerializerOptions Options { get; } =
        new(PlanFile.Stored) { RespectRequiredConstructorParameters = false, WriteIndented = false };
}

/// <summary>How far the answer to a question is.</summary>
/// <param name="Job">The work; null where nobody has asked.</param>
/// <param name="Result">What came of it, or a first result; null while there is none.</param>
/// <param name="IsOfNow">True when it was asked of the plan and weather as they are.</param>
public sealed record Answer<TResult>(Job? Job, TResult? Result, bool IsOfNow)
    where TResult : class;

/// <summary>
/// A question that names by itself all that its answer rests on: the answer stands when something else changes in the plan or the weather.
/// </summary>
public interface INamesItsInputs;

/// <summary>
/// Where pages ask for long work, look how far it is, and take what was proposed: a page asks by a form, shows what is known, and makes the
/// change when it is accepted.
/// </summary>
/// <param name="jobs">Jobs.</param>
/// <param name="client">Hands work to whichever process is free.</param>
/// <param name="visitor">Who asks, in whose units the answer is worded.</param>
public sealed class JobDesk(JobStore jobs, IBackgroundJobClient client, Visitor visitor)
{
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(60);

    /// <summary>True where nobody has asked yet, or nothing came of it.</summary>
    public static bool IsOpen(Job? job) => job is null or { State: JobState.Failed or JobState.Cancelled };

    // The answer's words stand in these.
    private SiteUnits? Units => visitor.Person?.Units;

    // What is done quickly is there when the page comes back.
    private static readonly TimeSpan Wait = TimeSpan.FromMilliseconds(900);

    // What another version of the computation answered is not taken for this one's answer.
    private static readonly string Version = string.Join(
        ' ',
        new[] { typeof(Core.Working), typeof(Solver.GapClosing), typeof(JobDesk) }.Select(t => t.Module.ModuleVersionId)
    );

    /// <summary>
    /// Asks for work. What was asked before of the same plan and weather is not done again. Waits a little, so that what is
    /// done quickly is there at once.
    /// </summary>
    /// <param name="kind">What is to be done.</param>
    /// <param name="question">The question.</param>
    /// <param name="now">The plan and weather that it is asked of.</param>
    /// <param name="by">Who asks; each person waits for one answer of a kind at a time.</param>
    /// <exception cref="Core.InvalidInputException">Too much work waits already.</exception>
    public async Task<Job> Ask<T>(string kind, T question, SiteNow now, string by)
    {
        string text = JsonSerializer.Serialize(question, JobJson.Options);
        (Job job, bool isNew) = await jobs.Ask(kind, Inputs(kind, question, now, Units), text, by, Units);
        // One that waits already may have lost its caller with the process that asked; waking a worker once more does no harm.
        if (isNew || job.State == JobState.Waiting)
            client.Enqueue<JobRunner>(r => r.Run(null, CancellationToken.None));
        for (DateTime until = DateTime.UtcNow + Wait; !job.IsOver && DateTime.UtcNow < until; )
        {
            await Task.Delay(Between);
            job = await jobs.Find(job.Id) ?? job;
        }
        return job;
    }

    /// <summary>How far the answer to a question is.</summary>
    /// <param name="kind">What is to be done.</param>
    /// <param name="question">The question.</param>
    /// <param name="now">The plan and weather that it is asked of.</param>
    /// <param name="asked">
    /// The job that was asked; it stays on its page when somebody edits the plan meanwhile, for what no longer fits is refused when it is accepted.
    /// </param>
    public async Task<Answer<TResult>> Look<TAsk, TResult>(string kind, TAsk question, SiteNow now, Guid? asked)
        where TResult : class
    {
        Job? present = await jobs.Find(kind, Inputs(kind, question, now, Units));
        Job? job = await Find(kind, asked) is { } own && Asks(own, question) ? own : present;
        return new Answer<TResult>(job, job is null ? null : Result<TResult>(job), job?.Id == present?.Id);
    }

    /// <summary>The job of an id, where it is of a kind.</summary>
    public async Task<Job?> Find(string kind, Guid? job) => job is { } id && await jobs.Find(id) is { } found && found.Kind == kind ? found : null;

    private static bool Asks<T>(Job job, T question) =>
        JsonNode.DeepEquals(JsonNode.Parse(job.Question), JsonSerializer.SerializeToNode(question, JobJson.Options));

    /// <summary>What was proposed and is now accepted.</summary>
    /// <exception cref="Core.InvalidInputException">It is no longer kept.</exception>
    public async Task<(Job Job, TResult Result)> Proposed<TResult>(string kind, Guid? job)
        where TResult : class =>
        await Find(kind, job) is { } done && Result<TResult>(done) is { } result
            ? (done, result)
            : throw new Core.InvalidInputException(string.Empty, "What was proposed is no longer kept: ask again");

    /// <summary>True where a job was asked of the plan and weather as they are, in the units of whoever asks now.</summary>
    public bool IsOfNow<T>(Job job, T question, SiteNow now) => Inputs(job.Kind, question, now, Units) == job.Inputs;

    /// <summary>A hash of all that the answer to a question rests on.</summary>
    public static string Inputs<T>(string kind, T question, SiteNow now, SiteUnits? units) =>
        Convert.ToHexString(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    $"{Version}\n{kind}\n{JsonSerializer.Serialize(question, JobJson.Options)}\n{(question is INamesItsInputs ? null : now.Inputs.Value)} {units ?? now.Plan.Site.Units}"
                )
            )
        );

    /// <summary>What a job was asked.</summary>
    public static T Question<T>(Job job) => JsonSerializer.Deserialize<T>(job.Question, JobJson.Options)!;

    /// <summary>A job's result; null while there is none.</summary>
    public T? Result<T>(Job job)
        where T : class => job.Result is null ? null : JsonSerializer.Deserialize<T>(job.Result, JobJson.Options);
}
