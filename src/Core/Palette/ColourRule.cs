using System.Text.Json.Serialization;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// A rule that tells from the weather when a colour shows. It fills an array with the share of a plant's own best, 0
/// to 1, for every day of a weather run.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "rule")]
[JsonDerivedType(typeof(BulbForcing), "bulb-forcing")]
[JsonDerivedType(typeof(AirHeat), "air-heat")]
[JsonDerivedType(typeof(ChillingForcing), "chilling-forcing")]
[JsonDerivedType(typeof(ShortDays), "short-days")]
[JsonDerivedType(typeof(FruitRipening), "fruit")]
[JsonDerivedType(typeof(FromInstall), "from-install")]
[JsonDerivedType(typeof(HeatFromInstall), "heat-from-install")]
[JsonDerivedType(typeof(WarmthFlowering), "warmth")]
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
    public abstract void WriteShares(Span<double> share, Growing growing);

    /// <summary>Every fault of the rule's figures.</summary>
    public abstract IReadOnlyList<Fault> Faults();

    /// <summary>The rule with its figures: as a gardener would say it, and as a formula for the working.</summary>
    public abstract Fact Describe();

    /// <summary>True for what shows as the crew sets it out rather than by its own time of year.</summary>
    public virtual bool FollowsTheCrew => false;

    /// <summary>The same rule with the sum that opens it multiplied; null for a rule that opens by none.</summary>
    /// <param name="factor">By what, more than 0; more is later.</param>
    public virtual ColourRule? Scaled(double factor) => null;

    /// <summary>The same rule with a longer show; null for a rule whose show is not a number of days.</summary>
    /// <param name="moreDays">How much longer, days; less than 0 for shorter.</param>
    public virtual ColourRule? Lasting(double moreDays) => null;

    /// <summary>
    /// The day on which a plant that would open on a day opens after a cut: a cut between leaf-out and the flowers holds
    /// them back by weeks, and never shorter than its next flowers take.
    /// </summary>
    /// <param name="growing">The plant.</param>
    /// <param name="from">First day of its flowering year.</param>
    /// <param name="opens">The day on which it opens uncut.</param>
    protected static int HeldBack(Growing growing, int from, int opens)
    {
        int held = opens;
        foreach ((int at, Palette.CutBack cut) in growing.Cuts)
        {
            if (at > Math.Max(0, from) && at < opens && growing.Season.UsualLeaf[at])
                held = Math.Max(held, Math.Max(opens + cut.DelayDays(growing.Plant), at + (int)(growing.Plant.Tending.FlushAfterDays ?? 0)));
        }
        return held;
    }

    // A run of heat holds when no more than so many of its days stayed below.
    private const int CoolerDays = 2;

    /// <summary>Days of a run of heat that brown heads (common practice: a fortnight, day after day).</summary>
    public const int HotRunDays = 14;

    /// <summary>Days of flower until heat browns the heads, or all of them.</summary>
    /// <param name="growing">The plant.</param>
    /// <param name="opens">The day on which it opens.</param>
    /// <param name="aboveC">A fortnight whose days reach this browns them, °C; null for none.</param>
    /// <param name="most">Days that they would last.</param>
    protected static double DaysToBrown(Growing growing, int opens, double? aboveC, double most)
    {
        if (aboveC is not { } limit)
            return most;
        int hot = 0;
        double[] max = growing.Season.Run.MaxC;
        for (int i = opens; i < Math.Min(max.Length, opens + (int)most); i++)
        {
            hot += max[i] >= limit ? 1 : 0;
            hot -= i - HotRunDays >= opens && max[i - HotRunDays] >= limit ? 1 : 0;
            if (hot >= HotRunDays - CoolerDays)
                return i - opens + 1;
        }
        return most;
    }

    /// <summary>The browning, as parts of <see cref="Describe"/>.</summary>
    protected static (string Name, object? Value)[] Brown(double? aboveC) =>
        [
            ("browns", aboveC is not null),
            ("hotDays", aboveC is null ? null : HotRunDays - CoolerDays),
            ("brownsAbove", aboveC is { } c ? Quantity.Celsius(c) : null),
        ];

    /// <summary>Adds what is wrong with a day length from which heat counts.</summary>
    protected static void LightFault(FaultList faults, double? lightFromH)
    {
        if (lightFromH is { } hours)
            faults.Range("lightFromH", hours, 0, 11.5, "hours");
    }

    /// <summary>Raises the days around a show, unless it was over before the plant went in.</summary>
    protected static void Show(Span<double> share, Growing growing, double opens, double showDays)
    {
        if (opens + showDays > growing.InstallIndex)
            Raise(share, opens, showDays);
    }

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
