using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.OverlayNG;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.SiteMap;

/// <summary>A walk between two areas.</summary>
/// <param name="From">One area.</param>
/// <param name="To">The other.</param>
/// <param name="Metres">The way.</param>
/// <param name="AlongPaths">True when paths join them; otherwise the straight line with a quarter added.</param>
public sealed record AreaWalk(Area From, Area To, double Metres, bool AlongPaths)
{
    /// <summary>Minutes at the pace of a loaded crew, 1 m/s (common practice).</summary>
    public double Minutes => Metres / 60;
}

/// <summary>Ways on foot along the site's paths, as a network of their crossings.</summary>
public sealed class WalkingWays
{
    /// <summary>Where no path leads, the straight line is taken this much longer.</summary>
    public const double Detour = 1.25;

    // A path whose end lies this near another's line is taken to join it, m.
    private const double JoinM = 1.5;

    private readonly List<Coordinate> _nodes = [];
    private readonly List<List<(int To, double Metres)>> _edges = [];
    private readonly Geometry? _network;

    /// <summary>Makes the network.</summary>
    public WalkingWays(IReadOnlyList<MapFeature> map)
    {
        Geometry[] lines = [.. map.Where(f => f.Kind == MapKind.Path).Select(f => f.Shape)];
        if (lines.Length == 0)
            return;
        // Ends that stop just short of another path are led onto it; the union then breaks lines at every crossing.
        var joined = new List<Geometry>(lines);
        foreach (Geometry line in lines)
        {
            foreach (Coordinate end in new[] { line.Coordinates[0], line.Coordinates[^1] })
            {
                foreach (Geometry other in lines.Where(o => !ReferenceEquals(o, line)))
                {
                    var point = new Point(end);
                    if (other.Distance(point) is > 0.01 and <= JoinM)
                        joined.Add(new LineString([end, NetTopologySuite.Operation.Distance.DistanceOp.NearestPoints(other, point)[0]]));
                }
            }
        }
        // On a grid of a centimetre, so that a path that ends on another's line truly meets it.
        _network = UnaryUnionNG.Union((Geometry)new GeometryCollection([.. joined]), new PrecisionModel(100));
        for (int i = 0; i < _network.NumGeometries; i++)
        {
            Coordinate[] c = _network.GetGeometryN(i).Coordinates;
            for (int k = 1; k < c.Length; k++)
                Join(NodeAt(c[k - 1]), NodeAt(c[k]), c[k - 1].Distance(c[k]));
        }
    }

    /// <summary>The way between two places, m, and whether paths led it.</summary>
    public (double Metres, bool AlongPaths) Between(MapPlace from, MapPlace to)
    {
        if (_network is null)
            return (from.DistanceTo(to) * Detour, false);
        (int a, double offA) = Nearest(from);
        (int b, double offB) = Nearest(to);
        return Walked(from, to, Shortest(a, b)[b] + offA + offB);
    }

    /// <summary>The ways between each two of some places, m: by place, then by place.</summary>
    public double[][] Metres(IReadOnlyList<MapPlace> places)
    {
        if (_network is null)
            return [.. places.Select(a => places.Select(b => a.DistanceTo(b) * Detour).ToArray())];
        // All places are nodes before any way is looked for: a node that comes later parts a segment in two.
        (int Node, double Off)[] at = [.. places.Select(Nearest)];
        Dictionary<int, double[]> from = at.Select(a => a.Node).Distinct().ToDictionary(n => n, n => Shortest(n, null));
        return
        [
            .. places.Select(
                (a, i) => places.Select((b, k) => i == k ? 0 : Walked(a, b, from[at[i].Node][at[k].Node] + at[i].Off + at[k].Off).Metres).ToArray()
            ),
        ];
    }

    /// <summary>The points of the way between two places, both among them.</summary>
    public IReadOnlyList<MapPoint> Way(MapPlace from, MapPlace to)
    {
        MapPoint start = new(from.EastM, from.NorthM);
        MapPoint end = new(to.EastM, to.NorthM);
        if (_network is null)
            return [start, end];
        (int a, double offA) = Nearest(from);
        (int b, double offB) = Nearest(to);
        double[] best = Shortest(a, b);
        if (!Walked(from, to, best[b] + offA + offB).AlongPaths)
            return [start, end];
        var back = new List<MapPoint> { end };
        for (int at = b; ; at = _edges[at].MinBy(e => Math.Abs(best[e.To] + e.Metres - best[at])).To)
        {
            back.Add(new MapPoint(_nodes[at].X, _nodes[at].Y));
            if (at == a)
                break;
        }
        back.Add(start);
        back.Reverse();
        return back;
    }

    // When leaving the paths is as good as keeping to them, or they do not join, people walk straight.
    private static (double Metres, bool AlongPaths) Walked(MapPlace from, MapPlace to, double along)
    {
        double straight = from.DistanceTo(to) * Detour;
        return double.IsFinite(along) && along < straight * 2.5 ? (along, true) : (straight, false);
    }

    /// <summary>Walks between all areas that have planters on the map, by their middles.</summary>
    public static IReadOnlyList<AreaWalk> Of(IReadOnlyList<Area> areas, IReadOnlyList<Planter> planters, IReadOnlyList<MapFeature> map)
    {
        var ways = new WalkingWays(map);
        var middles = areas
            .Select(a => (Area: a, Middle: MapPlace.MiddleOf(planters.Where(p => p.AreaId == a.Id))))
            .Where(a => a.Middle is not null)
            .Select(a => (a.Area, Middle: a.Middle!))
            .ToList();
        var walks = new List<AreaWalk>();
        for (int i = 0; i < middles.Count; i++)
        {
            for (int k = i + 1; k < middles.Count; k++)
            {
                (double metres, bool along) = ways.Between(middles[i].Middle, middles[k].Middle);
                walks.Add(new AreaWalk(middles[i].Area, middles[k].Area, metres, along));
            }
        }
        return walks;
    }

    private int NodeAt(Coordinate c)
    {
        int at = _nodes.FindIndex(n => n.Distance(c) < 0.005);
        if (at >= 0)
            return at;
        _nodes.Add(c);
        _edges.Add([]);
        return _nodes.Count - 1;
    }

    private void Join(int a, int b, double metres)
    {
        _edges[a].Add((b, metres));
        _edges[b].Add((a, metres));
    }

    // The nearest point of the network becomes a node of its own.
    private (int Node, double Off) Nearest(MapPlace place)
    {
        var point = new Point(place.EastM, place.NorthM);
        Coordinate on = NetTopologySuite.Operation.Distance.DistanceOp.NearestPoints(_network, point)[0];
        int node = _nodes.FindIndex(n => n.Distance(on) < 0.005);
        if (node < 0)
        {
            // Its segment may have been parted by such a node before: it is joined to the ends of every piece it lies on.
            List<int> ends =
            [
                .. Enumerable.Range(0, _nodes.Count).Where(a => _edges[a].Exists(e => new LineSegment(_nodes[a], _nodes[e.To]).Distance(on) < 0.01)),
            ];
            node = NodeAt(on);
            foreach (int end in ends)
                Join(node, end, on.Distance(_nodes[end]));
        }
        return (node, on.Distance(point.Coordinate));
    }

    // To every node, or far enough that one is reached.
    private double[] Shortest(int from, int? to)
    {
        double[] best = [.. Enumerable.Repeat(double.PositiveInfinity, _nodes.Count)];
        best[from] = 0;
        var open = new PriorityQueue<int, double>();
        open.Enqueue(from, 0);
        while (open.TryDequeue(out int node, out double way))
        {
            if (node == to)
                return best;
            if (way > best[node])
                continue;
            foreach ((int next, double metres) in _edges[node])
            {
                if (way + metres < best[next])
                {
                    best[next] = way + metres;
                    open.Enqueue(next, way + metres);
                }
            }
        }
        return best;
    }
}
