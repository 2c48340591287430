namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// The cells in which a planter's inside is divided: rows by depth, and in a container columns by distance from the
/// wall. A column is the ring between two inward offsets of the outline, so that round pots, squares and long troughs
/// are all met by one rule.
/// </summary>
/// <remarks>
/// Containers: 7 columns growing inward from 1.5 cm, 8 rows finer towards top and floor. Beds: one column, 2 cm rows to
/// 30 cm, then growing by 1.2 to 8 m, where the yearly wave has died away.
/// </remarks>
public sealed class GroundGrid
{
    private GroundGrid(double[] rowsM, double[] columnsM, double[] areasM2, double[] facesM)
    {
        RowsM = rowsM;
        ColumnsM = columnsM;
        ColumnAreasM2 = areasM2;
        ColumnFacesM = facesM;
        RowCentresM = Centres(rowsM);
        ColumnCentresM = Centres(columnsM);
    }

    /// <summary>Heights of the rows from the surface down, m.</summary>
    public double[] RowsM { get; }

    /// <summary>Depth of each row's middle, m.</summary>
    public double[] RowCentresM { get; }

    /// <summary>Widths of the columns from the wall inward, m; one entry in a bed.</summary>
    public double[] ColumnsM { get; }

    /// <summary>Distance of each column's middle from the wall, m.</summary>
    public double[] ColumnCentresM { get; }

    /// <summary>Area of each column seen from above, m².</summary>
    public double[] ColumnAreasM2 { get; }

    /// <summary>Length of each column's outer outline, m: its face towards the wall per metre of height.</summary>
    public double[] ColumnFacesM { get; }

    /// <summary>The grid of a class.</summary>
    /// <param name="what">The class.</param>
    /// <param name="refine">1 as shipped; 2 halves every cell, for convergence checks.</param>
    public static GroundGrid For(ThermalClass what, int refine = 1)
    {
        if (what.IsBed)
            return new GroundGrid(Split(BedRows(), refine), [1], [what.AreaM2], [0]);
        double[] rows = [1, 1.5, 2, 2.5, 2.5, 2.5, 2, 1.5];
        double unit = what.DepthM / rows.Sum();
        double[] columns = Split(Growing(what.HalfWidthM, 7, Math.Min(0.015, what.HalfWidthM / 8)), refine);
        var areas = new double[columns.Length];
        var faces = new double[columns.Length];
        // The outline at an inward offset s shrinks straight to the middle; its length follows from the area it must enclose.
        double s = 0;
        for (int i = 0; i < columns.Length; i++)
        {
            double next = i == columns.Length - 1 ? what.HalfWidthM : s + columns[i];
            faces[i] = PerimeterAt(what, s);
            areas[i] = AreaWithin(what, s) - AreaWithin(what, next);
            s = next;
        }
        return new GroundGrid(Split([.. rows.Select(r => r * unit)], refine), columns, areas, faces);
    }

    // Perimeter P(s) falls linearly from P₀; area A(s) = A₀ − ∫P. The slope makes A(half width) zero: exact for circles, squares and rectangles.
    private static double Slope(ThermalClass what) => 2 * ((what.PerimeterM * what.HalfWidthM) - what.AreaM2) / (what.HalfWidthM * what.HalfWidthM);

    private static double PerimeterAt(ThermalClass what, double s) => what.PerimeterM - (Slope(what) * s);

    private static double AreaWithin(ThermalClass what, double s) => what.AreaM2 - (what.PerimeterM * s) + (Slope(what) * s * s / 2);

    private static double[] BedRows()
    {
        var rows = new List<double>();
        for (int i = 0; i < 15; i++)
            rows.Add(0.02);
        double next = 0.02;
        double sum = 0.30;
        while (sum < 8)
        {
            next *= 1.2;
            rows.Add(next);
            sum += next;
        }
        return [.. rows];
    }

    // n widths in a geometric row with the given first and sum.
    private static double[] Growing(double sum, int n, double first)
    {
        double low = 1;
        double high = 4;
        for (int i = 0; i < 60; i++)
        {
            double ratio = (low + high) / 2;
            double total = first * (Math.Pow(ratio, n) - 1) / (ratio - 1);
            if (total < sum)
                low = ratio;
            else
                high = ratio;
        }
        double[] widths = [.. Enumerable.Range(0, n).Select(i => first * Math.Pow(low, i))];
        double scale = sum / widths.Sum();
        return [.. widths.Select(w => w * scale)];
    }

    private static double[] Split(double[] widths, int refine) => [.. widths.SelectMany(w => Enumerable.Repeat(w / refine, refine))];

    private static double[] Centres(double[] widths)
    {
        var centres = new double[widths.Length];
        double at = 0;
        for (int i = 0; i < widths.Length; i++)
        {
            centres[i] = at + (widths[i] / 2);
            at += widths[i];
        }
        return centres;
    }
}
