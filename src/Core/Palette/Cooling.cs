using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>What opens as the year cools: fall crocus, asters, bud-flowering ling.</summary>
/// <param name="BelowC">Half open when, after 1 August (1 February in the south), a week's mean air first falls below this, °C.</param>
/// <param name="ShowDays">Days from half open to half over.</param>
public sealed record Cooling(double BelowC, double ShowDays) : ColourRule
{
    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        double[] week = growing.Season.WeekMeanC;
        foreach (int turn in growing.Season.LateSummers)
        {
            int d = turn;
            while (d < week.Length && d < turn + 240 && week[d] >= BelowC)
                d++;
            if (d < week.Length && d < turn + 240)
                Show(share, growing, d, ShowDays);
        }
        growing.ClearOutside(share);
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("belowC", BelowC, -5, 30, "°C");
        faults.Range("showDays", ShowDays, 1, 240, "days");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() => new(ColourRuleKind.Cooling, [("below", Quantity.Celsius(BelowC, 1)), ("days", Quantity.Days(ShowDays))]);
}
