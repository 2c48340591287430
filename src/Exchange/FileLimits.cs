using UnrulyMeadow.Core;

namespace UnrulyMeadow.Exchange;

/// <summary>What a file may not exceed, told before anything is made of it.</summary>
public static class FileLimits
{
    /// <summary>Largest file, bytes.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Most cells in one line of a sheet.</summary>
    public const int MostCells = 500;

    /// <summary>Longest line of a sheet, bytes; a quoted cell may hold line breaks.</summary>
    public const int LongestLine = 200_000;

    /// <summary>A file's bytes.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="most">Most bytes.</param>
    /// <exception cref="InvalidInputException">It is empty or too large.</exception>
    public static MemoryStream Read(Stream stream, long most = MostBytes)
    {
        var buffer = new MemoryStream();
        var chunk = new byte[81920];
        int read;
        while ((read = stream.Read(chunk)) > 0)
        {
            if (buffer.Length + read > most)
                throw new InvalidInputException("file", $"is larger than {most / 1048576} MB; leave out what is not needed, or bring it in by parts");
            buffer.Write(chunk, 0, read);
        }
        if (buffer.Length == 0)
            throw new InvalidInputException("file", "is empty");
        buffer.Position = 0;
        return buffer;
    }

    /// <summary>Refuses a sheet with lines that no sheet of ours has, before a reader takes them apart.</summary>
    /// <param name="bytes">The sheet, UTF-8.</param>
    /// <param name="quotes">True where quotation marks hold cells together, and a line of the sheet may be several of the file.</param>
    /// <exception cref="InvalidInputException">A line has too many cells or is too long; it is named.</exception>
    public static void CheckLines(ReadOnlySpan<byte> bytes, bool quotes = true)
    {
        int line = 1;
        int first = 1;
        int cells = 1;
        int start = 0;
        bool quoted = false;
        for (int i = 0; i < bytes.Length; i++)
        {
            byte b = bytes[i];
            if (b == '"' && quotes)
                quoted = !quoted;
            else if (b is (byte)',' or (byte)';' or (byte)'\t' && !quoted)
                cells++;
            if (cells > MostCells)
                throw new InvalidInputException("file", $"line {first} has more than {MostCells} cells; no sheet of this kind is so wide");
            if (i - start > LongestLine)
                throw new InvalidInputException(
                    "file",
                    $"line {first} is longer than {LongestLine:#,0} bytes{(quoted ? "; a quotation mark may not be closed" : string.Empty)}"
                );
            if (b != '\n')
                continue;
            line++;
            if (quoted)
                continue;
            (first, cells, start) = (line, 1, i);
        }
    }
}
