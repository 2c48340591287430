using System.Text;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;
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
        decimal sum = lines.Skip(1).Sum(l => decimal.Parse(Split(l)[9], System.Globalization.CultureInfo.InvariantCulture));
        Assert.Equal(order.Cost, sum);
    }

    [Theory]
    [InlineData("=HYPERLINK(\"x\")")]
    [InlineData("+1")]
    [InlineData("@cmd")]
    [InlineData("-2+3")]
    public void A_note_that_would_be_taken_for_a_formula_is_escaped_and_comes_back_unharmed(string note)
    {
        byte[] bytes = CsvSheets.Log([Entry(note)]);
        Assert.Contains("'" + note[0], Encoding.UTF8.GetString(bytes), StringComparison.Ordinal);
        using var stream = new MemoryStream(bytes);
        Assert.Equal(note, Assert.Single(CsvSheets.ReadLog(stream, Today)).Note);
    }

    [Fact]
    public void A_log_comes_back_as_it_went_out()
    {
        Observation[] log = [Entry("dry, \"again\"\nat noon"), Entry(string.Empty) with { PlantId = null, Kind = ObservationKind.Died }];
        using var stream = new MemoryStream(CsvSheets.Log(log));
        Assert.Equal(log, CsvSheets.ReadLog(stream, Today));
    }

    [Fact]
    public void Every_faulty_row_of_a_log_is_named_and_none_is_taken()
    {
        string text = "id,planter,plant,day,what,note,by\n" +
            $"{Guid.NewGuid()},pot,,soon,Peak,,Rosa\n" +
            $"{Guid.NewGuid()},pot,,2026-10-01,Wilted,,Rosa\n" +
            $"{Guid.NewGuid()},pot,,2027-10-01,Peak,,Rosa\n" +
            "x,pot,,2026-10-01,Peak,,Rosa\n";
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

    private static Observation Entry(string note) => new(Guid.NewGuid(), "pot", "pansy", new LocalDate(2026, 10, 2), ObservationKind.Note, note, "Rosa") { Kind = note.Length == 0 ? ObservationKind.Peak : ObservationKind.Note };

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
