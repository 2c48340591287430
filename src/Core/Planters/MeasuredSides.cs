using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Planters;

/// <summary>One side of a bed as measured on the ground.</summary>
/// <param name="LengthCm">Along the edge, cm.</param>
/// <param name="InsideAngleDeg">Angle inside the bed at the side's end, degrees; 90 for a square corner, over 180 for one that juts in.</param>
public readonly record struct MeasuredSide(double LengthCm, double InsideAngleDeg);

/// <summary>
/// An outline from sides and corners measured with a tape, walked once round with the bed on the left. What does not
/// close by measuring error is shared among the corners in proportion to the way walked: the compass rule of surveying.
/// </summary>
/// <param name="Outline">The closed outline.</param>
/// <param name="GapCm">How far the last side missed the first corner, cm.</param>
/// <param name="PerimeterCm">Length of all sides, cm.</param>
/// <param name="AngleErrorDeg">Sum of the inside angles less what so many corners must have, degrees.</param>
public sealed record MeasuredSides(BedOutline Outline, double GapCm, double PerimeterCm, double AngleErrorDeg)
{
    /// <summary>A gap beyond this share of the perimeter is a mistake, not an error of measuring (common practice for a tape).</summary>
    public const double MostGapShare = 0.02;

    /// <summary>Walks round.</summary>
    /// <param name="sides">At least three sides.</param>
    /// <param name="setbackCm">Of the outline.</param>
    /// <exception cref="InvalidInputException">A figure is impossible, or the sides do not close.</exception>
    public static MeasuredSides Walk(IReadOnlyList<MeasuredSide> sides, double setbackCm)
    {
        var faults = new FaultList();
        if (sides.Count is < 3 or > BedOutline.MostCorners)
            faults.Add("sides", $"must be from 3 to {BedOutline.MostCorners} (they are {sides.Count})");
        for (int i = 0; i < sides.Count; i++)
        {
            faults.Range($"sides[{i}].lengthCm", sides[i].LengthCm, 1, 100_000, "cm");
            faults.Range($"sides[{i}].insideAngleDeg", sides[i].InsideAngleDeg, 1, 359, "degrees");
        }
        faults.ThrowIfAny();
        double angleError = sides.Sum(s => s.InsideAngleDeg) - ((sides.Count - 2) * 180.0);
        double x = 0;
        double y = 0;
        double heading = 0;
        double walked = 0;
        var corners = new List<(double X, double Y, double Walked)> { (0, 0, 0) };
        foreach (MeasuredSide side in sides)
        {
            x += side.LengthCm * Math.Cos(heading);
            y += side.LengthCm * Math.Sin(heading);
            walked += side.LengthCm;
            corners.Add((x, y, walked));
            heading += Math.PI - ((side.InsideAngleDeg - (angleError / sides.Count)) * Math.PI / 180);
        }
        double gap = Math.Sqrt((x * x) + (y * y));
        if (Math.Abs(angleError) > 5 * Math.Sqrt(sides.Count))
            throw new InvalidInputException(
                "sides",
                (
                    $"the inside angles make {sides.Sum(s => s.InsideAngleDeg):0.#}°, but {sides.Count} "
                    + $"corners must make {(sides.Count - 2) * 180}°; measure them again, each inside the bed"
                )
            );
        if (gap > MostGapShare * walked)
            throw new InvalidInputException(
                "sides",
                $"the last side ends {{{gap:0} cm}} from the first corner, {gap / walked:P0} of the way round; measure again, or check that no side is missing"
            );
        var outline = new BedOutline(
            [
                .. corners
                    .Take(sides.Count)
                    .Select(c => new Corner(Math.Round(c.X - (x * c.Walked / walked), 1), Math.Round(c.Y - (y * c.Walked / walked), 1))),
            ],
            [],
            setbackCm
        );
        var wrong = outline.Faults();
        if (wrong.Count > 0)
            throw new InvalidInputException([.. wrong.Select(f => new Fault("sides", $"the outline {f.Message}"))]);
        return new MeasuredSides(outline.Centred(), gap, walked, angleError);
    }

    /// <summary>The arithmetic behind the outline.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.OutlineFromMeasuredSides,
            Quantity.SquareMetres(Outline.AreaCm2 / 10_000, 2),
            [
                new WorkingInput(InputName.WayRound, Quantity.Metres(PerimeterCm / 100, 2)),
                new WorkingInput(InputName.GapAtTheEnd, Quantity.Cm(GapCm, 1)),
                new WorkingInput(InputName.AnglesOffBy, Quantity.Degrees(AngleErrorDeg, 1)),
            ],
            [
                new Fact(
                    WorkingPhrase.PlantingKeepsFromEdgeRemain,
                    ("setback", Quantity.Cm(Outline.SetbackCm, 1)),
                    ("area", Quantity.SquareMetres(Outline.Plantable.Area / 10_000, 2))
                ),
            ]
        );
}
