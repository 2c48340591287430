using MathNet.Numerics.Distributions;
using UnrulyMeadow.Core.Trials;

namespace UnrulyMeadow.Core.Tests.Trials;

/// <summary>Trials are laid out fairly, judged as the handbook does, and are as sure as they say.</summary>
public sealed class TrialTests
{
    private static readonly string[] Reps = ["I", "II", "III", "IV"];

    // Gomez and Gomez, 2nd ed., table 2.5: rice at six seed rates, kg/ha, in four blocks; table 2.6: kinds 1 198 331 with 5 degrees of freedom, chance
    // 1 658 376 with 15, F 2.17, and a coefficient of variation of 6.7 %. Recalled; its sums agree with its data.
    [Fact, FromMemory]
    public void A_complete_trial_is_judged_as_the_handbook_does()
    {
        (string Kind, double[] Scores)[] table =
        [
            ("25", [5113, 5398, 5307, 4678]),
            ("50", [5346, 5952, 4719, 4264]),
            ("75", [5272, 5713, 5483, 4749]),
            ("100", [5164, 4831, 4986, 4410]),
            ("125", [4804, 4848, 4432, 4748]),
            ("150", [5254, 4542, 4919, 4098]),
        ];
        TrialResult result = TrialResult.Of([.. table.SelectMany(r => r.Scores.Select((s, i) => new TrialScore(r.Kind, Reps[i], s)))]);
        Assert.Equal(15, result.Freedom);
        Assert.Equal(1_658_376, result.Spread!.Value * result.Spread.Value * 15, 0.5);
        Assert.Equal(2.17, result.F!.Value, 0.005);
        Assert.Equal(0.067, result.Spread.Value / result.Kinds.Average(k => k.Mean), 5e-4);
        Assert.False(result.IsClear);
        // In a complete trial a kind's score is the plain mean of its plots.
        Assert.All(result.Kinds, k => Assert.Equal(table.Single(t => t.Kind == k.KindId).Scores.Average(), k.Mean, 1e-6));
        Assert.Equal("75", result.Kinds[0].KindId);
    }

    [Fact]
    public void Layouts_are_fair_whatever_the_blocks_and_the_same_seed_gives_the_same()
    {
        var random = new Random(3);
        for (int run = 0; run < 200; run++)
        {
            string[] kinds = [.. Enumerable.Range(0, 2 + random.Next(12)).Select(k => $"kind-{k}")];
            var blocks = new List<TrialBlock>();
            while (blocks.Sum(b => b.Plots) < 2 * kinds.Length)
                blocks.Add(new TrialBlock($"block-{blocks.Count}", 3 + random.Next(12)));
            IReadOnlyList<TrialPlot> plots = TrialLayout.Of(kinds, blocks, run);
            Assert.Equal(plots, TrialLayout.Of(kinds, blocks, run));
            Assert.Equal(blocks.SelectMany(b => Enumerable.Range(1, b.Plots).Select(p => (b.Id, p))), plots.Select(p => (p.BlockId, p.Place)));
            int[] often = [.. kinds.Select(k => plots.Count(p => p.KindId == k))];
            Assert.InRange(often.Max() - often.Min(), 0, 1);
            Assert.All(blocks, b =>
                Assert.All(kinds, k =>
                    Assert.InRange(
                        plots.Count(p => p.BlockId == b.Id && p.KindId == k),
                        b.Plots / kinds.Length,
                        (b.Plots + kinds.Length - 1) / kinds.Length
                    )
                )
            );
            // Every layout can be judged.
            Assert.Equal(kinds.Length, TrialResult.Of([.. plots.Select(p => new TrialScore(p.KindId, p.BlockId, random.NextDouble()))]).Kinds.Count);
        }
    }

    [Fact]
    public void Nine_in_ten_intervals_hold_what_is_true_and_the_truly_best_is_seldom_dismissed()
    {
        var random = new Random(11);
        const int Trials = 300;
        string[] kinds = ["a", "b", "c", "d", "e", "f"];
        double[] truth = [3.0, 3.2, 3.4, 3.6, 3.8, 4.0];
        // Blocks that hold four of the six.
        TrialBlock[] blocks = [.. Enumerable.Range(0, 9).Select(b => new TrialBlock($"block-{b}", 4))];
        int held = 0;
        int kept = 0;
        for (int trial = 0; trial < Trials; trial++)
        {
            double[] ofBlock = [.. blocks.Select(_ => Normal.Sample(random, 0, 1))];
            TrialResult result = TrialResult.Of([
                .. TrialLayout
                    .Of(kinds, blocks, trial)
                    .Select(p => new TrialScore(
                        p.KindId,
                        p.BlockId,
                        truth[Array.IndexOf(kinds, p.KindId)]
                            + ofBlock[Array.FindIndex(blocks, b => b.Id == p.BlockId)]
                            + Normal.Sample(random, 0, 0.4)
                    )),
            ]);
            double middle = ofBlock.Average();
            held += result.Kinds.Count(k =>
                k.Low <= truth[Array.IndexOf(kinds, k.KindId)] + middle && k.High >= truth[Array.IndexOf(kinds, k.KindId)] + middle
            );
            kept += result.Kinds.Single(k => k.KindId == "f").MayBeBest ? 1 : 0;
        }
        Assert.InRange(held / (double)(Trials * kinds.Length), 0.85, 0.95);
        Assert.InRange(kept / (double)Trials, 0.9, 1);
    }

    [Fact]
    public void Where_kinds_are_alike_chance_is_seldom_taken_for_a_difference()
    {
        var random = new Random(17);
        int clear = 0;
        const int Trials = 400;
        for (int trial = 0; trial < Trials; trial++)
        {
            clear += TrialResult
                .Of([.. Reps.SelectMany(r => Enumerable.Range(0, 5).Select(k => new TrialScore($"{k}", r, Normal.Sample(random, 3, 1))))])
                .IsClear
                ? 1
                : 0;
        }
        Assert.InRange(clear / (double)Trials, 0.05, 0.15);
    }

    [Fact]
    public void What_cannot_be_compared_is_said()
    {
        Assert.Throws<InvalidInputException>(() => TrialLayout.Of(["a"], [new TrialBlock("b", 9)], 1));
        Assert.Throws<InvalidInputException>(() => TrialLayout.Of(["a", "b", "a"], [new TrialBlock("b", 9)], 1));
        Assert.Throws<InvalidInputException>(() => TrialLayout.Of(["a", "b", "c"], [new TrialBlock("b", 5)], 1));
        Assert.Throws<InvalidInputException>(() => TrialLayout.Of(["a", "b"], [new TrialBlock("b", 1), new TrialBlock("c", 4)], 1));
        Assert.Throws<InvalidInputException>(() => TrialResult.Of([new("a", "one", 3), new("b", "one", 4), new("c", "two", 3), new("d", "two", 4)]));
        Assert.Throws<InvalidInputException>(() => TrialResult.Of([new("a", "one", 3), new("b", "one", double.NaN)]));
        // One plot each tells nothing of chance: nothing is told apart, and nothing is claimed.
        TrialResult once = TrialResult.Of([new("a", "one", 3), new("b", "one", 4)]);
        Assert.Equal((0, null, true), (once.Freedom, once.ByChance, once.Kinds.All(k => k.MayBeBest)));
        // What agrees to the last digit is as sure as can be.
        Assert.True(TrialResult.Of([new("a", "one", 3), new("b", "one", 4), new("a", "two", 3), new("b", "two", 4)]).IsClear);
    }
}
