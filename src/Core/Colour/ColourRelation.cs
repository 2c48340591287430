using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Colour;

/// <summary>How two colours stand to each other.</summary>
public enum RelationKind
{
    /// <summary>One hue, lighter or darker.</summary>
    OneColour,

    /// <summary>Hues side by side.</summary>
    Neighbouring,

    /// <summary>Hues neither near nor opposite.</summary>
    Apart,

    /// <summary>Hues that face each other.</summary>
    Contrast,

    /// <summary>One of them is white, grey, silver or near black, and goes with any.</summary>
    WithNeutral,
}

/// <summary>The relation of two colours, from hue angle and chroma, never from their names.</summary>
/// <param name="One">One colour, #rrggbb.</param>
/// <param name="Other">The other.</param>
/// <param name="Kind">How they stand.</param>
/// <param name="HueApartDeg">Hue angle between them, 0 to 180°.</param>
/// <param name="LightnessApart">Difference of lightness, 0 to 100.</param>
/// <param name="Difference">CIEDE2000.</param>
public sealed record ColourRelation(string One, string Other, RelationKind Kind, double HueApartDeg, double LightnessApart, double Difference)
{
    /// <summary>Below this chroma a colour has no hue to speak of (common practice).</summary>
    public const double NeutralChroma = 14;

    /// <summary>Hues no farther apart are one colour, degrees (common practice).</summary>
    public const double OneColourDeg = 22;

    /// <summary>Hues no farther apart are neighbours, degrees (common practice).</summary>
    public const double NeighbouringDeg = 65;

    /// <summary>Hues at least this far apart contrast, degrees (common practice).</summary>
    public const double ContrastDeg = 90;

    /// <summary>The relation of two colours written #rrggbb.</summary>
    public static ColourRelation Of(string one, string other)
    {
        Lab a = Lab.Of(one);
        Lab b = Lab.Of(other);
        double apart = Math.Abs(a.HueDeg - b.HueDeg);
        apart = apart > 180 ? 360 - apart : apart;
        RelationKind kind =
            a.Chroma < NeutralChroma || b.Chroma < NeutralChroma ? RelationKind.WithNeutral
            : apart <= OneColourDeg ? RelationKind.OneColour
            : apart <= NeighbouringDeg ? RelationKind.Neighbouring
            : apart >= ContrastDeg ? RelationKind.Contrast
            : RelationKind.Apart;
        return new ColourRelation(one, other, kind, apart, Math.Abs(a.L - b.L), ColourDifference.Ciede2000(a, b));
    }

    /// <summary>The arithmetic behind the relation.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.ColourRelation,
            Kind switch
            {
                RelationKind.OneColour => (object?)WorkingPhrase.OneColour,
                RelationKind.Neighbouring => WorkingPhrase.NeighbouringHues,
                RelationKind.Contrast => WorkingPhrase.Contrast,
                RelationKind.WithNeutral => WorkingPhrase.NeutralWithColour,
                _ => WorkingPhrase.ApartNeitherNearNorOpposite,
            },
            [new WorkingInput(One, ColourDifference.Say(Lab.Of(One))), new WorkingInput(Other, ColourDifference.Say(Lab.Of(Other)))],
            [
                new Fact(
                    WorkingPhrase.HuesApartLightnessApartDifference,
                    ("hueApart", Quantity.Degrees(HueApartDeg)),
                    ("lightnessApart", Quantity.Number(LightnessApart)),
                    ("difference", Quantity.Number(Difference, 1))
                ),
            ]
        )
        {
            Parts =
            [
                ("one", One),
                ("other", Other),
                ("oneColour", Quantity.Degrees(OneColourDeg, 2)),
                ("neighbouring", Quantity.Degrees(NeighbouringDeg, 2)),
                ("contrast", Quantity.Degrees(ContrastDeg, 2)),
                ("neutralChroma", Quantity.Number(NeutralChroma, 2)),
            ],
        };
}
