using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Palette;

/// <summary>One cell that a sheet changes.</summary>
/// <param name="Column">Its column.</param>
/// <param name="Before">As it is.</param>
/// <param name="After">As it would be.</param>
public sealed record CellChange(string Column, string Before, string After);

/// <summary>What a sheet does to one plant.</summary>
/// <param name="Plant">The plant as it would be.</param>
/// <param name="IsNew">True when the palette does not hold it yet.</param>
/// <param name="Cells">What changes in a plant that is there; empty for a new one.</param>
public sealed record PlantChange(Plant Plant, bool IsNew, IReadOnlyList<CellChange> Cells);

/// <summary>
/// The palette as a sheet: comma-separated UTF-8, one plant a line, columns in any order by their headings. What a sheet
/// leaves out stays as it is; a plant that the sheet does not name stays too.
/// </summary>
public static class PaletteSheet
{
    /// <summary>Most plants in one sheet.</summary>
    public const int MostRows = 20_000;

    private static readonly Plant Blank = new()
    {
        Id = string.Empty,
        BotanicalName = string.Empty,
        CommonName = string.Empty,
        LifeForm = LifeForm.Perennial,
        Habit = Habit.Mounding,
        HeightCm = 0,
        SpreadAtPurchaseCm = 0,
        MatureSpreadCm = 0,
        LightLow = Exposure.FullSun,
        LightHigh = Exposure.FullSun,
        Water = WaterNeed.Medium,
        TopDamageC = 0,
        Green = GreenLeaf.InSeason,
        Windows = [],
        Packs = [],
        Source = string.Empty,
    };

    /// <summary>Writes a palette, every column.</summary>
    public static byte[] Write(IEnumerable<Plant> palette) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, [.. PaletteColumns.All.Select(c => (object)c.Name)]);
            foreach (Plant plant in palette)
                CsvSheets.Row(csv, [.. PaletteColumns.All.Select(c => c.Get(plant))]);
        });

    /// <summary>Reads a sheet over a palette and says what it would change; nothing is written.</summary>
    /// <param name="stream">The sheet.</param>
    /// <param name="present">The palette as it is.</param>
    /// <exception cref="InvalidInputException">Anything is wrong with it; faults name line and column.</exception>
    public static IReadOnlyList<PlantChange> Read(Stream stream, IReadOnlyList<Plant> present)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        FileLimits.CheckLines(buffer.GetBuffer().AsSpan(0, (int)buffer.Length));
        using var reader = new StreamReader(buffer, new UTF8Encoding(false, true), detectEncodingFromByteOrderMarks: true);
        using var csv = new CsvReader(
            reader,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                MissingFieldFound = null,
                // A stray quote would swallow the lines after it.
                BadDataFound = a =>
                    throw new InvalidInputException($"line {a.Context.Parser!.RawRow}", "holds a quotation mark that is not closed or not doubled"),
            }
        );
        try
        {
            return Rows(csv, present);
        }
        catch (Exception e) when (e is DecoderFallbackException or CsvHelperException)
        {
            throw new InvalidInputException(
                $"line {csv.Parser.RawRow}",
                "cannot be read as UTF-8 text parted by commas; save the sheet as \"CSV UTF-8\""
            );
        }
    }

    /// <summary>A plant from the cells of one form.</summary>
    /// <param name="old">The plant that is changed; null for a new one.</param>
    /// <param name="cells">Columns with what was typed.</param>
    /// <exception cref="InvalidInputException">A cell is wrong; every fault names its column.</exception>
    public static Plant FromCells(Plant? old, IEnumerable<(PaletteColumn Column, string Text)> cells)
    {
        var faults = new FaultList();
        var given = cells.ToList();
        Plant plant = WithCells(
            old ?? Blank with { Id = "new" },
            [.. given.Select((c, i) => (c.Column, i))],
            [.. given.Select(c => c.Text)],
            faults,
            name => name
        );
        if (faults.IsEmpty)
            faults.AddAll(string.Empty, plant.Faults().Select(f => new Fault(ColumnOf(f.Field), f.Message)));
        faults.ThrowIfAny();
        return plant;
    }

    /// <summary>The cells in which two plants differ, in the order of the columns.</summary>
    public static IReadOnlyList<CellChange> Differences(Plant before, Plant after) => Differences(before, after, PaletteColumns.All);

    private static List<CellChange> Differences(Plant before, Plant after, IEnumerable<PaletteColumn> columns) =>
        [.. columns.Select(c => new CellChange(c.Name, Text(c.Get(before)), Text(c.Get(after)))).Where(c => c.Before != c.After)];

    /// <summary>A cell as text.</summary>
    public static string Text(object cell) =>
        cell switch
        {
            double v => ShowNotation.Text(v),
            _ => cell.ToString() ?? string.Empty,
        };

    private static List<PlantChange> Rows(CsvReader csv, IReadOnlyList<Plant> present)
    {
        IReadOnlyList<(PaletteColumn Column, int At)> columns = Heading(csv);
        var known = present.ToDictionary(p => p.Id, StringComparer.Ordinal);
        var taken = present.Select(p => p.Id).ToHashSet(StringComparer.Ordinal);
        var seen = new Dictionary<string, int>(StringComparer.Ordinal);
        var names = present.ToDictionary(p => p.Id, p => p.CommonName, StringComparer.Ordinal);
        var faults = new FaultList();
        var changes = new List<PlantChange>();
        while (csv.Read() && !faults.IsFull)
        {
            int line = csv.Parser.RawRow;
            if (changes.Count + 1 > MostRows)
                throw new InvalidInputException($"line {line}", $"more than {MostRows:#,0} plants in one sheet; part it");
            string[] cells = [.. columns.Select(c => CsvSheets.Unescape(csv.GetField(c.At)).Trim())];
            if (cells.All(c => c.Length == 0))
                continue;
            int before = faults.Count;
            string id = columns.Zip(cells).FirstOrDefault(c => c.First.Column.Name == "id").Second ?? string.Empty;
            if (id.Length == 0)
            {
                string name = columns.Zip(cells).FirstOrDefault(c => c.First.Column.Name == "common name").Second ?? string.Empty;
                id = Ids.From(name, x => taken.Contains(x));
            }
            if (!seen.TryAdd(id, line))
                faults.Add($"line {line}, id", $"\"{id}\" stands in line {seen[id]} already");
            taken.Add(id);
            bool isNew = !known.TryGetValue(id, out Plant? old);
            if (isNew)
            {
                foreach (PaletteColumn missing in PaletteColumns.All.Where(c => c.Required && columns.All(x => x.Column != c)))
                    faults.Add($"line {line}", $"is a new plant and needs the column \"{missing.Name}\"");
            }
            Plant plant = WithCells((old ?? Blank) with { Id = id }, columns, cells, faults, name => $"line {line}, {name}");
            if (faults.Count == before)
                faults.AddAll(string.Empty, plant.Faults().Select(f => new Fault($"line {line}, {ColumnOf(f.Field)}", f.Message)));
            if (faults.Count > before)
                continue;
            names[id] = plant.CommonName;
            IReadOnlyList<CellChange> changed = isNew ? [] : Differences(old!, plant, columns.Select(c => c.Column));
            if (isNew || changed.Count > 0)
                changes.Add(new PlantChange(plant, isNew, changed));
        }
        foreach (
            var twins in names
                .GroupBy(n => n.Value, StringComparer.OrdinalIgnoreCase)
                .Where(g => g.Count() > 1 && g.Any(n => seen.ContainsKey(n.Key)))
        )
        {
            string id = twins.Last(n => seen.ContainsKey(n.Key)).Key;
            faults.Add($"line {seen[id]}, common name", $"\"{twins.Key}\" is the name of {twins.First(n => n.Key != id).Key} too; add its colour");
        }
        faults.ThrowIfAny();
        return changes;
    }

    private static List<(PaletteColumn Column, int At)> Heading(CsvReader csv)
    {
        if (!csv.Read() || !csv.ReadHeader() || csv.HeaderRecord is not { Length: > 0 } heading)
            throw new InvalidInputException("line 1", "is empty; it must name the columns");
        if (heading.Length == 1 && (heading[0].Contains(';', StringComparison.Ordinal) || heading[0].Contains('\t', StringComparison.Ordinal)))
            throw new InvalidInputException("line 1", "columns are parted by semicolons or tabs; save the sheet with commas");
        var faults = new FaultList();
        var columns = new List<(PaletteColumn, int)>();
        for (int i = 0; i < heading.Length; i++)
        {
            string name = heading[i].Trim();
            PaletteColumn? column = PaletteColumns.All.FirstOrDefault(c => c.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
            if (column is null)
                faults.Add("line 1", $"there is no column \"{(name.Length > 40 ? name[..40] + "…" : name)}\"; see the list of columns");
            else if (columns.Any(c => c.Item1 == column))
                faults.Add("line 1", $"the column \"{name}\" stands twice");
            else
                columns.Add((column, i));
        }
        if (columns.All(c => c.Item1.Name is not ("id" or "common name")))
            faults.Add("line 1", "must name the column \"id\" or \"common name\"");
        faults.ThrowIfAny();
        return columns;
    }

    private static Plant WithCells(
        Plant plant,
        IReadOnlyList<(PaletteColumn Column, int At)> columns,
        string[] cells,
        FaultList faults,
        Func<string, string> where
    )
    {
        for (int i = 0; i < cells.Length; i++)
        {
            PaletteColumn column = columns[i].Column;
            if (column.Name == "id")
                continue;
            if (cells[i].Length == 0 && column.Required)
            {
                faults.Add(where(column.Name), "must not be empty");
                continue;
            }
            try
            {
                plant = column.Set(plant, cells[i]);
            }
            catch (FormatException e)
            {
                faults.Add(where(column.Name), e.Message);
            }
        }
        // Zeroes in every bulb column are what a sheet without bulbs leaves behind.
        return plant.Bulb is { HeightCm: 0, DiameterCm: 0, SpacingCm: 0, Grades.Count: 0 } ? plant with { Bulb = null } : plant;
    }

    // A plant's own faults speak of its members; a sheet's reader knows the columns.
    private static string ColumnOf(string field) =>
        field.Split('[')[0] switch
        {
            "botanicalName" => "botanical name",
            "commonName" => "common name",
            "heightCm" => "height cm",
            "spreadAtPurchaseCm" => "spread bought cm",
            "matureSpreadCm" => "spread grown cm",
            "growthPerDegreeDay" => "growth per degree-day",
            "growthBaseC" => "growth base C",
            "topDamageC" => "tops spoiled C",
            "rootKillingC" => "roots die C",
            "lightLow" => "light low",
            "roots.phLow" => "pH low",
            "roots.phHigh" => "pH high",
            "roots.heatCeilingC" => "heat ceiling C",
            "tending.flushAfterDays" => "flush after days",
            "tending.flushDays" => "flush days",
            "returnByYear" => "returns",
            "soldMonths" => "sold",
            "windows" => "shows",
            "bulb" or "bulb.heightCm" => "bulb height cm",
            "bulb.diameterCm" => "bulb width cm",
            "bulb.spacingCm" => "bulb spacing cm",
            "bulb.coldWeeksLow" => "cold weeks low",
            "bulb.coldWeeksHigh" => "cold weeks high",
            "bulb.grades" => "bulb grades",
            "localStatus" => "local status",
            var other => other,
        };
}
