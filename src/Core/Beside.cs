namespace UnrulyMeadow.Core;

/// <summary>
/// Long reckoning beside the pages: no more at once than there are cores. However many sites ask, threads are left for pages and for what the
/// database answers.
/// </summary>
public static class Beside
{
    private static readonly TaskScheduler Few = new ConcurrentExclusiveSchedulerPair(
        TaskScheduler.Default,
        Math.Max(2, Environment.ProcessorCount)
    ).ConcurrentScheduler;

    /// <summary>Does some work in its turn. It must not wait for other work that is done beside.</summary>
    /// <param name="work">The work.</param>
    public static Task<T> Run<T>(Func<T> work) => Task.Factory.StartNew(work, CancellationToken.None, TaskCreationOptions.HideScheduler, Few);
}
