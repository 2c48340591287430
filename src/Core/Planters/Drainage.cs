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
/// <param name="Reasons">Why, one sentence each; empty when free.</param>
public sealed record Drainage(DrainageVerdict Verdict, IReadOnlyList<string> Reasons)
{
    /// <summary>Judges a planter (common practice).</summary>
    public static Drainage Of(Planter planter)
    {
        PlanterSurvey s = planter.Survey;
        var poor = new List<string>();
        var slow = new List<string>();
        if (planter.Form.IsBed)
        {
            if (s.Soil == SoilKind.Saturated)
                poor.Add("The soil is often saturated: raise the bed, or plant what stands wet.");
            if (s.Soil == SoilKind.HeavyClay)
                slow.Add("Heavy clay drains slowly: amend it, set bulbs a little higher.");
        }
        else
        {
            if (s.DrainHoles == 0 && planter.Form.Shape != PlanterShape.Basket)
                poor.Add("It has no hole: drill one, or plant in a liner that can be emptied.");
            else if (planter.Form.Shape != PlanterShape.Basket && s.DrainHoles * 2000 < planter.Form.SurfaceCm2 && planter.Form.SurfaceCm2 > 4000)
                slow.Add(
                    $"{s.DrainHoles} {(s.DrainHoles == 1 ? "hole drains" : "holes drain")} {planter.Form.SurfaceCm2 / 10_000:0.0} m²: one for every 0.2 m² is usual."
                );
            if (!s.OnFeet && planter.Form.Shape != PlanterShape.Basket)
                slow.Add("It stands flat on the ground: feet keep the hole free, and in frost open.");
            if (s.GravelOverHole)
                slow.Add("Gravel over the hole raises the wet zone into the roots; a free hole and open medium drain better.");
            if (s.Soil is SoilKind.HeavyClay or SoilKind.Saturated)
                poor.Add("Garden clay in a container stays wet: fill it with open medium.");
        }
        return new Drainage(
            poor.Count > 0 ? DrainageVerdict.Poor
                : slow.Count > 0 ? DrainageVerdict.Slow
                : DrainageVerdict.Free,
            [.. poor, .. slow]
        );
    }

    /// <summary>The verdict with its reasons.</summary>
    public Working Explain() =>
        new(
            "Drainage",
            Verdict.ToString().ToLowerInvariant(),
            [],
            "Holes, feet, gravel and soil as surveyed",
            "Common practice; a gravel layer raises the wet zone (published work on perched water)",
            Reasons.Count == 0 ? ["Nothing hinders it."] : Reasons
        );
}
