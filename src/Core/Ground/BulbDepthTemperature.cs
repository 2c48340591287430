using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// Daily temperature where a bulb lies, in its quick form: the daily mean of the air passed through a first-order lag
/// and held at or above −1 °C, because freezing water keeps wet ground near zero.
/// </summary>
/// <remarks>
/// Leaves out mulch, snow, sun on the wall and moisture. The lag is 4 days at 15 cm and grows in proportion to the
/// distance to the nearest surface. In a container the wall is a surface too.
/// </remarks>
public static class BulbDepthTemperature
{
    /// <summary>The lag at <see cref="ReferenceDepthCm"/>, days.</summary>
    public const double ReferenceLagDays = 4;

    /// <summary>The depth at which the lag holds, cm.</summary>
    public const double ReferenceDepthCm = 15;

    /// <summary>The coldest that wet ground at bulb depth is taken to be, °C.</summary>
    public const double FloorC = -1;

    /// <summary>The lag of a depth, days; at least one.</summary>
    /// <param name="depthCm">Depth to the bulb's base, cm.</param>
    /// <param name="wallDistanceCm">Mean distance to a container's wall, cm; null in a bed.</param>
    public static double LagDays(double depthCm, double? wallDistanceCm)
    {
        double nearest = Math.Min(depthCm, wallDistanceCm ?? double.PositiveInfinity);
        return Math.Max(1, ReferenceLagDays * nearest / ReferenceDepthCm);
    }

    /// <summary>The daily temperature at bulb depth over a run, °C.</summary>
    public static double[] Over(WeatherRun run, double lagDays)
    {
        var soil = new double[run.MinC.Length];
        double t = Enumerable.Range(0, Math.Min(10, soil.Length)).Average(run.MeanC);
        for (int i = 0; i < soil.Length; i++)
        {
            t += (run.MeanC(i) - t) / lagDays;
            soil[i] = Math.Max(FloorC, t);
        }
        return soil;
    }
}
