using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Bought-in annuals: in flower from install until spoiled by frost, stalled by heat, or spent.</summary>
/// <param name="BudDays">Days from install to open colour.</param>
/// <param name="ShowDays">Days until spent, or until it begins to thin where a cut brings it back; null for as long as it lives.</param>
/// <param name="HeatCeilingC">A week's mean air above this stalls it until a cooler week, °C; null for none.</param>
public sealed record FromInstall(double BudDays, double? ShowDays = null, double? HeatCeilingC = null) : ColourRule
{
    /// <summary>Share of its show that a plant bought in full colour has had at the grower's (common practice).</summary>
    public const double ShownBefore = 1.0 / 3;

    /// <summary>
    /// What a plant that would flower again after a cut still shows of its best when nobody cuts it (common practice: it thins to a third or a half
    /// and does not stop).
    /// </summary>
    public const double ThinnedShare = 0.4;

    // Days over which it thins.
    private const double ThinsOverDays = 35;

    /// <inheritdoc />
    public override ColourRule? Lasting(double moreDays) => ShowDays is { } days ? this with { ShowDays = days + moreDays } : null;

    /// <inheritdoc />
    public override bool FollowsTheCrew => true;

    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        double bud = growing.InColour ? 0 : BudDays;
        int from = Math.Max(0, growing.InstallIndex + (int)bud);
        int to = Math.Min(share.Length, growing.LiftIndex);
        int spent = to;
        if (ShowDays is { } show)
            spent = (int)Math.Min(to, growing.InstallIndex + bud + (growing.InColour ? show * (1 - ShownBefore) : show));
        bool thins = growing.Plant.Tending.FlushDays is not null;
        double level = growing.InstallIndex < 0 || growing.InColour ? 1 : 0.2;
        for (int i = from; i < (thins ? to : spent); i++)
        {
            bool stalled = HeatCeilingC is { } ceiling && growing.Season.WeekMeanC[i] > ceiling;
            level = Math.Clamp(level + (stalled ? -0.15 : 0.15), 0, 1);
            share[i] = level * (1 - ((1 - ThinnedShare) * Math.Clamp((i - spent) / ThinsOverDays, 0, 1)));
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
    public override Fact Describe() =>
        new(
            ColourRuleKind.FromInstall,
            [
                ("bud", BudDays > 0 ? Quantity.Days(BudDays) : null),
                ("budDays", Quantity.Days(BudDays)),
                ("inFlower", BudDays <= 0),
                ("days", ShowDays is { } s ? Quantity.Days(s) : null),
                ("lasts", ShowDays is null),
                ("ceiling", HeatCeilingC is { } c ? Quantity.Celsius(c) : null),
                ("pauses", HeatCeilingC is not null),
            ]
        );
}
