using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// Started tubers and other plants of hot places (canna, dahlia, caladium, elephant ear): flower or full leaf follows the heat
/// since they went out, until frost. Figures from memory.
/// </summary>
/// <param name="BaseC">Base temperature of the air, °C (single sine).</param>
/// <param name="SumCd">Heat from planting-out to half open, °C·d.</param>
public sealed record HeatFromInstall(double BaseC, double SumCd) : ColourRule
{
    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { SumCd = SumCd * factor };

    /// <inheritdoc />
    public override bool FollowsTheCrew => true;

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        double[] heat = growing.Season.Heat(BaseC);
        int from = Math.Max(0, growing.InstallIndex);
        int to = Math.Min(share.Length, growing.LiftIndex);
        double wanted = growing.InColour ? SumCd * FromInstall.ShownBefore : SumCd;
        // What stood there before the run has had its heat.
        for (int i = from; i < to; i++)
        {
            double had = heat[i] - (from == 0 ? 0 : heat[from - 1]);
            share[i] = growing.InstallIndex < 0 ? 1 : Math.Clamp(((had / wanted) - 0.75) / 0.5, 0, 1);
        }
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, 0, 20, "°C");
        faults.Range("sumCd", SumCd, 1, 3000, "°C·d");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(ColourRuleKind.HeatFromInstall, [("sum", Quantity.DegreeDays(SumCd)), ("base", Quantity.Celsius(BaseC, 1))]);
}
