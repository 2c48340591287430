using System.Globalization;
using System.Text;
using System.Xml.Linq;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A planter from above, to scale in centimetres: every plant at its true spread on the day, and bulbs that are up.</summary>
public static class FromAbove
{
    // With more plants than this each carries fewer flowers: they are too small to be told apart.
    private const int ManyPlants = 90;

    /// <summary>The drawing. One unit is a centimetre; y grows toward the front.</summary>
    /// <param name="shown">What stands.</param>
    /// <param name="units">Units of the scale.</param>
    /// <param name="movable">Id of the display whose plants can be moved by hand; null for a plain drawing.</param>
    public static XElement Draw(PlanterOnDay shown, UnitsText units, string? movable = null)
    {
        PlanterForm form = shown.Planter.Form;
        double over = shown
            .Plants.Select(p =>
                Math.Max(
                    Math.Abs(p.At.XCm) + (p.Stature.SpreadCm / 2) - (form.TopLengthCm / 2),
                    Math.Abs(p.At.YCm) + (p.Stature.SpreadCm / 2) - (form.TopWidthCm / 2)
                )
            )
            .DefaultIfEmpty(0)
            .Max();
        double margin = Math.Max(form.IsBed ? 8 : 5, Math.Min(over, form.TopWidthCm * 0.45) + 2);
        double text = Math.Max(form.TopLengthCm + (2 * margin), (form.TopWidthCm + (2 * margin)) * 1.1) * 0.026;
        double wide = form.TopLengthCm + (2 * margin);
        double high = form.TopWidthCm + (2 * margin) + (text * 2.6);
        XElement svg = El(
            "svg",
            "viewBox",
            $"{N(-wide / 2)} {N((-form.TopWidthCm / 2) - margin)} {N(wide)} {N(high)}",
            "class",
            "from-above",
            "role",
            movable is null ? "img" : "group",
            Title($"{shown.Planter.Name} from above on {Words.Day(shown.Day)}, to scale: {Said(shown, units)}")
        );
        if (movable is not null)
            svg.SetAttributeValue("data-arrangement", movable);
        svg.Add(Ground(form, shown.Planter.WallColour));
        foreach (ShownBulb bulb in shown.Bulbs)
            svg.Add(Bulb(bulb));
        bool many = shown.Plants.Count > ManyPlants;
        XElement plants = El("g", "class", "plants");
        foreach (ShownPlant plant in shown.Plants)
            plants.Add(Plant(plant, units, many, movable is not null && plant.Look.Display?.Id == movable));
        svg.Add(plants);
        foreach (ShownBulb bulb in shown.Bulbs.Where(b => b.InFlower))
            svg.Add(Flower(bulb));
        svg.Add(Foot(shown.Planter, units, wide, (form.TopWidthCm / 2) + margin + text, text));
        return svg;
    }

    private static string Said(PlanterOnDay shown, UnitsText units)
    {
        IEnumerable<string> plants = shown
            .Plants.GroupBy(p => p.Look.Plant.CommonName)
            .Select(g => $"{g.Count()} {g.Key}, {units.WorkingDepth(g.Average(p => p.Stature.SpreadCm))} wide");
        IEnumerable<string> bulbs = shown
            .Bulbs.GroupBy(b => (b.Plant.CommonName, b.InFlower))
            .Select(g => $"{g.Count()} {g.Key.CommonName}{(g.Key.InFlower ? " in flower" : " up")}");
        string all = string.Join("; ", plants.Concat(bulbs));
        return all.Length == 0 ? "nothing" : all;
    }

    /// <summary>The surface within its wall.</summary>
    internal static IEnumerable<XElement> Ground(PlanterForm form, string wall)
    {
        if (form.Outline is { } outline)
        {
            yield return El("path", "d", Rings(outline), "fill-rule", "evenodd", "class", "medium edge");
            yield break;
        }
        foreach ((double inset, string? fill) in form.IsBed ? [(0.0, null)] : new (double, string?)[] { (-2.2, wall), (0, null) })
        {
            (double l, double w) = form.IsBed || inset < 0 ? (form.TopLengthCm - (2 * inset), form.TopWidthCm - (2 * inset)) : form.InsideAt(0);
            XElement shape = form.IsRoundish
                ? El("ellipse", "cx", 0.0, "cy", 0.0, "rx", l / 2, "ry", w / 2)
                : El("rect", "x", -l / 2, "y", -w / 2, "width", l, "height", w, "rx", form.IsBed ? 0 : 1.5);
            shape.SetAttributeValue("class", fill is null ? "medium edge" : "wall");
            if (fill is not null)
                shape.SetAttributeValue("fill", fill);
            yield return shape;
        }
    }

    private static string Rings(BedOutline outline)
    {
        var path = new StringBuilder();
        foreach (IReadOnlyList<Corner> ring in outline.Holes.Prepend(outline.Ring))
        {
            for (int i = 0; i < ring.Count; i++)
                path.Append(i == 0 ? 'M' : 'L').Append(N(ring[i].XCm)).Append(' ').Append(N(-ring[i].YCm));
            path.Append('Z');
        }
        return path.ToString();
    }

    private static XElement Plant(ShownPlant shown, UnitsText units, bool many, bool movable)
    {
        (StandingPlant look, double r) = (shown.Look, shown.Stature.SpreadCm / 2);
        Plant plant = look.Plant;
        int seed = (plant.Id.Length * 31) + (shown.Index * 7) + look.Item;
        XElement group = El(
            "g",
            "transform",
            $"translate({N(shown.At.XCm)} {N(-shown.At.YCm)})",
            "class",
            movable ? "plant is-movable" : "plant",
            Title(
                $"{plant.CommonName} {shown.Index + 1}, {units.WorkingDepth(shown.Stature.SpreadCm)} wide, {units.WorkingDepth(shown.Stature.HeightCm)} high"
            )
        );
        if (movable)
        {
            group.SetAttributeValue("data-item", look.Item);
            group.SetAttributeValue("data-index", shown.Index);
            group.SetAttributeValue("tabindex", "0");
            group.SetAttributeValue("role", "button");
            group.SetAttributeValue("aria-label", $"{plant.CommonName} {shown.Index + 1}");
        }
        ColourWindow? stems = look.Showing.FirstOrDefault(w => w.Part == ColourPart.Stem);
        bool woody = plant.LifeForm is LifeForm.Shrub or LifeForm.Tree;
        if (woody && !look.InLeaf)
        {
            group.Add(El("circle", "r", r, "class", "crown"));
            group.Add(El("path", "d", Twigs(r, seed), "class", "twigs", "stroke", stems?.Colours[0] ?? "#7a6650"));
        }
        else if (look.InLeaf || plant.LifeForm != LifeForm.Perennial)
        {
            string leaf = PlanterOnDay.LeafOf(look);
            group.Add(
                El(
                    "path",
                    "d",
                    Blob(r, plant.Texture, seed),
                    "class",
                    "leafage",
                    "fill",
                    leaf,
                    "stroke",
                    Mix(leaf, "#33452a", 0.5),
                    "fill-opacity",
                    woody ? 0.8 : 0.95
                )
            );
        }
        else
        {
            group.Add(El("circle", "r", Math.Min(r, 4), "class", "asleep"));
        }
        ColourWindow? bloom = look.Showing.FirstOrDefault(w => w.Part is ColourPart.Flower or ColourPart.Berry);
        if (bloom is not null)
            group.Add(Spots(bloom, r, seed, many));
        return group;
    }

    // Flowers or berries spread over a plant by the golden angle, their area the share of it that shows.
    private static XElement Spots(ColourWindow bloom, double r, int seed, bool many)
    {
        int dots = Math.Clamp((int)(r * (many ? 0.5 : 1.9)), 3, many ? 7 : 46);
        double size = Math.Clamp(r * Math.Sqrt(bloom.Share / dots) * 0.9, 0.4, 3.4);
        XElement group = El("g");
        foreach (var colour in Enumerable.Range(0, dots).GroupBy(i => bloom.Colours[i % 4 == 3 ? bloom.Colours.Count - 1 : 0]))
        {
            var path = new StringBuilder();
            foreach (int i in colour)
            {
                double reach = 0.9 * r * Math.Sqrt((i + 0.3 + (0.5 * Ragged(seed, i))) / dots);
                double a = (i * 2.399963) + seed + (0.5 * Ragged(seed, i + 99));
                path.Append(
                    (
                        $"M{N((reach * Math.Cos(a)) - size)} {N(reach * Math.Sin(a))}a{N(size)} "
                        + $"{N(size)} 0 1 0 {N(2 * size)} 0a{N(size)} {N(size)} 0 1 0 {N(-2 * size)} 0"
                    )
                );
            }
            group.Add(El("path", "d", path.ToString(), "fill", colour.Key, "stroke", Outline(colour.Key), "class", "fine"));
        }
        return group;
    }

    // Leafage as a ring of lobes; fine textures have many small ones.
    private static string Blob(double r, Texture texture, int seed)
    {
        int lobes = texture switch
        {
            Texture.Fine => 18,
            Texture.Bold => 8,
            _ => 12,
        };
        double depth = texture switch
        {
            Texture.Fine => 0.10,
            Texture.Bold => 0.16,
            _ => 0.12,
        };
        var path = new StringBuilder();
        for (int i = 0; i <= lobes; i++)
        {
            double a = i * 2 * Math.PI / lobes;
            double inner = r * (1 - depth - (0.06 * Ragged(seed, i % lobes)));
            (double x, double y) = (inner * Math.Cos(a), inner * Math.Sin(a));
            if (i == 0)
            {
                path.Append($"M{N(x)} {N(y)}");
                continue;
            }
            double m = a - (Math.PI / lobes);
            double outer = r * (1.07 + (0.05 * Ragged(seed, i + 50)));
            path.Append($"Q{N(outer * Math.Cos(m))} {N(outer * Math.Sin(m))} {N(x)} {N(y)}");
        }
        return path.Append('Z').ToString();
    }

    private static string Twigs(double r, int seed)
    {
        var path = new StringBuilder();
        for (int i = 0; i < 15; i++)
        {
            double a = (i * 2 * Math.PI / 15) + (0.3 * Ragged(seed, i));
            double reach = r * (0.7 + (0.28 * Ragged(seed, i + 30)));
            double b = a + 0.22;
            path.Append(
                (
                    $"M0 0L{N(reach * Math.Cos(a))} {N(reach * Math.Sin(a))}M{N(reach * 0.5 * Math.Cos(a))} "
                    + $"{N(reach * 0.5 * Math.Sin(a))}L{N(reach * 0.82 * Math.Cos(b))} {N(reach * 0.82 * Math.Sin(b))}"
                )
            );
        }
        return path.ToString();
    }

    private static XElement Bulb(ShownBulb bulb)
    {
        double r = Math.Max(1.4, bulb.Plant.MatureSpreadCm * 0.42 * bulb.Grown);
        var path = new StringBuilder();
        int seed = (int)(bulb.At.XCm * 13) + (int)bulb.At.YCm;
        for (int i = 0; i < 4; i++)
        {
            double a = (i * Math.PI / 2) + (1.2 * Ragged(seed, i));
            path.Append($"M0 0Q{N(r * 0.5 * Math.Cos(a + 0.3))} {N(r * 0.5 * Math.Sin(a + 0.3))} {N(r * Math.Cos(a))} {N(r * Math.Sin(a))}");
        }
        return El(
            "path",
            "d",
            path.ToString(),
            "transform",
            $"translate({N(bulb.At.XCm)} {N(-bulb.At.YCm)})",
            "class",
            bulb.Fading ? "blades is-fading" : "blades"
        );
    }

    private static XElement Flower(ShownBulb bulb)
    {
        ColourWindow window = bulb.Plant.Windows[0];
        double r = Math.Clamp(bulb.Plant.MatureSpreadCm / 2 * Math.Sqrt(window.Share) * 0.85, 1.1, 5);
        XElement group = El("g", "transform", $"translate({N(bulb.At.XCm)} {N(-bulb.At.YCm)})", Title(bulb.Plant.CommonName + ", in flower"));
        group.Add(El("path", "d", Petals(r), "fill", window.Colours[0], "stroke", Outline(window.Colours[0]), "class", "fine"));
        string heart = window.Colours.Count > 1 ? window.Colours[1] : Mix(window.Colours[0], "#3c3416", 0.35);
        group.Add(El("circle", "r", r * 0.3, "fill", heart));
        return group;
    }

    private static string Petals(double r)
    {
        var path = new StringBuilder();
        for (int i = 0; i < 6; i++)
        {
            double a = i * Math.PI / 3;
            path.Append(
                (
                    $"M0 0C{N(r * 0.75 * Math.Cos(a - 0.75))} {N(r * 0.75 * Math.Sin(a - 0.75))} {N(r * 1.1 * Math.Cos(a - 0.38))} {N(r * 1.1 * Math.Sin(a - 0.38))} {N(r * Math.Cos(a))} "
                    + $"{N(r * Math.Sin(a))}C{N(r * 1.1 * Math.Cos(a + 0.38))} {N(r * 1.1 * Math.Sin(a + 0.38))} {N(r * 0.75 * Math.Cos(a + 0.75))} {N(r * 0.75 * Math.Sin(a + 0.75))} 0 0"
                )
            );
        }
        return path.Append('Z').ToString();
    }

    private static IEnumerable<XElement> Foot(Planter planter, UnitsText units, double wide, double y, double text)
    {
        double[] steps = units.IsUs ? [2.54 * 6, 2.54 * 12, 2.54 * 36, 2.54 * 120] : [10, 20, 50, 100, 200];
        double bar = steps.LastOrDefault(s => s <= wide * 0.32, steps[0]);
        double x = -wide / 2 + (text * 0.4);
        yield return El("path", "d", $"M{N(x)} {N(y - (text * 0.35))}v{N(text * 0.35)}h{N(bar)}v{N(-text * 0.35)}", "class", "scale-line");
        yield return Sized(x + bar + (text * 0.5), y + (text * 0.1), text, units.Length(bar), "start");
        if (planter.ViewedFrom == ViewedFrom.OneSide)
            yield return Sized(wide * 0.14, y + (text * 0.1), text, "▲ seen from here", "middle");
    }

    private static XElement Sized(double x, double y, double size, string words, string anchor)
    {
        XElement text = Text(x, y, "above-text", words, anchor);
        text.SetAttributeValue("font-size", N(size));
        return text;
    }
}
