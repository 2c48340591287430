using UnrulyMeadow.Core.Trials;

namespace UnrulyMeadow.Reckon;

/// <summary>A block of a trial.</summary>
/// <param name="Id">Its own id.</param>
/// <param name="Plots">Places in it, each for one kind.</param>
public sealed record TrialBlockInput(string Id, int Plots);

/// <summary>How a kind did on a plot.</summary>
/// <param name="KindId">The kind.</param>
/// <param name="BlockId">The block.</param>
/// <param name="Score">How well; more is better.</param>
public sealed record TrialScoreInput(string KindId, string BlockId, double Score);

/// <summary>Input of <c>trial</c>.</summary>
/// <param name="Kinds">Ids of the kinds.</param>
/// <param name="Blocks">The blocks.</param>
/// <param name="Seed">Where chance begins.</param>
/// <param name="Scores">Scores of plots; null before there are any.</param>
public sealed record TrialInput(
    IReadOnlyList<string> Kinds,
    IReadOnlyList<TrialBlockInput> Blocks,
    int Seed = 1,
    IReadOnlyList<TrialScoreInput>? Scores = null
);

/// <summary>What stands where.</summary>
public sealed record TrialPlotOutput(string BlockId, int Place, string KindId);

/// <summary>How a kind did.</summary>
public sealed record KindInTrialOutput(string KindId, int Plots, double Mean, double Low, double High, double BehindBest, bool MayBeBest);

/// <summary>What a trial says.</summary>
public sealed record TrialResultOutput(IReadOnlyList<KindInTrialOutput> Kinds, double? Spread, int Freedom, double? F, double? ByChance);

/// <summary>Output of <c>trial</c>; no result before there are scores.</summary>
public sealed record TrialOutput(IReadOnlyList<TrialPlotOutput> Layout, TrialResultOutput? Result);

/// <summary>Trials of kinds.</summary>
internal static class TrialTopics
{
    private const int Digits = 4;

    public static Topic Trial { get; } =
        new Topic<TrialInput, TrialOutput>(
            "trial",
            "which kinds do well: a layout with repeats and chance, and what scores of its plots say",
            input =>
            {
                IReadOnlyList<TrialPlot> plots = TrialLayout.Of(
                    input.Kinds,
                    [.. input.Blocks.Select(b => new TrialBlock(b.Id, b.Plots))],
                    input.Seed
                );
                TrialResult? result = input.Scores is { Count: > 0 } scores
                    ? TrialResult.Of([.. scores.Select(s => new TrialScore(s.KindId, s.BlockId, s.Score))])
                    : null;
                return (
                    new TrialOutput(
                        [.. plots.Select(p => new TrialPlotOutput(p.BlockId, p.Place, p.KindId))],
                        result is null
                            ? null
                            : new TrialResultOutput(
                                [
                                    .. result.Kinds.Select(k => new KindInTrialOutput(
                                        k.KindId,
                                        k.Plots,
                                        Round(k.Mean),
                                        Round(k.Low),
                                        Round(k.High),
                                        Round(k.BehindBest),
                                        k.MayBeBest
                                    )),
                                ],
                                Round(result.Spread),
                                result.Freedom,
                                Round(result.F),
                                Round(result.ByChance)
                            )
                    ),
                    result is null ? [] : [result.Explain()]
                );
            }
        );

    private static double Round(double value) => Math.Round(value, Digits);

    private static double? Round(double? value) => value is { } known ? Round(known) : null;
}
