using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Planters;

/// <summary>The shape of a planter's inside.</summary>
public enum PlanterShape
{
    /// <summary>Round pot, straight or tapered: a frustum of a cone.</summary>
    Round,

    /// <summary>Square or rectangular trough, straight or tapered.</summary>
    Trough,

    /// <summary>Hanging basket: half an ellipsoid.</summary>
    Basket,

    /// <summary>Rectangular bed.</summary>
    RectangularBed,

    /// <summary>Oval bed.</summary>
    OvalBed,

    /// <summary>Oval pot, straight or tapered.</summary>
    Oval,

    /// <summary>Bowl: curved like an ellipse down to a flat floor.</summary>
    Bowl,

    /// <summary>Half a barrel: staves bent like a parabola, widest at the rim.</summary>
    HalfBarrel,

    /// <summary>Bed of any outline.</summary>
    OutlinedBed,
}

/// <summary>
/// A planter's inside measures, cm, and what follows from them. For round shapes the length is the diameter and the
/// width repeats it. The finished surface lies <see cref="RimGapCm"/> below the rim.
/// </summary>
/// <param name="Shape">The shape.</param>
/// <param name="TopLengthCm">Inside length or diameter at the rim.</param>
/// <param name="TopWidthCm">Inside width at the rim.</param>
/// <param name="BottomLengthCm">Inside length or diameter at the floor.</param>
/// <param name="BottomWidthCm">Inside width at the floor.</param>
/// <param name="DepthCm">Inside depth, rim to floor; in a bed the depth of worked soil.</param>
/// <param name="RimGapCm">Rim to finished surface, for watering; 0 in a bed.</param>
public sealed record PlanterForm(
    PlanterShape Shape,
    double TopLengthCm,
    double TopWidthCm,
    double BottomLengthCm,
    double BottomWidthCm,
    double DepthCm,
    double RimGapCm
)
{
    /// <summary>The corners of an outlined bed, about the middle of its box; null for every other shape.</summary>
    public BedOutline? Outline { get; init; }

    /// <summary>A bed of any outline.</summary>
    /// <param name="outline">Its corners.</param>
    /// <param name="depthCm">Worked soil, cm.</param>
    public static PlanterForm Bed(BedOutline outline, double depthCm)
    {
        BedOutline centred = outline.Centred();
        (double length, double width) = (Math.Round(centred.LengthCm, 2), Math.Round(centred.WidthCm, 2));
        return new(PlanterShape.OutlinedBed, length, width, length, width, depthCm, 0) { Outline = centred };
    }

    /// <summary>A round pot.</summary>
    public static PlanterForm Round(double topCm, double bottomCm, double depthCm, double rimGapCm = 2.5) =>
        new(PlanterShape.Round, topCm, topCm, bottomCm, bottomCm, depthCm, rimGapCm);

    /// <summary>A straight or tapered trough.</summary>
    public static PlanterForm Trough(
        double lengthCm,
        double widthCm,
        double bottomLengthCm,
        double bottomWidthCm,
        double depthCm,
        double rimGapCm = 2.5
    ) => new(PlanterShape.Trough, lengthCm, widthCm, bottomLengthCm, bottomWidthCm, depthCm, rimGapCm);

    /// <summary>True for beds in the ground, which have no wall.</summary>
    public bool IsBed => Shape is PlanterShape.RectangularBed or PlanterShape.OvalBed or PlanterShape.OutlinedBed;

    /// <summary>True where the outline is a circle or an ellipse.</summary>
    public bool IsRoundish => IsCircular || Shape is PlanterShape.OvalBed or PlanterShape.Oval;

    /// <summary>True where length and width are one diameter.</summary>
    public bool IsCircular => Shape is PlanterShape.Round or PlanterShape.Basket or PlanterShape.Bowl or PlanterShape.HalfBarrel;

    /// <summary>True where the sides curve, so that no straight taper tells the width half-way.</summary>
    public bool IsCurved => Shape is PlanterShape.Basket or PlanterShape.Bowl or PlanterShape.HalfBarrel;

    /// <summary>Finished surface to floor, cm.</summary>
    public double PlantableDepthCm => DepthCm - RimGapCm;

    /// <summary>Volume of medium to the finished surface, litres.</summary>
    public double PlantableLitres => LitresBetween(0, PlantableDepthCm);

    /// <summary>Volume to the rim, litres.</summary>
    public double FullLitres => LitresBetween(-RimGapCm, PlantableDepthCm);

    /// <summary>Area of the finished surface, cm².</summary>
    public double SurfaceCm2 => AreaAt(0);

    /// <summary>Inside length and width at a depth below the finished surface, cm.</summary>
    /// <param name="depthCm">Below the finished surface; negative towards the rim.</param>
    public (double LengthCm, double WidthCm) InsideAt(double depthCm)
    {
        double t = Math.Clamp((depthCm + RimGapCm) / DepthCm, 0, 1);
        // Share of the way from the rim's width to the floor's.
        t = Shape switch
        {
            PlanterShape.Basket or PlanterShape.Bowl => 1 - Math.Sqrt(1 - (t * t)),
            PlanterShape.HalfBarrel => t * t,
            _ => t,
        };
        return (TopLengthCm + ((BottomLengthCm - TopLengthCm) * t), TopWidthCm + ((BottomWidthCm - TopWidthCm) * t));
    }

    /// <summary>Inside area at a depth below the finished surface, cm².</summary>
    public double AreaAt(double depthCm)
    {
        if (Outline is not null)
            return Outline.AreaCm2;
        (double length, double width) = InsideAt(depthCm);
        return length * width * (IsRoundish ? Math.PI / 4 : 1);
    }

    /// <summary>
    /// Volume between two depths, litres. Simpson's rule is exact where the area is quadratic in depth; the bowl and the
    /// barrel are integrated by their own formulas.
    /// </summary>
    public double LitresBetween(double upperCm, double lowerCm)
    {
        double upper = Math.Max(upperCm, -RimGapCm);
        double lower = Math.Min(lowerCm, PlantableDepthCm);
        if (lower <= upper)
            return 0;
        if (Shape is PlanterShape.Basket or PlanterShape.Bowl)
            return (EllipticLitres(lower) - EllipticLitres(upper)) / 1000;
        double middle = (upper + lower) / 2;
        if (Shape == PlanterShape.HalfBarrel)
        {
            // Three Gauss points are exact up to the fifth power; a barrel's area is of the fourth.
            double reach = (lower - upper) / 2;
            double off = reach * Math.Sqrt(0.6);
            return reach / 9 * ((5 * AreaAt(middle - off)) + (8 * AreaAt(middle)) + (5 * AreaAt(middle + off))) / 1000;
        }
        return (lower - upper) / 6 * (AreaAt(upper) + (4 * AreaAt(middle)) + AreaAt(lower)) / 1000;
    }

    /// <summary>Every fault of the measures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        double longest = IsBed ? 10_000 : 500;
        double deepest = IsBed ? 150 : 200;
        faults.Range("topLengthCm", TopLengthCm, IsBed ? 30 : 10, longest, "cm");
        faults.Range("topWidthCm", TopWidthCm, IsBed ? 30 : 10, longest, "cm");
        faults.Range("depthCm", DepthCm, 10, deepest, "cm");
        if (Shape != PlanterShape.Basket)
        {
            faults.Range("bottomLengthCm", BottomLengthCm, 5, longest, "cm");
            faults.Range("bottomWidthCm", BottomWidthCm, 5, longest, "cm");
        }
        if (Shape is PlanterShape.Bowl or PlanterShape.HalfBarrel && BottomLengthCm > TopLengthCm)
            faults.Add("bottomLengthCm", "must not be wider than the rim");
        if ((Shape == PlanterShape.OutlinedBed) != (Outline is not null))
            faults.Add("outline", "must be given for an outlined bed, and only for one");
        if (Outline is not null)
            faults.AddAll("outline", Outline.Faults());
        if (faults.IsEmpty && Outline is not null && (Math.Abs(Outline.LengthCm - TopLengthCm) > 1 || Math.Abs(Outline.WidthCm - TopWidthCm) > 1))
            faults.Add("topLengthCm", $"must be the outline's own length, {{{Outline.LengthCm:0.#} cm}}, and width, {{{Outline.WidthCm:0.#} cm}}");
        if (IsBed)
            faults.Range("rimGapCm", RimGapCm, 0, 0, "cm in a bed");
        else
            faults.Range("rimGapCm", RimGapCm, 0, Math.Max(0, Math.Min(20, DepthCm / 2)), "cm, at most half the depth");
        if (faults.IsEmpty && Outline is not null && (Math.Abs(Outline.Middle.XCm) > 1 || Math.Abs(Outline.Middle.YCm) > 1))
            faults.Add("outline.ring", "must be given about the middle of its box, which is the planter's place on the map");
        if (IsCircular && (Math.Abs(TopLengthCm - TopWidthCm) > 0.01 || Math.Abs(BottomLengthCm - BottomWidthCm) > 0.01))
            faults.Add("topWidthCm", "must equal the diameter in a round planter");
        return faults.Faults;
    }

    /// <summary>The arithmetic behind the volume.</summary>
    public Working ExplainVolume()
    {
        double half = PlantableDepthCm / 2;
        return new Working(
            WorkingKind.PlanterVolume,
            Quantity.Litres(PlantableLitres, 1),
            [
                new WorkingInput(
                    InputName.Inside,
                    IsRoundish
                        ? new Fact(WorkingPhrase.RoundAtTheRim, ("length", Quantity.Cm(TopLengthCm, 1)))
                        : new Fact(WorkingPhrase.AtTheRim, ("length", Quantity.Cm(TopLengthCm, 1)), ("width", Quantity.Cm(TopWidthCm, 1)))
                ),
                new WorkingInput(
                    InputName.AtTheFloor,
                    Shape == PlanterShape.Basket
                        ? (object?)WorkingPhrase.PlanterVolumeFloor
                        : new Fact(
                            WorkingPhrase.PlanterVolumeFloorPair,
                            ("bottomLength", Quantity.Cm(BottomLengthCm, 1)),
                            ("bottomWidth", Quantity.Cm(BottomWidthCm, 1))
                        )
                ),
                new WorkingInput(InputName.InsideDepth, Quantity.Cm(DepthCm, 1)),
                new WorkingInput(InputName.RimToSurface, Quantity.Cm(RimGapCm, 1)),
            ],
            [
                new Fact(
                    WorkingPhrase.AreaSurfaceHalfWayFloor,
                    ("areaAt", Quantity.SquareMetres(AreaAt(0) / 10_000, 2)),
                    ("half", Quantity.SquareMetres(AreaAt(half) / 10_000, 2)),
                    ("plantableDepth", Quantity.SquareMetres(AreaAt(PlantableDepthCm) / 10_000, 2))
                ),
                new Fact(WorkingPhrase.RimHolds, ("full", Quantity.Litres(FullLitres, 1))),
            ]
        )
        {
            Parts =
            [
                (
                    "rule",
                    Shape switch
                    {
                        PlanterShape.Round => (object?)WorkingPhrase.FrustumCone,
                        PlanterShape.Basket => WorkingPhrase.HalfEllipsoidCutSurface,
                        PlanterShape.Bowl => WorkingPhrase.EllipticSidesDownFlatFloorSin,
                        PlanterShape.HalfBarrel => WorkingPhrase.HalfBarrelWithParabolicStaves,
                        PlanterShape.OutlinedBed => WorkingPhrase.AreaOutlineLessHolesTimesDepth,
                        _ => WorkingPhrase.Prismatoid,
                    }
                ),
                ("source", Shape == PlanterShape.OutlinedBed ? (object?)WorkingPhrase.ShoelaceFormula : WorkingPhrase.SolidGeometry),
            ],
        };
    }

    // From the rim down to a depth below the finished surface, cm³, for sides curved like an ellipse.
    private double EllipticLitres(double depthCm)
    {
        double s = Math.Clamp((depthCm + RimGapCm) / DepthCm, 0, 1);
        double angle = Math.Asin(s);
        double b = BottomLengthCm / 2;
        double d = (TopLengthCm - BottomLengthCm) / 2;
        return Math.PI * DepthCm * ((b * b * s) + (b * d * (angle + (s * Math.Cos(angle)))) + (d * d * (s - (s * s * s / 3))));
    }

    /// <summary>
    /// What decides the temperature inside it behind a wall. Measures are rounded (widths and depths to 5 cm from 30 cm on, to 2 cm below;
    /// absorptance to a quarter), so that planters of one family share a class.
    /// </summary>
    /// <param name="wall">Its wall.</param>
    /// <param name="wallColour">The wall's colour, #rrggbb.</param>
    /// <param name="sun">Direct sun.</param>
    /// <param name="survey">What the crew saw at it; null for what is usual.</param>
    public ThermalClass ThermalClass(WallMaterial wall, string wallColour, Exposure sun, PlanterSurvey? survey = null)
    {
        survey ??= PlanterSurvey.Unseen;
        SurfaceCover cover = survey.MulchCm >= Ground.ThermalClass.LeastMulchCm ? SurfaceCover.Mulch : SurfaceCover.Litter;
        if (IsBed)
            return Ground.ThermalClass.Bed(cover, sun);
        (double length, double width) = InsideAt(PlantableDepthCm / 2);
        length = Rounded(length) / 100;
        width = Rounded(width) / 100;
        return new ThermalClass(
            false,
            length * width * (IsRoundish ? Math.PI / 4 : 1),
            IsRoundish ? Math.PI * (length + width) / 2 : 2 * (length + width),
            Math.Min(length, width) / 2,
            Rounded(Shape is PlanterShape.Basket or PlanterShape.Bowl ? PlantableDepthCm * 2 / 3 : PlantableDepthCm) / 100,
            survey.WallThicknessCm is null ? Walls.Resistance(wall) : Math.Round(Walls.Resistance(wall, survey.WallThicknessCm), 3),
            Math.Round(Walls.Absorptance(wallColour) * 4) / 4,
            sun,
            survey.OnFeet,
            cover,
            survey.Shelter,
            Medium.Potting
        );
    }

    private static double Rounded(double cm) => cm < 30 ? Math.Max(4, Math.Round(cm / 2) * 2) : Math.Round(cm / 5) * 5;
}
