using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using MiniExcelLibs;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>One row of a table as somebody pasted or saved it.</summary>
/// <param name="Line">Its line, from 1.</param>
/// <param name="Cells">Its cells, trimmed.</param>
public sealed record TypedRow(int Line, IReadOnlyList<string> Cells);

/// <summary>
/// Reads rows as they come from a spreadsheet: pasted (parted by tabs), as CSV (commas, or semicolons where commas are decimal), or as an
/// XLSX workbook, of which the first sheet is read. What a formula last gave is read of a workbook; a formula as text is refused.
/// </summary>
public static class TypedTable
{
    /// <summary>Most rows of one table.</summary>
    public const int MostRows = 25_000;

    // Lines by which it is told what stands between cells.
    private const int LinesLookedAt = 10;

    // A workbook is a compressed archive: a small one may hold more than the machine.
    private const long MostUnpacked = 200L * 1024 * 1024;

    /// <summary>Reads the rows, of which there is at least one; empty ones are passed over.</summary>
    /// <param name="stream">A text in UTF-8 or a workbook.</param>
    /// <exception cref="InvalidInputException">There is none, or it cannot be read; the line is named.</exception>
    public static IReadOnlyList<TypedRow> Read(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        ReadOnlySpan<byte> bytes = buffer.GetBuffer().AsSpan(0, (int)buffer.Length);
        IReadOnlyList<TypedRow> rows = bytes is [(byte)'P', (byte)'K', 3, 4, ..] ? Workbook(buffer) : Text(buffer, bytes);
        var faults = new FaultList();
        foreach (TypedRow row in rows)
        {
            if (row.Cells.FirstOrDefault(c => c.StartsWith('=')) is { } formula)
                faults.Add($"line {row.Line}", $"holds a formula (\"{PlainText.Cut(formula, 30)}\"); paste its value");
            else if (row.Cells.FirstOrDefault(c => PlainText.Fault(c, 1000, lines: false) is not null) is { } cell)
                faults.Add($"line {row.Line}", $"a cell {PlainText.Fault(cell, 1000, lines: false)}");
        }
        faults.ThrowIfAny();
        return rows.Count > 0 ? rows : throw new InvalidInputException("rows", "paste at least one row, or choose a file");
    }

    /// <summary>Writes rows as a workbook of one sheet.</summary>
    /// <param name="headings">Headings.</param>
    /// <param name="rows">Cells; numbers stay numbers.</param>
    public static byte[] WriteWorkbook(IReadOnlyList<string> headings, IEnumerable<IReadOnlyList<object?>> rows)
    {
        using var stream = new MemoryStream();
        stream.SaveAs(rows.Select(r => headings.Select((h, i) => (h, r[i])).ToDictionary(c => c.h, c => c.Item2, StringComparer.Ordinal)));
        return stream.ToArray();
    }

    /// <summary>Writes rows as CSV.</summary>
    /// <param name="headings">Headings.</param>
    /// <param name="rows">Cells.</param>
    public static byte[] WriteCsv(IReadOnlyList<string> headings, IEnumerable<IReadOnlyList<object?>> rows) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, [.. headings]);
            foreach (IReadOnlyList<object?> row in rows)
                CsvSheets.Row(csv, [.. row.Select(c => c ?? string.Empty)]);
        });

    private static IReadOnlyList<TypedRow> Workbook(MemoryStream buffer)
    {
        try
        {
            buffer.Position = 0;
            using (var archive = new ZipArchive(buffer, ZipArchiveMode.Read, leaveOpen: true))
            {
                if (archive.Entries.Sum(e => e.Length) > MostUnpacked)
                    throw new InvalidInputException("file", $"unpacks to more than {MostUnpacked / 1048576} MB; save only the rows that are needed");
            }
            buffer.Position = 0;
            var rows = new List<TypedRow>();
            int line = 0;
            foreach (IDictionary<string, object?> row in buffer.Query().Cast<IDictionary<string, object?>>())
            {
                line++;
                Add(rows, line, [.. row.Values.Select(Cell)]);
            }
            return rows;
        }
        // A broken archive makes its reader fail in as many ways as it can be broken.
        catch (Exception e) when (e is not (InvalidInputException or OutOfMemoryException))
        {
            throw new InvalidInputException("file", "cannot be read as a workbook; save it anew as XLSX, or as CSV in UTF-8");
        }
    }

    private static string Cell(object? value) =>
        value switch
        {
            null => string.Empty,
            double number => number.ToString("0.######", CultureInfo.InvariantCulture),
            DateTime day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            IFormattable other => other.ToString(null, CultureInfo.InvariantCulture),
            _ => value.ToString() ?? string.Empty,
        };

    private static IReadOnlyList<TypedRow> Text(MemoryStream buffer, ReadOnlySpan<byte> bytes)
    {
        FileLimits.CheckLines(bytes);
        buffer.Position = 0;
        using var reader = new StreamReader(buffer, new UTF8Encoding(false, true), detectEncodingFromByteOrderMarks: true, leaveOpen: true);
        string text;
        try
        {
            text = reader.ReadToEnd();
        }
        catch (DecoderFallbackException)
        {
            throw new InvalidInputException("file", "is not UTF-8 text; save the sheet as \"CSV UTF-8\", or as XLSX");
        }
        // Lists begin with a title as often as with their headings.
        string first = string.Join('\n', text.Split('\n', LinesLookedAt + 1).Take(LinesLookedAt));
        string delimiter =
            first.Contains('\t', StringComparison.Ordinal) ? "\t"
            : first.Count(c => c == ';') > first.Count(c => c == ',') ? ";"
            : ",";
        using var csv = new CsvParser(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = delimiter,
                // Inches are typed with quotation marks.
                Mode = delimiter == "\t" ? CsvMode.NoEscape : CsvMode.RFC4180,
                BadDataFound = null,
            }
        );
        var rows = new List<TypedRow>();
        while (csv.Read())
            Add(rows, csv.RawRow, csv.Record ?? []);
        return rows;
    }

    private static void Add(List<TypedRow> rows, int line, IReadOnlyList<string> cells)
    {
        if (cells.Count > FileLimits.MostCells)
            throw new InvalidInputException($"line {line}", $"has more than {FileLimits.MostCells} cells");
        List<string> trimmed = [.. cells.Select(c => c.Trim())];
        if (trimmed.TrueForAll(c => c.Length == 0))
            return;
        if (rows.Count >= MostRows)
            throw new InvalidInputException("file", $"has more than {MostRows:#,0} rows; bring it in by parts");
        rows.Add(new TypedRow(line, trimmed));
    }
}
