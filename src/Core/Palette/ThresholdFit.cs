using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Finds a bulb's threshold from a place where its usual flowering date is known.</summary>
public static class ThresholdFit
{
    /// <summary>
    /// The threshold Θ, °C·d, for which the median of the yearly flowering days over the given springs equals a known
    /// date, by halving an interval.
    /// </summary>
    /// <param name="rule">The rule with its base and cold; its threshold is ignored.</param>
    /// <param name="runs">Weather runs, one per spring.</param>
    /// <param name="southern">True south of the equator.</param>
    /// <param name="install">Planting day within the runs.</param>
    /// <param name="place">Where the bulb lies.</param>
    /// <param name="usual">The known median date in the plan year.</param>
    public static double Fit(BulbForcing rule, IReadOnlyList<WeatherRun> runs, bool southern, LocalDate install, BulbPlace place, LocalDate usual)
    {
        var seasons = runs.Select(r => new GrowingSeason(r, southern)).ToList();
        double low = 0.1;
        double high = 2000;
        for (int i = 0; i < 40; i++)
        {
            double middle = (low + high) / 2;
            double median = seasons.Select(s => MedianIndex(rule with { ThresholdCd = middle }, s, install, place)).Median();
            // Days, not moments: a flowering day is known as a date.
            if (median < runs[0].IndexOf(usual))
                low = middle;
            else
                high = middle;
        }
        return high;
    }

    /// <summary>The flowering day after a planting day, as an index into the run; the run's length when it does not flower.</summary>
    public static double MedianIndex(BulbForcing rule, GrowingSeason season, LocalDate install, BulbPlace place)
    {
        Plant plant = RuleBulb.Of("bulb", new BulbFigures(5, 4, 15, 0, 40), rule);
        var growing = new Growing(season, plant, install, season.Run.FirstDay.PlusDays(season.Length), place, 0);
        BulbBloom? bloom = rule.Blooms(growing).LastOrDefault();
        return bloom is null ? season.Length : Math.Floor(bloom.MedianIndex);
    }
}
