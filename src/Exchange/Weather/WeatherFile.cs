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

    /// <summary>What the reader should know though nothing is wrong: long gaps, with their lines.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];
}

/// <summary>Reads daily weather in any of the known forms.</summary>
public static class WeatherFile
{
    /// <summary>Largest file, bytes.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Refused lines that are named; more are only counted.</summary>
    public const int MostNamed = 20;

    /// <summary>Reads a file whole, then decides on its form.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="units">Units of a plain CSV that does not name its own.</param>
    /// <param name="location">Which place to read from a plain CSV that holds several; null for the first.</param>
    /// <param name="leaveOutRefused">True to take the good lines of a file that has others; otherwise one refused line refuses the file.</param>
    /// <exception cref="InvalidInputException">
    /// The file is empty, too large, no text, holds no usable day, has refused lines, or cannot be what it says; each fault names its line.
    /// </exception>
    public static WeatherFileContents Read(
        Stream stream,
        WeatherUnits units = WeatherUnits.Metric,
        string? location = null,
        bool leaveOutRefused = false
    )
    {
        string text = Text(stream);
        string first = FirstLine(text);
        var tally = new WeatherTally();
        WeatherFileContents contents =
            DlyReader.Looks(first) ? DlyReader.Read(text, tally)
            : GhcnCsvReader.Looks(first) ? GhcnCsvReader.Read(text, tally)
            : PlainCsvReader.Read(text, units, location, tally);
        tally.DoubtWhole(contents.Format == WeatherFormat.PlainCsv && units == WeatherUnits.UsCustomary);
        if (contents.Days.Count == 0)
        {
            string why = contents.Refused.Count > 0 ? $" Line {contents.Refused[0].Line}: {contents.Refused[0].Why}." : string.Empty;
            throw new InvalidInputException("file", $"no day with a temperature could be read.{why}");
        }
        if (contents.RefusedCount > 0 && !leaveOutRefused)
            throw new InvalidInputException(Refusals(contents));
        return contents with { Notes = tally.Gaps() };
    }

    private static List<Fault> Refusals(WeatherFileContents contents)
    {
        var faults = contents.Refused.Select(r => new Fault("file", $"line {r.Line}: {r.Why}")).ToList();
        string more =
            contents.RefusedCount > contents.Refused.Count
                ? $"{contents.RefusedCount - contents.Refused.Count:#,0} more lines are wrong; "
                : string.Empty;
        faults.Add(
            new Fault(
                "file",
                (
                    $"{more}nothing was brought in; mend {(contents.RefusedCount == 1 ? "the line" : "the lines")}, "
                    + $"or choose to leave {(contents.RefusedCount == 1 ? "it" : "them")} out"
                )
            )
        );
        return faults;
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
        FileLimits.CheckLines(bytes, quotes: false);
        int nul = Array.IndexOf(bytes, (byte)0);
        if (nul >= 0)
            throw new InvalidInputException(
                "file",
                $"is no text file (byte {nul + 1} is zero); bring in the .dly or .csv itself, not a workbook or an archive of it"
            );
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
