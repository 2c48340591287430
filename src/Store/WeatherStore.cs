using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using NpgsqlTypes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Store;

/// <summary>A station with the extent of its record.</summary>
public sealed record StationSummary(
    string Id,
    string Name,
    double LatitudeDeg,
    double LongitudeDeg,
    double ElevationM,
    long Days,
    LocalDate? FirstDay,
    LocalDate? LastDay,
    bool IsNormals
)
{
    /// <summary>The station itself.</summary>
    public Station Station => new(Id, Name, LatitudeDeg, LongitudeDeg, ElevationM);
}

/// <summary>Keeps stations and their daily records.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class WeatherStore(SiteDatabase database)
{
    /// <summary>Years generated for a station that has normals alone.</summary>
    public const int GeneratedYears = 40;

    private const int GeneratedSeed = 1;

    private static readonly JsonSerializerOptions NormalsForm = new(JsonSerializerDefaults.Web);

    /// <summary>Every station, by name.</summary>
    public Task<IReadOnlyList<StationSummary>> Stations() => Stations("s.removed_at is null");

    /// <summary>Stations taken out, which can be put back with all their days, by name.</summary>
    public Task<IReadOnlyList<StationSummary>> RemovedStations() => Stations("s.removed_at is not null");

    private async Task<IReadOnlyList<StationSummary>> Stations(string which)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<StationSummary>(
                $"""
                select s.id, s.name, s.latitude_deg, s.longitude_deg, s.elevation_m,
                       count(d.day) as days, min(d.day) as first_day, max(d.day) as last_day,
                       s.normals is not null as is_normals
                from station s
                left join weather_day d on d.site_id = s.site_id and d.station_id = s.id
                where {which}
                group by s.site_id, s.id
                order by s.name, s.id
                """
            ),
        ];
    }

    /// <summary>A station's record, or null when there is none. A station known by its monthly normals alone gives generated years.</summary>
    public async Task<WeatherRecord?> Load(string stationId)
    {
        await using NpgsqlConnection connection = await database.Open();
        Station? station = await connection.QuerySingleOrDefaultAsync<Station>(
            "select id, name, latitude_deg, longitude_deg, elevation_m from station where id = @stationId",
            new { stationId }
        );
        if (station is null)
            return null;
        if (await Normals(connection, stationId) is { } normals)
            return WeatherGenerator.Generate(normals.At(station), GeneratedSeed, WeatherYear.FirstGenerated, GeneratedYears);
        IReadOnlyList<WeatherDay> days = await Days(connection, stationId);
        return days.Any(d => d.MinC is not null && d.MaxC is not null) ? WeatherRecord.From(station, days) : null;
    }

    /// <summary>A station's normals; null for one with a record of days.</summary>
    public async Task<MonthlyNormals?> Normals(string stationId)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await Normals(connection, stationId);
    }

    /// <summary>A station's days as they are kept.</summary>
    public async Task<IReadOnlyList<WeatherDay>> Days(string stationId)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await Days(connection, stationId);
    }

    private static async Task<IReadOnlyList<WeatherDay>> Days(NpgsqlConnection connection, string stationId)
    {
        var days = new List<WeatherDay>();
        await using var command = new NpgsqlCommand(
            "select day, min_c, max_c, precipitation_mm, snow_depth_mm, wind_ms, humidity_pct, sun_mj from weather_day where station_id = $1 order by day",
            connection
        )
        {
            Parameters = { new() { Value = stationId } },
        };
        await using NpgsqlDataReader reader = await command.ExecuteReaderAsync();
        while (await reader.ReadAsync())
            days.Add(
                new WeatherDay(
                    reader.GetFieldValue<LocalDate>(0),
                    Number(reader, 1),
                    Number(reader, 2),
                    Number(reader, 3),
                    Number(reader, 4),
                    Number(reader, 5),
                    Number(reader, 6),
                    Number(reader, 7)
                )
            );
        return days;
    }

    /// <summary>
    /// Adds days to a station's record, whole or not at all: new days are added, known days take the new readings, and
    /// a reading that the new days lack is kept. The station becomes the site's when the site has none.
    /// </summary>
    /// <returns>How many days were new.</returns>
    public async Task<int> Merge(Station station, IReadOnlyList<WeatherDay> days, Instant now)
    {
        IReadOnlyList<Fault> faults = station.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            """
            -- The site first, as everywhere: nobody waits for two things in two orders.
            select from site for update;

            -- Brought in anew, what was taken out begins anew.
            delete from weather_day d using station s where d.site_id = s.site_id and d.station_id = s.id and s.id = @Id and s.removed_at is not null;

            insert into station (id, name, latitude_deg, longitude_deg, elevation_m, imported_at)
            values (@Id, @Name, @LatitudeDeg, @LongitudeDeg, @ElevationM, @now)
            on conflict (site_id, id) do update
            set name = excluded.name, latitude_deg = excluded.latitude_deg, longitude_deg = excluded.longitude_deg,
                elevation_m = excluded.elevation_m, normals = null, revision = station.revision + 1, imported_at = excluded.imported_at, removed_at = null;

            create temporary table incoming (
              day date, min_c double precision, max_c double precision, precipitation_mm double precision,
              snow_depth_mm double precision, wind_ms double precision, humidity_pct double precision, sun_mj double precision)
            on commit drop;
            """,
            new
            {
                station.Id,
                station.Name,
                station.LatitudeDeg,
                station.LongitudeDeg,
                station.ElevationM,
                now,
            },
            transaction
        );
        await using (NpgsqlBinaryImporter copy = await connection.BeginBinaryImportAsync("copy incoming from stdin (format binary)"))
        {
            foreach (WeatherDay day in days)
            {
                await copy.StartRowAsync();
                await copy.WriteAsync(day.Day, NpgsqlDbType.Date);
                foreach (
                    double? reading in new[] { day.MinC, day.MaxC, day.PrecipitationMm, day.SnowDepthMm, day.WindMs, day.HumidityPct, day.SunMJ }
                )
                {
                    if (reading is { } value)
                        await copy.WriteAsync(value, NpgsqlDbType.Double);
                    else
                        await copy.WriteNullAsync();
                }
            }
            await copy.CompleteAsync();
        }
        int added = await connection.ExecuteScalarAsync<int>(
            """
            select count(*)::int from incoming i
            where not exists (select from weather_day d where d.station_id = @Id and d.day = i.day);
            """,
            new { station.Id },
            transaction
        );
        await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into weather_day (station_id, day, min_c, max_c, precipitation_mm, snow_depth_mm, wind_ms, humidity_pct, sun_mj)
                select @Id, day, min_c, max_c, precipitation_mm, snow_depth_mm, wind_ms, humidity_pct, sun_mj from incoming
                on conflict (site_id, station_id, day) do update
                set min_c = coalesce(excluded.min_c, weather_day.min_c),
                    max_c = coalesce(excluded.max_c, weather_day.max_c),
                    precipitation_mm = coalesce(excluded.precipitation_mm, weather_day.precipitation_mm),
                    snow_depth_mm = coalesce(excluded.snow_depth_mm, weather_day.snow_depth_mm),
                    wind_ms = coalesce(excluded.wind_ms, weather_day.wind_ms),
                    humidity_pct = coalesce(excluded.humidity_pct, weather_day.humidity_pct),
                    sun_mj = coalesce(excluded.sun_mj, weather_day.sun_mj);

                update site set station_id = @Id where station_id is null;
                """,
                new { station.Id },
                transaction
            )
        );
        await FollowNearest(connection, transaction);
        await transaction.CommitAsync();
        return added;
    }

    /// <summary>Chooses the station that the site computes with.</summary>
    /// <param name="stationId">The station.</param>
    /// <param name="byHand">False to follow the nearest again as soon as stations or the site's place change.</param>
    /// <exception cref="InvalidInputException">There is no such station.</exception>
    public async Task Choose(string stationId, bool byHand = true)
    {
        await using NpgsqlConnection connection = await database.Open();
        int changed = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                (
                    "update site set station_id = @stationId, station_chosen = @byHand where "
                    + "exists (select from station where id = @stationId and removed_at is null)"
                ),
                new { stationId, byHand }
            )
        );
        if (changed == 0)
            throw new InvalidInputException("stationId", "there is no such station any more");
    }

    /// <summary>Lets the site follow the station nearest to it from now on.</summary>
    public async Task ChooseNearest()
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("update site set station_chosen = false", transaction: transaction);
        await FollowNearest(connection, transaction);
        await transaction.CommitAsync();
    }

    /// <summary>Takes a station out. Where it was in use, the nearest of the others comes in its place, or the one brought in last.</summary>
    /// <exception cref="InvalidInputException">There is no such station.</exception>
    public async Task Remove(string stationId, Instant now)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        int removed = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                "update station set removed_at = @now where id = @stationId and removed_at is null",
                new { stationId, now },
                transaction
            )
        );
        if (removed == 0)
            throw new InvalidInputException("stationId", "there is no such station any more");
        await connection.ExecuteAsync(
            "update site set station_id = null, station_chosen = false where station_id = @stationId",
            new { stationId },
            transaction
        );
        await FollowNearest(connection, transaction);
        await TakeIfNone(connection, transaction);
        await transaction.CommitAsync();
    }

    /// <summary>Puts a station back that was taken out.</summary>
    /// <exception cref="InvalidInputException">There is no such station among those taken out.</exception>
    public async Task PutBack(string stationId)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        int back = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                "update station set removed_at = null where id = @stationId and removed_at is not null",
                new { stationId },
                transaction
            )
        );
        if (back == 0)
            throw new InvalidInputException("stationId", "there is no such station among those taken out");
        await FollowNearest(connection, transaction);
        await TakeIfNone(connection, transaction);
        await transaction.CommitAsync();
    }

    private static Task<int> TakeIfNone(NpgsqlConnection connection, NpgsqlTransaction transaction) =>
        connection.ExecuteAsync(
            "update site set station_id = (select id from station where removed_at is null order by imported_at desc, id limit 1) where station_id is null",
            transaction: transaction
        );

    /// <summary>True while the site's station was chosen by hand.</summary>
    public async Task<bool> IsChosen()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleAsync<bool>("select station_chosen from site");
    }

    /// <summary>
    /// Keeps a station of which only twelve monthly normals are known. Days that it held before are forgotten only when there were none.
    /// </summary>
    /// <exception cref="InvalidInputException">A figure is out of range, or the station has a daily record.</exception>
    public async Task SaveNormals(Station station, MonthlyNormals normals, Instant now)
    {
        var faults = new FaultList();
        faults.AddAll(string.Empty, station.Faults());
        faults.AddAll(string.Empty, normals.Faults());
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            """
            select from site for update;
            delete from weather_day d using station s where d.site_id = s.site_id and d.station_id = s.id and s.id = @Id and s.removed_at is not null;
            """,
            new { station.Id },
            transaction
        );
        int kept = await connection.ExecuteAsync(
            """
            insert into station (id, name, latitude_deg, longitude_deg, elevation_m, imported_at, normals)
            values (@Id, @Name, @LatitudeDeg, @LongitudeDeg, @ElevationM, @now, @normals::jsonb)
            on conflict (site_id, id) do update
            set name = excluded.name, latitude_deg = excluded.latitude_deg, longitude_deg = excluded.longitude_deg,
                elevation_m = excluded.elevation_m, normals = excluded.normals,
                revision = station.revision + 1, imported_at = excluded.imported_at, removed_at = null
            where not exists (select from weather_day d where d.station_id = station.id)
            """,
            new
            {
                station.Id,
                station.Name,
                station.LatitudeDeg,
                station.LongitudeDeg,
                station.ElevationM,
                now,
                normals = JsonSerializer.Serialize(normals, NormalsForm),
            },
            transaction
        );
        if (kept == 0)
            throw new InvalidInputException("id", $"\"{station.Id}\" has a daily record, which tells more; give the normals another name");
        await connection.ExecuteAsync("update site set station_id = @Id where station_id is null", new { station.Id }, transaction);
        await FollowNearest(connection, transaction);
        await transaction.CommitAsync();
    }

    // The nearest by great circle, unless somebody chose or nobody said where the site lies.
    internal static Task<int> FollowNearest(NpgsqlConnection connection, NpgsqlTransaction transaction) =>
        connection.ExecuteAsync(
            """
            update site
            set station_id = (
              select st.id
              from station st
              where st.removed_at is null
              order by power(sin(radians(st.latitude_deg - site.latitude_deg) / 2), 2)
                     + cos(radians(st.latitude_deg)) * cos(radians(site.latitude_deg)) * power(sin(radians(st.longitude_deg - site.longitude_deg) / 2), 2),
                       st.id
              limit 1)
            where not station_chosen and latitude_deg is not null and exists (select from station where removed_at is null)
            """,
            transaction: transaction
        );

    private static async Task<MonthlyNormals?> Normals(NpgsqlConnection connection, string stationId)
    {
        string? text = await connection.QuerySingleOrDefaultAsync<string?>(
            "select normals::text from station where id = @stationId",
            new { stationId }
        );
        return text is null ? null : JsonSerializer.Deserialize<MonthlyNormals>(text, NormalsForm);
    }

    private static double? Number(NpgsqlDataReader reader, int column) => reader.IsDBNull(column) ? null : reader.GetDouble(column);
}
