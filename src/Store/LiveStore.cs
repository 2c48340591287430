using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Store;

/// <summary>What a live station said last.</summary>
/// <param name="Name">Its name.</param>
/// <param name="LatitudeDeg">Where it stands, degrees north.</param>
/// <param name="LongitudeDeg">Degrees east.</param>
/// <param name="HeardAt">When it was heard.</param>
/// <param name="AirC">Air then, °C.</param>
/// <param name="HumidityPct">Humidity then, %.</param>
/// <param name="WindMs">Wind then, m/s.</param>
public sealed record LiveReading(
    string Name,
    double LatitudeDeg,
    double LongitudeDeg,
    Instant HeardAt,
    double AirC,
    double HumidityPct,
    double WindMs
)
{
    /// <summary>Farther from a record's station than this, its days say nothing about that record, km.</summary>
    public const double FarthestKm = 150;

    /// <summary>True where its days may lie over a station's record.</summary>
    public bool IsNear(Station station) => station.DistanceKm(LatitudeDeg, LongitudeDeg) <= FarthestKm;
}

/// <summary>A day that a live station saw or expects.</summary>
/// <param name="Day">The day.</param>
/// <param name="Forecast">True while it lies ahead.</param>
/// <param name="MinC">Lowest, °C.</param>
/// <param name="MaxC">Highest, °C.</param>
/// <param name="PrecipitationMm">Rain, mm.</param>
/// <param name="WindMs">Mean wind, m/s; null where it is not told.</param>
public sealed record LiveDay(LocalDate Day, bool Forecast, double MinC, double MaxC, double PrecipitationMm, double? WindMs = null);

/// <summary>Keeps the latest word of a live station. It is shown over the record and never enters its odds.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class LiveStore(SiteDatabase database)
{
    /// <summary>Where a station must stand to speak for the site: at its record's station, else at the site; null where neither is known.</summary>
    public async Task<Station?> Place()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<Station>(
            """
            select coalesce(st.id, 'site') as id, coalesce(st.name, s.name) as name, coalesce(st.latitude_deg, s.latitude_deg) as latitude_deg,
                   coalesce(st.longitude_deg, s.longitude_deg) as longitude_deg, coalesce(st.elevation_m, s.elevation_m) as elevation_m
            from site s
            left join station st on st.site_id = s.id and st.id = s.station_id and st.removed_at is null
            where coalesce(st.latitude_deg, s.latitude_deg) is not null
            limit 1
            """
        );
    }

    /// <summary>The latest word, or null when none was ever heard, and its days in order.</summary>
    public async Task<(LiveReading? Reading, IReadOnlyList<LiveDay> Days)> Load()
    {
        await using NpgsqlConnection connection = await database.Open();
        LiveReading? reading = await connection.QuerySingleOrDefaultAsync<LiveReading>(
            "select name, latitude_deg, longitude_deg, heard_at, air_c, humidity_pct, wind_ms from live_station"
        );
        return reading is null
            ? (null, [])
            : (
                reading,
                [.. await connection.QueryAsync<LiveDay>("select day, forecast, min_c, max_c, precipitation_mm, wind_ms from live_day order by day")]
            );
    }

    /// <summary>Takes a new word in the place of the last, whole or not at all; days seen before and not told again are kept.</summary>
    public async Task Save(LiveReading reading, IReadOnlyList<LiveDay> days)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        bool moved = await connection.QuerySingleOrDefaultAsync<bool>(
            "select latitude_deg <> @LatitudeDeg or longitude_deg <> @LongitudeDeg from live_station",
            new { reading.LatitudeDeg, reading.LongitudeDeg },
            transaction
        );
        await connection.ExecuteAsync(
            """
            insert into live_station (name, latitude_deg, longitude_deg, heard_at, air_c, humidity_pct, wind_ms)
            values (@Name, @LatitudeDeg, @LongitudeDeg, @HeardAt, @AirC, @HumidityPct, @WindMs)
            on conflict (site_id) do update
            set name = excluded.name, latitude_deg = excluded.latitude_deg, longitude_deg = excluded.longitude_deg, heard_at = excluded.heard_at,
                air_c = excluded.air_c, humidity_pct = excluded.humidity_pct, wind_ms = excluded.wind_ms;

            -- Another place has another past.
            delete from live_day where forecast or @moved;
            delete from forecast_made where @moved;
            """,
            new
            {
                reading.Name,
                reading.LatitudeDeg,
                reading.LongitudeDeg,
                reading.HeardAt,
                reading.AirC,
                reading.HumidityPct,
                reading.WindMs,
                moved,
            },
            transaction
        );
        await connection.ExecuteAsync(
            """
            insert into live_day (day, forecast, min_c, max_c, precipitation_mm, wind_ms)
            values (@Day, @Forecast, @MinC, @MaxC, @PrecipitationMm, @WindMs)
            on conflict (site_id, day) do update
            set forecast = excluded.forecast, min_c = excluded.min_c, max_c = excluded.max_c, precipitation_mm = excluded.precipitation_mm,
                wind_ms = excluded.wind_ms
            """,
            days,
            transaction
        );
        // As it was made, so that afterwards it can be said how good it was; made anew the same day it is the later one that counts.
        LocalDate made = reading.HeardAt.InUtc().Date;
        await connection.ExecuteAsync(
            """
            insert into forecast_made (made_on, day, min_c, max_c, precipitation_mm, wind_ms)
            values (@made, @Day, @MinC, @MaxC, @PrecipitationMm, @WindMs)
            on conflict (site_id, made_on, day) do update
            set min_c = excluded.min_c, max_c = excluded.max_c, precipitation_mm = excluded.precipitation_mm, wind_ms = excluded.wind_ms
            """,
            days.Where(d => d.Forecast && d.Day >= made)
                .Select(d => new
                {
                    made,
                    d.Day,
                    d.MinC,
                    d.MaxC,
                    d.PrecipitationMm,
                    d.WindMs,
                }),
            transaction
        );
        await transaction.CommitAsync();
    }

    /// <summary>Nights that were forecast a day or more ahead and came, from a day on, in order.</summary>
    public async Task<IReadOnlyList<ForecastNight>> Came(LocalDate from)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<ForecastNight>(
                """
                select made_on, day as night, forecast_made.min_c as forecast_c, live_day.min_c as came_c
                from forecast_made join live_day using (day)
                where not live_day.forecast and day > made_on and day >= @from
                order by day, made_on
                """,
                new { from }
            ),
        ];
    }

    /// <summary>The days as weather, for what is computed from them.</summary>
    public static IEnumerable<WeatherDay> AsWeather(IEnumerable<LiveDay> days) =>
        days.Select(d => new WeatherDay(d.Day, d.MinC, d.MaxC, d.PrecipitationMm));
}
