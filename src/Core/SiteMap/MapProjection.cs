namespace UnrulyMeadow.Core.SiteMap;

/// <summary>
/// Between degrees on the WGS 84 ellipsoid and metres east and north of the site's own place. Distances along the
/// meridian and along each parallel are true; it is exact both ways, and within a site of some kilometres nothing is
/// bent by more than centimetres.
/// </summary>
/// <param name="place">The origin.</param>
public sealed class MapProjection(SitePlace place)
{
    private const double SemiMajorM = 6_378_137;
    private const double Flattening = 1 / 298.257223563;
    private const double Eccentricity2 = Flattening * (2 - Flattening);

    /// <summary>Metres east and north of the origin.</summary>
    public MapPoint ToMetres(double longitudeDeg, double latitudeDeg)
    {
        double north = Meridian(latitudeDeg) - Meridian(place.LatitudeDeg);
        return new MapPoint(Radians(Wrapped(longitudeDeg - place.LongitudeDeg)) * Parallel(latitudeDeg), north);
    }

    /// <summary>Longitude and latitude, degrees.</summary>
    public (double LongitudeDeg, double LatitudeDeg) ToDegrees(MapPoint point)
    {
        double goal = Meridian(place.LatitudeDeg) + point.NorthM;
        double latitude = place.LatitudeDeg;
        for (int i = 0; i < 8; i++)
            latitude += (goal - Meridian(latitude)) / (MeridianRadius(latitude) * Math.PI / 180);
        return (Wrapped(place.LongitudeDeg + (point.EastM / Parallel(latitude) * 180 / Math.PI)), latitude);
    }

    private static double Wrapped(double degrees) =>
        degrees > 180 ? degrees - 360
        : degrees < -180 ? degrees + 360
        : degrees;

    private static double Radians(double degrees) => degrees * Math.PI / 180;

    private static double MeridianRadius(double latitudeDeg)
    {
        double s = Math.Sin(Radians(latitudeDeg));
        return SemiMajorM * (1 - Eccentricity2) / Math.Pow(1 - (Eccentricity2 * s * s), 1.5);
    }

    // Radius of the parallel, m.
    private static double Parallel(double latitudeDeg)
    {
        double s = Math.Sin(Radians(latitudeDeg));
        return SemiMajorM / Math.Sqrt(1 - (Eccentricity2 * s * s)) * Math.Cos(Radians(latitudeDeg));
    }

    // Length of the meridian from the equator, m, by the usual series in the eccentricity.
    private static double Meridian(double latitudeDeg)
    {
        double f = Radians(latitudeDeg);
        const double E2 = Eccentricity2;
        const double E4 = E2 * E2;
        const double E6 = E4 * E2;
        return SemiMajorM
            * (
                ((1 - (E2 / 4) - (3 * E4 / 64) - (5 * E6 / 256)) * f)
                - (((3 * E2 / 8) + (3 * E4 / 32) + (45 * E6 / 1024)) * Math.Sin(2 * f))
                + (((15 * E4 / 256) + (45 * E6 / 1024)) * Math.Sin(4 * f))
                - (35 * E6 / 3072 * Math.Sin(6 * f))
            );
    }
}
