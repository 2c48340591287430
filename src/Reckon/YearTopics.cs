using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>year</c>.</summary>
/// <param name="PlanFile">Path of a plan file.</param>
/// <param name="Weather">The record.</param>
/// <param name="Start">First day of the year, the first of a month.</param>
/// <param name="WeatherYear">One year of the record; all of them when left out.</param>
/// <param name="PlanterId">A planter to give in detail; none when left out.</param>
/// <param name="ByDay">True to give the odds and the cover of the detailed planter for every day.</param>
public sealed record YearInput(
    string PlanFile,
    WeatherInput Weather,
    LocalDate Start,
    int? WeatherYear = null,
    string? PlanterId = null,
    bool ByDay = false
);

/// <summary>A bare spell.</summary>
public sealed record BareSpellOutput(LocalDate FirstDay, LocalDate LastDay, int Days, int BareInTenYears);

/// <summary>A planter's year.</summary>
public sealed record PlanterYearOutput(string PlanterId, int DaysInColour, IReadOnlyList<BareSpellOutput> BareSpells);

/// <summary>How sure an event's colour is.</summary>
public sealed record EventOutput(string Event, int PlantersInColour, int Planters, double Odds);

/// <summary>When one plant of a display shows: the early year, the middle one and the late one, null where most years show none.</summary>
public sealed record PlantDatesOutput(
    string DisplayId,
    string PlantId,
    int Count,
    IReadOnlyList<LocalDate?> First,
    IReadOnlyList<LocalDate?> Peak,
    IReadOnlyList<LocalDate?> Last,
    int YearsKilledByFrost,
    int YearsRootsLost,
    int YearsTopsSpoiled,
    int StalledDays
);

/// <summary>Cover of one colour by day, share of what is seen of the planter.</summary>
public sealed record ColourCoverOutput(string Colour, IReadOnlyList<double> Cover10, IReadOnlyList<double> Cover50, IReadOnlyList<double> Cover90);

/// <summary>One planter in detail; days are given only where they were asked for.</summary>
public sealed record PlanterDetailOutput(
    string PlanterId,
    IReadOnlyList<PlantDatesOutput> Plants,
    IReadOnlyList<double>? OddsByDay,
    IReadOnlyList<ColourCoverOutput>? ColoursByDay
);

/// <summary>Output of <c>year</c>.</summary>
public sealed record YearOutput(
    string Sentence,
    LocalDate Start,
    int WeatherYears,
    double? Score,
    IReadOnlyList<EventOutput> Events,
    IReadOnlyList<PlanterYearOutput> Planters,
    PlanterDetailOutput? Detail
);

/// <summary>Input of <c>turn</c>.</summary>
/// <param name="PlanFile">Path of a plan file.</param>
/// <param name="Weather">The record.</param>
/// <param name="TurnId">The turn.</param>
public sealed record TurnInput(string PlanFile, WeatherInput Weather, string TurnId);

/// <summary>One day on which a turn may begin.</summary>
public sealed record TurnOptionOutput(
    LocalDate FirstDay,
    double ColourDays,
    double OddsOldStillShows,
    double OddsOfFrostLoss,
    double PlantsLost,
    double GrownShare,
    IReadOnlyList<string> Forbidden
);

/// <summary>Output of <c>turn</c>.</summary>
public sealed record TurnOutput(
    string Sentence,
    LocalDate? Best,
    LocalDate? WhenPast,
    double? WeekLaterCosts,
    double? WeekEarlierFrostInTenYears,
    IReadOnlyList<TurnOptionOutput> Options
);

/// <summary>Input of <c>close-gaps</c>.</summary>
/// <param name="PlanFile">Path of a plan file.</param>
/// <param name="Weather">The record.</param>
/// <param name="Start">First day of the plan year, the first of a month.</param>
/// <param name="From">Nothing before this day is changed.</param>
/// <param name="Budget">Most to spend; no limit when left out.</param>
/// <param name="OnlyStock">True to use nothing but what is at hand.</param>
/// <param name="PlanterIds">Planters asked; all when left out.</param>
/// <param name="Ways">Ways allowed; all when left out.</param>
/// <param name="MostPerPlanter">Most changes to one planter, 1 to 6.</param>
/// <param name="LeadDays">Days from an order to its delivery, 0 to 120.</param>
public sealed record CloseGapsInput(
    string PlanFile,
    WeatherInput Weather,
    LocalDate Start,
    LocalDate From,
    decimal? Budget = null,
    bool OnlyStock = false,
    IReadOnlyList<string>? PlanterIds = null,
    IReadOnlyList<GapMoveKind>? Ways = null,
    int MostPerPlanter = 2,
    int LeadDays = GapQuestion.UsualLeadDays
);

/// <summary>One proposed change.</summary>
public sealed record GapMoveOutput(string PlanterId, GapMoveKind Way, string Say, int DaysGained, decimal Cost);

/// <summary>Output of <c>close-gaps</c>.</summary>
public sealed record CloseGapsOutput(
    int BareDays,
    int DaysClosed,
    int Bound,
    decimal Cost,
    int Considered,
    IReadOnlyList<GapMoveOutput> Changes,
    IReadOnlyList<string> LeftBare
);

/// <summary>Input of <c>rehearse</c>.</summary>
/// <param name="PlanFile">Path of a plan file.</param>
/// <param name="Weather">The record.</param>
/// <param name="Start">First day of the plan year, the first of a month.</param>
/// <param name="From">Nothing before this day changes.</param>
/// <param name="Kind">What is rehearsed.</param>
public sealed record RehearseInput(string PlanFile, WeatherInput Weather, LocalDate Start, LocalDate From, RehearsalKind Kind);

/// <summary>Plants lost in a rehearsal.</summary>
public sealed record LossOutput(string PlanterId, string PlantId, int Count, LossKind To, LocalDate On, bool SavedByCover);

/// <summary>What heat does to a planter.</summary>
public sealed record HeatOutput(string PlanterId, double HottestRootC, int RootDays, IReadOnlyList<string> ScorchedPlantIds);

/// <summary>Output of <c>rehearse</c>.</summary>
public sealed record RehearseOutput(
    string Said,
    int DaysLost,
    int DaysSavedByCovers,
    IReadOnlyList<LossOutput> Losses,
    IReadOnlyDictionary<string, int> Reserve,
    IReadOnlyList<HeatOutput> Heat
);

/// <summary>Topics of a plan's year.</summary>
internal static class YearTopics
{
    public static Topic Year { get; } =
        new Topic<YearInput, YearOutput>(
            "year",
            "days in colour, bare spells, events and score of a plan over all weather years; one planter in detail",
            input =>
            {
                Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
                var kernel = new SeasonKernel(input.Weather.Read(), input.Start);
                SiteYear year = input.WeatherYear is { } only ? kernel.Of(plan, only) : kernel.Of(plan);
                return (
                    new YearOutput(
                        Said.Metric.Say(year.Sentence()),
                        year.Start,
                        year.WeatherYears.Count,
                        SiteScore.Of(plan, year) is { } score ? Math.Round(score.Total, 1) : null,
                        [
                            .. plan
                                .Events.Select(e => EventOutlook.Of(year, e))
                                .OfType<EventOutlook>()
                                .Select(e => new EventOutput(e.Event.Name, e.InColour, e.Planters, Math.Round(e.Odds, 3))),
                        ],
                        [
                            .. year.Planters.Select(p => new PlanterYearOutput(
                                p.Planter.Id,
                                p.DaysInColour,
                                [.. p.BareSpells.Select(s => new BareSpellOutput(s.FirstDay, s.LastDay, s.Days, s.InTen))]
                            )),
                        ],
                        input.PlanterId is null ? null : Detail(kernel.Detail(plan, Planter(plan, input.PlanterId)), input.ByDay)
                    ),
                    [.. year.Planters.Select(p => p.Explain())]
                );
            }
        );

    public static Topic Turn { get; } =
        new Topic<TurnInput, TurnOutput>("turn", "the days on which a turn may begin, what each brings and risks, and the one to take", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            Turn turn = plan.Turns.FirstOrDefault(t => t.Id == input.TurnId)
                ?? throw new InvalidInputException("turnId", $"must be one of {string.Join(", ", plan.Turns.Select(t => t.Id))}");
            WeatherRecord record = input.Weather.Read();
            var kernel = new SeasonKernel(record, SiteYear.UsualStart(turn.FirstDay, record.Station.IsSouthern));
            TurnWindow window = TurnWindow.Of(plan, turn, kernel)
                ?? throw new InvalidInputException("turnId", "no display goes in or comes out in this turn, or the weather holds no whole plan year");
            return (
                new TurnOutput(
                    Said.Metric.Say(window.Advice()),
                    window.Best?.FirstDay,
                    window.WhenPast?.FirstDay,
                    window.WeekLaterCosts is { } later ? Math.Round(later, 1) : null,
                    window.WeekEarlierFrost is { } frost ? Math.Round(frost, 2) : null,
                    [
                        .. window.Options.Select(o => new TurnOptionOutput(
                            o.FirstDay,
                            Math.Round(o.ColourDays, 1),
                            Math.Round(o.OldColour, 3),
                            Math.Round(o.FrostLoss, 3),
                            Math.Round(o.PlantsLost, 1),
                            Math.Round(o.FullShare, 3),
                            [.. o.Hinders.Select(Said.Metric.Say)]
                        )),
                    ]
                ),
                [.. window.Options.Select(window.Explain)]
            );
        });

    public static Topic CloseGaps { get; } =
        new Topic<CloseGapsInput, CloseGapsOutput>(
            "close-gaps",
            "changes that would put colour into bare spells, chosen within limits, with the solver's bound",
            input =>
            {
                Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
                WeatherRecord record = input.Weather.Read();
                foreach (string id in input.PlanterIds ?? [])
                    Planter(plan, id);
                GapAnswer answer = GapClosing.Close(
                    plan,
                    new SeasonKernel(record, input.Start),
                    new SiteFlowering(record, input.Start, plan.Site.FrostRisk),
                    new GapQuestion(input.From)
                    {
                        Budget = input.Budget,
                        OnlyStock = input.OnlyStock,
                        PlanterIds = (input.PlanterIds ?? []).ToHashSet(StringComparer.Ordinal),
                        Kinds = (input.Ways ?? []).ToHashSet(),
                        MostPerPlanter = input.MostPerPlanter,
                        LeadDays = input.LeadDays,
                    }
                );
                return (
                    new CloseGapsOutput(
                        answer.BareDays,
                        answer.Days,
                        answer.MostDays,
                        answer.Cost,
                        answer.Considered,
                        [.. answer.Moves.Select(m => new GapMoveOutput(m.Planter.Id, m.Kind, Said.Metric.Say(m.Does), m.DaysGained, m.Cost))],
                        [.. answer.LeftBare.Select(l => $"{l.Planter.Id}: {Said.Metric.Say(l.Why)}")]
                    ),
                    [answer.Explain(), .. answer.Moves.Select(m => m.Explain())]
                );
            }
        );

    public static Topic Rehearse { get; } =
        new Topic<RehearseInput, RehearseOutput>(
            "rehearse",
            "what a hard winter, a late spring, heat, late stock or half a crew would take from a plan",
            input =>
            {
                Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
                WeatherRecord record = input.Weather.Read();
                RehearsalResult result = new Rehearsal(plan, new SeasonKernel(record, input.Start), record, input.From).Of(input.Kind);
                return (
                    new RehearseOutput(
                        Said.Metric.Say(result.Says),
                        result.DaysLost,
                        result.Covered,
                        [
                            .. result.Losses.Select(l => new LossOutput(
                                l.Planter.Id,
                                l.Plant.Id,
                                l.Count,
                                l.Kind,
                                l.On,
                                result.SavedByCover.Contains(l)
                            )),
                        ],
                        result.Reserve.ToDictionary(r => r.Plant.Id, r => r.Count, StringComparer.Ordinal),
                        [
                            .. result.Heat.Select(h => new HeatOutput(
                                h.Planter.Id,
                                Math.Round(h.HottestRootC, 1),
                                h.RootDays,
                                [.. h.Scorched.Select(p => p.Id)]
                            )),
                        ]
                    ),
                    [result.Explain()]
                );
            }
        );

    private static Planter Planter(Plan plan, string id) =>
        plan.FindPlanter(id) ?? throw new InvalidInputException("planterId", $"there is no planter \"{id}\" in the plan");

    private static PlanterDetailOutput Detail(PlanterDetail detail, bool byDay) =>
        new(
            detail.Season.Planter.Id,
            [
                .. detail.Plants.Select(p => new PlantDatesOutput(
                    p.DisplayId,
                    p.Plant.Id,
                    p.Count,
                    [p.First(0.1), p.First(0.5), p.First(0.9)],
                    [p.Peak(0.1), p.Peak(0.5), p.Peak(0.9)],
                    [p.Last(0.1), p.Last(0.5), p.Last(0.9)],
                    p.YearsLost(LossKind.Frost),
                    p.YearsLost(LossKind.Roots),
                    p.YearsLost(LossKind.Tops),
                    p.StalledDays
                )),
            ],
            byDay ? Rounded(detail.Season.ShareInColour) : null,
            byDay
                ? [.. detail.Colours.Select(c => new ColourCoverOutput(c.Colour, Rounded(c.Cover10), Rounded(c.Cover50), Rounded(c.Cover90)))]
                : null
        );

    private static double[] Rounded(float[] values) => [.. values.Select(v => Math.Round(v, 3))];
}
