using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>The climate through the year: odds of frost by day at two thresholds over the usual range of temperature.</summary>
public static class ClimateFigure
{
    private const double Width = 960;
    private const double Top = 14;
    private const double OddsHeight = 130;
    private const double RangeTop = 186;
    private const double RangeHeight = 120;

    /// <summary>The drawing.</summary>
    public static XElement Draw(
        WeatherRecord record, (FrostOdds Spring, FrostOdds Fall) light, (FrostOdds Spring, FrostOdds Fall) hard, YearScale scale, UnitsText units)
    {
        XElement svg = El(
            "svg", "viewBox", $"0 0 {N(Width + 92)} 332", "class", "climate-figure", "role", "img",
            Title($"Odds of frost at {units.Threshold(light.Spring.ThresholdC)} and {units.Threshold(hard.Spring.ThresholdC)} by day, and the usual daily range of temperature"));
        foreach ((double x, _, string name) in scale.Months())
        {
            svg.Add(El("line", "x1", x, "x2", x, "y1", Top, "y2", RangeTop + RangeHeight, "class", "month-rule"));
            svg.Add(Text(x + 4, 328, "month", name));
        }
        for (int tenth = 0; tenth <= 10; tenth += 5)
        {
            double y = Top + OddsHeight - (tenth * OddsHeight / 10);
            svg.Add(El("line", "x1", 0, "x2", Width, "y1", y, "y2", y, "class", tenth == 0 ? "rule" : "grid-line"));
            svg.Add(Text(Width + 8, y + 4, "depth-text", tenth == 0 ? "never" : tenth == 5 ? "5 in 10 years" : "every year"));
        }
        bool southern = record.Station.IsSouthern;
        svg.Add(El("path", "d", Odds(light, scale, southern), "class", "odds-line odds-light"));
        svg.Add(El("path", "d", Odds(hard, scale, southern), "class", "odds-line odds-hard"));
        svg.Add(Range(record, scale, units));
        return svg;
    }

    private static string Odds((FrostOdds Spring, FrostOdds Fall) odds, YearScale scale, bool southern)
    {
        var path = new StringBuilder();
        for (int d = 0; d < scale.Days; d += 2)
        {
            double share = FrostFringe.OddsOn(odds.Spring, odds.Fall, scale.Start.PlusDays(d), southern);
            path.Append(d == 0 ? 'M' : 'L').Append(N(scale.X(d))).Append(' ').Append(N(Top + OddsHeight - (share * OddsHeight)));
        }
        return path.ToString();
    }

    private static XElement Range(WeatherRecord record, YearScale scale, UnitsText units)
    {
        var days = Enumerable.Range(0, scale.Days).Select(d => record.ExpectedOn(scale.Start.PlusDays(d))).ToList();
        double low = Math.Floor((days.Min(d => d.MinC) - 1) / 5) * 5;
        double high = Math.Ceiling((days.Max(d => d.MaxC) + 1) / 5) * 5;
        double Y(double c) => RangeTop + ((high - c) * RangeHeight / (high - low));
        XElement group = El("g");
        for (double c = Math.Ceiling(low / 10) * 10; c <= high + 0.01; c += 10)
        {
            group.Add(El("line", "x1", 0, "x2", Width, "y1", Y(c), "y2", Y(c), "class", "grid-line"));
            group.Add(Text(Width + 8, Y(c) + 4, "depth-text", units.Threshold(c)));
        }
        if (low < 0)
            group.Add(El("line", "x1", 0, "x2", Width, "y1", Y(0), "y2", Y(0), "class", "rule"));
        var band = new StringBuilder();
        for (int d = 0; d < days.Count; d += 2)
            band.Append(d == 0 ? 'M' : 'L').Append(N(scale.X(d))).Append(' ').Append(N(Y(days[d].MaxC)));
        for (int d = days.Count - 1; d >= 0; d -= 2)
            band.Append('L').Append(N(scale.X(d))).Append(' ').Append(N(Y(days[d].MinC)));
        group.Add(El("path", "d", band.Append('Z').ToString(), "class", "climate-band", Title("usual lowest to highest of the day")));
        var mean = new StringBuilder();
        for (int d = 0; d < days.Count; d += 2)
            mean.Append(d == 0 ? 'M' : 'L').Append(N(scale.X(d))).Append(' ').Append(N(Y((days[d].MinC + days[d].MaxC) / 2)));
        group.Add(El("path", "d", mean.ToString(), "class", "climate-mean"));
        return group;
    }
}
