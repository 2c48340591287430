namespace UnrulyMeadow.Core.Facts;

/// <summary>What a figure measures, and so the unit in which Core holds it.</summary>
public enum Dimension
{
    /// <summary>A number without a unit.</summary>
    Number,

    /// <summary>A share of a whole, 0 to 1.</summary>
    Share,

    /// <summary>Odds, 0 to 1, told as so many of ten.</summary>
    OutOfTen,

    /// <summary>A length of plants and planters, cm.</summary>
    Length,

    /// <summary>A depth or gap as a crew measures it, cm: told in whole centimetres or half inches.</summary>
    Depth,

    /// <summary>A distance on the ground, m.</summary>
    Distance,

    /// <summary>An area, m².</summary>
    Area,

    /// <summary>A volume, L.</summary>
    Volume,

    /// <summary>A mass, kg.</summary>
    Mass,

    /// <summary>A mass of feed or of a small thing, kg: told in grams or ounces.</summary>
    SmallMass,

    /// <summary>Mass in a volume, kg/L.</summary>
    Density,

    /// <summary>A temperature, °C.</summary>
    Temperature,

    /// <summary>A difference between temperatures, °C.</summary>
    TemperatureDifference,

    /// <summary>A sum of heat, °C·d.</summary>
    HeatSum,

    /// <summary>A height of rain or of water used, mm.</summary>
    Rain,

    /// <summary>A speed of wind, m/s.</summary>
    Speed,

    /// <summary>A load on a floor, kg/m².</summary>
    Load,

    /// <summary>Energy of the sun on an area, MJ/m².</summary>
    Radiation,

    /// <summary>Resistance of a wall to heat, m²K/W.</summary>
    ThermalResistance,

    /// <summary>An angle, degrees.</summary>
    Angle,

    /// <summary>A time, hours.</summary>
    Hours,

    /// <summary>A time, days.</summary>
    Days,

    /// <summary>A time, weeks.</summary>
    Weeks,

    /// <summary>Money of the site.</summary>
    Money,
}

/// <summary>A figure with what it measures. It is formatted in the site's units where it is read, and nowhere else.</summary>
/// <param name="Value">The figure, in the unit of its dimension.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Digits">Most decimals that say anything, in the unit of its dimension.</param>
public readonly record struct Quantity(double Value, Dimension Dimension, int Digits = 0)
{
    /// <summary>A number without a unit.</summary>
    public static Quantity Number(double value, int digits = 0) => new(value, Dimension.Number, digits);

    /// <summary>A share of a whole, 0 to 1.</summary>
    public static Quantity Share(double share, int digits = 0) => new(share, Dimension.Share, digits);

    /// <summary>Odds, 0 to 1, told as so many of ten.</summary>
    public static Quantity OutOfTen(double odds, int digits = 1) => new(odds, Dimension.OutOfTen, digits);

    /// <summary>A length, cm.</summary>
    public static Quantity Cm(double cm, int digits = 0) => new(cm, Dimension.Length, digits);

    /// <summary>A depth or gap as a crew measures it, cm.</summary>
    public static Quantity Depth(double cm) => new(cm, Dimension.Depth);

    /// <summary>A distance, m.</summary>
    public static Quantity Metres(double m, int digits = 0) => new(m, Dimension.Distance, digits);

    /// <summary>An area, m².</summary>
    public static Quantity SquareMetres(double m2, int digits = 1) => new(m2, Dimension.Area, digits);

    /// <summary>A volume, L.</summary>
    public static Quantity Litres(double litres, int digits = 0) => new(litres, Dimension.Volume, digits);

    /// <summary>A mass, kg.</summary>
    public static Quantity Kilograms(double kg, int digits = 0) => new(kg, Dimension.Mass, digits);

    /// <summary>A temperature, °C.</summary>
    public static Quantity Celsius(double c, int digits = 0) => new(c, Dimension.Temperature, digits);

    /// <summary>A difference between temperatures, °C.</summary>
    public static Quantity CelsiusApart(double c, int digits = 0) => new(c, Dimension.TemperatureDifference, digits);

    /// <summary>A sum of heat, °C·d.</summary>
    public static Quantity DegreeDays(double cd, int digits = 0) => new(cd, Dimension.HeatSum, digits);

    /// <summary>An angle, degrees.</summary>
    public static Quantity Degrees(double degrees, int digits = 0) => new(degrees, Dimension.Angle, digits);

    /// <summary>A time, days.</summary>
    public static Quantity Days(double days, int digits = 0) => new(days, Dimension.Days, digits);

    /// <summary>A time, weeks.</summary>
    public static Quantity Weeks(double weeks, int digits = 0) => new(weeks, Dimension.Weeks, digits);

    /// <summary>A time, hours.</summary>
    public static Quantity Hours(double hours, int digits = 0) => new(hours, Dimension.Hours, digits);

    /// <summary>Money of the site.</summary>
    public static Quantity Money(decimal amount) => new((double)amount, Dimension.Money, 2);
}
