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
public sealed record LogEntryInput(string PlanterId, LocalDate Day, ObservationKind What, string? PlantId = null, int? Count = null);

/// <summary>Input of <c>learn</c>.</summary>
/// <param name="PlanFile">Path of a plan.</param>
/// <param name="Weather">The site's weather.</param>
/// <param name="Today">Today.</param>
/// <param name="Log">The log.</param>
public sealed record LearnInput(string PlanFile, WeatherInput Weather, LocalDate Today, IReadOnlyList<LogEntryInput> Log);

/// <summary>How much later a kind opens here than reckoned, days.</summary>
public sealed record DateLearntOutput(string PlantId, int Years, double DaysLate, double Spread, double Low, double High);

/// <summary>Which share of a kind is lost here; the kind is null for all of which spares are ordered.</summary>
public sealed record LossLearntOutput(string? PlantId, int Planted, int Lost, double Share, double Low, double High);

/// <summary>An entry that teaches no date, and why.</summary>
public sealed record NotLearntOutput(string PlanterId, LocalDate Day, NotLearnt Why);

/// <summary>Output of <c>learn</c>.</summary>
public sealed record LearnOutput(
    IReadOnlyList<DateLearntOutput> Dates,
    IReadOnlyList<LossLearntOutput> Losses,
    LossLearntOutput AllLosses,
    IReadOnlyList<NotLearntOutput> Left
);

/// <summary>What a log teaches.</summary>
internal static class LearnTopics
{
    private const int MostEntries = 20_000;

    public static Topic Learn { get; } =
        new Topic<LearnInput, LearnOutput>("learn", "what first colours and losses in a log teach of a site: prior, posterior, nine in ten", input =>
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
                    [.. losses.Select(Output)],
                    Output(all),
                    [.. dates.Left.Select(l => new NotLearntOutput(l.Seen.PlanterId, l.Seen.Day, l.Why))]
                ),
                [.. dates.Dates.Select(d => d.Explain()), all.Explain()]
            );
        });

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
