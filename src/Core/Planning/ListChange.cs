namespace UnrulyMeadow.Core.Planning;

/// <summary>
/// What a list holds otherwise than it did before. Parts of a plan never change, so that what is the same object is the same part; only the
/// stretch between the first and the last difference is looked at closely.
/// </summary>
/// <typeparam name="T">A part of a plan.</typeparam>
public sealed class ListChange<T>
    where T : class
{
    internal ListChange(IReadOnlyList<T> gone, IReadOnlyList<(T Part, int Index)> come)
    {
        Gone = gone;
        Come = come;
    }

    /// <summary>What stood in it before and stands in it no more.</summary>
    public IReadOnlyList<T> Gone { get; }

    /// <summary>What stands in it now and did not before, with its place.</summary>
    public IReadOnlyList<(T Part, int Index)> Come { get; }

    /// <summary>True when both hold the same, be it in another order.</summary>
    public bool IsNone => Gone.Count + Come.Count == 0;
}

/// <summary>Compares lists of a plan's parts.</summary>
public static class ListChange
{
    /// <summary>Compares two lists; a list that did not exist before has all its parts come.</summary>
    public static ListChange<T> Between<T>(IReadOnlyList<T>? before, IReadOnlyList<T> after)
        where T : class
    {
        if (ReferenceEquals(before, after))
            return new ListChange<T>([], []);
        before ??= [];
        int shorter = Math.Min(before.Count, after.Count);
        int same = 0;
        while (same < shorter && ReferenceEquals(before[same], after[same]))
            same++;
        int sameEnd = 0;
        while (sameEnd < shorter - same && ReferenceEquals(before[^(sameEnd + 1)], after[^(sameEnd + 1)]))
            sameEnd++;
        var were = new HashSet<object>(before.Skip(same).Take(before.Count - same - sameEnd), ReferenceEqualityComparer.Instance);
        var come = new List<(T, int)>();
        for (int i = same; i < after.Count - sameEnd; i++)
        {
            if (!were.Remove(after[i]))
                come.Add((after[i], i));
        }
        return new ListChange<T>([.. were.Cast<T>()], come);
    }
}
