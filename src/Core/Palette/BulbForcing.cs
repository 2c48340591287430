using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// Spring bulbs: heat at bulb depth counts by the cold that the bulb has had and by the length of the day.
/// forcing = Σ g(C)·l(L)·max(0, S−b), g = clip((C−C₀)/w, 0, 1), l = clip((L−L₀)/(12−L₀), 0, 1) from the shortest day on;
/// half the plants are open when it reaches Θ. Heat times day length is the photothermal unit of agronomy; the form and
/// the figures are fitted to customary dates of six climates, from memory (docs/accuracy.md).
/// </summary>
/// <remarks>
/// A container that freezes around the bulb sets it back: in winters that freeze it through it opens no sooner than a bed,
/// under whose frost roots go on in open ground.
/// Cold counts from the day the soil falls below 13 °C; bulbs planted later than that count it from their planting. So a
/// bulb in its first year flowers as an established one when it was planted in time, and later when it was not.
/// </remarks>
/// <param name="BaseC">b: base temperature at bulb depth, °C.</param>
/// <param name="ColdStartWeeks">C₀: weeks of cold before any heat counts; below 0 where some heat counts without cold.</param>
/// <param name="ColdSpanWeeks">w: further weeks until heat counts in full.</param>
/// <param name="ThresholdCd">Θ: forcing at median open colour, °C·d.</param>
/// <param name="ShowDays">Days from half open to half over.</param>
public sealed record BulbForcing(double BaseC, double ColdStartWeeks, double ColdSpanWeeks, double ThresholdCd, double ShowDays) : ColourRule
{
    /// <summary>At or below this a bulb in a container lies frozen, and the roots that it made are lost, °C (from memory).</summary>
    public const double FrozenAtC = -2;

    /// <summary>Share of its forcing that a bulb takes more for each day that it lay frozen, to grow roots anew (from memory).</summary>
    public const double RegrowthShare = 0.025;

    /// <summary>Frozen days beyond these cost no more.</summary>
    public const int MostFrozenDays = 45;

    private const int DaysToEquinox = 54;

    /// <summary>L₀: day length at which heat begins to count, hours; it counts in full at 12. Null where the day's length plays no part.</summary>
    public double? LightFromH { get; init; }

    /// <summary>Share of the heat that counts without any cold, 0 to 1.</summary>
    public double ShareWithoutCold => Math.Clamp(-ColdStartWeeks / ColdSpanWeeks, 0, 1);

    /// <summary>Weeks of cold from which heat counts in full.</summary>
    public double FullColdWeeks => ColdStartWeeks + ColdSpanWeeks;

    /// <inheritdoc />
    public override ColourRule Scaled(double factor) => this with { ThresholdCd = ThresholdCd * factor };

    /// <inheritdoc />
    public override ColourRule Lasting(double moreDays) => this with { ShowDays = ShowDays + moreDays };

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        GroundDays soil = growing.SoilC;
        double[] light = growing.Season.SpringLight(LightFromH);
        foreach (int turn in growing.Season.LateSummers)
        {
            if (BloomOf(turn, growing, soil, light) is { } bloom)
                Raise(share, bloom.MedianIndex, ShowDays);
        }
    }

    /// <summary>
    /// Days after the shortest day on which it opens at 45° of latitude in a spring that warms steadily from 0 °C by 0.12 °C
    /// a day, cold fully met. It orders bulbs from early to late without any weather at hand; it is no forecast.
    /// </summary>
    public double DaysInSteadySpring
    {
        get
        {
            double forcing = 0;
            for (int d = 0; d < 365; d++)
            {
                double step =
                    GrowingSeason.LightShare(Climate.SolarGeometry.DaylightHours(45, 1 + ((355 + d) % 365)), LightFromH)
                    * Math.Max(0, (0.12 * d) - BaseC);
                if (forcing + step >= ThresholdCd)
                    return d + ((ThresholdCd - forcing) / step);
                forcing += step;
            }
            return 365;
        }
    }

    /// <summary>The median opening of every spring of the run, with the cold had by then.</summary>
    public IEnumerable<BulbBloom> Blooms(Growing growing)
    {
        GroundDays soil = growing.SoilC;
        double[] light = growing.Season.SpringLight(LightFromH);
        foreach (int turn in growing.Season.LateSummers)
        {
            if (BloomOf(turn, growing, soil, light) is { } bloom)
                yield return bloom;
        }
    }

    // The opening in the bulb's year that begins on a day; null where it does not open in it.
    private BulbBloom? BloomOf(int turn, Growing growing, GroundDays soil, double[] light)
    {
        bool freezes = !growing.Place.Class.IsBed;
        int end = Math.Min(soil.Length, turn + 365);
        int start = Math.Max(turn, growing.InstallIndex);
        while (start < end && soil[start] >= ColdCredit.UpperC)
            start++;
        // Soil that is cool in late summer is no spring.
        int spring = LightFromH is null ? start : turn + DaysToEquinox;
        double cold = 0;
        double forcing = 0;
        int frozen = 0;
        for (int d = start; d < Math.Min(end, growing.LiftIndex); d++)
        {
            double soilC = soil[d];
            cold += ColdCredit.Of(soilC) / 7;
            if (freezes && soilC <= FrozenAtC && frozen < MostFrozenDays)
                frozen++;
            if (soilC <= BaseC || d < spring)
                continue;
            double step = Math.Clamp((cold - ColdStartWeeks) / ColdSpanWeeks, 0, 1) * light[d] * (soilC - BaseC);
            double wanted = ThresholdCd * (1 + (RegrowthShare * frozen));
            // Half the plants are open within day d, at the moment when the sum is reached.
            if (step > 0 && forcing + step >= wanted)
                return new BulbBloom(d + ((wanted - forcing) / step), cold);
            forcing += step;
        }
        return null;
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -10, 15, "°C");
        faults.Range("coldStartWeeks", ColdStartWeeks, -30, 30, "weeks");
        faults.Range("coldSpanWeeks", ColdSpanWeeks, 0.1, 60, "weeks");
        faults.Range("thresholdCd", ThresholdCd, 0.1, 3000, "°C·d");
        faults.Range("showDays", ShowDays, 1, 200, "days");
        LightFault(faults, LightFromH);
        return faults.Faults;
    }

    /// <inheritdoc />
    public override Fact Describe() =>
        new(
            ColourRuleKind.BulbForcing,
            [
                ("hasLight", LightFromH is not null),
                ("light", LightFromH is { } h ? Quantity.Hours(h, 1) : null),
                ("base", Quantity.Celsius(BaseC, 1)),
                ("sum", Quantity.DegreeDays(ThresholdCd, 1)),
                ("least", Quantity.Number(ShareWithoutCold, 2)),
                ("coldFrom", Quantity.Number(Math.Max(0, ColdStartWeeks), 1)),
                ("coldFull", Quantity.Number(FullColdWeeks, 1)),
                ("days", Quantity.Days(ShowDays)),
            ]
        );
}

/// <summary>One spring's flowering of a bulb.</summary>
/// <param name="MedianIndex">Day of the run, with its fraction, on which half the plants are open.</param>
/// <param name="ColdWeeks">Cold had by then, weeks.</param>
public sealed record BulbBloom(double MedianIndex, double ColdWeeks);
