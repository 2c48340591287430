using System.Xml.Linq;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A recipe at a glance: from above in the planter that it was made for, half grown, and its weeks of colour.</summary>
public static class RecipePicture
{
    private const double WeeksWide = 208;
    private const double RowHigh = 7;

    /// <summary>From above, to scale in centimetres: a plant is its leaf, and in it as much of its colour as it shows at its best.</summary>
    public static XElement Above(RecipeCard card, Core.Planning.Site site)
    {
        PlanterForm form = card.Recipe.Form;
        (Plant Plant, PlanePoint At, double Cm)[] placed = [.. Places(card, Made(form), site).OrderBy(p => p.Plant.HeightCm)];
        double over = placed.Max(p =>
            Math.Max(Math.Abs(p.At.XCm) + (p.Cm / 2) - (form.TopLengthCm / 2), Math.Abs(p.At.YCm) + (p.Cm / 2) - (form.TopWidthCm / 2))
        );
        double margin = Math.Max(form.IsBed ? 3 : 6, over + 1);
        (double wide, double high) = (form.TopLengthCm + (2 * margin), form.TopWidthCm + (2 * margin));
        XElement svg = El(
            "svg",
            "viewBox",
            $"{N(-wide / 2)} {N(-high / 2)} {N(wide)} {N(high)}",
            "class",
            "recipe-above",
            "role",
            "img",
            Title($"{card.Recipe.Name}, from above")
        );
        svg.Add(FromAbove.Ground(form, "#b7ae9c"));
        XElement plants = El("g", "class", "plants");
        foreach ((Plant plant, PlanePoint at, double cm) in placed)
        {
            ColourWindow? best = plant.Windows.MaxBy(w => w.Share * w.Weight);
            double r = cm / 2;
            bool bulb = card.Recipe.Layer == DisplayLayer.Bulbs;
            if (!bulb)
                plants.Add(
                    El("circle", "cx", at.XCm, "cy", -at.YCm, "r", r, "fill", PlanterOnDay.LeafOf(new StandingPlant(plant, 1, plant.Windows, true)))
                );
            if (best is not null)
                plants.Add(
                    El(
                        "circle",
                        "cx",
                        at.XCm,
                        "cy",
                        -at.YCm,
                        "r",
                        bulb ? r * 0.8 : r * Math.Sqrt(Math.Clamp(best.Share, 0.15, 0.95)),
                        "fill",
                        best.Colours[0],
                        "stroke",
                        Outline(best.Colours[0]),
                        "stroke-width",
                        0.5
                    )
                );
        }
        svg.Add(plants);
        return svg;
    }

    /// <summary>A line for each kind, in its own colour where it shows in at least half the years.</summary>
    public static XElement Weeks(RecipeCard card)
    {
        int days = card.Strips[0].Odds.Length;
        double high = (card.Strips.Count * RowHigh) + 12;
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(WeeksWide)} {N(high)}",
            "class",
            "recipe-weeks",
            "role",
            "img",
            Title("Weeks of colour: " + string.Join("; ", card.Strips.Select(s => $"{s.Plant.CommonName} {s.DaysInColour / 7} weeks")))
        );
        for (int month = 0; month < 12; month++)
        {
            var first = card.Strips[0].Start.PlusMonths(month);
            double x = NodaTime.Period.DaysBetween(card.Strips[0].Start, first) * WeeksWide / days;
            svg.Add(El("line", "x1", x, "x2", x, "y1", 0.0, "y2", high - 11, "class", "month-rule"));
            svg.Add(Text(x + (WeeksWide / 24), high - 2, "month", first.ToString("MMM", null)[..1], "middle"));
        }
        for (int k = 0; k < card.Strips.Count; k++)
        {
            FloweringStrip strip = card.Strips[k];
            foreach ((NodaTime.LocalDate first, NodaTime.LocalDate last) in strip.Spells)
            {
                int from = NodaTime.Period.DaysBetween(strip.Start, first);
                int to = NodaTime.Period.DaysBetween(strip.Start, last) + 1;
                int middle = (from + to) / 2;
                int window = Enumerable.Range(0, strip.ByWindow.Count).MaxBy(w => strip.ByWindow[w][middle]);
                string colour = strip.Plant.Windows[window].Colours[0];
                svg.Add(
                    El(
                        "rect",
                        "x",
                        from * WeeksWide / days,
                        "y",
                        (k * RowHigh) + 1,
                        "width",
                        (to - from) * WeeksWide / days,
                        "height",
                        RowHigh - 2,
                        "rx",
                        1.5,
                        "fill",
                        colour,
                        "stroke",
                        Outline(colour),
                        "stroke-width",
                        0.6
                    )
                );
            }
        }
        return svg;
    }

    private static Planter Made(PlanterForm form) =>
        new()
        {
            Id = "recipe",
            AreaId = "recipe",
            Name = "recipe",
            Form = form,
            Exposure = Exposure.FullSun,
            Watering = Watering.Hand,
            ViewedFrom = ViewedFrom.AllRound,
            Wall = form.IsBed ? WallMaterial.None : WallMaterial.Terracotta,
            WallColour = "#b7ae9c",
        };

    private static IEnumerable<(Plant Plant, PlanePoint At, double Cm)> Places(RecipeCard card, Planter planter, Core.Planning.Site site)
    {
        if (card.Recipe.Layer == DisplayLayer.Bulbs)
            return BulbStack
                .LayOut(
                    planter,
                    site,
                    [
                        .. card
                            .Strips.Zip(card.Recipe.Items)
                            .Select(k => new PlannedBulb(k.First.Plant, k.Second.Count, k.Second.DepthCm) { Clump = k.Second.Clump }),
                    ]
                )
                .Layers.OrderByDescending(l => l.DepthCm)
                .SelectMany(l => l.Spread.Select(at => (l.Plant, at, l.Plant.Bulb!.DiameterCm * (planter.Form.IsBed ? 2.4 : 1.4))));
        return Arrangement
            .Of(planter, [.. card.Strips.Zip(card.Recipe.Items).Select(k => (k.First.Plant, k.Second))])
            .Plants.Select(p => (p.Plant, p.At, (p.Plant.SpreadAtPurchaseCm + p.Plant.MatureSpreadCm) / 2));
    }
}
