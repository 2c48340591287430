namespace UnrulyMeadow.Core.Colour;

/// <summary>A colour by lightness and two opponent axes under daylight D65 (CIE 15, L*a*b*).</summary>
/// <param name="L">Lightness, 0 to 100.</param>
/// <param name="A">Green (below 0) to red.</param>
/// <param name="B">Blue (below 0) to yellow.</param>
public readonly record struct Lab(double L, double A, double B)
{
    // White of D65: the sums of the rows by which light becomes XYZ.
    private const double WhiteX = 0.9504559270516716;
    private const double WhiteZ = 1.0890577507598784;

    // (6/29)³ and (29/3)³ of CIE 15.
    private const double Epsilon = 216.0 / 24389;
    private const double Kappa = 24389.0 / 27;

    /// <summary>Chroma: how far from grey.</summary>
    public double Chroma => Math.Sqrt((A * A) + (B * B));

    /// <summary>Hue angle, degrees from 0 (red) over 90 (yellow) and 180 (green) to 270 (blue).</summary>
    public double HueDeg
    {
        get
        {
            double degrees = Math.Atan2(B, A) * 180 / Math.PI;
            return degrees < 0 ? degrees + 360 : degrees;
        }
    }

    /// <summary>Of #rrggbb.</summary>
    public static Lab Of(string colour) => Of(Srgb.Of(colour));

    /// <summary>Of a screen colour.</summary>
    public static Lab Of(Srgb colour)
    {
        (double r, double g, double b) = colour.Light;
        double x = (0.4123907992659593 * r) + (0.357584339383878 * g) + (0.1804807884018343 * b);
        double y = (0.2126390058715102 * r) + (0.715168678767756 * g) + (0.0721923153607337 * b);
        double z = (0.0193308187155918 * r) + (0.119194779794626 * g) + (0.9505321522496607 * b);
        double fx = Cube(x / WhiteX);
        double fy = Cube(y);
        double fz = Cube(z / WhiteZ);
        return new Lab((116 * fy) - 16, 500 * (fx - fy), 200 * (fy - fz));
    }

    private static double Cube(double t) => t > Epsilon ? Math.Cbrt(t) : ((Kappa * t) + 16) / 116;
}
