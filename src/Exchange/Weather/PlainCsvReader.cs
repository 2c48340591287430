using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>
/// Comma- or semicolon-separated days under a heading. Columns are found by name; units come from the heading
/// ("tmin_f"), from a second row of units ("°F"), or from the choice given with the file.
/// </summary>
internal static class PlainCsvReader
{
    private static readonly string[] DateNames = ["date", "day"];
    private static readonly string[] MinNames = ["tmin", "temp_min", "min", "low", "lowest", "min_temp", "minimum"];
    private static readonly string[] MaxNames = ["tmax", "temp_max", "max", "high", "highest", "max_temp", "maximum"];
    private static readonly string[] RainNames = ["prcp", "precipitation", "precip", "rain", "rainfall"];
    private static readonly string[] SnowNames = ["snow_depth", "snwd", "snow"];
    private static readonly string[] WindNames = ["wind", "awnd", "wind_speed"];
    private static readonly string[] HumidityNames = ["humidity", "rhav", "rh", "relative_humidity"];
    private static readonly string[] SunNames = ["radiation", "sun", "solar", "rs"];
    private static readonly string[] PlaceNames = ["location", "station", "place", "site"];
    private static readonly LocalDatePattern[] DatePatterns =
    [
        LocalDatePattern.Iso,
        LocalDatePattern.CreateWithInvariantCulture("uuuu/MM/dd"),
        LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd"),
    ];

    public static WeatherFileContents Read(string text, WeatherUnits units, string? location, WeatherTally tally)
    {
        using var csv = new CsvParser(new StringReader(text), Cells(null));
        Columns? columns = null;
        bool unitsRowPossible = false;
        var places = new List<string>();
        string? place = location;
        while (Next(csv, tally))
        {
            string[] cells = csv.Record ?? [];
            if (cells.All(string.IsNullOrWhiteSpace))
                continue;
            if (columns is null)
            {
                columns = Columns.From(cells, units);
                unitsRowPossible = true;
                continue;
            }
            if (unitsRowPossible && columns.TakeUnits(cells))
            {
                unitsRowPossible = false;
                continue;
            }
            unitsRowPossible = false;
            if (columns.Place >= 0 && columns.Place < cells.Length)
            {
                string here = cells[columns.Place].Trim();
                if (!places.Contains(here, StringComparer.Ordinal) && places.Count < 100)
                    places.Add(here);
                place ??= here;
                if (!here.Equals(place, StringComparison.OrdinalIgnoreCase))
                    continue;
            }
            if (Row(cells, columns, tally, csv.RawRow) is { } why)
                tally.Refuse(csv.RawRow, why);
        }
        if (columns is null)
            throw new InvalidInputException("file", "has no heading row; the first row must name the columns date, tmin and tmax");
        if (location is not null && tally.Days.Count == 0 && places.Count > 0)
            throw new InvalidInputException("location", $"the file holds no \"{location}\", but {string.Join(", ", places)}");
        tally.DropCrossed();
        return new WeatherFileContents
        {
            Format = WeatherFormat.PlainCsv,
            StationId = place,
            Days = tally.Days,
            Refused = tally.Refused,
            RefusedCount = tally.RefusedCount,
            Locations = [.. places.OrderBy(p => !p.Equals(place, StringComparison.OrdinalIgnoreCase))],
        };
    }

    /// <summary>How cells are read: stray quotes are let pass, for their values are doubted later.</summary>
    internal static CsvConfiguration Cells(string? delimiter) =>
        new(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = delimiter is null,
            DetectDelimiterValues = [",", ";", "\t"],
            Delimiter = delimiter ?? ",",
            BadDataFound = null,
            MaxFieldSize = 10_000,
        };

    internal static bool Next(CsvParser csv, WeatherTally tally)
    {
        try
        {
            return csv.Read();
        }
        catch (CsvHelperException)
        {
            tally.Refuse(csv.RawRow, "could not be read as comma-separated cells; the lines after it were not read");
            return false;
        }
    }

    private static string? Row(string[] cells, Columns columns, WeatherTally tally, int line)
    {
        string? Cell(int i) => i >= 0 && i < cells.Length ? cells[i].Trim() : null;
        string dateText = Cell(columns.Date) ?? string.Empty;
        string datePart = dateText;
        if (dateText.Length > 10 && dateText[10] is 'T' or ' ')
        {
            // A zone does not move a day that begins at midnight; any other time of day leaves open which day is meant.
            datePart = dateText[..10];
            if (!dateText.AsSpan(11).StartsWith("00:00", StringComparison.Ordinal))
                return $"\"{Short(dateText)}\" has a time of day; give one line a day with its local date alone, written YYYY-MM-DD";
        }
        LocalDate day = default;
        if (!Array.Exists(DatePatterns, p => p.Parse(datePart).TryGetValue(default, out day)) || day.Year is < 1750 or > 2150)
            return $"\"{Short(dateText)}\" is no date written YYYY-MM-DD";
        if (tally.LineOf(day) is { } before)
            return $"{day.ToString("uuuu-MM-dd", null)} was given before in line {before}; keep one of the two";
        var readings = new List<(int Element, double Value)>(columns.Readings.Count);
        foreach ((int element, int column, bool us) in columns.Readings)
        {
            string? text = Cell(column);
            if (string.IsNullOrEmpty(text) || text is "-9999" or "NA" or "NaN" or "M")
                continue;
            if (!double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double value) || !double.IsFinite(value))
                return $"{WeatherElement.All[element].Code} \"{Short(text)}\" is no number";
            double si = us ? Si(element, value) : value;
            if (WeatherElement.All[element].Doubt(si) is { } doubt)
                return doubt;
            readings.Add((element, si));
        }
        foreach ((int element, double value) in readings)
            tally.Put(day, element, value, line);
        return null;
    }

    private static double Si(int element, double value) =>
        WeatherElement.All[element].Code switch
        {
            "TMIN" or "TMAX" => (value - 32) * 5 / 9,
            "PRCP" or "SNWD" => value * 25.4,
            "AWND" => value * 0.44704,
            _ => value,
        };

    private static string Short(string text) => text.Length <= 30 ? text : text[..30] + "…";

    private sealed class Columns
    {
        private bool _us;

        public int Date { get; private init; }

        public int Place { get; private init; }

        /// <summary>Element, column and whether it is in US units.</summary>
        public List<(int Element, int Column, bool Us)> Readings { get; private set; } = [];

        public static Columns From(string[] heading, WeatherUnits units)
        {
            var faults = new FaultList();
            var readings = new List<(int, int, bool)>();
            bool us = units == WeatherUnits.UsCustomary;
            string[][] names = [MinNames, MaxNames, RainNames, SnowNames, WindNames, HumidityNames, SunNames];
            (int date, _) = Find(heading, DateNames);
            (int place, _) = Find(heading, PlaceNames);
            if (date < 0)
                faults.Add("file", $"line 1 names no date column; name one of {string.Join(", ", DateNames)}");
            for (int element = 0; element < names.Length; element++)
            {
                (int column, string unit) = Find(heading, names[element]);
                if (column >= 0)
                    readings.Add((element, column, IsUs(unit) ?? us));
                else if (element < 2)
                    faults.Add(
                        "file",
                        $"line 1 names no column of {(element == 0 ? "lowest" : "highest")} temperatures; name one of {string.Join(", ", names[element])}"
                    );
            }
            faults.ThrowIfAny();
            return new Columns
            {
                Date = date,
                Place = place,
                Readings = readings,
                _us = us,
            };
        }

        /// <summary>Takes a row of units, when the row is one: no date, and a unit under each temperature.</summary>
        public bool TakeUnits(string[] cells)
        {
            bool? UnitAt(int column) => column < cells.Length ? IsUs(Unit(cells[column])) : null;
            if (Readings.Take(2).Any(r => UnitAt(r.Column) is null))
                return false;
            Readings = [.. Readings.Select(r => (r.Element, r.Column, UnitAt(r.Column) ?? _us))];
            return true;
        }

        private static string Unit(string cell) =>
            cell.Trim().ToLowerInvariant().Trim('(', ')', '[', ']').Replace("°", string.Empty, StringComparison.Ordinal);

        private static bool? IsUs(string unit) =>
            unit switch
            {
                "c" or "degc" or "celsius" or "mm" or "m/s" or "ms" => false,
                "f" or "degf" or "fahrenheit" or "in" or "inch" or "inches" or "mph" => true,
                _ => null,
            };

        // A name, or a name with its unit behind it: tmin_f, "tmin (°F)".
        private static (int Column, string Unit) Find(string[] heading, string[] names)
        {
            for (int i = 0; i < heading.Length; i++)
            {
                string cell = heading[i].Trim().ToLowerInvariant();
                foreach (string name in names)
                {
                    if (cell == name)
                        return (i, string.Empty);
                    if (cell.StartsWith(name, StringComparison.Ordinal) && IsUs(Unit(cell[name.Length..].TrimStart('_', ' '))) is not null)
                        return (i, Unit(cell[name.Length..].TrimStart('_', ' ')));
                }
            }
            return (-1, string.Empty);
        }
    }
}
