using System.Globalization;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Wording;

/// <summary>Figures with their units as people read them.</summary>
internal static class Quantities
{
    /// <summary>A figure in a site's units.</summary>
    /// <param name="quantity">The figure.</param>
    /// <param name="units">The units.</param>
    /// <param name="money">Sign of the money.</param>
    /// <param name="format">"one|many" with # for the number, of figures without a unit; else empty.</param>
    /// <param name="language">The language of times: days, weeks.</param>
    public static string Text(Quantity quantity, UnitsText units, string money, string format, CultureInfo language)
    {
        double v = quantity.Value;
        if (double.IsNaN(v))
            return "—";
        return quantity.Dimension switch
        {
            Dimension.Number => format.Length > 0
                ? FactWriter.Counted(Math.Round(v, quantity.Digits), Number(v, quantity.Digits), format)
                : Number(v, quantity.Digits),
            Dimension.Share => Number(v * 100, quantity.Digits) + " %",
            Dimension.OutOfTen => string.Format(
                CultureInfo.InvariantCulture,
                Texts.Find("Words", "OutOfTen", language)!,
                Number(v * 10, quantity.Digits)
            ),
            Dimension.Angle => Number(v, quantity.Digits) + "°",
            Dimension.Hours or Dimension.Days or Dimension.Weeks => FactWriter.Counted(
                Math.Round(v, quantity.Digits),
                Number(v, quantity.Digits),
                format.Length > 0 ? format : Texts.Find("Words", $"Time.{quantity.Dimension}", language)!
            ),
            Dimension.Money => money + v.ToString(v == Math.Floor(v) ? "#,0" : "#,0.00", CultureInfo.InvariantCulture),
            _ => units.Of(quantity),
        };
    }

    /// <summary>A number with at most so many decimals, thousands set apart, and a true minus.</summary>
    public static string Number(double value, int digits)
    {
        double rounded = Math.Round(value, digits, MidpointRounding.AwayFromZero);
        return (rounded == 0 ? 0 : rounded)
            .ToString(digits == 0 ? "#,0" : "#,0." + new string('#', digits), CultureInfo.InvariantCulture)
            .Replace('-', '−');
    }
}
