namespace UnrulyMeadow.Web.Site;

/// <summary>What was ticked in a long list.</summary>
public static class Ticked
{
    /// <summary>Both ways in which it is sent: a field for each tick, or all in one, parted by blanks.</summary>
    /// <param name="each">A field for each.</param>
    /// <param name="list">All in one; null when it was not sent.</param>
    public static string[] Of(IEnumerable<string> each, string? list) =>
        [.. each.Concat((list ?? string.Empty).Split(' ', StringSplitOptions.RemoveEmptyEntries)).Distinct(StringComparer.Ordinal)];
}
