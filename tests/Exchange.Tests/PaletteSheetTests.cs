using System.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Tests;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Tests;

public sealed class PaletteSheetTests
{
    private const string Columns = (
        "id,botanical name,common name,kind,habit,height cm,spread bought cm,spread "
        + "grown cm,light low,light high,water,tops spoiled C,green leaf,shows,packs,source"
    );
    private const string Row = (
        "poppy-red,Papaver rhoeas,\"Poppy, red\",cool-season-annual,upright,40,10,20,full-sun,full-sun,low,-6,in-season,flower "
        + "#d02f2f share=0.5 rule=from-install bud=10,6-pack: 6 @ 4.5,our own"
    );

    private static readonly IReadOnlyList<Plant> Shipped =
    [
        .. Read(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "demo", "palette.csv"))).Select(c => c.Plant),
    ];

    [Fact]
    public void The_shipped_palette_holds_what_a_crew_plants()
    {
        Assert.True(Shipped.Count >= 220, $"{Shipped.Count}");
        Assert.True(Shipped.Count(p => p.LifeForm == LifeForm.Bulb) >= 60);
        string[] genera =
        [
            "Galanthus",
            "Eranthis",
            "Crocus",
            "Iris",
            "Narcissus",
            "Hyacinthus",
            "Muscari",
            "Scilla",
            "Fritillaria",
            "Tulipa",
            "Allium",
            "Camassia",
            "Lilium",
            "Colchicum",
            "Canna",
            "Dahlia",
            "Caladium",
            "Erica",
            "Athyrium",
            "Picea",
            "Cornus",
        ];
        Assert.Superset(genera.ToHashSet(), Shipped.Select(p => BotanicalName.Genus(p.BotanicalName)).ToHashSet());
        Assert.All(Enum.GetValues<LifeForm>(), k => Assert.Contains(Shipped, p => p.LifeForm == k));
        Assert.All(new[] { ColourPart.Stem, ColourPart.Berry, ColourPart.Leaf }, part =>
            Assert.True(Shipped.Count(p => p.Windows.Any(w => w.Part == part)) >= 5)
        );
        Assert.All(Shipped, p => Assert.Contains("memory", p.Source, StringComparison.Ordinal));
    }

    [Fact, CommonPractice]
    public void Nothing_in_the_shipped_palette_is_hardly_possible() => Assert.Empty(PaletteCheck.Of(Shipped).Select(r => $"{r.PlantId}: {r.Says}"));

    [Fact, CommonPractice]
    public void Bulbs_lie_at_three_times_their_height_within_what_gardens_do()
    {
        foreach (Plant p in Shipped.Where(p => p.Bulb is not null))
            Assert.InRange(3 * p.Bulb!.HeightCm, 4, 22);
        Assert.All(Shipped.Where(p => p.BotanicalName.StartsWith("Tulipa,", StringComparison.Ordinal)), p =>
            Assert.InRange(3 * p.Bulb!.HeightCm, 12, 20)
        );
    }

    [Fact]
    public void Every_plant_that_is_poisonous_warns_and_defers()
    {
        Assert.All(Shipped.Where(p => p.Harm.People == Hazard.Poisonous), p => Assert.NotEmpty(p.Cautions));
        Assert.Contains("poison control", Harm.WhereToAsk, StringComparison.Ordinal);
        Assert.All(Shipped.Where(p => p.LocalStatus.Contains("nvasive", StringComparison.Ordinal)), p =>
            Assert.Contains("local list", p.LocalStatus, StringComparison.Ordinal)
        );
    }

    [Fact]
    public void The_demo_plan_plants_from_the_shipped_palette()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        Assert.Equal(PaletteSheet.Write(Shipped), PaletteSheet.Write(PlanFile.Read(file).Palette));
    }

    [Fact]
    public void A_palette_written_and_read_changes_nothing()
    {
        byte[] sheet = PaletteSheet.Write(Shipped);
        Assert.Equal(sheet, PaletteSheet.Write([.. Read(sheet).Select(c => c.Plant)]));
        Assert.Empty(Read(sheet, Shipped));
    }

    [Fact]
    public void A_new_plant_comes_in_with_its_rules()
    {
        PlantChange change = Assert.Single(Read(Sheet(Columns, Row)));
        Assert.True(change.IsNew);
        Assert.Equal(new FromInstall(10), change.Plant.Windows[0].Rule);
        Assert.Equal(-6, change.Plant.TopDamageC);
        Assert.Null(change.Plant.Bulb);
    }

    [Fact]
    public void A_sheet_of_two_columns_changes_one_figure_and_leaves_the_rest()
    {
        Plant before = Shipped.First(p => p.Id == "snowdrop");
        PlantChange change = Assert.Single(Read(Sheet("id,height cm", "snowdrop,15"), Shipped));
        Assert.False(change.IsNew);
        Assert.Equal([new CellChange("height cm", "14", "15")], change.Cells);
        Assert.Equal(PaletteSheet.Write([before with { HeightCm = 15 }]), PaletteSheet.Write([change.Plant]));
    }

    [Fact]
    public void A_byte_order_mark_and_empty_lines_are_passed_over() =>
        Assert.Single(Read([.. Encoding.UTF8.Preamble, .. Sheet(Columns, ",,,,,,,,,,,,,,,", Row, string.Empty)]));

    [Theory]
    [InlineData("40,10,20", "4O,10,20", "line 2, height cm: \"4O\" is no number")]
    [InlineData("40,10,20", "\"40,5\",10,20", "line 2, height cm: \"40,5\" has a decimal comma; write 40.5")]
    [InlineData("#d02f2f", "#d02fzz", "line 2, shows: \"#d02fzz\" is no colour")]
    [InlineData("share=0.5", "share=1.5", "line 2, shows: must be from 0 to 1")]
    [InlineData("bud=10", "base=10", "rule from-install has no \"base\"")]
    [InlineData("bud=10", "", "needs bud=")]
    [InlineData("rule=from-install", "rule=by-moon", "rule= must be one of")]
    [InlineData("@ 4.5", "@ -4.5", "line 2, packs: must be from 0")]
    [InlineData("6-pack: 6", "6-pack: six", "\"six\" is no whole number")]
    [InlineData("upright", "sideways", "line 2, habit: \"sideways\" must be one of upright, mounding, trailing")]
    [InlineData("Papaver rhoeas", "", "line 2, botanical name: must not be empty")]
    [InlineData("poppy-red", "Poppy Red", "line 2, id: must be of lower-case letters")]
    [InlineData("-6", "-600", "line 2, tops spoiled C: must be from −60")]
    public void A_wrong_cell_is_named_by_line_and_column(string right, string wrong, string said) =>
        Assert.Contains(Refused(Sheet(Columns, Row.Replace(right, wrong, StringComparison.Ordinal))), f =>
            f.ToString().Contains(said, StringComparison.Ordinal)
        );

    [Fact]
    public void Unknown_twice_given_and_missing_columns_are_named()
    {
        Assert.Equal(
            ["there is no column \"colour of pot\"; see the list of columns", "the column \"id\" stands twice"],
            Refused(Sheet("id,colour of pot,id", "a,b,c")).Select(f => f.Message)
        );
        Assert.Contains("id", Assert.Single(Refused(Sheet("height cm", "4"))).Message, StringComparison.Ordinal);
        Assert.Contains(Refused(Sheet("id,height cm", "newcomer,15")), f =>
            f.Message.Contains("needs the column \"botanical name\"", StringComparison.Ordinal)
        );
        Assert.Contains("save the sheet with commas", Assert.Single(Refused(Sheet("id;height cm", "snowdrop;15"))).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Ids_and_names_that_stand_twice_are_named()
    {
        Assert.Contains(Refused(Sheet(Columns, Row, Row)), f => f.ToString() == "line 3, id: \"poppy-red\" stands in line 2 already");
        Assert.Contains(Refused(Sheet(Columns, Row, Row.Replace("poppy-red,", "poppy-two,", StringComparison.Ordinal))), f =>
            f.Message.Contains("is the name of poppy-red too", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void All_or_nothing_one_wrong_line_takes_none()
    {
        var faults = Refused(
            Sheet(
                Columns,
                Row,
                Row.Replace("poppy-red", "poppy-pink", StringComparison.Ordinal)
                    .Replace("Poppy, red", "Poppy, pink", StringComparison.Ordinal)
                    .Replace(",40,", ",much,", StringComparison.Ordinal)
            )
        );
        Assert.Equal("line 3, height cm: \"much\" is no number", Assert.Single(faults).ToString());
    }

    [Fact]
    public void A_formula_in_a_cell_is_neutral_in_the_file_and_itself_again_when_read()
    {
        Plant sly = Shipped[0] with { CommonName = "=HYPERLINK(1)", Source = "-1+2" };
        string text = Encoding.UTF8.GetString(PaletteSheet.Write([sly]));
        Assert.Contains("'=HYPERLINK", text, StringComparison.Ordinal);
        Assert.Contains("'-1+2", text, StringComparison.Ordinal);
        Assert.Equal(
            ("=HYPERLINK(1)", "-1+2"),
            (Read(PaletteSheet.Write([sly]))[0].Plant.CommonName, Read(PaletteSheet.Write([sly]))[0].Plant.Source)
        );
    }

    [Fact]
    public void What_is_no_text_and_what_is_no_closed_quote_is_refused()
    {
        Assert.Contains("CSV UTF-8", Assert.Single(Refused([0x69, 0x64, 0x0a, 0xff, 0xfe, 0xff])).Message, StringComparison.Ordinal);
        Assert.NotEmpty(Refused(Sheet(Columns, Row.Replace("\"Poppy, red\"", "\"Poppy, red", StringComparison.Ordinal))));
        Assert.Contains("empty", Assert.Single(Refused([])).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void The_columns_in_the_guide_are_the_columns_of_the_sheet()
    {
        string guide = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "docs", "palette-columns.md"));
        Assert.All(PaletteColumns.All, c =>
            Assert.Contains(
                $"| {(c.Required ? "**" : "")}{c.Name}{(c.Required ? "**" : "")} | {c.About.Replace("|", "\\|", StringComparison.Ordinal)} |",
                guide,
                StringComparison.Ordinal
            )
        );
    }

    private static byte[] Sheet(params string[] lines) => Encoding.UTF8.GetBytes(string.Join("\r\n", lines));

    private static IReadOnlyList<PlantChange> Read(byte[] sheet, IReadOnlyList<Plant>? present = null)
    {
        using var stream = new MemoryStream(sheet);
        return PaletteSheet.Read(stream, present ?? []);
    }

    private static IReadOnlyList<Fault> Refused(byte[] sheet) => Assert.Throws<InvalidInputException>(() => Read(sheet, Shipped)).Faults;
}
