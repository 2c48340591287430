using System.Globalization;
using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Season;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A plant's year as a small meadow on its rule: as high as its odds of colour, in its own colours.</summary>
public static class StripDrawing
{
    private const double Width = 300;
    private const double Step = 3;

    /// <summary>Draws a strip.</summary>
    /// <param name="strip">The strip.</param>
    /// <param name="height">Height of full odds.</param>
    /// <param name="asked">A span to mark; null for none.</param>
    public static XElement Draw(FloweringStrip strip, double height = 20, (LocalDate First, LocalDate Last)? asked = null)
    {
        double Y(double share) => height + 2 - (share * height);
        string label = strip.Usual is { } u
            ? (
                $"{strip.Plant.CommonName}: in colour {u.First.ToString("d MMM", CultureInfo.InvariantCulture)} to "
                + $"{u.Last.ToString("d MMM", CultureInfo.InvariantCulture)} in most years, {strip.DaysInColour} days"
            )
            : $"{strip.Plant.CommonName}: no colour in most years";
        XElement svg = El(
            "svg",
            "class",
            "flowering",
            "viewBox",
            $"0 0 {N(Width)} {N(height + 5)}",
            "preserveAspectRatio",
            "none",
            "role",
            "img",
            "aria-label",
            label,
            Title(label)
        );
        var scale = new YearScale(strip.Start, strip.Odds.Length, Width);
        if (asked is { } a)
            svg.Add(
                El(
                    "rect",
                    "class",
                    "asked",
                    "x",
                    scale.X(a.First),
                    "y",
                    0.0,
                    "width",
                    scale.X(Period.DaysBetween(a.First, a.Last) + 1),
                    "height",
                    height + 5
                )
            );
        foreach ((double x, _, _) in scale.Months())
            svg.Add(El("line", "class", "month-rule", "x1", x, "x2", x, "y1", 0.0, "y2", height + 2));
        svg.Add(El("line", "class", "base-rule", "x1", 0.0, "x2", Width, "y1", height + 2, "y2", height + 2));
        // Odds that a colour shows, the window's own colours inside them.
        for (int w = strip.ByWindow.Count - 1; w >= 0; w--)
        {
            string colour = strip.Plant.Windows[w].Colours[0];
            // Leaf and stem stand lower than flowers, as they count for less.
            double weight = strip.Plant.Windows[w].Weight * (strip.Plant.Windows[w].Part == Core.Palette.ColourPart.Leaf ? 0.75 : 1);
            foreach (string d in Paths(strip.ByWindow[w], strip.Odds, scale, share => Y(share * weight)))
                svg.Add(El("path", "d", d, "fill", colour, "stroke", Outline(colour), "class", "bloom"));
        }
        return svg;
    }

    /// <summary>Month letters over a column of strips.</summary>
    public static XElement Months(LocalDate start)
    {
        // Placed by shares of the width, so that the letters stand under any strip without being stretched.
        XElement svg = El("svg", "class", "flowering months", "aria-hidden", "true");
        foreach ((_, double middle, string name) in new YearScale(start, 365, 100).Months())
        {
            XElement letter = Text(0, 10, "month", name[..1], "middle");
            letter.SetAttributeValue("x", $"{N(middle)}%");
            svg.Add(letter);
        }
        return svg;
    }

    private static IEnumerable<string> Paths(float[] window, float[] odds, YearScale scale, Func<double, double> y)
    {
        int d = 0;
        while (d < window.Length)
        {
            if (window[d] <= 0.02f)
            {
                d++;
                continue;
            }
            int from = d;
            while (d < window.Length && window[d] > 0.02f)
                d++;
            var path = new StringBuilder($"M{N(scale.X(from))} {N(y(0))}");
            for (double i = from; i < d; i += Step)
                path.Append(
                    CultureInfo.InvariantCulture,
                    $"L{N(scale.X(i + 0.5))} {N(y(Math.Min(window[(int)i], Math.Max(odds[(int)i], window[(int)i] * 0.5))))}"
                );
            path.Append(CultureInfo.InvariantCulture, $"L{N(scale.X(d))} {N(y(0))}Z");
            yield return path.ToString();
        }
    }
}
