using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;

namespace UnrulyMeadow.Core.Planting;

/// <summary>A place on a plane, cm from the outline's centre.</summary>
public readonly record struct PlanePoint(double XCm, double YCm)
{
    /// <summary>Distance to another place, cm.</summary>
    public double DistanceTo(PlanePoint other) => Math.Sqrt(((XCm - other.XCm) * (XCm - other.XCm)) + ((YCm - other.YCm) * (YCm - other.YCm)));
}

/// <summary>
/// How many equal discs lie in an outline without overlap. Up to 13 in a circle the count follows the best-known
/// packings; beyond, and in other outlines, it is the best of lattices and rings that were really laid out, so it
/// never claims more than fits, but may claim fewer than the best known.
/// </summary>
public static class DiscPacking
{
    /// <summary>Most discs that are laid out; more are refused as a mistake.</summary>
    public const int MostDiscs = 20_000;

    private const double Tolerance = 1e-9;

    // Enclosing radius for n unit discs, rounded up: Graham, Lubachevsky, Nurmela & Östergård (1998) and later tables.
    private static readonly double[] EnclosingRadius =
        [0, 1, 2.0000, 2.1548, 2.4143, 2.7014, 3.0000, 3.0000, 3.3048, 3.6132, 3.8131, 3.9239, 4.0297, 4.2361];

    /// <summary>Enclosing radius for n unit discs, n from 1 to 13.</summary>
    public static double BestKnownEnclosingRadius(int discs) => EnclosingRadius[discs];

    /// <summary>How many discs of one radius lie in a circle of another.</summary>
    public static int CountInCircle(double outlineRadiusCm, double discRadiusCm)
    {
        int known = KnownCount(outlineRadiusCm / discRadiusCm);
        return known < 13 ? known : Math.Max(13, LaidInCircle(outlineRadiusCm, discRadiusCm).Count);
    }

    /// <summary>Places for as many discs as <see cref="CountInCircle"/> tells.</summary>
    public static IReadOnlyList<PlanePoint> InCircle(double outlineRadiusCm, double discRadiusCm)
    {
        List<PlanePoint> laid = LaidInCircle(outlineRadiusCm, discRadiusCm);
        int known = KnownCount(outlineRadiusCm / discRadiusCm);
        return laid.Count >= known ? laid : Relaxed(known, outlineRadiusCm - discRadiusCm, discRadiusCm);
    }

    /// <summary>Places for discs in a rectangle: the best of a square and two staggered lattices.</summary>
    public static IReadOnlyList<PlanePoint> InRectangle(double lengthCm, double widthCm, double discRadiusCm)
    {
        List<PlanePoint> square = Rows(lengthCm, widthCm, discRadiusCm, staggered: false);
        List<PlanePoint> along = Rows(lengthCm, widthCm, discRadiusCm, staggered: true);
        List<PlanePoint> across = [.. Rows(widthCm, lengthCm, discRadiusCm, staggered: true).Select(p => new PlanePoint(p.YCm, p.XCm))];
        return new[] { square, along, across }.MaxBy(p => p.Count)!;
    }

    /// <summary>Places for discs in an ellipse: the best offset of a staggered lattice, each disc checked against the edge.</summary>
    public static IReadOnlyList<PlanePoint> InEllipse(double lengthCm, double widthCm, double discRadiusCm)
    {
        double a = lengthCm / 2;
        double b = widthCm / 2;
        if (Math.Abs(a - b) < 1e-6)
            return InCircle(a, discRadiusCm);
        PlanePoint[] edge = [.. Enumerable.Range(0, 360).Select(i => new PlanePoint(a * Math.Cos(i * Math.PI / 180), b * Math.Sin(i * Math.PI / 180)))];
        return BestLattice(a, b, discRadiusCm, 3, p =>
            (p.XCm * p.XCm / (a * a)) + (p.YCm * p.YCm / (b * b)) <= 1 &&
            Array.TrueForAll(edge, e => e.DistanceTo(p) >= discRadiusCm - Tolerance));
    }

    /// <summary>Places for discs in any outline: the best offset and turn of a staggered lattice.</summary>
    /// <param name="outline">The outline, cm; its own origin is kept.</param>
    /// <param name="insetCm">Centres keep this far from every edge, cm.</param>
    /// <param name="discRadiusCm">Half the pitch, cm.</param>
    public static IReadOnlyList<PlanePoint> InOutline(Geometry outline, double insetCm, double discRadiusCm)
    {
        Geometry room = insetCm > 0 ? outline.Buffer(-insetCm) : outline;
        if (room.IsEmpty)
            return [];
        Refuse(room.Area / (2 * Math.Sqrt(3) * discRadiusCm * discRadiusCm));
        var prepared = new IndexedPointInAreaLocator(room);
        Coordinate middle = room.EnvelopeInternal.Centre;
        double reach = Math.Sqrt((room.EnvelopeInternal.Width * room.EnvelopeInternal.Width) + (room.EnvelopeInternal.Height * room.EnvelopeInternal.Height)) / 2;
        List<PlanePoint> best = [];
        // Rows along the longest edge often fit best; a few other turns are tried beside it.
        foreach (double turn in Turns(outline))
        {
            (double sin, double cos) = Math.SinCos(turn);
            List<PlanePoint> laid = BestLattice(reach, reach, discRadiusCm, 3, p => prepared.Locate(Turned(p)) != Location.Exterior);
            if (laid.Count > best.Count)
                best = [.. laid.Select(p => new PlanePoint(Turned(p).X, Turned(p).Y))];
            Coordinate Turned(PlanePoint p) => new(middle.X + (p.XCm * cos) - (p.YCm * sin), middle.Y + (p.XCm * sin) + (p.YCm * cos));
        }
        if (best.Count == 0)
            best = [new PlanePoint(room.InteriorPoint.X, room.InteriorPoint.Y)];
        return best;
    }

    /// <summary>Plants per square foot at a spacing, square or triangular.</summary>
    /// <param name="spacingCm">Centre to centre, cm.</param>
    /// <param name="triangular">True for rows staggered by half a spacing.</param>
    public static double PerSquareFoot(double spacingCm, bool triangular)
    {
        double perCm2 = 1 / (spacingCm * spacingCm) * (triangular ? 2 / Math.Sqrt(3) : 1);
        return perCm2 * 30.48 * 30.48;
    }

    private static IEnumerable<double> Turns(Geometry outline)
    {
        Coordinate[] ring = outline.Coordinates;
        double longest = 0;
        double along = 0;
        for (int i = 1; i < ring.Length; i++)
        {
            double length = ring[i].Distance(ring[i - 1]);
            if (length > longest)
                (longest, along) = (length, Math.Atan2(ring[i].Y - ring[i - 1].Y, ring[i].X - ring[i - 1].X));
        }
        return [along, along + (Math.PI / 6), 0];
    }

    private static int KnownCount(double ratio)
    {
        int n = 0;
        while (n < 13 && EnclosingRadius[n + 1] <= ratio + Tolerance)
            n++;
        return n;
    }

    private static List<PlanePoint> LaidInCircle(double outlineRadius, double discRadius)
    {
        double reach = outlineRadius - discRadius;
        if (reach < -Tolerance)
            return [];
        List<PlanePoint> rings = Rings(reach, discRadius);
        List<PlanePoint> lattice = BestLattice(outlineRadius, outlineRadius, discRadius, 10, p =>
            (p.XCm * p.XCm) + (p.YCm * p.YCm) <= (reach * reach) + Tolerance);
        return lattice.Count > rings.Count ? lattice : rings;
    }

    private static List<PlanePoint> Rings(double reach, double discRadius)
    {
        var points = new List<PlanePoint>();
        double radius = reach;
        while (radius >= discRadius - Tolerance)
        {
            int count = Math.Max(2, (int)Math.Floor((Math.PI / Math.Asin(Math.Min(1, discRadius / radius))) + Tolerance));
            for (int i = 0; i < count; i++)
                points.Add(new PlanePoint(radius * Math.Cos(2 * Math.PI * i / count), radius * Math.Sin(2 * Math.PI * i / count)));
            radius -= 2 * discRadius;
        }
        // What is left inside takes one disc in the middle when the innermost ring leaves room for it.
        if (points.Count == 0 || radius >= -Tolerance)
            points.Add(new PlanePoint(0, 0));
        return points;
    }

    private static List<PlanePoint> BestLattice(double a, double b, double discRadius, int steps, Predicate<PlanePoint> fits)
    {
        double rowStep = discRadius * Math.Sqrt(3);
        Refuse(4 * a * b / (2 * discRadius * rowStep));
        List<PlanePoint> best = [];
        for (int sx = 0; sx < steps; sx++)
        {
            for (int sy = 0; sy < steps; sy++)
            {
                double x0 = 2 * discRadius * sx / steps;
                double y0 = rowStep * 2 * sy / steps;
                var points = new List<PlanePoint>();
                int rows = (int)Math.Ceiling(b / rowStep) + 2;
                int columns = (int)Math.Ceiling(a / (2 * discRadius)) + 2;
                for (int r = -rows; r <= rows; r++)
                {
                    for (int c = -columns; c <= columns; c++)
                    {
                        var p = new PlanePoint(x0 + (2 * discRadius * c) + (r % 2 == 0 ? 0 : discRadius), y0 + (rowStep * r));
                        if (fits(p))
                            points.Add(p);
                    }
                }
                if (points.Count > best.Count)
                    best = points;
            }
        }
        return best;
    }

    private static List<PlanePoint> Rows(double length, double width, double r, bool staggered)
    {
        if (length < (2 * r) - Tolerance || width < (2 * r) - Tolerance)
            return [];
        double step = staggered ? r * Math.Sqrt(3) : 2 * r;
        int rows = 1 + (int)Math.Floor(((width - (2 * r)) / step) + Tolerance);
        int full = (int)Math.Floor((length / (2 * r)) + Tolerance);
        Refuse((double)rows * full);
        // Staggered rows keep the full count where the length leaves half a disc over.
        int between = (full * 2 * r) + r <= length + Tolerance ? full : full - 1;
        double rowStep = rows > 1 ? (width - (2 * r)) / (rows - 1) : 0;
        double rowLength = staggered && between == full && rows > 1 ? (full * 2 * r) + r : full * 2 * r;
        double left = -rowLength / 2;
        var points = new List<PlanePoint>(rows * full);
        for (int row = 0; row < rows; row++)
        {
            bool odd = staggered && row % 2 == 1;
            for (int c = 0; c < (odd ? between : full); c++)
                points.Add(new PlanePoint(left + r + (2 * r * c) + (odd ? r : 0), (-width / 2) + r + (rowStep * row)));
        }
        return points;
    }

    private static void Refuse(double discs)
    {
        if (discs > MostDiscs)
            throw new InvalidInputException("diameter", $"more than {MostDiscs:#,0} bulbs would fit; the outline or the bulb is given in the wrong unit");
    }

    // Pushes overlapping discs apart from seeded starts until none overlaps by more than a thousandth of its radius.
    private static List<PlanePoint> Relaxed(int count, double reach, double discRadius)
    {
        var random = new Random(count);
        double[] best = [];
        double bestOverlap = double.PositiveInfinity;
        for (int start = 0; start < 60 && bestOverlap > 0.001 * discRadius; start++)
        {
            var p = new double[2 * count];
            for (int i = 0; i < count; i++)
            {
                double radius = reach * Math.Sqrt(random.NextDouble());
                double angle = 2 * Math.PI * random.NextDouble();
                p[2 * i] = radius * Math.Cos(angle);
                p[(2 * i) + 1] = radius * Math.Sin(angle);
            }
            double overlap = double.PositiveInfinity;
            for (int step = 0; step < 3000 && overlap > 0.001 * discRadius; step++)
                overlap = Push(p, reach, 2 * discRadius);
            if (overlap < bestOverlap)
            {
                bestOverlap = overlap;
                best = p;
            }
        }
        return [.. Enumerable.Range(0, count).Select(i => new PlanePoint(best[2 * i], best[(2 * i) + 1]))];
    }

    private static double Push(double[] p, double reach, double apart)
    {
        double worst = 0;
        for (int i = 0; i < p.Length; i += 2)
        {
            for (int k = i + 2; k < p.Length; k += 2)
            {
                double dx = p[k] - p[i];
                double dy = p[k + 1] - p[i + 1];
                double d = Math.Max(1e-9, Math.Sqrt((dx * dx) + (dy * dy)));
                double overlap = apart - d;
                if (overlap <= 0)
                    continue;
                worst = Math.Max(worst, overlap);
                double push = 0.5 * overlap / d;
                p[i] -= dx * push;
                p[i + 1] -= dy * push;
                p[k] += dx * push;
                p[k + 1] += dy * push;
            }
        }
        for (int i = 0; i < p.Length; i += 2)
        {
            double d = Math.Sqrt((p[i] * p[i]) + (p[i + 1] * p[i + 1]));
            if (d <= reach)
                continue;
            worst = Math.Max(worst, d - reach);
            p[i] *= reach / d;
            p[i + 1] *= reach / d;
        }
        return worst;
    }
}
