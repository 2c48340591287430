using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

/// <summary>Cold that kinds of the shipped palette stand, by ranges from memory of practice: air that spoils flower and leaf, and roots.</summary>
[FromMemory]
public sealed class PaletteRangesTests
{
    // Kinds whose ids begin so: lowest and highest air temperature that spoils their tops, °C.
    public static TheoryData<string, double, double> Tops =>
        new()
        {
            { "angelonia", -0.5, 0 },
            { "petunia", -2, -1.5 },
            { "calibrachoa", -2.2, -1.8 },
            { "verbena-", -3.5, -2.5 },
            { "scaevola", -1, 0 },
            { "lantana", -1, 0 },
            { "coleus", 0, 1 },
            { "sweet-potato", 0, 1 },
            { "caladium", 0, 1 },
            { "wax-begonia", -0.5, 0.5 },
            { "zonal-geranium", -1.5, -0.5 },
            { "snapdragon", -6, -4.5 },
            { "cabbage", -13, -11.5 },
            { "kale", -15, -13 },
            { "pansy", -14, -12 },
            { "viola-", -16, -14 },
            { "primrose", -20, -16 },
            { "polyanthus", -20, -16 },
            { "english-daisy", -27, -23 },
            { "forget-me-not", -30, -26 },
            { "wallflower", -20, -16 },
            { "sweet-william", -30, -26 },
            { "poppy-iceland", -32, -28 },
        };

    // Lowest and highest temperature that kills their roots, °C.
    public static TheoryData<string, double, double> Roots =>
        new()
        {
            { "primrose", -13, -11 },
            { "polyanthus", -13, -11 },
            { "english-daisy", -13, -11 },
            { "tall-verbena", -9, -5 },
            { "salvia-", -8, -4 },
            { "lantana", -7, -3 },
            { "cordyline", -7, -3 },
            { "dichondra", -7, -3 },
            { "periwinkle", -14, -8 },
            { "japanese-holly", -8, -5 },
        };

    [Theory]
    [MemberData(nameof(Tops))]
    public void Tops_are_spoiled_within_the_range_of_the_kind(string kind, double low, double high) =>
        Assert.All(Of(kind), p => Assert.InRange(p.TopDamageC, low, high));

    [Theory]
    [MemberData(nameof(Roots))]
    public void Roots_die_within_the_range_of_the_kind(string kind, double low, double high) =>
        Assert.All(Of(kind), p => Assert.InRange(p.RootKilling.Celsius, low, high));

    [Fact]
    public void Whatever_irritates_skin_speaks_of_gloves() =>
        Assert.All(A.Palette.Where(p => p.Harm.Skin != Hazard.NoneKnown), p =>
            Assert.Contains(p.Cautions, c => c.Contains("glove", StringComparison.OrdinalIgnoreCase))
        );

    private static Plant[] Of(string kind)
    {
        Plant[] found = [.. A.Palette.Where(p => p.Id.StartsWith(kind, StringComparison.Ordinal))];
        Assert.NotEmpty(found);
        return found;
    }
}
