using BenchmarkDotNet.Attributes;
using NetTopologySuite.Geometries;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Bench;

/// <summary>The planter studio: packing bulbs in outlines of every kind.</summary>
public class StudioFigures
{
    private readonly Geometry _kidney = new GeometryFactory().CreatePolygon(
        [new(0, 0), new(60, -12), new(95, 8), new(80, 45), new(52, 30), new(20, 48), new(-8, 30), new(0, 0)]);

    [Benchmark]
    public int Pack200InACircle() => DiscPacking.InCircle(15.47, 1).Count;

    [Benchmark]
    public int Pack200InARectangle() => DiscPacking.InRectangle(38, 19, 1).Count;

    [Benchmark]
    public int Pack200InAnEllipse() => DiscPacking.InEllipse(44, 22, 1).Count;

    [Benchmark]
    public int Pack200InAKidney() => DiscPacking.InOutline(_kidney, 2, 2.05).Count;

    [Benchmark]
    public int Pack60InACircle() => DiscPacking.InCircle(8.7, 1).Count;
}
