using System.Globalization;
using System.Xml.Linq;

namespace UnrulyMeadow.Core.Tests;

/// <summary>
/// Draws which folder of Core stands on which: each on the lowest row above all that it uses, with lines to those of them that it does not
/// reach through another.
/// </summary>
internal static class HouseDrawing
{
    private const double Wide = 108;
    private const double High = 30;
    private const double Column = 132;
    private const double Row = 74;
    private const double Margin = 24;

    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";

    public static string Of(IReadOnlyDictionary<string, IReadOnlyCollection<string>> uses)
    {
        var level = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (string folder in uses.Keys)
            Level(folder);
        List<List<string>> rows =
        [
            .. level.GroupBy(l => l.Value).OrderBy(g => g.Key).Select(g => g.Select(l => l.Key).Order(StringComparer.Ordinal).ToList()),
        ];
        double width = (rows.Max(r => r.Count) * Column) + (2 * Margin);
        double height = (rows.Count * Row) + (2 * Margin);
        var at = rows.SelectMany(
                (row, r) =>
                    row.Select(
                        (folder, c) =>
                            (folder, X: (width / 2) + ((c - ((row.Count - 1) / 2.0)) * Column), Y: height - Margin - (High / 2) - (r * Row))
                    )
            )
            .ToDictionary(x => x.folder, x => (x.X, x.Y), StringComparer.Ordinal);
        var drawing = new XElement(
            Svg + "svg",
            new XAttribute("viewBox", $"0 0 {N(width)} {N(height)}"),
            new XAttribute("font-family", "sans-serif"),
            new XAttribute("font-size", 14),
            new XElement(Svg + "title", "Folders of Core, each above all that it uses"),
            uses.OrderBy(u => u.Key, StringComparer.Ordinal).SelectMany(u => Nearest(u.Key).Select(below => Line(at[u.Key], at[below]))),
            at.OrderBy(a => a.Key, StringComparer.Ordinal).SelectMany(a => Box(a.Key, a.Value))
        );
        return drawing + "\n";

        int Level(string folder)
        {
            if (!level.TryGetValue(folder, out int known))
                level[folder] = known = uses[folder].Select(Level).DefaultIfEmpty(-1).Max() + 1;
            return known;
        }

        // What is used without being used by anything else that is used.
        IEnumerable<string> Nearest(string folder) =>
            uses[folder].Where(below => !uses[folder].Any(other => other != below && Reaches(other, below))).Order(StringComparer.Ordinal);

        bool Reaches(string from, string to) => uses[from].Contains(to) || uses[from].Any(next => Reaches(next, to));
    }

    private static XElement Line((double X, double Y) from, (double X, double Y) to) =>
        new(
            Svg + "line",
            A("x1", from.X),
            A("y1", from.Y + (High / 2)),
            A("x2", to.X),
            A("y2", to.Y - (High / 2)),
            new XAttribute("stroke", "#8a8f7c")
        );

    private static IEnumerable<XElement> Box(string name, (double X, double Y) at)
    {
        yield return new XElement(
            Svg + "rect",
            A("x", at.X - (Wide / 2)),
            A("y", at.Y - (High / 2)),
            A("width", Wide),
            A("height", High),
            A("rx", 4),
            new XAttribute("fill", "#f4f1e6"),
            new XAttribute("stroke", "#4d5a3c")
        );
        yield return new XElement(
            Svg + "text",
            A("x", at.X),
            A("y", at.Y + 5),
            new XAttribute("text-anchor", "middle"),
            new XAttribute("fill", "#2b3323"),
            name
        );
    }

    private static XAttribute A(string name, double value) => new(name, N(value));

    private static string N(double value) => value.ToString("0.#", CultureInfo.InvariantCulture);
}
