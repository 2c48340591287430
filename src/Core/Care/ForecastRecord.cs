using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>A night as it was forecast, beside what came.</summary>
/// <param name="MadeOn">When it was forecast.</param>
/// <param name="Night">The day whose morning is meant.</param>
/// <param name="ForecastC">The lowest that was expected, °C.</param>
/// <param name="CameC">The lowest that came, °C.</param>
public sealed record ForecastNight(LocalDate MadeOn, LocalDate Night, double ForecastC, double CameC)
{
    /// <summary>Days ahead.</summary>
    public int LeadDays => Period.DaysBetween(MadeOn, Night);

    /// <summary>How much warmer it came than it was forecast, °C.</summary>
    public double OffC => CameC - ForecastC;
}

/// <summary>A night that is over: whom its forecast warned, and where it was as cold as spoils what stood there.</summary>
/// <param name="Forecast">The night, as it was forecast a day ahead and as it came.</param>
/// <param name="Warned">Planters of which something was at risk by the forecast.</param>
/// <param name="Cold">Planters where it was as cold as spoils something that stood there, unless it was covered.</param>
public sealed record NightThatCame(ForecastNight Forecast, IReadOnlyList<Planter> Warned, IReadOnlyList<Planter> Cold)
{
    // What came is known to a thermometer's error.
    private const double MeasuredErrorC = 0.01;

    /// <summary>Planters that were warned and had such a night.</summary>
    public int Right => Cold.Intersect(Warned).Count();

    /// <summary>Planters of which nobody was warned, and that had such a night.</summary>
    public IEnumerable<Planter> Missed => Cold.Except(Warned);

    /// <summary>Looks back; nights of which nothing was feared and in which nothing came to harm are left out.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="nights">Nights that came; only those forecast a day ahead count.</param>
    /// <param name="errorC">How far forecasts are off so many days ahead here, °C: who is warned by it was warned; null for the usual one.</param>
    /// <returns>The latest first.</returns>
    public static IReadOnlyList<NightThatCame> Of(Plan plan, IEnumerable<ForecastNight> nights, Func<int, double>? errorC = null)
    {
        List<Planter> At(ForecastNight night, double lowC, Func<int, double>? withinC) =>
            [.. ColdNights.Of(plan, [new DayForecast(night.Night, lowC, lowC, 0, null)], night.MadeOn, withinC).Select(r => r.Planter)];
        return
        [
            .. nights
                .Where(n => n.LeadDays == 1)
                .OrderByDescending(n => n.Night)
                .Select(n => new NightThatCame(n, At(n, n.ForecastC, errorC), At(n, n.CameC, _ => MeasuredErrorC)))
                .Where(n => n.Warned.Count > 0 || n.Cold.Count > 0),
        ];
    }
}

/// <summary>How good forecasts were at a site, and how often a threshold was warned of.</summary>
public static class ForecastRecord
{
    /// <summary>Fewer nights of a lead say nothing of forecasts here.</summary>
    public const int FewestNights = 30;

    /// <summary>
    /// Standard deviation of forecasts about what came, by days ahead, °C: root mean square of those made here; the usual one where too few
    /// were.
    /// </summary>
    /// <param name="nights">Nights that were forecast and came.</param>
    /// <param name="leadDays">Days ahead.</param>
    public static double ErrorC(IEnumerable<ForecastNight> nights, int leadDays)
    {
        List<double> off = [.. nights.Where(n => n.LeadDays == leadDays).Select(n => n.OffC)];
        return off.Count < FewestNights ? ColdNights.ErrorC(leadDays) : Math.Sqrt(off.Sum(o => o * o) / off.Count);
    }

    // One in ten of a normal distribution lies so many standard deviations below its mean.
    private const double OneInTen = 1.2815515655446004;

    /// <summary>The low that is undercut one time in ten.</summary>
    /// <param name="forecastC">The lowest that is expected, °C.</param>
    /// <param name="errorC">How far off that may be, a standard deviation, °C.</param>
    public static double LowInTen(double forecastC, double errorC) => forecastC - (OneInTen * errorC);

    /// <summary>Nights at or below a threshold, how many of them were warned of, and warnings after which none came.</summary>
    /// <param name="nights">Nights of one lead.</param>
    /// <param name="thresholdC">What spoils, °C.</param>
    /// <param name="odds">Odds from which a warning is given.</param>
    public static (int Cold, int Warned, int InVain) Warnings(IEnumerable<ForecastNight> nights, double thresholdC, double odds)
    {
        (int cold, int warned, int vain) = (0, 0, 0);
        foreach (ForecastNight night in nights)
        {
            bool isWarned = Normal.CDF(night.ForecastC, ColdNights.ErrorC(night.LeadDays), thresholdC) >= odds;
            bool isCold = night.CameC <= thresholdC;
            cold += isCold ? 1 : 0;
            warned += isCold && isWarned ? 1 : 0;
            vain += !isCold && isWarned ? 1 : 0;
        }
        return (cold, warned, vain);
    }
}
