using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>One year's daily values laid over a band of all years; NaN where the year has none.</summary>
/// <param name="Name">What the year is called.</param>
/// <param name="Low">Lower edge by day of the common year.</param>
/// <param name="High">Upper edge; the same array for a single line.</param>
/// <param name="ForecastFrom">First day that is forecast and not seen; 365 when none is.</param>
public sealed record YearOnTop(string Name, double[] Low, double[] High, int ForecastFrom = BulbCalendar.CommonDays);

/// <summary>The climate through a year that begins in late summer, winter in its middle.</summary>
public static class ClimateFigure
{
    private const double Width = YearScale.UsualWidth;
    private const double Margin = 92;

    /// <summary>Odds of frost, and the air of all years with one on top.</summary>
    /// <param name="light">Odds at the lighter threshold.</param>
    /// <param name="hard">Odds at the harder one.</param>
    /// <param name="low">Daily lowest of all years.</param>
    /// <param name="high">Daily highest of all years.</param>
    /// <param name="onTop">The year on top; null for none.</param>
    /// <param name="scale">The common year.</param>
    /// <param name="units">Units.</param>
    public static XElement Air(
        (FrostOdds Spring, FrostOdds Fall) light,
        (FrostOdds Spring, FrostOdds Fall) hard,
        DailyBand low,
        DailyBand high,
        YearOnTop? onTop,
        YearScale scale,
        UnitsText units
    )
    {
        const double oddsTop = 14;
        const double oddsHeight = 96;
        const double top = 138;
        const double height = 190;
        XElement svg = Frame(
            scale,
            oddsTop,
            top + height,
            (
                $"Odds of frost at {units.Threshold(light.Spring.ThresholdC)} and {units.Threshold(hard.Spring.ThresholdC)} by "
                + $"day, and the air temperature of all years{(onTop is null ? string.Empty : " with " + onTop.Name + " on top")}"
            )
        );
        for (int tenth = 0; tenth <= 10; tenth += 5)
        {
            double y = oddsTop + oddsHeight - (tenth * oddsHeight / 10);
            svg.Add(El("line", "x1", 0, "x2", Width, "y1", y, "y2", y, "class", tenth == 0 ? "rule" : "grid-line"));
            svg.Add(
                Text(
                    Width + 8,
                    y + 4,
                    "depth-text",
                    tenth == 0 ? "never"
                        : tenth == 5 ? "5 in 10 years"
                        : "every year"
                )
            );
        }
        svg.Add(El("path", "d", Odds(light, scale, oddsTop + oddsHeight, oddsHeight), "class", "odds-line odds-light"));
        svg.Add(El("path", "d", Odds(hard, scale, oddsTop + oddsHeight, oddsHeight), "class", "odds-line odds-hard"));
        var y0 = new TemperatureScale(Least(low.Lowest, onTop?.Low), Most(high.Highest, onTop?.High), top, height);
        y0.Grid(svg, units);
        svg.Add(Area(low.Lowest, high.Highest, scale, y0, "band-all", "lowest to highest of all years"));
        svg.Add(Area(low.Low, high.High, scale, y0, "band-usual", "what nine years of ten stay within"));
        svg.Add(El("path", "d", Line([.. low.Middle.Zip(high.Middle, (a, b) => (a + b) / 2)], scale, y0), "class", "climate-mean"));
        if (onTop is not null)
            svg.Add(Strokes(onTop, scale, y0));
        return svg;
    }

    /// <summary>The temperature at a depth in all years, one on top, with the planting window.</summary>
    /// <param name="band">All years.</param>
    /// <param name="onTop">The year on top; null for none.</param>
    /// <param name="window">The planting window at this depth.</param>
    /// <param name="coldUntil">The last planting day that gives tulips their cold; null when none does.</param>
    /// <param name="scale">The common year.</param>
    /// <param name="units">Units.</param>
    /// <param name="name">Where.</param>
    public static XElement Ground(
        DailyBand band,
        YearOnTop? onTop,
        PlantingWindow window,
        LocalDate? coldUntil,
        YearScale scale,
        UnitsText units,
        string name
    )
    {
        const double top = 40;
        const double height = 210;
        XElement svg = Frame(
            scale,
            top - 6,
            top + height,
            $"Temperature at {units.WorkingDepth(window.DepthCm)} in {name} in all years{(onTop is null ? string.Empty : " with " + onTop.Name + " on top")}"
        );
        var y = new TemperatureScale(Math.Min(-2, Least(band.Lowest, onTop?.Low)), Math.Max(18, Most(band.Highest, onTop?.High)), top, height);
        y.Grid(svg, units);
        svg.Add(Area(band.Lowest, band.Highest, scale, y, "band-all", "coldest to warmest of all years"));
        svg.Add(Area(band.Low, band.High, scale, y, "band-usual", "what nine years of ten stay within"));
        svg.Add(El("path", "d", Line(band.Middle, scale, y), "class", "climate-mean"));
        if (onTop is not null)
            svg.Add(El("path", "d", Line(onTop.Low, scale, y), "class", "year-line", Title(onTop.Name)));
        svg.Add(El("line", "x1", 0, "x2", Width, "y1", y.At(PlantingWindow.CoolC), "y2", y.At(PlantingWindow.CoolC), "class", "cool-line"));
        svg.Add(Text(Width + 8, y.At(PlantingWindow.CoolC) + 4, "depth-text", $"cool, {units.Threshold(PlantingWindow.CoolC)}"));
        svg.Add(Window(window, coldUntil, scale));
        return svg;
    }

    private static XElement Window(PlantingWindow window, LocalDate? coldUntil, YearScale scale)
    {
        if (window.OpensSafely is not { } opens)
            return Text(0, 18, "part-name", "It never cools enough to plant.");
        double from = scale.X(FrostFringe.InYear(scale, opens));
        LocalDate? until = window.LastSafeDay ?? coldUntil;
        double to = until is { } last ? scale.X(FrostFringe.InYear(scale, last)) : from;
        XElement group = El("g", "class", "planting-window");
        if (to <= from)
        {
            group.Add(
                Text(
                    Math.Min(from, Width - 240),
                    18,
                    "part-name",
                    window.LastSafeDay is null ? "too little cold for tulips" : "no window: it freezes too soon after it cools"
                )
            );
            return group;
        }
        double best =
            window.BestUntil is { } good ? Math.Clamp(scale.X(FrostFringe.InYear(scale, good)), from, to)
            : window.LastSafeDay is null ? from + ((to - from) / 2)
            : to;
        group.Add(El("line", "x1", from, "x2", best, "y1", 28, "y2", 28, "class", "window-best"));
        group.Add(El("line", "x1", best, "x2", to, "y1", 28, "y2", 28, "class", "window-safe"));
        string end = window.LastSafeDay is null
            ? $"plant {Words.Short(opens)} to {Words.Short(until!.Value)}, for tulips’ cold"
            : $"plant {Words.Short(opens)} to {Words.Short(until!.Value)}";
        group.Add(from > Width * 0.7 ? Text(from, 18, "part-name", end, "end") : Text(from, 18, "part-name", end));
        return group;
    }

    private static XElement Frame(YearScale scale, double top, double bottom, string title)
    {
        XElement svg = El("svg", "viewBox", $"0 0 {N(Width + Margin)} {N(bottom + 24)}", "class", "climate-figure", "role", "img", Title(title));
        foreach ((double x, _, string month) in scale.Months())
        {
            svg.Add(El("line", "x1", x, "x2", x, "y1", top, "y2", bottom, "class", "month-rule"));
            svg.Add(Text(x + 4, bottom + 18, "month", month));
        }
        return svg;
    }

    private static string Odds((FrostOdds Spring, FrostOdds Fall) odds, YearScale scale, double floor, double height)
    {
        var path = new StringBuilder();
        for (int d = 0; d < scale.Days; d += 2)
        {
            double share = FrostOdds.OddsOn(odds.Spring, odds.Fall, scale.Start.PlusDays(d));
            path.Append(d == 0 ? 'M' : 'L').Append(N(scale.X(d))).Append(' ').Append(N(floor - (share * height)));
        }
        return path.ToString();
    }

    private static XElement Area(double[] low, double[] high, YearScale scale, TemperatureScale y, string cssClass, string title)
    {
        var path = new StringBuilder();
        for (int d = 0; d < low.Length; d += 2)
            path.Append(d == 0 ? 'M' : 'L').Append(N(scale.X(d + 0.5))).Append(' ').Append(N(y.At(high[d])));
        for (int d = low.Length - 1; d >= 0; d -= 2)
            path.Append('L').Append(N(scale.X(d + 0.5))).Append(' ').Append(N(y.At(low[d])));
        return El("path", "d", path.Append('Z').ToString(), "class", cssClass, Title(title));
    }

    private static string Line(double[] values, YearScale scale, TemperatureScale y)
    {
        var path = new StringBuilder();
        bool open = false;
        for (int d = 0; d < values.Length; d++)
        {
            if (double.IsNaN(values[d]))
            {
                open = false;
                continue;
            }
            path.Append(open ? 'L' : 'M').Append(N(scale.X(d + 0.5))).Append(' ').Append(N(y.At(values[d])));
            open = true;
        }
        return path.ToString();
    }

    // Each day of the year on top as a stroke from its lowest to its highest; days of a forecast are thin.
    private static XElement Strokes(YearOnTop year, YearScale scale, TemperatureScale y)
    {
        var seen = new StringBuilder();
        var forecast = new StringBuilder();
        for (int d = 0; d < year.Low.Length; d++)
        {
            if (double.IsNaN(year.Low[d]) || double.IsNaN(year.High[d]))
                continue;
            (d < year.ForecastFrom ? seen : forecast)
                .Append('M')
                .Append(N(scale.X(d + 0.5)))
                .Append(' ')
                .Append(N(y.At(year.High[d])))
                .Append('V')
                .Append(N(y.At(year.Low[d])));
        }
        return El(
            "g",
            Title(year.Name),
            El("path", "d", seen.ToString(), "class", "year-stroke"),
            El("path", "d", forecast.ToString(), "class", "year-stroke forecast")
        );
    }

    private static double Least(double[] values, double[]? more) => values.Concat(more ?? []).Where(double.IsFinite).DefaultIfEmpty(0).Min();

    private static double Most(double[] values, double[]? more) => values.Concat(more ?? []).Where(double.IsFinite).DefaultIfEmpty(20).Max();

    private sealed class TemperatureScale(double least, double most, double top, double height)
    {
        private readonly double _low = Math.Floor((least - 1) / 5) * 5;
        private readonly double _high = Math.Ceiling((most + 1) / 5) * 5;

        public double At(double c) => top + ((_high - c) * height / (_high - _low));

        public void Grid(XElement svg, UnitsText units)
        {
            for (double c = Math.Ceiling(_low / 10) * 10; c <= _high + 0.01; c += 10)
            {
                svg.Add(El("line", "x1", 0, "x2", Width, "y1", At(c), "y2", At(c), "class", c == 0 ? "rule" : "grid-line"));
                svg.Add(Text(Width + 8, At(c) + 4, "depth-text", units.Threshold(c)));
            }
        }
    }
}
