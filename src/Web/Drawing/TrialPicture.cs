using System.Globalization;
using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Trials;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>How a kind did in a trial: its rating, and what nine in ten lie between, from 1 to the best.</summary>
internal static class TrialPicture
{
    private const double Width = 220;
    private const double Height = 20;
    private const double Margin = 6;

    /// <summary>Draws it.</summary>
    public static IHtmlContent Of(KindInTrial kind)
    {
        double X(double rating) => Margin + ((Math.Clamp(rating, 1, PlanterReview.Best) - 1) / (PlanterReview.Best - 1) * (Width - (2 * Margin)));
        XElement svg = Figure.El(
            "svg",
            "viewBox",
            $"0 0 {Figure.N(Width)} {Figure.N(Height)}",
            "class",
            "learning",
            "role",
            "img",
            "aria-label",
            string.Create(
                CultureInfo.InvariantCulture,
                $"{kind.Mean:0.0} of {PlanterReview.Best}, nine in ten between {kind.Low:0.0} and {kind.High:0.0}"
            ),
            Enumerable
                .Range(1, PlanterReview.Best)
                .Select(r => Figure.El("line", "x1", X(r), "x2", X(r), "y1", Height - 5, "y2", Height - 1, "class", "rule")),
            Figure.El("line", "x1", X(1), "x2", X(PlanterReview.Best), "y1", Height - 1, "y2", Height - 1, "class", "rule"),
            Figure.El("line", "x1", X(kind.Low), "x2", X(kind.High), "y1", Height / 2, "y2", Height / 2, "class", "seen"),
            Figure.El("circle", "cx", X(kind.Mean), "cy", Height / 2, "r", 4.0, "class", "learnt")
        );
        return svg.Html();
    }
}
