using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Proposing;

/// <summary>Planters that are planted alike: those of one look group, those on both sides of a path, or one by itself.</summary>
/// <param name="Planters">The planters, at least one.</param>
public sealed record ProposalUnit(IReadOnlyList<Planter> Planters)
{
    /// <summary>Its first planter, by whose id it is known.</summary>
    public Planter Lead => Planters[0];

    /// <summary>Groups planters.</summary>
    /// <param name="plan">The plan, for its paths.</param>
    /// <param name="planters">The planters.</param>
    /// <param name="start">First day of the plan year.</param>
    public static IReadOnlyList<ProposalUnit> Of(Plan plan, IReadOnlyList<Planter> planters, LocalDate start)
    {
        var of = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (Planter planter in planters.Where(p => p.Survey.LookGroup.Length > 0))
            of[planter.Id] = $"look {planter.Survey.LookGroup.ToUpperInvariant()}";
        // What faces each other across a path is planted alike where it is alike.
        IReadOnlyList<PlanterSeason> placed = [.. planters.Select(p => PlanterSeason.Unknown(plan, p, start))];
        foreach (PathBalance path in PathBalance.Of(plan.Map, placed, 0).Where(b => b.Verdict != PathVerdict.OneSideOnly))
        {
            foreach (Planter planter in path.Left.Planters.Concat(path.Right.Planters).Where(p => !of.ContainsKey(p.Id)))
            {
                Planter? across = (path.Left.Planters.Contains(planter) ? path.Right : path.Left).Planters.FirstOrDefault(p =>
                    p.Form == planter.Form && p.Exposure == planter.Exposure && p.Wall == planter.Wall
                );
                if (across is not null)
                    of[planter.Id] = of.GetValueOrDefault(across.Id) ?? $"path {path.Path.Id} {planter.Form} {planter.Exposure} {planter.Wall}";
            }
        }
        return [.. planters.GroupBy(p => of.GetValueOrDefault(p.Id, $"one {p.Id}"), StringComparer.Ordinal).Select(g => new ProposalUnit([.. g]))];
    }

    /// <summary>True where the same pieces are found for both: nothing on which they rest differs.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="other">Another unit.</param>
    public bool IsLike(Plan plan, ProposalUnit other) =>
        Planters.Count == other.Planters.Count && Planters.Zip(other.Planters).All(p => AreAlike(plan, p.First, p.Second));

    private static bool AreAlike(Plan plan, Planter one, Planter other)
    {
        // Only a look group of two or more makes planters look at each other, and such are one unit.
        Planter Bare(Planter p) => p with { Id = "planter", Name = "planter", AreaId = "area", Place = null, Note = string.Empty };
        return Bare(one) == Bare(other)
            && plan.AreaOf(one).FrostPocketC == plan.AreaOf(other).FrostPocketC
            && plan.DisplaysOf(one.Id).Count == 0
            && plan.DisplaysOf(other.Id).Count == 0;
    }
}
