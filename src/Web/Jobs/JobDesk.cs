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
    public static JsonSerializerOptions Options { get; } = new(PlanFile.Options) { RespectRequiredConstructorParameters = false, WriteIndented = false };
}

/// <summary>Where pages ask for long work and look how far it is.</summary>
/// <param name="jobs">Jobs.</param>
/// <param name="client">Hands work to whichever process is free.</param>
public sealed class JobDesk(JobStore jobs, IBackgroundJobClient client)
{
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(60);

    // What another version of the computation answered is not taken for this one's answer.
    private static readonly string Version = string.Join(' ', new[] { typeof(Core.Working), typeof(Solver.GapClosing), typeof(JobDesk) }.Select(t => t.Module.ModuleVersionId));

    /// <summary>
    /// Asks for work. What was asked before of the same plan and weather is not done again. Waits a little, so that what is
    /// done quickly is there at once.
    /// </summary>
    /// <param name="kind">What is to be done.</param>
    /// <param name="question">The question.</param>
    /// <param name="now">The plan and weather that it is asked of.</param>
    /// <param name="wait">Longest to wait.</param>
    public async Task<Job> Ask<T>(string kind, T question, SiteNow now, TimeSpan wait)
    {
        string text = JsonSerializer.Serialize(question, JobJson.Options);
        string inputs = Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes($"{Version}\n{kind}\n{text}\n{now.Inputs.Value}")));
        (Job job, bool isNew) = await jobs.Ask(kind, inputs, text);
        if (isNew)
            client.Enqueue<JobRunner>(r => r.Run(job.Id, null, CancellationToken.None));
        for (DateTime until = DateTime.UtcNow + wait; !job.IsOver && DateTime.UtcNow < until;)
        {
            await Task.Delay(Look);
            job = await jobs.Find(job.Id) ?? job;
        }
        return job;
    }

    /// <summary>A job's result; null while there is none.</summary>
    public T? Result<T>(Job job)
        where T : class => job.Result is null ? null : JsonSerializer.Deserialize<T>(job.Result, JobJson.Options);
}
