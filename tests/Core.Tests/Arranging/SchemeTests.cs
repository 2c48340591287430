using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Core.Tests.Arranging;

public sealed class SchemeTests
{
    private static SchemePart Part(string id, double cover, params string[] colours) => new(A.Annual(id), colours, cover);

    [Fact]
    [CommonPractice]
    public void A_plant_of_several_colours_leads_and_another_echoes_one_of_them()
    {
        ColourScheme scheme = ColourScheme.Of([
            Part("coleus", 0.3, "#8e1f3f", "#c9d24a"),
            Part("vine", 0.3, "#c4d04e"),
            Part("salvia", 0.2, "#3a4fb0"),
        ])!;
        Assert.Equal("coleus", scheme.Parts[scheme.Lead].Plant.Id);
        Assert.Equal("vine", scheme.Parts[Assert.Single(scheme.EchoesOfLead).Part].Plant.Id);
        Assert.Equal("salvia", scheme.Parts[Assert.Single(scheme.SurprisingParts)].Plant.Id);
        Assert.Equal(
            ["coleus", "vine", "salvia"],
            scheme
                .Sentence()
                .Parts.SelectMany(p =>
                    p.Value is IEnumerable<Plant> several ? several
                    : p.Value is Plant one ? [one]
                    : []
                )
                .Select(p => p.Id)
        );
    }

    [Theory]
    [InlineData(ColourSchool.OneColour, "#c5283d", "#e08a96", true)]
    [InlineData(ColourSchool.OneColour, "#c5283d", "#f1c52a", false)]
    [InlineData(ColourSchool.Neighbouring, "#f1c52a", "#ee8a22", true)]
    [InlineData(ColourSchool.Neighbouring, "#f1c52a", "#3a4fb0", false)]
    [InlineData(ColourSchool.Contrast, "#f1c52a", "#5a3fa0", true)]
    [InlineData(ColourSchool.Contrast, "#c5283d", "#d24a4a", false)]
    [InlineData(ColourSchool.Contrast, "#ffffff", "#4a1830", true)]
    public void A_school_is_followed_or_broken_by_hue_not_by_name(ColourSchool school, string one, string other, bool follows) =>
        Assert.Equal(
            follows,
            ColourScheme.Of([Part("one", 0.4, one), Part("other", 0.4, other)])!.Breaks(HouseRules.Default with { Colour = school }) is null
        );

    [Fact]
    public void The_institutions_colours_admit_what_is_near_them_and_neutrals()
    {
        HouseRules rules = HouseRules.Default with { Colour = ColourSchool.Institution, InstitutionColours = ["#1b3f8b", "#f2c230"] };
        Assert.Null(ColourScheme.Of([Part("salvia", 0.4, "#24489a"), Part("alyssum", 0.4, "#ffffff")])!.Breaks(rules));
        Assert.NotNull(ColourScheme.Of([Part("salvia", 0.4, "#24489a"), Part("geranium", 0.4, "#c5283d")])!.Breaks(rules));
    }

    [Fact]
    public void What_shows_no_colour_makes_no_scheme() => Assert.Null(ColourScheme.Of([Part("grass", 0.5), Part("gone", 0, "#c5283d")]));

    [Fact]
    [CommonPractice]
    public void Neighbours_alike_in_everything_are_lost_and_one_difference_saves_them()
    {
        Plant one = A.Annual("one");
        Assert.True(new NeighbourDifference(one, "#c5283d", A.Annual("two"), "#c12a40").IsLost);
        Assert.False(new NeighbourDifference(one, "#c5283d", A.Annual("two") with { HeightCm = 50 }, "#c12a40").IsLost);
        Assert.False(new NeighbourDifference(one, "#c5283d", A.Annual("two") with { Texture = Texture.Bold }, "#c12a40").IsLost);
        Assert.False(new NeighbourDifference(one, "#c5283d", A.Annual("two"), "#ffffff").IsLost);
    }

    [Fact]
    public void Small_patches_blend_at_a_distance_and_large_ones_do_not()
    {
        Assert.True(SeenFrom.Kept(20, 3) > 0.99);
        Assert.InRange(SeenFrom.Kept(4, 30), 0.05, 0.3);
        Assert.Equal("#c5283d", SeenFrom.Colour("#c5283d", 60, "#7f9a68", 3));
        double far = ColourDifference.Between(SeenFrom.Colour("#c5283d", 8, "#7f9a68", 30), "#7f9a68");
        Assert.True(far < ColourDifference.Between("#c5283d", "#7f9a68") * 0.8);
    }

    [Fact]
    public void Blending_adds_light_and_not_codes() =>
        Assert.Equal(
            Srgb.Mean([(Srgb.Of("#000000"), 1), (Srgb.Of("#ffffff"), 1)]).ToString(),
            SeenFrom.Colour("#ffffff", 2 * SeenFrom.BlurCm(10) * Math.Sqrt(2 * Math.Log(2)), "#000000", 10)
        );
}
