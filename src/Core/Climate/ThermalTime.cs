namespace UnrulyMeadow.Core.Climate;

/// <summary>Heat above a base temperature, degree-days (°C·d).</summary>
public static class ThermalTime
{
    /// <summary>
    /// Degree-days of one day by the single-sine method (Baskerville &amp; Emin 1969): the day's temperature is taken as
    /// a sine between its minimum and maximum, and the area above the base is counted.
    /// </summary>
    /// <param name="minC">Lowest temperature, °C.</param>
    /// <param name="maxC">Highest temperature, °C, not below <paramref name="minC"/>.</param>
    /// <param name="baseC">Base temperature, °C.</param>
    public static double SingleSine(double minC, double maxC, double baseC)
    {
        double mean = (minC + maxC) / 2;
        if (minC >= baseC)
            return mean - baseC;
        if (maxC <= baseC)
            return 0;
        double half = (maxC - minC) / 2;
        double theta = Math.Asin((baseC - mean) / half);
        return (((mean - baseC) * ((Math.PI / 2) - theta)) + (half * Math.Cos(theta))) / Math.PI;
    }
}
