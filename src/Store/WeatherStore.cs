using Dapper;
using NodaTime;
using Npgsql;
using NpgsqlTypes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Store;

/// <summary>A station with the extent of its record.</summary>
public sealed record StationSummary(string Id, string Name, double LatitudeDeg, double LongitudeDeg, double ElevationM, long Days, LocalDate? FirstDay, LocalDate? LastDay)
{
    /// <summary>The station itself.</summary>
    public Station Station => new(Id, Name, LatitudeDeg, LongitudeDeg, ElevationM);
}

/// <summary>Keeps stations and their daily records.</summary>
/// <param name="database">The database.</param>
public sealed class WeatherStore(MeadowDatabase database)
{
    /// <summary>Every station, by name.</summary>
    public async Task<IReadOnlyList<StationSummary>> Stations()
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return [.. await connection.QueryAsync<StationSummary>("""
            select s.id, s.name, s.latitude_deg, s.longitude_deg, s.elevation_m,
                   count(d.day) as days, min(d.day) as first_day, max(d.day) as last_day
            from station s
            left join weather_day d on d.station_id = s.id
            group by s.id
            order by s.name, s.id
            """)];
    }

    /// <summary>A station's record, or null when there is none.</summary>
    public async Task<WeatherRecord?> Load(string stationId)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        Station? station = await connection.QuerySingleOrDefaultAsync<Station>(
            "select id, name, latitude_deg, longitude_deg, elevation_m from station where id = @stationId", new { stationId });
        if (station is null)
            return null;
        var days = new List<WeatherDay>();
        await using var command = new NpgsqlCommand(
            "select day, min_c, max_c, precipitation_mm from weather_day where station_id = $1 order by day", connection)
        {
            Parameters = { new() { Value = stationId } },
        };
        await using NpgsqlDataReader reader = await command.ExecuteReaderAsync();
        while (await reader.ReadAsync())
            days.Add(new WeatherDay(reader.GetFieldValue<LocalDate>(0), Number(reader, 1), Number(reader, 2), Number(reader, 3)));
        return days.Exists(d => d.MinC is not null && d.MaxC is not null) ? WeatherRecord.From(station, days) : null;
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
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            """
            insert into station (id, name, latitude_deg, longitude_deg, elevation_m, imported_at)
            values (@Id, @Name, @LatitudeDeg, @LongitudeDeg, @ElevationM, @now)
            on conflict (id) do update
            set name = excluded.name, latitude_deg = excluded.latitude_deg, longitude_deg = excluded.longitude_deg,
                elevation_m = excluded.elevation_m, revision = station.revision + 1, imported_at = excluded.imported_at;

            create temporary table incoming (day date, min_c double precision, max_c double precision, precipitation_mm double precision)
            on commit drop;
            """,
            new { station.Id, station.Name, station.LatitudeDeg, station.LongitudeDeg, station.ElevationM, now },
            transaction);
        await using (NpgsqlBinaryImporter copy = await connection.BeginBinaryImportAsync("copy incoming from stdin (format binary)"))
        {
            foreach (WeatherDay day in days)
            {
                await copy.StartRowAsync();
                await copy.WriteAsync(day.Day, NpgsqlDbType.Date);
                foreach (double? reading in new[] { day.MinC, day.MaxC, day.PrecipitationMm })
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
            transaction);
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            insert into weather_day (station_id, day, min_c, max_c, precipitation_mm)
            select @Id, day, min_c, max_c, precipitation_mm from incoming
            on conflict (station_id, day) do update
            set min_c = coalesce(excluded.min_c, weather_day.min_c),
                max_c = coalesce(excluded.max_c, weather_day.max_c),
                precipitation_mm = coalesce(excluded.precipitation_mm, weather_day.precipitation_mm);

            update site set station_id = @Id where station_id is null;
            """,
            new { station.Id },
            transaction));
        await transaction.CommitAsync();
        return added;
    }

    /// <summary>Chooses the station that the site computes with.</summary>
    /// <exception cref="InvalidInputException">There is no such station.</exception>
    public async Task Choose(string stationId)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        int changed = await connection.ExecuteAsync(
            "update site set station_id = @stationId where exists (select from station where id = @stationId)", new { stationId });
        if (changed == 0)
            throw new InvalidInputException("stationId", "there is no such station any more");
    }

    private static double? Number(NpgsqlDataReader reader, int column) => reader.IsDBNull(column) ? null : reader.GetDouble(column);
}
