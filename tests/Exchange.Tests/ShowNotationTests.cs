using CsCheck;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Palette;

namespace UnrulyMeadow.Exchange.Tests;

public sealed class ShowNotationTests
{
    private static readonly Gen<double> Figure = Gen.Double[0.5, 300].Select(v => Math.Round(v, 3));

    private static readonly Gen<ColourRule> AnyRule = Gen.OneOf(
        Gen.Select(Figure, Figure, Figure, Figure, Figure).Select(f => (ColourRule)new BulbForcing(f.Item1, f.Item2, f.Item3, f.Item4, f.Item5)),
        Gen.Select(Figure, Figure, Figure).Select(f => (ColourRule)new AirHeat(f.Item1, f.Item2, f.Item3)),
        Gen.Select(Figure, Gen.Bool, Figure, Gen.Bool, Figure)
            .Select(f => (ColourRule)new FromInstall(f.Item1, f.Item2 ? f.Item3 : null, f.Item4 ? f.Item5 : null)),
        Gen.Const((ColourRule)new AllYear()),
        Gen.Select(Figure, Figure, Gen.Int[1, 60], Gen.Bool, Figure)
            .Select(f => (ColourRule)new InLeaf(f.Item1, f.Item2, f.Item3, f.Item4 ? f.Item5 : null)),
        Gen.Select(Figure, Figure, Gen.Int[1, 60]).Select(f => (ColourRule)new BareStem(f.Item1, f.Item2, f.Item3)),
        Gen.Select(Figure, Gen.Int[1, 60]).Select(f => (ColourRule)new CoolNights(f.Item1, f.Item2)),
        Gen.Select(Figure, Figure).Select(f => (ColourRule)new Cooling(f.Item1, f.Item2))
    );

    private static readonly Gen<ColourWindow> AnyWindow = Gen.Select(
            Gen.Enum<ColourPart>(),
            Gen.Int[0, 0xffffff].Select(c => $"#{c:x6}").List[1, 4],
            Gen.Double[0, 1],
            AnyRule,
            Gen.Double[0, 40]
        )
        .Select(
            (part, colours, share, rule, spread) => new ColourWindow(part, colours, Math.Round(share, 4), rule) { SpreadDays = Math.Round(spread, 2) }
        );

    [Fact]
    public void Any_windows_written_in_a_cell_are_read_back_the_same() =>
        AnyWindow
            .List[0, 4]
            .Sample(windows =>
            {
                IReadOnlyList<ColourWindow> back = ShowNotation.ReadWindows(ShowNotation.Write(windows));
                return windows.Count == back.Count
                    && windows
                        .Zip(back)
                        .All(w =>
                            w.First.Part == w.Second.Part
                            && w.First.Colours.SequenceEqual(w.Second.Colours)
                            && w.First.Rule == w.Second.Rule
                            && w.First.Share == w.Second.Share
                            && w.First.SpreadDays == w.Second.SpreadDays
                        );
            });

    [Fact]
    public void Every_rule_of_the_core_has_its_notation()
    {
        var rules = typeof(ColourRule).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(ColourRule))).ToList();
        Assert.Equal(rules.Count, ShowNotation.Rules.Count);
    }

    [Fact]
    public void Packs_and_grades_are_read_back_the_same()
    {
        Pack[] packs = [new("6-pack", 6, 4.5m), new("tray of 84 plugs", 84, 28.35m, 4), new("1:1 pot", 1, 0)];
        Assert.Equal(packs, ShowNotation.ReadPacks(ShowNotation.Write(packs)));
        BulbGrade[] grades = [new("12/+", 5.2, 4.25), new("double nose I", 4, 3.1)];
        Assert.Equal(grades, ShowNotation.ReadGrades(ShowNotation.Write(grades)));
        Assert.Empty(ShowNotation.ReadWindows(" ; "));
    }

    [Theory]
    [InlineData("flower", "share= is missing", "rule= must be one of")]
    [InlineData("7 #ffffff share=1 rule=all-year", "must begin with flower, leaf, stem, berry", "")]
    [InlineData("flower #ffffff share=1 share=1 rule=all-year", "each key once", "")]
    [InlineData("flower #ffffff share=1 rule=in-leaf base=5 sum=100 nights=2.5", "whole number", "")]
    [InlineData("flower #ffffff share=1 rule=all-year days=3", "it knows no figures", "")]
    public void What_is_no_window_is_said_in_words(string text, string said, string or)
    {
        string message = Assert.Throws<FormatException>(() => ShowNotation.ReadWindows(text)).Message;
        Assert.True(message.Contains(said, StringComparison.Ordinal) || (or.Length > 0 && message.Contains(or, StringComparison.Ordinal)), message);
    }

    [Theory]
    [InlineData("6-pack 6 @ 4.5")]
    [InlineData("6-pack: 6 4.5")]
    [InlineData("6-pack: 6 @ 4.5 w")]
    [InlineData("6-pack: 6 @ four")]
    public void What_is_no_pack_is_refused(string text) => Assert.Throws<FormatException>(() => ShowNotation.ReadPacks(text));

    [Fact]
    public void A_sheet_mangled_at_random_is_read_or_refused_and_never_anything_else()
    {
        byte[] sheet =
        [
            .. PaletteSheet.Write([
                .. Read(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "demo", "palette.csv"))).Take(4).Select(c => c.Plant),
            ]),
        ];
        Gen.Select(Gen.Int[0, sheet.Length - 1], Gen.Byte, Gen.Int[0, sheet.Length - 1], Gen.Byte)
            .Sample(
                (at, one, other, two) =>
                {
                    byte[] mangled = [.. sheet];
                    mangled[at] = one;
                    mangled[other] = two;
                    try
                    {
                        _ = Read(mangled);
                    }
                    catch (Core.InvalidInputException e)
                    {
                        Assert.NotEmpty(e.Faults);
                    }
                },
                iter: 3000
            );
    }

    private static IReadOnlyList<PlantChange> Read(byte[] sheet)
    {
        using var stream = new MemoryStream(sheet);
        return PaletteSheet.Read(stream, []);
    }

    [Theory]
    [InlineData("2-5 8-11", new[] { 2, 3, 4, 5, 8, 9, 10, 11 }, "2-5 8-11")]
    [InlineData("11-2", new[] { 1, 2, 11, 12 }, "1-2 11-12")]
    [InlineData("4", new[] { 4 }, "4")]
    [InlineData("", new int[0], "")]
    public void Months_of_sale_are_read_as_spans_and_written_back(string text, int[] months, string written)
    {
        Assert.Equal(months, ShowNotation.ReadMonths(text));
        Assert.Equal(written, ShowNotation.WriteMonths(months));
    }

    [Theory]
    [InlineData("0-3")]
    [InlineData("13")]
    [InlineData("spring")]
    public void What_is_no_month_is_refused(string text) => Assert.Throws<FormatException>(() => ShowNotation.ReadMonths(text));
}
