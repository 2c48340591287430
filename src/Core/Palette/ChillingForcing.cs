using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// Shrubs, trees and perennials that open on chilling, then warmth: heat of the air counts by the share of its chilling that
/// the plant has had, and by the length of the day. forcing = Σ max(u, min(1, K/K₁))·l(L)·D(b), D the day's degree-days; half the
/// plants are open when it reaches Θ. Chilling K counts from the autumn equinox, a cold climate's and a mild one's alike.
/// </summary>
/// <remarks>
/// The parallel chilling–forcing model (Landsberg 1974; Kramer 1994) with the triangular chilling curve of Hänninen (1990):
/// a day counts wholly at a mean of 5 °C, less down to −3.4 and up to 10.4 °C; references from memory. Heat times day length
/// is the photothermal unit of agronomy. The figures are fitted to customary dates, from memory (docs/accuracy.md).
/// </remarks>
/// <param name="BaseC">b: base temperature of the air, °C (single sine).</param>
/// <param name="ChillDays">K₁: days of chilling from which heat counts in full.</param>
/// <param name="SumCd">Θ: forcing at median opening, °C·d.</param>
/// <param name="ShowDays">Days from half open to half over; may cross the turn of the year.</param>
public sealed record ChillingForcing(double BaseC, double ChillDays, double SumCd, double ShowDays) : ColourRule
{
    /// <summary>
    /// Day length at which heat begins to count, hours, from the shortest day on; in full at 12. Null for what opens in any
    /// mild spell after autumn, whatever the day's length.
    /// </summary>
    public double? LightFromH { get; init; }

    /// <summary>u: share of the heat that counts without any chilling, 0 to 1: in winters that hardly chill it opens late, not never.</summary>
    public double ShareUnchilled { get; init; }

    /// <summary>A fortnight whose days reach this browns its heads, °C; null where heat does nothing to them.</summary>
    public double? BrownsAboveC { get; init; }

    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { SumCd = SumCd * factor };

    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        GrowingSeason season = growing.Season;
        double[] heat = season.Heat(BaseC);
        double[] chill = season.ChillDays;
        double[] light = season.SpringLight(LightFromH);
        foreach (int equinox in season.AutumnEquinoxes)
        {
            double forcing = 0;
            double perChill = 1 / ChillDays;
            for (int d = Math.Max(1, equinox); d < Math.Min(heat.Length, equinox + 365); d++)
            {
                double warmth = light[d] * (heat[d] - heat[d - 1]);
                if (warmth <= 0)
                    continue;
                forcing += Math.Clamp(chill[d] * perChill, ShareUnchilled, 1) * warmth;
                if (forcing < SumCd)
                    continue;
                int opens = HeldBack(growing, equinox, d);
                Show(share, growing, opens, DaysToBrown(growing, opens, BrownsAboveC, ShowDays));
                break;
            }
        }
        growing.ClearOutside(share);
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -10, 20, "°C");
        faults.Range("chillDays", ChillDays, 0.1, 200, "days");
        faults.Range("sumCd", SumCd, 0.1, 6000, "°C·d");
        faults.Range("showDays", ShowDays, 1, 300, "days");
        faults.Range("shareUnchilled", ShareUnchilled, 0, 1, string.Empty);
        LightFault(faults, LightFromH);
        if (BrownsAboveC is { } brown)
            faults.Range("brownsAboveC", brown, 15, 45, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.ChillingForcing,
            [
                ("light", LightFromH is { } h ? Quantity.Hours(h, 1) : null),
                ("hasLight", LightFromH is not null),
                ("base", Quantity.Celsius(BaseC, 1)),
                ("sum", Quantity.DegreeDays(SumCd, 1)),
                ("least", ShareUnchilled > 0 ? Quantity.Number(ShareUnchilled, 2) : null),
                ("hasLeast", ShareUnchilled > 0),
                ("chill", Quantity.Number(ChillDays, 1)),
                ("days", Quantity.Days(ShowDays)),
                .. Brown(BrownsAboveC),
            ]
        );
}
