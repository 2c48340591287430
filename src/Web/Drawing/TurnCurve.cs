using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// The window of a turn: over the days on which it may begin, the colour it would bring, what comes out that still shows, and
/// frost that hangs from the upper rule; days that something forbids are hatched.
/// </summary>
public static class TurnCurve
{
    private const double Width = 960;
    private const double Top = 20;
    private const double Base = 190;
    private const double Left = 62;

    /// <summary>The drawing.</summary>
    /// <param name="options">Options in order of their days.</param>
    /// <param name="best">The day to take; null for none.</param>
    /// <param name="past">The day of the school that waits; null for none.</param>
    /// <param name="planned">The planned day.</param>
    public static XElement Draw(IReadOnlyList<TurnDayResult> options, LocalDate? best, LocalDate? past, LocalDate planned)
    {
        double most = options.Max(o => o.ColourDays);
        // Days that are open decide the scale, so that what a week more or less costs can be seen; far worse ones lie on the floor.
        double open = options.Where(o => o.Hinders.Count == 0).Select(o => o.ColourDays).DefaultIfEmpty(options.Min(o => o.ColourDays)).Min();
        double least = Math.Max(options.Min(o => o.ColourDays), open - (0.6 * Math.Max(10, most - open)));
        double step = (Width - Left) / options.Count;
        double X(int i) => Left + ((i + 0.5) * step);
        double Y(double colour) => Base - 8 - ((most - least < 1e-6 ? 0.5 : Math.Max(0, colour - least) / (most - least)) * (Base - Top - 78));
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Width)} 250",
            "class",
            "turn-curve",
            "role",
            "img",
            Title(
                (
                    "Colour by the day on which the turn begins: "
                    + $"{string.Join("; ", options.Select(o => $"{Words.Short(o.FirstDay)} {o.ColourDays:0} planter-days, frost losses in {o.FrostLoss * 10:0.#} of 10 years"))}"
                )
            )
        );
        for (int i = 0; i < options.Count; i++)
        {
            TurnDayResult o = options[i];
            double frost = o.FrostLoss * 58;
            if (frost > 0.5)
                svg.Add(
                    El(
                        "path",
                        "class",
                        "ice",
                        "d",
                        $"M{N(X(i) - (step * 0.42))} {N(Top)}h{N(step * 0.84)}l{N(-step * 0.42)} {N(frost)}z",
                        Title($"{Words.Short(o.FirstDay)}: frost takes something in {o.FrostLoss * 10:0.#} of 10 years")
                    )
                );
            if (frost > 4)
                svg.Add(Text(X(i), Top + frost + 12, "icelabel", $"{o.FrostLoss * 10:0.#} in 10", "middle"));
            double still = o.OldColour * 26;
            svg.Add(
                El(
                    "rect",
                    "class",
                    "still",
                    "x",
                    X(i) - (step * 0.3),
                    "y",
                    Base - still,
                    "width",
                    step * 0.6,
                    "height",
                    still,
                    Title($"what comes out still shows in {o.OldColour * 10:0.#} of 10 years")
                )
            );
            if (o.Hinders.Count > 0)
                svg.Add(
                    El(
                        "path",
                        "class",
                        "ticks",
                        "d",
                        string.Concat(Enumerable.Range(0, (int)(step / 6)).Select(k => $"M{N(X(i) - (step / 2) + (k * 6))} {N(Base + 3)}l4 6")),
                        Title(string.Join("; ", o.Hinders))
                    )
                );
            bool named = i % 2 == 0 || o.FirstDay == best || o.FirstDay == past;
            if (named)
                svg.Add(Text(X(i), Base + 26, o.FirstDay == best ? "part-name" : "month", Words.Short(o.FirstDay), "middle"));
        }
        svg.Add(
            El("path", "class", "colour-line", "d", string.Concat(options.Select((o, i) => $"{(i == 0 ? 'M' : 'L')}{N(X(i))} {N(Y(o.ColourDays))}")))
        );
        foreach (var (o, i) in options.Select((o, i) => (o, i)))
            svg.Add(
                El(
                    "circle",
                    "class",
                    o.FirstDay == best ? "best-day"
                        : o.Hinders.Count > 0 ? "shut-day"
                        : "open-day",
                    "cx",
                    X(i),
                    "cy",
                    Y(o.ColourDays),
                    "r",
                    o.FirstDay == best ? 5.5 : 3.2,
                    Title($"{Words.Short(o.FirstDay)}: {o.ColourDays:0} planter-days of colour")
                )
            );
        svg.Add(
            Text(Left - 6, Y(most) + 4, "month", $"{most:0}", "end"),
            Text(Left - 6, Y(least) + 4, "month", least > options.Min(o => o.ColourDays) ? $"≤ {least:0}" : $"{least:0}", "end")
        );
        svg.Add(
            El("line", "x1", Left, "x2", Width, "y1", Top, "y2", Top, "class", "rule"),
            El("line", "x1", Left, "x2", Width, "y1", Base, "y2", Base, "class", "rule")
        );
        double At(LocalDate day) => Left + (((Period.DaysBetween(options[0].FirstDay, day) / (double)TurnWindow.Step) + 0.5) * step);
        svg.Add(
            El("line", "class", "thread", "x1", At(planned), "x2", At(planned), "y1", Top - 8, "y2", Base + 8),
            Text(At(planned), Top - 10, "month", "planned", "middle")
        );
        if (best is { } b && b != planned)
            svg.Add(Text(At(b), Base + 44, "part-name", "most colour", "middle"));
        if (past is { } p && p != best)
            svg.Add(Text(At(p), Base + 44, "month", "past its best", "middle"));
        return svg;
    }
}
