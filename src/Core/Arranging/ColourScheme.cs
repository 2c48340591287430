using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Rules;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>What one plant brings to a scheme.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Colours">Its colours, #rrggbb, the strongest first; plain green is none.</param>
/// <param name="Cover">Share of the planter's surface in those colours, 0 to 1.</param>
public sealed record SchemePart(Plant Plant, IReadOnlyList<string> Colours, double Cover);

/// <summary>A plant that takes up a colour of the lead.</summary>
/// <param name="Part">Index of the part.</param>
/// <param name="LeadColour">The lead's colour.</param>
/// <param name="Colour">The part's own colour nearest to it.</param>
/// <param name="Difference">CIEDE2000 between them.</param>
public sealed record ColourEcho(int Part, string LeadColour, string Colour, double Difference);

/// <summary>
/// How the colours of a planter go together: which plant leads, which of the others echo one of its colours, what
/// surprises, and how the hues stand to each other.
/// </summary>
public sealed class ColourScheme
{
    /// <summary>Colours no farther apart echo each other (common practice).</summary>
    public const double Echoes = 20;

    /// <summary>A plant whose colours are all at least so far from every other is a surprise (common practice).</summary>
    public const double Surprises = 30;

    /// <summary>Light against dark: lightness so far apart is a contrast too (common practice).</summary>
    public const double LightAgainstDark = 40;

    // What covers less than this share of the colour shown does not set the scheme.
    private const double LeastShare = 0.08;

    private ColourScheme(
        IReadOnlyList<SchemePart> parts,
        int lead,
        IReadOnlyList<ColourEcho> echoes,
        IReadOnlyList<int> surprises,
        RelationKind kind,
        ColourRelation? widest
    )
    {
        Parts = parts;
        Lead = lead;
        EchoesOfLead = echoes;
        SurprisingParts = surprises;
        Kind = kind;
        Widest = widest;
    }

    /// <summary>The parts looked at: those with a colour of their own.</summary>
    public IReadOnlyList<SchemePart> Parts { get; }

    /// <summary>Index of the lead: the most colour, more so when it has several.</summary>
    public int Lead { get; }

    /// <summary>Parts that echo a colour of the lead.</summary>
    public IReadOnlyList<ColourEcho> EchoesOfLead { get; }

    /// <summary>Parts that surprise.</summary>
    public IReadOnlyList<int> SurprisingParts { get; }

    /// <summary>How the hues stand to each other, neutrals left aside.</summary>
    public RelationKind Kind { get; }

    /// <summary>The two hues farthest apart; null where there are not two hues.</summary>
    public ColourRelation? Widest { get; }

    /// <summary>Lightness between the lightest and the darkest of the parts' strongest colours, 0 to 100.</summary>
    public double LightnessApart => Parts.Max(p => Lab.Of(p.Colours[0]).L) - Parts.Min(p => Lab.Of(p.Colours[0]).L);

    /// <summary>Looks at what shows.</summary>
    /// <param name="shown">Plants with their colours and cover; plants without a colour are left out.</param>
    /// <returns>The scheme, or null when nothing shows a colour.</returns>
    public static ColourScheme? Of(IReadOnlyList<SchemePart> shown)
    {
        IReadOnlyList<SchemePart> parts = [.. shown.Where(p => p.Colours.Count > 0 && p.Cover > 0)];
        if (parts.Count == 0)
            return null;
        int lead = Enumerable.Range(0, parts.Count).MaxBy(i => parts[i].Cover * (1 + (0.5 * (Distinct(parts[i].Colours).Count - 1))));
        var echoes = new List<ColourEcho>();
        var surprises = new List<int>();
        for (int i = 0; i < parts.Count; i++)
        {
            if (i == lead)
                continue;
            var pair = parts[lead]
                .Colours.SelectMany(l => parts[i].Colours.Select(c => (Lead: l, Own: c, Difference: ColourDifference.Between(l, c))))
                .MinBy(x => x.Difference);
            if (pair.Difference <= Echoes)
                echoes.Add(new ColourEcho(i, pair.Lead, pair.Own, pair.Difference));
            double nearest = parts
                .Where((_, k) => k != i)
                .SelectMany(p => p.Colours)
                .Min(o => parts[i].Colours.Min(c => ColourDifference.Between(c, o)));
            if (nearest >= Surprises)
                surprises.Add(i);
        }
        double all = parts.Sum(p => p.Cover);
        List<string> hues =
        [
            .. parts
                .Where(p => p.Cover >= LeastShare * all)
                .SelectMany(p => p.Colours.Take(2))
                .Where(c => Lab.Of(c).Chroma >= ColourRelation.NeutralChroma)
                .Distinct(StringComparer.Ordinal),
        ];
        ColourRelation? widest = hues.SelectMany((a, i) => hues.Skip(i + 1).Select(b => ColourRelation.Of(a, b))).MaxBy(r => r.HueApartDeg);
        RelationKind kind = hues.Count == 0 ? RelationKind.WithNeutral : widest?.Kind ?? RelationKind.OneColour;
        return new ColourScheme(parts, lead, echoes, surprises, kind, widest);
    }

    /// <summary>Why the scheme does not follow a school, of a <see cref="SchemeBreak"/>; null when it does.</summary>
    /// <param name="rules">The house rules.</param>
    public Fact? Breaks(HouseRules rules)
    {
        switch (rules.Colour)
        {
            case ColourSchool.OneColour:
                return Kind is RelationKind.OneColour or RelationKind.WithNeutral
                    ? null
                    : HuesApart(SchemeBreak.NotOneColour, ColourRelation.OneColourDeg);
            case ColourSchool.Neighbouring:
                return Kind is RelationKind.OneColour or RelationKind.Neighbouring or RelationKind.WithNeutral
                    ? null
                    : HuesApart(SchemeBreak.NotNeighbouring, ColourRelation.NeighbouringDeg);
            case ColourSchool.Institution:
                string? far = Parts
                    .SelectMany(p => p.Colours.Take(1))
                    .Where(c => Lab.Of(c).Chroma >= ColourRelation.NeutralChroma)
                    .FirstOrDefault(c => rules.InstitutionColours.All(i => ColourDifference.Between(c, i) > Echoes));
                return far is null
                    ? null
                    : new Fact(
                        SchemeBreak.NotOfTheInstitution,
                        ("colour", new ColourCode(far)),
                        ("allowed", rules.InstitutionColours.Select(c => new ColourCode(c)).ToList())
                    );
            default:
                return Kind is RelationKind.Contrast || Parts.Count < 2 || LightnessApart >= LightAgainstDark ? null
                    : Widest is null
                        ? new Fact(SchemeBreak.OneHueNoContrast, ("lightness", Number(LightnessApart)), ("wants", Number(LightAgainstDark)))
                    : new Fact(
                        SchemeBreak.NoContrast,
                        ("hue", Degrees(Widest.HueApartDeg)),
                        ("lightness", Number(LightnessApart)),
                        ("wantsHue", Degrees(ColourRelation.ContrastDeg)),
                        ("wants", Number(LightAgainstDark))
                    );
        }
    }

    private Fact HuesApart(SchemeBreak kind, double within) =>
        new(
            kind,
            ("apart", Degrees(Widest!.HueApartDeg)),
            ("one", new ColourCode(Widest.One)),
            ("other", new ColourCode(Widest.Other)),
            ("within", Degrees(within))
        );

    /// <summary>The scheme in a sentence.</summary>
    public Fact Sentence() =>
        new(
            SchemeSentence.Leads,
            ("lead", Parts[Lead].Plant),
            ("echoes", EchoesOfLead.Take(2).Select(e => Parts[e.Part].Plant).ToList()),
            ("one", EchoesOfLead.Count == 1),
            ("alone", EchoesOfLead.Count == 0 && Parts.Count == 1),
            ("unanswered", EchoesOfLead.Count == 0 && Parts.Count > 1),
            ("surprise", SurprisingParts.Count == 0 ? null : Parts[SurprisingParts[0]].Plant)
        );

    /// <summary>The arithmetic behind the scheme.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.ColourScheme,
            Kind switch
            {
                RelationKind.OneColour => (object?)WorkingPhrase.OneColour,
                RelationKind.Neighbouring => WorkingPhrase.NeighbouringHues,
                RelationKind.Contrast => WorkingPhrase.Contrast,
                RelationKind.WithNeutral => WorkingPhrase.NeutralsOnly,
                _ => WorkingPhrase.HuesNeitherNearNorOpposite,
            },
            [
                .. Parts.Select(
                    (p, i) =>
                        new WorkingInput(
                            p.Plant,
                            new Fact(
                                WorkingPhrase.ColourSchemeSurface,
                                ("items", p.Colours.ToList()),
                                ("cover", Quantity.Share(p.Cover)),
                                ("leads", i == Lead ? (object?)WorkingPhrase.Leads : string.Empty)
                            )
                        )
                ),
            ],
            [
                .. EchoesOfLead.Select(e => new Fact(
                    WorkingPhrase.BesideLead,
                    ("plant", Parts[e.Part].Plant),
                    ("colour", e.Colour),
                    ("leadColour", e.LeadColour),
                    ("difference", Quantity.Number(e.Difference, 1))
                )),
                .. Widest is null
                    ? Array.Empty<object>()
                    :
                    [
                        new Fact(
                            WorkingPhrase.WidestApart,
                            ("one", Widest.One),
                            ("other", Widest.Other),
                            ("hueApart", Quantity.Degrees(Widest.HueApartDeg))
                        ),
                    ],
            ]
        )
        {
            Parts = [("echoes", Quantity.Number(Echoes)), ("surprises", Quantity.Number(Surprises))],
        };

    // Colours that do not look alike among themselves.
    private static List<string> Distinct(IReadOnlyList<string> colours)
    {
        var kept = new List<string>();
        foreach (string c in colours)
        {
            if (kept.TrueForAll(k => ColourDifference.Between(k, c) > ColourDifference.LooksAlike))
                kept.Add(c);
        }
        return kept;
    }
}
