using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>When each layer flowers and how one passes to the next: a bar from median first to last colour, whiskers for the years.</summary>
public static class HandOverStrip
{
    private const double Width = 640;
    private const double Left = 168;
    private const double Row = 27;

    /// <summary>The drawing; null when nothing flowers.</summary>
    public static XElement? Draw(StackBloom bloom)
    {
        var order = bloom.Forecasts.Where(f => f.First is not null && f.Over is not null).OrderBy(f => f.First).ToList();
        if (order.Count == 0)
            return null;
        LocalDate from = order.Min(f => f.Years.Min(y => y.First)).PlusDays(-4).With(DateAdjusters.StartOfMonth);
        LocalDate to = order.Max(f => f.Years.Max(y => y.Over)).PlusDays(3);
        double days = Period.DaysBetween(from, to);
        double X(LocalDate d) => Left + (Period.DaysBetween(from, d) * (Width - Left - 6) / days);
        double height = 26 + (order.Count * Row);
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Width)} {N(height)}",
            "class",
            "handover",
            "role",
            "img",
            Title(
                "Flowering of the layers: "
                    + string.Join("; ", order.Select(f => $"{f.Plant.CommonName} {Words.Short(f.First!.Value)} to {Words.Short(f.Over!.Value)}"))
            )
        );
        for (LocalDate m = from; m <= to; m = m.PlusMonths(1))
        {
            svg.Add(El("line", "x1", X(m), "x2", X(m), "y1", 4, "y2", height, "class", "month-rule"));
            svg.Add(Text(X(m) + 4, 14, "month", m.ToString("MMM", null)));
        }
        for (int i = 0; i < order.Count; i++)
        {
            BloomForecast f = order[i];
            double y = 24 + (i * Row);
            string colour = f.Plant.LeadColour;
            svg.Add(Text(0, y + 14, "part-name", f.Plant.CommonName));
            svg.Add(
                El(
                    "rect",
                    "x",
                    X(f.First!.Value),
                    "y",
                    y + 3,
                    "width",
                    Math.Max(2, X(f.Over!.Value) - X(f.First.Value)),
                    "height",
                    13,
                    "rx",
                    6,
                    "fill",
                    colour,
                    "stroke",
                    Outline(colour),
                    "class",
                    "bar"
                )
            );
            LocalDate early = f.Years.Min(v => v.First);
            LocalDate late = f.Years.Max(v => v.First);
            svg.Add(
                El(
                    "path",
                    "d",
                    $"M{N(X(early))} {N(y + 6)}v7M{N(X(early))} {N(y + 9.5)}H{N(X(late))}M{N(X(late))} {N(y + 6)}v7",
                    "class",
                    "whisker",
                    "fill",
                    "none",
                    Title($"first colour from {Words.Short(early)} to {Words.Short(late)} over the years")
                )
            );
            HandOver? over = bloom.HandOvers.FirstOrDefault(h => h.To.Plant.Id == f.Plant.Id);
            if (over is { IsBroken: true, From.Over: { } ended })
                svg.Add(El("line", "x1", X(ended), "x2", X(f.First.Value), "y1", y - 2, "y2", y - 2, "class", "gap", Title("days without flower")));
        }
        return svg;
    }
}
