using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

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
    private static readonly string[] PlaceNames = ["location", "station", "place", "site"];
    private static readonly LocalDatePattern[] DatePatterns =
    [
        LocalDatePattern.Iso,
        LocalDatePattern.CreateWithInvariantCulture("uuuu/MM/dd"),
        LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd"),
    ];

    public static WeatherFileContents Read(string text, WeatherUnits units, string? location, WeatherTally tally)
    {
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = true,
            DetectDelimiterValues = [",", ";", "\t"],
            BadDataFound = null,
            MaxFieldSize = 10_000,
        };
        using var csv = new CsvParser(new StringReader(text), configuration);
        Columns? columns = null;
        bool unitsRowPossible = false;
        var places = new List<string>();
        string? place = location;
        var lines = new Dictionary<LocalDate, int>();
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
            if (Row(cells, columns, tally, lines, csv.RawRow) is { } why)
                tally.Refuse(csv.RawRow, why);
        }
        if (columns is null)
            throw new InvalidInputException("file", "has no heading row; the first row must name the columns date, tmin and tmax");
        if (location is not null && tally.Days.Count == 0 && places.Count > 0)
            throw new InvalidInputException("location", $"the file holds no \"{location}\", but {string.Join(", ", places)}");
        tally.DropCrossed(d => lines.GetValueOrDefault(d));
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

    private static bool Next(CsvParser csv, WeatherTally tally)
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

    private static string? Row(string[] cells, Columns columns, WeatherTally tally, Dictionary<LocalDate, int> lines, int line)
    {
        string? Cell(int i) => i >= 0 && i < cells.Length ? cells[i].Trim() : null;
        string dateText = Cell(columns.Date) ?? string.Empty;
        LocalDate day = default;
        string datePart = dateText.Length > 10 ? dateText[..10] : dateText;
        if (!Array.Exists(DatePatterns, p => p.Parse(datePart).TryGetValue(default, out day)) || day.Year is < 1750 or > 2150)
            return $"\"{Short(dateText)}\" is no date written YYYY-MM-DD";
        if (tally.Has(day))
            return $"{day.ToString("uuuu-MM-dd", null)} was given before; the first line is kept";
        var reading = new WeatherDay(day, null, null, null);
        foreach ((string element, int column, bool us) in columns.Readings)
        {
            string? text = Cell(column);
            if (string.IsNullOrEmpty(text) || text is "-9999" or "NA" or "NaN" or "M")
                continue;
            if (!double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double value) || !double.IsFinite(value))
                return $"{element} \"{Short(text)}\" is no number";
            double si = (element, us) switch
            {
                ("PRCP", true) => value * 25.4,
                (_, true) => (value - 32) * 5 / 9,
                _ => value,
            };
            if (WeatherTally.Doubt(element, si) is { } doubt)
                return doubt;
            reading = element switch
            {
                "TMIN" => reading with { MinC = si },
                "TMAX" => reading with { MaxC = si },
                _ => reading with { PrecipitationMm = si },
            };
        }
        lines[day] = line;
        tally.Put(reading);
        return null;
    }

    private static string Short(string text) => text.Length <= 30 ? text : text[..30] + "…";

    private sealed class Columns
    {
        private bool _minUs;
        private bool _maxUs;
        private bool _rainUs;

        public int Date { get; private init; }

        public int Place { get; private init; }

        public IEnumerable<(string Element, int Column, bool Us)> Readings =>
            [("TMIN", Min, _minUs), ("TMAX", Max, _maxUs), .. Rain < 0 ? [] : new[] { ("PRCP", Rain, _rainUs) }];

        private int Min { get; init; }

        private int Max { get; init; }

        private int Rain { get; init; }

        public static Columns From(string[] heading, WeatherUnits units)
        {
            var faults = new FaultList();
            bool us = units == WeatherUnits.UsCustomary;
            (int date, _) = Find(heading, DateNames);
            (int min, string minUnit) = Find(heading, MinNames);
            (int max, string maxUnit) = Find(heading, MaxNames);
            (int rain, string rainUnit) = Find(heading, RainNames);
            (int place, _) = Find(heading, PlaceNames);
            if (date < 0)
                faults.Add("file", $"line 1 names no date column; name one of {string.Join(", ", DateNames)}");
            if (min < 0)
                faults.Add("file", $"line 1 names no column of lowest temperatures; name one of {string.Join(", ", MinNames)}");
            if (max < 0)
                faults.Add("file", $"line 1 names no column of highest temperatures; name one of {string.Join(", ", MaxNames)}");
            faults.ThrowIfAny();
            return new Columns
            {
                Date = date,
                Min = min,
                Max = max,
                Rain = rain,
                Place = place,
                _minUs = IsUs(minUnit) ?? us,
                _maxUs = IsUs(maxUnit) ?? us,
                _rainUs = IsUs(rainUnit) ?? us,
            };
        }

        /// <summary>Takes a row of units, when the row is one: no date, and a unit under each reading.</summary>
        public bool TakeUnits(string[] cells)
        {
            if (Math.Max(Min, Max) >= cells.Length || IsUs(Unit(cells[Min])) is not { } min || IsUs(Unit(cells[Max])) is not { } max)
                return false;
            _minUs = min;
            _maxUs = max;
            if (Rain >= 0 && Rain < cells.Length && IsUs(Unit(cells[Rain])) is { } rain)
                _rainUs = rain;
            return true;
        }

        private static string Unit(string cell) =>
            cell.Trim().ToLowerInvariant().Trim('(', ')', '[', ']').Replace("°", string.Empty, StringComparison.Ordinal);

        private static bool? IsUs(string unit) => unit switch
        {
            "c" or "degc" or "celsius" or "mm" => false,
            "f" or "degf" or "fahrenheit" or "in" or "inch" or "inches" => true,
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
