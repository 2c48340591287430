using System.Globalization;

namespace UnrulyMeadow.Core.Colour;

/// <summary>How light a colour is.</summary>
public static class RelativeLuminance
{
    /// <summary>Relative luminance of #rrggbb, 0 for black to 1 for white (IEC 61966-2-1, as WCAG 2 defines it).</summary>
    public static double Of(string colour)
    {
        double Channel(int at)
        {
            double c = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
            return c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
        }
        return (0.2126 * Channel(1)) + (0.7152 * Channel(3)) + (0.0722 * Channel(5));
    }
}
