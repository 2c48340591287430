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
    private static readonly string[] Elements = ["TMIN", "TMAX", "PRCP"];

    public static bool Looks(string firstLine)
    {
        string line = firstLine.Replace("\"", string.Empty, StringComparison.Ordinal);
        if (line.StartsWith("STATION,DATE", StringComparison.OrdinalIgnoreCase) || line.StartsWith("ID,DATE,ELEMENT", StringComparison.OrdinalIgnoreCase))
            return true;
        string[] cells = line.Split(',');
        return cells.Length >= 4 && cells[0].Length == 11 && Compact.Parse(cells[1]).Success && cells[2].Length == 4;
    }

    public static WeatherFileContents Read(string text, WeatherTally tally)
    {
        using var csv = new CsvParser(new StringReader(text), CultureInfo.InvariantCulture);
        var lines = new Dictionary<LocalDate, int>();
        string? id = null;
        Station? station = null;
        Dictionary<string, int>? columns = null;
        while (csv.Read())
        {
            string[] cells = csv.Record ?? [];
            int line = csv.RawRow;
            if (columns is null && id is null && cells.Length > 1 && cells[1].Equals("DATE", StringComparison.OrdinalIgnoreCase))
            {
                columns = cells.Select((c, i) => (c, i)).DistinctBy(x => x.c).ToDictionary(x => x.c.ToUpperInvariant(), x => x.i, StringComparer.Ordinal);
                continue;
            }
            if (cells.Length == 0 || (cells.Length == 1 && cells[0].Length == 0))
                continue;
            id ??= cells[0];
            string? why;
            if (cells[0] != id)
                why = $"is of station {cells[0]}; the file began with {id}";
            else if (columns?.ContainsKey("ELEMENT") != false)
                why = Value(cells, tally, lines, line);
            else
                why = DayOf(cells, columns, tally, lines, line, ref station);
            if (why is not null)
                tally.Refuse(line, why);
        }
        tally.DropCrossed(d => lines.GetValueOrDefault(d));
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

    private static string? Value(string[] cells, WeatherTally tally, Dictionary<LocalDate, int> lines, int line)
    {
        if (cells.Length < 4)
            return $"has {cells.Length} of at least 4 cells";
        if (!Compact.Parse(cells[1]).TryGetValue(default, out LocalDate day))
            return $"\"{cells[1]}\" is no date written YYYYMMDD";
        if (!Elements.Contains(cells[2], StringComparer.Ordinal))
            return null;
        if (cells.Length > 5 && cells[5].Length > 0)
        {
            tally.Flagged++;
            return null;
        }
        return Put(tally, lines, line, day, cells[2], cells[3]);
    }

    private static string? DayOf(string[] cells, Dictionary<string, int> columns, WeatherTally tally, Dictionary<LocalDate, int> lines, int line, ref Station? station)
    {
        string? Cell(string name) => columns.TryGetValue(name, out int i) && i < cells.Length ? cells[i].Trim() : null;
        if (!LocalDatePattern.Iso.Parse(Cell("DATE") ?? string.Empty).TryGetValue(default, out LocalDate day))
            return $"\"{Cell("DATE")}\" is no date written YYYY-MM-DD";
        if (station is null && Number(Cell("LATITUDE")) is { } latitude && Number(Cell("LONGITUDE")) is { } longitude)
            station = new Station(cells[0], Cell("NAME") is { Length: > 0 } n ? n : cells[0], latitude, longitude, Number(Cell("ELEVATION")) ?? 0);
        foreach (string element in Elements)
        {
            string? value = Cell(element);
            if (string.IsNullOrEmpty(value))
                continue;
            string[] flags = (Cell(element + "_ATTRIBUTES") ?? string.Empty).Split(',');
            if (flags.Length > 1 && flags[1].Length > 0)
            {
                tally.Flagged++;
                continue;
            }
            if (Put(tally, lines, line, day, element, value) is { } why)
                return why;
        }
        return null;
    }

    private static string? Put(WeatherTally tally, Dictionary<LocalDate, int> lines, int line, LocalDate day, string element, string text)
    {
        if (!int.TryParse(text.Trim(), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out int tenths))
            return $"{element} \"{text}\" is no whole number of tenths";
        if (tenths == -9999)
            return null;
        if (WeatherTally.Doubt(element, tenths / 10.0) is { } doubt)
            return doubt;
        lines[day] = line;
        tally.Put(day, element, tenths / 10.0);
        return null;
    }

    private static double? Number(string? text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double v) ? v : null;
}
