using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Where the sun stands.</summary>
/// <param name="AltitudeDeg">Above the horizon, degrees; no refraction.</param>
/// <param name="AzimuthDeg">Clockwise from north, 0 to 360.</param>
public readonly record struct SunPosition(double AltitudeDeg, double AzimuthDeg)
{
    /// <summary>
    /// The sun at an instant and place, by the short form of Meeus, Astronomical Algorithms ch. 25; within 0.02° of longer ones in 1950–2050.
    /// </summary>
    /// <param name="at">The instant.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="longitudeDeg">Degrees east.</param>
    public static SunPosition At(Instant at, double latitudeDeg, double longitudeDeg)
    {
        double days = at.ToJulianDate() - 2451545.0;
        (double declination, double rightAscension) = Equatorial(days);
        double sidereal = Radians(280.46061837 + (360.98564736629 * days) + longitudeDeg);
        return Horizontal(Radians(latitudeDeg), declination, sidereal - rightAscension);
    }

    /// <summary>The sun at a solar hour of a day: 12 when it stands highest.</summary>
    /// <param name="day">The day.</param>
    /// <param name="solarHour">0 to 24.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    public static SunPosition AtSolarHour(LocalDate day, double solarHour, double latitudeDeg)
    {
        double days = Period.DaysBetween(new LocalDate(2000, 1, 1), day) + ((solarHour - 12) / 24);
        return Horizontal(Radians(latitudeDeg), Equatorial(days).Declination, (solarHour - 12) * Math.PI / 12);
    }

    private static (double Declination, double RightAscension) Equatorial(double days)
    {
        double t = days / 36525;
        double mean = 280.46646 + (36000.76983 * t);
        double anomaly = Radians(357.52911 + (35999.05029 * t));
        double centre = ((1.914602 - (0.004817 * t)) * Math.Sin(anomaly)) + (0.019993 * Math.Sin(2 * anomaly)) + (0.000289 * Math.Sin(3 * anomaly));
        double node = Radians(125.04 - (1934.136 * t));
        double longitude = Radians(mean + centre - 0.00569 - (0.00478 * Math.Sin(node)));
        double obliquity = Radians(23.439291 - (0.0130042 * t) + (0.00256 * Math.Cos(node)));
        return (Math.Asin(Math.Sin(obliquity) * Math.Sin(longitude)), Math.Atan2(Math.Cos(obliquity) * Math.Sin(longitude), Math.Cos(longitude)));
    }

    private static SunPosition Horizontal(double latitude, double declination, double hourAngle)
    {
        double sine = (Math.Sin(latitude) * Math.Sin(declination)) + (Math.Cos(latitude) * Math.Cos(declination) * Math.Cos(hourAngle));
        double azimuth = Math.Atan2(
            -Math.Cos(declination) * Math.Sin(hourAngle),
            (Math.Cos(latitude) * Math.Sin(declination)) - (Math.Sin(latitude) * Math.Cos(declination) * Math.Cos(hourAngle))
        );
        return new SunPosition(Degrees(Math.Asin(Math.Clamp(sine, -1, 1))), ((Degrees(azimuth) % 360) + 360) % 360);
    }

    private static double Radians(double degrees) => degrees * Math.PI / 180;

    private static double Degrees(double radians) => radians * 180 / Math.PI;
}
