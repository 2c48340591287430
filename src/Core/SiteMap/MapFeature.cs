using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Valid;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.SiteMap;

/// <summary>What a feature of the site's map is.</summary>
public enum MapKind
{
    /// <summary>A building: a ring with a height.</summary>
    Building,

    /// <summary>A free-standing wall, fence or hedge: a line with a height.</summary>
    Wall,

    /// <summary>A path: a line with a width.</summary>
    Path,

    /// <summary>Water: a ring.</summary>
    Water,

    /// <summary>Lawn: a ring.</summary>
    Lawn,

    /// <summary>A tree: one point.</summary>
    Tree,
}

/// <summary>A point of the map, metres east and north of its origin.</summary>
public readonly record struct MapPoint(double EastM, double NorthM);

/// <summary>A building, wall, path, water, lawn or tree on the site's map.</summary>
public sealed record MapFeature
{
    /// <summary>Most points of one feature.</summary>
    public const int MostPoints = 2000;

    private static readonly GeometryFactory Factory = new();

    private Geometry? _shape;

    /// <summary>An empty feature, to be filled.</summary>
    public MapFeature() { }

    // A copy with other points must not keep the shape of the first.
    private MapFeature(MapFeature original) =>
        (Id, Kind, Name, Points, HeightM, WidthM, RootM, GrowthM, SurveyedIn, IsEvergreen) = (
            original.Id,
            original.Kind,
            original.Name,
            original.Points,
            original.HeightM,
            original.WidthM,
            original.RootM,
            original.GrowthM,
            original.SurveyedIn,
            original.IsEvergreen
        );

    /// <summary>Short name.</summary>
    public required string Id { get; init; }

    /// <summary>What it is.</summary>
    public required MapKind Kind { get; init; }

    /// <summary>Name for people; may be empty.</summary>
    public string Name { get; init; } = string.Empty;

    /// <summary>Its points: a ring (the first not repeated), a line, or one point.</summary>
    public required IReadOnlyList<MapPoint> Points { get; init; }

    /// <summary>Height above the ground, m; of a tree at the survey.</summary>
    public double HeightM { get; init; }

    /// <summary>Width of a path or wall, m; width of a tree's crown at the survey.</summary>
    public double WidthM { get; init; }

    /// <summary>Width of a tree's roots at the survey, m; 0 where nobody has measured them.</summary>
    public double RootM { get; init; }

    /// <summary>How much a tree grows each year in height, crown and roots, m.</summary>
    public double GrowthM { get; init; }

    /// <summary>Year of the survey, from which a tree grows.</summary>
    public int SurveyedIn { get; init; } = 2026;

    /// <summary>True for a tree that keeps its leaf.</summary>
    public bool IsEvergreen { get; init; }

    /// <summary>True for a ring.</summary>
    public bool IsRing => Kind is MapKind.Building or MapKind.Water or MapKind.Lawn;

    /// <summary>Its shape, m: a polygon, a line or a point.</summary>
    public Geometry Shape => _shape ??= Make();

    /// <summary>Height in a year, m.</summary>
    public double HeightIn(int year) => HeightM + (Kind == MapKind.Tree ? GrowthM * Math.Max(0, year - SurveyedIn) : 0);

    /// <summary>Width of the crown in a year, m.</summary>
    public double CrownIn(int year) => WidthM + (Kind == MapKind.Tree ? GrowthM * Math.Max(0, year - SurveyedIn) : 0);

    /// <summary>
    /// Width of the roots in a year, m; as wide as the crown where nobody has measured them (common practice: they reach at least so far).
    /// </summary>
    public double RootsIn(int year) =>
        (Kind == MapKind.Tree && RootM == 0 ? WidthM : RootM) + (Kind == MapKind.Tree ? GrowthM * Math.Max(0, year - SurveyedIn) : 0);

    /// <summary>Every fault of the feature.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Phrase("name", Name, 60);
        int least =
            IsRing ? 3
            : Kind == MapKind.Tree ? 1
            : 2;
        if (Points.Count < least || Points.Count > (Kind == MapKind.Tree ? 1 : MostPoints))
            faults.Add(
                "points",
                Kind == MapKind.Tree ? "must be one point" : $"must be from {least} to {MostPoints:#,0} points (they are {Points.Count})"
            );
        if (Points.Any(p => !(Math.Abs(p.EastM) <= MapPlace.FarthestM) || !(Math.Abs(p.NorthM) <= MapPlace.FarthestM)))
            faults.Add("points", $"must lie within {MapPlace.FarthestM / 1000:0} km of the map's origin");
        faults.Range("heightM", HeightM, Kind is MapKind.Building or MapKind.Wall or MapKind.Tree ? 0.2 : 0, 120, "m");
        faults.Range("widthM", WidthM, Kind is MapKind.Path or MapKind.Tree ? 0.2 : 0, 60, "m");
        faults.Range("rootM", RootM, 0, 80, "m");
        faults.Range("growthM", GrowthM, 0, 3, "m a year");
        faults.Range("surveyedIn", SurveyedIn, 1950, 2150, string.Empty);
        if (faults.IsEmpty && Kind != MapKind.Tree)
        {
            var validity = new IsValidOp(Shape);
            if (!validity.IsValid)
                faults.Add(
                    "points",
                    (
                        $"the outline crosses itself near {{{validity.ValidationError.Coordinate.X:0.#} "
                        + $"m}} east, {{{validity.ValidationError.Coordinate.Y:0.#} m}} north"
                    )
                );
            else if (IsRing && Shape.Area < 0.05)
                faults.Add("points", $"enclose {{{Shape.Area:0.####} m²}}, next to nothing");
            else if (!IsRing && Shape.Length < 0.1)
                faults.Add("points", "make a line of no length");
        }
        return faults.Faults;
    }

    /// <summary>True when both features say the same.</summary>
    public bool Equals(MapFeature? other) =>
        other is not null
        && Points.SequenceEqual(other.Points)
        && (Id, Kind, Name, HeightM, WidthM, RootM, GrowthM)
            == (other.Id, other.Kind, other.Name, other.HeightM, other.WidthM, other.RootM, other.GrowthM)
        && (SurveyedIn, IsEvergreen) == (other.SurveyedIn, other.IsEvergreen);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(Id, Kind, Points.Count, HeightM, WidthM);

    private Geometry Make()
    {
        Coordinate[] points = [.. Points.Select(p => new Coordinate(p.EastM, p.NorthM))];
        return Kind == MapKind.Tree ? Factory.CreatePoint(points[0])
            : IsRing ? Factory.CreatePolygon([.. points, points[0].Copy()])
            : Factory.CreateLineString(points);
    }
}
