using System.Globalization;
using System.Text.Json;
using NetTopologySuite.Features;
using NetTopologySuite.Geometries;
using NetTopologySuite.IO.Converters;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Exchange.Maps;

/// <summary>What a map file would change.</summary>
/// <param name="Features">Features of the map, new ones and changed ones.</param>
/// <param name="Planters">Planters that are placed, reshaped or new.</param>
/// <param name="NewAreas">Areas that new beds name.</param>
public sealed record MapChanges(IReadOnlyList<MapFeature> Features, IReadOnlyList<Planter> Planters, IReadOnlyList<Area> NewAreas);

/// <summary>The site's map as GeoJSON (RFC 7946): longitude and latitude in degrees, WGS 84.</summary>
public static class MapFile
{
    /// <summary>Most features in one file.</summary>
    public const int MostFeatures = 20_000;

    private static readonly GeometryFactory Factory = new(new PrecisionModel(), 4326);

    private static readonly JsonSerializerOptions Json = MakeJson();

    /// <summary>Writes the map: its features and every planter that has a place.</summary>
    /// <exception cref="InvalidInputException">Nobody has said where the site lies.</exception>
    public static byte[] Write(Plan plan)
    {
        MapProjection projection = ProjectionOf(plan);
        var collection = new FeatureCollection();
        foreach (MapFeature f in plan.Map)
        {
            var about = new AttributesTable
            {
                { "id", f.Id },
                { "kind", Word(f.Kind) },
                { "name", f.Name },
            };
            if (f.HeightM > 0)
                about.Add("heightM", f.HeightM);
            if (f.WidthM > 0)
                about.Add("widthM", f.WidthM);
            if (f.Kind == MapKind.Tree)
            {
                about.Add("rootM", f.RootM);
                about.Add("growthM", f.GrowthM);
                about.Add("surveyedIn", f.SurveyedIn);
                about.Add("evergreen", f.IsEvergreen);
            }
            collection.Add(new Feature(Degrees(f.Shape, projection), about));
        }
        foreach (Planter p in plan.Planters.Where(p => p.Place is not null && !p.IsRetired))
        {
            collection.Add(
                new Feature(
                    Degrees(PlanterGround.Of(p), projection),
                    new AttributesTable
                    {
                        { "id", p.Id },
                        { "kind", p.Form.IsBed ? "bed" : "container" },
                        { "name", p.Name },
                        { "area", plan.AreaOf(p).Name },
                        { "depthCm", p.Form.DepthCm },
                        { "turnDeg", p.Place!.TurnDeg },
                    }
                )
            );
        }
        return [.. JsonSerializer.SerializeToUtf8Bytes(collection, Json), (byte)'\n'];
    }

    /// <summary>Reads a map over a plan and says what it would change; nothing is written.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="plan">The plan as it is.</param>
    /// <exception cref="InvalidInputException">Anything is wrong with it; faults name the feature.</exception>
    public static MapChanges Read(Stream stream, Plan plan)
    {
        try
        {
            return Taken(stream, plan);
        }
        catch (Exception e)
            when (e
                    is JsonException
                        or ArgumentException
                        or InvalidOperationException
                        or NotSupportedException
                        or OverflowException
                        or FormatException
                        or TopologyException
                        or NullReferenceException
            )
        {
            // The library that reads geometries throws whatever it meets, and some of it only when a value is asked for.
            throw new InvalidInputException(
                "file",
                $"cannot be read as GeoJSON: {PlainText.Mended(e.Message.Split('\n')[0].Split(" Path:")[0], lines: false)}"
            );
        }
    }

    private static MapChanges Taken(Stream stream, Plan plan)
    {
        MapProjection projection = ProjectionOf(plan);
        FeatureCollection collection = Parse(stream);
        if (collection.Count > MostFeatures)
            throw new InvalidInputException("file", $"holds {collection.Count:#,0} features; the most is {MostFeatures:#,0}");
        CheckDegrees(collection, plan.Site.Place!);
        var faults = new FaultList();
        var features = new List<MapFeature>();
        var planters = new List<Planter>();
        var areas = new List<Area>();
        var ids = plan.Map.Select(f => f.Id).Concat(plan.Planters.Select(p => p.Id)).ToHashSet(StringComparer.Ordinal);
        var seen = new HashSet<string>(StringComparer.Ordinal);
        for (int i = 0; i < collection.Count && faults.Faults.Count < 100; i++)
        {
            var one = new Reader(collection[i], $"features[{i}]", faults);
            string kind = one.Text("kind");
            string name = one.Text("name");
            string id = one.Text("id");
            if (id.Length == 0)
                id = Ids.From(name.Length > 0 ? name : kind, ids.Contains);
            ids.Add(id);
            if (!seen.Add(id))
                faults.Add(one.Where, $"the id \"{id}\" stands in another feature already");
            if (collection[i].Geometry is not { IsEmpty: false } geometry)
                faults.Add(one.Where, "has no geometry");
            else if (kind is "bed" or "container" or "planter")
                TakePlanter(one, id, name, geometry, projection, plan, planters, areas);
            else if (Enum.TryParse(kind, ignoreCase: true, out MapKind what) && Enum.IsDefined(what) && !char.IsDigit(kind[0]))
                TakeFeature(one, id, name, what, geometry, projection, plan, features);
            else
                faults.Add(
                    one.Where,
                    (
                        $"the property \"kind\" must be one of {string.Join(", ", Enum.GetValues<MapKind>().Select(Word))}, "
                        + $"bed, container{(kind.Length == 0 ? "; it is missing" : $" (it is \"{kind}\")")}"
                    )
                );
        }
        faults.ThrowIfAny();
        return new MapChanges(features, planters, areas);
    }

    private static void TakeFeature(
        Reader one,
        string id,
        string name,
        MapKind kind,
        Geometry geometry,
        MapProjection projection,
        Plan plan,
        List<MapFeature> features
    )
    {
        Coordinate[]? points = (kind, geometry) switch
        {
            (MapKind.Tree, Point p) => [p.Coordinate],
            (MapKind.Path or MapKind.Wall, LineString l) => l.Coordinates,
            (MapKind.Building or MapKind.Water or MapKind.Lawn, Polygon p) => p.ExteriorRing.Coordinates[..^1],
            _ => null,
        };
        if (points is null)
        {
            one.Fault(
                (
                    $"a {Word(kind)} must be {(kind == MapKind.Tree ? "a Point" : kind is MapKind.Path or MapKind.Wall ? "a LineString" : "a Polygon")}; "
                    + $"this is a {geometry.GeometryType}"
                )
            );
            return;
        }
        MapFeature? old = plan.Map.FirstOrDefault(f => f.Id == id);
        var feature = new MapFeature
        {
            Id = id,
            Kind = kind,
            Name = name,
            Points = [.. points.Select(c => Rounded(projection.ToMetres(c.X, c.Y)))],
            HeightM = one.Number("heightM")
                ?? old?.HeightM
                ?? (
                    kind is MapKind.Building ? 4
                    : kind is MapKind.Wall ? 2
                    : kind is MapKind.Tree ? 6
                    : 0
                ),
            WidthM = one.Number("widthM")
                ?? old?.WidthM
                ?? (
                    kind is MapKind.Path ? 2
                    : kind is MapKind.Tree ? 5
                    : 0
                ),
            RootM = one.Number("rootM") ?? old?.RootM ?? (kind == MapKind.Tree ? 5 : 0),
            GrowthM = one.Number("growthM") ?? old?.GrowthM ?? 0,
            SurveyedIn = (int)(one.Number("surveyedIn") ?? old?.SurveyedIn ?? 2026),
            IsEvergreen = one.Text("evergreen") is "True" or "true",
        };
        one.Take(feature.Faults());
        features.Add(feature);
    }

    private static void TakePlanter(
        Reader one,
        string id,
        string name,
        Geometry geometry,
        MapProjection projection,
        Plan plan,
        List<Planter> planters,
        List<Area> areas
    )
    {
        Planter? old = plan.FindPlanter(id);
        if (geometry is Polygon polygon && (old is null || old.Form.Shape == PlanterShape.OutlinedBed))
        {
            BedOutline outline = OutlineOf(polygon, projection, one.Number("setbackCm") ?? old?.Form.Outline?.SetbackCm ?? 10);
            IReadOnlyList<Fault> wrong = outline.Faults();
            if (wrong.Count > 0)
            {
                one.Take(wrong.Select(f => new Fault(string.Empty, $"the outline {f.Message}")));
                return;
            }
            MapPlace place = new(Math.Round(outline.Middle.XCm / 100, 2), Math.Round(outline.Middle.YCm / 100, 2));
            PlanterForm form = PlanterForm.Bed(outline, one.Number("depthCm") ?? old?.Form.DepthCm ?? 40);
            Planter bed = old is not null ? old with { Form = form, Place = place } : NewBed(one, id, name, form, place, plan, areas);
            one.Take(bed.Faults());
            if (old is null && (plan.Planters.Any(p => p.Name == bed.Name) || planters.Exists(p => p.Name == bed.Name)))
                one.Fault($"the name \"{bed.Name}\" is already used; every name must be its own");
            planters.Add(bed);
        }
        else if (old is not null && geometry is Point or Polygon)
        {
            Coordinate middle = geometry is Point ? geometry.Coordinate : geometry.Centroid.Coordinate;
            MapPoint at = Rounded(projection.ToMetres(middle.X, middle.Y));
            Planter placed = old with { Place = new MapPlace(at.EastM, at.NorthM, one.Number("turnDeg") ?? old.Place?.TurnDeg ?? 0) };
            one.Take(placed.Faults());
            planters.Add(placed);
        }
        else
        {
            one.Fault(
                old is null
                    ? $"there is no planter \"{id}\"; a new one must be a bed, given as a Polygon (a container's inside measures come from its survey)"
                    : $"a planter must be a Point or a Polygon; this is a {geometry.GeometryType}"
            );
        }
    }

    private static Planter NewBed(Reader one, string id, string name, PlanterForm form, MapPlace place, Plan plan, List<Area> areas)
    {
        string area = one.Text("area");
        if (area.Length == 0)
            area = plan.Areas.Count > 0 ? plan.Areas[0].Name : "Grounds";
        Area? known = plan.Areas.Concat(areas).FirstOrDefault(a => a.Name.Equals(area, StringComparison.OrdinalIgnoreCase) || a.Id == area);
        if (known is null)
        {
            known = new Area(Ids.From(area, x => plan.Areas.Concat(areas).Any(a => a.Id == x)), area, 1);
            areas.Add(known);
        }
        return new Planter
        {
            Id = id,
            AreaId = known.Id,
            Name = name.Length > 0 ? name : id,
            Form = form,
            Exposure = Exposure.FullSun,
            Watering = Watering.Rain,
            ViewedFrom = ViewedFrom.AllRound,
            Wall = WallMaterial.None,
            WallColour = "#8a7a63",
            Place = place,
        };
    }

    private static BedOutline OutlineOf(Polygon polygon, MapProjection projection, double setbackCm)
    {
        return new BedOutline(Ring(polygon.ExteriorRing), [.. polygon.InteriorRings.Select(Ring)], setbackCm);
        IReadOnlyList<Corner> Ring(LineString ring) =>
            [
                .. ring.Coordinates[..^1]
                    .Select(c => projection.ToMetres(c.X, c.Y))
                    .Select(m => new Corner(Math.Round(m.EastM * 100, 1), Math.Round(m.NorthM * 100, 1))),
            ];
    }

    private static FeatureCollection Parse(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        ReadOnlySpan<byte> bytes = buffer.GetBuffer().AsSpan(0, (int)buffer.Length);
        ReadOnlySpan<byte> text = bytes.StartsWith(System.Text.Encoding.UTF8.Preamble) ? bytes[3..] : bytes;
        var reader = new Utf8JsonReader(text);
        using JsonDocument document = JsonDocument.ParseValue(ref reader);
        JsonElement root = document.RootElement;
        string? type = root.ValueKind == JsonValueKind.Object && root.TryGetProperty("type", out JsonElement t) ? t.ToString() : null;
        if (type != "FeatureCollection")
            throw new InvalidInputException(
                "type",
                $"must be a GeoJSON FeatureCollection{(type is null ? "; this is no GeoJSON" : $" (it is \"{PlainText.Cut(type, 40)}\")")}"
            );
        if (
            root.TryGetProperty("crs", out JsonElement crs)
            && !crs.ToString().Contains("CRS84", StringComparison.Ordinal)
            && !crs.ToString().Contains("4326", StringComparison.Ordinal)
        )
            throw new InvalidInputException("crs", "RFC 7946 knows longitude and latitude on WGS 84 only; export the map in EPSG:4326");
        return root.Deserialize<FeatureCollection>(Json) ?? throw new InvalidInputException("file", "is empty");
    }

    // Two mistakes are so common that they get a sentence of their own.
    private static void CheckDegrees(FeatureCollection collection, SitePlace place)
    {
        Coordinate[] all = [.. collection.Where(f => f.Geometry is not null).SelectMany(f => f.Geometry.Coordinates)];
        if (all.Length == 0)
            throw new InvalidInputException("features", "hold no coordinates");
        Coordinate? outside = Array.Find(all, c => !(Math.Abs(c.X) <= 180 && Math.Abs(c.Y) <= 180));
        if (outside is not null)
            throw new InvalidInputException(
                "coordinates",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"[{outside.X:0.#}, {outside.Y:0.#}] are no degrees; they look like metres of a map grid. RFC 7946 wants longitude and latitude"
                )
            );
        if (Array.TrueForAll(all, c => Far(c.X, c.Y) > 50) && Array.TrueForAll(all, c => Far(c.Y, c.X) < 50))
            throw new InvalidInputException("coordinates", "longitude and latitude are exchanged: RFC 7946 gives longitude first");
        Coordinate? far = Array.Find(all, c => Math.Abs(c.Y) > 90 || Far(c.X, c.Y) > MapPlace.FarthestM / 1000);
        if (far is not null)
            throw new InvalidInputException(
                "coordinates",
                string.Create(
                    CultureInfo.InvariantCulture,
                    (
                        $"[{far.X:0.####}, {far.Y:0.####}] lies {Far(far.X, far.Y):#,0} km from the site "
                        + $"({place.LatitudeDeg:0.###}° north, {place.LongitudeDeg:0.###}° east); is it another place?"
                    )
                )
            );

        double Far(double longitude, double latitude)
        {
            double east = (longitude - place.LongitudeDeg) * 111.32 * Math.Cos(place.LatitudeDeg * Math.PI / 180);
            double north = (latitude - place.LatitudeDeg) * 110.57;
            return Math.Sqrt((east * east) + (north * north));
        }
    }

    // RFC 7946: seven decimals are a centimetre; outer rings run anticlockwise.
    private static Geometry Degrees(Geometry metres, MapProjection projection)
    {
        Coordinate To(Coordinate c)
        {
            (double longitude, double latitude) = projection.ToDegrees(new MapPoint(c.X, c.Y));
            return new Coordinate(Math.Round(longitude, 8), Math.Round(latitude, 8));
        }
        LinearRing Ring(LineString ring, bool anticlockwise)
        {
            LinearRing made = Factory.CreateLinearRing([.. ring.Coordinates.Select(To)]);
            return made.IsCCW == anticlockwise ? made : (LinearRing)made.Reverse();
        }
        return metres switch
        {
            Point p => Factory.CreatePoint(To(p.Coordinate)),
            LineString l => Factory.CreateLineString([.. l.Coordinates.Select(To)]),
            Polygon p => Factory.CreatePolygon(Ring(p.ExteriorRing, true), [.. p.InteriorRings.Select(h => Ring(h, false))]),
            _ => throw new InvalidOperationException($"No GeoJSON for {metres.GeometryType}."),
        };
    }

    private static MapPoint Rounded(MapPoint p) => new(Math.Round(p.EastM, 2), Math.Round(p.NorthM, 2));

    private static MapProjection ProjectionOf(Plan plan) =>
        new(
            plan.Site.Place
                ?? throw new InvalidInputException(
                    "site",
                    "say first where the site lies (Site, latitude and longitude): a map needs its place on earth"
                )
        );

    private static string Word(MapKind kind) => kind.ToString().ToLowerInvariant();

    private static JsonSerializerOptions MakeJson()
    {
        var options = new JsonSerializerOptions { WriteIndented = true };
        options.Converters.Add(new GeoJsonConverterFactory(Factory, false, "id"));
        return options;
    }

    // One feature's properties, with its place in the file for what is wrong.
    private sealed class Reader(IFeature feature, string where, FaultList faults)
    {
        public string Where => where;

        public string Text(string name) => Value(name)?.ToString()?.Trim() ?? string.Empty;

        public double? Number(string name)
        {
            switch (Value(name))
            {
                case null:
                    return null;
                case string text when text.Trim().Length == 0:
                    return null;
                case var value
                    when double.TryParse(
                        Convert.ToString(value, CultureInfo.InvariantCulture),
                        NumberStyles.Float,
                        CultureInfo.InvariantCulture,
                        out double number
                    ) && double.IsFinite(number):
                    return number;
                case var value:
                    faults.Add($"{where}.{name}", $"\"{value}\" is no number");
                    return null;
            }
        }

        public void Fault(string message) => faults.Add(where, message);

        public void Take(IEnumerable<Fault> found) => faults.AddAll(where, found);

        // GeoJSON gives the id beside the properties; some programs write it among them.
        private object? Value(string name) =>
            feature.Attributes is { } table && table.Exists(name) ? table[name]
            : name == "id" && feature is IUnique unique ? unique.Id
            : null;
    }
}
