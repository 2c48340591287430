namespace UnrulyMeadow.Core.Climate;

/// <summary>Day length and radiation at the top of the atmosphere, by FAO Irrigation and Drainage Paper 56 (Allen et al. 1998), chapter 3.</summary>
public static class SolarGeometry
{
    /// <summary>Solar constant, MJ m⁻² min⁻¹.</summary>
    public const double SolarConstant = 0.0820;

    /// <summary>Daylight hours N = 24 ωs / π (eq. 34), held to 0–24 beyond the polar circles.</summary>
    /// <param name="latitudeDeg">Degrees north; negative in the south.</param>
    /// <param name="dayOfYear">1 to 366.</param>
    public static double DaylightHours(double latitudeDeg, int dayOfYear) => 24 / Math.PI * SunsetHourAngle(latitudeDeg, dayOfYear);

    /// <summary>Extraterrestrial radiation Ra, MJ m⁻² day⁻¹ (eq. 21).</summary>
    /// <param name="latitudeDeg">Degrees north; negative in the south.</param>
    /// <param name="dayOfYear">1 to 366.</param>
    public static double ExtraterrestrialRadiation(double latitudeDeg, int dayOfYear)
    {
        double phi = latitudeDeg * Math.PI / 180;
        double delta = Declination(dayOfYear);
        double distance = 1 + (0.033 * Math.Cos(2 * Math.PI * dayOfYear / 365)); // eq. 23
        double omega = SunsetHourAngle(latitudeDeg, dayOfYear);
        return 24
            * 60
            / Math.PI
            * SolarConstant
            * distance
            * ((omega * Math.Sin(phi) * Math.Sin(delta)) + (Math.Cos(phi) * Math.Cos(delta) * Math.Sin(omega)));
    }

    /// <summary>Solar declination, radians (eq. 24).</summary>
    /// <param name="dayOfYear">1 to 366.</param>
    public static double Declination(int dayOfYear) => 0.409 * Math.Sin((2 * Math.PI * dayOfYear / 365) - 1.39);

    private static double SunsetHourAngle(double latitudeDeg, int dayOfYear)
    {
        double phi = latitudeDeg * Math.PI / 180;
        return Math.Acos(Math.Clamp(-Math.Tan(phi) * Math.Tan(Declination(dayOfYear)), -1, 1)); // eq. 25
    }
}
