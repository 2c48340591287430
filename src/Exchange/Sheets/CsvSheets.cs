using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>
/// CSV that opens cleanly in a spreadsheet: UTF-8 with a byte-order mark, CR LF, a dot for decimals, and cells that
/// would be taken for a formula escaped.
/// </summary>
public static class CsvSheets
{
    /// <summary>An order as CSV: plants, then medium, one row a line.</summary>
    public static byte[] Order(TurnOrder order) => Write(csv =>
    {
        Row(csv, "kind", "plant", "botanical name", "planned", "with spares", "pack", "pack size", "packs", "price each", "price", "for");
        foreach (OrderLine line in order.Lines)
        {
            foreach (PackCount pack in line.Purchase.Packs)
            {
                Row(
                    csv,
                    line.Plant.LifeForm == Core.Plants.LifeForm.Bulb ? "bulb" : "plant",
                    line.Plant.CommonName,
                    line.Plant.BotanicalName,
                    line.Planned,
                    line.Purchase.Wanted,
                    pack.Pack.Form,
                    pack.Pack.Size,
                    pack.Packs,
                    pack.Pack.Price,
                    pack.Packs * pack.Pack.Price,
                    string.Join("; ", line.Planters.Select(p => $"{p.Planter.Name}: {p.Count}")));
            }
        }
        if (order.MediumBags > 0)
        {
            Row(
                csv, "medium", "planting medium", string.Empty, Math.Round(order.MediumLitres, 1), Math.Round(order.MediumLitres, 1), "bag, L",
                order.Site.MediumBagLitres, order.MediumBags, order.Site.MediumBagPrice, order.MediumCost,
                string.Join("; ", order.Medium.Select(m => $"{m.Planter.Name} {m.Litres:0} L")));
        }
    });

    /// <summary>The log as CSV.</summary>
    public static byte[] Log(IEnumerable<Observation> observations) => Write(csv =>
    {
        Row(csv, "id", "planter", "plant", "day", "what", "note", "by");
        foreach (Observation o in observations)
            Row(csv, o.Id, o.PlanterId, o.PlantId ?? string.Empty, LocalDatePattern.Iso.Format(o.Day), o.Kind.ToString(), o.Note, o.By);
    });

    /// <summary>Reads a log written by <see cref="Log"/>, all or nothing.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="today">No observation can be of a later day.</param>
    /// <exception cref="InvalidInputException">A row is wrong; every faulty row is named by its line.</exception>
    public static IReadOnlyList<Observation> ReadLog(Stream stream, LocalDate today)
    {
        using var reader = new StreamReader(stream, new UTF8Encoding(false, true));
        using var csv = new CsvReader(reader, new CsvConfiguration(CultureInfo.InvariantCulture) { MissingFieldFound = null, BadDataFound = null });
        var faults = new FaultList();
        var observations = new List<Observation>();
        try
        {
            if (!csv.Read() || !csv.ReadHeader() || csv.HeaderRecord is not { } heading || !heading.Contains("planter", StringComparer.Ordinal))
                throw new InvalidInputException("file", "line 1 must name the columns id, planter, plant, day, what, note, by");
            while (csv.Read())
            {
                string line = $"line {csv.Parser.RawRow}";
                if (!LocalDatePattern.Iso.Parse(csv.GetField("day") ?? string.Empty).TryGetValue(default, out LocalDate day))
                    faults.Add(line, "day is no date written YYYY-MM-DD");
                else if (!Enum.TryParse(csv.GetField("what"), ignoreCase: true, out ObservationKind kind) || !Enum.IsDefined(kind))
                    faults.Add(line, $"what must be one of {string.Join(", ", Enum.GetNames<ObservationKind>())}");
                else if (!Guid.TryParse(csv.GetField("id"), out Guid id))
                    faults.Add(line, "id is no identifier");
                else
                    Take(new Observation(id, Unescape(csv.GetField("planter")), Empty(csv.GetField("plant")), day, kind, Unescape(csv.GetField("note")), Unescape(csv.GetField("by"))), line);
            }
        }
        catch (Exception e) when (e is DecoderFallbackException or CsvHelperException)
        {
            throw new InvalidInputException("file", $"could not be read as UTF-8 CSV near line {csv.Parser.RawRow}");
        }
        faults.ThrowIfAny();
        return observations;

        void Take(Observation observation, string line)
        {
            var found = observation.Faults(today);
            faults.AddAll(line, found);
            if (found.Count == 0)
                observations.Add(observation);
        }
    }

    private static readonly char[] FormulaStarts = ['=', '@', '+', '\t', '\r'];

    private static string? Empty(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    // What was escaped on the way out loses its mark on the way in.
    internal static string Unescape(string? text) =>
        text is ['\'', '=' or '+' or '-' or '@' or '\t' or '\r', ..] ? text[1..] : text ?? string.Empty;

    internal static byte[] Write(Action<CsvWriter> rows)
    {
        using var stream = new MemoryStream();
        using (var writer = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true)))
        using (var csv = new CsvWriter(writer, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n", InjectionOptions = InjectionOptions.Escape, InjectionEscapeCharacter = '\'', InjectionCharacters = FormulaStarts }))
        {
            rows(csv);
        }
        return stream.ToArray();
    }

    internal static void Row(CsvWriter csv, params object[] cells)
    {
        // A number below zero stays a number; only text that begins so is escaped.
        foreach (object cell in cells)
            csv.WriteField(cell is string text && text.StartsWith('-') ? "'" + text : cell);
        csv.NextRecord();
    }
}
