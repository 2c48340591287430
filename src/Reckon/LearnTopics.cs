using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Learning;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Reckon;

/// <summary>One entry of a log.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="Day">The day.</param>
/// <param name="What">What was seen.</param>
/// <param name="PlantId">The kind; null for the whole planter.</param>
/// <param name="Count">How many were lost; null where nobody counted.</param>
/// <param name="Rating">Of what was reviewed: from 1 to 5.</param>
/// <param name="CoverPct">Of what was reviewed: share of the surface under leaf and flower, %; null where nobody said.</param>
public sealed record LogEntryInput(
    string PlanterId,
    LocalDate Day,
    ObservationKind What,
    string? PlantId = null,
    int? Count = null,
    int? Rating = null,
    int? CoverPct = null
);

/// <summary>Input of <c>learn</c>.</summary>
/// <param name="PlanFile">Path of a plan.</param>
/// <param name="Weather">The site's weather.</param>
/// <param name="Today">Today.</param>
/// <param name="Log">The log.</param>
public sealed record LearnInput(string PlanFile, WeatherInput Weather, LocalDate Today, IReadOnlyList<LogEntryInput> Log);

/// <summary>How much later a kind opens here than reckoned, days.</summary>
public sealed record DateLearntOutput(string PlantId, int Years, double DaysLate, double Spread, double Low, double High);

/// <summary>How many times as long a kind shows, or as much it covers, as is reckoned.</summary>
public sealed record RatioLearntOutput(string PlantId, int Years, double Times, double Low, double High);

/// <summary>How much later kinds open in a sort of place than elsewhere at the site, days.</summary>
public sealed record PlaceLearntOutput(Exposure Exposure, bool IsBed, int Kinds, int Years, double DaysLate, double Low, double High);

/// <summary>Which share of a kind is lost here; the kind is null for all of which spares are ordered.</summary>
public sealed record LossLearntOutput(string? PlantId, int Planted, int Lost, double Share, double Low, double High);

/// <summary>An entry that teaches no date, and why.</summary>
public sealed record NotLearntOutput(string PlanterId, LocalDate Day, NotLearnt Why);

/// <summary>Output of <c>learn</c>.</summary>
public sealed record LearnOutput(
    IReadOnlyList<DateLearntOutput> Dates,
    IReadOnlyList<RatioLearntOutput> Shows,
    IReadOnlyList<RatioLearntOutput> Fullness,
    IReadOnlyList<PlaceLearntOutput> Places,
    IReadOnlyList<LossLearntOutput> Losses,
    LossLearntOutput AllLosses,
    IReadOnlyList<NotLearntOutput> Left
);

/// <summary>What a log teaches.</summary>
internal static class LearnTopics
{
    private const int MostEntries = 20_000;

    public static Topic Learn { get; } =
        new Topic<LearnInput, LearnOutput>(
            "learn",
            "what a log teaches of a site’s dates, shows, fullness, places and losses: prior, posterior, nine in ten",
            input =>
            {
                Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
                WeatherRecord record = input.Weather.Read();
                var faults = new FaultList();
                if (input.Log.Count is 0 or > MostEntries)
                    faults.Add("log", $"must be 1 to {MostEntries} entries (there are {input.Log.Count})");
                faults.ThrowIfAny();
                List<Observation> log =
                [
                    .. input.Log.Select(e => new Observation(
                        Guid.NewGuid(),
                        e.PlanterId,
                        e.PlantId,
                        e.Day,
                        e.What,
                        e.What == ObservationKind.Note ? "-" : string.Empty,
                        "reckon"
                    )
                    {
                        Count = e.Count,
                        Review =
                            e.What == ObservationKind.Reviewed ? new PlanterReview(e.Rating ?? 0, ReviewVerdict.Keep, CoverPct: e.CoverPct) : null,
                    }),
                ];
                for (int i = 0; i < log.Count && !faults.IsFull; i++)
                    faults.AddAll($"log[{i}]", log[i].Faults(input.Today));
                faults.ThrowIfAny();
                SiteLearning dates = SiteLearning.Of(plan, record, log);
                (IReadOnlyList<LossLearning> losses, LossLearning all) = LossLearning.Of(plan, log, input.Today);
                return (
                    new LearnOutput(
                        [
                            .. dates.Dates.Select(d => new DateLearntOutput(
                                d.Plant.Id,
                                d.Years.Count,
                                Math.Round(d.Posterior.Mean, 2),
                                Math.Round(d.Posterior.Spread, 2),
                                Math.Round(d.Posterior.Nine.Low, 2),
                                Math.Round(d.Posterior.Nine.High, 2)
                            )),
                        ],
                        [.. dates.Shows.Select(Output)],
                        [.. dates.Fullness.Select(Output)],
                        [
                            .. dates.Places.Select(p => new PlaceLearntOutput(
                                p.Exposure,
                                p.IsBed,
                                p.Kinds,
                                p.Years.Count,
                                Math.Round(p.Posterior.Mean, 2),
                                Math.Round(p.Posterior.Nine.Low, 2),
                                Math.Round(p.Posterior.Nine.High, 2)
                            )),
                        ],
                        [.. losses.Select(Output)],
                        Output(all),
                        [.. dates.Left.Select(l => new NotLearntOutput(l.Seen.PlanterId, l.Seen.Day, l.Why))]
                    ),
                    [
                        .. dates.Dates.Select(d => d.Explain()),
                        .. dates.Shows.Select(r => r.Explain()),
                        .. dates.Fullness.Select(r => r.Explain()),
                        .. dates.Places.Select(p => p.Explain()),
                        all.Explain(),
                    ]
                );
            }
        );

    private static RatioLearntOutput Output(RatioLearning of) =>
        new(of.Plant.Id, of.Years.Count, Math.Round(of.Times, 3), Math.Round(of.Nine.Low, 3), Math.Round(of.Nine.High, 3));

    private static LossLearntOutput Output(LossLearning of) =>
        new(
            of.Plant?.Id,
            of.Planted,
            of.Lost,
            Math.Round(of.Posterior.Mean, 4),
            Math.Round(of.Posterior.Nine.Low, 4),
            Math.Round(of.Posterior.Nine.High, 4)
        );
}
