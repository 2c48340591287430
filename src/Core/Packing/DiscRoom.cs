using NetTopologySuite.Geometries;

namespace UnrulyMeadow.Core.Packing;

/// <summary>Where the centres of discs may lie: the outline drawn in by the disc's own radius.</summary>
public abstract class DiscRoom
{
    /// <summary>Area in which centres may lie, cm².</summary>
    public abstract double AreaCm2 { get; }

    /// <summary>Length of its edge, cm.</summary>
    public abstract double EdgeCm { get; }

    /// <summary>Half the length and width of the box around it, cm, and the box's middle.</summary>
    public abstract (double HalfLengthCm, double HalfWidthCm, PlanePoint Middle) Box { get; }

    /// <summary>True for a place inside or on the edge.</summary>
    public abstract bool Holds(PlanePoint place);

    /// <summary>The nearest place inside.</summary>
    public abstract PlanePoint Nearest(PlanePoint place);

    /// <summary>
    /// More points than this never lie a distance apart in the room: Oler's inequality (1961), a proven bound.
    /// </summary>
    /// <param name="apartCm">Least distance, cm.</param>
    public int Bound(double apartCm) => (int)Math.Floor((2 / Math.Sqrt(3) * AreaCm2 / (apartCm * apartCm)) + (EdgeCm / 2 / apartCm) + 1 + 1e-9);

    /// <summary>Centres within a circle.</summary>
    public static DiscRoom Circle(double radiusCm) => new RoundRoom(radiusCm);

    /// <summary>Centres within a rectangle about the origin.</summary>
    public static DiscRoom Rectangle(double lengthCm, double widthCm) => new RectangleRoom(lengthCm / 2, widthCm / 2);

    /// <summary>Centres within an outline drawn in on all sides; null when nothing is left.</summary>
    /// <param name="outline">The outline, cm.</param>
    /// <param name="insetCm">How far it is drawn in, cm.</param>
    public static DiscRoom? Outline(Geometry outline, double insetCm)
    {
        Geometry room = insetCm > 0 ? outline.Buffer(-insetCm, 4) : outline;
        return room.IsEmpty || room.Area <= 0 ? null : new OutlineRoom(room);
    }

    private sealed class RoundRoom(double radius) : DiscRoom
    {
        public override double AreaCm2 => Math.PI * radius * radius;

        public override double EdgeCm => 2 * Math.PI * radius;

        public override (double HalfLengthCm, double HalfWidthCm, PlanePoint Middle) Box => (radius, radius, default);

        public override bool Holds(PlanePoint p) => (p.XCm * p.XCm) + (p.YCm * p.YCm) <= (radius * radius) + 1e-9;

        public override PlanePoint Nearest(PlanePoint p)
        {
            double d = Math.Sqrt((p.XCm * p.XCm) + (p.YCm * p.YCm));
            return d <= radius ? p : new PlanePoint(p.XCm * radius / d, p.YCm * radius / d);
        }
    }

    private sealed class RectangleRoom(double halfLength, double halfWidth) : DiscRoom
    {
        public override double AreaCm2 => 4 * halfLength * halfWidth;

        public override double EdgeCm => 4 * (halfLength + halfWidth);

        public override (double HalfLengthCm, double HalfWidthCm, PlanePoint Middle) Box => (halfLength, halfWidth, default);

        public override bool Holds(PlanePoint p) => Math.Abs(p.XCm) <= halfLength + 1e-9 && Math.Abs(p.YCm) <= halfWidth + 1e-9;

        public override PlanePoint Nearest(PlanePoint p) => new(Math.Clamp(p.XCm, -halfLength, halfLength), Math.Clamp(p.YCm, -halfWidth, halfWidth));
    }

    private sealed class OutlineRoom : DiscRoom
    {
        private readonly (double X1, double Y1, double X2, double Y2)[] _sides;

        public OutlineRoom(Geometry room)
        {
            var sides = new List<(double, double, double, double)>();
            foreach (Polygon polygon in Enumerable.Range(0, room.NumGeometries).Select(room.GetGeometryN).OfType<Polygon>())
            {
                foreach (LineString ring in polygon.InteriorRings.Prepend(polygon.ExteriorRing))
                {
                    Coordinate[] c = ring.Coordinates;
                    for (int i = 1; i < c.Length; i++)
                        sides.Add((c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y));
                }
            }
            _sides = [.. sides];
            AreaCm2 = room.Area;
            EdgeCm = room.Length;
            Envelope e = room.EnvelopeInternal;
            Box = (e.Width / 2, e.Height / 2, new PlanePoint(e.Centre.X, e.Centre.Y));
        }

        public override double AreaCm2 { get; }

        public override double EdgeCm { get; }

        public override (double HalfLengthCm, double HalfWidthCm, PlanePoint Middle) Box { get; }

        public override bool Holds(PlanePoint p) => Inside(p) || Foot(p).DistanceTo(p) <= 1e-6;

        public override PlanePoint Nearest(PlanePoint p) => Inside(p) ? p : Foot(p);

        private bool Inside(PlanePoint p)
        {
            bool inside = false;
            foreach ((double x1, double y1, double x2, double y2) in _sides)
            {
                if ((y1 > p.YCm) != (y2 > p.YCm) && p.XCm < ((x2 - x1) * (p.YCm - y1) / (y2 - y1)) + x1)
                    inside = !inside;
            }
            return inside;
        }

        private PlanePoint Foot(PlanePoint p)
        {
            double best = double.PositiveInfinity;
            PlanePoint foot = p;
            foreach ((double x1, double y1, double x2, double y2) in _sides)
            {
                double dx = x2 - x1;
                double dy = y2 - y1;
                double t = Math.Clamp((((p.XCm - x1) * dx) + ((p.YCm - y1) * dy)) / Math.Max(1e-12, (dx * dx) + (dy * dy)), 0, 1);
                double fx = x1 + (t * dx);
                double fy = y1 + (t * dy);
                double d = ((p.XCm - fx) * (p.XCm - fx)) + ((p.YCm - fy) * (p.YCm - fy));
                if (d < best)
                    (best, foot) = (d, new PlanePoint(fx, fy));
            }
            return foot;
        }
    }
}
