using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Colour;

/// <summary>How different two colours look: CIEDE2000 (CIE 142-2001; Sharma, Wu &amp; Dalal 2005). About 1 is just seen side by side.</summary>
public static class ColourDifference
{
    /// <summary>Neighbours below this look the same a few steps away (common practice).</summary>
    public const double LooksAlike = 12;

    /// <summary>A colour no farther from one that is wanted will do (common practice: another shade of the same).</summary>
    public const double Near = 30;

    private const double Pow25To7 = 6103515625;

    /// <summary>The difference ΔE₀₀ with all weights at 1; 0 for equal colours.</summary>
    public static double Ciede2000(Lab one, Lab other)
    {
        double meanChroma = (one.Chroma + other.Chroma) / 2;
        double c7 = Math.Pow(meanChroma, 7);
        double g = 0.5 * (1 - Math.Sqrt(c7 / (c7 + Pow25To7)));
        (double a1, double a2) = ((1 + g) * one.A, (1 + g) * other.A);
        double c1 = Math.Sqrt((a1 * a1) + (one.B * one.B));
        double c2 = Math.Sqrt((a2 * a2) + (other.B * other.B));
        double h1 = Angle(one.B, a1);
        double h2 = Angle(other.B, a2);
        double lightness = other.L - one.L;
        double chroma = c2 - c1;
        double turn =
            c1 * c2 == 0 ? 0
            : h2 - h1 > 180 ? h2 - h1 - 360
            : h2 - h1 < -180 ? h2 - h1 + 360
            : h2 - h1;
        double hue = 2 * Math.Sqrt(c1 * c2) * Math.Sin(Radians(turn) / 2);
        double meanL = (one.L + other.L) / 2;
        double meanC = (c1 + c2) / 2;
        double meanH =
            c1 * c2 == 0 ? h1 + h2
            : Math.Abs(h1 - h2) <= 180 ? (h1 + h2) / 2
            : h1 + h2 < 360 ? (h1 + h2 + 360) / 2
            : (h1 + h2 - 360) / 2;
        double t =
            1
            - (0.17 * Math.Cos(Radians(meanH - 30)))
            + (0.24 * Math.Cos(Radians(2 * meanH)))
            + (0.32 * Math.Cos(Radians((3 * meanH) + 6)))
            - (0.20 * Math.Cos(Radians((4 * meanH) - 63)));
        double meanC7 = Math.Pow(meanC, 7);
        double rotation = -Math.Sin(Radians(60 * Math.Exp(-Math.Pow((meanH - 275) / 25, 2)))) * 2 * Math.Sqrt(meanC7 / (meanC7 + Pow25To7));
        double fromMiddle = (meanL - 50) * (meanL - 50);
        double l = lightness / (1 + (0.015 * fromMiddle / Math.Sqrt(20 + fromMiddle)));
        double c = chroma / (1 + (0.045 * meanC));
        double h = hue / (1 + (0.015 * meanC * t));
        return Math.Sqrt((l * l) + (c * c) + (h * h) + (rotation * c * h));
    }

    /// <summary>The difference of two colours written #rrggbb.</summary>
    public static double Between(string one, string other) => Ciede2000(Lab.Of(one), Lab.Of(other));

    /// <summary>The arithmetic behind a difference.</summary>
    public static Working Explain(string one, string other)
    {
        Lab a = Lab.Of(one);
        Lab b = Lab.Of(other);
        return new Working(
            WorkingKind.ColourDifference,
            Quantity.Number(Ciede2000(a, b), 1),
            [new WorkingInput(one, Say(a)), new WorkingInput(other, Say(b))],
            [WorkingPhrase.AboutJustSeenSideSideNeighbours]
        )
        {
            Parts = [("one", one), ("other", other)],
        };
    }

    internal static string Say(Lab c) => $"L* {c.L:0.0}, chroma {c.Chroma:0.0}, hue {c.HueDeg:0}°";

    private static double Angle(double b, double a)
    {
        if (a == 0 && b == 0)
            return 0;
        double degrees = Math.Atan2(b, a) * 180 / Math.PI;
        return degrees < 0 ? degrees + 360 : degrees;
    }

    private static double Radians(double degrees) => degrees * Math.PI / 180;
}
