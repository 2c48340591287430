using System.Text.Json.Serialization;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Ahead;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>What is asked when bare spells are to be closed.</summary>
public sealed record GapAsk(
    LocalDate Start,
    LocalDate From,
    decimal? Budget,
    bool OnlyStock,
    IReadOnlyList<GapMoveKind> Kinds,
    IReadOnlyList<string> Colours,
    int MostPerPlanter,
    int? MostKinds,
    int? MostPlanters,
    IReadOnlyList<string> PlanterIds,
    int LeadDays = GapQuestion.UsualLeadDays
)
{
    /// <summary>The question to Core.</summary>
    public GapQuestion ToQuestion() =>
        new(From)
        {
            LeadDays = LeadDays,
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
    string Id,
    string PlanterId,
    GapMoveKind Kind,
    string Say,
    IReadOnlyList<Display> Before,
    IReadOnlyList<Display> After,
    IReadOnlyList<Display> Added,
    string? PlantId,
    int Count,
    IReadOnlyList<StockUse> FromStock,
    decimal Cost,
    int DaysGained,
    double ExpectedDays,
    WorkedFigure Working
)
{
    /// <summary>Keeps a change.</summary>
    public static GapProposal Of(Plan plan, GapMove move, FactWriter words) =>
        new(
            move.Id,
            move.Planter.Id,
            move.Kind,
            words.Say(move.Does),
            [.. plan.Displays.Where(d => move.Replaces.Contains(d.Id))],
            [.. move.Displays.Where(d => move.Replaces.Contains(d.Id))],
            [.. move.Displays.Where(d => !move.Replaces.Contains(d.Id))],
            move.Plant?.Id,
            move.Count,
            move.FromStock,
            move.Cost,
            move.DaysGained,
            move.ExpectedDays,
            words.Say(move.Explain())
        );

    /// <summary>Several changes as one to make.</summary>
    public static PlanChange Together(IReadOnlyList<GapProposal> chosen) =>
        new(
            [.. chosen.SelectMany(c => c.Before)],
            [.. chosen.SelectMany(c => c.After)],
            [.. chosen.SelectMany(c => c.Added)],
            chosen
                .SelectMany(c => c.FromStock)
                .GroupBy(s => s.LotId, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => g.Sum(s => s.Count), StringComparer.Ordinal)
        );
}

/// <summary>A planter that stays bare, with the reason.</summary>
public sealed record StaysBare(string PlanterId, string Why);

/// <summary>The answer to a <see cref="GapAsk"/>.</summary>
public sealed record GapResult(
    IReadOnlyList<GapProposal> Proposals,
    int Days,
    int MostDays,
    int BareDays,
    decimal Cost,
    int Considered,
    IReadOnlyList<StaysBare> LeftBare,
    WorkedFigure Working
)
{
    /// <summary>Keeps an answer.</summary>
    public static GapResult Of(Plan plan, GapAnswer answer, FactWriter words) =>
        new(
            [.. answer.Moves.Select(m => GapProposal.Of(plan, m, words))],
            answer.Days,
            answer.MostDays,
            answer.BareDays,
            answer.Cost,
            answer.Considered,
            [.. answer.LeftBare.Select(l => new StaysBare(l.Planter.Id, words.Say(l.Why)))],
            words.Say(answer.Explain())
        );
}

/// <summary>What an act does to one planter, as it is kept until someone decides.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="Before">Displays that change, as they are.</param>
/// <param name="After">Those displays as they become.</param>
/// <param name="Added">New displays.</param>
/// <param name="Removed">Displays that go.</param>
/// <param name="Remarks">Why nothing is done, or not all that was asked.</param>
/// <param name="DaysBefore">Days in colour of the plan year as it is.</param>
/// <param name="DaysAfter">Days in colour as it becomes.</param>
/// <param name="Checks">What the checks say of what is new or changed, the gravest first.</param>
public sealed record ActOnPlanter(
    string PlanterId,
    IReadOnlyList<Display> Before,
    IReadOnlyList<Display> After,
    IReadOnlyList<Display> Added,
    IReadOnlyList<Display> Removed,
    IReadOnlyList<string> Remarks,
    int DaysBefore,
    int DaysAfter,
    IReadOnlyList<ActCheck> Checks
)
{
    /// <summary>True when something changes.</summary>
    [JsonIgnore]
    public bool Changes => After.Count + Added.Count + Removed.Count > 0;

    /// <summary>True when the checks say that it cannot be planted so, or that plants are lost.</summary>
    [JsonIgnore]
    public bool Loses => Checks.Any(c => c.Gravity == Gravity.Loses);
}

/// <summary>What a check says.</summary>
/// <param name="Gravity">How grave it is.</param>
/// <param name="Say">In words.</param>
public sealed record ActCheck(Gravity Gravity, string Say);

/// <summary>An act on many planters, worked out.</summary>
/// <param name="Planters">What becomes of each.</param>
/// <param name="Plants">Plants more or fewer than were planned, by kind.</param>
/// <param name="Cost">What they cost more than was planned.</param>
public sealed record ActResult(IReadOnlyList<ActOnPlanter> Planters, IReadOnlyDictionary<string, int> Plants, decimal Cost)
{
    // Of one planter; the rest stands on its page once it is done.
    private const int MostChecks = 6;

    /// <summary>Keeps an answer, with the colour that it brings and what the checks say.</summary>
    public static ActResult Of(
        Plan plan,
        ActAnswer answer,
        SeasonKernel kernel,
        DisplayChecks checks,
        FactWriter words,
        Action<int> told,
        CancellationToken cancel
    )
    {
        var planters = new List<ActOnPlanter>();
        foreach (PlanterAct act in answer.Planters)
        {
            cancel.ThrowIfCancellationRequested();
            var gone = act.Before.Concat(act.Removed).Select(d => d.Id).ToHashSet(StringComparer.Ordinal);
            IReadOnlyList<Display> displays = [.. plan.DisplaysOf(act.Planter.Id).Where(d => !gone.Contains(d.Id)), .. act.After, .. act.Added];
            int before = kernel.Of(plan, act.Planter).DaysInColour;
            planters.Add(
                new ActOnPlanter(
                    act.Planter.Id,
                    act.Before,
                    act.After,
                    act.Added,
                    act.Removed,
                    [.. act.Remarks.Select(words.Say)],
                    before,
                    act.Changes ? kernel.Try(plan, act.Planter, displays).DaysInColour : before,
                    [
                        .. act
                            .After.Concat(act.Added)
                            .SelectMany(d => checks.For(d, thorough: false))
                            .OrderBy(r => r.Gravity)
                            .Take(MostChecks)
                            .Select(r => new ActCheck(r.Gravity, words.What(r))),
                    ]
                )
            );
            told(planters.Count);
        }
        return new ActResult(planters, answer.Plants(), answer.Cost(plan));
    }

    /// <summary>The change that is made of some planters.</summary>
    /// <param name="chosen">Their ids.</param>
    public PlanChange Change(IReadOnlyCollection<string> chosen)
    {
        var ids = chosen.ToHashSet(StringComparer.Ordinal);
        List<ActOnPlanter> these = [.. Planters.Where(p => p.Changes && ids.Contains(p.PlanterId))];
        return new PlanChange(
            [.. these.SelectMany(p => p.Before)],
            [.. these.SelectMany(p => p.After)],
            [.. these.SelectMany(p => p.Added)],
            new Dictionary<string, int>(StringComparer.Ordinal)
        )
        {
            Removed = [.. these.SelectMany(p => p.Removed)],
        };
    }
}

/// <summary>What is asked when the days of a turn are weighed.</summary>
public sealed record TurnAsk(string TurnId);

/// <summary>One day of a turn's window as it is kept: a <see cref="TurnOption"/> with what forbids it in words, and the arithmetic.</summary>
public sealed record TurnDayResult(
    LocalDate FirstDay,
    double ColourDays,
    double OldColour,
    double FrostLoss,
    double PlantsLost,
    decimal LostCost,
    double FullShare,
    double LeavesGreen,
    IReadOnlyList<string> Hinders,
    WorkedFigure Working
);

/// <summary>The answer to a <see cref="TurnAsk"/>; without options when there is nothing to weigh.</summary>
public sealed record TurnResult(
    IReadOnlyList<TurnDayResult> Options,
    LocalDate? Best,
    LocalDate? WhenPast,
    LocalDate FullBy,
    string Sentence,
    double? WeekLaterCosts,
    double? WeekEarlierFrost
)
{
    /// <summary>Keeps a window.</summary>
    public static TurnResult Of(TurnWindow? window, FactWriter words) =>
        window is null
            ? new([], null, null, default, string.Empty, null, null)
            : new(
                [
                    .. window.Options.Select(o => new TurnDayResult(
                        o.FirstDay,
                        o.ColourDays,
                        o.OldColour,
                        o.FrostLoss,
                        o.PlantsLost,
                        o.LostCost,
                        o.FullShare,
                        o.LeavesGreen,
                        [.. o.Hinders.Select(words.Say)],
                        words.Say(window.Explain(o))
                    )),
                ],
                window.Best?.FirstDay,
                window.WhenPast?.FirstDay,
                window.FullBy,
                words.Say(window.Advice()),
                window.WeekLaterCosts,
                window.WeekEarlierFrost
            );
}

/// <summary>What is asked when a mishap is rehearsed.</summary>
public sealed record RehearsalAsk(LocalDate Start, LocalDate From, RehearsalKind Kind);

/// <summary>Plants lost in one planter of a rehearsal.</summary>
public sealed record RehearsedLoss(
    string PlanterId,
    string DisplayId,
    string PlantId,
    int Count,
    LossKind Kind,
    LocalDate On,
    decimal Cost,
    bool SavedByCover
);

/// <summary>One planter's days in colour in a rehearsal.</summary>
public sealed record RehearsedPlanter(string PlanterId, int Before, int After);

/// <summary>What heat does to one planter of a rehearsal.</summary>
public sealed record RehearsedHeat(string PlanterId, double HottestRootC, int RootDays, IReadOnlyList<string> ScorchedPlantIds);

/// <summary>The answer to a <see cref="RehearsalAsk"/>.</summary>
public sealed record RehearsalAnswer(
    RehearsalKind Kind,
    string Said,
    string Beside,
    int DaysLost,
    int Covered,
    IReadOnlyList<RehearsedPlanter> Planters,
    IReadOnlyList<RehearsedLoss> Losses,
    IReadOnlyList<RehearsedHeat> Heat,
    IReadOnlyDictionary<string, int> Reserve,
    WorkedFigure Working
)
{
    /// <summary>Keeps a rehearsal.</summary>
    public static RehearsalAnswer Of(RehearsalResult result, FactWriter words) =>
        new(
            result.Kind,
            words.Say(result.Says),
            words.Say(result.Beside),
            result.DaysLost,
            result.Covered,
            [
                .. result
                    .Comparison.Planters.Where(p => p.Days != 0)
                    .Select(p => new RehearsedPlanter(p.Before.Planter.Id, p.Before.DaysInColour, p.After.DaysInColour)),
            ],
            [
                .. result.Losses.Select(l => new RehearsedLoss(
                    l.Planter.Id,
                    l.Display.Id,
                    l.Plant.Id,
                    l.Count,
                    l.Kind,
                    l.On,
                    l.Cost,
                    result.SavedByCover.Contains(l)
                )),
            ],
            [.. result.Heat.Select(h => new RehearsedHeat(h.Planter.Id, h.HottestRootC, h.RootDays, [.. h.Scorched.Select(p => p.Id)]))],
            result.Reserve.ToDictionary(r => r.Plant.Id, r => r.Count, StringComparer.Ordinal),
            words.Say(result.Explain())
        );
}

/// <summary>What is asked when an area's bulbs are to be spread over spring.</summary>
public sealed record SequenceAsk(LocalDate Start, LocalDate From, string AreaId);

/// <summary>One proposed exchange as it is kept until someone decides.</summary>
public sealed record SequenceProposal(string Id, string Say, Display Before, Display After, decimal Cost, WorkedFigure Working);

/// <summary>The answer to a <see cref="SequenceAsk"/>.</summary>
public sealed record SequenceResult(
    string AreaName,
    IReadOnlyList<SequenceProposal> Proposals,
    int Considered,
    IReadOnlyList<int> InFlower,
    WorkedFigure Working
)
{
    /// <summary>Keeps an answer.</summary>
    public static SequenceResult Of(AreaSequence area, SequenceAnswer answer, int considered, FactWriter words) =>
        new(
            area.Area.Name,
            [.. answer.Moves.Select(m => new SequenceProposal(m.Id, words.Say(m.Does), m.Before, m.After, m.Cost, words.Say(m.Explain(area.Start))))],
            considered,
            answer.InFlower,
            words.Say(answer.Explain(area))
        );
}

/// <summary>What is asked when kinds of bulbs are to be laid over planters.</summary>
public sealed record SpreadAsk(
    LocalDate Start,
    LocalDate Install,
    LocalDate Lift,
    SpreadScheme Scheme,
    bool NeighboursDiffer,
    IReadOnlyList<string> PlanterIds,
    IReadOnlyDictionary<string, int> Kinds
)
{
    /// <summary>The question to Core.</summary>
    public SpreadQuestion ToQuestion(Plan plan) =>
        new(
            [.. PlanterIds.Select(plan.FindPlanter).OfType<Core.Planters.Planter>()],
            [.. Kinds.Where(k => plan.FindPlant(k.Key) is not null).Select(k => new KindAtHand(plan.Plant(k.Key), k.Value))],
            Scheme,
            Install,
            Lift,
            NeighboursDiffer
        );
}

/// <summary>Bulbs of one kind for one planter.</summary>
public sealed record SpreadTake(string PlantId, SpringThird Third, int Count);

/// <summary>What one planter takes.</summary>
public sealed record SpreadPlanter(string PlanterId, IReadOnlyList<SpreadTake> Takes);

/// <summary>The answer to a <see cref="SpreadAsk"/>.</summary>
public sealed record SpreadResult(
    LocalDate Lift,
    IReadOnlyList<SpreadPlanter> Planted,
    IReadOnlyDictionary<string, int> Left,
    IReadOnlyList<StaysBare> Without,
    WorkedFigure Working
)
{
    /// <summary>Keeps an answer.</summary>
    public static SpreadResult Of(SpreadQuestion question, SpreadAnswer answer, FactWriter words) =>
        new(
            question.Lift,
            [
                .. answer.Planted.Select(p => new SpreadPlanter(
                    p.Planter.Id,
                    [.. p.Takes.Select(t => new SpreadTake(t.Room.Plant.Id, t.Room.Third, t.Count))]
                )),
            ],
            answer.Left.ToDictionary(l => l.Plant.Id, l => l.Count, StringComparer.Ordinal),
            [.. answer.Without.Select(w => new StaysBare(w.Planter.Id, words.Say(w.Why)))],
            words.Say(answer.Explain(question))
        );
}

/// <summary>What is asked when a site's years ahead are computed.</summary>
public sealed record AheadAsk(LocalDate Start, int Years, TulipCycle Tulips);

/// <summary>One of the years ahead as it is kept.</summary>
public sealed record AheadYear(LocalDate Start, double MeanDaysInColour, YearCost Cost, int BulbCount, int BeddingCount, WorkedFigure Working);

/// <summary>How far what stands for years closes over a planter.</summary>
public sealed record AheadGap(string PlanterId, IReadOnlyList<double> Cover, IReadOnlyList<int> Bedding);

/// <summary>Something that falls due at a planter.</summary>
public sealed record AheadDue(string PlanterId, LocalDate Day, string Say);

/// <summary>The answer to an <see cref="AheadAsk"/>; of the displays to come, only those of the next plan year are kept.</summary>
public sealed record AheadResult(
    IReadOnlyList<AheadYear> Years,
    IReadOnlyList<AheadGap> Gaps,
    IReadOnlyList<AheadDue> Due,
    IReadOnlyList<Display> NextAdded,
    IReadOnlyList<Display> NextBefore,
    IReadOnlyList<Display> NextAfter
)
{
    /// <summary>Keeps an answer.</summary>
    public static AheadResult Of(YearsAhead ahead, FactWriter words)
    {
        // What stays longer is changed when it would have come out: by the end of the next year.
        List<Display> after = [.. ahead.Years.Take(2).SelectMany(y => y.Changed)];
        return new(
            [.. ahead.Years.Select(y => new AheadYear(y.Start, y.MeanDaysInColour, y.Cost, y.BulbCount, y.BeddingCount, words.Say(y.Explain())))],
            [.. ahead.Ahead.Gaps.Select(g => new AheadGap(g.Planter.Id, g.Cover, g.Bedding))],
            [.. ahead.Ahead.Due.Select(d => new AheadDue(d.PlanterId, d.Day, words.Say(d.Says)))],
            ahead.Years[1].Added,
            [.. after.Select(d => ahead.Ahead.Before.Displays.First(b => b.Id == d.Id))],
            after
        );
    }
}

/// <summary>What is asked when stacks are to be built for a planter.</summary>
public sealed record StackAsk(string PlanterId, StackWish Wish, LocalDate From = default);

/// <summary>Bulbs of one kind in a proposed stack: how many, how deep, and the odds that it shows, by week wanted.</summary>
public sealed record ProposedBulb(string PlantId, int Count, double DepthCm, IReadOnlyList<double> Odds);

/// <summary>One proposed stack as it is kept until someone looks at it.</summary>
public sealed record ProposedStack(
    StackAim Aim,
    double Weeks,
    int WeeksWanted,
    decimal Cost,
    IReadOnlyList<ProposedBulb> Bulbs,
    WorkedFigure Working,
    int DaysInColour = 0,
    int DaysWanted = 0
);

/// <summary>Stacks proposed.</summary>
public sealed record StackResult(double MostWeeks, IReadOnlyList<ProposedStack> Stacks)
{
    /// <summary>Keeps an answer.</summary>
    public static StackResult Of(IReadOnlyList<StackProposal> proposals, StackWish wish, FactWriter words) =>
        new(
            proposals.Select(p => p.MostWeeks).FirstOrDefault(),
            [
                .. proposals.Select(p => new ProposedStack(
                    p.Aim,
                    p.Weeks,
                    p.Odds.Count,
                    p.Cost,
                    [
                        .. p.Stack.Layers.Select(l => new ProposedBulb(
                            l.Plant.Id,
                            l.Count,
                            l.DepthCm,
                            p.Kinds.First(k => k.Plant.Id == l.Plant.Id).Odds
                        )),
                    ],
                    words.Say(p.Explain(wish)),
                    p.DaysInColour(wish),
                    Period.DaysBetween(wish.First, wish.Last) + 1
                )),
            ]
        );
}
