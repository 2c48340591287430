using System.Globalization;
using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Learning;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>What was believed of a figure, what was seen, and what is believed now, from less to more.</summary>
internal static class LearningPicture
{
    private const double Width = 260;
    private const double Height = 46;
    private const double Base = 34;
    private const int Steps = 80;

    /// <summary>Draws a kind's dates, in days.</summary>
    public static IHtmlContent Of(DateLearning learnt) => OfDays(learnt.Prior, learnt.Posterior, [.. learnt.Years.Select(y => y.DaysLate)]);

    /// <summary>Draws the dates of a sort of place, in days.</summary>
    public static IHtmlContent Of(PlaceLearning learnt) => OfDays(PlaceLearning.Prior, learnt.Posterior, [.. learnt.Years.Select(y => y.DaysLate)]);

    /// <summary>Draws a figure that is learnt as a share of what is reckoned, on a scale of equal steps by so many times.</summary>
    public static IHtmlContent Of(RatioLearning learnt)
    {
        double[] seen = [.. learnt.Years.Select(y => y.Log)];
        double far = Math.Max(Math.Log(1.6), seen.Select(Math.Abs).Append(2.5 * learnt.Prior.Spread).Max());
        string Share(double log) => Math.Exp(log).ToString("0 %", CultureInfo.InvariantCulture);
        return Draw(
            learnt.Prior,
            learnt.Posterior,
            seen,
            far,
            $"before {Share(0)}, now {Share(learnt.Posterior.Mean)}",
            (Share(-far), Share(0), Share(far))
        );
    }

    private static IHtmlContent OfDays(Belief prior, Belief posterior, double[] seen)
    {
        double far = Math.Max(8, Math.Ceiling(seen.Select(Math.Abs).Append(2.5 * prior.Spread).Max() / 2) * 2);
        string end = far.ToString("0", CultureInfo.InvariantCulture);
        return Draw(
            prior,
            posterior,
            seen,
            far,
            string.Create(CultureInfo.InvariantCulture, $"before 0 ± {prior.Spread:0.0} days, now {posterior.Mean:0.0} ± {posterior.Spread:0.0}"),
            ($"−{end}", "0", $"+{end}")
        );
    }

    private static IHtmlContent Draw(
        Belief prior,
        Belief posterior,
        double[] seen,
        double far,
        string says,
        (string Low, string Middle, string High) marks
    )
    {
        double X(double at) => Width * (at + far) / (2 * far);
        double highest = Math.Max(Density(prior, prior.Mean), Density(posterior, posterior.Mean));
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
            says,
            Figure.El("path", "d", Hill(prior), "class", "believed"),
            Figure.El("path", "d", Hill(posterior), "class", "learnt"),
            Figure.El("line", "x1", 0.0, "x2", Width, "y1", Base, "y2", Base, "class", "rule"),
            Figure.El("line", "x1", X(0), "x2", X(0), "y1", 2.0, "y2", Base, "class", "rule"),
            seen.Select(y => Figure.El("line", "x1", X(y), "x2", X(y), "y1", Base - 9, "y2", Base + 3, "class", "seen")),
            Figure.Text(1, Height - 1, "small", marks.Low),
            Figure.Text(X(0), Height - 1, "small", marks.Middle, "middle"),
            Figure.Text(Width - 1, Height - 1, "small", marks.High, "end")
        );
        return svg.Html();
    }

    private static double Density(Belief of, double at) => Math.Exp(-0.5 * Math.Pow((at - of.Mean) / of.Spread, 2)) / of.Spread;
}
