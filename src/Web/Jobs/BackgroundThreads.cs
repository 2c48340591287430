using System.Collections.Concurrent;
using System.Runtime.InteropServices;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>
/// Threads for long work that give way to pages: as many as there are processors, each of a lower priority, which threads that a solver
/// starts on them inherit. What is awaited, and loops run side by side, stay on them.
/// </summary>
public sealed class BackgroundThreads : TaskScheduler, IDisposable
{
    // Between the usual priority, 0, and the lowest, 19: beside a page that computes, a thread so marked gets about a tenth of a processor.
    private const int Niceness = 10;
    private const int OfThread = 0;

    private readonly BlockingCollection<Task> _tasks = [];

    /// <summary>Starts the threads.</summary>
    public BackgroundThreads()
    {
        for (int i = 0; i < MaximumConcurrencyLevel; i++)
            new Thread(Work) { IsBackground = true, Name = $"background {i + 1}" }.Start();
    }

    /// <inheritdoc />
    public override int MaximumConcurrencyLevel => Environment.ProcessorCount;

    /// <summary>Runs work on these threads.</summary>
    /// <param name="work">The work.</param>
    public Task<T> Run<T>(Func<Task<T>> work) =>
        Task.Factory.StartNew(work, CancellationToken.None, TaskCreationOptions.DenyChildAttach, this).Unwrap();

    /// <inheritdoc />
    public void Dispose() => _tasks.CompleteAdding();

    /// <inheritdoc />
    protected override void QueueTask(Task task) => _tasks.Add(task);

    /// <inheritdoc />
    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) =>
        Thread.CurrentThread.Name?.StartsWith("background", StringComparison.Ordinal) == true && TryExecuteTask(task);

    /// <inheritdoc />
    protected override IEnumerable<Task> GetScheduledTasks() => [.. _tasks];

    private void Work()
    {
        // The runtime's own priorities do nothing on Linux. Where this is refused the work is done as any other.
        if (OperatingSystem.IsLinux())
            _ = SetPriority(OfThread, 0, Niceness);
        foreach (Task task in _tasks.GetConsumingEnumerable())
            TryExecuteTask(task);
    }

#pragma warning disable SYSLIB1054 // Three whole numbers need no marshalling, and the project no unsafe code.
    [DllImport("libc", EntryPoint = "setpriority")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int SetPriority(int which, uint who, int priority);
#pragma warning restore SYSLIB1054
}
