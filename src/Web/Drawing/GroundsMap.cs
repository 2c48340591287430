using System.Globalization;
using System.Text;
using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using NetTopologySuite.Geometries;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.SiteMap;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// The site to scale, one unit a metre, north up: buildings, water, lawns, paths, trees, and each planter painted with
/// what shows on the day.
/// </summary>
/// <param name="map">The map.</param>
/// <param name="planters">Planters that have a place, with their looks on the day.</param>
/// <param name="year">Year of the day, for the trees.</param>
/// <param name="units">The site's units.</param>
/// <param name="addresses">What the site's addresses begin with.</param>
public sealed class GroundsMap(
    IReadOnlyList<MapFeature> map,
    IReadOnlyList<(Planter Planter, PaintStretch Paint)> planters,
    int year,
    UnitsText units,
    string addresses = ""
)
{
    private const double MarginM = 6;

    /// <summary>What the map covers, m.</summary>
    public Envelope Extent
    {
        get
        {
            var box = new Envelope();
            foreach (MapFeature f in map)
            {
                Envelope e = f.Shape.EnvelopeInternal.Copy();
                e.ExpandBy(f.Kind == MapKind.Tree ? f.CrownIn(year) / 2 : f.WidthM / 2);
                box.ExpandToInclude(e);
            }
            foreach ((Planter p, _) in planters)
                box.ExpandToInclude(PlanterGround.Of(p).EnvelopeInternal);
            if (box.IsNull)
                box = new Envelope(-20, 20, -12, 12);
            box.ExpandBy(Math.Max(MarginM, box.Width * 0.02));
            return box;
        }
    }

    /// <summary>The drawing as it stands in a page; drawn once.</summary>
    public IHtmlContent Html => _html ??= Draw().Html();

    private IHtmlContent? _html;

    /// <summary>The drawing, with a scale bar for paper.</summary>
    public XElement Draw()
    {
        Envelope box = Extent;
        // Wide enough to fill a page's width at three to one and a half.
        double height = Math.Max(box.Height, box.Width * 0.46);
        double top = ((box.MinY + box.MaxY) / 2) + (height / 2);
        string label = $"Map of the site, north up: {planters.Count} planters";
        XElement svg = El(
            "svg",
            "class",
            "grounds-map",
            "viewBox",
            $"{N(box.MinX)} {N(-top)} {N(box.Width)} {N(height)}",
            "preserveAspectRatio",
            "xMidYMid meet",
            "data-grounds-map",
            string.Empty,
            "tabindex",
            "0",
            "role",
            "group",
            "aria-label",
            label,
            "aria-describedby",
            "grounds-keys"
        );
        XElement defs = El(
            "defs",
            El(
                "pattern",
                "id",
                "bare",
                "width",
                0.24,
                "height",
                0.24,
                "patternUnits",
                "userSpaceOnUse",
                "patternTransform",
                "rotate(45)",
                El("rect", "width", 0.24, "height", 0.24, "class", "bare-ground"),
                El("line", "x1", 0, "y1", 0, "x2", 0, "y2", 0.24, "class", "bare-hatch")
            ),
            El(
                "pattern",
                "id",
                "built",
                "width",
                1.1,
                "height",
                1.1,
                "patternUnits",
                "userSpaceOnUse",
                "patternTransform",
                "rotate(45)",
                El("line", "x1", 0, "y1", 0, "x2", 0, "y2", 1.1, "class", "built-hatch")
            )
        );
        svg.Add(defs);
        foreach (MapKind kind in new[] { MapKind.Lawn, MapKind.Water, MapKind.Path, MapKind.Building, MapKind.Wall })
        {
            foreach (MapFeature f in map.Where(f => f.Kind == kind))
                svg.Add(Ground(f));
        }
        foreach ((string text, Coordinate at) in Names(box.Width / 90))
        {
            XElement name = Text(at.X, -at.Y, "place-name", text, "middle");
            name.SetAttributeValue("data-map-text", string.Empty);
            name.SetAttributeValue("font-size", N(box.Width / 90));
            svg.Add(name);
        }
        foreach ((Planter p, PaintStretch paint) in planters)
            svg.Add(Planter(p, paint));
        foreach (MapFeature tree in map.Where(f => f.Kind == MapKind.Tree))
            svg.Add(Tree(tree));
        svg.Add(ScaleBar(box, top - height, units.ReadMetres(1), units.MapUnit));
        return svg;
    }

    // A round length of about a tenth of the width, in the lower left corner. On the screen a bar over the map stands for it.
    private static XElement ScaleBar(Envelope box, double bottomM, double metresPerUnit, string unit)
    {
        double most = box.Width / 8 / metresPerUnit;
        double power = Math.Pow(10, Math.Floor(Math.Log10(most)));
        double round = new[] { 5 * power, 2 * power, power }.First(k => k <= most);
        double tick = box.Width / 200;
        XElement text = Text(0, -tick, "scale-text", $"{N(round)} {unit}");
        text.SetAttributeValue("font-size", N(box.Width / 90));
        return El(
            "g",
            "class",
            "map-scale",
            "data-map-scale",
            string.Empty,
            "transform",
            $"translate({N(box.MinX + (2 * tick))} {N(-bottomM - (2 * tick))})",
            El("path", "d", $"M0 {N(-tick)}V0H{N(round * metresPerUnit)}V{N(-tick)}"),
            text
        );
    }

    // Where each name stands: within its feature where it covers nothing, else along its edges, else where it covers least.
    private IEnumerable<(string Text, Coordinate At)> Names(double fontM)
    {
        var covered = new List<Envelope>([
            .. planters.Select(p => PlanterGround.Of(p.Planter).EnvelopeInternal),
            .. map.Where(f => f.Kind == MapKind.Building).Select(f => f.Shape.EnvelopeInternal),
        ]);
        foreach (
            MapFeature f in map.Where(f => f.Name.Length > 0 && f.Kind is MapKind.Building or MapKind.Water or MapKind.Lawn && f.Shape.Area > 12)
                .OrderBy(f => f.Shape.Area)
        )
        {
            Envelope own = f.Shape.EnvelopeInternal;
            Coordinate middle = f.Shape.InteriorPoint.Coordinate;
            // Letters of the display type are some 0.55 of their size wide.
            double halfM = f.Name.Length * 0.29 * fontM;
            Coordinate[] places =
            [
                new(middle.X, middle.Y - (0.3 * fontM)),
                new(middle.X, own.MinY + (0.5 * fontM)),
                new(middle.X, own.MaxY - (1.1 * fontM)),
                new(middle.X, own.MaxY + (0.5 * fontM)),
                new(middle.X, own.MinY - (1.1 * fontM)),
                new(own.MinX + halfM + (0.4 * fontM), own.MaxY - (1.1 * fontM)),
                new(own.MaxX - halfM - (0.4 * fontM), own.MinY + (0.5 * fontM)),
            ];
            Envelope Box(Coordinate at) => new(at.X - halfM, at.X + halfM, at.Y - (0.3 * fontM), at.Y + (0.9 * fontM));
            // A name within its own building covers that building alone, as long as it is no wider.
            double Covers(Coordinate at) =>
                covered.Where(c => !(f.Kind == MapKind.Building && c.Equals(own) && own.Covers(Box(at)))).Sum(c => c.Intersection(Box(at)).Area);
            Coordinate best = places.MinBy(Covers)!;
            covered.Add(Box(best));
            yield return (f.Name, best);
        }
    }

    /// <summary>Path data of a ring or line, y turned so that north is up.</summary>
    internal static string Data(Geometry shape)
    {
        var d = new StringBuilder();
        IEnumerable<Coordinate[]> lines = shape is Polygon p
            ? p.InteriorRings.Prepend(p.ExteriorRing).Select(r => r.Coordinates)
            : [shape.Coordinates];
        foreach (Coordinate[] line in lines)
        {
            for (int i = 0; i < line.Length; i++)
                d.Append(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{N(line[i].X)} {N(-line[i].Y)}");
            if (shape is Polygon)
                d.Append('Z');
        }
        return d.ToString();
    }

    private static XElement Ground(MapFeature f)
    {
        XElement path = El("path", "d", Data(f.Shape), "class", $"ground-{f.Kind.ToString().ToLowerInvariant()}");
        if (f.Kind is MapKind.Path or MapKind.Wall)
            path.SetAttributeValue("stroke-width", N(Math.Max(0.15, f.WidthM)));
        if (f.Name.Length > 0)
            path.Add(Title(f.Name));
        return path;
    }

    private XElement Tree(MapFeature tree)
    {
        Coordinate at = tree.Shape.Coordinate;
        double radius = tree.CrownIn(year) / 2;
        return El(
            "g",
            "class",
            "tree",
            El("circle", "cx", at.X, "cy", -at.Y, "r", radius, "class", "crown"),
            El("circle", "cx", at.X, "cy", -at.Y, "r", Math.Min(0.3, radius / 4), "class", "trunk"),
            Title(
                (
                    $"{(tree.Name.Length > 0 ? tree.Name : "Tree")}, crown {units.Of(Quantity.Metres(radius * 2, 1))}, "
                    + $"{units.Of(Quantity.Metres(tree.HeightIn(year), 1))} high in {year}"
                )
            )
        );
    }

    // Round forms as two arcs: of thousands of planters each letter counts.
    private static string Outline(PlanterForm form)
    {
        if (form is { IsRoundish: true, Outline: null })
        {
            string a = N(form.TopLengthCm / 200);
            string b = N(form.TopWidthCm / 200);
            return $"M-{a} 0A{a} {b} 0 0 1 {a} 0A{a} {b} 0 0 1-{a} 0Z";
        }
        string outline = string.Join('L', PlanterGround.Corners(form).Select(c => $"{N(c.XCm / 100)} {N(-c.YCm / 100)}"));
        if (form.Outline is { } bed)
            outline += string.Concat(bed.Holes.Select(h => "ZM" + string.Join('L', h.Select(c => $"{N(c.XCm / 100)} {N(-c.YCm / 100)}"))));
        return $"M{outline}Z";
    }

    private XElement Planter(Planter p, PaintStretch paint)
    {
        PlanterForm form = p.Form;
        string outline = Outline(form);
        XElement Path(string cssClass) => El("path", "class", cssClass, "d", outline);
        XElement soil = Path("soil");
        soil.SetAttributeValue("stroke", form.IsBed ? "#8a7a63" : p.WallColour);
        XElement body = El("g", "class", "body", soil);
        double left = 1;
        for (int k = 0; k < 3; k++)
        {
            (string? colour, double share) = k < paint.Colours.Count ? paint.Colours[k] : (null, 0);
            // Each colour lies inside the one before, so that the area of each ring is its share of the surface. One that does not show has no
            // outline until it does.
            if (share > 0)
            {
                XElement tint = Path("tint");
                tint.SetAttributeValue("fill", colour);
                tint.SetAttributeValue("transform", $"scale({N(Math.Sqrt(Math.Max(0, left)))})");
                body.Add(tint);
            }
            else
                body.Add(El("path", "class", "tint", "display", "none"));
            left -= share;
        }
        MapPlace at = p.Place!;
        string says = paint.Showing switch
        {
            Showing.Colour => "in colour",
            Showing.Green => "green only",
            _ => "bare",
        };
        return El(
            "a",
            "class",
            $"planter is-{paint.Showing.ToString().ToLowerInvariant()}",
            "href",
            $"{addresses}/planters/{p.Id}",
            "data-planter",
            p.Id,
            "tabindex",
            "-1",
            "data-size",
            Math.Max(form.TopLengthCm, form.TopWidthCm) / 100,
            "data-name",
            p.Name,
            "transform",
            $"translate({N(at.EastM)} {N(-at.NorthM)}) rotate({N(-at.TurnDeg)})",
            body,
            Title($"{p.Name}: {says}")
        );
    }
}
