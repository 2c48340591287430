using NodaTime;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Proposing;

/// <summary>What a proposed year is best at.</summary>
public enum YearCharacter
{
    /// <summary>Colour on most days, and most of it.</summary>
    Richest,

    /// <summary>The least to buy.</summary>
    Cheapest,

    /// <summary>The least time with a trowel.</summary>
    LeastWork,
}

/// <summary>What a planner wants of a year that is to be proposed.</summary>
/// <param name="Start">First day of the plan year, the first of a month.</param>
/// <param name="From">Nothing goes in before this day.</param>
/// <param name="PlanterIds">The planters, at least one.</param>
public sealed record YearWish(LocalDate Start, LocalDate From, IReadOnlyList<string> PlanterIds)
{
    /// <summary>Fewest turns of a year: one for what winters, one for summer.</summary>
    public const int FewestTurns = 2;

    /// <summary>Most turns of a year.</summary>
    public const int MostTurns = 5;

    /// <summary>How often the crew turns, from <see cref="FewestTurns"/> to <see cref="MostTurns"/>.</summary>
    public int Turns { get; init; } = 4;

    /// <summary>Colours wanted, #rrggbb; empty for any.</summary>
    public IReadOnlyList<string> Colours { get; init; } = [];

    /// <summary>True where a kind shows a colour that is wanted.</summary>
    public bool Wants(Plant plant) =>
        Colours.Count == 0
        || plant.Windows.Any(w => w.Colours.Take(2).Any(c => Colours.Any(q => ColourDifference.Between(c, q) <= ColourDifference.Near)));

    /// <summary>Most that may be spent; null for no limit.</summary>
    public decimal? Budget { get; init; }

    /// <summary>True where all that is planned already stays; otherwise only what has gone in, and what stands for years.</summary>
    public bool KeepsPlanned { get; init; } = true;

    /// <summary>Kinds that are taken first; what is on the shortlist is, too.</summary>
    public IReadOnlyList<string> Favourites { get; init; } = [];

    /// <summary>Kinds that are not wanted again.</summary>
    public IReadOnlyList<string> Never { get; init; } = [];

    /// <summary>Longest run of days without colour that is put up with.</summary>
    public int LongestBareDays { get; init; } = BareSpell.ShortestDays - 1;

    /// <summary>Proposals that are to stay as they are, by planter.</summary>
    public IReadOnlyList<PieceLock> Locks { get; init; } = [];

    /// <summary>Every fault of the wish, and wishes that contradict each other.</summary>
    /// <param name="plan">The plan that it is asked of.</param>
    public IReadOnlyList<Fault> Faults(Plan plan)
    {
        var faults = new FaultList();
        if (Start.Day != 1)
            faults.Add("start", "must be the first of a month");
        if (From >= Start.PlusYears(1))
            faults.Add("from", "must lie before the end of the plan year");
        if (PlanterIds.Count == 0)
            faults.Add("planters", "must name at least one");
        foreach (string id in PlanterIds.Where(id => plan.FindPlanter(id) is null or { IsRetired: true }))
            faults.Add("planters", $"names \"{id}\", which is no longer in use");
        faults.Range("turns", Turns, FewestTurns, MostTurns, "turns");
        faults.Range("longestBareDays", LongestBareDays, 0, 365, "days");
        if (Budget is { } budget)
            faults.Range("budget", (double)budget, 0, 10_000_000, string.Empty);
        for (int i = 0; i < Colours.Count; i++)
        {
            if (!Srgb.IsColour(Colours[i]))
                faults.Add($"colours[{i}]", "must be written #rrggbb");
        }
        foreach (string id in Favourites.Concat(Never).Where(id => plan.FindPlant(id) is null))
            faults.Add("plants", $"names \"{id}\", which is not in the palette");
        foreach (string id in Favourites.Intersect(Never, StringComparer.Ordinal))
            faults.Add("never", $"conflicts with the favourites: {plan.FindPlant(id)?.CommonName ?? id} cannot be both");
        return faults.Faults;
    }
}

/// <summary>A piece that a planner has settled on for a planter.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="PieceId">The piece, see <see cref="YearPiece.Id"/>.</param>
public sealed record PieceLock(string PlanterId, string PieceId);
