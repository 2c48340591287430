using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>Tables of planters as people paste them, and as the program writes them.</summary>
public sealed class PlanterSheetTests
{
    private static readonly Plan Empty = new(Site.Default, [], [], [], [], []);

    [Fact]
    public void Rows_pasted_without_headings_are_planters()
    {
        PlanterTable table = Read(
            "Gate pot\tEntrance\tround\t50\t\t45\t2\nLong trough\tEntrance\tbox\t120 cm\t40\t35\nRose bed\tPark\tbed\t4 m\t1,5m\t40\n"
        );
        Assert.Equal(["Gate pot 1", "Gate pot 2", "Long trough", "Rose bed"], table.Rows.Select(r => r.Planter.Name));
        Assert.Equal(["Entrance", "Park"], table.NewAreas.Select(a => a.Name));
        Assert.Equal(
            [(PlanterShape.Round, 50.0, 50.0), (PlanterShape.Round, 50, 50), (PlanterShape.Trough, 120, 40), (PlanterShape.RectangularBed, 400, 150)],
            table.Rows.Select(r => (r.Planter.Form.Shape, r.Planter.Form.TopLengthCm, r.Planter.Form.TopWidthCm))
        );
    }

    [Fact]
    public void Headings_may_stand_in_any_order_name_units_and_be_called_as_people_call_them()
    {
        PlanterTable table = Read("Location;Container;Diameter (in);Depth mm;Sun;Type\nQuay;Urn;20;450;part sun;pot\n");
        Planter urn = Assert.Single(table.Rows).Planter;
        Assert.Equal((50.8, 45.0, Exposure.PartSun), (urn.Form.TopLengthCm, urn.Form.DepthCm, urn.Exposure));
    }

    [Theory]
    [InlineData("Pot\tround\tQuay\t50\t\t45", "line 1", "is none of round, trough")]
    [InlineData("Pot\tQuay\tround\tfifty\t\t45", "line 1", "is no measure; write 50, 50 cm or 20 in")]
    [InlineData("Pot\tQuay\tround\t50\t\t", "line 1", "depth: is missing")]
    [InlineData("Pot\tQuay\tround\t50\t\t45\nPOT\tQuay\tround\t50\t\t45", "line 2", "as line 1 does")]
    [InlineData("Pot\tQuay\tround\t=A1*2\t\t45", "line 1", "holds a formula")]
    [InlineData("Pot\tQuay\tround\t50\t\t45\tmany", "line 1", "whole number from 1 to 500")]
    [InlineData("Pot\tQuay\tround\t2\t\t45", "line 1", "length: must be")]
    [InlineData("name\tarea\tname\nPot\tQuay\tPot", "line 1", "twice")]
    [InlineData("name\tarea\tprice\nPot\tQuay\t5", "line 1", "is no heading here")]
    [InlineData("Pot\tQuay\tround\t50\t\t45\t1\t\t\t\t\t\t\t\t\t\tone too many", "line 1", "columns")]
    public void What_is_wrong_is_said_with_its_line(string rows, string where, string said)
    {
        var fault = Assert.Throws<InvalidInputException>(() => Read(rows));
        Assert.Contains(fault.Faults, f => f.Field.StartsWith(where, StringComparison.Ordinal) && $"{f}".Contains(said, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(SiteUnits.Metric)]
    [InlineData(SiteUnits.UsCustomary)]
    public void What_is_written_and_brought_in_again_changes_nothing(SiteUnits units)
    {
        Plan demo = Demo();
        var plan = new Plan(
            demo.Site with
            {
                Units = units,
            },
            demo.Areas,
            demo.Planters,
            demo.Palette,
            demo.Displays,
            demo.Turns,
            demo.Map,
            demo.Lots
        );
        var (headings, rows) = PlanterSheet.Of(plan);
        foreach (byte[] file in new[] { TypedTable.WriteCsv(headings, rows), TypedTable.WriteWorkbook(headings, rows) })
        {
            PlanterTable table = PlanterSheet.Read(TypedTable.Read(new MemoryStream(file)), plan);
            Assert.Empty(table.Rows);
            Assert.Empty(table.NewAreas);
            Assert.Equal(plan.Planters.Count(p => p.Form.Shape != PlanterShape.OutlinedBed), table.Same);
        }
    }

    [Fact]
    public void One_cell_changed_changes_that_planter_alone()
    {
        Plan plan = Demo();
        var (headings, rows) = PlanterSheet.Of(plan);
        string csv = Encoding.UTF8.GetString(TypedTable.WriteCsv(headings, rows));
        Planter first = plan.Planters[0];
        string changed = csv.Replace($"\r\n{first.Name},", $"\r\n{first.Name},", StringComparison.Ordinal);
        string[] lines = changed.Split("\r\n");
        int at = Array.FindIndex(lines, l => l.Contains(first.Name, StringComparison.Ordinal));
        lines[at] = lines[at].Replace("full sun", "shade", StringComparison.Ordinal).Replace("part sun", "shade", StringComparison.Ordinal);
        PlanterTable table = PlanterSheet.Read(TypedTable.Read(new MemoryStream(Encoding.UTF8.GetBytes(string.Join("\r\n", lines)))), plan);
        PlanterRowChange row = Assert.Single(table.Rows);
        Assert.Equal(first with { Exposure = Exposure.Shade }, row.Planter);
    }

    [Fact]
    public void A_workbook_holds_its_cells_as_the_format_says()
    {
        // Office Open XML, ECMA-376 part 1: a sheet's cells are c elements of rows; text stands inline or in the shared strings.
        byte[] file = TypedTable.WriteWorkbook(
            ["name", "length cm"],
            [
                ["Gate pot", 50.5],
                ["Trough <west> & \"quay\"", 120],
            ]
        );
        using var archive = new ZipArchive(new MemoryStream(file));
        XNamespace ns = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        XDocument Part(string name) =>
            XDocument.Load(archive.Entries.First(e => e.FullName.EndsWith(name, StringComparison.OrdinalIgnoreCase)).Open());
        string[] shared = archive.Entries.Any(e => e.Name == "sharedStrings.xml")
            ? [.. Part("sharedStrings.xml").Descendants(ns + "si").Select(s => s.Value)]
            : [];
        string[][] cells =
        [
            .. Part("sheet1.xml")
                .Descendants(ns + "row")
                .Select(r =>
                    r.Elements(ns + "c")
                        .Select(c =>
                            c.Attribute("t")?.Value == "s" ? shared[int.Parse(c.Value, System.Globalization.CultureInfo.InvariantCulture)] : c.Value
                        )
                        .ToArray()
                ),
        ];
        Assert.Equal(
            [
                ["name", "length cm"],
                ["Gate pot", "50.5"],
                ["Trough <west> & \"quay\"", "120"],
            ],
            cells
        );
    }

    [Fact]
    public void Ten_thousand_rows_are_read_and_a_broken_or_swollen_workbook_is_refused()
    {
        string rows = string.Concat(Enumerable.Range(0, 10_000).Select(i => $"Pot {i}\tArea {i % 20}\tround\t{40 + i % 30}\t\t45\n"));
        Assert.Equal(10_000, Read(rows).Rows.Count);
        byte[] whole = TypedTable.WriteWorkbook(
            ["name", "area"],
            [
                ["a", "b"],
            ]
        );
        Assert.Throws<InvalidInputException>(() => TypedTable.Read(new MemoryStream(whole[..(whole.Length / 2)])));
        using var swollen = new MemoryStream();
        using (var archive = new ZipArchive(swollen, ZipArchiveMode.Create, leaveOpen: true))
        using (Stream entry = archive.CreateEntry("xl/worksheets/sheet1.xml").Open())
        {
            byte[] zeros = new byte[1 << 20];
            for (int i = 0; i < 210; i++)
                entry.Write(zeros);
        }
        Assert.Contains(
            "unpacks to more",
            Assert.Throws<InvalidInputException>(() => TypedTable.Read(new MemoryStream(swollen.ToArray()))).Message,
            StringComparison.Ordinal
        );
    }

    private static PlanterTable Read(string text) => PlanterSheet.Read(TypedTable.Read(new MemoryStream(Encoding.UTF8.GetBytes(text))), Empty);

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}
