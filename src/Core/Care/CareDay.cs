using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Care;

/// <summary>Where a day's weather is known from.</summary>
public enum CareDaySource
{
    /// <summary>A station measured it.</summary>
    Measured,

    /// <summary>A forecast expects it.</summary>
    Forecast,

    /// <summary>Neither: what is usual on that day of the year.</summary>
    Usual,
}

/// <summary>A day's weather as care reckons with it.</summary>
/// <param name="Day">The day.</param>
/// <param name="MinC">Lowest air, °C.</param>
/// <param name="MaxC">Highest air, °C.</param>
/// <param name="RainMm">Rain, mm.</param>
/// <param name="ReferenceMm">Reference evapotranspiration ET₀, mm.</param>
/// <param name="Source">Where it is known from.</param>
public sealed record CareDay(LocalDate Day, double MinC, double MaxC, double RainMm, double ReferenceMm, CareDaySource Source)
{
    /// <summary>Mean air, °C.</summary>
    public double MeanC => (MinC + MaxC) / 2;

    /// <summary>A day with ET₀ from its temperatures alone (Hargreaves, FAO-56 eq. 52).</summary>
    /// <param name="day">The day.</param>
    /// <param name="minC">Lowest air, °C.</param>
    /// <param name="maxC">Highest air, °C.</param>
    /// <param name="rainMm">Rain, mm.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="source">Where it is known from.</param>
    public static CareDay Of(LocalDate day, double minC, double maxC, double rainMm, double latitudeDeg, CareDaySource source) =>
        new(
            day,
            minC,
            maxC,
            rainMm,
            ReferenceEvapotranspiration.Hargreaves(
                minC,
                maxC,
                (minC + maxC) / 2,
                SolarGeometry.ExtraterrestrialRadiation(latitudeDeg, day.DayOfYear)
            ),
            source
        );

    /// <summary>
    /// Days without a gap: measured where a station was heard, forecast where one reaches, and what is usual else. A station that was silent for a
    /// week leaves days without rain, at usual temperatures.
    /// </summary>
    /// <param name="record">The site's record; null where none is known, so that days that nobody told are left out.</param>
    /// <param name="told">What a station measured or expects, in any order.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    public static IReadOnlyList<CareDay> Between(
        WeatherRecord? record,
        IReadOnlyCollection<(LocalDate Day, bool Forecast, double MinC, double MaxC, double RainMm)> told,
        LocalDate first,
        LocalDate last,
        double latitudeDeg
    )
    {
        var known = told.GroupBy(t => t.Day).ToDictionary(g => g.Key, g => g.OrderBy(t => t.Forecast).First());
        var days = new List<CareDay>();
        for (LocalDate day = first; day <= last; day = day.PlusDays(1))
        {
            if (known.TryGetValue(day, out var it))
                days.Add(Of(day, it.MinC, it.MaxC, it.RainMm, latitudeDeg, it.Forecast ? CareDaySource.Forecast : CareDaySource.Measured));
            else if (record?.ExpectedOn(day) is { } usual && !double.IsNaN(usual.MinC))
                days.Add(Of(day, usual.MinC, usual.MaxC, 0, latitudeDeg, CareDaySource.Usual));
        }
        return days;
    }
}
