namespace UnrulyMeadow.Core.Tests;

/// <summary>The one rule for texts.</summary>
public sealed class PlainTextTests
{
    [Theory]
    [InlineData("Great pot")]
    [InlineData("naïve “quotes” \\ % <b> 'x'")]
    [InlineData("مزهرية كبيرة")]
    [InlineData("👩‍👩‍👧‍👦 bed")]
    public void What_people_write_in_any_script_is_taken(string text) => Assert.Null(PlainText.Fault(text, 60, lines: false));

    [Theory]
    [InlineData("a\0b")]
    [InlineData("a\u0001b")]
    [InlineData("a\u007fb")]
    [InlineData("a\u0085b")]
    [InlineData("a\uFFFEb")]
    [InlineData("a\uFDD0b")]
    [InlineData("a\U0001FFFFb")]
    public void Control_characters_and_noncharacters_are_refused_and_can_be_mended(string text) => RefusedAndMended(text);

    // Not as data of a theory, which is written in UTF-8.
    [Fact]
    public void Half_characters_are_refused_and_can_be_mended()
    {
        RefusedAndMended("a\uD800b");
        RefusedAndMended("\uDC00");
        RefusedAndMended("\uD83C");
    }

    private static void RefusedAndMended(string text)
    {
        Assert.NotNull(PlainText.Fault(text, 60, lines: true));
        string mended = PlainText.Mended(text);
        Assert.Null(PlainText.Fault(mended, 60, lines: true));
        Assert.Same(mended, PlainText.Mended(mended));
    }

    [Theory]
    [InlineData("\n")]
    [InlineData("\r\n")]
    [InlineData("\t")]
    public void Line_breaks_and_tabs_belong_into_notes_and_not_into_names(string mark)
    {
        Assert.Null(PlainText.Fault($"a{mark}b", 60, lines: true));
        Assert.Equal("must be one line without tabs", PlainText.Fault($"a{mark}b", 60, lines: false));
    }

    [Fact]
    public void Length_is_what_a_reader_counts_and_a_heap_of_marks_is_no_letter()
    {
        Assert.Equal(2, PlainText.Length("👨‍🌾e\u0301"));
        Assert.Null(PlainText.Fault(string.Concat(Enumerable.Repeat("👨‍🌾", 60)), 60, lines: false));
        Assert.Contains("it has 61", PlainText.Fault(string.Concat(Enumerable.Repeat("👨‍🌾", 61)), 60, lines: false), StringComparison.Ordinal);
        Assert.Contains("marks", PlainText.Fault("e" + new string('\u0301', 5000), 60, lines: false), StringComparison.Ordinal);
    }

    [Fact]
    public void A_text_is_never_cut_through_what_a_reader_sees_as_one_character()
    {
        for (int most = 2; most < 40; most++)
        {
            string cut = PlainText.Cut(string.Concat(Enumerable.Repeat("👨‍🌾e\u0301", 10)), most);
            Assert.True(cut.Length <= most);
            Assert.Null(PlainText.Fault(cut, 60, lines: false));
        }
    }

    [Fact]
    public void Of_thousands_of_faults_the_first_hundred_are_named_and_all_are_counted()
    {
        var faults = new FaultList();
        for (int i = 0; i < 200_000; i++)
            faults.AddAll($"areas[{i}]", [new Fault("name", "must not be empty")]);
        InvalidInputException e = Assert.Throws<InvalidInputException>(faults.ThrowIfAny);
        Assert.Equal(101, e.Faults.Count);
        Assert.StartsWith("199,900 more", e.Faults[^1].Message, StringComparison.Ordinal);
        Assert.True(e.Message.Length < 2000);
    }
}
