using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Planters;

/// <summary>In what a planter can differ from its group.</summary>
public enum LookDifference
{
    /// <summary>The wall's material.</summary>
    Wall,

    /// <summary>The wall's colour.</summary>
    Colour,

    /// <summary>The shape.</summary>
    Shape,
}

/// <summary>Planters that share a look: one pot colour, wall and shape across a group (house rule, common practice).</summary>
public static class LookGroup
{
    /// <summary>
    /// In what a planter differs from the most of its group, each of a <see cref="LookDifference"/>; empty when it has none or is like them.
    /// </summary>
    /// <param name="planter">The planter.</param>
    /// <param name="all">All planters of the site.</param>
    public static IReadOnlyList<Fact> Differences(Planter planter, IEnumerable<Planter> all)
    {
        if (planter.Survey.LookGroup.Length == 0)
            return [];
        var group = all.Where(p => !p.IsRetired && p.Survey.LookGroup.Equals(planter.Survey.LookGroup, StringComparison.OrdinalIgnoreCase)).ToList();
        if (group.Count < 2)
            return [];
        var found = new List<Fact>();
        Compare(p => p.Wall, (own, most) => new Fact(LookDifference.Wall, ("own", own), ("most", most)));
        Compare(p => p.WallColour, (own, most) => new Fact(LookDifference.Colour, ("own", new ColourCode(own)), ("most", new ColourCode(most))));
        Compare(p => p.Form.Shape, (_, _) => new Fact(LookDifference.Shape));
        return found;

        void Compare<T>(Func<Planter, T> of, Func<T, T, Fact> say)
            where T : notnull
        {
            T most = Most(group, of);
            if (!EqualityComparer<T>.Default.Equals(of(planter), most))
                found.Add(say(of(planter), most));
        }
    }

    private static T Most<T>(IEnumerable<Planter> group, Func<Planter, T> of)
        where T : notnull => group.GroupBy(of).OrderByDescending(g => g.Count()).First().Key;
}
