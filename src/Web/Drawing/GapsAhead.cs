using System.Xml.Linq;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// How what stands for years closes over a planter: on one rule, year by year, the share of the surface under it, and the bedding
/// that still goes between, as a row of small plants that grows shorter.
/// </summary>
public static class GapsAhead
{
    private const double Width = 720;
    private const double Base = 54;
    private const double Tall = 40;
    private const int MostMarks = 12;

    /// <summary>The drawing.</summary>
    /// <param name="name">The planter's name.</param>
    /// <param name="cover">Share of the surface under what stands, by year.</param>
    /// <param name="bedding">Seasonal plants set out, by year.</param>
    /// <param name="years">Names of the years.</param>
    public static XElement Draw(string name, IReadOnlyList<double> cover, IReadOnlyList<int> bedding, IReadOnlyList<string> years)
    {
        double step = Width / cover.Count;
        var svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Width)} {N(Base + 38)}",
            "class",
            "gaps-ahead",
            "role",
            "img",
            Title($"{name}: {string.Join("; ", cover.Select((c, y) => $"{years[y]} {c:P0} under what stands, {bedding[y]} bedding plants"))}")
        );
        int most = Math.Max(1, bedding.Max());
        for (int y = 0; y < cover.Count; y++)
        {
            double left = y * step;
            double closed = cover[y] * (step - 14);
            // A crown as wide as the share that it covers.
            if (closed > 0.5)
            {
                double crown = Tall * Math.Sqrt(cover[y]);
                svg.Add(
                    El(
                        "path",
                        "class",
                        "crown",
                        "d",
                        $"M{N(left)} {N(Base)}C{N(left)} {N(Base - (crown * 1.25))} {N(left + closed)} {N(Base - (crown * 1.25))} {N(left + closed)} {N(Base)}Z"
                    )
                );
            }
            int marks = bedding[y] == 0 ? 0 : Math.Max(1, (int)Math.Round((double)MostMarks * bedding[y] / most));
            double room = step - 14 - closed;
            for (int m = 0; m < marks && room > 4; m++)
            {
                double x = left + closed + ((m + 0.5) * room / marks);
                svg.Add(
                    El("path", "class", "bedder", "d", $"M{N(x)} {N(Base)}v-7"),
                    El("circle", "class", "bedder-head", "cx", x, "cy", Base - 9.5, "r", Math.Min(3.2, Math.Max(1.4, room / marks / 2.4)))
                );
            }
            svg.Add(Text(left, Base + 16, "month", years[y]), Text(left, Base + 32, "gap-figure", $"{cover[y]:P0}, {bedding[y]} plants"));
        }
        svg.Add(El("line", "class", "rule", "x1", 0, "x2", Width, "y1", Base, "y2", Base));
        return svg;
    }
}
