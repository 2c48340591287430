using NodaTime;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>How wide a plant stands on each day of a plan year: the median over the weather years.</summary>
public static class SpreadByDay
{
    /// <summary>Width by day, cm; 0 while it is not there, or killed in most years.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="seasons">Weather years laid over the plan year; with none it stays as bought.</param>
    /// <param name="start">First day of the plan year.</param>
    /// <param name="install">The day it goes in.</param>
    /// <param name="lift">The day it comes out.</param>
    /// <param name="frostPocketC">How much colder than the station its leaves are, °C.</param>
    public static float[] Of(
        Plant plant,
        IReadOnlyList<GrowingSeason> seasons,
        LocalDate start,
        LocalDate install,
        LocalDate lift,
        double frostPocketC = 0
    )
    {
        int days = Period.DaysBetween(start, start.PlusMonths(12));
        var median = new float[days];
        int from = Math.Clamp(Period.DaysBetween(start, install), 0, days);
        int to = Math.Clamp(Period.DaysBetween(start, lift), 0, days);
        if (seasons.Count == 0)
        {
            Array.Fill(median, (float)plant.SpreadAtPurchaseCm, from, Math.Max(0, to - from));
            return median;
        }
        var byYear = new float[seasons.Count][];
        for (int y = 0; y < seasons.Count; y++)
        {
            GrowingSeason season = seasons[y];
            var growing = new Growing(season, plant, install, lift, BulbPlace.UsualBed, frostPocketC);
            double[] heat = season.Heat(plant.GrowthBaseC);
            double before = growing.HeatBeforeCd;
            int offset = season.Run.IndexOf(start);
            int dead = plant.DiesWithFrost ? growing.KilledIndex - offset : days;
            var width = new float[days];
            for (int d = from; d < Math.Min(to, dead); d++)
                width[d] = (float)plant.SpreadCm(Math.Max(0, heat[offset + d] + before));
            byYear[y] = width;
        }
        var column = new float[seasons.Count];
        for (int d = from; d < to; d++)
        {
            for (int y = 0; y < column.Length; y++)
                column[y] = byYear[y][d];
            Array.Sort(column);
            median[d] = column[(column.Length - 1) / 2];
        }
        return median;
    }
}
