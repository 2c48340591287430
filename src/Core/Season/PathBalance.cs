using NetTopologySuite.Geometries;
using NetTopologySuite.LinearReferencing;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Season;

/// <summary>What stands on one side of a path.</summary>
/// <param name="Planters">The planters.</param>
/// <param name="ColourM2">Weighted colour on the day, m².</param>
/// <param name="SurfaceM2">Planted surface, m².</param>
/// <param name="InColour">Planters in colour.</param>
public sealed record PathSide(IReadOnlyList<Planter> Planters, double ColourM2, double SurfaceM2, int InColour);

/// <summary>The two sides of a path compared on a day: they should echo each other in weight and colour.</summary>
/// <param name="Path">The path.</param>
/// <param name="Left">Left of it, in the direction in which its points are given.</param>
/// <param name="Right">Right of it.</param>
public sealed record PathBalance(MapFeature Path, PathSide Left, PathSide Right)
{
    /// <summary>Planters within this of the path's edge belong to it, m (common practice).</summary>
    public const double ReachM = 6;

    /// <summary>Share of the stronger side that the weaker one reaches, 0 to 1; 1 when neither shows anything.</summary>
    public double Balance =>
        Math.Max(Left.ColourM2, Right.ColourM2) < 0.005 ? 1 : Math.Min(Left.ColourM2, Right.ColourM2) / Math.Max(Left.ColourM2, Right.ColourM2);

    /// <summary>How they go together.</summary>
    public PathVerdict Verdict =>
        (Left.Planters.Count, Right.Planters.Count) switch
        {
            (0, _) or (_, 0) => PathVerdict.OneSideOnly,
            _ when Balance >= 0.6 => PathVerdict.Balanced,
            _ => Left.ColourM2 > Right.ColourM2 ? PathVerdict.RightWeaker : PathVerdict.LeftWeaker,
        };

    /// <summary>Every path with planters beside it.</summary>
    /// <param name="map">The map.</param>
    /// <param name="seasons">The planters' seasons.</param>
    /// <param name="day">Day of the plan year.</param>
    public static IReadOnlyList<PathBalance> Of(IReadOnlyList<MapFeature> map, IReadOnlyList<PlanterSeason> seasons, int day)
    {
        var found = new List<PathBalance>();
        var placed = seasons.Where(s => s.Planter.Place is not null && !s.Planter.IsRetired).ToList();
        foreach (MapFeature path in map.Where(f => f.Kind == MapKind.Path))
        {
            var line = (LineString)path.Shape;
            var indexed = new LengthIndexedLine(line);
            var left = new List<PlanterSeason>();
            var right = new List<PlanterSeason>();
            foreach (PlanterSeason season in placed)
            {
                var at = new Coordinate(season.Planter.Place!.EastM, season.Planter.Place.NorthM);
                double index = indexed.Project(at);
                // Beyond its ends a path has no sides.
                if (index < 0.01 || index > line.Length - 0.01 || PlanterGround.Of(season.Planter).Distance(line) > (path.WidthM / 2) + ReachM)
                    continue;
                Coordinate before = indexed.ExtractPoint(Math.Max(0, index - 0.5));
                Coordinate after = indexed.ExtractPoint(Math.Min(line.Length, index + 0.5));
                double cross = ((after.X - before.X) * (at.Y - before.Y)) - ((after.Y - before.Y) * (at.X - before.X));
                (cross >= 0 ? left : right).Add(season);
            }
            if (left.Count + right.Count > 0)
                found.Add(new PathBalance(path, Side(left, day), Side(right, day)));
        }
        return found;
    }

    /// <summary>The arithmetic behind the balance.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PathBalance,
            Quantity.Share(Balance),
            [
                new WorkingInput(
                    InputName.Left,
                    new Fact(
                        WorkingPhrase.ColourOnInColour,
                        ("colourM2", Quantity.SquareMetres(Left.ColourM2, 2)),
                        ("surfaceM2", Quantity.SquareMetres(Left.SurfaceM2)),
                        ("inColour", Left.InColour),
                        ("planters", Left.Planters.Count)
                    )
                ),
                new WorkingInput(
                    InputName.Right,
                    new Fact(
                        WorkingPhrase.ColourOnInColour,
                        ("colourM2", Quantity.SquareMetres(Right.ColourM2, 2)),
                        ("surfaceM2", Quantity.SquareMetres(Right.SurfaceM2)),
                        ("inColour", Right.InColour),
                        ("planters", Right.Planters.Count)
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.LeftRightAsPathPointsAre,
                    ("items", Left.Planters.Select(p => (object?)p).ToList()),
                    ("items2", Right.Planters.Select(p => (object?)p).ToList())
                ),
            ]
        )
        {
            Parts = [("path", Path.Name.Length > 0 ? (object?)Path.Name : WorkingPhrase.Path), ("reach", Quantity.Metres(ReachM))],
        };

    private static PathSide Side(List<PlanterSeason> seasons, int day) =>
        new(
            [.. seasons.Select(s => s.Planter)],
            seasons.Sum(s => s.Years == 0 ? 0 : s.Cover50[day] * s.Planter.Form.SurfaceCm2 / 10_000),
            seasons.Sum(s => s.Planter.Form.SurfaceCm2 / 10_000),
            seasons.Count(s => s.Years > 0 && s.ShareInColour[day] >= ColourOdds.InColour)
        );
}
