using System.Globalization;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Wording.Tests;

/// <summary>Every kind has its words, in every language with the same parts.</summary>
public sealed class TextsTests
{
    private static readonly CultureInfo English = CultureInfo.InvariantCulture;

    public static TheoryData<string> Sets => [.. Texts.Names.Except(Texts.OfPages)];

    public static TheoryData<string> Languages => [.. Texts.Languages];

    [Theory]
    [MemberData(nameof(Sets))]
    public void Every_kind_has_its_words_and_no_words_stand_for_a_kind_that_is_not_there(string set)
    {
        Type kinds = Assert.Single(typeof(Working).Assembly.GetTypes(), t => t.IsEnum && t.Name == set);
        var worded = Texts
            .All(set, English)
            .Keys.ToLookup(k => k.Split('.')[0], k => k.Contains('.', StringComparison.Ordinal) ? k.Split('.')[1] : "");
        Assert.Equal(Enum.GetNames(kinds).Order(StringComparer.Ordinal), worded.Select(w => w.Key).Order(StringComparer.Ordinal));
        // Those of one set say the same of each kind: what, why and what helps, or a figure's name, rule and source.
        Assert.Single(worded.Select(w => string.Join(' ', w.Order(StringComparer.Ordinal))).Distinct(StringComparer.Ordinal));
    }

    [Theory]
    [MemberData(nameof(Languages))]
    public void No_text_that_a_crew_sees_is_missing_in_a_language_and_each_speaks_of_the_same_things(string name)
    {
        CultureInfo language = CultureInfo.GetCultureInfo(name);
        foreach (string set in Texts.Names)
        {
            IReadOnlyDictionary<string, string> english = Texts.All(set, English);
            IReadOnlyDictionary<string, string> own = Texts.All(set, language);
            if (Texts.OfTheCrew.Contains(set, StringComparer.Ordinal))
                Assert.Equal(english.Keys.Order(StringComparer.Ordinal), own.Keys.Order(StringComparer.Ordinal));
            Assert.All(own.Where(t => english.ContainsKey(t.Key)), t =>
                Assert.Equal(Template.Names(english[t.Key]).Order(StringComparer.Ordinal), Template.Names(t.Value).Order(StringComparer.Ordinal))
            );
        }
    }

    [Fact]
    public void A_crews_day_and_month_are_named_in_its_language()
    {
        var spanish = new FactWriter(Core.Planning.SiteUnits.Metric, language: CultureInfo.GetCultureInfo("es"));
        Assert.Equal("mar 6 oct 2026", spanish.Of(new NodaTime.LocalDate(2026, 10, 6), "ddd d MMM uuuu"));
        Assert.Equal("6 h 40 de trabajo", spanish.Work(400));
        Assert.Equal("lun 3 may", spanish.Of(new NodaTime.LocalDate(2027, 5, 3), "ddd d MMM"));
    }

    // House rules have sentences of their own on their page; the others are never said.
    private static bool IsSaid(Type kinds) =>
        kinds.Namespace != typeof(Core.Rules.HouseRules).Namespace
        && kinds.Name is not ("Dimension" or "FrostEnd" or "PairWish" or "Showing" or "SiteUnits" or "SpreadScheme" or "WordMatch");

    [Fact]
    public void Every_enumeration_of_the_core_that_may_stand_in_a_fact_has_words()
    {
        var worded = Texts.All("Words", English).Keys.Select(k => k.Split('.')[0]).Concat(Texts.Names).ToHashSet(StringComparer.Ordinal);
        Assert.Empty(
            typeof(Working)
                .Assembly.GetExportedTypes()
                .Where(t => t.IsEnum && !t.IsNested && IsSaid(t) && !worded.Contains(t.Name))
                .Select(t => t.Name)
        );
    }

    [Fact]
    public void Every_member_of_an_enumeration_that_is_worded_has_its_word()
    {
        foreach (
            IGrouping<string, string> set in Texts
                .All("Words", English)
                .Keys.Where(k => k.Contains('.', StringComparison.Ordinal))
                .GroupBy(k => k.Split('.')[0], k => k.Split('.')[1], StringComparer.Ordinal)
        )
        {
            if (typeof(Working).Assembly.GetTypes().FirstOrDefault(t => t.IsEnum && t.Name == set.Key) is { } kinds)
                Assert.Equal(Enum.GetNames(kinds).Order(StringComparer.Ordinal), set.Order(StringComparer.Ordinal));
        }
    }
}
