using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>The odds of frost through the year, hanging from a rule like ice.</summary>
public static class FrostFringe
{
    /// <summary>The drawing.</summary>
    /// <param name="spring">Odds of the last spring day.</param>
    /// <param name="fall">Odds of the first fall day.</param>
    /// <param name="scale">The days.</param>
    /// <param name="depth">Height of certain frost.</param>
    /// <param name="risk">Odds whose dates are named.</param>
    public static XElement Draw(FrostOdds spring, FrostOdds fall, YearScale scale, double depth, double risk)
    {
        var path = new StringBuilder("M0 2");
        for (int d = 0; d <= scale.Days; d++)
        {
            double odds = FrostOdds.OddsOn(spring, fall, scale.Start.PlusDays(Math.Min(d, scale.Days - 1)));
            double icicle = (0.72 + (0.28 * Ragged(11, d))) * (d % 3 == 0 ? 1 : 0.86);
            path.Append('L').Append(N(scale.X(d))).Append(' ').Append(N(2 + (odds * depth * (odds > 0.004 ? icicle : 0))));
        }
        path.Append('L').Append(N(scale.Width)).Append(" 2Z");
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} {N(depth + 6)}",
            "class",
            "frost",
            "role",
            "img",
            Title("Odds of frost through the year"),
            El("path", "d", path.ToString(), "class", "ice"),
            El("line", "x1", 0, "x2", scale.Width, "y1", 2, "y2", 2, "class", "rule")
        );
        if (spring.DateAt(risk).Date is { } last)
            svg.Add(Label(scale, last, $"{Words.OneIn(risk)} after {Words.Short(last)}", "start"));
        if (fall.DateAt(risk).Date is { } first)
            svg.Add(Label(scale, first, $"{Words.OneIn(risk)} by {Words.Short(first)}", "end"));
        return svg;
    }

    /// <summary>A month and day's place in the plan year.</summary>
    public static LocalDate InYear(YearScale scale, LocalDate monthDay)
    {
        var date = new LocalDate(scale.Start.Year, monthDay.Month, Math.Min(monthDay.Day, 28)).PlusDays(Math.Max(0, monthDay.Day - 28));
        return date < scale.Start ? date.PlusYears(1) : date;
    }

    private static XElement Label(YearScale scale, LocalDate monthDay, string text, string anchor)
    {
        double x = scale.X(InYear(scale, monthDay));
        return El(
            "g",
            El("line", "x1", x, "x2", x, "y1", 2, "y2", 22, "class", "icemark"),
            Text(anchor == "start" ? x + 5 : x - 5, 18, "icelabel", text, anchor)
        );
    }
}
