namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// Reference evapotranspiration ET₀ of a short green crop, mm/day: FAO Irrigation and Drainage Paper 56 (Allen et al.
/// 1998), Penman–Monteith (eq. 6) where wind, humidity and sun are known, else Hargreaves (eq. 52).
/// </summary>
public static class ReferenceEvapotranspiration
{
    /// <summary>Share of the sun that is not thrown back: albedo 0.23, eq. 38.</summary>
    public const double TakenUp = 0.77;

    /// <summary>Penman–Monteith, eq. 6, for a day.</summary>
    /// <param name="minC">Lowest, °C.</param>
    /// <param name="maxC">Highest, °C.</param>
    /// <param name="vapourKPa">Actual vapour pressure, kPa.</param>
    /// <param name="windMs">Wind at 2 m, m/s.</param>
    /// <param name="sunMJ">Solar radiation Rs, MJ/m².</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="elevationM">Metres above the sea.</param>
    /// <param name="dayOfYear">1 to 366.</param>
    public static double PenmanMonteith(
        double minC,
        double maxC,
        double vapourKPa,
        double windMs,
        double sunMJ,
        double latitudeDeg,
        double elevationM,
        int dayOfYear
    )
    {
        double mean = (minC + maxC) / 2;
        double saturated = (Saturation(minC) + Saturation(maxC)) / 2; // eq. 12
        double slope = 4098 * Saturation(mean) / Math.Pow(mean + 237.3, 2); // eq. 13
        double pressure = 101.3 * Math.Pow((293 - (0.0065 * elevationM)) / 293, 5.26); // eq. 7
        double gamma = 0.665e-3 * pressure; // eq. 8
        double ra = SolarGeometry.ExtraterrestrialRadiation(latitudeDeg, dayOfYear);
        double net = (TakenUp * sunMJ) - LongWave(minC, maxC, vapourKPa, Clearness(sunMJ, elevationM, ra)); // eqs 38–40
        double numerator = (0.408 * slope * net) + (gamma * 900 / (mean + 273) * windMs * (saturated - vapourKPa));
        return Math.Max(0, numerator / (slope + (gamma * (1 + (0.34 * windMs)))));
    }

    /// <summary>Hargreaves, eq. 52, from temperatures alone.</summary>
    /// <param name="minC">Lowest, °C.</param>
    /// <param name="maxC">Highest, °C.</param>
    /// <param name="meanC">Mean, °C.</param>
    /// <param name="extraterrestrialMJ">Ra, MJ/m².</param>
    public static double Hargreaves(double minC, double maxC, double meanC, double extraterrestrialMJ) =>
        Math.Max(0, 0.0023 * (meanC + 17.8) * Math.Sqrt(Math.Max(0, maxC - minC)) * 0.408 * extraterrestrialMJ);

    /// <summary>
    /// ET₀ of a day of a record, by Penman–Monteith where wind, humidity and sun were recorded, else by Hargreaves; NaN without temperatures.
    /// </summary>
    /// <param name="record">The record.</param>
    /// <param name="index">The day.</param>
    /// <returns>mm, and whether Penman–Monteith was used.</returns>
    public static (double Mm, bool Full) Of(WeatherRecord record, int index)
    {
        double min = record.MinC[index];
        double max = record.MaxC[index];
        int day = record.FirstDay.PlusDays(index).DayOfYear;
        double humidity = record.HumidityPct[index];
        double sun = record.SunMJ[index];
        double wind = record.WindMs[index];
        if (double.IsNaN(humidity) || double.IsNaN(sun) || double.IsNaN(wind))
            return (Hargreaves(min, max, (min + max) / 2, SolarGeometry.ExtraterrestrialRadiation(record.Station.LatitudeDeg, day)), false);
        double vapour = humidity / 100 * (Saturation(min) + Saturation(max)) / 2; // eq. 19
        return (PenmanMonteith(min, max, vapour, WindAt2M(wind, 10), sun, record.Station.LatitudeDeg, record.Station.ElevationM, day), true);
    }

    /// <summary>Solar radiation where nobody measured it, from the day's range: Rs = 0.16 √(Tmax − Tmin) Ra, MJ/m², eq. 50.</summary>
    public static double SunFromRange(double minC, double maxC, double extraterrestrialMJ) =>
        0.16 * Math.Sqrt(Math.Max(0, maxC - minC)) * extraterrestrialMJ;

    /// <summary>Sun against that of a clear sky (eq. 37), held to 0.25–1.</summary>
    public static double Clearness(double sunMJ, double elevationM, double extraterrestrialMJ) =>
        Math.Clamp(sunMJ / Math.Max(0.1, (0.75 + (2e-5 * elevationM)) * extraterrestrialMJ), 0.25, 1);

    /// <summary>Saturation vapour pressure, kPa, eq. 11.</summary>
    public static double Saturation(double c) => 0.6108 * Math.Exp(17.27 * c / (c + 237.3));

    /// <summary>Relative humidity where nobody has measured it, %: the dew point is taken to be the day's lowest temperature, eq. 48.</summary>
    /// <param name="minC">The day's lowest, °C.</param>
    /// <param name="airC">The air at the hour that is asked about, °C.</param>
    public static double HumidityPct(double minC, double airC) => Math.Min(100, 100 * Saturation(minC) / Saturation(airC));

    /// <summary>Vapour pressure from the day's highest and lowest humidity, kPa, eq. 17.</summary>
    public static double Vapour(double minC, double maxC, double humidityMinPct, double humidityMaxPct) =>
        ((Saturation(minC) * humidityMaxPct / 100) + (Saturation(maxC) * humidityMinPct / 100)) / 2;

    /// <summary>Wind at 2 m from wind at another height, m/s, eq. 47.</summary>
    public static double WindAt2M(double windMs, double heightM) => windMs * 4.87 / Math.Log((67.8 * heightM) - 5.42);

    /// <summary>Solar radiation from hours of sunshine, MJ/m², eq. 35.</summary>
    public static double SunFromHours(double sunshineHours, double latitudeDeg, int dayOfYear) =>
        (0.25 + (0.5 * sunshineHours / Math.Max(0.01, SolarGeometry.DaylightHours(latitudeDeg, dayOfYear))))
        * SolarGeometry.ExtraterrestrialRadiation(latitudeDeg, dayOfYear);

    /// <summary>Net long-wave radiation lost to the sky, MJ/m² a day, eq. 39.</summary>
    /// <param name="minC">Lowest, °C.</param>
    /// <param name="maxC">Highest, °C.</param>
    /// <param name="vapourKPa">Vapour pressure, kPa.</param>
    /// <param name="clearness">Sun against a clear sky's, 0.25 to 1.</param>
    public static double LongWave(double minC, double maxC, double vapourKPa, double clearness) =>
        4.903e-9
        * (Math.Pow(maxC + 273.16, 4) + Math.Pow(minC + 273.16, 4))
        / 2
        * (0.34 - (0.14 * Math.Sqrt(vapourKPa)))
        * ((1.35 * clearness) - 0.35);
}
