using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Season;

/// <summary>
/// What people see of a planting from the usual distance. They look down on it at a slant: its surface is foreshortened, and
/// what stands on stems is not. So flowers on stems take up more of the picture than of the ground, the more so the flatter
/// they are seen and the deeper the planting is. Decision 0018.
/// </summary>
public static class ViewedShare
{
    /// <summary>Height of a standing person's eyes, cm (common practice).</summary>
    public const double EyeCm = 160;

    /// <summary>From where a container or a basket is usually seen, cm (common practice).</summary>
    public const double ContainerCm = 250;

    /// <summary>From where a bed is usually seen, cm (common practice).</summary>
    public const double BedCm = 400;

    /// <summary>Bottom of a hung basket above the ground, cm (common practice).</summary>
    public const double HungCm = 200;

    // Nobody sees a surface from straight ahead: what is higher than the eyes is seen at its rim.
    private const double FlattestDeg = 8;

    /// <summary>Share of the picture for each share of the surface that flowers on stems take up; 1 or more.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="heightCm">Height at which the flowers stand over the surface.</param>
    public static double OnStems(Planter planter, double heightCm)
    {
        PlanterForm form = planter.Form;
        double surface =
            form.IsBed ? 0
            : form.Shape == PlanterShape.Basket ? HungCm
            : form.DepthCm;
        double distance = form.IsBed ? BedCm : ContainerCm;
        double slant = Math.Max(FlattestDeg * Math.PI / 180, Math.Atan2(EyeCm - surface, distance));
        double deep = form.SurfaceCm2 / Math.Max(form.TopLengthCm, form.TopWidthCm);
        return Math.Max(1, 1 / (Math.Sin(slant) + (heightCm / deep * Math.Cos(slant))));
    }
}
