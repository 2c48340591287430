using System.Text;
using CsCheck;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Tests;

public sealed class CsvSheetsTests
{
    private static readonly LocalDate Today = new(2026, 11, 23);

    [Fact]
    public void An_order_opens_cleanly_in_a_spreadsheet()
    {
        byte[] bytes = CsvSheets.Order(Order());
        Assert.Equal(Encoding.UTF8.Preamble.ToArray(), bytes[..3]);
        string[] lines = Encoding.UTF8.GetString(bytes[3..]).Split("\r\n");
        Assert.StartsWith("kind,plant,botanical name,planned,", lines[0], StringComparison.Ordinal);
        Assert.Equal(string.Empty, lines[^1]);
        int cells = lines[0].Split(',').Length;
        Assert.All(lines[..^1], l => Assert.Equal(cells, Cells(l)));
        Assert.Contains(lines, l => l.StartsWith("bulb,", StringComparison.Ordinal));
        Assert.Contains(lines, l => l.StartsWith("medium,", StringComparison.Ordinal));
    }

    [Fact]
    public void The_prices_of_an_orders_rows_add_up_to_its_cost()
    {
        TurnOrder order = Order();
        string[] lines = Encoding.UTF8.GetString(CsvSheets.Order(order)[3..]).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        int price = Split(lines[0]).ToList().IndexOf("price");
        decimal sum = lines.Skip(1).Sum(l => decimal.Parse(Split(l)[price], System.Globalization.CultureInfo.InvariantCulture));
        Assert.Equal(order.Cost, sum);
    }

    [Theory]
    [InlineData("=HYPERLINK(\"x\")")]
    [InlineData("+1")]
    [InlineData("@cmd")]
    [InlineData("-2+3")]
    public async Task A_note_that_would_be_taken_for_a_formula_is_escaped_and_comes_back_unharmed(string note)
    {
        byte[] bytes = await Written(Entry(note));
        Assert.Contains("'" + note[0], Encoding.UTF8.GetString(bytes), StringComparison.Ordinal);
        using var stream = new MemoryStream(bytes);
        Assert.Equal(note, Assert.Single(CsvSheets.ReadLog(stream, Today)).Note);
    }

    [Fact]
    public async Task A_log_comes_back_as_it_went_out()
    {
        Observation[] log = [Entry("dry, \"again\"\nat noon"), Entry(string.Empty) with { PlantId = null, Kind = ObservationKind.Died }];
        using var stream = new MemoryStream(await Written(log));
        Assert.Equal(log, CsvSheets.ReadLog(stream, Today));
    }

    [Fact]
    public async Task Losses_corrections_and_reviews_come_back_and_a_review_that_cannot_be_read_is_named()
    {
        Observation died = Entry("frost") with { Kind = ObservationKind.Died, Count = 7 };
        Observation[] log =
        [
            died,
            Entry("it was fewer") with
            {
                Kind = ObservationKind.Died,
                Count = 2,
                Corrects = died.Id,
            },
            Entry("-3 rows") with
            {
                Kind = ObservationKind.Reviewed,
                Review = new PlanterReview(5, ReviewVerdict.Repeat, false, 100),
            },
            Entry(string.Empty) with
            {
                Kind = ObservationKind.Reviewed,
                Review = new PlanterReview(1, ReviewVerdict.Drop),
            },
        ];
        byte[] bytes = await Written(log);
        using (var stream = new MemoryStream(bytes))
            Assert.Equal(log, CsvSheets.ReadLog(stream, Today));
        string text = Encoding.UTF8.GetString(bytes);
        foreach (
            (string good, string bad, string why) in new[] { ("5,Repeat", "9,Repeat", "from 1 to 5"), ("1,Drop", "1,Burn", "verdict must be one of") }
        )
        {
            using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text.Replace(good, bad, StringComparison.Ordinal)));
            Assert.Contains(why, Assert.Throws<InvalidInputException>(() => CsvSheets.ReadLog(stream, Today)).Message, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Whatever_is_typed_comes_back_and_is_written_again_byte_for_byte()
    {
        // The marks that sheets, spreadsheets and readers trip over, in any order and number.
        Gen<string> typed = Gen.OneOf(
                OneOf("'", "=", "-", "+", "@", "\t", "\r", "\n", "\r\n", "\"", ",", ";", " ", "''", "é", "👩‍🌾", "\u2028", "a"),
                Gen.Char[' ', '\uD7FF'].Select(c => c is < ' ' or (>= '\u007F' and < '\u00A0') or (>= '\uFDD0' and <= '\uFDEF') ? "x" : $"{c}")
            )
            .Array[0, 12]
            .Select(string.Concat);
        await typed
            .Select(typed, Gen.Long[0, 4_000_000_000_000_000], (note, by, ticks) => (note, by, ticks))
            .SampleAsync(
                async t =>
                {
                    Observation entry = Entry(t.note) with
                    {
                        By = PlainText.Cut(string.Concat("R", t.by.Where(c => !char.IsControl(c))), 20),
                        RecordedAt = Instant.FromUnixTimeTicks(t.ticks / 10 * 10),
                        PlantName = "=Tulip, \"mid\" red",
                    };
                    byte[] written = await Written(entry, entry with { Id = Guid.NewGuid(), Kind = ObservationKind.Peak });
                    using var stream = new MemoryStream(written);
                    IReadOnlyList<Observation> read = CsvSheets.ReadLog(stream, Today);
                    byte[] again = await Written([.. read]);
                    return written.AsSpan().SequenceEqual(again) && read[0].Note == t.note;
                },
                iter: 3000
            );
    }

    [Fact]
    public void A_sheet_far_wider_than_any_is_refused_before_it_is_taken_apart()
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(new string(',', 9_000_000)));
        Assert.Contains(
            "more than 500 cells",
            Assert.Throws<InvalidInputException>(() => CsvSheets.ReadLog(stream, Today)).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Every_faulty_row_of_a_log_is_named_and_none_is_taken()
    {
        string text =
            "id,planter,plant,day,what,note,by\n"
            + $"{Guid.NewGuid()},pot,,soon,Peak,,Rosa\n"
            + $"{Guid.NewGuid()},pot,,2026-10-01,Wilted,,Rosa\n"
            + $"{Guid.NewGuid()},pot,,2027-10-01,Peak,,Rosa\n"
            + "x,pot,,2026-10-01,Peak,,Rosa\n";
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
        var faults = Assert.Throws<InvalidInputException>(() => CsvSheets.ReadLog(stream, Today)).Faults;
        Assert.Equal(["line 2", "line 3", "line 4.day", "line 5"], faults.Select(f => f.Field));
    }

    [Theory]
    [InlineData("")]
    [InlineData("a,b,c\n1,2,3\n")]
    public void A_file_that_is_no_log_is_refused(string text)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
        Assert.Throws<InvalidInputException>(() => CsvSheets.ReadLog(stream, Today));
    }

    private static Gen<string> OneOf(params string[] marks) => Gen.Int[0, marks.Length - 1].Select(i => marks[i]);

    private static async Task<byte[]> Written(params Observation[] log)
    {
        var bytes = new List<byte>();
        await foreach (byte[] piece in CsvSheets.Log(log.ToAsyncEnumerable()))
            bytes.AddRange(piece);
        return [.. bytes];
    }

    private static Observation Entry(string note) =>
        new(Guid.NewGuid(), "pot", "pansy", new LocalDate(2026, 10, 2), ObservationKind.Note, note, "Rosa")
        {
            Kind = string.IsNullOrWhiteSpace(note) ? ObservationKind.Peak : ObservationKind.Note,
        };

    private static TurnOrder Order()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        Plan plan = PlanFile.Read(file);
        return TurnOrder.For(plan, plan.Turns.First(t => t.Id == "bulbs-2026"));
    }

    private static int Cells(string line) => Split(line).Count;

    private static List<string> Split(string line)
    {
        using var csv = new CsvHelper.CsvParser(new StringReader(line), System.Globalization.CultureInfo.InvariantCulture);
        csv.Read();
        return [.. csv.Record!];
    }
}
