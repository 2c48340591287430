using System.Globalization;
using System.Xml.Linq;
using NodaTime;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>One line of a drawing of dates: a span that grows along its rule, and a day on it that matters.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Colour">Its colour, as #rrggbb.</param>
/// <param name="From">The first day.</param>
/// <param name="To">The day on which it ends; null for one that goes on.</param>
/// <param name="Until">The day after which it goes wrong: what lies behind it is drawn as waste; null for none.</param>
/// <param name="Said">What the line says to who points at it, and to who does not see it.</param>
public sealed record DateRule(string Name, string Colour, LocalDate From, LocalDate? To, LocalDate? Until, string Said)
{
    /// <summary>True for what is only planned, drawn as an outline.</summary>
    public bool IsToCome { get; init; }
}

/// <summary>
/// Lines of dates under one another over the months: each is a blade that swells off its rule from the day on which it begins to the day on
/// which it ends; where it goes on longer than it may, the blade withers to a broken line.
/// </summary>
public static class DateRules
{
    /// <summary>Most lines of one drawing.</summary>
    public const int Most = 40;

    private const double Label = 310;
    private const double Width = 1040;
    private const double Row = 22;
    private const double Head = 22;

    /// <summary>The drawing; what lies outside the days is cut off at their edges.</summary>
    /// <param name="lines">Lines, from the top.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last.</param>
    /// <param name="today">The day that the thread runs through.</param>
    /// <param name="name">What the drawing shows, for who does not see it.</param>
    /// <param name="language">The language of the months' names.</param>
    public static XElement Draw(
        IReadOnlyList<DateRule> lines,
        LocalDate first,
        LocalDate last,
        LocalDate today,
        string name,
        CultureInfo? language = null
    )
    {
        List<DateRule> shown = [.. lines.Take(Most)];
        double days = Math.Max(1, Period.DaysBetween(first, last) + 1);
        double X(LocalDate day) => Label + (Math.Clamp(Period.DaysBetween(first, day), 0, days) / days * (Width - Label));
        double height = Head + (shown.Count * Row) + 6;
        XElement svg = El("svg", "viewBox", $"0 0 {N(Width)} {N(height)}", "class", "date-rules", "role", "img", Title(name));
        for (LocalDate month = new LocalDate(first.Year, first.Month, 1); month <= last; month = month.PlusMonths(1))
        {
            LocalDate at = month < first ? first : month;
            svg.Add(El("line", "x1", X(at), "x2", X(at), "y1", 4, "y2", height, "class", "month-rule"));
            // The first month's name needs some room of its own.
            if (month.PlusMonths(1) > first.PlusDays(10))
                svg.Add(Text(X(at) + 4, 14, "month", at.ToString("MMM", language ?? CultureInfo.InvariantCulture)));
        }
        for (int i = 0; i < shown.Count; i++)
            svg.Add(Line(shown[i], Head + ((i + 1) * Row) - 6, X, first, last));
        svg.Add(El("line", "x1", X(today), "x2", X(today), "y1", 0, "y2", height, "class", "thread"));
        return svg;
    }

    private static XElement Line(DateRule line, double y, Func<LocalDate, double> x, LocalDate first, LocalDate last)
    {
        LocalDate to = line.To ?? last.PlusDays(1);
        LocalDate good = line.Until is { } until && until < to ? until : to;
        XElement row = El(
            "g",
            Title(line.Said),
            Text(0, y, "date-name", Short(line.Name)),
            El("line", "x1", Label, "x2", Width, "y1", y, "y2", y, "class", "rule")
        );
        if (to < first || line.From > last)
            return row;
        double a = x(line.From);
        double b = x(good);
        if (b - a > 0.5)
            row.Add(El("path", "d", Blade(a, b, y), "fill", line.IsToCome ? "none" : line.Colour, "stroke", Outline(line.Colour), "class", "band"));
        if (good < to)
            row.Add(El("line", "x1", b, "x2", x(to), "y1", y - 4, "y2", y - 4, "class", "wither"));
        if (line.To is { } ends && ends >= first && ends <= last)
            row.Add(El("line", "x1", x(ends), "x2", x(ends), "y1", y - 12, "y2", y + 2, "class", good < to ? "end late" : "end"));
        return row;
    }

    // Thin where it begins, fullest at two thirds, and cut where it ends.
    private static string Blade(double from, double to, double y)
    {
        double peak = from + ((to - from) * 0.66);
        return $"M{N(from)} {N(y)} Q{N((from + peak) / 2)} {N(y - 5)} {N(peak)} {N(y - 11)} Q{N((peak + to) / 2)} {N(y - 11.5)} {N(to)} {N(y - 8)} L{N(to)} {N(y)} Z";
    }

    private static string Short(string name) => Core.PlainText.Cut(name, 44);
}
