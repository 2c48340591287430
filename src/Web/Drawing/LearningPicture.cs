using System.Globalization;
using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Learning;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>What was believed of a date, what was seen, and what is believed now, over the days from earlier to later.</summary>
internal static class LearningPicture
{
    private const double Width = 260;
    private const double Height = 46;
    private const double Base = 34;
    private const int Steps = 80;

    /// <summary>Draws it.</summary>
    public static IHtmlContent Of(DateLearning learnt)
    {
        double far = Math.Max(8, Math.Ceiling(learnt.Years.Select(y => Math.Abs(y.DaysLate)).Append(2.5 * learnt.Prior.Spread).Max() / 2) * 2);
        double X(double days) => Width * (days + far) / (2 * far);
        double highest = Math.Max(Density(learnt.Prior, learnt.Prior.Mean), Density(learnt.Posterior, learnt.Posterior.Mean));
        string Hill(Belief of)
        {
            IEnumerable<string> points = Enumerable
                .Range(0, Steps + 1)
                .Select(i => -far + (2 * far * i / Steps))
                .Select(d => $"{Figure.N(X(d))} {Figure.N(Base - (Density(of, d) / highest * (Base - 3)))}");
            return $"M0 {Figure.N(Base)} L{string.Join(" L", points)} L{Figure.N(Width)} {Figure.N(Base)} Z";
        }
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
                $"before 0 ± {learnt.Prior.Spread:0.0} days, now {learnt.Posterior.Mean:0.0} ± {learnt.Posterior.Spread:0.0}"
            ),
            Figure.El("path", "d", Hill(learnt.Prior), "class", "believed"),
            Figure.El("path", "d", Hill(learnt.Posterior), "class", "learnt"),
            Figure.El("line", "x1", 0.0, "x2", Width, "y1", Base, "y2", Base, "class", "rule"),
            Figure.El("line", "x1", X(0), "x2", X(0), "y1", 2.0, "y2", Base, "class", "rule"),
            learnt.Years.Select(y => Figure.El("line", "x1", X(y.DaysLate), "x2", X(y.DaysLate), "y1", Base - 9, "y2", Base + 3, "class", "seen")),
            Figure.Text(1, Height - 1, "small", $"−{far.ToString("0", CultureInfo.InvariantCulture)}"),
            Figure.Text(X(0), Height - 1, "small", "0", "middle"),
            Figure.Text(Width - 1, Height - 1, "small", $"+{far.ToString("0", CultureInfo.InvariantCulture)}", "end")
        );
        return svg.Html();
    }

    private static double Density(Belief of, double at) => Math.Exp(-0.5 * Math.Pow((at - of.Mean) / of.Spread, 2)) / of.Spread;
}
