using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Planters;

/// <summary>How water leaves a planter.</summary>
public enum DrainageVerdict
{
    /// <summary>Freely.</summary>
    Free,

    /// <summary>Slowly, or not always.</summary>
    Slow,

    /// <summary>Hardly: roots drown and bulbs rot.</summary>
    Poor,
}

/// <summary>A verdict on drainage with its reasons.</summary>
/// <param name="Verdict">The verdict.</param>
/// <param name="Hinders">Why, each a <see cref="DrainageHinder"/>; empty when free.</param>
public sealed record Drainage(DrainageVerdict Verdict, IReadOnlyList<Fact> Hinders)
{
    /// <summary>Judges a planter (common practice).</summary>
    public static Drainage Of(Planter planter)
    {
        PlanterSurvey s = planter.Survey;
        var poor = new List<Fact>();
        var slow = new List<Fact>();
        if (planter.Form.IsBed)
        {
            if (s.Soil == SoilKind.Saturated)
                poor.Add(new Fact(DrainageHinder.SaturatedSoil));
            if (s.Soil == SoilKind.HeavyClay)
                slow.Add(new Fact(DrainageHinder.HeavyClay));
        }
        else
        {
            if (s.DrainHoles == 0 && planter.Form.Shape != PlanterShape.Basket)
                poor.Add(new Fact(DrainageHinder.NoHole));
            else if (planter.Form.Shape != PlanterShape.Basket && s.DrainHoles * 2000 < planter.Form.SurfaceCm2 && planter.Form.SurfaceCm2 > 4000)
                slow.Add(
                    new Fact(
                        DrainageHinder.TooFewHoles,
                        ("holes", s.DrainHoles),
                        ("surface", Quantity.SquareMetres(planter.Form.SurfaceCm2 / 10_000))
                    )
                );
            if (!s.OnFeet && planter.Form.Shape != PlanterShape.Basket)
                slow.Add(new Fact(DrainageHinder.FlatOnTheGround));
            if (s.GravelOverHole)
                slow.Add(new Fact(DrainageHinder.GravelOverTheHole));
            if (s.Soil is SoilKind.HeavyClay or SoilKind.Saturated)
                poor.Add(new Fact(DrainageHinder.ClayInAContainer));
        }
        return new Drainage(
            poor.Count > 0 ? DrainageVerdict.Poor
                : slow.Count > 0 ? DrainageVerdict.Slow
                : DrainageVerdict.Free,
            [.. poor, .. slow]
        );
    }

    /// <summary>The verdict with its reasons.</summary>
    public Working Explain() => new Working(WorkingKind.Drainage, Verdict, [], Hinders.Count == 0 ? [WorkingPhrase.NothingHindersIt] : Hinders);
}
