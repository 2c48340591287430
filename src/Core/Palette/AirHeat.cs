using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>What flowers in summer on the heat since the shortest day: opens when it reaches a sum, and shows for some days.</summary>
/// <param name="BaseC">Base temperature of the air, °C (single sine).</param>
/// <param name="FirstCd">Heat since the shortest day at median opening, °C·d.</param>
/// <param name="ShowDays">Days from half open to half over; may cross the turn of the year.</param>
public sealed record AirHeat(double BaseC, double FirstCd, double ShowDays) : ColourRule
{
    /// <summary>A fortnight whose days reach this browns its heads, °C; null where heat does nothing to them.</summary>
    public double? BrownsAboveC { get; init; }

    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { FirstCd = FirstCd * factor };

    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        double[] heat = growing.Season.YearHeat(BaseC);
        for (int i = 1; i < heat.Length; i++)
        {
            // The day after the shortest begins anew: what yesterday had does not count.
            double before = heat[i - 1] > heat[i] ? 0 : heat[i - 1];
            if (heat[i] >= FirstCd && before < FirstCd && heat[i] > before)
            {
                int opens = HeldBack(growing, i - 200, i);
                double shows = DaysToBrown(growing, opens, BrownsAboveC, ShowDays);
                Show(share, growing, opens, shows);
            }
        }
        growing.ClearOutside(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -2, 20, "°C");
        faults.Range("firstCd", FirstCd, 1, 6000, "°C·d");
        faults.Range("showDays", ShowDays, 1, 300, "days");
        if (BrownsAboveC is { } brown)
            faults.Range("brownsAboveC", brown, 15, 45, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.AirHeat,
            [("sum", Quantity.DegreeDays(FirstCd)), ("base", Quantity.Celsius(BaseC, 1)), ("days", Quantity.Days(ShowDays)), .. Brown(BrownsAboveC)]
        );
}
