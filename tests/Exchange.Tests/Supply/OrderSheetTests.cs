using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Supply;

namespace UnrulyMeadow.Exchange.Tests.Supply;

/// <summary>What a supplier is sent.</summary>
public sealed class OrderSheetTests
{
    private static readonly PurchaseOrder Order = new(
        Guid.CreateVersion7(),
        new Supplier("grower", "Grower") { DeliveryCharge = 30, Discounts = [new OffForEvery(25, 5, 20)] },
        [
            new OrderedLine(1, "a", "Petunia", "tray of 18", 18, 10, 9m, new LocalDate(2027, 5, 10)) { TheirName = "Pet. mag. <18>" },
            new OrderedLine(2, "b", "Lobelia", "4-pack", 4, 3, 2.5m, new LocalDate(2027, 5, 10)),
        ]
    );

    // By hand: 90 and 7.50 make 97.50; three full 25 take 15 off; 30 for delivery; 112.50 to be paid.
    [Fact]
    public void The_workbook_read_by_its_own_xml_holds_the_suppliers_names_and_the_bill()
    {
        List<List<string>> rows = Read(OrderSheet.Workbook(Order));
        Assert.Equal(["line", "plant", "form", "packs", "in a pack", "plants", "price of a pack", "price", "wanted by"], rows[0]);
        Assert.Equal(["1", "Pet. mag. <18>", "tray of 18", "10", "18", "180", "9", "90", "2027-05-10"], rows[1]);
        Assert.Equal("Lobelia", rows[2][1]);
        Assert.Equal(["taken off -15", "delivery 30", "to be paid 112.5"], rows.Skip(3).Select(r => $"{r[1]} {r[7]}"));
    }

    [Fact]
    public void The_csv_says_the_same()
    {
        string csv = Encoding.UTF8.GetString(OrderSheet.Csv(Order));
        Assert.Contains("Pet. mag. <18>", csv, StringComparison.Ordinal);
        Assert.Contains("112.5", csv, StringComparison.Ordinal);
    }

    // Office Open XML (ISO/IEC 29500) as it stands in the package, without the library that wrote it.
    private static List<List<string>> Read(byte[] workbook)
    {
        using var zip = new ZipArchive(new MemoryStream(workbook));
        XNamespace main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        XDocument Part(string name)
        {
            using Stream stream = zip.GetEntry(name)!.Open();
            return XDocument.Load(stream);
        }
        List<string> shared = zip.GetEntry("xl/sharedStrings.xml") is null
            ? []
            : [.. Part("xl/sharedStrings.xml").Descendants(main + "si").Select(s => s.Value)];
        return
        [
            .. Part("xl/worksheets/sheet1.xml")
                .Descendants(main + "row")
                .Select(r =>
                    r.Elements(main + "c")
                        .Select(c =>
                            c.Attribute("t")?.Value == "s" ? shared[int.Parse(c.Value, System.Globalization.CultureInfo.InvariantCulture)] : c.Value
                        )
                        .ToList()
                ),
        ];
    }
}
