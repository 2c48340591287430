using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Coloured leaf from leaf-out to leaf drop; fall colour when <paramref name="LastDays"/> is given.</summary>
/// <param name="BaseC">Base temperature of the air for leaf-out, °C.</param>
/// <param name="LeafOutCd">Heat since the new year at leaf-out, °C·d.</param>
/// <param name="DropNights">Nights at or below 5 °C after midsummer until the leaves drop.</param>
/// <param name="LastDays">Only the last so many days before the drop; null for the whole season in leaf.</param>
public sealed record InLeaf(double BaseC, double LeafOutCd, int DropNights, double? LastDays = null) : ColourRule
{
    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { LeafOutCd = LeafOutCd * factor };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        bool[] leaf = growing.Season.LeafSeason(BaseC, LeafOutCd, DropNights);
        for (int i = 0; i < share.Length; i++)
            share[i] = leaf[i] ? 1 : 0;
        if (LastDays is { } last)
        {
            for (int i = 0; i < share.Length; i++)
            {
                int ahead = Math.Min(share.Length - 1, i + (int)last);
                bool dropsSoon = leaf[i] && !leaf[ahead];
                share[i] = dropsSoon ? 1 : 0;
            }
        }
        growing.ClearOutside(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -2, 20, "°C");
        faults.Range("leafOutCd", LeafOutCd, 1, 3000, "°C·d");
        faults.Range("dropNights", DropNights, 1, 120, "nights");
        if (LastDays is { } last)
            faults.Range("lastDays", last, 3, 90, "days");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.InLeaf,
            [
                ("last", LastDays is { } l ? Quantity.Days(l) : null),
                ("all", LastDays is null),
                ("sum", Quantity.DegreeDays(LeafOutCd)),
                ("base", Quantity.Celsius(BaseC, 1)),
                ("nights", DropNights),
            ]
        );
}
