using System.Globalization;
using System.Text.RegularExpressions;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Web.Site;

/// <summary>Figures in the site's units. The core keeps SI; here they are read and written as the crew knows them.</summary>
public sealed partial class UnitsText(SiteUnits units)
{
    private const double CmPerInch = 2.54;
    private const double LitresPerGallon = 3.785411784;

    /// <summary>True for inches, gallons and °F.</summary>
    public bool IsUs => units == SiteUnits.UsCustomary;

    /// <summary>Unit of length, "cm" or "in".</summary>
    public string LengthUnit => IsUs ? "in" : "cm";

    /// <summary>Unit of temperature.</summary>
    public string TemperatureUnit => IsUs ? "°F" : "°C";

    /// <summary>A length as a number in the site's unit, for a form.</summary>
    public string LengthNumber(double cm) => (IsUs ? cm / CmPerInch : cm).ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A length with its unit.</summary>
    public string Length(double cm) => IsUs ? $"{cm / CmPerInch:0.#} in" : $"{cm:0.#} cm";

    /// <summary>A volume with its unit.</summary>
    public string Volume(double litres) => IsUs
        ? $"{Round(litres / LitresPerGallon)} gal"
        : $"{Round(litres)} L";

    /// <summary>A temperature with its unit.</summary>
    public string Temperature(double c) => IsUs ? $"{(c * 9 / 5) + 32:0.0} °F" : $"{c:0.0} °C".Replace('-', '−');

    /// <summary>A temperature that is a round figure, without needless decimals.</summary>
    public string Threshold(double c)
    {
        double value = Math.Round(IsUs ? (c * 9 / 5) + 32 : c, 1);
        return $"{(value == 0 ? 0 : value):0.#} {TemperatureUnit}".Replace('-', '−');
    }

    /// <summary>A depth as a crew measures it: whole centimetres or half inches.</summary>
    public string WorkingDepth(double cm) => IsUs
        ? $"{Math.Round(cm / CmPerInch * 2, MidpointRounding.AwayFromZero) / 2:0.#} in"
        : $"{Math.Round(cm, MidpointRounding.AwayFromZero):0} cm";

    /// <summary>A distance over land.</summary>
    public string Distance(double km) => IsUs ? $"{km / 1.609344:#,0} mi" : $"{km:#,0} km";

    /// <summary>Precipitation with its unit.</summary>
    public string Rain(double mm) => double.IsNaN(mm) ? "—" : IsUs ? $"{mm / 25.4:0.0} in" : $"{mm:0} mm";

    /// <summary>Water used in a day, with its unit.</summary>
    public string Water(double mm) => double.IsNaN(mm) ? "—" : IsUs ? $"{mm / 25.4:0.00} in" : $"{mm:0.0} mm";

    /// <summary>Reads a number typed in the site's unit of length, as cm; NaN when it is no number.</summary>
    public double ReadLength(string? text) => TypedNumber.Read(text) is { } v ? v * (IsUs ? CmPerInch : 1) : double.NaN;

    /// <summary>Unit of distance on the site's map.</summary>
    public string MapUnit => IsUs ? "ft" : "m";

    /// <summary>A map distance as a number in the site's unit.</summary>
    public double Metres(double m) => IsUs ? m / 0.3048 : m;

    /// <summary>A map distance given in the site's unit, as metres.</summary>
    public double ReadMetres(double value) => IsUs ? value * 0.3048 : value;

    /// <summary>A map distance with its unit.</summary>
    public string MapDistance(double m) => IsUs ? $"{m / 0.3048:#,0} ft" : $"{m:#,0} m";

    /// <summary>An area with its unit.</summary>
    public string Area(double m2) => IsUs ? $"{m2 / 0.09290304:0.#} ft²" : $"{m2:0.##} m²";

    /// <summary>A weight with its unit.</summary>
    public string Weight(double kg) => IsUs ? $"{kg / 0.45359237:#,0} lb" : $"{kg:#,0} kg";

    /// <summary>Unit of weight.</summary>
    public string WeightUnit => IsUs ? "lb" : "kg";

    /// <summary>A weight as a number in the site's unit.</summary>
    public double WeightNumber(double kg) => IsUs ? kg / 0.45359237 : kg;

    /// <summary>A weight given in the site's unit, kg.</summary>
    public double ReadWeight(double value) => IsUs ? value * 0.45359237 : value;

    /// <summary>Unit of a load.</summary>
    public string LoadUnit => IsUs ? "lb/ft²" : "kg/m²";

    /// <summary>A load as a number in the site's unit.</summary>
    public double LoadNumber(double kgM2) => IsUs ? kgM2 * 0.204816 : kgM2;

    /// <summary>A load given in the site's unit, kg/m².</summary>
    public double ReadLoad(double value) => IsUs ? value / 0.204816 : value;

    /// <summary>A fault's sentence with its range in the site's units.</summary>
    public string Message(string message)
    {
        message = message.Replace("(it is NaN)", "(it must be a number)", StringComparison.Ordinal);
        return IsUs ? CmRange().Replace(message, m => $"from {Inch(m.Groups["low"])} to {Inch(m.Groups["high"])} in") : message;
        static string Inch(Group g) => (double.Parse(g.Value, CultureInfo.InvariantCulture) / CmPerInch).ToString("0.#", CultureInfo.InvariantCulture);
    }

    /// <summary>A small weight: grams, or ounces.</summary>
    public string Small(double kg) => IsUs ? $"{kg * 35.274:0.#} oz" : kg >= 10 ? $"{kg:0} kg" : $"{kg * 1000:0} g";

    /// <summary>A sentence of Core with its lengths in the site's units. Temperatures stay in °C: a sentence does not tell a difference from a height.</summary>
    public string Prose(string sentence) => IsUs
        ? Cm().Replace(sentence, m => $"{double.Parse(m.Groups["cm"].Value, CultureInfo.InvariantCulture) / CmPerInch:0.#} in")
        : sentence;

    private static string Round(double v) => v >= 100 ? v.ToString("0", CultureInfo.InvariantCulture) : v.ToString("0.#", CultureInfo.InvariantCulture);

    [GeneratedRegex(@"(?<cm>\d+(\.\d+)?) cm\b", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 200)]
    private static partial Regex Cm();

    [GeneratedRegex(@"from (?<low>[\d.]+) to (?<high>[\d.]+) cm", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 200)]
    private static partial Regex CmRange();
}
