using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planters;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// The sky over a planter seen as a plan: north at the top, east at the right, the horizon as rim and the zenith as
/// middle. Walls and trees grow inward from the rim; the sun crosses on its paths at midsummer, equinox and midwinter.
/// </summary>
public static class SkyDome
{
    /// <summary>Radius of the horizon in the drawing; the script that drags the skyline uses the same.</summary>
    public const double Radius = 250;

    private const double Centre = 290;

    /// <summary>The drawing.</summary>
    /// <param name="skyline">What stands in the way.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="year">The year whose canopy is drawn.</param>
    public static XElement Draw(Skyline skyline, double latitudeDeg, int year)
    {
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 {N(Centre * 2)} {N(Centre * 2)}",
            "class",
            "sky-dome",
            "role",
            "img",
            "data-sky",
            string.Empty,
            Title("The sky over the planter: walls, trees and the sun's paths; drag to raise or lower what stands in the way"),
            El("circle", "cx", Centre, "cy", Centre, "r", Radius, "class", "sky")
        );
        for (int k = 0; k < Skyline.Sectors; k++)
        {
            double canopy = Math.Max(skyline.WallDeg[k], skyline.CanopyDeg(k, year));
            svg.Add(
                El(
                    "path",
                    "class",
                    "sky-tree",
                    "data-sky-tree",
                    k,
                    "d",
                    Wedge(k, Math.Max(skyline.WallDeg[k], Math.Min(canopy, skyline.CanopyFromDeg?[k] ?? 0)), canopy)
                )
            );
            svg.Add(El("path", "class", "sky-wall", "data-sky-wall", k, "d", Wedge(k, 0, skyline.WallDeg[k])));
        }
        foreach (int altitude in new[] { 30, 60 })
        {
            svg.Add(El("circle", "cx", Centre, "cy", Centre, "r", R(altitude), "class", "sky-ring"));
            svg.Add(Text(Centre + 3, Centre - R(altitude) - 3, "depth-text", $"{altitude}°"));
        }
        foreach ((int month, int day, string name) in new[] { (6, 21, "21 Jun"), (3, 20, "20 Mar"), (12, 21, "21 Dec") })
            svg.Add(Path(new LocalDate(year, month, day), latitudeDeg, name));
        for (int k = 0; k < Skyline.Sectors; k += 2)
        {
            double angle = k * Math.PI / 8;
            svg.Add(
                Text(
                    Centre + ((Radius + 20) * Math.Sin(angle)),
                    Centre - ((Radius + 20) * Math.Cos(angle)) + 5,
                    k % 4 == 0 ? "part-name" : "depth-text",
                    Skyline.SectorNames[k],
                    "middle"
                )
            );
        }
        svg.Add(El("circle", "cx", Centre, "cy", Centre, "r", Radius, "class", "sky-rim"));
        return svg;
    }

    /// <summary>A ring sector between two altitudes; empty where they are equal.</summary>
    private static string Wedge(int sector, double lowDeg, double highDeg)
    {
        if (highDeg <= lowDeg)
            return string.Empty;
        double from = (sector - 0.5) * Math.PI / 8;
        double to = (sector + 0.5) * Math.PI / 8;
        string P(double r, double a) => $"{N(Centre + (r * Math.Sin(a)))} {N(Centre - (r * Math.Cos(a)))}";
        double outer = R(lowDeg);
        double inner = R(highDeg);
        return $"M{P(outer, from)}A{N(outer)} {N(outer)} 0 0 1 {P(outer, to)}L{P(inner, to)}A{N(inner)} {N(inner)} 0 0 0 {P(inner, from)}Z";
    }

    private static XElement Path(LocalDate day, double latitudeDeg, string name)
    {
        var points = new List<string>();
        XElement group = El("g", "class", "sun-path", Title($"the sun on {name}"));
        for (double hour = 0; hour <= 24.001; hour += 0.25)
        {
            SunPosition sun = SunPosition.AtSolarHour(day, hour, latitudeDeg);
            if (sun.AltitudeDeg < 0)
                continue;
            double a = sun.AzimuthDeg * Math.PI / 180;
            double x = Centre + (R(sun.AltitudeDeg) * Math.Sin(a));
            double y = Centre - (R(sun.AltitudeDeg) * Math.Cos(a));
            points.Add($"{N(x)} {N(y)}");
            bool whole = Math.Abs(hour - Math.Round(hour)) < 0.01;
            if (whole && (int)Math.Round(hour) % 3 == 0)
                group.Add(El("circle", "cx", x, "cy", y, "r", 3.2, "class", "sun-hour", Title($"{Math.Round(hour):0}:00 sun time")));
            if (Math.Abs(hour - 12) < 0.01)
                group.Add(Text(x, y - 7, "sun-name", name, "middle"));
        }
        if (points.Count > 1)
            group.AddFirst(El("path", "d", "M" + string.Join("L", points), "class", "sun-line"));
        return group;
    }

    private static double R(double altitudeDeg) => Radius * (90 - altitudeDeg) / 90;
}
