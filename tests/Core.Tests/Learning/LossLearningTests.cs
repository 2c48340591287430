using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Learning;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Tests.Learning;

/// <summary>What losses teach: by the closed form, as sure as it says, and nothing where nobody looked.</summary>
public sealed class LossLearningTests
{
    private static readonly LocalDate Planted = A.Day(2015, 5, 20);
    private static readonly LocalDate Today = A.Day(2015, 8, 1);

    // Gelman and others, section 2.4: placenta previa, 437 girls of 980 births under a uniform prior, mean 0.446, between 0.415 and 0.477 at 95 %.
    [Fact]
    public void The_update_is_the_closed_form_of_the_textbook()
    {
        ShareBelief girls = new ShareBelief(1, 1).After(437, 980);
        Assert.Equal(0.446, girls.Mean, 5e-4);
        Assert.Equal(0.415, Beta.InvCDF(girls.Hits, girls.Misses, 0.025), 5e-4);
        Assert.Equal(0.477, Beta.InvCDF(girls.Hits, girls.Misses, 0.975), 5e-4);
        Assert.InRange(girls.Nine.Low, 0.415, girls.Mean);
        Assert.InRange(girls.Nine.High, girls.Mean, 0.477);
    }

    [Fact]
    public void Nine_in_ten_shares_lie_within_what_is_said_of_nine_in_ten()
    {
        var random = new Random(5);
        int within = 0;
        const int Sites = 1000;
        for (int i = 0; i < Sites; i++)
        {
            double share = Beta.Sample(random, LossLearning.Prior.Hits, LossLearning.Prior.Misses);
            int lost = Enumerable.Range(0, 60).Count(_ => random.NextDouble() < share);
            (double low, double high) = LossLearning.Prior.After(lost, 60).Nine;
            within += share >= low && share <= high ? 1 : 0;
        }
        Assert.InRange(within / (double)Sites, 0.87, 0.93);
    }

    [Fact]
    public void Silence_teaches_nothing_and_one_large_planting_is_no_hundred_small_ones()
    {
        Plan plan = A.Plan(
            [A.Pot(), A.Pot(id: "second") with { Name = "Second pot" }],
            A.Palette,
            [
                A.Show("one", Planted, A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 100)),
                A.Show("two", Planted, A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("marigold-orange", 8)) with
                {
                    PlanterId = "second",
                },
            ]
        );
        string pot = plan.Planters[0].Id;
        Observation Entry(ObservationKind kind, string? plant, int? count, LocalDate day) =>
            new(Guid.NewGuid(), pot, plant, day, kind, string.Empty, "Rosa") { Count = count };
        Assert.Equal(0, LossLearning.Of(plan, [], Today).All.Planters);
        // Of another kind, or of the planter as a whole.
        Assert.Equal(0, LossLearning.Of(plan, [Entry(ObservationKind.Peak, "marigold-orange", null, Today)], Today).All.Planters);
        Assert.Equal(0, LossLearning.Of(plan, [Entry(ObservationKind.Note, null, null, Today)], Today).All.Planters);
        // A review looks at all that stands in leaf.
        Assert.Equal(
            (100, 0),
            LossLearning.Of(plan, [Entry(ObservationKind.Reviewed, null, null, Today)], Today).All is { } walked
                ? (walked.Planted, walked.Lost)
                : default
        );
        // Before anything stood there.
        Assert.Equal(0, LossLearning.Of(plan, [Entry(ObservationKind.Died, "petunia-magenta", 5, Planted.PlusDays(-3))], Today).All.Planters);
        Observation wrong = Entry(ObservationKind.Died, "petunia-magenta", 90, Planted.PlusDays(9)) with { IsCorrected = true };
        (IReadOnlyList<LossLearning> kinds, LossLearning all) = LossLearning.Of(
            plan,
            [wrong, Entry(ObservationKind.Died, "petunia-magenta", 20, Planted.PlusDays(9))],
            Today
        );
        LossLearning petunia = Assert.Single(kinds);
        Assert.Equal((100, 20, 1), (petunia.Planted, petunia.Lost, petunia.Planters));
        // One lost of twenty, and two of ten.
        Assert.Equal(3 / 30.0, petunia.Posterior.Mean, 1e-9);
        Assert.Equal(petunia.Posterior, all.Posterior);
        // More cannot be lost than stood there.
        Assert.Equal(100, LossLearning.Of(plan, [Entry(ObservationKind.Eaten, "petunia-magenta", 400, Today)], Today).All.Lost);
    }
}
