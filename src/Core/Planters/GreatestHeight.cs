using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Planters;

/// <summary>What limits how high plants may stand.</summary>
public enum HeightLimit
{
    /// <summary>People look over it.</summary>
    Sightline,

    /// <summary>Wind would topple the container.</summary>
    Wind,
}

/// <summary>
/// How high plants may stand in a planter: by the sightline over it, by the wind that would topple it, and by what looks
/// right. The lowest of them counts.
/// </summary>
public sealed class GreatestHeight
{
    private const double AirKgM3 = 1.25;
    private const double Gravity = 9.81;
    private const double DragOfPot = 0.9;

    // Leaf lets air through and bends: from memory of wind loads on crowns.
    private const double DragOfPlants = 0.35;

    private GreatestHeight(Planter planter, double? sightline, double? wind, double proportion, double gust)
    {
        Planter = planter;
        SightlineCm = sightline;
        WindCm = wind;
        ProportionCm = proportion;
        GustMs = gust;
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>Above the medium, by the sightline, cm; null without one.</summary>
    public double? SightlineCm { get; }

    /// <summary>Above the medium, before a gust topples the dry container, cm; null for a bed or a hanging basket.</summary>
    public double? WindCm { get; }

    /// <summary>
    /// Above the medium, by proportion: twice the container's height, and not more than twice its width (common practice); beds have none.
    /// </summary>
    public double ProportionCm { get; }

    /// <summary>The gust counted with, m/s.</summary>
    public double GustMs { get; }

    /// <summary>The height that must not be passed: sightline or wind, cm; infinite without either.</summary>
    public double LimitCm => Math.Min(SightlineCm ?? double.PositiveInfinity, WindCm ?? double.PositiveInfinity);

    /// <summary>What the limit comes from.</summary>
    public HeightLimit LimitedBy => SightlineCm is { } s && s <= (WindCm ?? double.PositiveInfinity) ? HeightLimit.Sightline : HeightLimit.Wind;

    /// <summary>The heights of a planter.</summary>
    public static GreatestHeight Of(Planter planter)
    {
        PlanterForm form = planter.Form;
        double rim = form.IsBed || form.Shape == PlanterShape.Basket ? 0 : form.DepthCm;
        double gust = planter.Survey.Wind switch
        {
            WindReach.Sheltered => 15,
            WindReach.Exposed => 28,
            _ => 21,
        };
        double? sightline = planter.Survey.SightlineCm is { } s ? Math.Max(0, s - (form.IsBed ? 0 : form.DepthCm - form.RimGapCm)) : null;
        double? wind = form.IsBed || form.Shape == PlanterShape.Basket ? null : BeforeToppling(planter, gust);
        double proportion = form.IsBed ? double.PositiveInfinity : Math.Min(2 * Math.Max(rim, 20), 2.2 * Math.Max(form.TopLengthCm, form.TopWidthCm));
        return new GreatestHeight(planter, sightline, wind, Math.Round(proportion), gust);
    }

    /// <summary>The arithmetic behind the heights.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.GreatestHeight,
            double.IsFinite(LimitCm) ? (object?)new Fact(WorkingPhrase.AboveMedium, ("limit", Quantity.Cm(LimitCm))) : WorkingPhrase.NoLimit,
            [
                new WorkingInput(
                    InputName.Sightline,
                    SightlineCm is { } s ? (object?)new Fact(WorkingPhrase.GreatestHeightAboveMedium, ("count", Quantity.Cm(s))) : WorkingPhrase.None
                ),
                new WorkingInput(InputName.Gust, new Quantity(GustMs, Dimension.Speed)),
                new WorkingInput(InputName.BeforeItTopples, WindCm is { } w ? (object?)Quantity.Cm(w) : WorkingPhrase.CannotTopple),
                new WorkingInput(
                    InputName.ByProportion,
                    double.IsFinite(ProportionCm) ? (object?)Quantity.Cm(ProportionCm) : WorkingPhrase.AsYouLike
                ),
            ],
            [WorkingPhrase.PlantsAreCountedAsWideAs, WorkingPhrase.WetPotStandsFirmerDeckOr]
        );

    // The height of plants at which a gust's moment equals that of the dry container's weight.
    private static double BeforeToppling(Planter planter, double gust)
    {
        PlanterForm form = planter.Form;
        double weight = PlanterLoad.Of(planter)!.DryKg * Gravity;
        double narrow = Math.Min(form.BottomLengthCm, form.BottomWidthCm) / 100;
        double broad = Math.Max(form.TopLengthCm, form.TopWidthCm) / 100;
        double deep = form.DepthCm / 100;
        double pressure = 0.5 * AirKgM3 * gust * gust;
        double left = (weight * narrow / 2) - (pressure * DragOfPot * broad * deep * deep / 2);
        if (left <= 0)
            return 0;
        // pressure · drag · broad · h · (deep + h/2) = left, solved for h.
        double k = pressure * DragOfPlants * broad;
        double h = -deep + Math.Sqrt((deep * deep) + (2 * left / k));
        return Math.Round(h * 100);
    }
}
