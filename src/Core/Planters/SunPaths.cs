using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Planters;

/// <summary>
/// The sun's path over each month's 15th at one latitude, five minutes at a time. It is the same for every planter of a site, and
/// is followed once for each year. Safe for several threads.
/// </summary>
/// <param name="latitudeDeg">Degrees north.</param>
public sealed class SunPaths(double latitudeDeg)
{
    /// <summary>Time between two positions, hours.</summary>
    public const double StepHours = 1.0 / 12;

    private const int Steps = 288;
    private const int MostYears = 60;

    private readonly ConcurrentDictionary<int, SunPosition[]> _years = new();

    /// <summary>Degrees north.</summary>
    public double LatitudeDeg => latitudeDeg;

    /// <summary>The sun's positions on a month's 15th, from midnight to midnight of solar time.</summary>
    /// <param name="year">The year.</param>
    /// <param name="month">1 to 12.</param>
    public ReadOnlySpan<SunPosition> Of(int year, int month)
    {
        if (_years.Count > MostYears)
            _years.Clear();
        return _years.GetOrAdd(year, Follow).AsSpan((month - 1) * Steps, Steps);
    }

    private SunPosition[] Follow(int year)
    {
        var positions = new SunPosition[12 * Steps];
        for (int m = 1; m <= 12; m++)
        {
            var day = new LocalDate(year, m, 15);
            for (int i = 0; i < Steps; i++)
                positions[((m - 1) * Steps) + i] = SunPosition.AtSolarHour(day, (i + 0.5) * StepHours, latitudeDeg);
        }
        return positions;
    }
}
