using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Crew;

/// <summary>What weather keeps a crew from.</summary>
public enum WeatherHinder
{
    /// <summary>The ground is frozen: nothing is planted.</summary>
    Frozen,

    /// <summary>The ground is sodden: nothing is planted into beds.</summary>
    Sodden,

    /// <summary>The afternoon is too hot: work ends at noon.</summary>
    Hot,

    /// <summary>The wind is too strong for what is tall.</summary>
    Windy,
}

/// <summary>A day as a forecast tells it.</summary>
/// <param name="Day">The day.</param>
/// <param name="MinC">Lowest air, °C.</param>
/// <param name="MaxC">Highest air, °C.</param>
/// <param name="RainMm">Rain, mm.</param>
/// <param name="WindMs">Mean wind, m/s; null where nobody has said.</param>
public sealed record DayForecast(LocalDate Day, double MinC, double MaxC, double RainMm, double? WindMs = null);

/// <summary>
/// What the weather of a day keeps a crew from: by the forecast as far as it reaches, and beyond it by what most years of the record had.
/// </summary>
/// <param name="Day">The day.</param>
/// <param name="IsForecast">True where the forecast says so; false where most years do.</param>
/// <param name="Hinders">What it hinders; empty for weather to work in.</param>
public sealed record WorkWeather(LocalDate Day, bool IsForecast, IReadOnlyList<WeatherHinder> Hinders)
{
    /// <summary>Heat index above which a crew works in the morning alone, °C: "extreme caution" of the US National Weather Service begins.</summary>
    public const double UsualHeatC = 32.2;

    /// <summary>Share of the day's minutes that are left where work ends at noon (common practice).</summary>
    public const double MorningShare = 0.5;

    // Rain that leaves the ground of beds sodden: on the day, and over it and the day before, mm (common practice).
    private const double SoddenMm = 12;
    private const double SoddenOverTwoDaysMm = 25;

    // A strong breeze, Beaufort 6, m/s: large branches move (Beaufort's scale, as the World Meteorological Organization gives it).
    private const double WindyMs = 10.8;

    // How deep the ground must be open to be planted, cm (common practice); years in which it is not that make it likely.
    private const double OpenCm = 10;
    private const double MostYears = 0.5;

    /// <summary>True where something of a day's weather keeps a piece of work from being done.</summary>
    public bool Keeps(ScheduleJob job) =>
        Hinders.Any(h =>
            h switch
            {
                WeatherHinder.Frozen => job.IsPlanting,
                WeatherHinder.Sodden => job.IsPlanting && job.IsInBed,
                WeatherHinder.Windy => job.IsTall,
                _ => false,
            }
        );

    /// <summary>Minutes that are left of a day's.</summary>
    public int Of(int minutes) => Hinders.Contains(WeatherHinder.Hot) ? (int)(minutes * MorningShare) : minutes;

    /// <summary>The weather of some days.</summary>
    /// <param name="record">The site's record; null where none is known, so that only a forecast tells.</param>
    /// <param name="forecast">Days of the forecast, in any order.</param>
    /// <param name="first">The first day.</param>
    /// <param name="days">How many.</param>
    /// <param name="heatC">Heat index above which work ends at noon, °C.</param>
    /// <returns>One for each day, in order.</returns>
    public static IReadOnlyList<WorkWeather> Of(
        WeatherRecord? record,
        IReadOnlyList<DayForecast> forecast,
        LocalDate first,
        int days,
        double heatC = UsualHeatC
    )
    {
        Dictionary<LocalDate, DayForecast> told = forecast.DistinctBy(f => f.Day).ToDictionary(f => f.Day);
        WeatherRecord? odds = record?.ForOdds;
        float[]? ground = odds is null ? null : GroundClimate.Of(odds).At(BulbPlace.UsualBed with { DepthCm = OpenCm });
        return
        [
            .. Enumerable
                .Range(0, days)
                .Select(d => first.PlusDays(d))
                .Select(day => told.TryGetValue(day, out DayForecast? it) ? ByForecast(it) : new WorkWeather(day, false, [.. ByYears(day)])),
        ];

        WorkWeather ByForecast(DayForecast it)
        {
            double rainBefore = told.GetValueOrDefault(it.Day.PlusDays(-1))?.RainMm ?? 0;
            var hinders = new List<WeatherHinder>();
            // All day below freezing, or too cold on average to thaw ground that is frozen in most years by then.
            if (it.MaxC <= 0 || ((it.MinC + it.MaxC) / 2 <= GroundFreeze.FrozenC && Share(it.Day, IsFrozen) > MostYears))
                hinders.Add(WeatherHinder.Frozen);
            if (it.RainMm >= SoddenMm || it.RainMm + rainBefore >= SoddenOverTwoDaysMm)
                hinders.Add(WeatherHinder.Sodden);
            if (Heat(it.MinC, it.MaxC) > heatC)
                hinders.Add(WeatherHinder.Hot);
            if (it.WindMs >= WindyMs)
                hinders.Add(WeatherHinder.Windy);
            return new WorkWeather(it.Day, true, hinders);
        }

        IEnumerable<WeatherHinder> ByYears(LocalDate day)
        {
            if (Share(day, IsFrozen) > MostYears)
                yield return WeatherHinder.Frozen;
            if (Share(day, i => Heat(odds!.MinC[i], odds.MaxC[i]) > heatC) > MostYears)
                yield return WeatherHinder.Hot;
        }

        bool IsFrozen(int i) => ground![i] <= GroundFreeze.FrozenC;

        // Share of the record's years in which something holds on a day of the year.
        double Share(LocalDate day, Func<int, bool> holds)
        {
            if (odds is null)
                return 0;
            int years = 0;
            int so = 0;
            for (int year = odds.FirstDay.Year; year <= odds.LastDay.Year; year++)
            {
                int i = odds.IndexOf(new LocalDate(year, day.Month, day is { Month: 2, Day: 29 } ? 28 : day.Day));
                if (i < 0 || i >= odds.MinC.Length || double.IsNaN(odds.MinC[i]) || double.IsNaN(odds.MaxC[i]))
                    continue;
                years++;
                so += holds(i) ? 1 : 0;
            }
            return years == 0 ? 0 : (double)so / years;
        }
    }

    /// <summary>
    /// The heat index of the hottest hour of a day, °C: the air is as moist as its lowest temperature tells, the dew point being near it
    /// (FAO-56, eq. 48).
    /// </summary>
    /// <param name="minC">Lowest air, °C.</param>
    /// <param name="maxC">Highest air, °C.</param>
    public static double Heat(double minC, double maxC) => HeatIndex.C(maxC, ReferenceEvapotranspiration.HumidityPct(minC, maxC));
}
