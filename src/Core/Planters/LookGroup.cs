using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Planters;

/// <summary>Planters that share a look: one pot colour, wall and shape across a group (house rule, common practice).</summary>
public static class LookGroup
{
    /// <summary>In what a planter differs from the most of its group; empty when it has none or is like them.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="all">All planters of the site.</param>
    public static IReadOnlyList<string> Differences(Planter planter, IEnumerable<Planter> all)
    {
        if (planter.Survey.LookGroup.Length == 0)
            return [];
        var group = all.Where(p => !p.IsRetired && p.Survey.LookGroup.Equals(planter.Survey.LookGroup, StringComparison.OrdinalIgnoreCase)).ToList();
        if (group.Count < 2)
            return [];
        var found = new List<string>();
        Compare(p => p.Wall, w => $"its wall is {Word(w)}, the group's {Word(Most(group, p => p.Wall))}");
        Compare(p => p.WallColour, c => $"its colour is {c}, the group's {Most(group, p => p.WallColour)}");
        Compare(p => p.Form.Shape, _ => "its shape is another");
        return found;

        void Compare<T>(Func<Planter, T> of, Func<T, string> say)
            where T : notnull
        {
            if (!EqualityComparer<T>.Default.Equals(of(planter), Most(group, of)))
                found.Add(say(of(planter)));
        }
    }

    private static string Word(WallMaterial wall) => wall.ToString().ToLowerInvariant();

    private static T Most<T>(IEnumerable<Planter> group, Func<Planter, T> of)
        where T : notnull => group.GroupBy(of).OrderByDescending(g => g.Count()).First().Key;
}
