using UnrulyMeadow.Core.Packing;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>How plants cover a planter's surface, counted cell by cell from their true places.</summary>
/// <param name="Covered">Share of the surface under any plant, 0 to 1.</param>
/// <param name="Seen">Of each plant, the share of the surface on which it lies uppermost: the higher hides the lower.</param>
/// <param name="Own">Of each plant, the share of the surface under its spread, whatever stands over it.</param>
public sealed record PlantCover(double Covered, IReadOnlyList<double> Seen, IReadOnlyList<double> Own)
{
    /// <summary>Share of bare medium, where what lies below comes through freely.</summary>
    public double Bare => 1 - Covered;

    /// <summary>Counts cover.</summary>
    /// <param name="surface">The surface.</param>
    /// <param name="plants">Places with width and height on the day; what is 0 wide covers nothing.</param>
    public static PlantCover Count(SurfaceRaster surface, IReadOnlyList<(PlanePoint At, Stature Stature)> plants)
    {
        var top = new int[surface.Inside.Length];
        Array.Fill(top, -1);
        var own = new double[plants.Count];
        int[] order = [.. Enumerable.Range(0, plants.Count).OrderBy(i => plants[i].Stature.HeightCm)];
        foreach (int i in order)
        {
            (PlanePoint at, Stature stature) = plants[i];
            if (stature.SpreadCm <= 0)
                continue;
            int cells = 0;
            surface.Under(at, stature.SpreadCm / 2, cell =>
            {
                top[cell] = i;
                cells++;
            });
            own[i] = (double)cells / Math.Max(1, surface.Cells);
        }
        var seen = new double[plants.Count];
        int covered = 0;
        foreach (int i in top)
        {
            if (i < 0)
                continue;
            seen[i]++;
            covered++;
        }
        for (int i = 0; i < seen.Length; i++)
            seen[i] /= Math.Max(1, surface.Cells);
        return new PlantCover((double)covered / Math.Max(1, surface.Cells), seen, own);
    }

    /// <summary>Cover of an arrangement with each plant's width and height on a day.</summary>
    public static PlantCover Of(Arrangement arrangement, Func<PlacedPlant, Stature> stature) =>
        Count(SurfaceRaster.Of(arrangement.Planter.Form), [.. arrangement.Plants.Select(p => (p.At, stature(p)))]);

    /// <summary>
    /// Cover to be expected of plants scattered without regard to each other: 1 − exp(−Σa/A). Even layouts do better; it
    /// is a check, not the count.
    /// </summary>
    /// <param name="areaCm2">Sum of the plants' own areas, cm².</param>
    /// <param name="surfaceCm2">The surface, cm².</param>
    public static double IfScattered(double areaCm2, double surfaceCm2) => 1 - Math.Exp(-areaCm2 / surfaceCm2);
}
