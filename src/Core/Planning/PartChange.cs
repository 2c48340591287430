namespace UnrulyMeadow.Core.Planning;

/// <summary>One part of a plan that a change made other than it was.</summary>
/// <param name="List">The list that it stands in, as a plan file names it, e.g. "displays"; "site" for the settings.</param>
/// <param name="Id">Its id; empty for the settings.</param>
/// <param name="Before">What it was; null where it was not there.</param>
/// <param name="After">What it is; null where it is no more.</param>
public sealed record PartChange(string List, string Id, object? Before, object? After)
{
    /// <summary>Names the part among all parts of a plan.</summary>
    public string Key => $"{List}:{Id}";

    /// <summary>All parts that differ between two moments; a change of order alone is none.</summary>
    public static IReadOnlyList<PartChange> Between(PlanParts before, PlanParts after) =>
        [
            .. before.Site == after.Site ? Array.Empty<PartChange>() : [new PartChange("site", string.Empty, before.Site, after.Site)],
            .. Of("areas", before.Areas, after.Areas, a => a.Id),
            .. Of("palette", before.Palette, after.Palette, p => p.Id),
            .. Of("planters", before.Planters, after.Planters, p => p.Id),
            .. Of("displays", before.Displays, after.Displays, d => d.Id),
            .. Of("turns", before.Turns, after.Turns, t => t.Id),
            .. Of("map", before.Map, after.Map, f => f.Id),
            .. Of("lots", before.Lots, after.Lots, l => l.Id),
            .. Of("recipes", before.Recipes, after.Recipes, r => r.Id),
            .. Of("events", before.Events, after.Events, e => e.Id),
        ];

    private static IEnumerable<PartChange> Of<T>(string list, IReadOnlyList<T> before, IReadOnlyList<T> after, Func<T, string> id)
        where T : class
    {
        ListChange<T> change = ListChange.Between(before, after);
        var come = change.Come.ToDictionary(c => id(c.Part), c => c.Part, StringComparer.Ordinal);
        foreach (T gone in change.Gone)
            yield return new PartChange(list, id(gone), gone, come.GetValueOrDefault(id(gone)));
        HashSet<string> were = [.. change.Gone.Select(id)];
        foreach ((T part, _) in change.Come.Where(c => !were.Contains(id(c.Part))))
            yield return new PartChange(list, id(part), null, part);
    }
}
