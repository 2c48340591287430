using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Winter stems: from leaf drop to leaf-out.</summary>
/// <param name="BaseC">Base temperature of the air for leaf-out, °C.</param>
/// <param name="LeafOutCd">Heat since the new year at leaf-out, °C·d.</param>
/// <param name="DropNights">Nights at or below 5 °C after midsummer until the leaves drop.</param>
public sealed record BareStem(double BaseC, double LeafOutCd, int DropNights) : ColourRule
{
    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        bool[] leaf = growing.Season.LeafSeason(BaseC, LeafOutCd, DropNights);
        for (int i = 0; i < share.Length; i++)
            share[i] = leaf[i] ? 0 : 1;
        growing.ClearOutside(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults() => new InLeaf(BaseC, LeafOutCd, DropNights, null).Faults();

    /// <inheritdoc />
    public override Fact Describe() =>
        new(ColourRuleKind.BareStem, [("nights", DropNights), ("sum", Quantity.DegreeDays(LeafOutCd)), ("base", Quantity.Celsius(BaseC, 1))]);
}
