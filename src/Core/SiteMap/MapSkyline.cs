using NetTopologySuite.Geometries;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.SiteMap;

/// <summary>What stands between a planter and the sun, read off the site's map in any year.</summary>
public static class MapSkyline
{
    // Rays per sector; the highest counts for walls, the mean for crowns, which let light past their edge.
    private const int Rays = 5;

    // Nothing on a site reaches over the sun from farther away.
    private const double FarthestM = 500;

    /// <summary>
    /// What stands between a planter and the sun in a year: as it was measured, else as the map has it; null where neither is known.
    /// </summary>
    /// <param name="planter">The planter.</param>
    /// <param name="map">The map.</param>
    /// <param name="year">The year.</param>
    public static Skyline? Of(Planter planter, IReadOnlyList<MapFeature> map, int year) => planter.Skyline ?? OnMap(planter, map, year);

    /// <summary>What the map alone puts between a planter and the sun; null where it has no place or nothing on the map is tall.</summary>
    public static Skyline? OnMap(Planter planter, IReadOnlyList<MapFeature> map, int year) =>
        planter.Place is { } place && map.Any(f => f.HeightM > 0) ? Of(place, planter.Form.IsBed ? 0 : planter.Form.DepthCm / 100, map, year) : null;

    /// <summary>The skyline of a place.</summary>
    /// <param name="place">The planter's place.</param>
    /// <param name="rimM">Height of its medium above the ground, m.</param>
    /// <param name="map">The map.</param>
    /// <param name="year">The year; trees have grown since their survey.</param>
    public static Skyline Of(MapPlace place, double rimM, IReadOnlyList<MapFeature> map, int year)
    {
        var wall = new double[Skyline.Sectors];
        var tree = new double[Skyline.Sectors];
        var under = new double[Skyline.Sectors];
        Array.Fill(under, 90);
        var eye = new Coordinate(place.EastM, place.NorthM);
        bool evergreenAll = map.Any(f => f.Kind == MapKind.Tree) && map.Where(f => f.Kind == MapKind.Tree).All(f => f.IsEvergreen);
        foreach (MapFeature feature in map.Where(f => f.HeightM > 0))
        {
            double above = feature.HeightIn(year) - rimM;
            if (above <= 0)
                continue;
            for (int s = 0; s < Skyline.Sectors; s++)
            {
                if (feature.Kind == MapKind.Tree && Crown(feature, eye, s, above, year) is (var lower, var upper))
                    (under[s], tree[s]) = (Math.Min(under[s], lower), Math.Max(tree[s], upper));
                else if (feature.Kind != MapKind.Tree)
                    wall[s] = Math.Max(wall[s], Built(feature, eye, s, above));
            }
        }
        return new Skyline([.. wall.Select(R)], [.. tree.Zip(wall, (t, w) => t > w ? R(t) : 0)], year, 0, LeafOffShare: evergreenAll ? 0.15 : 0.6)
        {
            CanopyFromDeg = [.. under.Select(R)],
        };
        static double R(double deg) => Math.Round(Math.Clamp(deg, 0, 90), 1);
    }

    private static double Built(MapFeature feature, Coordinate eye, int sector, double above)
    {
        double best = 0;
        for (int r = 0; r < Rays; r++)
        {
            (double sin, double cos) = Math.SinCos(Azimuth(sector, r));
            double distance = double.PositiveInfinity;
            int sides = feature.IsRing ? feature.Points.Count : feature.Points.Count - 1;
            for (int i = 0; i < sides; i++)
                distance = Math.Min(distance, Along(eye, sin, cos, feature.Points[i], feature.Points[(i + 1) % feature.Points.Count]));
            if (distance <= FarthestM)
                best = Math.Max(best, Math.Atan2(above, Math.Max(0.05, distance)) * 180 / Math.PI);
        }
        return best;
    }

    // How far along a ray from the eye the line from a to b is met, m; infinite where it is not.
    private static double Along(Coordinate eye, double sin, double cos, MapPoint a, MapPoint b)
    {
        (double ax, double ay) = (a.EastM - eye.X, a.NorthM - eye.Y);
        (double dx, double dy) = (b.EastM - a.EastM, b.NorthM - a.NorthM);
        double across = (sin * dy) - (cos * dx);
        if (Math.Abs(across) < 1e-12)
        {
            // Along the ray itself: the nearer end, where it lies on the ray at all.
            if (Math.Abs((ax * cos) - (ay * sin)) > 1e-9)
                return double.PositiveInfinity;
            double first = (ax * sin) + (ay * cos);
            double second = first + (dx * sin) + (dy * cos);
            return Math.Max(first, second) < 0 ? double.PositiveInfinity : Math.Max(0, Math.Min(first, second));
        }
        double on = ((cos * ax) - (sin * ay)) / across;
        double along = ((ax * dy) - (ay * dx)) / across;
        return on is >= 0 and <= 1 && along >= 0 ? along : double.PositiveInfinity;
    }

    // A crown is taken as a ball flattened on its trunk, from half the tree's height at the survey, where its lowest boughs stay, to its
    // top as it grows: between what angles it is seen in a sector, the band as much narrower as rays pass it by; null where all do.
    private static (double Lower, double Upper)? Crown(MapFeature tree, Coordinate eye, int sector, double above, int year)
    {
        double radius = tree.CrownIn(year) / 2;
        Coordinate trunk = tree.Shape.Coordinate;
        double distance = trunk.Distance(eye);
        double direction = Math.Atan2(trunk.X - eye.X, trunk.Y - eye.Y);
        double half = (tree.HeightIn(year) - (tree.HeightM / 2)) / 2;
        double middle = above - half;
        (double lowers, double uppers, int met) = (0, 0, 0);
        for (int r = 0; r < Rays; r++)
        {
            double off = Math.Abs(Wrap(Azimuth(sector, r) - direction));
            (double aside, double ahead) = (distance * Math.Sin(off), distance * Math.Cos(off));
            if (aside >= radius)
                continue;
            double share = Math.Sqrt(1 - (aside * aside / (radius * radius)));
            if (ahead <= -radius * share)
                continue;
            (double lower, double upper) = Between(ahead, Math.Max(0.1, middle), radius * share, half * share);
            (lowers, uppers, met) = (lowers + lower, uppers + upper, met + 1);
        }
        return met == 0 ? null : (lowers / met, (lowers / met) + ((uppers - lowers) / Rays));
    }

    // The angles above the horizon between which an upright ellipse is seen: its middle so far ahead and so far up, with its half axes.
    private static (double Lower, double Upper) Between(double ahead, double middle, double across, double half)
    {
        double outside = (ahead * ahead) - (across * across);
        double root = Math.Sqrt(Math.Max(0, (half * half * outside) + (across * across * middle * middle)));
        // The two tangents' slopes multiply to (middle² − half²) / outside: so the lower one is had without a small difference of large numbers.
        double lowest = ((middle * middle) - (half * half)) / ((ahead * middle) + root);
        return (Math.Atan(Math.Max(0, lowest)) * 180 / Math.PI, ahead > across ? Math.Atan(((ahead * middle) + root) / outside) * 180 / Math.PI : 90);
    }

    private static double Azimuth(int sector, int ray) => (sector + (((ray + 0.5) / Rays) - 0.5)) * 2 * Math.PI / Skyline.Sectors;

    private static double Wrap(double angle)
    {
        angle %= 2 * Math.PI;
        return angle > Math.PI ? angle - (2 * Math.PI)
            : angle < -Math.PI ? angle + (2 * Math.PI)
            : angle;
    }
}

/// <summary>A planter's sun over some years as trees grow: where it was measured, by its own skyline, else off the map.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Years">Year, hours of direct sun a day over the growing season, and its class.</param>
/// <param name="FromMap">True when the skyline was read off the map.</param>
public sealed record ExposureForecast(Planter Planter, IReadOnlyList<(int Year, double Hours, Exposure Class)> Years, bool FromMap)
{
    /// <summary>The first year with another class than the first; null when it keeps its class.</summary>
    public (int Year, Exposure From, Exposure To)? Change
    {
        get
        {
            foreach ((int year, _, Exposure what) in Years)
            {
                if (what != Years[0].Class)
                    return (year, Years[0].Class, what);
            }
            return null;
        }
    }

    /// <summary>Looks ahead; null where neither a skyline nor a place on a map with anything tall is known.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="map">The map.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="firstYear">The first year.</param>
    /// <param name="years">How many years after it.</param>
    public static ExposureForecast? Of(Planter planter, IReadOnlyList<MapFeature> map, double latitudeDeg, int firstYear, int years = 5) =>
        Of(planter, map, new SunPaths(latitudeDeg), firstYear, years);

    /// <summary>
    /// Looks ahead along paths of the sun that many planters share; null where neither a skyline nor a place on a map with anything tall is known.
    /// </summary>
    /// <param name="planter">The planter.</param>
    /// <param name="map">The map.</param>
    /// <param name="paths">The sun's paths at the site.</param>
    /// <param name="firstYear">The first year.</param>
    /// <param name="years">How many years after it.</param>
    public static ExposureForecast? Of(Planter planter, IReadOnlyList<MapFeature> map, SunPaths paths, int firstYear, int years = 5)
    {
        bool fromMap = planter.Skyline is null;
        if (fromMap && (planter.Place is null || !map.Any(f => f.HeightM > 0)))
            return null;
        var seen = new List<(int, double, Exposure)>();
        SunYear? last = null;
        Skyline? before = null;
        for (int year = firstYear; year <= firstYear + years; year++)
        {
            Skyline skyline = MapSkyline.Of(planter, map, year)!;
            // Nothing grew: the sun of the year before is this year's.
            bool same =
                last is not null
                && before is not null
                && (
                    fromMap
                        ? skyline.WallDeg.SequenceEqual(before.WallDeg)
                            && skyline.TreeDeg.SequenceEqual(before.TreeDeg)
                            && skyline.CanopyFromDeg!.SequenceEqual(before.CanopyFromDeg!)
                        : skyline.TreeGrowthDeg == 0
                );
            SunYear sun = same ? last! : SunYear.Of(skyline, paths, year);
            (last, before) = (sun, skyline);
            seen.Add((year, sun.GrowingSeasonHours, sun.GrowingSeason));
        }
        return new ExposureForecast(planter, seen, fromMap);
    }

    /// <summary>The arithmetic behind the forecast.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.SunAsTreesGrow,
            Change is { } c ? (object?)new Fact(WorkingPhrase.AnotherClassIn, ("year", c.Year)) : WorkingPhrase.KeepsClass,
            [
                .. Years.Select(y => new WorkingInput(
                    y.Year,
                    new Fact(
                        WorkingPhrase.SunAsTreesGrowDay,
                        ("hours", Quantity.Hours(y.Hours, 1)),
                        (
                            "shade",
                            y.Class switch
                            {
                                Exposure.FullSun => (object?)WorkingPhrase.FullSun,
                                Exposure.PartSun => WorkingPhrase.PartSun,
                                _ => WorkingPhrase.Shade,
                            }
                        )
                    )
                )),
            ]
        )
        {
            Parts =
            [
                ("planter", Planter),
                ("source", FromMap ? (object?)WorkingPhrase.SkylineReadOffSiteMapWalls : WorkingPhrase.SkylineAsMeasuredTreesGrowingAs),
            ],
        };
}

/// <summary>How far a tree's roots fill a bed.</summary>
/// <param name="Tree">The tree.</param>
/// <param name="Planter">The bed.</param>
/// <param name="Shares">Year, and the share of the bed within its roots.</param>
public sealed record RootReach(MapFeature Tree, Planter Planter, IReadOnlyList<(int Year, double Share)> Shares)
{
    /// <summary>Every bed that any tree's roots reach within some years.</summary>
    public static IReadOnlyList<RootReach> Of(IReadOnlyList<Planter> planters, IReadOnlyList<MapFeature> map, int firstYear, int years = 5)
    {
        var found = new List<RootReach>();
        foreach (Planter bed in planters.Where(p => p.Form.IsBed && p.Place is not null))
        {
            Geometry ground = PlanterGround.Of(bed);
            foreach (MapFeature tree in map.Where(f => f.Kind == MapKind.Tree && f.RootsIn(firstYear + years) > 0))
            {
                if (ground.Distance(tree.Shape) >= tree.RootsIn(firstYear + years) / 2)
                    continue;
                found.Add(
                    new RootReach(
                        tree,
                        bed,
                        [
                            .. Enumerable
                                .Range(firstYear, years + 1)
                                .Select(y => (y, ground.Intersection(tree.Shape.Buffer(tree.RootsIn(y) / 2, 16)).Area / ground.Area)),
                        ]
                    )
                );
            }
        }
        return found;
    }
}

/// <summary>The ground that a planter covers on the map.</summary>
public static class PlanterGround
{
    private static readonly GeometryFactory Factory = new();

    /// <summary>Its outline on the map, m.</summary>
    /// <exception cref="InvalidOperationException">It has no place.</exception>
    public static Polygon Of(Planter planter)
    {
        MapPlace place = planter.Place ?? throw new InvalidOperationException($"{planter.Id} has no place on the map.");
        (double sin, double cos) = Math.SinCos(place.TurnDeg * Math.PI / 180);
        Coordinate[] ring =
        [
            .. Corners(planter.Form)
                .Select(c => new Coordinate(
                    place.EastM + (((c.XCm * cos) - (c.YCm * sin)) / 100),
                    place.NorthM + (((c.XCm * sin) + (c.YCm * cos)) / 100)
                )),
        ];
        LinearRing[] holes =
        [
            .. (planter.Form.Outline?.Holes ?? []).Select(h =>
                Factory.CreateLinearRing([
                    .. h.Append(h[0])
                        .Select(c => new Coordinate(
                            place.EastM + (((c.XCm * cos) - (c.YCm * sin)) / 100),
                            place.NorthM + (((c.XCm * sin) + (c.YCm * cos)) / 100)
                        )),
                ])
            ),
        ];
        return Factory.CreatePolygon(Factory.CreateLinearRing([.. ring, ring[0].Copy()]), holes);
    }

    /// <summary>Corners of a form about its middle, cm; round forms with 32.</summary>
    public static IReadOnlyList<Corner> Corners(PlanterForm form)
    {
        if (form.Outline is { } outline)
            return outline.Ring;
        double a = form.TopLengthCm / 2;
        double b = form.TopWidthCm / 2;
        return form.IsRoundish
            ? [.. Enumerable.Range(0, 32).Select(i => new Corner(a * Math.Cos(i * Math.PI / 16), b * Math.Sin(i * Math.PI / 16)))]
            : [new(-a, -b), new(a, -b), new(a, b), new(-a, b)];
    }
}
