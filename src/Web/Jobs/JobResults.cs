using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>What is asked when bare spells are to be closed.</summary>
public sealed record GapAsk(LocalDate Start, LocalDate From, decimal? Budget, bool OnlyStock, IReadOnlyList<GapMoveKind> Kinds, IReadOnlyList<string> Colours, int MostPerPlanter, int? MostKinds, int? MostPlanters, IReadOnlyList<string> PlanterIds)
{
    /// <summary>The question to Core.</summary>
    public GapQuestion ToQuestion() => new(From)
    {
        Budget = Budget,
        OnlyStock = OnlyStock,
        Kinds = Kinds.ToHashSet(),
        Colours = Colours,
        MostPerPlanter = MostPerPlanter,
        MostKinds = MostKinds,
        MostPlanters = MostPlanters,
        PlanterIds = PlanterIds.ToHashSet(StringComparer.Ordinal),
    };
}

/// <summary>One proposed change as it is kept until someone decides.</summary>
public sealed record GapProposal(
    string Id, string PlanterId, GapMoveKind Kind, string Say, IReadOnlyList<Display> Before, IReadOnlyList<Display> After, IReadOnlyList<Display> Added,
    string? PlantId, int Count, IReadOnlyList<StockUse> FromStock, decimal Cost, int DaysGained, double ExpectedDays, Working Working)
{
    /// <summary>Keeps a change.</summary>
    public static GapProposal Of(Plan plan, GapMove move) => new(
        move.Id, move.Planter.Id, move.Kind, move.Say,
        [.. plan.Displays.Where(d => move.Replaces.Contains(d.Id))],
        [.. move.Displays.Where(d => move.Replaces.Contains(d.Id))],
        [.. move.Displays.Where(d => !move.Replaces.Contains(d.Id))],
        move.Plant?.Id, move.Count, move.FromStock, move.Cost, move.DaysGained, move.ExpectedDays, move.Explain(plan.Site.Money));

    /// <summary>Several changes as one to make.</summary>
    public static PlanChange Together(IReadOnlyList<GapProposal> chosen) => new(
        [.. chosen.SelectMany(c => c.Before)],
        [.. chosen.SelectMany(c => c.After)],
        [.. chosen.SelectMany(c => c.Added)],
        chosen.SelectMany(c => c.FromStock).GroupBy(s => s.LotId, StringComparer.Ordinal).ToDictionary(g => g.Key, g => g.Sum(s => s.Count), StringComparer.Ordinal));
}

/// <summary>A planter that stays bare, with the reason.</summary>
public sealed record StaysBare(string PlanterId, string Why);

/// <summary>The answer to a <see cref="GapAsk"/>.</summary>
public sealed record GapResult(IReadOnlyList<GapProposal> Proposals, int Days, int MostDays, int BareDays, decimal Cost, int Considered, IReadOnlyList<StaysBare> LeftBare, Working Working)
{
    /// <summary>Keeps an answer.</summary>
    public static GapResult Of(Plan plan, GapAnswer answer) => new(
        [.. answer.Moves.Select(m => GapProposal.Of(plan, m))], answer.Days, answer.MostDays, answer.BareDays, answer.Cost, answer.Considered,
        [.. answer.LeftBare.Select(l => new StaysBare(l.Planter.Id, l.Why))], answer.Explain(plan.Site.Money));
}

/// <summary>What is asked when the days of a turn are weighed.</summary>
public sealed record TurnAsk(string TurnId);

/// <summary>One day of a turn's window.</summary>
public sealed record TurnDayResult(TurnOption Option, Working Working);

/// <summary>The answer to a <see cref="TurnAsk"/>; without options when there is nothing to weigh.</summary>
public sealed record TurnResult(IReadOnlyList<TurnDayResult> Options, LocalDate? Best, LocalDate? WhenPast, LocalDate FullBy, string Sentence, double? WeekLaterCosts, double? WeekEarlierFrost)
{
    /// <summary>Keeps a window.</summary>
    public static TurnResult Of(TurnWindow? window) => window is null
        ? new([], null, null, default, string.Empty, null, null)
        : new([.. window.Options.Select(o => new TurnDayResult(o, window.Explain(o)))], window.Best?.FirstDay, window.WhenPast?.FirstDay, window.FullBy, window.Sentence(), window.WeekLaterCosts, window.WeekEarlierFrost);
}

/// <summary>What is asked when a mishap is rehearsed.</summary>
public sealed record RehearsalAsk(LocalDate Start, LocalDate From, RehearsalKind Kind);

/// <summary>Plants lost in one planter of a rehearsal.</summary>
public sealed record RehearsedLoss(string PlanterId, string DisplayId, string PlantId, int Count, LossKind Kind, LocalDate On, decimal Cost, bool SavedByCover);

/// <summary>One planter's days in colour in a rehearsal.</summary>
public sealed record RehearsedPlanter(string PlanterId, int Before, int After);

/// <summary>The answer to a <see cref="RehearsalAsk"/>.</summary>
public sealed record RehearsalAnswer(
    RehearsalKind Kind, string Said, int DaysLost, int Covered, IReadOnlyList<RehearsedPlanter> Planters, IReadOnlyList<RehearsedLoss> Losses, IReadOnlyDictionary<string, int> Reserve, Working Working)
{
    /// <summary>Keeps a rehearsal.</summary>
    public static RehearsalAnswer Of(RehearsalResult result, string money) => new(
        result.Kind, result.Said, result.DaysLost, result.Covered,
        [.. result.Comparison.Planters.Where(p => p.Days != 0).Select(p => new RehearsedPlanter(p.Before.Planter.Id, p.Before.DaysInColour, p.After.DaysInColour))],
        [.. result.Losses.Select(l => new RehearsedLoss(l.Planter.Id, l.Display.Id, l.Plant.Id, l.Count, l.Kind, l.On, l.Cost, result.SavedByCover.Contains(l)))],
        result.Reserve.ToDictionary(r => r.Plant.Id, r => r.Count, StringComparer.Ordinal),
        result.Explain(money));
}
