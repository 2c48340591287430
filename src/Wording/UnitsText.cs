using System.Globalization;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Wording;

/// <summary>Figures in the site's units. The core keeps SI; here they are read and written as the crew knows them.</summary>
public sealed class UnitsText(SiteUnits units)
{
    private const double JoulesPerMegajoule = 1e6;

    /// <summary>Which they are.</summary>
    public SiteUnits System => units;

    /// <summary>True for inches, gallons and °F.</summary>
    public bool IsUs => units == SiteUnits.UsCustomary;

    /// <summary>Unit of length, "cm" or "in".</summary>
    public string LengthUnit => IsUs ? "in" : "cm";

    /// <summary>Unit of temperature.</summary>
    public string TemperatureUnit => IsUs ? "°F" : "°C";

    /// <summary>A length as a number in the site's unit, for a form.</summary>
    public string LengthNumber(double cm) => (IsUs ? Inches(cm) : cm).ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A length with its unit.</summary>
    public string Length(double cm) => IsUs ? $"{Inches(cm):0.#} in" : $"{cm:0.#} cm";

    /// <summary>A volume with its unit.</summary>
    public string Volume(double litres) => IsUs ? $"{Round(UnitsNet.Volume.FromLiters(litres).UsGallons)} gal" : $"{Round(litres)} L";

    /// <summary>Unit of volume.</summary>
    public string VolumeUnit => IsUs ? "gal" : "L";

    /// <summary>A volume as a number in the site's unit.</summary>
    public double VolumeNumber(double litres) => IsUs ? UnitsNet.Volume.FromLiters(litres).UsGallons : litres;

    /// <summary>A volume given in the site's unit, L.</summary>
    public double ReadVolume(double value) => IsUs ? UnitsNet.Volume.FromUsGallons(value).Liters : value;

    /// <summary>A temperature as a number in the site's unit, for a form.</summary>
    public string TemperatureNumber(double c) => (IsUs ? Fahrenheit(c) : c).ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A temperature given in the site's unit, °C.</summary>
    public double ReadTemperature(double value) => IsUs ? UnitsNet.Temperature.FromDegreesFahrenheit(value).DegreesCelsius : value;

    /// <summary>A temperature with its unit.</summary>
    public string Temperature(double c) => $"{(IsUs ? Fahrenheit(c) : c):0.0} {TemperatureUnit}".Replace('-', '−');

    /// <summary>A temperature that is a round figure, without needless decimals.</summary>
    public string Threshold(double c)
    {
        double value = Math.Round(IsUs ? Fahrenheit(c) : c, 1);
        return $"{(value == 0 ? 0 : value):0.#} {TemperatureUnit}".Replace('-', '−');
    }

    /// <summary>A depth as a crew measures it: whole centimetres or half inches.</summary>
    public string WorkingDepth(double cm) =>
        IsUs ? $"{Math.Round(Inches(cm) * 2, MidpointRounding.AwayFromZero) / 2:0.#} in" : $"{Math.Round(cm, MidpointRounding.AwayFromZero):0} cm";

    /// <summary>A distance over land.</summary>
    public string Distance(double km) => IsUs ? $"{UnitsNet.Length.FromKilometers(km).Miles:#,0} mi" : $"{km:#,0} km";

    /// <summary>Precipitation with its unit.</summary>
    public string Rain(double mm) =>
        double.IsNaN(mm) ? "—"
        : IsUs ? $"{Inches(mm / 10):0.0} in"
        : $"{mm:0} mm";

    /// <summary>Water used in a day, with its unit.</summary>
    public string Water(double mm) =>
        double.IsNaN(mm) ? "—"
        : IsUs ? $"{Inches(mm / 10):0.00} in"
        : $"{mm:0.0} mm";

    /// <summary>Reads a number typed in the site's unit of length, as cm; NaN when it is no number.</summary>
    public double ReadLength(string? text) =>
        TypedNumber.Read(text) is { } v
            ? IsUs
                ? UnitsNet.Length.FromInches(v).Centimeters
                : v
            : double.NaN;

    /// <summary>Unit of a small area.</summary>
    public string AreaUnit => IsUs ? "ft²" : "m²";

    /// <summary>Reads a small area typed in the site's unit, as m²; null when it is no number.</summary>
    public double? ReadArea(string? text) =>
        TypedNumber.Read(text) is not { } v ? null
        : IsUs ? UnitsNet.Area.FromSquareFeet(v).SquareMeters
        : v;

    /// <summary>Unit of distance on the site's map.</summary>
    public string MapUnit => IsUs ? "ft" : "m";

    /// <summary>A map distance as a number in the site's unit.</summary>
    public double Metres(double m) => IsUs ? Feet(m) : m;

    /// <summary>A map distance given in the site's unit, as metres.</summary>
    public double ReadMetres(double value) => IsUs ? UnitsNet.Length.FromFeet(value).Meters : value;

    /// <summary>A map distance with its unit.</summary>
    public string MapDistance(double m) => IsUs ? $"{Feet(m):#,0} ft" : $"{m:#,0} m";

    /// <summary>An area with its unit.</summary>
    public string Area(double m2) => IsUs ? $"{UnitsNet.Area.FromSquareMeters(m2).SquareFeet:0.#} ft²" : $"{m2:0.##} m²";

    /// <summary>A weight with its unit.</summary>
    public string Weight(double kg) => IsUs ? $"{Pounds(kg):#,0} lb" : $"{kg:#,0} kg";

    /// <summary>Unit of weight.</summary>
    public string WeightUnit => IsUs ? "lb" : "kg";

    /// <summary>A weight as a number in the site's unit.</summary>
    public double WeightNumber(double kg) => IsUs ? Pounds(kg) : kg;

    /// <summary>A weight given in the site's unit, kg.</summary>
    public double ReadWeight(double value) => IsUs ? UnitsNet.Mass.FromPounds(value).Kilograms : value;

    /// <summary>How speed is counted.</summary>
    public string SpeedUnit => IsUs ? "mph" : "km/h";

    /// <summary>A speed as it is typed.</summary>
    /// <param name="kmH">Speed, km/h.</param>
    public double SpeedNumber(double kmH) => IsUs ? UnitsNet.Speed.FromKilometersPerHour(kmH).MilesPerHour : kmH;

    /// <summary>A speed that was typed, km/h.</summary>
    public double ReadSpeed(double value) => IsUs ? UnitsNet.Speed.FromMilesPerHour(value).KilometersPerHour : value;

    /// <summary>Unit of a load.</summary>
    public string LoadUnit => IsUs ? "lb/ft²" : "kg/m²";

    /// <summary>A load as a number in the site's unit.</summary>
    public double LoadNumber(double kgM2) => IsUs ? kgM2 * PoundsPerSquareFoot : kgM2;

    /// <summary>A load given in the site's unit, kg/m².</summary>
    public double ReadLoad(double value) => IsUs ? value / PoundsPerSquareFoot : value;

    /// <summary>A small weight: grams, or ounces.</summary>
    public string Small(double kg) =>
        IsUs ? $"{UnitsNet.Mass.FromKilograms(kg).Ounces:0.#} oz"
        : kg >= 10 ? $"{kg:0} kg"
        : $"{kg * 1000:0} g";

    /// <summary>A figure of any dimension that has a unit, in the site's; its decimals are those that say something there.</summary>
    public string Of(Quantity quantity)
    {
        (double value, int digits) = (quantity.Value, quantity.Digits);
        return quantity.Dimension switch
        {
            Dimension.Length => IsUs ? With(Inches(value), Math.Max(1, digits), "in") : With(value, digits, "cm"),
            Dimension.Depth => WorkingDepth(value),
            Dimension.Distance => IsUs ? With(Feet(value), Math.Max(0, digits - 1), "ft") : With(value, digits, "m"),
            Dimension.Area => IsUs
                ? With(UnitsNet.Area.FromSquareMeters(value).SquareFeet, Math.Max(0, digits - 1), "ft²")
                : With(value, digits, "m²"),
            Dimension.Volume => IsUs ? With(UnitsNet.Volume.FromLiters(value).UsGallons, Math.Max(1, digits), "gal") : With(value, digits, "L"),
            Dimension.Mass => IsUs ? With(Pounds(value), digits, "lb") : With(value, digits, "kg"),
            Dimension.SmallMass => Small(value),
            Dimension.Density => IsUs ? With(value * PoundsPerGallon, Math.Max(1, digits), "lb/gal")
            : value < 0.05 ? With(value * 1000, digits + 1, "g/L")
            : With(value, digits, "kg/L"),
            Dimension.Temperature => With(IsUs ? Fahrenheit(value) : value, digits, TemperatureUnit),
            Dimension.TemperatureDifference => With(
                IsUs ? UnitsNet.TemperatureDelta.FromDegreesCelsius(value).DegreesFahrenheit : value,
                digits,
                TemperatureUnit
            ),
            Dimension.HeatSum => With(
                IsUs ? UnitsNet.TemperatureDelta.FromDegreesCelsius(value).DegreesFahrenheit : value,
                digits,
                TemperatureUnit + "·d"
            ),
            Dimension.Rain => IsUs ? With(Inches(value / 10), digits + 1, "in") : With(value, digits, "mm"),
            Dimension.Speed => IsUs ? With(UnitsNet.Speed.FromMetersPerSecond(value).MilesPerHour, digits, "mph") : With(value, digits, "m/s"),
            Dimension.Load => With(IsUs ? value * PoundsPerSquareFoot : value, digits, LoadUnit),
            Dimension.Radiation => IsUs
                ? With(value * JoulesPerMegajoule / UnitsNet.Irradiation.FromBtusPerSquareFoot(1).JoulesPerSquareMeter, digits, "Btu/ft²")
                : With(value, digits, "MJ/m²"),
            Dimension.ThermalResistance => IsUs ? With(value * SquareFeetHourFahrenheitPerBtu, digits, "ft²·°F·h/Btu") : With(value, digits, "m²K/W"),
            _ => throw new ArgumentException($"{quantity.Dimension} has no unit", nameof(quantity)),
        };
    }

    // 1 m²K/W in the unit in which insulation is sold in the United States (exact to five figures).
    private const double SquareFeetHourFahrenheitPerBtu = 5.67826;

    private static double PoundsPerGallon => UnitsNet.Mass.FromKilograms(1).Pounds / UnitsNet.Volume.FromLiters(1).UsGallons;

    private static double PoundsPerSquareFoot => UnitsNet.Mass.FromKilograms(1).Pounds / UnitsNet.Area.FromSquareMeters(1).SquareFeet;

    private static string With(double value, int digits, string unit) => $"{Quantities.Number(value, digits)} {unit}";

    private static double Inches(double cm) => UnitsNet.Length.FromCentimeters(cm).Inches;

    private static double Feet(double m) => UnitsNet.Length.FromMeters(m).Feet;

    private static double Pounds(double kg) => UnitsNet.Mass.FromKilograms(kg).Pounds;

    private static double Fahrenheit(double c) => UnitsNet.Temperature.FromDegreesCelsius(c).DegreesFahrenheit;

    private static string Round(double v) =>
        v >= 100 ? v.ToString("0", CultureInfo.InvariantCulture) : v.ToString("0.#", CultureInfo.InvariantCulture);
}
