using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>pack</c>: one outline and one disc.</summary>
/// <param name="DiscCm">Diameter of a disc.</param>
/// <param name="GapCm">Between discs.</param>
/// <param name="WallCm">From the edge.</param>
/// <param name="DiameterCm">Diameter of a round outline.</param>
/// <param name="LengthCm">Length of a rectangle, or of an ellipse.</param>
/// <param name="WidthCm">Width of it.</param>
/// <param name="IsOval">True for an ellipse.</param>
/// <param name="Corners">Corners [x, y] of any outline.</param>
public sealed record PackInput(
    double DiscCm,
    double GapCm = 0,
    double WallCm = 0,
    double? DiameterCm = null,
    double? LengthCm = null,
    double? WidthCm = null,
    bool IsOval = false,
    IReadOnlyList<double[]>? Corners = null
);

/// <summary>Output of <c>pack</c>: how many fit, at which places, and a proven bound on how many could.</summary>
public sealed record DiscsOutput(int Count, int? Bound, IReadOnlyList<double[]> Places);

/// <summary>A plant to be arranged.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Count">How many, or its share of the count.</param>
/// <param name="HeightCm">Grown height.</param>
/// <param name="SpreadAtPurchaseCm">Width as bought.</param>
/// <param name="MatureSpreadCm">Width grown.</param>
/// <param name="SpreadThenCm">Width on the day asked; the width as bought when left out.</param>
/// <param name="Habit">The way it stands.</param>
public sealed record ArrangedPlant(
    string Name,
    int Count,
    double HeightCm,
    double SpreadAtPurchaseCm,
    double MatureSpreadCm,
    double? SpreadThenCm = null,
    Habit Habit = Habit.Mounding
);

/// <summary>Input of <c>arrange</c> and <c>fullness</c>.</summary>
/// <param name="Form">The planter's inside.</param>
/// <param name="Plants">Kinds.</param>
/// <param name="ViewedFrom">From where it is seen.</param>
/// <param name="Target">Cover wanted, for <c>fullness</c>.</param>
/// <param name="Density">School of density, for <c>fullness</c>.</param>
public sealed record ArrangeInput(
    PlanterForm Form,
    IReadOnlyList<ArrangedPlant> Plants,
    ViewedFrom ViewedFrom = ViewedFrom.AllRound,
    double Target = FullnessQuestion.Full,
    DensitySchool Density = DensitySchool.ByDate
);

/// <summary>One kind as arranged.</summary>
public sealed record ArrangedOutput(string Name, ArrangementRole Role, double Seen, IReadOnlyList<double[]> Places);

/// <summary>Output of <c>arrange</c>.</summary>
public sealed record ArrangeOutput(double CoverAtPurchase, double CoverThen, IReadOnlyList<ArrangedOutput> Plants);

/// <summary>Output of <c>fullness</c>; no counts when the cover is not reached.</summary>
public sealed record FullnessOutput(int Total, IReadOnlyList<int> Counts, double CoverAtPurchase, double CoverThen, int Most);

/// <summary>Two colours.</summary>
/// <param name="One">#rrggbb.</param>
/// <param name="Other">#rrggbb.</param>
public sealed record TwoColours(string One, string Other);

/// <summary>Output of <c>colour-relation</c>.</summary>
public sealed record RelationOutput(RelationKind Relation, double HueApartDeg, double LightnessApart, double Difference);

/// <summary>Input of <c>colour-difference</c>: two colours as #rrggbb, or as L*, a*, b*, or many pairs.</summary>
/// <param name="One">#rrggbb.</param>
/// <param name="Other">#rrggbb.</param>
/// <param name="LabOne">L*, a*, b*.</param>
/// <param name="LabOther">L*, a*, b*.</param>
/// <param name="Pairs">Up to 20,000 pairs of #rrggbb.</param>
public sealed record DifferenceInput(
    string? One = null,
    string? Other = null,
    double[]? LabOne = null,
    double[]? LabOther = null,
    IReadOnlyList<string[]>? Pairs = null
);

/// <summary>One of many pairs: the difference, and both colours as L*, a*, b*.</summary>
public sealed record PairOutput(double Difference, double[] LabOne, double[] LabOther);

/// <summary>Output of <c>colour-difference</c>: CIEDE2000, to usual eyes and to three others; of many pairs the mean, and each.</summary>
public sealed record DifferenceOutput(
    double Difference,
    double? ToProtan,
    double? ToDeutan,
    double? ToTritan,
    IReadOnlyList<PairOutput>? Pairs = null
);

/// <summary>Input of <c>checks</c>.</summary>
/// <param name="PlanFile">Path of a plan file.</param>
/// <param name="Weather">The record; without it nothing is said of frost and cold.</param>
/// <param name="DisplayId">One display; all of them when left out.</param>
public sealed record ChecksInput(string PlanFile, WeatherInput? Weather = null, string? DisplayId = null);

/// <summary>One remark with its remedies: of what kind it is, and in words.</summary>
public sealed record RemarkOutput(
    string DisplayId,
    Gravity Gravity,
    RemarkKind Kind,
    string What,
    string Why,
    string Mend,
    IReadOnlyList<string> Remedies
);

/// <summary>Output of <c>checks</c>, the gravest of each display first.</summary>
public sealed record ChecksOutput(IReadOnlyList<RemarkOutput> Remarks);

/// <summary>Topics of the planter studio.</summary>
internal static class StudioTopics
{
    public static Topic Pack { get; } =
        new Topic<PackInput, DiscsOutput>("pack", "discs of one size packed into a round, oval, rectangular or any outline", input =>
        {
            var faults = new FaultList();
            faults.Range("discCm", input.DiscCm, 0.1, 500, "cm");
            faults.Range("gapCm", input.GapCm, 0, 100, "cm");
            faults.Range("wallCm", input.WallCm, 0, 100, "cm");
            int given =
                (input.DiameterCm is null ? 0 : 1) + (input.LengthCm is null && input.WidthCm is null ? 0 : 1) + (input.Corners is null ? 0 : 1);
            if (given != 1)
                faults.Add("diameterCm", "give one outline: diameterCm, or lengthCm with widthCm, or corners");
            foreach (
                (string name, double? size) in new[] { ("diameterCm", input.DiameterCm), ("lengthCm", input.LengthCm), ("widthCm", input.WidthCm) }
            )
            {
                if (size is { } s)
                    faults.Range(name, s, 0.1, 100_000, "cm");
            }
            if ((input.LengthCm is null) != (input.WidthCm is null))
                faults.Add("widthCm", "must be given together with lengthCm");
            if (input.Corners?.Any(c => c.Length != 2) == true)
                faults.Add("corners", "must be pairs [x, y] in cm");
            faults.ThrowIfAny();
            double pitch = input.DiscCm + input.GapCm;
            double inset = input.WallCm + (input.DiscCm / 2);
            double add = input.GapCm - (2 * input.WallCm);
            IReadOnlyList<PlanePoint> places;
            DiscRoom? room;
            if (input.Corners is { } corners)
            {
                BedOutline outline = BedOutline.Of(0, [.. corners.Select(c => (c[0], c[1]))]);
                if (outline.Faults() is { Count: > 0 } wrong)
                    throw new InvalidInputException([.. wrong.Select(f => new Fault("corners", f.Message))]);
                places = DiscPacking.InOutline(outline.Polygon, inset, pitch / 2);
                room = DiscRoom.Outline(outline.Polygon, inset);
            }
            else if (input.DiameterCm is { } diameter)
            {
                places = diameter + add < pitch ? [] : DiscPacking.InCircle((diameter + add) / 2, pitch / 2);
                room = diameter < 2 * inset ? null : DiscRoom.Circle((diameter / 2) - inset);
            }
            else
            {
                (double l, double w) = (input.LengthCm!.Value, input.WidthCm!.Value);
                bool none = Math.Min(l, w) + add < pitch;
                places =
                    none ? []
                    : input.IsOval ? DiscPacking.InEllipse(l + add, w + add, pitch / 2)
                    : DiscPacking.InRectangle(l + add, w + add, pitch / 2);
                room = none || input.IsOval ? null : DiscRoom.Rectangle(l - (2 * inset), w - (2 * inset));
            }
            return (
                new DiscsOutput(
                    places.Count,
                    room?.Bound(pitch),
                    [.. places.Select(p => new[] { Math.Round(p.XCm, 2) + 0.0, Math.Round(p.YCm, 2) + 0.0 })]
                ),
                [
                    new Working(
                        WorkingKind.DiscsThatFit,
                        places.Count,
                        [
                            new WorkingInput(InputName.CentreToCentre, Quantity.Cm(pitch, 2)),
                            new WorkingInput(InputName.CentresFromTheEdge, Quantity.Cm(inset, 2)),
                        ]
                    ),
                ]
            );
        });

    public static Topic Arrange { get; } =
        new Topic<ArrangeInput, ArrangeOutput>("arrange", "where each plant of a planter stands, what it covers and what is seen of it", input =>
        {
            (Planter planter, IReadOnlyList<(Plant Plant, int Count)> kinds) = Read(input);
            Arrangement laid = Arrangement.Of(planter, [.. kinds.Select(k => (k.Plant, new DisplayItem(k.Plant.Id, k.Count)))]);
            Stature Then(PlacedPlant p) => Stature.Of(p.Plant, input.Plants[p.Item].SpreadThenCm ?? p.Plant.SpreadAtPurchaseCm);
            Sightline sight = Sightline.Of(laid, Then);
            return (
                new ArrangeOutput(
                    R(PlantCover.Of(laid, p => Stature.AsBought(p.Plant)).Covered),
                    R(PlantCover.Of(laid, Then).Covered),
                    [
                        .. kinds.Select(
                            (k, i) =>
                                new ArrangedOutput(
                                    k.Plant.CommonName,
                                    laid.RoleOf(k.Plant),
                                    R(sight.Shown.Where((_, n) => laid.Plants[n].Item == i).Average()),
                                    [
                                        .. laid
                                            .Plants.Where(p => p.Item == i)
                                            .Select(p => new[] { Math.Round(p.At.XCm, 1) + 0.0, Math.Round(p.At.YCm, 1) + 0.0 }),
                                    ]
                                )
                        ),
                    ]
                ),
                [laid.Explain()]
            );
        });

    public static Topic Fullness { get; } =
        new Topic<ArrangeInput, FullnessOutput>("fullness", "how many plants cover so much of a planter, laid out and as wide as on a day", input =>
        {
            (Planter planter, IReadOnlyList<(Plant Plant, int Count)> kinds) = Read(input);
            var question = new FullnessQuestion(planter, kinds);
            double[] then = [.. input.Plants.Select(p => p.SpreadThenCm ?? p.SpreadAtPurchaseCm)];
            FullnessAnswer answer = question.By(input.Density, input.Target, then);
            NodaTime.LocalDate day = new(2001, 6, 1);
            return (
                new FullnessOutput(answer.Total, answer.Counts, R(answer.CoverAtInstall), R(answer.CoverOnDay), question.Most),
                [question.Explain(answer, input.Target, day, day, then)]
            );
        });

    public static Topic ColourRelation { get; } =
        new Topic<TwoColours, RelationOutput>("colour-relation", "how two colours stand to each other by hue, lightness and chroma", input =>
        {
            Colours(("one", input.One), ("other", input.Other));
            Core.Colour.ColourRelation relation = Core.Colour.ColourRelation.Of(input.One, input.Other);
            return (
                new RelationOutput(
                    relation.Kind,
                    Math.Round(relation.HueApartDeg, 1),
                    Math.Round(relation.LightnessApart, 1),
                    Math.Round(relation.Difference, 2)
                ),
                [relation.Explain()]
            );
        });

    public static Topic ColourDifference { get; } =
        new Topic<DifferenceInput, DifferenceOutput>(
            "colour-difference",
            "how different two colours look: CIEDE2000, and to eyes with a colour-vision deficiency",
            input =>
            {
                if (input.Pairs is { Count: > 0 and <= 20_000 } pairs)
                {
                    Colours([
                        .. pairs.SelectMany(
                            (p, i) =>
                                new[]
                                {
                                    ($"pairs[{i}][0]", p.ElementAtOrDefault(0) ?? string.Empty),
                                    ($"pairs[{i}][1]", p.ElementAtOrDefault(1) ?? string.Empty),
                                }
                        ),
                    ]);
                    IReadOnlyList<PairOutput> all =
                    [
                        .. pairs
                            .Select(p => (One: Lab.Of(p[0]), Other: Lab.Of(p[1])))
                            .Select(p => new PairOutput(
                                Core.Colour.ColourDifference.Ciede2000(p.One, p.Other),
                                [p.One.L, p.One.A, p.One.B],
                                [p.Other.L, p.Other.A, p.Other.B]
                            )),
                    ];
                    return (
                        new DifferenceOutput(Math.Round(all.Average(p => p.Difference), 4), null, null, null, all),
                        [Core.Colour.ColourDifference.Explain(pairs[0][0], pairs[0][1])]
                    );
                }
                if (input.LabOne is { } a && input.LabOther is { } b)
                {
                    var faults = new FaultList();
                    if (a.Length != 3 || a.Any(v => !double.IsFinite(v)))
                        faults.Add("labOne", "must be three numbers: L*, a*, b*");
                    if (b.Length != 3 || b.Any(v => !double.IsFinite(v)))
                        faults.Add("labOther", "must be three numbers: L*, a*, b*");
                    faults.ThrowIfAny();
                    double d = Core.Colour.ColourDifference.Ciede2000(new Lab(a[0], a[1], a[2]), new Lab(b[0], b[1], b[2]));
                    return (
                        new DifferenceOutput(Math.Round(d, 4), null, null, null),
                        [
                            new Working(
                                WorkingKind.LabDifference,
                                Quantity.Number(d, 4),
                                [new WorkingInput(InputName.One, string.Join(", ", a)), new WorkingInput(InputName.Other, string.Join(", ", b))]
                            ),
                        ]
                    );
                }
                if (input.One is null || input.Other is null)
                    throw new InvalidInputException("one", "give one and other as #rrggbb, or labOne and labOther, or from 1 to 20,000 pairs");
                Colours(("one", input.One), ("other", input.Other));
                double Seen(ColourSight sight) =>
                    Math.Round(Core.Colour.ColourDifference.Between(ColourVision.Seen(input.One, sight), ColourVision.Seen(input.Other, sight)), 2);
                return (
                    new DifferenceOutput(
                        Math.Round(Core.Colour.ColourDifference.Between(input.One, input.Other), 2),
                        Seen(ColourSight.Protan),
                        Seen(ColourSight.Deutan),
                        Seen(ColourSight.Tritan)
                    ),
                    [Core.Colour.ColourDifference.Explain(input.One, input.Other)]
                );
            }
        );

    public static Topic Checks { get; } =
        new Topic<ChecksInput, ChecksOutput>("checks", "what is worth a look in the displays of a plan, why, and what would mend it", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            if (input.DisplayId is { } id && plan.Displays.All(d => d.Id != id))
                throw new InvalidInputException("displayId", $"there is no display \"{id}\" in the plan");
            var checks = new DisplayChecks(plan, input.Weather?.Read());
            IReadOnlyList<Remark> remarks =
            [
                .. plan
                    .Displays.Where(d => input.DisplayId is null || d.Id == input.DisplayId)
                    .SelectMany(d => checks.For(d, thorough: input.DisplayId is not null)),
            ];
            return (
                new ChecksOutput([
                    .. remarks.Select(r => new RemarkOutput(
                        r.DisplayId,
                        r.Gravity,
                        r.Kind,
                        Said.Metric.What(r),
                        Said.Metric.Why(r),
                        Said.Metric.Mend(r),
                        [.. r.Remedies.Select(Said.Metric.Say)]
                    )),
                ]),
                [.. remarks.Select(r => r.Working)]
            );
        });

    private static double R(double share) => Math.Round(share, 3);

    private static void Colours(params (string Field, string Value)[] colours)
    {
        var faults = new FaultList();
        foreach ((string field, string value) in colours)
        {
            if (!Srgb.IsColour(value))
                faults.Add(field, $"must be written #rrggbb (it is \"{value}\")");
        }
        faults.ThrowIfAny();
    }

    private static (Planter Planter, IReadOnlyList<(Plant Plant, int Count)> Kinds) Read(ArrangeInput input)
    {
        var faults = new FaultList();
        faults.AddAll("form", input.Form.Faults());
        if (input.Plants.Count is < 1 or > 30)
            faults.Add("plants", "must hold from 1 to 30 kinds");
        for (int i = 0; i < input.Plants.Count; i++)
        {
            ArrangedPlant p = input.Plants[i];
            faults.Range($"plants[{i}].count", p.Count, 1, 5000, string.Empty);
            faults.Range($"plants[{i}].heightCm", p.HeightCm, 1, 2000, "cm");
            faults.Range($"plants[{i}].spreadAtPurchaseCm", p.SpreadAtPurchaseCm, 0.5, 500, "cm");
            faults.Range($"plants[{i}].matureSpreadCm", p.MatureSpreadCm, p.SpreadAtPurchaseCm, 1000, "cm");
            if (p.SpreadThenCm is { } then)
                faults.Range($"plants[{i}].spreadThenCm", then, 0.5, 1000, "cm");
        }
        if (!(input.Target is > 0 and <= 1))
            faults.Add("target", "must be above 0 and at most 1");
        faults.ThrowIfAny();
        Planter planter = PlainPlanter.Of(input.Form, viewedFrom: input.ViewedFrom);
        return (
            planter,
            [
                .. input.Plants.Select(
                    (p, i) =>
                        (
                            new Plant
                            {
                                Id = $"plant-{i + 1}",
                                BotanicalName = p.Name,
                                CommonName = p.Name,
                                LifeForm = LifeForm.TenderAnnual,
                                Habit = p.Habit,
                                HeightCm = p.HeightCm,
                                SpreadAtPurchaseCm = p.SpreadAtPurchaseCm,
                                MatureSpreadCm = p.MatureSpreadCm,
                                LightLow = Exposure.Shade,
                                LightHigh = Exposure.FullSun,
                                Water = WaterNeed.Medium,
                                TopDamageC = 0,
                                Green = GreenLeaf.InSeason,
                                Windows = [],
                                Packs = [new Pack("one", 1, 0)],
                                Source = "given",
                            },
                            p.Count
                        )
                ),
            ]
        );
    }
}
