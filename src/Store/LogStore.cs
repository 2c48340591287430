using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Store;

/// <summary>Writes and reads the log.</summary>
/// <param name="database">The database.</param>
public sealed class LogStore(MeadowDatabase database)
{
    private const string Columns = "id, planter_id, plant_id, day, kind, note, by";

    /// <summary>Records observations, all or none; one whose id is known already is not recorded again.</summary>
    /// <returns>How many were new.</returns>
    /// <exception cref="InvalidInputException">An observation names a planter or plant that is not in the plan.</exception>
    public async Task<int> Record(IReadOnlyList<Observation> observations)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var planters = (await connection.QueryAsync<string>("select id from planter", transaction: transaction)).ToHashSet(StringComparer.Ordinal);
        var plants = (await connection.QueryAsync<string>("select id from plant", transaction: transaction)).ToHashSet(StringComparer.Ordinal);
        var faults = new FaultList();
        foreach (Observation o in observations)
        {
            if (!planters.Contains(o.PlanterId))
                faults.Add("planterId", $"there is no planter \"{o.PlanterId}\"");
            if (o.PlantId is { } plant && !plants.Contains(plant))
                faults.Add("plantId", $"there is no plant \"{plant}\" in the palette");
        }
        faults.ThrowIfAny();
        int added = await SqlFaults.Naming(() => connection.ExecuteAsync(
            $"""
            insert into observation ({Columns})
            values (@Id, @PlanterId, @PlantId, @Day, @kind, @Note, @By)
            on conflict (id) do nothing
            """,
            observations.Select(o => new { o.Id, o.PlanterId, o.PlantId, o.Day, kind = o.Kind.ToString(), o.Note, o.By }),
            transaction));
        await transaction.CommitAsync();
        return added;
    }

    /// <summary>The latest observations, latest first.</summary>
    /// <param name="planterId">Of one planter; null for all.</param>
    /// <param name="most">At most so many.</param>
    public async Task<IReadOnlyList<Observation>> Latest(string? planterId, int most)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return [.. (await connection.QueryAsync<Row>(
            $"""
            select {Columns}
            from observation
            where @planterId::text is null or planter_id = @planterId
            order by day desc, recorded_at desc, id
            limit @most
            """,
            new { planterId, most })).Select(r => r.ToObservation())];
    }

    /// <summary>The latest observations of a plant, wherever it stood, latest first.</summary>
    public async Task<IReadOnlyList<Observation>> OfPlant(string plantId, int most)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return [.. (await connection.QueryAsync<Row>(
            $"select {Columns} from observation where plant_id = @plantId order by day desc, recorded_at desc, id limit @most",
            new { plantId, most })).Select(r => r.ToObservation())];
    }

    /// <summary>The observations of a span of days, earliest first.</summary>
    public async Task<IReadOnlyList<Observation>> Between(LocalDate first, LocalDate last)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return [.. (await connection.QueryAsync<Row>(
            $"select {Columns} from observation where day between @first and @last order by day, recorded_at, id",
            new { first, last })).Select(r => r.ToObservation())];
    }

    private sealed record Row(Guid Id, string PlanterId, string? PlantId, LocalDate Day, string Kind, string Note, string By)
    {
        public Observation ToObservation() => new(Id, PlanterId, PlantId, Day, Enum.Parse<ObservationKind>(Kind), Note, By);
    }
}
