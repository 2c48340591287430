using System.Globalization;
using System.Xml.Linq;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>One layer of a bulb stack from above, to print to scale and lay on the medium: every bulb at its place.</summary>
public static class PlantingTemplate
{
    /// <summary>Room for the drawing on one page, cm: what both A4 and letter paper leave.</summary>
    public const double PageWideCm = 18.5;

    /// <summary>Height of that room, cm.</summary>
    public const double PageHighCm = 19.5;

    private static readonly double[] Scales = [1, 2, 2.5, 4, 5, 10, 20, 25, 50, 100];

    /// <summary>The largest scale at which a planter fits a page: 1 for full size, 10 for one to ten.</summary>
    public static double ScaleFor(PlanterForm form) =>
        Scales.FirstOrDefault(s => (form.TopLengthCm + 2) / s <= PageWideCm && (form.TopWidthCm + 2) / s <= PageHighCm, Scales[^1]);

    /// <summary>The drawing of one layer, its size in centimetres of paper.</summary>
    /// <param name="stack">The stack.</param>
    /// <param name="layer">The layer.</param>
    /// <param name="scale">1 for full size, 10 for one to ten.</param>
    /// <param name="units">Units of the words.</param>
    public static XElement Draw(BulbStack stack, StackLayer layer, double scale, UnitsText units)
    {
        PlanterForm form = stack.Planter.Form;
        double wide = form.TopLengthCm + 2;
        double high = form.TopWidthCm + 2;
        XElement svg = El(
            "svg",
            "viewBox",
            $"{N(-wide / 2)} {N(-high / 2)} {N(wide)} {N(high)}",
            "width",
            $"{N(wide / scale)}cm",
            "height",
            $"{N(high / scale)}cm",
            "class",
            "template",
            "role",
            "img",
            Title(
                (
                    $"{layer.Plant.CommonName}: {layer.Spread.Count} places from above, 1 to "
                    + $"{scale.ToString("0.#", CultureInfo.InvariantCulture)}, base at {units.Length(layer.DepthCm)}"
                )
            )
        );
        svg.Add(Outline(form, form.TopLengthCm, form.TopWidthCm, "rim"));
        if (!form.IsBed)
            svg.Add(Outline(form, layer.LengthCm, layer.WidthCm, "inside"));
        svg.Add(El("path", "d", $"M{N(-wide / 2)} 0H{N(wide / 2)}M0 {N(-high / 2)}V{N(high / 2)}", "class", "cross"));
        foreach (StackLayer other in stack.Layers.Where(l => l != layer))
        {
            foreach (PlanePoint p in other.Spread)
                svg.Add(El("circle", "cx", p.XCm, "cy", -p.YCm, "r", other.Plant.Bulb!.DiameterCm / 2, "class", "other"));
        }
        double r = layer.Plant.Bulb!.DiameterCm / 2;
        double text = Math.Max(r * 0.9, 0.26 * scale);
        for (int i = 0; i < layer.Spread.Count; i++)
        {
            (double x, double y) = layer.Spread[i];
            svg.Add(El("circle", "cx", x, "cy", -y, "r", r, "class", "here"));
            if (layer.Spread.Count <= 200)
            {
                XElement number = Text(x, -y + (text * 0.34), "number", (i + 1).ToString(CultureInfo.InvariantCulture), "middle");
                number.SetAttributeValue("font-size", N(Math.Min(text, r * 1.3)));
                svg.Add(number);
            }
        }
        return svg;
    }

    private static XElement Outline(PlanterForm form, double length, double width, string css)
    {
        if (form.Outline is { } outline)
        {
            return El(
                "path",
                "d",
                string.Concat(
                    outline.Holes.Prepend(outline.Ring).Select(ring => "M" + string.Join("L", ring.Select(c => $"{N(c.XCm)} {N(-c.YCm)}")) + "Z")
                ),
                "class",
                css
            );
        }
        return form.IsRoundish
            ? El("ellipse", "cx", 0.0, "cy", 0.0, "rx", length / 2, "ry", width / 2, "class", css)
            : El("rect", "x", -length / 2, "y", -width / 2, "width", length, "height", width, "class", css);
    }
}
