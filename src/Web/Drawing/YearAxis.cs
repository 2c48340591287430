using System.Xml.Linq;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>The months over a year's drawings, the rules between them, the red thread and the turns beneath.</summary>
public static class YearAxis
{
    /// <summary>Month names, and the flag that carries the day.</summary>
    public static XElement Months(YearScale scale) => El(
        "svg", "viewBox", $"0 0 {N(scale.Width)} 44", "class", "months", "aria-hidden", "true",
        scale.Months().Select(m => Text(m.X + 5, 39, "month", m.Name)),
        Flag());

    /// <summary>A thin strip of the year: the rule, its months and the flag.</summary>
    public static XElement Strip(YearScale scale, IEnumerable<(double From, double To, string Colour, string Name)> shows) => El(
        "svg", "viewBox", $"0 0 {N(scale.Width)} 46", "class", "months", "aria-hidden", "true",
        shows.Select(s => El("path", "d", Swell(s.From, s.To), "fill", s.Colour, "stroke", Outline(s.Colour), "class", "band", Title(s.Name))),
        El("line", "x1", 0, "x2", scale.Width, "y1", 32, "y2", 32, "class", "rule"),
        scale.Months().Select(m => El("g", El("line", "x1", m.X, "x2", m.X, "y1", 29, "y2", 45, "class", "month-rule"), Text(m.X + 5, 44, "month", m.Name))),
        Flag());

    /// <summary>The month rules and the thread through all rows.</summary>
    public static XElement Uprights(YearScale scale) => El(
        "svg", "viewBox", $"0 0 {N(scale.Width)} 100", "preserveAspectRatio", "none", "class", "uprights", "aria-hidden", "true",
        scale.Months().Select(m => El("line", "x1", m.X, "x2", m.X, "y1", 0, "y2", 100, "class", "month-rule")),
        El("line", "data-thread", string.Empty, "class", "thread", "x1", 0, "x2", 0, "y1", 0, "y2", 100));

    /// <summary>Turns as spans with their names, each a link.</summary>
    public static XElement Turns(YearScale scale, IReadOnlyList<Turn> turns)
    {
        XElement svg = El(
            "svg", "viewBox", $"0 0 {N(scale.Width)} 34", "class", "turns",
            Title("Turns: " + string.Join(", ", turns.Select(t => $"{t.Name} from {Words.Short(t.FirstDay)}"))));
        double lastEnd = -1;
        foreach (Turn turn in turns)
        {
            double x = Math.Max(0, scale.X(turn.FirstDay));
            double wide = Math.Max(3, Math.Min(scale.Width, scale.X(turn.LastDay.PlusDays(1))) - x);
            // Names are about 6.6 wide a letter; one that would run into its neighbour drops to the second line.
            bool second = x < lastEnd;
            bool end = x > scale.Width - 110;
            svg.Add(El(
                "a", "href", $"/turns/{turn.Id}",
                El("rect", "class", "span", "x", x, "y", 4, "width", wide, "height", 4),
                Text(end ? x + wide : x, second ? 33 : 20, "turn", "▴ " + turn.Name.ToLowerInvariant(), end ? "end" : "start")));
            if (!second)
                lastEnd = x + 20 + (6.6 * turn.Name.Length);
        }
        return svg;
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
