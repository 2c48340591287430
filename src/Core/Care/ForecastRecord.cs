using NodaTime;

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

    /// <summary>Nights at or below a threshold, how many of them were warned of, and warnings after which none came.</summary>
    /// <param name="nights">Nights of one lead.</param>
    /// <param name="thresholdC">What spoils, °C.</param>
    /// <param name="odds">Odds from which a warning is given.</param>
    public static (int Cold, int Warned, int InVain) Warnings(IEnumerable<ForecastNight> nights, double thresholdC, double odds)
    {
        (int cold, int warned, int vain) = (0, 0, 0);
        foreach (ForecastNight night in nights)
        {
            bool isWarned =
                MathNet.Numerics.Distributions.Normal.CDF(night.ForecastC, ColdNights.ErrorC(night.LeadDays), thresholdC) >= odds;
            bool isCold = night.CameC <= thresholdC;
            cold += isCold ? 1 : 0;
            warned += isCold && isWarned ? 1 : 0;
            vain += !isCold && isWarned ? 1 : 0;
        }
        return (cold, warned, vain);
    }
}
