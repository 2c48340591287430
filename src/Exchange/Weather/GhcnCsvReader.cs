using System.Globalization;
using CsvHelper;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>
/// GHCN-Daily's two comma-separated forms: one value a line (ID, YYYYMMDD, element, value, three flags, time), with or
/// without a heading, and one day a line under STATION, DATE, … with an attributes column beside each element.
/// </summary>
internal static class GhcnCsvReader
{
    private static readonly LocalDatePattern Compact = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");

    public static bool Looks(string firstLine)
    {
        string line = firstLine.Replace("\"", string.Empty, StringComparison.Ordinal);
        if (
            line.StartsWith("STATION,DATE", StringComparison.OrdinalIgnoreCase)
            || line.StartsWith("ID,DATE,ELEMENT", StringComparison.OrdinalIgnoreCase)
        )
            return true;
        string[] cells = line.Split(',');
        return cells.Length >= 4 && cells[0].Length == 11 && Compact.Parse(cells[1]).Success && cells[2].Length == 4;
    }

    public static WeatherFileContents Read(string text, WeatherTally tally)
    {
        using var csv = new CsvParser(new StringReader(text), PlainCsvReader.Cells(","));
        string? id = null;
        Station? station = null;
        Dictionary<string, int>? columns = null;
        while (PlainCsvReader.Next(csv, tally))
        {
            string[] cells = csv.Record ?? [];
            int line = csv.RawRow;
            if (columns is null && id is null && cells.Length > 1 && cells[1].Equals("DATE", StringComparison.OrdinalIgnoreCase))
            {
                columns = cells
                    .Select((c, i) => (c, i))
                    .DistinctBy(x => x.c.ToUpperInvariant())
                    .ToDictionary(x => x.c.ToUpperInvariant(), x => x.i, StringComparer.Ordinal);
                continue;
            }
            if (cells.Length == 0 || (cells.Length == 1 && cells[0].Length == 0))
                continue;
            id ??= cells[0];
            string? why;
            if (cells[0] != id)
                why = $"is of station {cells[0]}; the file began with {id}";
            else if (columns?.ContainsKey("ELEMENT") != false)
                why = Value(cells, tally, line);
            else
                why = DayOf(cells, columns, tally, line, ref station);
            if (why is not null)
                tally.Refuse(line, why);
        }
        tally.DropCrossed();
        return new WeatherFileContents
        {
            Format = WeatherFormat.GhcnCsv,
            StationId = id,
            Station = station,
            Days = tally.Days,
            Refused = tally.Refused,
            RefusedCount = tally.RefusedCount,
            FlaggedValues = tally.Flagged,
        };
    }

    private static string? Value(string[] cells, WeatherTally tally, int line)
    {
        if (cells.Length < 4)
            return $"has {cells.Length} of at least 4 cells";
        if (!Compact.Parse(cells[1]).TryGetValue(default, out LocalDate day))
            return $"\"{cells[1]}\" is no date written YYYYMMDD";
        int element = WeatherElement.IndexOf(cells[2]);
        if (element < 0)
            return null;
        if (cells.Length > 5 && cells[5].Length > 0)
        {
            tally.Flagged++;
            return null;
        }
        return Put(tally, line, day, element, cells[3]);
    }

    private static string? DayOf(string[] cells, Dictionary<string, int> columns, WeatherTally tally, int line, ref Station? station)
    {
        string? Cell(string name) => columns.TryGetValue(name, out int i) && i < cells.Length ? cells[i].Trim() : null;
        if (!LocalDatePattern.Iso.Parse(Cell("DATE") ?? string.Empty).TryGetValue(default, out LocalDate day))
            return $"\"{Cell("DATE")}\" is no date written YYYY-MM-DD";
        if (station is null && Number(Cell("LATITUDE")) is { } latitude && Number(Cell("LONGITUDE")) is { } longitude)
            station = new Station(cells[0], Cell("NAME") is { Length: > 0 } n ? n : cells[0], latitude, longitude, Number(Cell("ELEVATION")) ?? 0);
        for (int element = 0; element < WeatherElement.All.Length; element++)
        {
            string code = WeatherElement.All[element].Code;
            string? value = Cell(code);
            if (string.IsNullOrEmpty(value))
                continue;
            string[] flags = (Cell(code + "_ATTRIBUTES") ?? string.Empty).Split(',');
            if (flags.Length > 1 && flags[1].Length > 0)
            {
                tally.Flagged++;
                continue;
            }
            if (Put(tally, line, day, element, value) is { } why)
                return why;
        }
        return null;
    }

    private static string? Put(WeatherTally tally, int line, LocalDate day, int element, string text)
    {
        if (!int.TryParse(text.Trim(), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out int value))
            return $"{WeatherElement.All[element].Code} \"{text}\" is no whole number, as GHCN-Daily writes tenths";
        return value == -9999 ? null : tally.Put(day, element, value / WeatherElement.All[element].PerUnit, line);
    }

    private static double? Number(string? text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double v) ? v : null;
}
