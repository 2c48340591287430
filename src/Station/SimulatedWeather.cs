using MathNet.Numerics.Distributions;
using MathNet.Numerics.Random;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Station;

/// <summary>Where the simulated station stands and what its climate is.</summary>
/// <param name="Id">Its identifier.</param>
/// <param name="Name">Its name; it should say that it is simulated.</param>
/// <param name="LatitudeDeg">Degrees north.</param>
/// <param name="LongitudeDeg">Degrees east.</param>
/// <param name="ElevationM">Metres above the sea.</param>
/// <param name="Seed">Any number; the same one gives the same weather for ever.</param>
/// <param name="Normals">Twelve monthly normals.</param>
public sealed record StationSettings(
    string Id,
    string Name,
    double LatitudeDeg,
    double LongitudeDeg,
    double ElevationM,
    int Seed,
    MonthlyNormals Normals
);

/// <summary>A day that was.</summary>
public sealed record SeenDay(LocalDate Day, double MinC, double MaxC, double PrecipitationMm);

/// <summary>A day expected.</summary>
/// <param name="Day">The day.</param>
/// <param name="LeadDays">How many days ahead, 1 to 7.</param>
/// <param name="MinC">Lowest expected, °C.</param>
/// <param name="MaxC">Highest expected, °C.</param>
/// <param name="PrecipitationMm">Rain expected, mm.</param>
/// <param name="WindMs">Mean wind expected, m/s.</param>
public sealed record ForecastDay(LocalDate Day, int LeadDays, double MinC, double MaxC, double PrecipitationMm, double WindMs);

/// <summary>This hour.</summary>
public sealed record Present(Instant At, LocalDate Day, double AirC, double HumidityPct, double WindMs);

/// <summary>
/// Weather that is true for as long as the seed is kept: what was, what is, and what is expected, which errs the more the
/// further ahead it looks (root mean square error of the lowest temperature 1.2 °C one day ahead to 3.5 °C seven days ahead).
/// </summary>
public sealed class SimulatedWeather
{
    /// <summary>Days a forecast looks ahead.</summary>
    public const int ForecastDays = 7;

    /// <summary>Most days of the past told at once.</summary>
    public const int MostPastDays = 1500;

    private const int FirstYear = 2020;
    private const int Years = 60;

    private readonly StationSettings _settings;
    private readonly WeatherRecord _truth;

    /// <summary>Makes the weather.</summary>
    /// <exception cref="InvalidInputException">A setting is out of range.</exception>
    public SimulatedWeather(StationSettings settings)
    {
        var station = new Core.Climate.Station(settings.Id, settings.Name, settings.LatitudeDeg, settings.LongitudeDeg, settings.ElevationM);
        var faults = new FaultList();
        faults.AddAll(string.Empty, station.Faults());
        faults.AddAll("normals", settings.Normals.Faults());
        faults.ThrowIfAny();
        _settings = settings;
        Station = station;
        _truth = WeatherGenerator.Generate(settings.Normals.At(station), settings.Seed, FirstYear, Years);
    }

    /// <summary>The station.</summary>
    public Core.Climate.Station Station { get; }

    /// <summary>Expected error of the lowest temperature at a lead, °C.</summary>
    public static double ErrorC(int leadDays) => Core.Care.ColdNights.ErrorC(leadDays);

    /// <summary>Days up to and without today, oldest first.</summary>
    public IReadOnlyList<SeenDay> Past(LocalDate today, int days) =>
        [.. Enumerable.Range(1, Math.Clamp(days, 0, MostPastDays)).Select(k => today.PlusDays(-k)).Where(Knows).Reverse().Select(Seen)];

    /// <summary>The hour of an instant.</summary>
    public Present Now(Instant at)
    {
        ZonedDateTime local = at.InZone(LocalZone());
        LocalDate day = local.Date;
        int i = _truth.IndexOf(day);
        double air = GroundModel.AirAt(
            Math.Min(GroundModel.StepsPerDay - 1, local.Hour * GroundModel.StepsPerDay / 24),
            _truth.MaxC[Math.Max(0, i - 1)],
            _truth.MinC[i],
            _truth.MaxC[i],
            _truth.MinC[i + 1]
        );
        double humidity = Math.Max(15, ReferenceEvapotranspiration.HumidityPct(_truth.MinC[i], air));
        double wind = WindOn(day) * (0.7 + (0.6 * new Xoshiro256StarStar(Mix(day, local.Hour, 77)).NextDouble()));
        return new Present(at, day, Round(air), Math.Round(humidity), Round(wind));
    }

    /// <summary>The week ahead as it is expected on a day. The same day always expects the same.</summary>
    public IReadOnlyList<ForecastDay> Forecast(LocalDate today) =>
        [
            .. Enumerable
                .Range(1, ForecastDays)
                .Select(lead =>
                {
                    SeenDay truth = Seen(today.PlusDays(lead));
                    var chance = new Xoshiro256StarStar(Mix(today, lead, 13));
                    double min = truth.MinC + (ErrorC(lead) * Normal.Sample(chance, 0, 1));
                    double max = truth.MaxC + (ErrorC(lead) * Normal.Sample(chance, 0, 1));
                    double rain = truth.PrecipitationMm * Math.Exp((0.15 * lead * Normal.Sample(chance, 0, 1)) - (0.01 * lead * lead));
                    double wind = WindOn(truth.Day) * Math.Exp(0.08 * lead * Normal.Sample(chance, 0, 1));
                    return new ForecastDay(
                        truth.Day,
                        lead,
                        Round(Math.Min(min, max)),
                        Round(Math.Max(min, max)),
                        Round(rain),
                        Round(Math.Min(40, wind))
                    );
                }),
        ];

    private SeenDay Seen(LocalDate day)
    {
        int i = _truth.IndexOf(day);
        double rain = _truth.PrecipitationMm[i];
        return new SeenDay(day, Round(_truth.MinC[i]), Round(_truth.MaxC[i]), double.IsNaN(rain) ? 0 : Round(rain));
    }

    // Mean winds of days follow Rayleigh's distribution, that of Weibull with shape 2; their mean here is near 3.5 m/s.
    private double WindOn(LocalDate day) => Math.Max(0.5, 4 * Math.Sqrt(-Math.Log(1 - new Xoshiro256StarStar(Mix(day, 0, 41)).NextDouble())));

    private bool Knows(LocalDate day) => day > _truth.FirstDay && day < _truth.LastDay;

    // Clock time by longitude alone: a simulated place has no law of its own.
    private DateTimeZone LocalZone() => DateTimeZone.ForOffset(Offset.FromHours((int)Math.Round(Station.LongitudeDeg / 15)));

    private int Mix(LocalDate day, int a, int b) =>
        unchecked((_settings.Seed * 486187739) ^ (Period.DaysBetween(new LocalDate(2000, 1, 1), day) * 16777619) ^ (a * 92821) ^ (b * 68917));

    private static double Round(double v) => Math.Round(v, 1);
}
