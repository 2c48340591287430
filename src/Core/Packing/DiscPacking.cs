using System.Collections.Concurrent;
using System.Globalization;
using NetTopologySuite.Geometries;

namespace UnrulyMeadow.Core.Packing;

/// <summary>A place on a plane, cm from the outline's centre.</summary>
public readonly record struct PlanePoint(double XCm, double YCm)
{
    /// <summary>Distance to another place, cm.</summary>
    public double DistanceTo(PlanePoint other) => Math.Sqrt(((XCm - other.XCm) * (XCm - other.XCm)) + ((YCm - other.YCm) * (YCm - other.YCm)));
}

/// <summary>
/// How many equal discs lie in an outline without overlap. In a circle the densest packings that a long search found are
/// kept in a table, up to a hundred discs; beyond, and in other outlines, the best of lattices and rings takes in further
/// discs that are pushed into its gaps as long as all can be laid out. It never claims more than fits, but may claim fewer
/// than the best known, and what lies in a circle, a rectangle or an ellipse lies in a larger one too.
/// </summary>
public static class DiscPacking
{
    /// <summary>Most discs that are laid out; more are refused as a mistake.</summary>
    public const int MostDiscs = 20_000;

    /// <summary>Layers with more discs than this keep their lattice, which is dense enough by then.</summary>
    public const int MostFilled = 220;

    private const int MostFresh = 70;
    private const double Tolerance = 1e-9;

    // Figures of the table are rounded; discs that overlap by so little of a radius touch.
    private const double Touching = 2e-6;

    // Even patterns are given up for a denser one only where a disc more or less is a large share.
    private const int MostEven = 13;
    private const int StepBudget = 120_000;

    // Filled layouts are laid out for sizes a per cent apart, and serve every size between.
    private const double SizeStep = 1.01;
    private const int MostKept = 3000;

    private static readonly Lazy<IReadOnlyList<PlanePoint[]>> Densest = new(ReadDensest);
    private static readonly Lazy<double[]> EnclosingRadius = new(() =>
        [.. Densest.Value.Select(p => p.Length == 0 ? 0 : 1 + p.Max(q => q.DistanceTo(default)))]
    );
    private static readonly ConcurrentDictionary<(Shape Shape, int Length, int Width), IReadOnlyList<PlanePoint>> Kept = new();

    private enum Shape
    {
        Circle,
        Rectangle,
        Ellipse,
    }

    /// <summary>Most discs of which the densest packing in a circle is kept.</summary>
    public static int MostTabled => Densest.Value.Count - 1;

    /// <summary>Radius of the smallest circle known here to hold n unit discs, n from 1 to <see cref="MostTabled"/>.</summary>
    public static double BestKnownEnclosingRadius(int discs) => EnclosingRadius.Value[discs];

    /// <summary>How many discs of one radius lie in a circle of another.</summary>
    public static int CountInCircle(double outlineRadiusCm, double discRadiusCm) => InCircle(outlineRadiusCm, discRadiusCm).Count;

    /// <summary>Places for discs in a circle.</summary>
    /// <param name="outlineRadiusCm">The circle, cm.</param>
    /// <param name="discRadiusCm">Half the pitch, cm.</param>
    /// <param name="fill">False for an even pattern that takes in nothing more.</param>
    public static IReadOnlyList<PlanePoint> InCircle(double outlineRadiusCm, double discRadiusCm, bool fill = true)
    {
        List<PlanePoint> laid = LaidInCircle(outlineRadiusCm, discRadiusCm);
        if (laid.Count == 0)
            return laid;
        int known = KnownCount(outlineRadiusCm / discRadiusCm, fill ? MostTabled : MostEven);
        IReadOnlyList<PlanePoint> best = laid.Count >= known ? laid : Tabled(known, outlineRadiusCm - discRadiusCm);
        return fill && known == MostTabled ? Steady(Shape.Circle, 2 * outlineRadiusCm, 2 * outlineRadiusCm, discRadiusCm, best) : best;
    }

    /// <summary>Places for discs in a rectangle: the best of a square and two staggered lattices, filled up.</summary>
    /// <param name="lengthCm">Length, cm.</param>
    /// <param name="widthCm">Width, cm.</param>
    /// <param name="discRadiusCm">Half the pitch, cm.</param>
    /// <param name="fill">False for an even pattern that takes in nothing more.</param>
    public static IReadOnlyList<PlanePoint> InRectangle(double lengthCm, double widthCm, double discRadiusCm, bool fill = true)
    {
        List<PlanePoint> square = Rows(lengthCm, widthCm, discRadiusCm, staggered: false);
        List<PlanePoint> along = Rows(lengthCm, widthCm, discRadiusCm, staggered: true);
        List<PlanePoint> across = [.. Rows(widthCm, lengthCm, discRadiusCm, staggered: true).Select(p => new PlanePoint(p.YCm, p.XCm))];
        List<PlanePoint> best = new[] { square, along, across }.MaxBy(p => p.Count)!;
        return best.Count == 0 || !fill ? best : Steady(Shape.Rectangle, lengthCm, widthCm, discRadiusCm, best);
    }

    /// <summary>Places for discs in an ellipse: the best offset of a staggered lattice, each disc checked against the edge, filled up.</summary>
    /// <param name="lengthCm">Length, cm.</param>
    /// <param name="widthCm">Width, cm.</param>
    /// <param name="discRadiusCm">Half the pitch, cm.</param>
    /// <param name="fill">False for an even pattern that takes in nothing more.</param>
    public static IReadOnlyList<PlanePoint> InEllipse(double lengthCm, double widthCm, double discRadiusCm, bool fill = true)
    {
        double a = lengthCm / 2;
        double b = widthCm / 2;
        if (Math.Abs(a - b) < 1e-6)
            return InCircle(a, discRadiusCm, fill);
        IReadOnlyList<PlanePoint> even = InOutline(Edge(a, b), discRadiusCm, discRadiusCm, fill: false);
        return even.Count == 0 || !fill ? even : Steady(Shape.Ellipse, lengthCm, widthCm, discRadiusCm, even);
    }

    /// <summary>Places for discs in any outline: the best offset and turn of a staggered lattice, filled up.</summary>
    /// <param name="outline">The outline, cm; its own origin is kept.</param>
    /// <param name="insetCm">Centres keep this far from every edge, cm.</param>
    /// <param name="discRadiusCm">Half the pitch, cm.</param>
    /// <param name="fill">False for an even pattern that takes in nothing more.</param>
    public static IReadOnlyList<PlanePoint> InOutline(Geometry outline, double insetCm, double discRadiusCm, bool fill = true)
    {
        if (DiscRoom.Outline(outline, insetCm) is not { } room)
            return [];
        Refuse(room.AreaCm2 / (2 * Math.Sqrt(3) * discRadiusCm * discRadiusCm));
        (double halfLength, double halfWidth, PlanePoint middle) = room.Box;
        double reach = Math.Sqrt((halfLength * halfLength) + (halfWidth * halfWidth));
        List<PlanePoint> best = [];
        // Rows along the longest edge often fit best; a few other turns are tried beside it.
        foreach (double turn in Turns(outline))
        {
            (double sin, double cos) = Math.SinCos(turn);
            List<PlanePoint> laid = BestLattice(reach, reach, discRadiusCm, 3, p => room.Holds(Turned(p)));
            if (laid.Count > best.Count)
                best = [.. laid.Select(Turned)];
            PlanePoint Turned(PlanePoint p) => new(middle.XCm + (p.XCm * cos) - (p.YCm * sin), middle.YCm + (p.XCm * sin) + (p.YCm * cos));
        }
        if (best.Count == 0)
            best = [room.Nearest(middle)];
        return fill ? Filled(best, room, discRadiusCm) : best;
    }

    /// <summary>Plants per square foot at a spacing, square or triangular.</summary>
    /// <param name="spacingCm">Centre to centre, cm.</param>
    /// <param name="triangular">True for rows staggered by half a spacing.</param>
    public static double PerSquareFoot(double spacingCm, bool triangular)
    {
        double perCm2 = 1 / (spacingCm * spacingCm) * (triangular ? 2 / Math.Sqrt(3) : 1);
        return perCm2 * 30.48 * 30.48;
    }

    /// <summary>Places for discs of several sizes in one plane, the widest set first; null when they cannot all be laid.</summary>
    /// <param name="discs">The discs with their rooms.</param>
    /// <param name="still">What stands there already.</param>
    /// <param name="starts">Beginnings to try.</param>
    public static IReadOnlyList<PlanePoint>? Mixed(IReadOnlyList<LooseDisc> discs, IReadOnlyList<FixedDisc> still, int starts = 6)
    {
        if (discs.Count > MostFilled * 2)
            throw new InvalidInputException("count", $"at most {MostFilled * 2} bulbs of several sizes can share one depth");
        for (int start = 0; start < starts; start++)
        {
            // The golden angle spreads a beginning evenly, wide discs outermost in turn with narrow ones.
            IReadOnlyList<PlanePoint> begin =
            [
                .. discs.Select(
                    (d, i) =>
                    {
                        (double halfLength, double halfWidth, PlanePoint middle) = d.Room.Box;
                        double reach = Math.Sqrt((((i * (7 + (2 * start))) % discs.Count) + 0.5) / discs.Count);
                        double angle = (i * 2.399963) + start;
                        return new PlanePoint(
                            middle.XCm + (reach * halfLength * Math.Cos(angle)),
                            middle.YCm + (reach * halfWidth * Math.Sin(angle))
                        );
                    }
                ),
            ];
            if (DiscRelaxation.Settle(begin, discs, still, 700) is { } places)
                return places;
        }
        return null;
    }

    // Takes further discs into the widest gaps and pushes all apart, as long as every one finds its place.
    private static IReadOnlyList<PlanePoint> Filled(List<PlanePoint> laid, DiscRoom room, double discRadius)
    {
        IReadOnlyList<PlanePoint> best = laid;
        int most = Math.Min(MostFilled, room.Bound(2 * discRadius));
        int budget = StepBudget / Math.Max(10, laid.Count);
        // Small layers gain most from a fresh beginning: discs laid out like the seeds of a sunflower and pushed apart.
        for (int target = Math.Min(most, laid.Count + 3); target > best.Count && laid.Count <= MostFresh; target--)
        {
            LooseDisc[] discs = [.. Enumerable.Repeat(new LooseDisc(discRadius, room), target)];
            for (int turn = 0; turn < 3 && target > best.Count; turn++)
            {
                if (DiscRelaxation.Settle(Sunflower(target, room, turn), discs, [], 420) is { } found)
                    best = found;
            }
        }
        while (best.Count < most && budget > 0)
        {
            IReadOnlyList<PlanePoint>? more = null;
            foreach (PlanePoint gap in Gaps(best, room, discRadius).Take(3))
            {
                int steps = Math.Min(budget, 260);
                budget -= steps;
                IReadOnlyList<PlanePoint> begin = [.. best, gap];
                more = DiscRelaxation.Settle(begin, [.. begin.Select(_ => new LooseDisc(discRadius, room))], [], steps);
                if (more is not null || budget <= 0)
                    break;
            }
            if (more is null)
                break;
            best = more;
        }
        return best;
    }

    private static IReadOnlyList<PlanePoint> Sunflower(int count, DiscRoom room, int turn)
    {
        (double halfLength, double halfWidth, PlanePoint middle) = room.Box;
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(i =>
                {
                    double reach = Math.Sqrt((i + 0.25 + (0.25 * turn)) / count);
                    double angle = (i * 2.399963) + turn;
                    return new PlanePoint(middle.XCm + (reach * halfLength * Math.Cos(angle)), middle.YCm + (reach * halfWidth * Math.Sin(angle)));
                }),
        ];
    }

    // Places farthest from all discs, the widest gap first.
    private static IEnumerable<PlanePoint> Gaps(IReadOnlyList<PlanePoint> places, DiscRoom room, double discRadius)
    {
        (double halfLength, double halfWidth, PlanePoint middle) = room.Box;
        double step = discRadius * 0.7;
        var found = new List<(PlanePoint At, double Clear)>();
        for (double x = -halfLength; x <= halfLength; x += step)
        {
            for (double y = -halfWidth; y <= halfWidth; y += step)
            {
                PlanePoint p = room.Nearest(new PlanePoint(middle.XCm + x, middle.YCm + y));
                double clear = double.PositiveInfinity;
                foreach (PlanePoint q in places)
                    clear = Math.Min(clear, p.DistanceTo(q));
                found.Add((p, clear));
            }
        }
        var taken = new List<PlanePoint>();
        foreach ((PlanePoint at, _) in found.OrderByDescending(f => f.Clear))
        {
            if (taken.TrueForAll(t => t.DistanceTo(at) > discRadius))
            {
                taken.Add(at);
                yield return at;
            }
        }
    }

    // Corners on an ellipse: its straight sides lie inside it, by a thousandth of its width at most.
    private static Polygon Edge(double a, double b) =>
        new(
            new LinearRing([
                .. Enumerable.Range(0, 97).Select(i => new Coordinate(a * Math.Cos(i % 96 * Math.PI / 48), b * Math.Sin(i % 96 * Math.PI / 48))),
            ])
        );

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

    private static int KnownCount(double ratio, int most)
    {
        int n = 0;
        while (n < most && EnclosingRadius.Value[n + 1] <= ratio + Touching)
            n++;
        return n;
    }

    private static IReadOnlyList<PlanePoint> Tabled(int count, double reach)
    {
        double scale = count == 1 ? 0 : reach / (EnclosingRadius.Value[count] - 1);
        return [.. Densest.Value[count].Select(p => Scaled(p, scale))];
    }

    // What was filled for this size, rounded down, and for its smaller neighbours: a larger outline never holds less than they do.
    private static IReadOnlyList<PlanePoint> Steady(Shape shape, double length, double width, double discRadius, IReadOnlyList<PlanePoint> even)
    {
        if (even.Count >= MostFilled)
            return even;
        if (Kept.Count > MostKept)
            Kept.Clear();
        (int l, int w) = (Step(length / discRadius), Step(width / discRadius));
        IReadOnlyList<PlanePoint> best = even;
        foreach ((int shorter, int narrower) in new[] { (0, 0), (1, 0), (0, 1), (1, 1), (2, 2) })
        {
            IReadOnlyList<PlanePoint> filled = Kept.GetOrAdd((shape, l - shorter, w - narrower), size =>
                FilledOf(size.Shape, Size(size.Length), Size(size.Width))
            );
            if (filled.Count > best.Count)
                best = [.. filled.Select(p => Scaled(p, discRadius))];
        }
        return best;
    }

    private static int Step(double size) => (int)Math.Floor((Math.Log(size) / Math.Log(SizeStep)) + Tolerance);

    private static double Size(int step) => Math.Pow(SizeStep, step);

    // Unit discs.
    private static IReadOnlyList<PlanePoint> FilledOf(Shape shape, double length, double width)
    {
        if (shape == Shape.Ellipse)
            return InOutline(Edge(length / 2, width / 2), 1, 1);
        if (Math.Min(length, width) < 2)
            return [];
        return shape == Shape.Circle
            ? Filled(LaidInCircle(length / 2, 1), DiscRoom.Circle((length / 2) - 1), 1)
            : Filled([.. InRectangle(length, width, 1, fill: false)], DiscRoom.Rectangle(length - 2, width - 2), 1);
    }

    private static PlanePoint Scaled(PlanePoint p, double by) => new(p.XCm * by, p.YCm * by);

    // One line for each count: the count, then x and y of each disc in millionths of a radius.
    private static IReadOnlyList<PlanePoint[]> ReadDensest()
    {
        using Stream stream = typeof(DiscPacking).Assembly.GetManifestResourceStream("packings.txt")!;
        using var reader = new StreamReader(stream);
        var table = new List<PlanePoint[]> { Array.Empty<PlanePoint>() };
        while (reader.ReadLine() is { } line)
        {
            double[] figures = [.. line.Split(' ').Skip(1).Select(f => double.Parse(f, CultureInfo.InvariantCulture) / 1e6)];
            PlanePoint[] places = [.. figures.Chunk(2).Select(c => new PlanePoint(c[0], c[1]))];
            // The nearest two just touch, whatever rounding did.
            double nearest = places.SelectMany((p, i) => places.Skip(i + 1).Select(p.DistanceTo)).DefaultIfEmpty(2).Min();
            table.Add([.. places.Select(p => Scaled(p, 2 / nearest))]);
        }
        return table;
    }

    private static List<PlanePoint> LaidInCircle(double outlineRadius, double discRadius)
    {
        double reach = outlineRadius - discRadius;
        if (reach < -Tolerance)
            return [];
        List<PlanePoint> rings = Rings(reach, discRadius);
        List<PlanePoint> lattice = BestLattice(outlineRadius, outlineRadius, discRadius, 10, p =>
            (p.XCm * p.XCm) + (p.YCm * p.YCm) <= (reach * reach) + Tolerance
        );
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
            throw new InvalidInputException(
                "diameter",
                $"more than {MostDiscs:#,0} bulbs would fit; the outline or the bulb is given in the wrong unit"
            );
    }
}
