namespace UnrulyMeadow.Core.Colour;

/// <summary>
/// What distance does to colours. An eye that resolves one minute of arc in black and white resolves colour about four
/// minutes wide; finer patches blend as light adds up.
/// </summary>
public static class SeenFrom
{
    /// <summary>Distances at which a planter is judged, m: close by, across a path, across a square (common practice).</summary>
    public static IReadOnlyList<double> Metres { get; } = [3, 10, 30];

    /// <summary>Half-width of the eye's blur for colour, minutes of arc (from memory of colour acuity of 8 to 12 cycles a degree).</summary>
    public const double BlurArcMinutes = 4;

    /// <summary>Width of the blur at a distance as a standard deviation, cm.</summary>
    public static double BlurCm(double metres) => metres * 100 * Math.Tan(BlurArcMinutes / 60 * Math.PI / 180);

    /// <summary>
    /// Share of its own light that the middle of a round patch keeps under a Gaussian blur: 1 − exp(−r²/2σ²); the rest
    /// comes from around it.
    /// </summary>
    public static double Kept(double patchCm, double metres)
    {
        double sigma = BlurCm(metres);
        double r = patchCm / 2;
        return 1 - Math.Exp(-r * r / (2 * sigma * sigma));
    }

    /// <summary>A patch's colour as seen from a distance amid its surroundings.</summary>
    /// <param name="colour">The patch, #rrggbb.</param>
    /// <param name="patchCm">Its width, cm.</param>
    /// <param name="around">The mean colour around it, #rrggbb.</param>
    /// <param name="metres">Distance, m.</param>
    public static string Colour(string colour, double patchCm, string around, double metres)
    {
        double own = Kept(patchCm, metres);
        return Srgb.Mean([(Srgb.Of(colour), own), (Srgb.Of(around), 1 - own)]).ToString();
    }
}
