using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Leaf that colours as nights cool (ornamental cabbage): the share rises with the count of cool nights since install.</summary>
/// <param name="BelowC">A night below this counts, °C.</param>
/// <param name="FullNights">Nights until the colour is full.</param>
public sealed record CoolNights(double BelowC, int FullNights) : ColourRule
{
    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        int nights = 0;
        int from = Math.Max(0, growing.InstallIndex);
        for (int i = from; i < Math.Min(share.Length, growing.LiftIndex); i++)
        {
            if (growing.Season.Run.MinC[i] < BelowC)
                nights++;
            share[i] = Math.Min(1, (double)nights / FullNights);
        }
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("belowC", BelowC, -5, 20, "°C");
        faults.Range("fullNights", FullNights, 1, 120, "nights");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() => new(ColourRuleKind.CoolNights, [("below", Quantity.Celsius(BelowC)), ("nights", FullNights)]);
}
