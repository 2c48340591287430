using System.Text;
using System.Text.Json.Nodes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Core.Tests;
using UnrulyMeadow.Exchange.Maps;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Tests;

public sealed class MapFileTests
{
    private static readonly Plan Demo = ReadDemo();

    [Fact]
    public void The_demos_map_goes_out_and_comes_back_within_a_centimetre()
    {
        MapChanges back = Read(MapFile.Write(Demo));
        Assert.Equal(Demo.Map.Select(f => f.Id).Order(StringComparer.Ordinal), back.Features.Select(f => f.Id).Order(StringComparer.Ordinal));
        foreach (MapFeature f in back.Features)
        {
            MapFeature was = Demo.Map.First(x => x.Id == f.Id);
            Assert.Equal((was.Kind, was.Name, was.HeightM, was.WidthM, was.GrowthM), (f.Kind, f.Name, f.HeightM, f.WidthM, f.GrowthM));
            Assert.True(f.Shape.EqualsTopologically(f.Shape) && f.Shape.Centroid.Distance(was.Shape.Centroid) < 0.02, f.Id);
        }
        foreach (Planter p in back.Planters)
            Assert.True(p.Place!.DistanceTo(Demo.FindPlanter(p.Id)!.Place!) < 0.03, p.Id);
        BedOutline ring = back.Planters.First(p => p.Id == "bandstand-ring").Form.Outline!;
        Assert.Equal(Demo.FindPlanter("bandstand-ring")!.Form.SurfaceCm2, ring.AreaCm2, Demo.FindPlanter("bandstand-ring")!.Form.SurfaceCm2 * 0.01);
    }

    [Fact, Published("RFC 7946: FeatureCollection; longitude before latitude; outer rings anticlockwise, the first position repeated; no crs")]
    public void What_is_written_keeps_the_rules_of_GeoJSON()
    {
        JsonNode json = JsonNode.Parse(MapFile.Write(Demo))!;
        Assert.Equal("FeatureCollection", json["type"]!.GetValue<string>());
        Assert.Null(json["crs"]);
        foreach (JsonNode? feature in json["features"]!.AsArray())
        {
            JsonNode geometry = feature!["geometry"]!;
            if (geometry["type"]!.GetValue<string>() != "Polygon")
                continue;
            (double X, double Y)[] ring =
            [
                .. geometry["coordinates"]![0]!.AsArray().Select(c => (c![0]!.GetValue<double>(), c[1]!.GetValue<double>())),
            ];
            Assert.Equal(ring[0], ring[^1]);
            Assert.True(Enumerable.Range(1, ring.Length - 1).Sum(i => (ring[i - 1].X * ring[i].Y) - (ring[i].X * ring[i - 1].Y)) > 0);
            Assert.All(ring, c => Assert.True(c.X is > -67 and < -66.8 && c.Y is > 43 and < 43.2));
        }
    }

    [Fact]
    public void A_new_bed_comes_in_with_its_outline_and_a_new_area()
    {
        MapChanges changes = Read(Collection("""{ "kind": "bed", "name": "Sail bed", "area": "Slipway", "depthCm": 35 }""", Square(20, 6)));
        Planter bed = Assert.Single(changes.Planters);
        Assert.Equal(("sail-bed", "Slipway", 35), (bed.Id, Assert.Single(changes.NewAreas).Name, bed.Form.DepthCm));
        Assert.Equal(36, bed.Form.SurfaceCm2 / 10_000, 0.1);
        Assert.Equal(20, bed.Place!.EastM, 0.05);
    }

    [Fact]
    public void A_known_container_is_moved_and_keeps_its_measures()
    {
        Planter moved = Assert.Single(Read(Collection("""{ "kind": "container", "id": "great-pot", "turnDeg": 30 }""", Point(5, 5))).Planters);
        Assert.Equal(Demo.FindPlanter("great-pot")!.Form, moved.Form);
        Assert.Equal((5, 5, 30), (Math.Round(moved.Place!.EastM, 1), Math.Round(moved.Place.NorthM, 1), moved.Place.TurnDeg));
    }

    [Fact]
    public void Exchanged_axes_and_metres_for_degrees_are_told_apart()
    {
        string swapped = """{ "type": "Polygon", "coordinates": [[[43.1, -66.9], [43.1, -66.8999], [43.1001, -66.8999], [43.1, -66.9]]] }""";
        Assert.Contains("longitude and latitude are exchanged", Refused(Collection("""{ "kind": "lawn" }""", swapped)), StringComparison.Ordinal);
        string metres = """{ "type": "Point", "coordinates": [512345.2, 4771234.8] }""";
        Assert.Contains("look like metres", Refused(Collection("""{ "kind": "tree" }""", metres)), StringComparison.Ordinal);
        string elsewhere = """{ "type": "Point", "coordinates": [2.35, 48.85] }""";
        Assert.Contains("km from the site", Refused(Collection("""{ "kind": "tree" }""", elsewhere)), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("""{ "kind": "fountain" }""", "must be one of building, wall, path")]
    [InlineData("""{ }""", "it is missing")]
    [InlineData("""{ "kind": "tree" }""", "a tree must be a Point; this is a Polygon")]
    [InlineData("""{ "kind": "building", "heightM": "tall" }""", "features[0].heightM: \"tall\" is no number")]
    [InlineData("""{ "kind": "building", "heightM": 900 }""", "features[0].heightM: must be from 0.2 m to 120 m")]
    [InlineData("""{ "kind": "bed", "name": "North bed" }""", "the name \"North bed\" is already used")]
    public void A_wrong_feature_is_named_by_its_place_in_the_file(string properties, string said) =>
        Assert.Contains(said, Refused(Collection(properties, Square(20, 6))), StringComparison.Ordinal);

    [Fact]
    public void Self_crossing_and_empty_outlines_and_unknown_containers_are_refused()
    {
        string bow = Ring((0, 0), (6, 6), (6, 0), (0, 6));
        Assert.Contains("crosses itself", Refused(Collection("""{ "kind": "bed", "name": "Bow" }""", bow)), StringComparison.Ordinal);
        Assert.Contains("crosses itself", Refused(Collection("""{ "kind": "lawn" }""", bow)), StringComparison.Ordinal);
        Assert.Contains(
            "there is no planter \"ghost\"",
            Refused(Collection("""{ "kind": "container", "id": "ghost" }""", Point(1, 1))),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("", "is empty")]
    [InlineData("[1, 2]", "this is no GeoJSON")]
    [InlineData("""{ "type": "Feature" }""", "it is \"Feature\"")]
    [InlineData("""{ "type": "FeatureCollection", "features": [] }""", "hold no coordinates")]
    [InlineData(
        """{ "type": "FeatureCollection", "crs": { "type": "name", "properties": { "name": "EPSG:25832" } }, "features": [] }""",
        "EPSG:4326"
    )]
    [InlineData(
        """{ "type": "FeatureCollection", "features": [ { "type": "Feature", "properties": { "kind": "tree" }, "geometry": { "type": "Point", "coordinates": ["a", 1] } } ] }""",
        "cannot be read as GeoJSON"
    )]
    public void What_is_no_map_is_refused_in_words(string text, string said) =>
        Assert.Contains(said, Refused(Encoding.UTF8.GetBytes(text)), StringComparison.Ordinal);

    [Fact]
    public void A_site_that_lies_nowhere_yet_has_no_map_file()
    {
        var nowhere = new Plan(Site.Default, [], [], [], [], []);
        Assert.Contains("where the site lies", Assert.Throws<InvalidInputException>(() => MapFile.Write(nowhere)).Message, StringComparison.Ordinal);
    }

    private static string Square(double east, double side) =>
        Ring((east - (side / 2), -side / 2), (east + (side / 2), -side / 2), (east + (side / 2), side / 2), (east - (side / 2), side / 2));

    private static string Ring(params (double E, double N)[] corners) =>
        $$"""{ "type": "Polygon", "coordinates": [[{{string.Join(", ", corners.Append(corners[0]).Select(c => Degrees(c.E, c.N)))}}]] }""";

    private static string Point(double east, double north) => $$"""{ "type": "Point", "coordinates": {{Degrees(east, north)}} }""";

    private static string Degrees(double east, double north)
    {
        (double longitude, double latitude) = new MapProjection(Demo.Site.Place!).ToDegrees(new MapPoint(east, north));
        return FormattableString.Invariant($"[{longitude:0.#########}, {latitude:0.#########}]");
    }

    private static byte[] Collection(string properties, string geometry) =>
        Encoding.UTF8.GetBytes(
            $$"""{ "type": "FeatureCollection", "features": [ { "type": "Feature", "properties": {{properties}}, "geometry": {{geometry}} } ] }"""
        );

    private static MapChanges Read(byte[] file)
    {
        using var stream = new MemoryStream(file);
        return MapFile.Read(stream, Demo);
    }

    private static string Refused(byte[] file) => Assert.Throws<InvalidInputException>(() => Read(file)).Message;

    private static Plan ReadDemo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
