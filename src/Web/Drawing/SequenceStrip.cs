using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// An area's bulbs through spring on one rule: as high as the number of planters in bulb flower, by the odds, in the colours of
/// their kinds, one kind upon the other. Days on which the whole area is bare are ticked beneath.
/// </summary>
public static class SequenceStrip
{
    private const double Base = 74;
    private const double Most = 64;
    private const double TallestStep = 13;

    /// <summary>The drawing.</summary>
    /// <param name="area">The run.</param>
    /// <param name="scale">The days drawn.</param>
    /// <param name="words">Words of what the drawing says.</param>
    /// <param name="changed">Planters in bulb flower by day after changes, drawn as a line over it; null for none.</param>
    public static XElement Draw(AreaSequence area, YearScale scale, FactWriter words, IReadOnlyList<int>? changed = null)
    {
        int offset = Period.DaysBetween(area.Start, scale.Start);
        int tallest = Math.Max(1, Math.Max(area.InFlower.Max(), changed?.Max() ?? 0));
        double step = Math.Min(TallestStep, Most / tallest);
        var svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} {N(Base + 12)}",
            "class",
            "ribbon sequence",
            "role",
            "img",
            Title($"{area.Area.Name}: {words.Say(area.Sentence())}")
        );
        var floor = new double[scale.Days];
        foreach (KindRun kind in area.Kinds)
        {
            double[] height =
            [
                .. Enumerable.Range(offset, scale.Days).Select(d => step * (d >= 0 && d < area.InFlower.Length ? kind.InFlower[d] : 0)),
            ];
            svg.Add(
                El(
                    "path",
                    "class",
                    "band",
                    "d",
                    Band(floor, height, scale),
                    "fill",
                    kind.Plant.LeadColour,
                    "stroke",
                    Outline(kind.Plant.LeadColour),
                    Title(
                        (
                            $"{kind.Plant.CommonName}, {Words.Count(kind.Planters, "planter", "planters")}, "
                            + $"{Words.Short(area.Start.PlusDays(kind.First))} to {Words.Short(area.Start.PlusDays(kind.Last))}"
                        )
                    )
                )
            );
            for (int d = 0; d < floor.Length; d++)
                floor[d] += height[d];
        }
        double even = Base - (area.EvenCount * step);
        if (area.WithBulbs > 1)
            svg.Add(
                El(
                    "line",
                    "class",
                    "even-line",
                    "x1",
                    Math.Max(0, scale.X(area.Spring.From - offset)),
                    "x2",
                    Math.Min(scale.Width, scale.X(area.Spring.To - offset)),
                    "y1",
                    even,
                    "y2",
                    even,
                    Title($"evenly spread, {area.EvenCount} would flower on each day")
                )
            );
        if (changed is not null)
            svg.Add(El("path", "class", "colour-line", "d", Line(changed, offset, step, scale), Title("with the exchanges made")));
        svg.Add(El("line", "class", "rule", "x1", 0, "x2", scale.Width, "y1", Base, "y2", Base));
        var ticks = new StringBuilder();
        for (int d = Math.Max(0, area.Spring.From - offset); d < Math.Min(scale.Days, area.Spring.To - offset); d++)
        {
            if (area.InColour[d + offset] == 0)
                ticks.Append(System.Globalization.CultureInfo.InvariantCulture, $"M{N(scale.X(d))} {N(Base + 3)}l3 6");
        }
        if (ticks.Length > 0)
            svg.Add(El("path", "class", "ticks", "d", ticks.ToString()));
        return svg;
    }

    // Only the days on which the kind shows, as bands of their own.
    private static string Band(double[] floor, double[] height, YearScale scale)
    {
        var path = new StringBuilder();
        for (int d = 0; d < height.Length; )
        {
            int end = d;
            while (end < height.Length && height[end] > 0)
                end++;
            if (end == d)
            {
                d++;
                continue;
            }
            path.Append('M').Append(N(scale.X(d))).Append(' ').Append(N(Base - floor[d]));
            for (int i = d; i < end; i++)
                path.Append('L').Append(N(scale.X(i + 0.5))).Append(' ').Append(N(Base - floor[i] - height[i]));
            path.Append('L').Append(N(scale.X(end))).Append(' ').Append(N(Base - floor[end - 1]));
            for (int i = end - 1; i >= d; i--)
                path.Append('L').Append(N(scale.X(i + 0.5))).Append(' ').Append(N(Base - floor[i]));
            path.Append('Z');
            d = end;
        }
        return path.ToString();
    }

    private static string Line(IReadOnlyList<int> count, int offset, double step, YearScale scale) =>
        string.Concat(
            Enumerable
                .Range(0, scale.Days)
                .Select(d => $"{(d == 0 ? 'M' : 'L')}{N(scale.X(d + 0.5))} {N(Base - (count[Math.Clamp(d + offset, 0, count.Count - 1)] * step))}")
        );
}
