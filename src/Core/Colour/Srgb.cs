using System.Globalization;

namespace UnrulyMeadow.Core.Colour;

/// <summary>A colour of the standard screen space (IEC 61966-2-1), each channel from 0 to 1 as encoded.</summary>
/// <param name="R">Red.</param>
/// <param name="G">Green.</param>
/// <param name="B">Blue.</param>
public readonly record struct Srgb(double R, double G, double B)
{
    /// <summary>True for a colour written #rrggbb.</summary>
    public static bool IsColour(string? text) =>
        text is { Length: 7 } && text[0] == '#' && int.TryParse(text.AsSpan(1), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out _);

    /// <summary>Reads #rrggbb.</summary>
    /// <exception cref="InvalidInputException">It is not written so.</exception>
    public static Srgb Of(string colour)
    {
        if (!IsColour(colour))
            throw new InvalidInputException("colour", $"must be written #rrggbb (it is \"{colour}\")");
        int rgb = int.Parse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture);
        return new Srgb((rgb >> 16) / 255.0, ((rgb >> 8) & 255) / 255.0, (rgb & 255) / 255.0);
    }

    /// <summary>The colour of three amounts of light, clipped to what a screen can show.</summary>
    public static Srgb FromLight((double R, double G, double B) light) => new(Encoded(light.R), Encoded(light.G), Encoded(light.B));

    /// <summary>Amounts of light, 0 to 1: what adds up when colours blend in the eye.</summary>
    public (double R, double G, double B) Light => (Decoded(R), Decoded(G), Decoded(B));

    /// <summary>Relative luminance, 0 for black to 1 for white (as WCAG 2 defines it).</summary>
    public double Luminance
    {
        get
        {
            (double r, double g, double b) = Light;
            return (0.2126 * r) + (0.7152 * g) + (0.0722 * b);
        }
    }

    /// <summary>The mean of colours by the light they send, each with its weight.</summary>
    public static Srgb Mean(IEnumerable<(Srgb Colour, double Weight)> colours)
    {
        double r = 0;
        double g = 0;
        double b = 0;
        double all = 0;
        foreach ((Srgb colour, double weight) in colours)
        {
            (double lr, double lg, double lb) = colour.Light;
            r += lr * weight;
            g += lg * weight;
            b += lb * weight;
            all += weight;
        }
        return all > 0 ? FromLight((r / all, g / all, b / all)) : default;
    }

    /// <summary>As #rrggbb.</summary>
    public override string ToString() => $"#{Byte(R):x2}{Byte(G):x2}{Byte(B):x2}";

    private static int Byte(double channel) => (int)Math.Round(Math.Clamp(channel, 0, 1) * 255, MidpointRounding.AwayFromZero);

    private static double Decoded(double c) => c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);

    private static double Encoded(double light)
    {
        double c = Math.Clamp(light, 0, 1);
        return c <= 0.0031308 ? 12.92 * c : (1.055 * Math.Pow(c, 1 / 2.4)) - 0.055;
    }
}
