using System.Globalization;
using System.Text.RegularExpressions;

namespace UnrulyMeadow.Wording;

/// <summary>
/// Numbers as people type them, read alike on every page: 12.5 and 12,5 are one number, 1,000 and 1,250.50 and 1 000 are thousands,
/// and − is a minus.
/// </summary>
public static partial class TypedNumber
{
    /// <summary>The number; null when it is none, or is not finite.</summary>
    public static double? Read(string? text)
    {
        string plain = (text ?? string.Empty).Trim().Replace('−', '-');
        plain = Thousands().IsMatch(plain) ? Separators().Replace(plain, string.Empty) : plain.Replace(',', '.');
        return double.TryParse(plain, NumberStyles.Float, CultureInfo.InvariantCulture, out double v) && double.IsFinite(v) ? v : null;
    }

    /// <summary>A sum of money to the cent; null when it is none, or is beyond what a decimal holds.</summary>
    public static decimal? Money(string? text) => Read(text) is { } v && Math.Abs(v) < 1e15 ? Math.Round((decimal)v, 2) : null;

    // Groups of three behind the first, with one kind of separator, and a point before what follows; a lone 0,125 is no thousand.
    [GeneratedRegex(
        @"^-?[1-9][0-9]{0,2}(?<s>[,' \u00a0\u202f])[0-9]{3}(\k<s>[0-9]{3})*(\.[0-9]+)?$",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture,
        1000
    )]
    private static partial Regex Thousands();

    [GeneratedRegex(@"[,' \u00a0\u202f]", RegexOptions.CultureInvariant, 1000)]
    private static partial Regex Separators();
}
