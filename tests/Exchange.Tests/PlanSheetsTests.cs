using System.Text;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>Tables of displays, turns and stock, in and out.</summary>
public sealed class PlanSheetsTests
{
    private static readonly Plan Demo = ReadDemo();

    public static TheoryData<PlanSheetKind> Kinds => [.. Enum.GetValues<PlanSheetKind>()];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void What_is_written_says_nothing_new_when_it_is_read_as_csv_or_as_a_workbook(PlanSheetKind kind)
    {
        IReadOnlyList<string> columns = PlanSheets.Columns(kind);
        foreach (
            byte[] file in new[]
            {
                TypedTable.WriteCsv(columns, PlanSheets.Of(Demo, kind)),
                TypedTable.WriteWorkbook(columns, PlanSheets.Of(Demo, kind)),
            }
        )
        {
            PlanSheetChange change = Read(file, kind);
            Assert.Empty(change.Lines);
            Assert.True(change.Same > 0);
        }
    }

    [Fact]
    public void Rows_of_one_planter_layer_and_day_are_one_display_and_what_was_said_of_a_kind_stays()
    {
        Display old = Demo.Displays.First(d => d.Id == "bollard-pot-north-bulbs");
        string planter = Demo.FindPlanter(old.PlanterId)!.Name;
        string Row(string plant, int count) => $"\"{planter}\",bulbs,{old.Install:uuuu-MM-dd},{old.Lift:uuuu-MM-dd},{plant},{count}\n";
        PlanSheetChange change = Read(
            Encoding.UTF8.GetBytes(
                "planter,layer,goes in,comes out,plant,count\n"
                    + string.Concat(old.Items.Select(i => Row(i.PlantId, i.Count + (i.PlantId == "tulip-mid-red" ? 1 : 0))))
                    + "Flag pot,seasonal,2029-05-17,2029-09-27,\"Petunia, magenta\",5\nflag pot,seasonal,2029-05-17,2029-09-27,dusty-miller,2\n"
            ),
            PlanSheetKind.Displays
        );
        Display after = Assert.Single(change.DisplaysAfter);
        Assert.Equal(
            old.Items.Select(i => i with { Count = i.Count + (i.PlantId == "tulip-mid-red" ? 1 : 0), Places = null }),
            after.Items.Select(i => i with { Places = null })
        );
        Assert.Equal(old, Assert.Single(change.DisplaysBefore));
        Display added = Assert.Single(change.DisplaysAdded);
        Assert.Equal(["petunia-magenta", "dusty-miller"], added.Items.Select(i => i.PlantId));
        Assert.Equal((new LocalDate(2029, 5, 17), new LocalDate(2029, 9, 27)), (added.Install, added.Lift));
    }

    [Theory]
    [InlineData(
        PlanSheetKind.Displays,
        "No such pot,seasonal,2029-05-17,2029-09-27,petunia-magenta,5",
        "no planter in use is called \"No such pot\""
    )]
    [InlineData(PlanSheetKind.Displays, "Flag pot,seasonal,17.5.2029,2029-09-27,petunia-magenta,5", "write it as 2027-05-17")]
    [InlineData(PlanSheetKind.Displays, "Flag pot,2029-05-17,seasonal,2029-09-27,petunia-magenta,5", "is a column shifted?")]
    [InlineData(PlanSheetKind.Displays, "Flag pot,seasonal,2029-05-17,2029-09-27,petunia-magenta,\"2,5\"", "must be a whole number")]
    [InlineData(PlanSheetKind.Displays, "Flag pot,seasonal,2029-05-17,2029-09-27,petunia-magenta,5,x", "has 7 cells where there are 6 columns")]
    [InlineData(PlanSheetKind.Displays, "Flag pot,seasonal,2029-05-17,2029-05-01,petunia-magenta,5", "line 1")]
    [InlineData(PlanSheetKind.Displays, "Flag pot,seasonal,2029-05-17,2029-09-27,=A1,5", "holds a formula")]
    [InlineData(PlanSheetKind.Turns, "Summer,2029-06-17,2029-05-17", "line 1")]
    [InlineData(PlanSheetKind.Turns, "X,2029-05-17,2029-05-20\nx,2029-05-17,2029-05-20", "is there twice")]
    [InlineData(PlanSheetKind.Stock, "petunia-magenta,-4,waiting,Bench,2026-11-01", "must be a whole number")]
    [InlineData(PlanSheetKind.Stock, "petunia-magenta,4,asleep,Bench,2026-11-01", "is none of")]
    public void A_row_that_is_wrong_refuses_the_table_and_is_named(PlanSheetKind kind, string rows, string said) =>
        Assert.Contains(
            said,
            string.Join("; ", Assert.Throws<InvalidInputException>(() => Read(Encoding.UTF8.GetBytes(rows + "\n"), kind)).Faults),
            StringComparison.Ordinal
        );

    [Fact]
    public void Turns_and_lots_are_found_again_and_changed_or_added()
    {
        Turn turn = Demo.Turns[0];
        PlanSheetChange turns = Read(
            Encoding.UTF8.GetBytes(
                $"name,last day,first day\n{turn.Name},{turn.LastDay.PlusDays(2):uuuu-MM-dd},{turn.FirstDay:uuuu-MM-dd}\nNew one,2029-05-20,2029-05-17\n"
            ),
            PlanSheetKind.Turns
        );
        Assert.Equal(turn.LastDay.PlusDays(2), turns.TurnsAfter[0].LastDay);
        Assert.Equal([turn], turns.TurnsBefore);
        Assert.Equal([false, true], turns.Lines.Select(l => l.IsNew));
        Lot lot = Demo.Lots[0];
        PlanSheetChange lots = Read(
            Encoding.UTF8.GetBytes(
                $"{lot.PlantId}\t55\tforced\t{lot.Place}\t{lot.Since:uuuu-MM-dd}\tgood\npetunia-magenta\t20\twaiting\tBench 3\t2026-11-20\n"
            ),
            PlanSheetKind.Stock
        );
        Assert.Equal([lot.Id, "petunia-magenta-waiting"], lots.LotsAfter.Select(l => l.Id));
        Assert.Equal(55, lots.LotsAfter[0].Count);
    }

    private static PlanSheetChange Read(byte[] file, PlanSheetKind kind)
    {
        using var stream = new MemoryStream(file);
        return PlanSheets.Read(TypedTable.Read(stream), Demo, kind);
    }

    private static Plan ReadDemo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
