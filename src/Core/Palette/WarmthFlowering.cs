using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// Pansies, violas and their like: they flower in proportion to the warmth of the past fortnight, hardly at all in hard cold,
/// and are spent by heat. That the rate of progress to flower rises linearly with mean temperature is published for pansies
/// (Adams, Pearson and Hadley 1997; from memory); the bounds are common practice.
/// </summary>
/// <param name="FromC">A fortnight's mean from which they flower, °C.</param>
/// <param name="FullC">A fortnight's mean at which they flower in full, °C.</param>
/// <param name="HeatCeilingC">A week's mean above which they are spent, °C.</param>
public sealed record WarmthFlowering(double FromC, double FullC, double HeatCeilingC) : ColourRule
{
    // Flowers that opened before the cold stand on for a while, but none follow.
    private const double HardColdC = 2.5;

    /// <inheritdoc />
    public override bool FollowsTheCrew => true;

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        double[] fortnight = growing.Season.FortnightMeanC;
        double[] week = growing.Season.WeekMeanC;
        int from = Math.Max(0, growing.InstallIndex);
        int to = Math.Min(share.Length, growing.LiftIndex);
        double level = 1;
        for (int i = from; i < to; i++)
        {
            level = Math.Clamp(level + (week[i] > HeatCeilingC ? -0.1 : 0.05), 0, 1);
            double warmth = Math.Clamp((fortnight[i] - FromC) / (FullC - FromC), 0, 1);
            // What was bought in flower brings its flowers along for about a fortnight.
            double brought = growing.InstallIndex < 0 ? 0 : 1 - ((i - growing.InstallIndex) / 21.0);
            share[i] = level * Math.Max(warmth, brought) * Math.Clamp((week[i] - HardColdC + 2) / 2, 0.05, 1);
        }
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("fromC", FromC, -5, 20, "°C");
        faults.Range("fullC", FullC, FromC + 1, 35, "°C");
        faults.Range("heatCeilingC", HeatCeilingC, FullC, 45, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.WarmthFlowering,
            [
                ("from", Quantity.Celsius(FromC, 1)),
                ("span", Quantity.CelsiusApart(FullC - FromC, 1)),
                ("cold", Quantity.Celsius(HardColdC, 1)),
                ("ceiling", Quantity.Celsius(HeatCeilingC)),
            ]
        );
}
