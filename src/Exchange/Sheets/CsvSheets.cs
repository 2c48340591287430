using System.Buffers;
using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
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
    public static byte[] Order(TurnOrder order) =>
        Write(csv =>
        {
            Row(
                csv,
                "kind",
                "plant",
                "botanical name",
                "planned",
                "with spares",
                "at hand",
                "pack",
                "pack size",
                "packs",
                "price each",
                "price",
                "for"
            );
            foreach (OrderLine line in order.Lines)
            {
                // What is at hand in full is a row too, so that the sheet names all that goes in.
                foreach (
                    PackCount pack in line.Purchase.Packs.Count > 0
                        ? line.Purchase.Packs
                        : [new PackCount(new Core.Palette.Pack("none to buy", 0, 0), 0)]
                )
                {
                    Row(
                        csv,
                        line.Plant.LifeForm == Core.Palette.LifeForm.Bulb ? "bulb" : "plant",
                        line.Plant.CommonName,
                        line.Plant.BotanicalName,
                        line.Planned,
                        line.Wanted,
                        line.FromStock,
                        pack.Pack.Form,
                        pack.Pack.Size,
                        pack.Packs,
                        pack.Pack.Price,
                        pack.Packs * pack.Pack.Price,
                        string.Join("; ", line.Planters.Select(p => $"{p.Planter.Name}: {p.Count}"))
                    );
                }
            }
            foreach ((bool acid, double litres, int bags) in order.MediumByKind)
            {
                Row(
                    csv,
                    acid ? "medium-acid" : "medium",
                    acid ? "acid planting medium" : "planting medium",
                    string.Empty,
                    Math.Round(litres, 1),
                    Math.Round(litres, 1),
                    0,
                    "bag, L",
                    order.Site.MediumBagLitres,
                    bags,
                    order.Site.MediumBagPrice,
                    bags * order.Site.MediumBagPrice,
                    string.Join("; ", order.Medium.Where(m => m.IsAcid == acid).Select(m => $"{m.Planter.Name} {m.Litres:0} L"))
                );
            }
        });

    /// <summary>The log as CSV, piece by piece, however long it is.</summary>
    /// <param name="observations">In the order in which they are to stand.</param>
    public static async IAsyncEnumerable<byte[]> Log(IAsyncEnumerable<Observation> observations)
    {
        yield return Write(csv => Row(csv, [.. LogColumns]));
        var some = new List<Observation>(LogPiece);
        await foreach (Observation o in observations)
        {
            some.Add(o);
            if (some.Count < LogPiece)
                continue;
            yield return Rows(some);
            some.Clear();
        }
        yield return Rows(some);

        static byte[] Rows(List<Observation> some) =>
            Write(
                csv =>
                {
                    foreach (Observation o in some)
                        Row(
                            csv,
                            $"{o.Id}",
                            o.PlanterId,
                            o.PlantId ?? string.Empty,
                            LocalDatePattern.Iso.Format(o.Day),
                            $"{o.Kind}",
                            o.Note,
                            o.By,
                            o.RecordedAt is { } at ? InstantPattern.ExtendedIso.Format(at) : string.Empty,
                            o.PlantName ?? string.Empty,
                            o.Count is { } count ? count.ToString(CultureInfo.InvariantCulture) : string.Empty,
                            o.Corrects is { } corrects ? $"{corrects}" : string.Empty,
                            o.Review is { } review ? review.Rating.ToString(CultureInfo.InvariantCulture) : string.Empty,
                            o.Review is { Verdict: var verdict } ? $"{verdict}" : string.Empty,
                            o.Review?.IsInColour is { } shows ? (shows ? Yes : No) : string.Empty,
                            o.Review?.CoverPct is { } cover ? cover.ToString(CultureInfo.InvariantCulture) : string.Empty
                        );
                },
                first: false
            );
    }

    /// <summary>Reads a log written by <see cref="Log"/>, all or nothing.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="today">No observation can be of a later day.</param>
    /// <param name="most">Largest file, bytes.</param>
    /// <exception cref="InvalidInputException">A row is wrong; the first faulty rows are named by their lines.</exception>
    public static IReadOnlyList<Observation> ReadLog(Stream stream, LocalDate today, long most = FileLimits.MostBytes)
    {
        using MemoryStream buffer = FileLimits.Read(stream, most);
        FileLimits.CheckLines(buffer.GetBuffer().AsSpan(0, (int)buffer.Length));
        using var reader = new StreamReader(buffer, new UTF8Encoding(false, true));
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
        var faults = new FaultList();
        var observations = new List<Observation>();
        try
        {
            if (!csv.Read() || !csv.ReadHeader() || csv.HeaderRecord is not { } heading || !heading.Contains("planter", StringComparer.Ordinal))
                throw new InvalidInputException("file", $"line 1 must name the columns {string.Join(", ", LogColumns.Take(7))}");
            while (csv.Read() && !faults.IsFull)
            {
                string line = $"line {csv.Parser.RawRow}";
                string recorded = Unescape(csv.GetField("recorded"));
                Instant? at = InstantPattern.ExtendedIso.Parse(recorded) is { Success: true } read ? read.Value : null;
                if (!LocalDatePattern.Iso.Parse(Unescape(csv.GetField("day"))).TryGetValue(default, out LocalDate day))
                    faults.Add(line, "day is no date written YYYY-MM-DD");
                else if (!Enum.TryParse(csv.GetField("what"), ignoreCase: true, out ObservationKind kind) || !Enum.IsDefined(kind))
                    faults.Add(line, $"what must be one of {string.Join(", ", Enum.GetNames<ObservationKind>())}");
                else if (!Guid.TryParse(csv.GetField("id"), out Guid id))
                    faults.Add(line, "id is no identifier");
                else if (Unescape(csv.GetField("count")) is { Length: > 0 } counted && !int.TryParse(counted, CultureInfo.InvariantCulture, out _))
                    faults.Add(line, "count is no whole number");
                else if (csv.GetField("corrects") is { Length: > 0 } corrected && !Guid.TryParse(corrected, out _))
                    faults.Add(line, "corrects is no identifier");
                else if (WrongReview(csv, out PlanterReview? review) is { } wrong)
                    faults.Add(line, wrong);
                else if (recorded.Length > 0 && (at is null || at.Value.InUtc().Year is < 1950 or > 2150))
                    faults.Add(line, "recorded is no instant written 2027-04-14T09:30:00Z");
                else
                    Take(
                        new Observation(
                            id,
                            Unescape(csv.GetField("planter")),
                            Empty(Unescape(csv.GetField("plant"))),
                            day,
                            kind,
                            Unescape(csv.GetField("note")),
                            Unescape(csv.GetField("by"))
                        )
                        {
                            RecordedAt = at,
                            PlantName = Empty(Unescape(csv.GetField("called"))),
                            Count = int.TryParse(Unescape(csv.GetField("count")), CultureInfo.InvariantCulture, out int count) ? count : null,
                            Corrects = Guid.TryParse(csv.GetField("corrects"), out Guid corrects) ? corrects : null,
                            Review = review,
                        },
                        line
                    );
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

    // What is wrong with what was found on a review walk; null where nothing is.
    private static string? WrongReview(CsvReader csv, out PlanterReview? review)
    {
        review = null;
        string rating = Unescape(csv.GetField("rating"));
        if (rating.Length == 0)
            return null;
        if (!int.TryParse(rating, CultureInfo.InvariantCulture, out int stars))
            return "rating is no whole number";
        if (!Enum.TryParse(csv.GetField("verdict"), ignoreCase: true, out ReviewVerdict verdict) || !Enum.IsDefined(verdict))
            return $"verdict must be one of {string.Join(", ", Enum.GetNames<ReviewVerdict>())}";
        string shows = Unescape(csv.GetField("in colour"));
        if (shows is not ("" or Yes or No))
            return $"in colour must be {Yes}, {No} or empty";
        int? cover = null;
        if (Unescape(csv.GetField("cover")) is { Length: > 0 } covered)
        {
            if (!int.TryParse(covered, CultureInfo.InvariantCulture, out int share))
                return "cover is no whole number";
            cover = share;
        }
        review = new PlanterReview(stars, verdict, shows.Length == 0 ? null : shows == Yes, cover);
        return null;
    }

    private const int LogPiece = 2000;

    private static readonly SearchValues<char> Parting = SearchValues.Create("\",\r\n\t");

    private static readonly string[] LogColumns =
    [
        "id",
        "planter",
        "plant",
        "day",
        "what",
        "note",
        "by",
        "recorded",
        "called",
        "count",
        "corrects",
        "rating",
        "verdict",
        "in colour",
        "cover",
    ];

    private const string Yes = "yes";
    private const string No = "no";

    private static string? Empty(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    // Text that a spreadsheet would take for a formula gets an apostrophe in front; so does text that begins with an apostrophe and
    // would otherwise lose it on the way back.
    private static string Escape(string text) =>
        StartsFormula(text) || (text is ['\'', ..] && (StartsFormula(text[1..]) || text is ['\'', '\'', ..])) ? "'" + text : text;

    // What was escaped on the way out loses its mark on the way in.
    internal static string Unescape(string? text) =>
        text is ['\'', ..] && (StartsFormula(text[1..]) || text is ['\'', '\'', ..]) ? text[1..] : text ?? string.Empty;

    private static bool StartsFormula(string text) => text is ['=' or '+' or '-' or '@' or '\t' or '\r' or '\n', ..];

    internal static byte[] Write(Action<CsvWriter> rows, bool first = true)
    {
        using var stream = new MemoryStream();
        using (var writer = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: first)))
        using (
            var csv = new CsvWriter(
                writer,
                new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n", ShouldQuote = a => MustQuote(a.Field) }
            )
        )
        {
            rows(csv);
        }
        return stream.ToArray();
    }

    internal static void Row(CsvWriter csv, params object[] cells)
    {
        // A number below zero stays a number; only text that begins so is escaped.
        foreach (object cell in cells)
            csv.WriteField(cell is string text ? Escape(text) : cell);
        csv.NextRecord();
    }

    // A reader would part a cell at any line break, and trim blanks at its ends.
    private static bool MustQuote(string? field) =>
        !string.IsNullOrEmpty(field) && (field.AsSpan().ContainsAny(Parting) || char.IsWhiteSpace(field[0]) || char.IsWhiteSpace(field[^1]));
}
