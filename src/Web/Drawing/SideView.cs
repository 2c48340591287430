using System.Globalization;
using System.Xml.Linq;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A planter as those see it who stand before it, and in profile with the lines of their sight.</summary>
public static class SideView
{
    private const double Scale = 2;

    // Of larger plantings an even choice is drawn: more could not be told apart from the side.
    private const int MostDrawn = 130;

    /// <summary>From the front: plants at their places and heights, the farthest first.</summary>
    /// <param name="shown">What stands.</param>
    /// <param name="units">Units of distances.</param>
    /// <param name="sight">The eye that looks.</param>
    /// <param name="metres">Distance from which it looks, for the blur of colours; 0 for close by.</param>
    /// <param name="name">Sets this drawing's parts apart from others of the page.</param>
    public static XElement Front(PlanterOnDay shown, UnitsText units, ColourSight sight, double metres, string name)
    {
        PlanterForm form = shown.Planter.Form;
        double tall = Math.Max(
            30,
            shown.Plants.Select(p => p.Stature.HeightCm).Concat(shown.Bulbs.Select(b => b.Plant.HeightCm * b.Grown)).DefaultIfEmpty(30).Max() * 1.15
        );
        double wide = (form.TopLengthCm + 30) * Scale;
        double pot = (form.IsBed ? 6 : form.DepthCm) * Scale;
        double ground = tall * Scale;
        XElement svg = El(
            "svg",
            "viewBox",
            $"{N(-wide / 2)} 0 {N(wide)} {N(ground + pot + 6)}",
            "class",
            "front-view",
            "role",
            "img",
            Title(
                $"{shown.Planter.Name} from the front on {Words.Day(shown.Day)}{(metres > 0 ? $", from {units.MapDistance(metres)}" : string.Empty)}"
            )
        );
        XElement scene = El("g");
        if (metres > 0)
        {
            string id = $"blur-{name}";
            svg.Add(
                El(
                    "filter",
                    "id",
                    id,
                    "x",
                    "-20%",
                    "y",
                    "-20%",
                    "width",
                    "140%",
                    "height",
                    "140%",
                    "color-interpolation-filters",
                    "linearRGB",
                    El("feGaussianBlur", "stdDeviation", N(SeenFrom.BlurCm(metres) * Scale))
                )
            );
            scene.SetAttributeValue("filter", $"url(#{id})");
        }
        svg.Add(scene);
        if (shown.Planter.Survey.BackdropColour is { } wall)
            scene.Add(
                El(
                    "rect",
                    "x",
                    -wide / 2,
                    "y",
                    0.0,
                    "width",
                    wide,
                    "height",
                    ground + pot,
                    "fill",
                    ColourVision.Seen(wall, sight),
                    "fill-opacity",
                    0.6
                )
            );
        IEnumerable<(double Y, XElement Drawn)> plants = Chosen(shown.Plants)
            .Select(p =>
                (
                    p.At.YCm,
                    FlowerShape.Mound(
                        Seen(p.Look, sight),
                        p.At.XCm * Scale,
                        ground,
                        p.Stature.SpreadCm * Scale,
                        p.Stature.HeightCm * Scale,
                        (p.Look.Plant.Id.Length * 13) + p.Index
                    )
                )
            );
        IEnumerable<(double Y, XElement Drawn)> bulbs = Chosen(shown.Bulbs).Select(b => (b.At.YCm, Shoot(b, ground, sight)));
        foreach ((double _, XElement drawn) in plants.Concat(bulbs).OrderByDescending(d => d.Y))
            scene.Add(drawn);
        string colour = ColourVision.Seen(shown.Planter.WallColour, sight);
        if (form.IsBed)
        {
            scene.Add(
                El("rect", "x", -form.TopLengthCm / 2 * Scale, "y", ground, "width", form.TopLengthCm * Scale, "height", pot, "class", "medium")
            );
        }
        else
        {
            double top = (form.TopLengthCm / 2) + 2.2;
            double foot = (Math.Max(form.BottomLengthCm, form.TopLengthCm * 0.3) / 2) + 2;
            scene.Add(
                El(
                    "path",
                    "d",
                    $"M{N(-top * Scale)} {N(ground - (form.RimGapCm * Scale))}H{N(top * Scale)}L{N(foot * Scale)} {N(ground + pot)}H{N(-foot * Scale)}Z",
                    "fill",
                    colour,
                    "stroke",
                    Mix(colour, "#23281e", 0.35)
                )
            );
        }
        return svg;
    }

    /// <summary>In profile: heights of each kind over the depth of the planter, and lines of sight from a standing eye.</summary>
    /// <param name="shown">What stands.</param>
    /// <param name="arrangement">The display that is looked at, at its places.</param>
    /// <param name="sight">What is seen of each.</param>
    /// <param name="stature">Width and height on the day.</param>
    /// <param name="units">Units of the labels.</param>
    public static XElement Profile(PlanterOnDay shown, Arrangement arrangement, Sightline sight, Func<PlacedPlant, Stature> stature, UnitsText units)
    {
        PlanterForm form = shown.Planter.Form;
        double tall = Math.Max(30, shown.Plants.Select(p => p.Stature.HeightCm).DefaultIfEmpty(30).Max());
        double eyeX = (-form.TopWidthCm / 2) - sight.AwayCm;
        double left = eyeX - 12;
        double right = (form.TopWidthCm / 2) + 165;
        double top = Math.Max(tall + 12, sight.EyeCm + 10);
        double below = form.IsBed ? 8 : Math.Min(form.DepthCm, 60);
        XElement svg = El(
            "svg",
            "viewBox",
            $"{N(left)} {N(-top)} {N(right - left)} {N(top + below + 4)}",
            "class",
            "profile",
            "role",
            "img",
            Title($"Heights and lines of sight on {Words.Day(shown.Day)}, eye {units.Length(sight.EyeCm)} above the medium")
        );
        foreach (ShownPlant p in Chosen(shown.Plants).OrderByDescending(p => p.Stature.HeightCm))
            svg.Add(FlowerShape.Mound(p.Look, -p.At.YCm * -1, 0, p.Stature.SpreadCm, p.Stature.HeightCm, (p.Look.Plant.Id.Length * 13) + p.Index));
        if (form.IsBed)
            svg.Add(El("rect", "x", -form.TopWidthCm / 2, "y", 0.0, "width", form.TopWidthCm, "height", below, "class", "medium"));
        else
            svg.Add(
                El(
                    "path",
                    "d",
                    (
                        $"M{N((-form.TopWidthCm / 2) - 2)} {N(-form.RimGapCm)}H{N((form.TopWidthCm / 2) + 2)}L{N((form.BottomWidthCm / 2) + 2)} "
                        + $"{N(below)}H{N((-form.BottomWidthCm / 2) - 2)}Z"
                    ),
                    "fill",
                    shown.Planter.WallColour
                )
            );
        svg.Add(El("path", "d", $"M{N(eyeX - 4)} {N(-sight.EyeCm)}q4 -5 8 0q-4 5 -8 0Z", "class", "eye"));
        double last = double.NegativeInfinity;
        foreach (
            var kind in arrangement
                .Plants.Select((p, i) => (Placed: p, Shown: sight.Shown[i]))
                .GroupBy(p => p.Placed.Item)
                .OrderByDescending(g => g.Max(p => stature(p.Placed).HeightCm))
        )
        {
            var back = kind.MaxBy(p => p.Placed.At.YCm);
            double high = kind.Max(p => stature(p.Placed).HeightCm);
            double seen = kind.Average(p => p.Shown);
            bool hidden = seen < Sightline.Hidden;
            svg.Add(
                El(
                    "line",
                    "x1",
                    eyeX + 4,
                    "y1",
                    -sight.EyeCm,
                    "x2",
                    back.Placed.At.YCm,
                    "y2",
                    -high * 0.8,
                    "class",
                    hidden ? "sight is-hidden" : "sight"
                )
            );
            double y = Math.Max(-high, last + 9);
            last = y;
            double edge = form.TopWidthCm / 2;
            svg.Add(El("path", "d", $"M{N(back.Placed.At.YCm)} {N(-high)}L{N(edge + 6)} {N(y)}H{N(edge + 9)}", "class", "leader"));
            svg.Add(
                Sized(
                    edge + 11,
                    y + 2,
                    6.4,
                    (
                        $"{kind.First().Placed.Plant.CommonName}, "
                        + $"{units.Length(Math.Round(high))}{(hidden ? ", hidden" : seen < 0.995 ? $", {seen.ToString("P0", CultureInfo.InvariantCulture)} seen" : string.Empty)}"
                    )
                )
            );
        }
        return svg;
    }

    private static IReadOnlyList<T> Chosen<T>(IReadOnlyList<T> all) =>
        all.Count <= MostDrawn ? all : [.. Enumerable.Range(0, MostDrawn).Select(i => all[(int)((i + 0.5) * all.Count / MostDrawn)])];

    private static XElement Sized(double x, double y, double size, string words)
    {
        XElement text = Text(x, y, "above-text", words);
        text.SetAttributeValue("font-size", N(size));
        return text;
    }

    // The same look with its colours as another eye sees them.
    private static StandingPlant Seen(StandingPlant look, ColourSight sight) =>
        sight == ColourSight.Usual
            ? look
            : look with
            {
                Showing = [.. look.Showing.Select(w => w with { Colours = [.. w.Colours.Select(c => ColourVision.Seen(c, sight))] })],
            };

    private static XElement Shoot(ShownBulb bulb, double ground, ColourSight sight)
    {
        double x = bulb.At.XCm * Scale;
        double top = ground - (bulb.Plant.HeightCm * bulb.Grown * Scale);
        XElement group = El(
            "g",
            El("path", "d", $"M{N(x)} {N(ground)}V{N(top)}", "class", bulb.Fading ? "shoot shoot-fading" : "shoot", "stroke-width", 1.4)
        );
        if (bulb.InFlower)
        {
            ColourWindow window = bulb.Plant.Windows[0];
            Plant seen =
                sight == ColourSight.Usual
                    ? bulb.Plant
                    : bulb.Plant with
                    {
                        Windows = [window with { Colours = [.. window.Colours.Select(c => ColourVision.Seen(c, sight))] }],
                    };
            group.Add(FlowerShape.Draw(seen, x, top, Scale));
        }
        return group;
    }
}
