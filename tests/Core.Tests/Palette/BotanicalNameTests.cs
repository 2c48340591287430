using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

public sealed class BotanicalNameTests
{
    [Theory]
    [Published("International Code of Nomenclature for algae, fungi, and plants: genus with a capital, epithet lower case")]
    [InlineData("Galanthus nivalis")]
    [InlineData("Viola × wittrockiana")]
    [InlineData("Tulipa, Triumph group")]
    [InlineData("Narcissus, Division 6 (cyclamineus)")]
    [InlineData("Acer palmatum var. dissectum")]
    [InlineData("Ilex verticillata, male")]
    public void A_name_in_the_codes_form_is_taken(string name) => Assert.True(BotanicalName.IsWellFormed(name));

    [Theory]
    [InlineData("galanthus nivalis")]
    [InlineData("Galanthus Nivalis")]
    [InlineData("Rosa 'Something'")]
    [InlineData("Rosa, “Something”")]
    [InlineData("")]
    [InlineData("Viola x")]
    public void Any_other_form_and_every_cultivar_is_refused(string name) => Assert.False(BotanicalName.IsWellFormed(name));

    [Fact]
    [Published("International Code of Nomenclature for Cultivated Plants: group names upright, genus and epithet italic")]
    public void Genus_and_species_are_italic_and_sign_rank_and_group_are_not()
    {
        Assert.Equal(
            [("Viola", true), ("×", false), ("wittrockiana", true)],
            BotanicalName.Parts("Viola × wittrockiana").Select(p => (p.Text, p.IsItalic))
        );
        Assert.Equal([("Tulipa", true), (", Triumph group", false)], BotanicalName.Parts("Tulipa, Triumph group").Select(p => (p.Text, p.IsItalic)));
        Assert.Equal(
            [("Acer palmatum", true), ("var.", false), ("dissectum", true)],
            BotanicalName.Parts("Acer palmatum var. dissectum").Select(p => (p.Text, p.IsItalic))
        );
        Assert.Equal("Tulipa", BotanicalName.Genus("Tulipa, Triumph group"));
    }
}
