using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Web.Site;

/// <summary>Planters to be ticked in a form, by area.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Chosen">Those that are ticked, in the order of the plan.</param>
public sealed record PlanterChoice(Plan Plan, IReadOnlyList<Planter> Chosen)
{
    /// <summary>What was ticked, sent as fields or as one list, and whole areas.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="ids">Ids as fields.</param>
    /// <param name="list">Ids in one field, parted by blanks.</param>
    /// <param name="areaIds">Areas all of whose planters are meant.</param>
    public static PlanterChoice Of(Plan plan, IReadOnlyList<string> ids, string? list, IReadOnlyList<string> areaIds)
    {
        var chosen = Ticked.Of(ids, list).ToHashSet(StringComparer.Ordinal);
        var areas = areaIds.ToHashSet(StringComparer.Ordinal);
        return new PlanterChoice(plan, [.. plan.Planters.Where(p => chosen.Contains(p.Id) || (areas.Contains(p.AreaId) && !p.IsRetired))]);
    }

    // Longer ones are cut off by browsers and servers on the way.
    private const int LongestAddress = 2000;

    /// <summary>An address that holds the choice; null where it is too long for one, and the choice stays in the form.</summary>
    /// <param name="path">The page.</param>
    /// <param name="rest">What else it says.</param>
    public string? Address(string path, params IEnumerable<KeyValuePair<string, string?>> rest)
    {
        string address = path + QueryString.Create([.. rest, new("planterList", string.Join(' ', Chosen.Select(p => p.Id)))]);
        return address.Length <= LongestAddress ? address : null;
    }

    /// <summary>The planters in use, chosen and not, by area.</summary>
    public IEnumerable<(Area Area, IReadOnlyList<Planter> Planters)> ByArea =>
        Plan
            .Areas.Select(a => (a, (IReadOnlyList<Planter>)[.. Plan.Planters.Where(p => p.AreaId == a.Id && !p.IsRetired)]))
            .Where(a => a.Item2.Count > 0);
}
