using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Proposing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>What could go in instead of a piece, as it is kept.</summary>
/// <param name="Id">The piece.</param>
/// <param name="Lead">Its display for the first planter.</param>
/// <param name="Cost">What is to be bought.</param>
/// <param name="Days">Planter-days that it brings by itself.</param>
public sealed record OtherPiece(string Id, Display Lead, decimal Cost, int Days);

/// <summary>A piece of a proposed year as it is kept.</summary>
/// <param name="Id">The piece.</param>
/// <param name="RecipeId">The recipe that it is made from; null for single plants.</param>
/// <param name="Displays">What goes in, planter by planter.</param>
/// <param name="Cost">What is to be bought.</param>
/// <param name="Minutes">Minutes of setting and taking out.</param>
/// <param name="Days">Planter-days that it brings by itself.</param>
/// <param name="Others">What could go in instead, the best first.</param>
public sealed record ProposedPiece(
    string Id,
    string? RecipeId,
    IReadOnlyList<Display> Displays,
    decimal Cost,
    int Minutes,
    int Days,
    IReadOnlyList<OtherPiece> Others
);

/// <summary>What is proposed for planters that are planted alike, as it is kept.</summary>
/// <param name="PlanterIds">The planters.</param>
/// <param name="Pieces">What goes in, the earliest first.</param>
/// <param name="DaysBefore">Days in colour as planned now, over the planters.</param>
/// <param name="DaysAfter">The same with the pieces.</param>
/// <param name="LongestBare">Longest bare spell that is left in any of them, days.</param>
public sealed record ProposedPlanters(
    IReadOnlyList<string> PlanterIds,
    IReadOnlyList<ProposedPiece> Pieces,
    int DaysBefore,
    int DaysAfter,
    int LongestBare
);

/// <summary>One proposed year as it is kept.</summary>
/// <param name="Character">What it is best at.</param>
/// <param name="Units">What is proposed, unit by unit.</param>
/// <param name="Reached">What it reaches of that by which it was chosen: planter-days gained, money or minutes.</param>
/// <param name="Bound">What no choice among the pieces found can beat of it.</param>
public sealed record ProposedYearResult(YearCharacter Character, IReadOnlyList<ProposedPlanters> Units, double Reached, double Bound)
{
    /// <summary>What is to be bought, guide prices.</summary>
    public decimal Cost => Units.SelectMany(u => u.Pieces).Sum(p => p.Cost);

    /// <summary>Minutes of setting and taking out.</summary>
    public int Minutes => Units.SelectMany(u => u.Pieces).Sum(p => p.Minutes);

    /// <summary>Days in colour as planned now.</summary>
    public int DaysBefore => Units.Sum(u => u.DaysBefore);

    /// <summary>Days in colour with it.</summary>
    public int DaysAfter => Units.Sum(u => u.DaysAfter);

    /// <summary>Longest bare spell that is left, days.</summary>
    public int LongestBare => Units.Select(u => u.LongestBare).DefaultIfEmpty(0).Max();
}

/// <summary>The years proposed, as they are kept.</summary>
/// <param name="Turns">Days of the turns.</param>
/// <param name="Removed">Displays of the plan that make way, of the planters that are taken.</param>
/// <param name="Years">The years.</param>
/// <param name="Days">Planter-days of the plan year.</param>
/// <param name="Considered">Pieces that were weighed.</param>
public sealed record YearProposalResult(
    IReadOnlyList<LocalDate> Turns,
    IReadOnlyList<Display> Removed,
    IReadOnlyList<ProposedYearResult> Years,
    int Days,
    int Considered
)
{
    /// <summary>Keeps a proposal.</summary>
    public static YearProposalResult Of(YearProposal proposal, int daysOfYear) =>
        new(
            [.. proposal.Slots.Select(s => s.From)],
            proposal.Removed,
            [.. proposal.Years.Select(Of)],
            proposal.Wish.PlanterIds.Count * daysOfYear,
            proposal.Considered
        );

    /// <summary>The change that is made of a year for some planters.</summary>
    /// <param name="character">The year.</param>
    /// <param name="planterIds">The planters.</param>
    /// <param name="plan">The plan, so that turns are added for days that none of its own holds.</param>
    public PlanChange Change(YearCharacter character, IReadOnlyCollection<string> planterIds, Plan plan)
    {
        var ids = planterIds.ToHashSet(StringComparer.Ordinal);
        ProposedYearResult? year = Years.FirstOrDefault(y => y.Character == character);
        Display[] added = [.. (year?.Units ?? []).SelectMany(u => u.Pieces).SelectMany(p => p.Displays).Where(d => ids.Contains(d.PlanterId))];
        return new PlanChange([], [], added, new Dictionary<string, int>(StringComparer.Ordinal))
        {
            Removed = [.. Removed.Where(d => ids.Contains(d.PlanterId))],
            TurnsAfter = TurnCalendar.Missing(plan, added, Turns.Count > 0 ? Turns.Min() : LocalDate.MinIsoValue),
        };
    }

    private static ProposedYearResult Of(ProposedYear year) =>
        new(
            year.Character,
            [
                .. year.Units.Select(u => new ProposedPlanters(
                    [.. u.Unit.Planters.Select(p => p.Id)],
                    [
                        .. u.Pieces.Select(
                            (p, i) =>
                                new ProposedPiece(
                                    p.Id,
                                    p.Recipe?.Id,
                                    p.Displays,
                                    p.Cost,
                                    p.Minutes,
                                    p.Days,
                                    [.. u.Others[i].Select(o => new OtherPiece(o.Id, o.Displays[0], o.Cost, o.Days))]
                                )
                        ),
                    ],
                    u.Before.Sum(s => s.DaysInColour),
                    u.After.Sum(s => s.DaysInColour),
                    u.After.SelectMany(s => s.BareSpells).Select(b => b.Days).DefaultIfEmpty(0).Max()
                )),
            ],
            year.Character switch
            {
                YearCharacter.Richest => year.Gained,
                YearCharacter.Cheapest => (double)year.Cost,
                _ => year.Minutes,
            },
            year.Bound
        );
}
