using System.Xml.Linq;
using NetTopologySuite.Geometries;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A day's trips over the site's paths, north up: each a trodden line, its stops numbered as they come.</summary>
public static class RouteSketch
{
    private const double Wide = 720;
    private const double High = 380;
    private const double Margin = 18;

    private static readonly string[] Lines = ["#8a5a2b", "#2f6f6a", "#7a3f6d", "#3f5f9a", "#6d7a2b"];

    /// <summary>The drawing.</summary>
    /// <param name="map">The map.</param>
    /// <param name="yard">Where trips begin and end.</param>
    /// <param name="trips">Trips.</param>
    /// <param name="ways">The points of each trip's way, m.</param>
    /// <param name="name">What a task's place is called.</param>
    public static XElement Draw(
        IReadOnlyList<MapFeature> map,
        MapPlace yard,
        IReadOnlyList<Trip> trips,
        IReadOnlyList<IReadOnlyList<MapPoint>> ways,
        Func<string, string> name
    )
    {
        var box = new Envelope(yard.EastM, yard.EastM, yard.NorthM, yard.NorthM);
        foreach (MapPoint p in ways.SelectMany(w => w))
            box.ExpandToInclude(p.EastM, p.NorthM);
        box.ExpandBy(Math.Max(4, box.Diameter * 0.04));
        double scale = Math.Min((Wide - (2 * Margin)) / box.Width, (High - (2 * Margin)) / box.Height);
        double X(double east) => (Wide / 2) + ((east - box.Centre.X) * scale);
        double Y(double north) => (High / 2) - ((north - box.Centre.Y) * scale);
        string Path(IEnumerable<MapPoint> points, bool close) =>
            "M" + string.Join(" L", points.Select(p => $"{N(X(p.EastM))} {N(Y(p.NorthM))}")) + (close ? " Z" : string.Empty);
        int stops = trips.Sum(t => t.Stops.Count);
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Wide)} {N(High)}",
            "class",
            "route-sketch",
            "role",
            "img",
            Title($"{stops} stops in {trips.Count} {(trips.Count == 1 ? "trip" : "trips")}, north up")
        );
        foreach (MapFeature feature in map.Where(f => f.Kind is MapKind.Lawn or MapKind.Water or MapKind.Building or MapKind.Path))
        {
            string kind = feature.Kind.ToString().ToLowerInvariant();
            svg.Add(
                feature.Kind == MapKind.Path
                    ? El(
                        "path",
                        "d",
                        Path(feature.Points, close: false),
                        "class",
                        $"ground-{kind}",
                        "stroke-width",
                        N(Math.Max(2, feature.WidthM * scale))
                    )
                    : El("path", "d", Path(feature.Points, close: true), "class", $"ground-{kind}")
            );
        }
        for (int t = 0; t < ways.Count; t++)
        {
            svg.Add(
                El(
                    "path",
                    "d",
                    Path(ways[t], close: false),
                    "class",
                    "way",
                    "stroke",
                    Lines[t % Lines.Length],
                    "stroke-dasharray",
                    t == 0 ? null : $"{6 + (2 * t)} 4"
                )
            );
        }
        svg.Add(El("g", Title("the yard"), El("path", "d", $"M{N(X(yard.EastM) - 7)} {N(Y(yard.NorthM) + 6)} l7 -13 l7 13 Z", "class", "yard")));
        // A place that is gone to twice carries both numbers.
        foreach (
            var place in trips
                .SelectMany((trip, t) => trip.Stops.Select(s => (Stop: s, Trip: t)))
                .Select((s, i) => (s.Stop, s.Trip, Number: i + 1))
                .GroupBy(s => (s.Stop.Place.EastM, s.Stop.Place.NorthM))
        )
        {
            double x = X(place.Key.EastM);
            double y = Y(place.Key.NorthM);
            string numbers = string.Join(", ", place.Select(s => s.Number));
            double half = 5 + (3 * numbers.Length);
            svg.Add(
                El(
                    "g",
                    Title($"{numbers}: {string.Join(", ", place.Select(s => name(s.Stop.TaskId)).Distinct())}"),
                    El(
                        "rect",
                        "x",
                        N(x - half),
                        "y",
                        N(y - 8),
                        "width",
                        N(2 * half),
                        "height",
                        "16",
                        "rx",
                        "8",
                        "class",
                        "stop",
                        "stroke",
                        Lines[place.First().Trip % Lines.Length]
                    ),
                    Text(x, y + 3.5, "stop-number", numbers, "middle")
                )
            );
        }
        return svg;
    }
}
