using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// What waits for shortening days: once the day is shorter than its own length, after the longest day, it takes so many days to
/// open; heat holds it back, as growers know of chrysanthemums. Day length by FAO-56 eq. 34; a photothermal rule as for other
/// short-day plants, its figures from memory.
/// </summary>
/// <param name="BelowH">Day length below which it begins, hours; 24 for what begins at the longest day.</param>
/// <param name="Days">Days that it then takes in weeks as cool as <paramref name="CoolC"/>.</param>
/// <param name="CoolC">A week's mean up to which a day counts wholly, °C.</param>
/// <param name="HotC">A week's mean from which a day counts nothing, °C.</param>
/// <param name="ShowDays">Days from half open to half over.</param>
public sealed record ShortDays(double BelowH, double Days, double CoolC, double HotC, double ShowDays) : ColourRule
{
    private const int LongestWait = 240;

    /// <summary>A night at or below this ends the show, °C; null where frost does nothing to it.</summary>
    public double? EndsAtC { get; init; }

    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { Days = Days * factor };

    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        GrowingSeason season = growing.Season;
        double[] week = season.WeekMeanC;
        foreach (int longest in season.LongestDays)
        {
            double had = 0;
            int end = Math.Min(week.Length, longest + LongestWait);
            for (int d = longest; d < end; d++)
            {
                if (season.DayLengthH[d] >= BelowH)
                    continue;
                had += Math.Clamp((HotC - week[d]) / (HotC - CoolC), 0, 1);
                if (had < Days)
                    continue;
                int opens = HeldBack(growing, longest - 120, d);
                Show(share, growing, opens, season.DaysUntilNight(opens, EndsAtC, ShowDays));
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
        faults.Range("belowH", BelowH, 6, 24, "hours");
        faults.Range("days", Days, 1, 150, "days");
        faults.Range("coolC", CoolC, -5, 35, "°C");
        faults.Range("hotC", HotC, CoolC + 0.5, 50, "°C");
        faults.Range("showDays", ShowDays, 1, 240, "days");
        if (EndsAtC is { } ends)
            faults.Range("endsAtC", ends, -40, 5, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.ShortDays,
            [
                ("count", Quantity.Number(Days)),
                ("below", Quantity.Hours(BelowH, 1)),
                ("afterMidsummer", BelowH >= 24),
                ("hot", Quantity.Celsius(HotC, 1)),
                ("span", Quantity.CelsiusApart(HotC - CoolC, 1)),
                ("days", Quantity.Days(ShowDays)),
                ("ends", EndsAtC is { } ends ? Quantity.Celsius(ends) : null),
                ("hasEnd", EndsAtC is not null),
            ]
        );
}
