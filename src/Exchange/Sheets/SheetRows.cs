using System.Globalization;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>
/// Rows of a table under its columns: the first row may hold their headings in any order, or the cells stand in the usual one. Whatever
/// cannot be read becomes a fault that names the line and the column.
/// </summary>
internal sealed class SheetRows
{
    private readonly List<string> _columns;
    private readonly FaultList _faults;

    /// <summary>Finds the columns.</summary>
    /// <param name="rows">The rows, at least one.</param>
    /// <param name="columns">The columns in their usual order; the first must be there.</param>
    /// <param name="faults">Where faults go.</param>
    /// <param name="column">The column that a heading means, which need be none; what it says in lower case where this is left out.</param>
    public SheetRows(IReadOnlyList<TypedRow> rows, IReadOnlyList<string> columns, FaultList faults, Func<string, string>? column = null)
    {
        _faults = faults;
        List<string> first = [.. rows[0].Cells.Select(column ?? (c => c.ToLowerInvariant()))];
        bool headed = first.Count(c => columns.Contains(c, StringComparer.Ordinal)) >= 2;
        _columns = headed ? first : [.. columns];
        Headings = headed ? rows[0].Cells : [];
        Rows = headed ? [.. rows.Skip(1)] : rows;
        if (!headed)
            return;
        for (int i = 0; i < first.Count; i++)
        {
            if (first[i].Length > 0 && !columns.Contains(first[i], StringComparer.Ordinal))
                faults.Add(
                    $"line {rows[0].Line}",
                    $"\"{PlainText.Cut(rows[0].Cells[i], 30)}\" is no heading here; known are {string.Join(", ", columns)}"
                );
            else if (first[i].Length > 0 && first.IndexOf(first[i]) < i)
                faults.Add($"line {rows[0].Line}", $"holds the heading \"{first[i]}\" twice");
        }
        if (!first.Contains(columns[0]))
            faults.Add($"line {rows[0].Line}", $"has no heading \"{columns[0]}\"");
    }

    /// <summary>The headings as they are written; none where the columns stand in the usual order.</summary>
    public IReadOnlyList<string> Headings { get; }

    /// <summary>The rows beneath the headings.</summary>
    public IReadOnlyList<TypedRow> Rows { get; }

    /// <summary>A cell's text; empty where there is none.</summary>
    public string Cell(TypedRow row, string column) => row.Cells.ElementAtOrDefault(_columns.IndexOf(column)) ?? string.Empty;

    /// <summary>Whether no cell stands beyond the columns; a fault where one does.</summary>
    public bool FitsColumns(TypedRow row)
    {
        if (row.Cells.Skip(_columns.Count).All(c => c.Length == 0))
            return true;
        _faults.Add($"line {row.Line}", $"has {row.Cells.Count} cells where there are {_columns.Count} columns");
        return false;
    }

    /// <summary>Notes a fault.</summary>
    public void Fault(TypedRow row, string column, string message) => _faults.Add($"line {row.Line}", $"{column}: {message}");

    /// <summary>A day; null where the cell is empty or is none, which is a fault unless it may be empty.</summary>
    public LocalDate? Day(TypedRow row, string column, bool mayLack = false)
    {
        string typed = Cell(row, column);
        if (typed.Length == 0 && mayLack)
            return null;
        ParseResult<LocalDate> day = LocalDatePattern.Iso.Parse(typed.Length > 10 ? typed[..10] : typed);
        if (day.Success)
            return day.Value;
        Fault(row, column, typed.Length == 0 ? "is missing" : $"\"{PlainText.Cut(typed, 20)}\" is no day; write it as 2027-05-17");
        return null;
    }

    /// <summary>A whole number within limits; null with a fault where it is none, and without where the cell is empty and may be.</summary>
    public int? Whole(TypedRow row, string column, int low, int high, bool mayLack = false)
    {
        string typed = Cell(row, column);
        if (typed.Length == 0 && mayLack)
            return null;
        if (int.TryParse(typed, NumberStyles.None, CultureInfo.InvariantCulture, out int value) && value >= low && value <= high)
            return value;
        Fault(row, column, typed.Length == 0 ? "is missing" : $"\"{PlainText.Cut(typed, 20)}\" must be a whole number from {low} to {high:#,0}");
        return null;
    }

    /// <summary>One of a few words; the usual one where the cell is empty, and with a fault where it is none of them.</summary>
    /// <param name="row">The row.</param>
    /// <param name="column">The column.</param>
    /// <param name="usual">What stands where nothing is said.</param>
    /// <param name="more">Further words for the same.</param>
    public T Choice<T>(TypedRow row, string column, T usual, IReadOnlyDictionary<string, T>? more = null)
        where T : struct, Enum
    {
        string typed = Cell(row, column);
        if (typed.Length == 0)
            return usual;
        string plain = typed.Replace('-', ' ').Replace('_', ' ');
        foreach (T value in Enum.GetValues<T>())
        {
            if (
                PlanterSheet.Word(value).Equals(plain, StringComparison.OrdinalIgnoreCase)
                || value.ToString().Equals(plain, StringComparison.OrdinalIgnoreCase)
            )
                return value;
        }
        if (more is not null && more.TryGetValue(plain, out T other))
            return other;
        Fault(
            row,
            column,
            $"\"{PlainText.Cut(typed, 30)}\" is none of {string.Join(", ", Enum.GetValues<T>().Select(v => PlanterSheet.Word(v)))}; is a column shifted?"
        );
        return usual;
    }

    /// <summary>What is named in a cell, by its name or id; null with a fault where nothing is called so.</summary>
    public T? Named<T>(TypedRow row, string column, IReadOnlyDictionary<string, T> known, string what)
        where T : class
    {
        string typed = Cell(row, column);
        if (known.TryGetValue(typed, out T? there))
            return there;
        Fault(row, column, typed.Length == 0 ? "is missing" : $"no {what} is called \"{PlainText.Cut(typed, 60)}\"");
        return null;
    }

    /// <summary>Things by name and by id, whatever the case; of two of one name the first.</summary>
    public static IReadOnlyDictionary<string, T> ByName<T>(IEnumerable<T> all, Func<T, string> name, Func<T, string> id)
    {
        var known = new Dictionary<string, T>(StringComparer.OrdinalIgnoreCase);
        foreach (T one in all)
            known.TryAdd(name(one), one);
        foreach (T one in all)
            known.TryAdd(id(one), one);
        return known;
    }
}
