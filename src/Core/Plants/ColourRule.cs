using System.Text.Json.Serialization;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Plants;

/// <summary>
/// A rule that tells from the weather when a colour shows. It fills an array with the share of a plant's own best, 0
/// to 1, for every day of a weather run.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "rule")]
[JsonDerivedType(typeof(BulbForcing), "bulb-forcing")]
[JsonDerivedType(typeof(AirHeat), "air-heat")]
[JsonDerivedType(typeof(FromInstall), "from-install")]
[JsonDerivedType(typeof(AllYear), "all-year")]
[JsonDerivedType(typeof(InLeaf), "in-leaf")]
[JsonDerivedType(typeof(BareStem), "bare-stem")]
[JsonDerivedType(typeof(CoolNights), "cool-nights")]
[JsonDerivedType(typeof(Cooling), "cooling")]
public abstract record ColourRule
{
    /// <summary>Plants of one kind open over about this many days to either side of the median (common practice).</summary>
    public const double PlantToPlantDays = 4;

    /// <summary>Fills <paramref name="share"/> for every day of the run; days before planting and after lifting stay 0.</summary>
    public abstract void Fill(Span<double> share, Growing growing);

    /// <summary>Every fault of the rule's figures.</summary>
    public abstract IReadOnlyList<Fault> Faults();

    /// <summary>The rule in one line for the working.</summary>
    public abstract string Describe();

    /// <summary>Raises the days around a show: half open on the median day, half over when the show has passed.</summary>
    protected static void Raise(Span<double> share, double medianOpen, double showDays)
    {
        double over = medianOpen + showDays;
        int from = Math.Max(0, (int)Math.Floor(medianOpen - PlantToPlantDays));
        int to = Math.Min(share.Length - 1, (int)Math.Ceiling(over + PlantToPlantDays));
        for (int i = from; i <= to; i++)
        {
            double open = Math.Clamp((i - medianOpen + PlantToPlantDays) / (2 * PlantToPlantDays), 0, 1);
            double closed = Math.Clamp((i - over + PlantToPlantDays) / (2 * PlantToPlantDays), 0, 1);
            share[i] = Math.Max(share[i], open - closed);
        }
    }
}

/// <summary>
/// Spring bulbs: heat at bulb depth counts only as the bulb's cold is met.
/// forcing = Σ g(C)·max(0, S−b), g = clip((C−C₀)/w, 0, 1); half the plants are open when it reaches Θ.
/// </summary>
/// <param name="BaseC">b: base temperature at bulb depth, °C.</param>
/// <param name="ColdStartWeeks">C₀: weeks of cold before any heat counts.</param>
/// <param name="ColdSpanWeeks">w: further weeks until heat counts in full.</param>
/// <param name="ThresholdCd">Θ: forcing at median open colour, °C·d.</param>
/// <param name="ShowDays">Days from half open to half over.</param>
public sealed record BulbForcing(double BaseC, double ColdStartWeeks, double ColdSpanWeeks, double ThresholdCd, double ShowDays) : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        foreach (BulbBloom bloom in Blooms(growing))
            Raise(share, bloom.MedianIndex, ShowDays);
    }

    /// <summary>
    /// Days until it opens in a spring that warms steadily from 0 °C by 0.12 °C a day, cold fully met. It orders bulbs
    /// from early to late without any weather at hand; it is no forecast.
    /// </summary>
    public double DaysInSteadySpring => (Math.Max(0, BaseC) / 0.12) + Math.Sqrt(2 * ThresholdCd / 0.12);

    /// <summary>The median opening of every spring of the run, with the cold had by then.</summary>
    public IEnumerable<BulbBloom> Blooms(Growing growing)
    {
        double[] soil = growing.SoilC;
        foreach (int turn in growing.Season.LateSummers)
        {
            int end = Math.Min(soil.Length, turn + 365);
            int start = Math.Max(turn, growing.InstallIndex);
            while (start < end && soil[start] >= ColdCredit.UpperC)
                start++;
            double cold = 0;
            double forcing = 0;
            for (int d = start; d < Math.Min(end, growing.LiftIndex); d++)
            {
                cold += ColdCredit.Of(soil[d]) / 7;
                double step = Math.Clamp((cold - ColdStartWeeks) / ColdSpanWeeks, 0, 1) * Math.Max(0, soil[d] - BaseC);
                if (step > 0 && forcing + step >= ThresholdCd)
                {
                    // Half the plants are open within day d, at the moment when the sum is reached.
                    yield return new BulbBloom(d + ((ThresholdCd - forcing) / step), cold);
                    break;
                }
                forcing += step;
            }
        }
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("baseC", BaseC, -2, 15, "°C");
        faults.Range("coldStartWeeks", ColdStartWeeks, 0, 30, "weeks");
        faults.Range("coldSpanWeeks", ColdSpanWeeks, 0.1, 30, "weeks");
        faults.Range("thresholdCd", ThresholdCd, 0.1, 3000, "°C·d");
        faults.Range("showDays", ShowDays, 1, 200, "days");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override string Describe() =>
        $"Half open when Σ g(C)·max(0, S−{BaseC:0.#}) reaches {ThresholdCd:0.#} °C·d, g rising from {ColdStartWeeks:0.#} to {ColdStartWeeks + ColdSpanWeeks:0.#} weeks of cold; shows {ShowDays:0} days";
}

/// <summary>One spring's flowering of a bulb.</summary>
/// <param name="MedianIndex">Day of the run, with its fraction, on which half the plants are open.</param>
/// <param name="ColdWeeks">Cold had by then, weeks.</param>
public sealed record BulbBloom(double MedianIndex, double ColdWeeks);

/// <summary>Perennials, shrubs, grasses and trees: opens when the year's heat reaches a sum, and shows for some days.</summary>
/// <param name="BaseC">Base temperature of the air, °C (single sine).</param>
/// <param name="FirstCd">Heat since 1 January (1 July in the south) at median opening, °C·d.</param>
/// <param name="ShowDays">Days from half open to half over; may cross the turn of the year.</param>
public sealed record AirHeat(double BaseC, double FirstCd, double ShowDays) : ColourRule
{
    /// <summary>Hot days in flower until the heads are brown (common practice: a fortnight).</summary>
    public const int HotDaysToBrown = 14;

    /// <summary>Days whose highest reaches this brown its heads, °C; null where heat does nothing to them.</summary>
    public double? BrownsAboveC { get; init; }

    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        double[] heat = growing.Season.YearHeat(BaseC);
        for (int i = 1; i < heat.Length; i++)
        {
            if (heat[i] >= FirstCd && heat[i - 1] < FirstCd && heat[i] > heat[i - 1])
            {
                int opens = HeldBack(growing, heat, i);
                double shows = Math.Min(ShowDays, DaysToBrown(growing, opens));
                if (opens + shows > growing.InstallIndex)
                    Raise(share, opens, shows);
            }
        }
        growing.ClearOutside(share);
    }

    // A cut between leaf-out and the flowers holds them back by weeks, and never shorter than its next flowers take.
    private static int HeldBack(Growing growing, double[] heat, int opens)
    {
        int held = opens;
        foreach (int cut in growing.CutIndices)
        {
            bool inThisYear = cut > 0 && cut < opens && heat[Math.Min(cut, heat.Length - 1)] > 0 && heat[cut] <= heat[opens];
            if (inThisYear && growing.Season.UsualLeaf[cut])
                held = Math.Max(held, Math.Max(opens + Planting.CutBack.SpringDelayDays, cut + (int)(growing.Plant.Tending.FlushAfterDays ?? 0)));
        }
        return held;
    }

    private double DaysToBrown(Growing growing, int opens)
    {
        if (BrownsAboveC is not { } limit)
            return ShowDays;
        int hot = 0;
        for (int i = opens; i < growing.Season.Length; i++)
        {
            hot += growing.Season.Run.MaxC[i] >= limit ? 1 : 0;
            if (hot >= HotDaysToBrown)
                return i - opens + 1;
        }
        return ShowDays;
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
    public override string Describe() => $"Half open at {FirstCd:0} °C·d above {BaseC:0.#} °C since the new year; shows {ShowDays:0} days" +
        (BrownsAboveC is { } c ? $", or until {HotDaysToBrown} days have reached {c:0} °C" : string.Empty);
}

/// <summary>Bought-in annuals: in flower from install until killed by frost, stalled by heat, or spent.</summary>
/// <param name="BudDays">Days from install to open colour.</param>
/// <param name="ShowDays">Days until spent; null for as long as it lives.</param>
/// <param name="HeatCeilingC">A week's mean air above this stalls it until a cooler week, °C; null for none.</param>
public sealed record FromInstall(double BudDays, double? ShowDays = null, double? HeatCeilingC = null) : ColourRule
{
    /// <summary>Share of its show that a plant bought in full colour has had at the grower's (common practice).</summary>
    public const double ShownBefore = 1.0 / 3;

    /// <summary>What a plant that would flower again after a cut still shows when its own days are over and nobody cuts it (common practice: leggy, a flower here and there).</summary>
    public const double TiredShare = 0.08;

    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        double bud = growing.InColour ? 0 : BudDays;
        int from = Math.Max(0, growing.InstallIndex + (int)bud);
        int to = Math.Min(share.Length, growing.LiftIndex);
        int spent = to;
        if (ShowDays is { } show)
            spent = (int)Math.Min(to, growing.InstallIndex + bud + (growing.InColour ? show * (1 - ShownBefore) : show));
        bool tires = growing.Plant.Tending.FlushDays is not null;
        double level = growing.InstallIndex < 0 || growing.InColour ? 1 : 0.2;
        for (int i = from; i < (tires ? to : spent); i++)
        {
            bool stalled = HeatCeilingC is { } ceiling && growing.Season.WeekMeanC[i] > ceiling;
            level = Math.Clamp(level + (stalled ? -0.15 : 0.15), 0, 1);
            share[i] = i < spent ? level : level * TiredShare;
        }
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("budDays", BudDays, 0, 200, "days");
        if (ShowDays is { } show)
            faults.Range("showDays", show, 1, 400, "days");
        if (HeatCeilingC is { } ceiling)
            faults.Range("heatCeilingC", ceiling, 5, 45, "°C");
        return faults.Faults;
    }

    /// <inheritdoc />
    public override string Describe() =>
        $"In flower {BudDays:0} days after install" + (ShowDays is { } s ? $", for {s:0} days" : ", until killed") +
        (HeatCeilingC is { } c ? $"; stalls when a week's mean is above {c:0} °C" : string.Empty);
}

/// <summary>Coloured leaf that stands all year, as long as the plant lives.</summary>
public sealed record AllYear : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        share.Fill(1);
        growing.ClearOutside(share);
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults() => [];

    /// <inheritdoc />
    public override string Describe() => "All the time that it stands";
}

/// <summary>Coloured leaf from leaf-out to leaf drop; fall colour when <paramref name="LastDays"/> is given.</summary>
/// <param name="BaseC">Base temperature of the air for leaf-out, °C.</param>
/// <param name="LeafOutCd">Heat since the new year at leaf-out, °C·d.</param>
/// <param name="DropNights">Nights at or below 5 °C after midsummer until the leaves drop.</param>
/// <param name="LastDays">Only the last so many days before the drop; null for the whole season in leaf.</param>
public sealed record InLeaf(double BaseC, double LeafOutCd, int DropNights, double? LastDays = null) : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
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
    public override string Describe() =>
        (LastDays is { } l ? $"The last {l:0} days before leaf drop" : "From leaf-out to leaf drop") +
        $": leaf-out at {LeafOutCd:0} °C·d above {BaseC:0.#} °C, drop after {DropNights} nights at or below 5 °C";
}

/// <summary>Winter stems: from leaf drop to leaf-out.</summary>
/// <param name="BaseC">Base temperature of the air for leaf-out, °C.</param>
/// <param name="LeafOutCd">Heat since the new year at leaf-out, °C·d.</param>
/// <param name="DropNights">Nights at or below 5 °C after midsummer until the leaves drop.</param>
public sealed record BareStem(double BaseC, double LeafOutCd, int DropNights) : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        bool[] leaf = growing.Season.LeafSeason(BaseC, LeafOutCd, DropNights);
        for (int i = 0; i < share.Length; i++)
            share[i] = leaf[i] ? 0 : 1;
        growing.ClearOutside(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults() => new InLeaf(BaseC, LeafOutCd, DropNights, null).Faults();

    /// <inheritdoc />
    public override string Describe() => $"From leaf drop (after {DropNights} nights at or below 5 °C) to leaf-out at {LeafOutCd:0} °C·d above {BaseC:0.#} °C";
}

/// <summary>Leaf that colours as nights cool (ornamental cabbage): the share rises with the count of cool nights since install.</summary>
/// <param name="BelowC">A night below this counts, °C.</param>
/// <param name="FullNights">Nights until the colour is full.</param>
public sealed record CoolNights(double BelowC, int FullNights) : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
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
    public override string Describe() => $"Rises with nights below {BelowC:0} °C, full after {FullNights}";
}

/// <summary>What opens as the year cools: fall crocus, asters, bud-flowering ling.</summary>
/// <param name="BelowC">Half open when, after 1 August (1 February in the south), a week's mean air first falls below this, °C.</param>
/// <param name="ShowDays">Days from half open to half over.</param>
public sealed record Cooling(double BelowC, double ShowDays) : ColourRule
{
    /// <inheritdoc />
    public override void Fill(Span<double> share, Growing growing)
    {
        double[] week = growing.Season.WeekMeanC;
        foreach (int turn in growing.Season.LateSummers)
        {
            int d = turn;
            while (d < week.Length && d < turn + 240 && week[d] >= BelowC)
                d++;
            if (d < week.Length && d < turn + 240 && d + ShowDays > growing.InstallIndex)
                Raise(share, d, ShowDays);
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
    public override string Describe() => $"Half open when a week's mean first falls below {BelowC:0.#} °C after midsummer; shows {ShowDays:0} days";
}
