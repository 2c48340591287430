using System.Xml.Linq;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>The months over a year's drawings, the rules between them, the red thread and the turns beneath.</summary>
public static class YearAxis
{
    /// <summary>Month names, and the flag that carries the day.</summary>
    public static XElement Months(YearScale scale) =>
        El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 44",
            "class",
            "months",
            "aria-hidden",
            "true",
            scale.Months().Select(m => Text(m.X + 5, 39, "month", m.Name)),
            Flag()
        );

    /// <summary>A thin strip of the year: the rule, its months and, where the day is carried through it, the flag.</summary>
    public static XElement Strip(YearScale scale, IEnumerable<(double From, double To, string Colour, string Name)> shows, bool carriesDay = true) =>
        El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 46",
            "class",
            "months",
            "aria-hidden",
            "true",
            shows.Select(s => El("path", "d", Swell(s.From, s.To), "fill", s.Colour, "stroke", Outline(s.Colour), "class", "band", Title(s.Name))),
            El("line", "x1", 0, "x2", scale.Width, "y1", 32, "y2", 32, "class", "rule"),
            scale
                .Months()
                .Select(m =>
                    El("g", El("line", "x1", m.X, "x2", m.X, "y1", 29, "y2", 45, "class", "month-rule"), Text(m.X + 5, 44, "month", m.Name))
                ),
            carriesDay ? Flag() : null
        );

    /// <summary>The month rules and the thread through all rows.</summary>
    /// <param name="scale">The days.</param>
    /// <param name="events">Days that stand out, as bands behind the rows.</param>
    public static XElement Uprights(YearScale scale, IEnumerable<SiteEvent>? events = null) =>
        El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 100",
            "preserveAspectRatio",
            "none",
            "class",
            "uprights",
            "aria-hidden",
            "true",
            (events ?? []).Select(e =>
                El(
                    "rect",
                    "class",
                    "event-band",
                    "x",
                    scale.X(e.FirstDay),
                    "y",
                    0,
                    "width",
                    Math.Max(2.6, scale.X(e.LastDay.PlusDays(1)) - scale.X(e.FirstDay)),
                    "height",
                    100
                )
            ),
            scale.Months().Select(m => El("line", "x1", m.X, "x2", m.X, "y1", 0, "y2", 100, "class", "month-rule")),
            El("line", "data-thread", string.Empty, "class", "thread", "x1", 0, "x2", 0, "y1", 0, "y2", 100)
        );

    /// <summary>Turns as spans with their names, each a link.</summary>
    public static XElement Turns(YearScale scale, IReadOnlyList<Turn> turns, string addresses = "")
    {
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 34",
            "class",
            "turns",
            Title("Turns: " + string.Join(", ", turns.Select(t => $"{t.Name} from {Words.Short(t.FirstDay)}")))
        );
        double lastEnd = -1;
        foreach (Turn turn in turns)
        {
            double x = Math.Max(0, scale.X(turn.FirstDay));
            double wide = Math.Max(3, Math.Min(scale.Width, scale.X(turn.LastDay.PlusDays(1))) - x);
            // Names are about 6.6 wide a letter; one that would run into its neighbour drops to the second line.
            bool second = x < lastEnd;
            bool end = x > scale.Width - 110;
            svg.Add(
                El(
                    "a",
                    "href",
                    $"{addresses}/turns/{turn.Id}",
                    El("rect", "class", "span", "x", x, "y", 4, "width", wide, "height", 4),
                    Text(end ? x + wide : x, second ? 33 : 20, "turn", "▴ " + turn.Name.ToLowerInvariant(), end ? "end" : "start")
                )
            );
            if (!second)
                lastEnd = x + 20 + (6.6 * turn.Name.Length);
        }
        return svg;
    }

    /// <summary>Events with the planters that are expected in colour on them.</summary>
    public static XElement Events(YearScale scale, IReadOnlyList<EventOutlook> events)
    {
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 38",
            "class",
            "turns",
            "role",
            "img",
            Title(
                "Events: "
                    + string.Join("; ", events.Select(e => $"{e.Event.Name} {Words.Short(e.Event.FirstDay)}, {e.InColour} of {e.Planters} in colour"))
            )
        );
        double lastEnd = double.NegativeInfinity;
        foreach (EventOutlook e in events)
        {
            double x = Math.Max(0, scale.X(e.Event.FirstDay));
            string text = $"{e.Event.Name}: {e.InColour} of {e.Planters} in colour";
            double wide = 6.4 * text.Length;
            bool end = x + wide > scale.Width;
            bool second = (end ? x - wide : x) < lastEnd;
            svg.Add(
                El("path", "class", "event-mark", "d", $"M{N(x)} 2v10"),
                Text(end ? x - 5 : x + 5, second ? 32 : 15, "turn", text, end ? "end" : "start")
            );
            if (!second)
                lastEnd = end ? x : x + wide + 14;
        }
        return svg;
    }

    /// <summary>All planters of an area on one rule: as high as the share that is in colour in most years, paler up to the odds.</summary>
    /// <param name="seasons">The planters' years.</param>
    /// <param name="scale">The days.</param>
    /// <param name="name">The area's name.</param>
    public static XElement Area(IReadOnlyList<PlanterSeason> seasons, YearScale scale, string name)
    {
        const double most = 24;
        const double baseline = 28;
        var sure = new double[scale.Days];
        var odds = new double[scale.Days];
        foreach (PlanterSeason season in seasons)
        {
            for (int d = 0; d < sure.Length; d++)
            {
                sure[d] += (season.ShareInColour[d] >= ColourOdds.InColour ? 1.0 : 0) / seasons.Count;
                odds[d] += season.ShareInColour[d] / seasons.Count;
            }
        }
        string Path(double[] share)
        {
            var path = new System.Text.StringBuilder($"M0 {N(baseline)}");
            for (int d = 0; d < share.Length; d += 2)
                path.Append('L').Append(Math.Round(scale.X(d + 0.5), 1)).Append(' ').Append(Math.Round(baseline - (share[d] * most), 1));
            return path.Append('L').Append(N(scale.Width)).Append(' ').Append(N(baseline)).Append('Z').ToString();
        }
        int worst = Enumerable.Range(0, sure.Length).MinBy(d => sure[d]);
        return El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} 34",
            "class",
            "ribbon area-ribbon",
            "role",
            "img",
            Title($"{name}: fewest in colour on {Words.Short(scale.Start.PlusDays(worst))}, {sure[worst] * seasons.Count:0} of {seasons.Count}"),
            El("path", "d", Path(odds), "class", "area-odds"),
            El("path", "d", Path(sure), "class", "area-sure"),
            El("line", "x1", 0, "x2", scale.Width, "y1", baseline, "y2", baseline, "class", "rule")
        );
    }

    private static XElement Flag()
    {
        XElement text = Text(8, 16, string.Empty, string.Empty);
        text.SetAttributeValue("data-thread-text", string.Empty);
        return El("g", "class", "flag", "data-thread-flag", string.Empty, El("rect", "x", 0, "y", 2, "width", 92, "height", 20), text);
    }

    private static string Swell(double from, double to)
    {
        double middle = (from + to) / 2;
        return $"M{N(from)} 32Q{N(from + ((middle - from) * 0.4))} 24 {N(middle)} 24T{N(to)} 32Z";
    }
}
