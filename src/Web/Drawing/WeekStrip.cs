using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A proposed stack week by week: each bulb's colour as high as its odds, off one rule.</summary>
public static class WeekStrip
{
    private const double Width = 360;
    private const double High = 64;

    /// <summary>The drawing.</summary>
    /// <param name="kinds">Its bulbs, each with its odds by week.</param>
    /// <param name="weeks">Weeks wanted.</param>
    /// <param name="wish">What was wished.</param>
    public static XElement Draw(IReadOnlyList<(Plant Plant, IReadOnlyList<double> Odds)> kinds, int weeks, StackWish wish)
    {
        double step = Width / weeks;
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Width)} {N(High + 18)}",
            "class",
            "week-strip",
            "role",
            "img",
            Title("Odds of colour by week: " + string.Join("; ", kinds.Select(k => $"{k.Plant.CommonName} {k.Odds.Sum():0.0} weeks")))
        );
        foreach ((Plant plant, IReadOnlyList<double> odds) in kinds.OrderByDescending(k => k.Odds.Sum()))
        {
            string path =
                $"M0 {N(High)}"
                + string.Concat(Enumerable.Range(0, weeks).Select(w => $"L{N((w + 0.5) * step)} {N(High - ((High - 8) * odds[w]))}"))
                + $"L{N(Width)} {N(High)}Z";
            svg.Add(El("path", "d", path, "fill", plant.LeadColour, "fill-opacity", 0.78, "stroke", Outline(plant.LeadColour), "stroke-width", 0.8));
        }
        svg.Add(El("line", "x1", 0.0, "x2", Width, "y1", High, "y2", High, "class", "surface"));
        for (LocalDate m = wish.First.With(DateAdjusters.StartOfMonth); m <= wish.Last; m = m.PlusMonths(1))
        {
            double x = Math.Max(0, Period.DaysBetween(wish.First, m) / 7.0 * step);
            svg.Add(El("line", "x1", x, "x2", x, "y1", 2, "y2", High + 16, "class", "month-rule"));
            svg.Add(Text(x + 3, High + 14, "month", m.ToString("MMM", null)));
        }
        return svg;
    }
}
