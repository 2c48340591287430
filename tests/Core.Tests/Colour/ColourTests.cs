using UnrulyMeadow.Core.Colour;

namespace UnrulyMeadow.Core.Tests.Colour;

public sealed class ColourTests
{
    public static TheoryData<double[], double> Pairs { get; } =
        new()
        {
            { [50, 2.6772, -79.7751, 50, 0, -82.7485], 2.0425 },
            { [50, 3.1571, -77.2803, 50, 0, -82.7485], 2.8615 },
            { [50, 2.8361, -74.0200, 50, 0, -82.7485], 3.4412 },
            { [50, -1.3802, -84.2814, 50, 0, -82.7485], 1.0000 },
            { [50, -1.1848, -84.8006, 50, 0, -82.7485], 1.0000 },
            { [50, -0.9009, -85.5211, 50, 0, -82.7485], 1.0000 },
            { [50, 0, 0, 50, -1, 2], 2.3669 },
            { [50, -1, 2, 50, 0, 0], 2.3669 },
            { [50, 2.4900, -0.0010, 50, -2.4900, 0.0009], 7.1792 },
            { [50, 2.4900, -0.0010, 50, -2.4900, 0.0010], 7.1792 },
            { [50, 2.4900, -0.0010, 50, -2.4900, 0.0011], 7.2195 },
            { [50, 2.4900, -0.0010, 50, -2.4900, 0.0012], 7.2195 },
            { [50, -0.0010, 2.4900, 50, 0.0009, -2.4900], 4.8045 },
            { [50, -0.0010, 2.4900, 50, 0.0010, -2.4900], 4.8045 },
            { [50, -0.0010, 2.4900, 50, 0.0011, -2.4900], 4.7461 },
            { [50, 2.5, 0, 50, 0, -2.5], 4.3065 },
            { [50, 2.5, 0, 73, 25, -18], 27.1492 },
            { [50, 2.5, 0, 61, -5, 29], 22.8977 },
            { [50, 2.5, 0, 56, -27, -3], 31.9030 },
            { [50, 2.5, 0, 58, 24, 15], 19.4535 },
            { [50, 2.5, 0, 50, 3.1736, 0.5854], 1.0000 },
            { [50, 2.5, 0, 50, 3.2972, 0], 1.0000 },
            { [50, 2.5, 0, 50, 1.8634, 0.5757], 1.0000 },
            { [50, 2.5, 0, 50, 3.2592, 0.3350], 1.0000 },
            { [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387], 1.2644 },
            { [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864], 1.2630 },
            { [61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620], 1.8731 },
            { [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901], 1.8645 },
            { [22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619], 2.0373 },
            { [36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231], 1.4146 },
            { [90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447], 1.4441 },
            { [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239], 1.5381 },
            { [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286], 0.6377 },
            { [2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514], 0.9082 },
        };

    [Theory]
    [MemberData(nameof(Pairs))]
    [Published("Sharma, Wu & Dalal 2005, The CIEDE2000 color-difference formula, table 1")]
    public void The_difference_is_that_of_the_published_pairs_both_ways(double[] c, double difference)
    {
        var one = new Lab(c[0], c[1], c[2]);
        var other = new Lab(c[3], c[4], c[5]);
        Assert.Equal(difference, ColourDifference.Ciede2000(one, other), 0.00005);
        Assert.Equal(difference, ColourDifference.Ciede2000(other, one), 0.00005);
    }

    [Theory]
    [InlineData("#ffffff", 100, 0, 0)]
    [InlineData("#000000", 0, 0, 0)]
    [InlineData("#ff0000", 53.24, 80.09, 67.20)]
    [InlineData("#0000ff", 32.30, 79.19, -107.86)]
    [FromMemory]
    public void Screen_colours_have_their_known_places_in_Lab(string colour, double l, double a, double b)
    {
        Lab lab = Lab.Of(colour);
        Assert.Equal(l, lab.L, 0.02);
        Assert.Equal(a, lab.A, 0.05);
        Assert.Equal(b, lab.B, 0.05);
    }

    [Theory]
    [InlineData("#c5283d", "#e8788a", RelationKind.OneColour)]
    [InlineData("#f2c230", "#e07a1f", RelationKind.Neighbouring)]
    [InlineData("#f2c230", "#5b3fa0", RelationKind.Contrast)]
    [InlineData("#ffffff", "#5b3fa0", RelationKind.WithNeutral)]
    [CommonPractice]
    public void Yellow_and_violet_contrast_yellow_and_orange_are_neighbours_and_white_goes_with_any(string one, string other, RelationKind kind) =>
        Assert.Equal(kind, ColourRelation.Of(one, other).Kind);

    [Fact]
    public void A_relation_is_the_same_both_ways()
    {
        ColourRelation there = ColourRelation.Of("#f2c230", "#3b5bb5");
        ColourRelation back = ColourRelation.Of("#3b5bb5", "#f2c230");
        Assert.Equal((there.Kind, there.HueApartDeg, there.LightnessApart), (back.Kind, back.HueApartDeg, back.LightnessApart));
        Assert.Equal(there.Difference, back.Difference, 1e-9);
    }

    [Fact]
    [Published("Machado, Oliveira & Fernandes 2009: protan and deutan eyes confuse red with green")]
    public void Red_and_green_that_differ_to_most_are_alike_to_a_deutan_eye_but_blue_and_yellow_are_not()
    {
        Assert.True(ColourDifference.Between("#c04030", "#6f8f30") > 40);
        Assert.True(
            ColourDifference.Between(ColourVision.Seen("#c04030", ColourSight.Deutan), ColourVision.Seen("#6f8f30", ColourSight.Deutan)) < 22
        );
        Assert.True(
            ColourDifference.Between(ColourVision.Seen("#f2c230", ColourSight.Deutan), ColourVision.Seen("#3b5bb5", ColourSight.Deutan)) > 50
        );
    }

    [Theory]
    [InlineData(ColourSight.Protan)]
    [InlineData(ColourSight.Deutan)]
    [InlineData(ColourSight.Tritan)]
    public void Greys_stay_grey_to_every_eye(ColourSight sight) => Assert.Equal("#808080", ColourVision.Seen("#808080", sight));

    [Fact]
    public void Colours_blend_by_their_light_and_not_by_their_codes() =>
        Assert.Equal("#bcbcbc", Srgb.Mean([(Srgb.Of("#000000"), 1), (Srgb.Of("#ffffff"), 1)]).ToString());

    [Theory]
    [InlineData("red")]
    [InlineData("#12345")]
    [InlineData("#12345g")]
    public void What_is_no_colour_is_refused(string text) => Assert.Throws<InvalidInputException>(() => Lab.Of(text));
}
