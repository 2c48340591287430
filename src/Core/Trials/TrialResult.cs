using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Trials;

/// <summary>How one kind did on one plot.</summary>
/// <param name="KindId">The kind.</param>
/// <param name="BlockId">The block.</param>
/// <param name="Score">How well: a rating, a share that lived, days in colour. More is better.</param>
public sealed record TrialScore(string KindId, string BlockId, double Score);

/// <summary>How one kind did in a trial.</summary>
/// <param name="KindId">The kind.</param>
/// <param name="Plots">Plots on which it was scored.</param>
/// <param name="Mean">Its score in the middle of all blocks.</param>
/// <param name="Low">The lower end of what nine in ten lie between; the mean itself where nothing tells of chance.</param>
/// <param name="High">The upper end.</param>
/// <param name="BehindBest">By how much it is behind the best; 0 for the best.</param>
/// <param name="MayBeBest">True where it cannot be told from the best.</param>
public sealed record KindInTrial(string KindId, int Plots, double Mean, double Low, double High, double BehindBest, bool MayBeBest);

/// <summary>
/// What a trial says: scores by the sum of what the kind and what the block bring, by least squares; the variance of what is left is that of chance
/// (K. A. Gomez and A. A. Gomez, Statistical Procedures for Agricultural Research, 2nd ed., chapter 2; for incomplete blocks, Yates, intra-block).
/// </summary>
/// <param name="Kinds">The kinds, the best first.</param>
/// <param name="Spread">Standard deviation of chance; null where nothing tells of it.</param>
/// <param name="Freedom">Degrees of freedom of chance, 0 or more.</param>
/// <param name="F">The variance that kinds bring, as a multiple of that of chance; null where nothing tells of it.</param>
/// <param name="ByChance">Odds that chance alone sets kinds so far apart; null where nothing tells of it.</param>
public sealed record TrialResult(IReadOnlyList<KindInTrial> Kinds, double? Spread, int Freedom, double? F, double? ByChance)
{
    // Nine in ten; of kinds that are compared with the best, one in ten trials may tell any apart wrongly, shared among them (Bonferroni).
    private const double Outside = 0.1;

    /// <summary>True where kinds are further apart than chance sets them in nine trials of ten.</summary>
    public bool IsClear => ByChance is < Outside;

    /// <summary>Judges a trial.</summary>
    /// <param name="scores">Scores of plots.</param>
    /// <exception cref="InvalidInputException">Fewer than two kinds, a score that is no number, or kinds that cannot be compared.</exception>
    public static TrialResult Of(IReadOnlyList<TrialScore> scores)
    {
        List<string> kinds = [.. scores.Select(s => s.KindId).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];
        List<string> blocks = [.. scores.Select(s => s.BlockId).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];
        var faults = new FaultList();
        if (kinds.Count < 2)
            faults.Add("scores", "must be of two kinds at least");
        for (int i = 0; i < scores.Count; i++)
        {
            if (!double.IsFinite(scores[i].Score) || Math.Abs(scores[i].Score) > 1e9)
                faults.Add($"scores[{i}].score", "must be a number");
        }
        if (faults.IsEmpty && !TrialLayout.IsConnected(scores.Select(s => (s.KindId, s.BlockId))))
            faults.Add("scores", "are of kinds that share no block with the others, nor with any that does: they cannot be compared");
        faults.ThrowIfAny();

        // Columns: one for each block, then one for each kind but the first, which is the block's own.
        int columns = blocks.Count + kinds.Count - 1;
        Matrix<double> x = Matrix<double>.Build.Dense(scores.Count, columns);
        Vector<double> y = Vector<double>.Build.Dense([.. scores.Select(s => s.Score)]);
        for (int i = 0; i < scores.Count; i++)
        {
            x[i, blocks.IndexOf(scores[i].BlockId)] = 1;
            if (kinds.IndexOf(scores[i].KindId) is > 0 and var kind)
                x[i, blocks.Count + kind - 1] = 1;
        }
        Matrix<double> inverse = x.TransposeThisAndMultiply(x).Inverse();
        Vector<double> found = inverse * x.TransposeThisAndMultiply(y);
        double left = (y - (x * found)).DotProduct(y - (x * found));
        double ofBlocks = scores
            .GroupBy(s => s.BlockId, StringComparer.Ordinal)
            .Sum(g => g.Average(s => s.Score) is var mean ? g.Sum(s => (s.Score - mean) * (s.Score - mean)) : 0);
        int freedom = scores.Count - columns;
        double? variance = freedom > 0 ? Math.Max(0, left) / freedom : null;
        double ofKinds = Math.Max(0, ofBlocks - left) / (kinds.Count - 1);
        double? f = variance is > 1e-12 ? ofKinds / variance : null;

        Vector<double> InTheMiddle(int kind)
        {
            Vector<double> middle = Vector<double>.Build.Dense(columns, c => c < blocks.Count ? 1.0 / blocks.Count : 0);
            if (kind > 0)
                middle[blocks.Count + kind - 1] = 1;
            return middle;
        }
        double ErrorOf(Vector<double> of) => Math.Sqrt(Math.Max(0, (variance ?? 0) * of.DotProduct(inverse * of)));
        double within = freedom > 0 ? StudentT.InvCDF(0, 1, freedom, 1 - (Outside / 2)) : 0;
        double apart = freedom > 0 ? StudentT.InvCDF(0, 1, freedom, 1 - (Outside / (kinds.Count - 1))) : 0;
        double[] means = [.. kinds.Select((_, k) => InTheMiddle(k).DotProduct(found))];
        int best = Array.IndexOf(means, means.Max());
        return new TrialResult(
            [
                .. kinds
                    .Select(
                        (id, k) =>
                        {
                            double error = ErrorOf(InTheMiddle(k)) * within;
                            double behind = means[best] - means[k];
                            return new KindInTrial(
                                id,
                                scores.Count(s => s.KindId == id),
                                means[k],
                                means[k] - error,
                                means[k] + error,
                                behind,
                                freedom <= 0 || behind <= (apart * ErrorOf(InTheMiddle(best) - InTheMiddle(k))) + 1e-9
                            );
                        }
                    )
                    .OrderByDescending(k => k.Mean)
                    .ThenBy(k => k.KindId, StringComparer.Ordinal),
            ],
            variance is { } v ? Math.Sqrt(v) : null,
            freedom,
            f,
            variance is null ? null
                : f is { } ratio ? 1 - FisherSnedecor.CDF(kinds.Count - 1, freedom, ratio)
                : ofKinds > 1e-12 ? 0
                : 1
        );
    }

    /// <summary>The answer, and the arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            WorkingKind.TrialResult,
            Quantity.Number(Kinds[0].Mean, 2),
            [new WorkingInput(InputName.KindsTried, Kinds.Count), new WorkingInput(InputName.PlotsScored, Kinds.Sum(k => k.Plots))],
            [
                new Fact(
                    WorkingPhrase.TrialAnswer,
                    ("best", Kinds[0].KindId),
                    ("clear", IsClear),
                    ("alike", Kinds.Count(k => k.MayBeBest) - 1 is > 0 and var alike ? alike : null),
                    ("low", Quantity.Number(Kinds[0].Low, 2)),
                    ("high", Quantity.Number(Kinds[0].High, 2))
                ),
                new Fact(
                    WorkingPhrase.TrialChance,
                    ("spread", Spread is { } spread ? Quantity.Number(spread, 2) : null),
                    ("freedom", Freedom),
                    ("odds", ByChance is { } odds ? Quantity.Share(odds) : null)
                ),
            ]
        );
}
