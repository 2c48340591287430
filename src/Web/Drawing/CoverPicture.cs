using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>How much of a planter each colour is expected to hide on a day, with the span of nine years in ten beneath.</summary>
internal static class CoverPicture
{
    private const double Width = 320;
    private const double Height = 22;
    private const double Thick = 14;

    /// <summary>Draws it.</summary>
    public static IHtmlContent Of(PlanterExpectation expected)
    {
        double all = Math.Max(1, expected.Colours.Sum(c => c.Cover));
        double x = 0;
        var bars = new List<XElement>();
        foreach ((Plant plant, double cover) in expected.Colours)
        {
            double wide = Width * cover / all;
            bars.Add(
                Figure.El(
                    "rect",
                    "x",
                    x,
                    "y",
                    0.0,
                    "width",
                    wide,
                    "height",
                    Thick,
                    "fill",
                    plant.LeadColour,
                    "stroke",
                    Figure.Outline(plant.LeadColour)
                )
            );
            x += wide;
        }
        XElement svg = Figure.El(
            "svg",
            "viewBox",
            $"0 0 {Figure.N(Width)} {Figure.N(Height)}",
            "class",
            "cover-bar",
            "aria-hidden",
            "true",
            Figure.El("rect", "x", 0.0, "y", 0.0, "width", Width, "height", Thick, "class", "bare"),
            bars,
            Figure.El(
                "line",
                "x1",
                Width * Math.Min(1, expected.CoverLow),
                "x2",
                Width * Math.Min(1, expected.CoverHigh),
                "y1",
                Thick + 4,
                "y2",
                Thick + 4,
                "class",
                "span"
            )
        );
        return svg.Html();
    }
}
