namespace UnrulyMeadow.Core;

/// <summary>Work on the parts of a list, several at a time.</summary>
public static class SideBySide
{
    /// <summary>
    /// What each part of a list gives, in the list's order, on the threads that the caller runs on, as many at a time as there are processors. A
    /// query marked parallel would take the threads on which requests are answered.
    /// </summary>
    /// <param name="parts">The parts.</param>
    /// <param name="compute">Computes what one gives; safe for several threads.</param>
    /// <exception cref="AggregateException">Some could not be computed.</exception>
    public static TResult[] Each<T, TResult>(IReadOnlyList<T> parts, Func<T, TResult> compute)
    {
        var found = new TResult[parts.Count];
        Parallel.For(
            0,
            parts.Count,
            new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount, TaskScheduler = TaskScheduler.Current },
            i => found[i] = compute(parts[i])
        );
        return found;
    }
}
