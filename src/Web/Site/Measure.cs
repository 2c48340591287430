using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Palette;

namespace UnrulyMeadow.Web.Site;

/// <summary>Columns of a palette sheet that hold lengths or temperatures: in cm and °C in a sheet, in the site's units on a page.</summary>
public static class Measure
{
    private const string Length = " cm";
    private const string Temperature = " C";

    /// <summary>A column's name without its unit, and the site's unit of it; empty for what has none.</summary>
    public static (string What, string Unit) Split(string column, UnitsText units) =>
        column.EndsWith(Length, StringComparison.Ordinal) ? (column[..^Length.Length], units.LengthUnit)
        : column.EndsWith(Temperature, StringComparison.Ordinal) ? (column[..^Temperature.Length], units.TemperatureUnit)
        : (column, string.Empty);

    /// <summary>A plant's figure as a form shows it.</summary>
    public static string InSiteUnits(PaletteColumn column, Plant plant, UnitsText units) =>
        column.Get(plant) switch
        {
            double cm when column.Name.EndsWith(Length, StringComparison.Ordinal) => units.LengthNumber(cm),
            double c when column.Name.EndsWith(Temperature, StringComparison.Ordinal) => units.TemperatureNumber(c),
            var value => PaletteSheet.Text(value),
        };

    /// <summary>
    /// What was typed in a form, as a sheet holds it. What is no number stays as it was typed, and a figure that was left alone as it was.
    /// </summary>
    public static string InMetric(PaletteColumn column, Plant? old, string typed, UnitsText units)
    {
        if (old is not null && typed == InSiteUnits(column, old, units))
            return PaletteSheet.Text(column.Get(old));
        if (!units.IsUs || TypedNumber.Read(typed.Replace('−', '-')) is not { } value)
            return typed;
        return column.Name.EndsWith(Length, StringComparison.Ordinal) ? PaletteSheet.Text(Math.Round(units.ReadLength(typed), 2))
            : column.Name.EndsWith(Temperature, StringComparison.Ordinal) ? PaletteSheet.Text(Math.Round(units.ReadTemperature(value), 2))
            : typed;
    }
}
