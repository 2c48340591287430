using System.Collections.Concurrent;
using System.Runtime.InteropServices;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>
/// Threads of a lower priority, which give way to pages; threads that a solver starts on them inherit it. What is awaited on them, and
/// loops that name <see cref="TaskScheduler.Current"/>, stay on them. Whoever would block one for what is awaited uses <see cref="Read{T}"/>.
/// </summary>
public abstract class BackgroundThreads : TaskScheduler, IDisposable
{
    private const int OfThread = 0;

    private readonly BlockingCollection<Task> _tasks = [];
    private readonly HashSet<Thread> _threads;
    private readonly int _niceness;

    /// <summary>Starts the threads.</summary>
    /// <param name="name">What they are called.</param>
    /// <param name="threads">How many they are.</param>
    /// <param name="niceness">Between the usual priority, 0, and the lowest, 19.</param>
    protected BackgroundThreads(string name, int threads, int niceness)
    {
        MaximumConcurrencyLevel = threads;
        _niceness = niceness;
        _threads = [.. Enumerable.Range(1, threads).Select(i => new Thread(Work) { IsBackground = true, Name = $"{name} {i}" })];
        foreach (Thread thread in _threads)
            thread.Start();
    }

    /// <inheritdoc />
    public override int MaximumConcurrencyLevel { get; }

    /// <summary>Runs work on these threads.</summary>
    /// <param name="work">The work.</param>
    public Task<T> Run<T>(Func<Task<T>> work) =>
        Task.Factory.StartNew(work, CancellationToken.None, TaskCreationOptions.DenyChildAttach, this).Unwrap();

    /// <summary>Runs work on these threads.</summary>
    /// <param name="work">The work.</param>
    public Task<T> Run<T>(Func<T> work) => Task.Factory.StartNew(work, CancellationToken.None, TaskCreationOptions.DenyChildAttach, this);

    /// <summary>
    /// What a database answers, waited for. The asking goes on elsewhere: where all these threads waited, nobody could take its answer.
    /// </summary>
    /// <param name="ask">Asks it.</param>
    public static T Read<T>(Func<Task<T>> ask) => Task.Run(ask).GetAwaiter().GetResult();

    /// <inheritdoc />
    public void Dispose()
    {
        _tasks.CompleteAdding();
        GC.SuppressFinalize(this);
    }

    /// <inheritdoc />
    protected override void QueueTask(Task task) => _tasks.Add(task);

    /// <inheritdoc />
    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) =>
        _threads.Contains(Thread.CurrentThread) && TryExecuteTask(task);

    /// <inheritdoc />
    protected override IEnumerable<Task> GetScheduledTasks() => [.. _tasks];

    private void Work()
    {
        // The runtime's own priorities do nothing on Linux. Where this is refused the work is done as any other.
        if (OperatingSystem.IsLinux())
            _ = SetPriority(OfThread, 0, _niceness);
        foreach (Task task in _tasks.GetConsumingEnumerable())
            TryExecuteTask(task);
    }

#pragma warning disable SYSLIB1054 // Three whole numbers need no marshalling, and the project no unsafe code.
    [DllImport("libc", EntryPoint = "setpriority")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int SetPriority(int which, uint who, int priority);
#pragma warning restore SYSLIB1054
}

/// <summary>Threads for long work: one for each processor. Beside a page that computes, one gets about a quarter of a processor.</summary>
public sealed class JobThreads() : BackgroundThreads("job", Environment.ProcessorCount, niceness: 5);

/// <summary>
/// Threads for what pages wait for beside their requests: two for each processor, since one may wait for what another computes. However
/// many sites are looked at for the first time at once, requests and what is saved go on before them.
/// </summary>
public sealed class ReckoningThreads() : BackgroundThreads("reckoning", 2 * Environment.ProcessorCount, niceness: 1);
