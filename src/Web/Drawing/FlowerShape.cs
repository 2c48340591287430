using System.Text;
using System.Xml.Linq;
using UnrulyMeadow.Core.Palette;
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
            "Galanthus" => El(
                "path",
                "d",
                (
                    $"M{N(x)} {N(y)}q{N(1.6 * scale)} {N(0.6 * scale)} {N(1.3 * scale)} "
                    + $"{N(2.6 * scale)}h{N(-2.6 * scale)}q{N(-0.3 * scale)} {N(-2 * scale)} {N(1.3 * scale)} {N(-2.6 * scale)}Z"
                ),
                "fill",
                colour,
                "stroke",
                edge,
                "class",
                "petal"
            ),
            _ => Cup(x, y, 1.7 * scale, 3.6 * scale, colour, edge),
        };
    }

    /// <summary>A plant that stands on the surface: a ragged mound, taller for upright ones, hanging for trailing ones.</summary>
    public static XElement Mound(StandingPlant standing, double x, double ground, double spread, double tall, int seed)
    {
        XElement group = El("g");
        Plant plant = standing.Plant;
        bool tree = plant.LifeForm == LifeForm.Tree;
        double half = spread / 2;
        double height = plant.Habit == Habit.Trailing ? Math.Max(tall * 0.6, 6) : tall;
        double foot = tree ? ground - (tall * 0.45) : ground;
        double crown = tree ? tall * 0.55 : height;
        if (tree)
            group.Add(El("path", "d", $"M{N(x - 4)} {N(ground)}L{N(x - 2)} {N(foot)}h5L{N(x + 5)} {N(ground)}Z", "fill", "#7a6650"));
        ColourWindow? stems = standing.Showing.FirstOrDefault(w => w.Part == ColourPart.Stem);
        bool woody = plant.LifeForm is LifeForm.Shrub or LifeForm.Tree;
        if (woody && (stems is not null || !standing.InLeaf))
        {
            group.Add(Twigs(x, foot, spread, crown, stems?.Colours[0] ?? "#7a6650", seed));
            group.Add(Spots(standing, x, foot, spread, crown, seed));
            return group;
        }
        if (!standing.InLeaf && plant.LifeForm is LifeForm.Perennial)
            return group;
        // A mound of lobes: the outline runs in small arcs from crest to crest.
        int lobes = (int)Math.Clamp(spread / 9, 4, 11);
        var path = new StringBuilder($"M{N(x - half)} {N(foot)}");
        double lastX = x - half;
        double lastY = foot;
        for (int i = 1; i <= lobes; i++)
        {
            double t = i / (double)lobes;
            double rise = i == lobes ? 0 : Math.Pow(Math.Sin(Math.PI * t), 0.62) * crown * (0.84 + (0.22 * Ragged(seed, i)));
            double nextX = x - half + (spread * t);
            double nextY = foot - rise;
            double lift = crown * 0.16;
            path.Append($"Q{N((lastX + nextX) / 2)} {N(Math.Min(lastY, nextY) - lift)} {N(nextX)} {N(nextY)}");
            (lastX, lastY) = (nextX, nextY);
        }
        path.Append('Z');
        string leaf = standing.Showing.FirstOrDefault(w => w.Part == ColourPart.Leaf)?.Colours[0]
            ?? (plant.LifeForm == LifeForm.Grass && !standing.InLeaf ? "#c4ab7c" : "#7f9a68");
        group.Add(El("path", "d", path.ToString(), "fill", leaf, "stroke", Mix(leaf, "#33452a", 0.45), "stroke-width", 0.7, "fill-opacity", 0.95));
        group.Add(Spots(standing, x, foot, spread, crown, seed));
        return group;
    }

    // Flowers or berries scattered over a plant.
    private static IEnumerable<XElement> Spots(StandingPlant standing, double x, double foot, double spread, double crown, int seed)
    {
        ColourWindow? bloom = standing.Showing.FirstOrDefault(w => w.Part is ColourPart.Flower or ColourPart.Berry);
        int dots = bloom is null ? 0 : (int)Math.Clamp(spread * bloom.Share / 4, 3, 22);
        for (int i = 0; i < dots; i++)
        {
            double t = 0.1 + (0.8 * ((i + Ragged(seed, i + 20)) / dots));
            double rise = Math.Pow(Math.Sin(Math.PI * t), 0.62) * crown * (0.35 + (0.6 * Ragged(seed, i + 40)));
            string colour = bloom!.Colours[i % 5 == 4 ? bloom.Colours.Count - 1 : 0];
            yield return El(
                "circle",
                "cx",
                x - (spread / 2) + (spread * t),
                "cy",
                foot - rise,
                "r",
                Math.Clamp(spread / 16, 1.6, bloom.Part == ColourPart.Berry ? 2.6 : 4.2),
                "fill",
                colour,
                "stroke",
                Outline(colour),
                "class",
                "petal"
            );
        }
    }

    private static XElement Twigs(double x, double foot, double spread, double crown, string colour, int seed)
    {
        var path = new StringBuilder();
        for (int i = 0; i < 13; i++)
        {
            double lean = (i - 6) / 6.0;
            double tall = crown * (1 - (0.35 * lean * lean)) * (0.82 + (0.2 * Ragged(seed, i + 70)));
            double tipX = x + (lean * spread * 0.46);
            path.Append(
                $"M{N(x + (lean * spread * 0.07))} {N(foot)}Q{N(x + (lean * spread * 0.2))} {N(foot - (tall * 0.55))} {N(tipX)} {N(foot - tall)}"
            );
            path.Append($"M{N(x + (lean * spread * 0.24))} {N(foot - (tall * 0.5))}l{N((lean >= 0 ? 1 : -1) * spread * 0.07)} {N(-tall * 0.24)}");
        }
        return El("path", "d", path.ToString(), "fill", "none", "stroke", colour, "stroke-width", 1.9, "stroke-linecap", "round");
    }

    private static XElement Cup(double x, double y, double w, double h, string colour, string edge) =>
        El(
            "path",
            "d",
            $"M{N(x)} {N(y)}C{N(x - (w * 1.1))} {N(y - (h * 0.1))} {N(x - (w * 0.95))} {N(y - (h * 0.6))} {N(x - (w * 0.55))} {N(y - h)}"
                + $"L{N(x - (w * 0.25))} {N(y - (h * 0.72))}L{N(x)} {N(y - (h * 1.06))}L{N(x + (w * 0.25))} {N(y - (h * 0.72))}L{N(x + (w * 0.55))} {N(y - h)}"
                + $"C{N(x + (w * 0.95))} {N(y - (h * 0.6))} {N(x + (w * 1.1))} {N(y - (h * 0.1))} {N(x)} {N(y)}Z",
            "fill",
            colour,
            "stroke",
            edge,
            "class",
            "petal"
        );

    private static XElement Trumpet(double x, double y, double r, string colour, string second, string edge)
    {
        var petals = new StringBuilder();
        for (int i = 0; i < 6; i++)
        {
            double a = (i * Math.PI / 3) + 0.3;
            double b = a + 0.52;
            double c = a - 0.52;
            petals.Append(
                (
                    $"M{N(x)} {N(y)}Q{N(x + (r * 0.8 * Math.Cos(c)))} {N(y + (r * 0.8 * Math.Sin(c)))} {N(x + (r * Math.Cos(a)))} "
                    + $"{N(y + (r * Math.Sin(a)))}Q{N(x + (r * 0.8 * Math.Cos(b)))} {N(y + (r * 0.8 * Math.Sin(b)))} {N(x)} {N(y)}Z"
                )
            );
        }
        string heart = second == colour ? Mix(colour, "#e08a1e", 0.5) : second;
        return El(
            "g",
            El("path", "d", petals.ToString(), "fill", colour, "stroke", edge, "class", "petal"),
            El("circle", "cx", x, "cy", y, "r", r * 0.38, "fill", heart, "stroke", Outline(heart), "class", "petal")
        );
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
                group.Add(
                    El(
                        "circle",
                        "cx",
                        x + (k * reach * 0.75),
                        "cy",
                        y - (h * t),
                        "r",
                        Math.Max(1.1, w * 0.42),
                        "fill",
                        colour,
                        "stroke",
                        edge,
                        "class",
                        "petal"
                    )
                );
        }
        return group;
    }
}
