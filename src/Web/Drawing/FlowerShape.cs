using System.Text;
using System.Xml.Linq;
using UnrulyMeadow.Core.Plants;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>Flowers and plants in side view, in their own colours, simple enough to be read small.</summary>
public static class FlowerShape
{
    /// <summary>A bulb's flower with its foot at a place.</summary>
    public static XElement Draw(Plant plant, double x, double y, double scale)
    {
        ColourWindow window = plant.Windows[0];
        string colour = window.Colours[0];
        string second = window.Colours.Count > 1 ? window.Colours[1] : colour;
        string edge = Outline(colour);
        return plant.BotanicalName.Split(' ', ',')[0] switch
        {
            "Tulipa" => Cup(x, y, 2.6 * scale, 5 * scale, colour, edge),
            "Narcissus" => Trumpet(x, y, 3 * scale, colour, second, edge),
            "Hyacinthus" => Spike(x, y, 2.2 * scale, 9 * scale, colour, edge),
            "Muscari" or "Scilla" => Spike(x, y, 1.2 * scale, 4.5 * scale, colour, edge),
            "Allium" => El("circle", "cx", x, "cy", y, "r", 4.6 * scale, "fill", colour, "stroke", edge, "class", "petal"),
            "Galanthus" => El("path", "d", $"M{N(x)} {N(y)}q{N(1.6 * scale)} {N(0.6 * scale)} {N(1.3 * scale)} {N(2.6 * scale)}h{N(-2.6 * scale)}q{N(-0.3 * scale)} {N(-2 * scale)} {N(1.3 * scale)} {N(-2.6 * scale)}Z", "fill", colour, "stroke", edge, "class", "petal"),
            _ => Cup(x, y, 1.7 * scale, 3.6 * scale, colour, edge),
        };
    }

    /// <summary>A plant that stands on the surface: a ragged mound, taller for upright ones, hanging for trailing ones.</summary>
    public static XElement Mound(Plant plant, double x, double ground, double spread, double tall, int seed)
    {
        XElement group = El("g");
        bool tree = plant.LifeForm == LifeForm.Tree;
        double half = spread / 2;
        double height = plant.Habit == Habit.Trailing ? Math.Max(tall * 0.6, 6) : tall;
        double foot = tree ? ground - (tall * 0.45) : ground;
        double crown = tree ? tall * 0.55 : height;
        if (tree)
            group.Add(El("path", "d", $"M{N(x - 4)} {N(ground)}L{N(x - 2)} {N(foot)}h5L{N(x + 5)} {N(ground)}Z", "fill", "#7a6650"));
        var path = new StringBuilder($"M{N(x - half)} {N(foot)}");
        for (int i = 1; i < 12; i++)
        {
            double t = i / 12.0;
            double rise = Math.Sin(Math.PI * t) * crown * (0.82 + (0.3 * Ragged(seed, i)));
            path.Append($"L{N(x - half + (spread * t))} {N(foot - rise)}");
        }
        path.Append($"L{N(x + half)} {N(foot)}Z");
        ColourWindow? leaf = plant.Windows.FirstOrDefault(w => w.Part == ColourPart.Leaf);
        group.Add(El("path", "d", path.ToString(), "fill", leaf?.Colours[0] ?? "#7f9a68", "stroke", "#55703f", "stroke-width", 0.6, "fill-opacity", 0.92));
        ColourWindow? bloom = plant.Windows.FirstOrDefault(w => w.Part != ColourPart.Leaf);
        int dots = bloom is null ? 0 : (int)Math.Clamp(spread * bloom.Share / 4, 3, 16);
        for (int i = 0; i < dots; i++)
        {
            double t = 0.1 + (0.8 * ((i + Ragged(seed, i + 20)) / dots));
            double rise = Math.Sin(Math.PI * t) * crown * (0.35 + (0.6 * Ragged(seed, i + 40)));
            string colour = bloom!.Colours[i % 5 == 4 ? bloom.Colours.Count - 1 : 0];
            group.Add(El("circle", "cx", x - half + (spread * t), "cy", foot - rise, "r", Math.Clamp(spread / 16, 1.6, 4.2), "fill", colour, "stroke", Outline(colour), "class", "petal"));
        }
        return group;
    }

    private static XElement Cup(double x, double y, double w, double h, string colour, string edge) => El(
        "path", "d",
        $"M{N(x)} {N(y)}C{N(x - (w * 1.1))} {N(y - (h * 0.1))} {N(x - (w * 0.95))} {N(y - (h * 0.6))} {N(x - (w * 0.55))} {N(y - h)}" +
        $"L{N(x - (w * 0.25))} {N(y - (h * 0.72))}L{N(x)} {N(y - (h * 1.06))}L{N(x + (w * 0.25))} {N(y - (h * 0.72))}L{N(x + (w * 0.55))} {N(y - h)}" +
        $"C{N(x + (w * 0.95))} {N(y - (h * 0.6))} {N(x + (w * 1.1))} {N(y - (h * 0.1))} {N(x)} {N(y)}Z",
        "fill", colour, "stroke", edge, "class", "petal");

    private static XElement Trumpet(double x, double y, double r, string colour, string second, string edge)
    {
        var petals = new StringBuilder();
        for (int i = 0; i < 6; i++)
        {
            double a = (i * Math.PI / 3) + 0.3;
            double b = a + 0.52;
            double c = a - 0.52;
            petals.Append($"M{N(x)} {N(y)}Q{N(x + (r * 0.8 * Math.Cos(c)))} {N(y + (r * 0.8 * Math.Sin(c)))} {N(x + (r * Math.Cos(a)))} {N(y + (r * Math.Sin(a)))}Q{N(x + (r * 0.8 * Math.Cos(b)))} {N(y + (r * 0.8 * Math.Sin(b)))} {N(x)} {N(y)}Z");
        }
        string heart = second == colour ? Mix(colour, "#e08a1e", 0.5) : second;
        return El(
            "g",
            El("path", "d", petals.ToString(), "fill", colour, "stroke", edge, "class", "petal"),
            El("circle", "cx", x, "cy", y, "r", r * 0.38, "fill", heart, "stroke", Outline(heart), "class", "petal"));
    }

    private static XElement Spike(double x, double y, double w, double h, string colour, string edge)
    {
        XElement group = El("g");
        int rows = Math.Max(3, (int)(h / Math.Max(2.4, w * 0.8)));
        for (int i = 0; i < rows; i++)
        {
            double t = (i + 0.5) / rows;
            double reach = w * (1 - (0.55 * t));
            for (int k = -1; k <= 1; k++)
                group.Add(El("circle", "cx", x + (k * reach * 0.75), "cy", y - (h * t), "r", Math.Max(1.1, w * 0.42), "fill", colour, "stroke", edge, "class", "petal"));
        }
        return group;
    }
}
