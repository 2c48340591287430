using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>What of each plant is seen by those who stand before a planter, or walk round it.</summary>
/// <param name="EyeCm">Height of the eye above the medium, cm.</param>
/// <param name="AwayCm">Distance of the eye from the planter's edge, cm.</param>
/// <param name="Shown">Of each plant, the share of its upper half that some eye sees, 0 to 1.</param>
public sealed record Sightline(double EyeCm, double AwayCm, IReadOnlyList<double> Shown)
{
    /// <summary>A standing person's eye above the ground, cm (common practice; a wheelchair user's is about 115).</summary>
    public const double StandingEyeCm = 155;

    /// <summary>Distance from which a planter is looked at, cm (common practice).</summary>
    public const double UsualAwayCm = 150;

    /// <summary>A plant is hidden when less than this share of its upper half is seen.</summary>
    public const double Hidden = 0.25;

    private const int MostLooked = 160;

    // Leaf is no wall: a neighbour hides what lies behind the middle four fifths of its width.
    private const double Solid = 0.8;

    // The nine points looked at: this share of its width to either side, and from this share of its height up.
    private const double Aside = 0.3;
    private const double LowestSeen = 0.55;

    /// <summary>Looks at an arrangement from its front, or from eight sides.</summary>
    /// <param name="arrangement">Plants at their places.</param>
    /// <param name="stature">Width and height of each on the day.</param>
    public static Sightline Of(Arrangement arrangement, Func<PlacedPlant, Stature> stature)
    {
        PlanterForm form = arrangement.Planter.Form;
        double rim = form.IsBed || form.Shape == PlanterShape.Basket ? 0 : form.PlantableDepthCm;
        double eye = StandingEyeCm - rim;
        double reach = Math.Max(form.TopLengthCm, form.TopWidthCm) / 2;
        IReadOnlyList<PlanePoint> eyes =
            arrangement.Planter.ViewedFrom == ViewedFrom.OneSide
                ?
                [
                    new PlanePoint(0, -(form.TopWidthCm / 2) - UsualAwayCm),
                    new PlanePoint(-form.TopLengthCm / 2, -(form.TopWidthCm / 2) - UsualAwayCm),
                    new PlanePoint(form.TopLengthCm / 2, -(form.TopWidthCm / 2) - UsualAwayCm),
                ]
                :
                [
                    .. Enumerable
                        .Range(0, 8)
                        .Select(i => new PlanePoint(
                            (reach + UsualAwayCm) * Math.Cos(i * Math.PI / 4),
                            (reach + UsualAwayCm) * Math.Sin(i * Math.PI / 4)
                        )),
                ];
        Stature[] statures = [.. arrangement.Plants.Select(stature)];
        // Of large plantings an even choice of each kind is looked at and stands for the rest.
        int every = (arrangement.Plants.Count / MostLooked) + 1;
        double?[] looked =
        [
            .. arrangement.Plants.Select(
                (_, i) =>
                    i % every == 0 || arrangement.Plants[i].Item != arrangement.Plants[i - 1].Item
                        ? eyes.Max(e => Seen(arrangement.Plants, statures, i, e, eye))
                        : (double?)null
            ),
        ];
        var mean = arrangement
            .Plants.Select((p, i) => (p.Item, Shown: looked[i]))
            .Where(p => p.Shown is not null)
            .GroupBy(p => p.Item)
            .ToDictionary(g => g.Key, g => g.Average(p => p.Shown!.Value));
        return new Sightline(eye, UsualAwayCm, [.. arrangement.Plants.Select((p, i) => looked[i] ?? mean[p.Item])]);
    }

    // Nine points over the upper half of a plant, each seen when no neighbour stands between it and the eye.
    private static double Seen(IReadOnlyList<PlacedPlant> plants, Stature[] statures, int i, PlanePoint eyeAt, double eyeCm)
    {
        Stature own = statures[i];
        if (own.SpreadCm <= 0)
            return 1;
        double dx = plants[i].At.XCm - eyeAt.XCm;
        double dy = plants[i].At.YCm - eyeAt.YCm;
        double away = Math.Max(1, Math.Sqrt((dx * dx) + (dy * dy)));
        (double sideX, double sideY) = (-dy / away, dx / away);
        int[] between = Between(plants, statures, i, eyeAt, eyeCm, dx / away, dy / away);
        int seen = 0;
        for (int p = 0; p < 9; p++)
        {
            double side = ((p % 3) - 1) * own.SpreadCm * Aside;
            double z = own.HeightCm * (LowestSeen + (0.2 * (p / 3)));
            double x = plants[i].At.XCm + (side * sideX);
            double y = plants[i].At.YCm + (side * sideY);
            seen += Blocked(plants, statures, between, eyeAt, eyeCm, x, y, z) ? 0 : 1;
        }
        return seen / 9.0;
    }

    // Neighbours that can stand in the way of some ray: high enough, beside the middle ray, and not behind what is looked at.
    private static int[] Between(
        IReadOnlyList<PlacedPlant> plants,
        Stature[] statures,
        int self,
        PlanePoint eye,
        double eyeCm,
        double toX,
        double toY
    )
    {
        double lowest = Math.Min(eyeCm, LowestSeen * statures[self].HeightCm);
        double beside = Aside * statures[self].SpreadCm;
        double far = plants[self].At.DistanceTo(eye) + beside;
        return
        [
            .. Enumerable
                .Range(0, plants.Count)
                .Where(k =>
                {
                    if (k == self || statures[k].SpreadCm <= 0 || statures[k].HeightCm <= lowest)
                        return false;
                    (double x, double y) = (plants[k].At.XCm - eye.XCm, plants[k].At.YCm - eye.YCm);
                    double half = Solid * statures[k].SpreadCm / 2;
                    double along = (x * toX) + (y * toY);
                    return along > -half && along < far + half && Math.Abs((x * toY) - (y * toX)) <= half + beside;
                }),
        ];
    }

    private static bool Blocked(
        IReadOnlyList<PlacedPlant> plants,
        Stature[] statures,
        int[] between,
        PlanePoint eye,
        double eyeCm,
        double x,
        double y,
        double z
    )
    {
        double rx = x - eye.XCm;
        double ry = y - eye.YCm;
        double length2 = (rx * rx) + (ry * ry);
        foreach (int k in between)
        {
            // The nearest point of the ray to the neighbour's stem, seen from above.
            double t = (((plants[k].At.XCm - eye.XCm) * rx) + ((plants[k].At.YCm - eye.YCm) * ry)) / length2;
            if (t is <= 0 or >= 1)
                continue;
            double nx = eye.XCm + (t * rx) - plants[k].At.XCm;
            double ny = eye.YCm + (t * ry) - plants[k].At.YCm;
            double half = Solid * statures[k].SpreadCm / 2;
            if ((nx * nx) + (ny * ny) < half * half && eyeCm + (t * (z - eyeCm)) < statures[k].HeightCm)
                return true;
        }
        return false;
    }
}
