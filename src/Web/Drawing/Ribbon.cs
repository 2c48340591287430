using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// A planter's year as growth off a ruled line: height is cover of the planter's top, colours are the plants' own, the
/// pale edge above reaches what one year in ten exceeds, and where it is bare the rule is ticked beneath.
/// </summary>
public static class Ribbon
{
    /// <summary>Height of the drawing.</summary>
    public const double Height = 45;

    /// <summary>The rule's distance from the top.</summary>
    public const double Baseline = 36;

    /// <summary>Cover that reaches the full height.</summary>
    public const double FullCover = 0.8;

    private const double Most = 34;

    /// <summary>Height of a cover.</summary>
    public static double HeightOf(double cover) => Most * Math.Min(1, cover / FullCover);

    /// <summary>The path of a band between two heights by day, its upper edge ragged like a meadow's.</summary>
    /// <param name="lower">Lower heights by day.</param>
    /// <param name="upper">Upper heights by day, none below the lower.</param>
    /// <param name="scale">The days.</param>
    /// <param name="seed">Gives each plant its own raggedness.</param>
    /// <returns>SVG path data; empty when the band never shows.</returns>
    public static string Path(double[] lower, double[] upper, YearScale scale, int seed)
    {
        var path = new StringBuilder();
        int d = 0;
        while (d < upper.Length)
        {
            while (d < upper.Length && upper[d] - lower[d] < 0.15)
                d++;
            int from = d;
            while (d < upper.Length && upper[d] - lower[d] >= 0.15)
                d++;
            if (d > from)
                Piece(path, lower, upper, scale, seed, from, d);
        }
        return path.ToString();
    }

    /// <summary>The whole drawing.</summary>
    /// <param name="season">The planter's year.</param>
    /// <param name="scale">The days.</param>
    /// <param name="observations">What the crew saw.</param>
    /// <param name="displays">Its displays, for the days on which they go in and are cut.</param>
    /// <param name="planned">The year that was planned, drawn as an outline over this one; null for none.</param>
    /// <param name="movableFrom">From this day on the ends of its displays can be moved; null for a plain drawing.</param>
    public static XElement Draw(
        PlanterSeason season,
        YearScale scale,
        IReadOnlyList<Observation> observations,
        IReadOnlyList<Display>? displays = null,
        PlanterSeason? planned = null,
        LocalDate? movableFrom = null
    )
    {
        int days = season.Days;
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(scale.Width)} {N(Height)}",
            "class",
            "ribbon",
            "role",
            // What holds handles is no picture.
            movableFrom is null
                ? "img"
                : "group",
            Title(
                (
                    $"{season.Planter.Name}: {season.DaysInColour} days in colour, "
                    + $"{(season.BareSpells.Count == 0 ? "never bare for a week" : string.Join("; ", season.BareSpells.Select(s => $"bare {Words.Short(s.FirstDay)} to {Words.Short(s.LastDay)}")))}"
                )
            )
        );
        foreach (BareSpell spell in season.BareSpells)
            svg.Add(Ticks(scale.X(spell.FirstDay), scale.X(spell.LastDay.PlusDays(1))));
        var floor = new double[days];
        var top = new double[days];
        for (int d = 0; d < days; d++)
            top[d] = HeightOf(Math.Min(PlanterSeason.MostGreen, PlanterSeason.GreenWeight * season.Green[d]));
        // The leaf reaches a little under what stands on it, so that no ground shows between them.
        double[] green = [.. top.Select(h => h < 0.15 ? 0 : h + 1.8)];
        var bands = new List<XElement>();
        foreach (var group in Groups(season))
        {
            double[] lower = [.. top];
            for (int d = 0; d < days; d++)
                top[d] = Math.Min(Most, top[d] + HeightOf(group.Cover[d]));
            string data = Path(lower, top, scale, group.Seed);
            if (data.Length > 0)
                bands.Add(El("path", "d", data, "fill", group.Colour, "stroke", Outline(group.Colour), "class", "band", Title(group.Name)));
        }
        var soft = new double[days];
        for (int d = 0; d < days; d++)
            soft[d] = Math.Min(Most + 1, Math.Max(top[d], HeightOf(season.Cover90[d])));
        svg.Add(El("path", "d", Path(top, soft, scale, 7), "class", "soft"));
        svg.Add(El("path", "d", Path(floor, green, scale, 3), "class", "leaf"));
        svg.Add(bands);
        svg.Add(El("line", "x1", 0, "x2", scale.Width, "y1", Baseline, "y2", Baseline, "class", "rule"));
        if (planned is not null)
            svg.Add(El("path", "d", PlannedLine(planned, scale), "class", "planned", Title("as planned")));
        foreach (Display display in displays ?? [])
            svg.Add(Marks(display, season, scale));
        foreach (BareSpell spell in season.BareSpells)
            svg.Add(Label(spell, scale));
        foreach (Observation o in observations.Where(o => season.IndexOf(o.Day) >= 0 && season.IndexOf(o.Day) < days))
            svg.Add(Mark(o, scale));
        if (movableFrom is { } from)
            svg.Add(Ends(season, displays ?? [], scale, from));
        return svg;
    }

    // A handle on each day on which something goes in or comes out; one stands for both where they meet.
    private static IEnumerable<XElement> Ends(PlanterSeason season, IReadOnlyList<Display> displays, YearScale scale, LocalDate from)
    {
        IEnumerable<(Display Display, DisplayEnd End, LocalDate Day)> ends =
        [
            .. displays.Select(d => (d, DisplayEnd.Install, d.Install)),
            .. displays
                .Where(d => !d.IsOpenEnded && displays.All(o => o.Layer != d.Layer || o.Install != d.Lift))
                .Select(d => (d, DisplayEnd.Lift, d.Lift)),
        ];
        bool first = true;
        foreach ((Display display, DisplayEnd end, LocalDate day) in ends.OrderBy(e => e.Day))
        {
            int at = season.IndexOf(day);
            if (at < 0 || at >= season.Days || day < from)
                continue;
            yield return El(
                "g",
                "class",
                "display-end",
                "transform",
                $"translate({N(scale.X(at))} {N(Baseline)})",
                "role",
                "slider",
                "tabindex",
                first ? "0" : "-1",
                "data-end",
                end.ToString(),
                "data-display",
                display.Id,
                "aria-label",
                $"{Words.Of(end)}, {Words.Of(display.Layer)}",
                "aria-valuemin",
                0,
                "aria-valuemax",
                season.Days - 1,
                "aria-valuenow",
                at,
                "aria-valuetext",
                Words.Day(day),
                El("rect", "x", -6, "y", -22, "width", 12, "height", 32, "class", "hit"),
                El("path", "d", "M0 -5v11m-3 -3.5l3 3.5l3 -3.5", "class", "grip")
            );
            first = false;
        }
    }

    // What the middle year covers, as a line.
    private static string PlannedLine(PlanterSeason planned, YearScale scale)
    {
        var path = new StringBuilder();
        for (int d = 0; d < planned.Days; d += 3)
            Point(path, d == 0 ? 'M' : 'L', scale.X(d + 0.5), Baseline - Math.Min(Most, HeightOf(planned.Cover50[d])));
        return path.ToString();
    }

    // A turn is a notch under the rule, a cut two short strokes that cross it.
    private static IEnumerable<XElement> Marks(Display display, PlanterSeason season, YearScale scale)
    {
        if (display.Layer == DisplayLayer.Seasonal && season.IndexOf(display.Install) is > 0 and var at && at < season.Days)
            yield return El(
                "path",
                "d",
                $"M{N(scale.X(at))} {N(Baseline)}v6",
                "class",
                "turn-mark",
                Title($"{Words.Day(display.Install)}: next display goes in")
            );
        foreach (CutBack cut in display.Cuts.Where(c => season.IndexOf(c.Day) >= 0 && season.IndexOf(c.Day) < season.Days))
        {
            double x = scale.X(cut.Day);
            yield return El(
                "path",
                "d",
                $"M{N(x - 3)} {N(Baseline + 1)}l6 6m0 -6l-6 6",
                "class",
                "cut-mark",
                Title($"{Words.Day(cut.Day)}: cut back")
            );
        }
    }

    // One silhouette per plant and colour: a plant's second colour takes the upper third of its share.
    private static IEnumerable<(string Name, string Colour, float[] Cover, int Seed)> Groups(PlanterSeason season)
    {
        foreach (var bands in season.Bands.Where(b => b.Peak > 0.004).GroupBy(b => (b.Plant.Id, b.Window)).OrderBy(g => g.First().Plant.HeightCm))
        {
            ColourBand first = bands.First();
            int n = Math.Min(2, first.Window.Colours.Count);
            for (int c = 0; c < n; c++)
            {
                float part =
                    n == 1 ? 1
                    : c == 0 ? 0.76f
                    : 0.24f;
                var cover = new float[season.Days];
                foreach (ColourBand band in bands)
                {
                    for (int d = 0; d < cover.Length; d++)
                        cover[d] += band.MeanCover[d] * part * (float)band.Window.Weight;
                }
                yield return (
                    $"{first.Plant.CommonName}, {Words.Of(first.Window.Part)}",
                    first.Window.Colours[c],
                    cover,
                    Seed(first.Plant.Id) + (31 * c)
                );
            }
        }
    }

    private static int Seed(string text) => text.Aggregate(17, (h, c) => unchecked((h * 31) + c)) & 0xffff;

    // A point every second day keeps the page small and leaves the edge as ragged as it looks at this size.
    private static void Piece(StringBuilder path, double[] lower, double[] upper, YearScale scale, int seed, int from, int to)
    {
        Point(path, 'M', scale.X(from), Baseline - lower[from]);
        for (int d = from; d < to; d += 2)
        {
            double tall = upper[d] - lower[d];
            double ragged = (Ragged(seed, d) - 0.5) * Math.Min(4, tall * 0.6);
            Point(path, 'L', scale.X(d + 0.5), Baseline - Math.Max(lower[d], upper[d] + ragged));
        }
        Point(path, 'L', scale.X(to), Baseline - upper[to - 1]);
        Point(path, 'L', scale.X(to), Baseline - lower[to - 1]);
        for (int d = to - 1; d > from; d -= 4)
            Point(path, 'L', scale.X(d + 0.5), Baseline - lower[d]);
        path.Append('Z');
    }

    private static void Point(StringBuilder path, char command, double x, double y) =>
        path.Append(command).Append(Math.Round(x, 1)).Append(' ').Append(Math.Round(y, 1));

    private static XElement Ticks(double from, double to)
    {
        var path = new StringBuilder();
        for (double x = from + 1; x < to; x += 5)
            path.Append('M').Append(N(x)).Append(' ').Append(N(Baseline + 2)).Append('l').Append(N(4)).Append(' ').Append(N(5));
        return El("path", "d", path.ToString(), "class", "ticks");
    }

    private static XElement Label(BareSpell spell, YearScale scale)
    {
        double from = scale.X(spell.FirstDay);
        double to = scale.X(spell.LastDay.PlusDays(1));
        string full = spell.Years == 1 ? $"{spell.Days} days" : $"{spell.Days} days, {spell.InTen} in 10";
        string text = to - from > 118 ? full : $"{spell.Days} d";
        XElement label = Text((from + to) / 2, Baseline - 6, "spell", text, "middle");
        label.Add(Title($"Bare {Words.Short(spell.FirstDay)} to {Words.Short(spell.LastDay)}: {full}{(spell.Years == 1 ? string.Empty : " years")}"));
        return label;
    }

    private static XElement Mark(Observation o, YearScale scale)
    {
        double x = scale.X(o.Day) + 1.3;
        string shape = o.Kind switch
        {
            ObservationKind.FirstColour => $"M{N(x)} {N(Baseline - 4)}l3.4 6.5h-6.8z",
            ObservationKind.Peak => $"M{N(x)} {N(Baseline - 4)}l3.6 4 -3.6 4 -3.6 -4z",
            ObservationKind.Over => $"M{N(x)} {N(Baseline + 4)}l3.4 -6.5h-6.8z",
            ObservationKind.Died => $"M{N(x - 3)} {N(Baseline - 3)}l6 6m0 -6l-6 6",
            _ => $"M{N(x - 3)} {N(Baseline)}a3 3 0 1 0 6 0a3 3 0 1 0 -6 0",
        };
        return El(
            "path",
            "d",
            shape,
            "class",
            "seen",
            Title($"{Words.Day(o.Day)}: {Words.Of(o.Kind)}{(o.Note.Length > 0 ? ", " + o.Note : string.Empty)} ({o.By})")
        );
    }
}
