using System.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;

namespace UnrulyMeadow.Exchange.Tests.Supply;

/// <summary>Price lists as suppliers send them.</summary>
public sealed class PriceListTests
{
    private static readonly IReadOnlyList<Plant> Palette = Shipped();

    [Theory]
    [InlineData("12.50", "12.50", 1)]
    [InlineData("$12.50", "12.50", 1)]
    [InlineData("12,50 €", "12.50", 1)]
    [InlineData("EUR 1.234,50", "1234.50", 1)]
    [InlineData("1,234.50", "1234.50", 1)]
    [InlineData("1 234,5", "1234.5", 1)]
    [InlineData("1\u00a0234,50\u00a0€", "1234.50", 1)]
    [InlineData("1,234", "1234", 1)]
    [InlineData("0,125", "0.125", 1)]
    [InlineData("45.00 per 100", "45.00", 100)]
    [InlineData("£45/100", "45", 100)]
    [InlineData("9", "9", 1)]
    public void A_price_is_read_with_its_currency_decimal_mark_and_how_many_it_is_for(string text, string price, int per)
    {
        (decimal Price, int Per) read = PriceText.Read(text)!.Value;
        Assert.Equal((decimal.Parse(price, System.Globalization.CultureInfo.InvariantCulture), per), read);
    }

    [Theory]
    [InlineData("")]
    [InlineData("on request")]
    [InlineData("-3")]
    [InlineData("1.2.3,4,5 x")]
    [InlineData("5 per 0")]
    public void What_is_no_price_is_none(string text) => Assert.Null(PriceText.Read(text));

    [Theory]
    [InlineData("flat of 18", 18)]
    [InlineData("6-pack", 6)]
    [InlineData("tray of 84 plugs", 84)]
    [InlineData("tray 84 plugs", 84)]
    [InlineData("10 cm pot", 1)]
    [InlineData("3-gallon container", 1)]
    [InlineData("crate of 250, 12/14 cm", 250)]
    [InlineData("cell pack", null)]
    [InlineData("grade 12/14", null)]
    public void Without_a_column_for_it_the_pack_tells_how_many_are_in_it_and_no_measure_is_taken_for_a_count(string form, int? size)
    {
        PriceListReading read = Read($"Plant name;Pack;Price\nLobelia, blue;{form};9,90 €");
        Assert.Equal(size, read.Offers is [var one] ? one.PackSize : null);
        Assert.Equal(size is null ? 1 : 0, read.Faults.Count);
    }

    [Fact]
    public void A_list_with_a_title_merged_names_price_steps_and_unknown_kinds_is_read_line_by_line()
    {
        PriceListReading read = Read(
            """
            Spring list of the Hill nursery;;;;
            ;;;;
            Plant name;Pack;Plants per pack;Price;Price from 10
            Bedding;;;;
            Lobelia, blue;flat of 18;18;9,90 €;8,90 €
            ;6-pack;6;4,20 €;
            Marigold, orange;flat of 18;18;9,00;
            Moonflower, green;flat of 18;18;7,00;
            """
        );
        Assert.Empty(read.Faults);
        Assert.Equal((8, "Moonflower, green"), Assert.Single(read.Unknown));
        Assert.Equal(3, read.Offers.Count);
        Offer flat = read.Offers[0];
        Assert.Equal(("lobelia-blue", "flat of 18", 18), (flat.PlantId, flat.Form, flat.PackSize));
        Assert.Equal([new PriceStep(1, 9.90m), new PriceStep(10, 8.90m)], flat.Steps);
        Assert.Equal(("lobelia-blue", "6-pack"), (read.Offers[1].PlantId, read.Offers[1].Form));
    }

    [Fact]
    public void A_price_per_hundred_is_one_of_plants_and_not_of_packs()
    {
        PriceListReading read = Read("Plant;Pack;Size;Price\nsnowdrop;bag of 50;50;45.00 per 100\nlobelia-blue;flat;18;9.90 each");
        Assert.Equal([22.50m, 9.90m], read.Offers.Select(o => o.Steps[0].Price));
    }

    [Fact]
    public void A_line_twice_counts_once_and_two_prices_for_one_pack_are_named_with_both_lines()
    {
        PriceListReading read = Read(
            """
            Plant;Pack;Size;Price
            Lobelia, blue;flat of 18;18;9.90
            Lobelia, blue;flat of 18;18;9.90
            Lobelia, blue;flat of 18;18;8.10
            Marigold, orange;flat of 18;eighteen;9.00
            Marigold, orange;6-pack;6;on request
            """
        );
        Assert.Single(read.Offers);
        Assert.Equal(["line 4", "line 5", "line 6"], read.Faults.Select(f => f.Field));
        Assert.Contains("line 2", read.Faults[0].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Months_of_delivery_and_what_is_grown_to_order_are_read_from_their_own_columns()
    {
        PriceListReading read = Read(
            """
            Plant;Pack;Size;Price;Months;Contract
            Lobelia, blue;flat of 18;18;9.90;Apr-Jun;yes
            Lobelia, blue;tray of 84 plugs;84;19.90;10 to 2;no
            Marigold, orange;flat of 18;18;9.00;all year;
            Marigold, orange;6-pack;6;4.00;soon;
            """
        );
        Assert.Equal(
            [
                [4, 5, 6],
                [1, 2, 10, 11, 12],
                [],
                [],
            ],
            read.Offers.Select(o => o.Months)
        );
        Assert.Equal([true, false, false, false], read.Offers.Select(o => o.IsContract));
        Assert.Equal("line 5", Assert.Single(read.Faults).Field);
    }

    [Fact]
    public void A_heading_that_is_gone_and_a_list_without_headings_are_said()
    {
        const string list = "Plant;Pack;Size;Price\nLobelia, blue;flat of 18;18;9.90";
        IReadOnlyList<TypedRow> rows = Rows(list);
        PriceListColumns columns = PriceList.Guess(PriceList.HeadingsOf(rows)!.Cells);
        InvalidInputException gone = Assert.Throws<InvalidInputException>(() =>
            PriceList.Read(rows, columns with { Size = "per tray" }, "hill", Palette)
        );
        Assert.Contains("per tray", gone.Message, StringComparison.Ordinal);
        Assert.Throws<InvalidInputException>(() => PriceList.Read(Rows("1;2;3\n4;5;6"), columns, "hill", Palette));
    }

    [Fact]
    public void Twenty_thousand_lines_are_read_and_every_price_is_the_one_that_was_written()
    {
        var list = new StringBuilder("Plant;Pack;Size;Price\n");
        for (int i = 0; i < 19_000; i++)
            list.Append(Palette[i % Palette.Count].Id)
                .Append(";pack ")
                .Append(i)
                .Append(";6;")
                .Append(i % 90)
                .Append(",5")
                .Append(i % 10)
                .Append('\n');
        PriceListReading read = Read(list.ToString());
        Assert.Equal(19_000, read.Offers.Count);
        Assert.All(read.Offers, (o, i) => Assert.Equal((i % 90) + 0.5m + (i % 10 / 100m), o.Steps[0].Price));
    }

    private static PriceListReading Read(string list)
    {
        IReadOnlyList<TypedRow> rows = Rows(list);
        return PriceList.Read(rows, PriceList.Guess(PriceList.HeadingsOf(rows)!.Cells), "hill", Palette);
    }

    private static IReadOnlyList<TypedRow> Rows(string list)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(list));
        return TypedTable.Read(stream);
    }

    private static IReadOnlyList<Plant> Shipped()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "palette.csv"));
        return [.. PaletteSheet.Read(file, []).Select(c => c.Plant)];
    }
}
