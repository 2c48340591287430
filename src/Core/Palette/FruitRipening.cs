using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// Berries, hips and cones: they colour once the year's heat has ripened them, and not before their own day length; they hang
/// until birds have them or hard frost spoils them. Figures from memory.
/// </summary>
/// <param name="BaseC">Base temperature of the air, °C (single sine).</param>
/// <param name="SumCd">Heat since the shortest day that ripens them, °C·d.</param>
/// <param name="BelowH">Day length after the longest day before which they do not colour, hours.</param>
/// <param name="ShowDays">Days until birds have them (common practice).</param>
public sealed record FruitRipening(double BaseC, double SumCd, double BelowH, double ShowDays) : ColourRule
{
    /// <summary>A night at or below this spoils them, °C; null where none does.</summary>
    public double? EndsAtC { get; init; }

    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { SumCd = SumCd * factor };

    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        GrowingSeason season = growing.Season;
        double[] heat = season.YearHeat(BaseC);
        foreach (int longest in season.LongestDays)
        {
            // The heat of a year whose spring lies before the run is not known; its fruit is taken to be ripe in time.
            bool isWhole = longest > 170;
            int end = Math.Min(heat.Length, longest + 182);
            int d = longest;
            while (d < end && (season.DayLengthH[d] >= BelowH || (isWhole && heat[d] < SumCd)))
                d++;
            if (d < end)
                Show(share, growing, d, season.DaysUntilNight(d, EndsAtC, ShowDays));
        }
        growing.ClearOutside(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -2, 20, "°C");
        faults.Range("sumCd", SumCd, 1, 6000, "°C·d");
        faults.Range("belowH", BelowH, 6, 24, "hours");
        faults.Range("showDays", ShowDays, 1, 300, "days");
        if (EndsAtC is { } ends)
            faults.Range("endsAtC", ends, -40, 5, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.FruitRipening,
            [
                ("sum", Quantity.DegreeDays(SumCd)),
                ("base", Quantity.Celsius(BaseC, 1)),
                ("below", Quantity.Hours(BelowH, 1)),
                ("days", Quantity.Days(ShowDays)),
                ("weeks", Quantity.Weeks(ShowDays / 7)),
                ("ends", EndsAtC is { } ends ? Quantity.Celsius(ends) : null),
                ("hasEnd", EndsAtC is not null),
            ]
        );
}
