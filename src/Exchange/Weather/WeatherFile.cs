using System.Text;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>The forms in which daily weather comes.</summary>
public enum WeatherFormat
{
    /// <summary>GHCN-Daily fixed width, one month of one element a line (.dly).</summary>
    GhcnDly,

    /// <summary>GHCN-Daily by station: one value a line, or one day a line with named elements.</summary>
    GhcnCsv,

    /// <summary>Comma-separated with a heading: date, lowest, highest and, if present, precipitation.</summary>
    PlainCsv,
}

/// <summary>Units of a plain CSV that does not name its own.</summary>
public enum WeatherUnits
{
    /// <summary>°C and mm.</summary>
    Metric,

    /// <summary>°F and inches.</summary>
    UsCustomary,
}

/// <summary>A line that was not taken, and why.</summary>
/// <param name="Line">Line number, from 1.</param>
/// <param name="Why">What was wrong.</param>
public sealed record RefusedLine(int Line, string Why);

/// <summary>What a weather file held.</summary>
public sealed record WeatherFileContents
{
    /// <summary>How it was read.</summary>
    public required WeatherFormat Format { get; init; }

    /// <summary>The station's identifier in the file; null when it names none.</summary>
    public string? StationId { get; init; }

    /// <summary>The station with its place; null when the file does not give it.</summary>
    public Station? Station { get; init; }

    /// <summary>Days, ascending, each once.</summary>
    public required IReadOnlyList<WeatherDay> Days { get; init; }

    /// <summary>The first lines refused, at most <see cref="WeatherFile.MostNamed"/>.</summary>
    public required IReadOnlyList<RefusedLine> Refused { get; init; }

    /// <summary>All lines refused.</summary>
    public required int RefusedCount { get; init; }

    /// <summary>Values left out because the source's own quality control flags them.</summary>
    public int FlaggedValues { get; init; }

    /// <summary>Places in the file, when a plain CSV holds several; the one read comes first.</summary>
    public IReadOnlyList<string> Locations { get; init; } = [];
}

/// <summary>Reads daily weather in any of the known forms.</summary>
public static class WeatherFile
{
    /// <summary>Largest file, bytes.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Refused lines that are named; more are only counted.</summary>
    public const int MostNamed = 20;

    /// <summary>Coldest and hottest air that is believed, °C.</summary>
    public const double ColdestC = -90, HottestC = 60;

    /// <summary>Most precipitation in a day that is believed, mm.</summary>
    public const double WettestMm = 2000;

    /// <summary>Reads a file whole, then decides on its form.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="units">Units of a plain CSV that does not name its own.</param>
    /// <param name="location">Which place to read from a plain CSV that holds several; null for the first.</param>
    /// <exception cref="InvalidInputException">The file is empty, too large, no text, or holds no usable day.</exception>
    public static WeatherFileContents Read(Stream stream, WeatherUnits units = WeatherUnits.Metric, string? location = null)
    {
        string text = Text(stream);
        string first = FirstLine(text);
        var tally = new WeatherTally();
        WeatherFileContents contents = DlyReader.Looks(first) ? DlyReader.Read(text, tally)
            : GhcnCsvReader.Looks(first) ? GhcnCsvReader.Read(text, tally)
            : PlainCsvReader.Read(text, units, location, tally);
        if (contents.Days.Count == 0)
        {
            string why = contents.Refused.Count > 0 ? $" Line {contents.Refused[0].Line}: {contents.Refused[0].Why}." : string.Empty;
            throw new InvalidInputException("file", $"no day with a temperature could be read.{why}");
        }
        return contents;
    }

    private static string Text(Stream stream)
    {
        using var buffer = new MemoryStream();
        var chunk = new byte[81920];
        int read;
        while ((read = stream.Read(chunk)) > 0)
        {
            if (buffer.Length + read > MostBytes)
                throw new InvalidInputException("file", "is larger than 20 MB; leave out what is not needed, or bring in a few years at a time");
            buffer.Write(chunk, 0, read);
        }
        byte[] bytes = buffer.ToArray();
        if (bytes.Length == 0)
            throw new InvalidInputException("file", "is empty");
        if (bytes is [0xFF, 0xFE, ..] or [0xFE, 0xFF, ..])
            throw new InvalidInputException("file", "is written in UTF-16; save it as UTF-8 text and try again");
        int nul = Array.IndexOf(bytes, (byte)0);
        if (nul >= 0)
            throw new InvalidInputException("file", $"is no text file (byte {nul + 1} is zero); bring in the .dly or .csv itself, not a workbook or an archive of it");
        try
        {
            string text = new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes);
            if (string.IsNullOrWhiteSpace(text))
                throw new InvalidInputException("file", "is empty");
            return text.TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException e)
        {
            int line = 1 + bytes.AsSpan(0, Math.Clamp(e.Index, 0, bytes.Length)).Count((byte)'\n');
            throw new InvalidInputException("file", $"is not UTF-8 text (line {line}); save it as UTF-8 and try again");
        }
    }

    private static string FirstLine(string text)
    {
        int end = text.AsSpan().TrimStart().IndexOfAny('\r', '\n');
        string trimmed = text.TrimStart();
        return end < 0 ? trimmed : trimmed[..end];
    }
}

/// <summary>Collects days and refusals while a file is read.</summary>
internal sealed class WeatherTally
{
    private readonly SortedDictionary<LocalDate, WeatherDay> _days = [];
    private readonly List<RefusedLine> _refused = [];

    public int RefusedCount { get; private set; }

    public int Flagged { get; set; }

    public IReadOnlyList<RefusedLine> Refused => _refused;

    public IReadOnlyList<WeatherDay> Days => [.. _days.Values.Where(d => d.MinC is not null || d.MaxC is not null)];

    public void Refuse(int line, string why)
    {
        RefusedCount++;
        if (_refused.Count < WeatherFile.MostNamed)
            _refused.Add(new RefusedLine(line, why));
    }

    public bool Has(LocalDate day) => _days.ContainsKey(day);

    public WeatherDay Day(LocalDate day) => _days.TryGetValue(day, out WeatherDay d) ? d : new WeatherDay(day, null, null, null);

    public void Put(WeatherDay day) => _days[day.Day] = day;

    /// <summary>Sets one GHCN element, tenths of °C or mm; false for an element that is not read.</summary>
    public bool Put(LocalDate day, ReadOnlySpan<char> element, double value)
    {
        WeatherDay d = Day(day);
        switch (element)
        {
            case "TMIN":
                Put(d with { MinC = value });
                return true;
            case "TMAX":
                Put(d with { MaxC = value });
                return true;
            case "PRCP":
                Put(d with { PrecipitationMm = value });
                return true;
            default:
                return false;
        }
    }

    /// <summary>Days whose lowest lies above the highest lose both; they are counted as refused.</summary>
    public void DropCrossed(Func<LocalDate, int> lineOf)
    {
        foreach (WeatherDay d in _days.Values.Where(d => d.MinC > d.MaxC).ToList())
        {
            Refuse(lineOf(d.Day), $"{d.Day.ToString("uuuu-MM-dd", null)}: lowest {d.MinC:0.0} °C lies above highest {d.MaxC:0.0} °C");
            Put(d with { MinC = null, MaxC = null });
        }
    }

    public static string? Doubt(string element, double value) => element switch
    {
        "PRCP" => value is < 0 or > WeatherFile.WettestMm ? $"precipitation {value:0.#} mm cannot be (0 to {WeatherFile.WettestMm:0})" : null,
        _ => value is < WeatherFile.ColdestC or > WeatherFile.HottestC ? $"temperature {value:0.#} °C cannot be ({WeatherFile.ColdestC:0} to {WeatherFile.HottestC:0})" : null,
    };
}
