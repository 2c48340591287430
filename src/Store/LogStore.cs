using Dapper;
using NodaTime;
using Npgsql;
using NpgsqlTypes;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Store;

/// <summary>Writes and reads the log.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class LogStore(SiteDatabase database)
{
    private const string Columns =
        "id, planter_id, plant_id, day, kind, note, by, recorded_at, plant_name, count, corrects, rating, verdict, in_colour, cover_pct";

    // With whether a later entry stands in its place.
    private const string Read =
        Columns + ", exists (select from observation c where c.site_id = observation.site_id and c.corrects = observation.id) as is_corrected";

    private const string Stands = "not exists (select from observation c where c.site_id = observation.site_id and c.corrects = observation.id)";

    /// <summary>
    /// Records observations, all or none; one whose id is known already is not recorded again. They may name planters and plants
    /// that the plan no longer holds: the log outlives both.
    /// </summary>
    /// <param name="observations">The observations.</param>
    /// <param name="person">Who writes them down; null where they come from a file.</param>
    /// <returns>How many were new.</returns>
    public async Task<int> Record(IReadOnlyList<Observation> observations, Guid? person = null)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            """
            create temporary table incoming (like observation) on commit drop;
            alter table incoming alter column recorded_at drop not null, alter column site_id drop not null;
            """,
            transaction: transaction
        );
        await using (NpgsqlBinaryImporter copy = await connection.BeginBinaryImportAsync($"copy incoming ({Columns}) from stdin (format binary)"))
        {
            foreach (Observation o in observations)
            {
                await copy.StartRowAsync();
                await copy.WriteAsync(o.Id, NpgsqlDbType.Uuid);
                await copy.WriteAsync(o.PlanterId, NpgsqlDbType.Text);
                await copy.WriteAsync(o.PlantId, NpgsqlDbType.Text);
                await copy.WriteAsync(o.Day, NpgsqlDbType.Date);
                await copy.WriteAsync(o.Kind.ToString(), NpgsqlDbType.Text);
                await copy.WriteAsync(o.Note, NpgsqlDbType.Text);
                await copy.WriteAsync(o.By, NpgsqlDbType.Text);
                if (o.RecordedAt is { } at)
                    await copy.WriteAsync(at, NpgsqlDbType.TimestampTz);
                else
                    await copy.WriteNullAsync();
                await copy.WriteAsync(o.PlantName, NpgsqlDbType.Text);
                if (o.Count is { } count)
                    await copy.WriteAsync(count, NpgsqlDbType.Integer);
                else
                    await copy.WriteNullAsync();
                if (o.Corrects is { } corrects)
                    await copy.WriteAsync(corrects, NpgsqlDbType.Uuid);
                else
                    await copy.WriteNullAsync();
                await copy.WriteAsync(o.Review?.Rating, NpgsqlDbType.Integer);
                await copy.WriteAsync(o.Review?.Verdict.ToString(), NpgsqlDbType.Text);
                await copy.WriteAsync(o.Review?.IsInColour, NpgsqlDbType.Boolean);
                await copy.WriteAsync(o.Review?.CoverPct, NpgsqlDbType.Integer);
            }
            await copy.CompleteAsync();
        }
        int added = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                $"""
                insert into observation (person_id, {Columns})
                select @person, id, planter_id, plant_id, day, kind, note, by, coalesce(recorded_at, now()),
                    coalesce(plant_name, (select p.details ->> 'commonName' from plant p where p.id = plant_id)), count, corrects,
                    rating, verdict, in_colour, cover_pct
                from incoming
                on conflict (site_id, id) do nothing
                """,
                new { person },
                transaction: transaction
            )
        );
        await transaction.CommitAsync();
        return added;
    }

    /// <summary>True when an observation of that id is recorded.</summary>
    public async Task<bool> Has(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteScalarAsync<bool>("select exists (select from observation where id = @id)", new { id });
    }

    /// <summary>An observation by its id; null where there is none.</summary>
    public async Task<Observation?> Find(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (await connection.QuerySingleOrDefaultAsync<Row>($"select {Read} from observation where id = @id", new { id }))?.ToObservation();
    }

    /// <summary>Every observation, in the order in which the log is written to a file: by day, then by id.</summary>
    public async IAsyncEnumerable<Observation> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        await using var command = new NpgsqlCommand($"select {Columns} from observation order by day, id", connection);
        await using NpgsqlDataReader reader = await command.ExecuteReaderAsync();
        while (await reader.ReadAsync())
        {
            yield return new Row(
                reader.GetGuid(0),
                reader.GetString(1),
                reader.IsDBNull(2) ? null : reader.GetString(2),
                reader.GetFieldValue<LocalDate>(3),
                reader.GetString(4),
                reader.GetString(5),
                reader.GetString(6),
                reader.GetFieldValue<Instant>(7),
                reader.IsDBNull(8) ? null : reader.GetString(8),
                reader.IsDBNull(9) ? null : reader.GetInt32(9),
                reader.IsDBNull(10) ? null : reader.GetGuid(10),
                reader.IsDBNull(11) ? null : reader.GetInt32(11),
                reader.IsDBNull(12) ? null : reader.GetString(12),
                reader.IsDBNull(13) ? null : reader.GetBoolean(13),
                reader.IsDBNull(14) ? null : reader.GetInt32(14)
            ).ToObservation();
        }
    }

    /// <summary>The latest observations, latest first.</summary>
    /// <param name="planterId">Of one planter; null for all.</param>
    /// <param name="most">At most so many.</param>
    public async Task<IReadOnlyList<Observation>> Latest(string? planterId, int most)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    $"""
                    select {Read}
                    from observation
                    where @planterId::text is null or planter_id = @planterId
                    order by day desc, recorded_at desc, id
                    limit @most
                    """,
                    new { planterId, most }
                )
            ).Select(r => r.ToObservation()),
        ];
    }

    /// <summary>The latest observations of a plant, wherever it stood, latest first.</summary>
    public async Task<IReadOnlyList<Observation>> OfPlant(string plantId, int most)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    $"select {Read} from observation where plant_id = @plantId order by day desc, recorded_at desc, id limit @most",
                    new { plantId, most }
                )
            ).Select(r => r.ToObservation()),
        ];
    }

    /// <summary>Notes and ratings of some planters, latest first.</summary>
    /// <param name="planterIds">The planters.</param>
    /// <param name="most">At most so many.</param>
    public async Task<IReadOnlyList<Observation>> Learnt(IReadOnlyList<string> planterIds, int most)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    $"""
                    select {Read}
                    from observation
                    where planter_id = any(@planters) and {Stands} and kind in ('Note', 'DidWell', 'DidPoorly', 'Died', 'Reviewed')
                    order by day desc, recorded_at desc, id
                    limit @most
                    """,
                    new { planters = planterIds.ToArray(), most }
                )
            ).Select(r => r.ToObservation()),
        ];
    }

    /// <summary>Every observation of a kind, earliest first.</summary>
    public async Task<IReadOnlyList<Observation>> OfKind(ObservationKind kind)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    $"select {Read} from observation where kind = @kind and {Stands} order by day, recorded_at, id",
                    new { kind = kind.ToString() }
                )
            ).Select(r => r.ToObservation()),
        ];
    }

    /// <summary>A mark of the log: another as soon as anything is written.</summary>
    public async Task<string> Mark()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleAsync<string>("select concat_ws(' ', count(*), max(recorded_at)) from observation");
    }

    /// <summary>How often each plant was said to do well, and poorly or to have died.</summary>
    public async Task<IReadOnlyDictionary<string, (int Well, int Poorly)>> Ratings()
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QueryAsync<(string Plant, int Well, int Poorly)>(
                $"""
                select plant_id, (count(*) filter (where kind = 'DidWell'))::int, (count(*) filter (where kind in ('DidPoorly', 'Died')))::int
                from observation
                where plant_id is not null and {Stands} and kind in ('DidWell', 'DidPoorly', 'Died')
                group by plant_id
                """
            )
        ).ToDictionary(r => r.Plant, r => (r.Well, r.Poorly), StringComparer.Ordinal);
    }

    /// <summary>The observations of a span of days, earliest first.</summary>
    public async Task<IReadOnlyList<Observation>> Between(LocalDate first, LocalDate last)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    $"select {Read} from observation where day between @first and @last order by day, recorded_at, id",
                    new { first, last }
                )
            ).Select(r => r.ToObservation()),
        ];
    }

    private sealed record Row(
        Guid Id,
        string PlanterId,
        string? PlantId,
        LocalDate Day,
        string Kind,
        string Note,
        string By,
        Instant RecordedAt,
        string? PlantName,
        int? Count,
        Guid? Corrects,
        int? Rating,
        string? Verdict,
        bool? InColour,
        int? CoverPct,
        bool IsCorrected = false
    )
    {
        public Observation ToObservation() =>
            new(Id, PlanterId, PlantId, Day, Enum.Parse<ObservationKind>(Kind), Note, By)
            {
                RecordedAt = RecordedAt,
                PlantName = PlantName,
                Count = Count,
                Corrects = Corrects,
                Review = Rating is { } rating ? new PlanterReview(rating, Enum.Parse<ReviewVerdict>(Verdict!), InColour, CoverPct) : null,
                IsCorrected = IsCorrected,
            };
    }
}
