namespace UnrulyMeadow.Wording.Tests;

/// <summary>How sentences are written among the resources.</summary>
public sealed class TemplateTests
{
    [Theory]
    [InlineData("{n:# day|# days}", 1, "1 day")]
    [InlineData("{n:# day|# days}", 1200, "1,200 days")]
    [InlineData("{n} stand here", 3, "3 stand here")]
    [InlineData("[{n} of them]", null, "")]
    [InlineData("Cold[, {n} less here].", null, "Cold.")]
    [InlineData("[{n}in a bed][{!n}in a pot]", true, "in a bed")]
    [InlineData("[{n}in a bed][{!n}in a pot]", false, "in a pot")]
    [InlineData("{n:children|dogs} come", false, "dogs come")]
    [InlineData("of [“{n}”]", "", "of ")]
    public void A_template_says_what_there_is_to_say(string template, object? n, string said) =>
        Assert.Equal(
            said,
            Template.Fill(
                template,
                name => name == "n" ? n : throw new InvalidOperationException(name),
                new FactWriter(Core.Planning.SiteUnits.Metric).Of
            )
        );

    [Fact]
    public void Text_that_people_typed_is_never_taken_for_a_template() =>
        Assert.Equal("the {n} [x]", Template.Fill("the {n}", _ => "{n} [x]", new FactWriter(Core.Planning.SiteUnits.Metric).Of));
}
