using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Hangfire;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>How questions and results of long work are written.</summary>
public static class JobJson
{
    /// <summary>As plan files are, but what is null may be left out and nothing is indented.</summary>
    public static JsonSerializerOptions Options { get; } =
        new(PlanFile.Stored) { RespectRequiredConstructorParameters = false, WriteIndented = false };
}

/// <summary>Where pages ask for long work and look how far it is.</summary>
/// <param name="jobs">Jobs.</param>
/// <param name="client">Hands work to whichever process is free.</param>
public sealed class JobDesk(JobStore jobs, IBackgroundJobClient client)
{
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(60);

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
        (string text, string inputs) = Of(kind, question, now);
        (Job job, bool isNew) = await jobs.Ask(kind, inputs, text, by);
        // One that waits already may have lost its caller with the process that asked; waking a worker once more does no harm.
        if (isNew || job.State == JobState.Waiting)
            client.Enqueue<JobRunner>(r => r.Run(null, CancellationToken.None));
        for (DateTime until = DateTime.UtcNow + Wait; !job.IsOver && DateTime.UtcNow < until; )
        {
            await Task.Delay(Look);
            job = await jobs.Find(job.Id) ?? job;
        }
        return job;
    }

    /// <summary>The work that answers a question, done or under way; null where nobody has asked it of this plan and weather.</summary>
    public Task<Job?> Find<T>(string kind, T question, SiteNow now) => jobs.Find(kind, Of(kind, question, now).Inputs);

    private static (string Text, string Inputs) Of<T>(string kind, T question, SiteNow now)
    {
        string text = JsonSerializer.Serialize(question, JobJson.Options);
        return (text, Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes($"{Version}\n{kind}\n{text}\n{now.Inputs.Value}"))));
    }

    /// <summary>A job's result; null while there is none.</summary>
    public T? Result<T>(Job job)
        where T : class => job.Result is null ? null : JsonSerializer.Deserialize<T>(job.Result, JobJson.Options);
}
