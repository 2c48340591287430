using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Valid;

namespace UnrulyMeadow.Core.Planters;

/// <summary>A corner of an outline, cm east and north of the outline's own origin.</summary>
public readonly record struct Corner(double XCm, double YCm);

/// <summary>
/// The outline of a bed of any shape: a ring of corners, holes within it, and how far planting keeps from the edge.
/// </summary>
/// <param name="Ring">Corners in order, either way round, the first not repeated; at least three.</param>
/// <param name="Holes">Rings cut out of it: a tree pit, a lamp's base.</param>
/// <param name="SetbackCm">Planting keeps this far from every edge, cm.</param>
public sealed record BedOutline(IReadOnlyList<Corner> Ring, IReadOnlyList<IReadOnlyList<Corner>> Holes, double SetbackCm = 10)
{
    /// <summary>Most corners of one ring.</summary>
    public const int MostCorners = 500;

    private static readonly GeometryFactory Geometry = new();

    private Polygon? _polygon;
    private Geometry? _plantable;

    // A copy with other corners must not keep the shapes of the first.
    private BedOutline(BedOutline original) => (Ring, Holes, SetbackCm) = original;

    /// <summary>The outline as a polygon, cm.</summary>
    public Polygon Polygon => _polygon ??= Geometry.CreatePolygon(Close(Ring), [.. Holes.Select(Close)]);

    /// <summary>What is left for planting inside the setback, cm; may be of several parts, or empty.</summary>
    public Geometry Plantable => _plantable ??= SetbackCm > 0 ? Polygon.Buffer(-SetbackCm) : Polygon;

    /// <summary>Area inside the edge less the holes, cm².</summary>
    public double AreaCm2 => Polygon.Area;

    /// <summary>Length east to west, cm.</summary>
    public double LengthCm => Polygon.EnvelopeInternal.Width;

    /// <summary>Length north to south, cm.</summary>
    public double WidthCm => Polygon.EnvelopeInternal.Height;

    /// <summary>The middle of the outline's box, cm.</summary>
    public Corner Middle =>
        new((Polygon.EnvelopeInternal.MinX + Polygon.EnvelopeInternal.MaxX) / 2, (Polygon.EnvelopeInternal.MinY + Polygon.EnvelopeInternal.MaxY) / 2);

    /// <summary>An outline from its corners.</summary>
    public static BedOutline Of(double setbackCm, params (double X, double Y)[] corners) =>
        new([.. corners.Select(c => new Corner(c.X, c.Y))], [], setbackCm);

    /// <summary>The outline moved so that the middle of its box is the origin.</summary>
    public BedOutline Centred()
    {
        (double x, double y) = Middle;
        return new([.. Ring.Select(Moved)], [.. Holes.Select(h => (IReadOnlyList<Corner>)[.. h.Select(Moved)])], SetbackCm);
        Corner Moved(Corner c) => new(Math.Round(c.XCm - x, 2), Math.Round(c.YCm - y, 2));
    }

    /// <summary>Every fault of the outline.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("setbackCm", SetbackCm, 0, 200, "cm");
        Check(faults, "ring", Ring);
        for (int i = 0; i < Holes.Count; i++)
            Check(faults, $"holes[{i}]", Holes[i]);
        if (!faults.IsEmpty)
            return faults.Faults;
        var validity = new IsValidOp(Polygon);
        if (Math.Min(LengthCm, WidthCm) < 1e-6 * Math.Max(LengthCm, WidthCm))
        {
            faults.Add("ring", "encloses no area: its corners lie on one line");
        }
        else if (!validity.IsValid)
        {
            TopologyValidationError error = validity.ValidationError;
            faults.Add(
                "ring",
                error.ErrorType == TopologyValidationErrors.SelfIntersection
                    ? (
                        $"crosses itself near {{{error.Coordinate.X / 100:0.##} m}} east, "
                        + $"{{{error.Coordinate.Y / 100:0.##} m}} north; give the corners in order along the edge"
                    )
                    : (
                        $"is no outline: {error.Message.ToLowerInvariant()} near {{{error.Coordinate.X / 100:0.##} "
                        + $"m}} east, {{{error.Coordinate.Y / 100:0.##} m}} north; holes must lie inside and apart"
                    )
            );
        }
        else if (AreaCm2 < 900)
        {
            faults.Add("ring", $"encloses {AreaCm2:0.#} cm², less than a hand's breadth; are these metres or degrees instead of centimetres?");
        }
        else if (LengthCm > 100_000 || WidthCm > 100_000)
        {
            faults.Add("ring", $"is {{{Math.Max(LengthCm, WidthCm) / 100:0} m}} long; the longest bed is {{1000 m}}");
        }
        else if (Plantable.IsEmpty)
        {
            faults.Add("setbackCm", $"leaves nothing to plant: the bed is narrower than twice {{{SetbackCm:0.#} cm}}");
        }
        return faults.Faults;
    }

    /// <summary>True when both outlines are the same, corner by corner.</summary>
    public bool Equals(BedOutline? other) =>
        other is not null
        && SetbackCm == other.SetbackCm
        && Ring.SequenceEqual(other.Ring)
        && Holes.Count == other.Holes.Count
        && Holes.Zip(other.Holes).All(h => h.First.SequenceEqual(h.Second));

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(Ring.Count, Ring.Sum(c => c.XCm + (3 * c.YCm)), Holes.Count, SetbackCm);

    private static void Check(FaultList faults, string field, IReadOnlyList<Corner> ring)
    {
        if (ring.Count is < 3 or > MostCorners)
        {
            faults.Add(field, $"must have from 3 to {MostCorners} corners (it has {ring.Count})");
            return;
        }
        for (int i = 0; i < ring.Count; i++)
        {
            if (!double.IsFinite(ring[i].XCm) || !double.IsFinite(ring[i].YCm))
                faults.Add($"{field}[{i}]", "must be two numbers");
        }
    }

    private static LinearRing Close(IReadOnlyList<Corner> ring) =>
        Geometry.CreateLinearRing([.. ring.Select(c => new Coordinate(c.XCm, c.YCm)), new Coordinate(ring[0].XCm, ring[0].YCm)]);
}
