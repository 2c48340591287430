using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes lots of plants at hand.</summary>
/// <param name="database">The database.</param>
public sealed class LotStore(MeadowDatabase database)
{
    internal const string Insert =
        """
        insert into lot (id, plant_id, count, state, place, since, condition, from_planter_id, note)
        values (@Id, @PlantId, @Count, @State, @Place, @Since, @Condition, @FromPlanterId, @Note)
        """;

    /// <summary>The version of a lot, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from lot where id = @id", new { id });
    }

    /// <summary>Adds a lot, or changes it at the version it was read.</summary>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, or plant or planter is gone.</exception>
    public async Task Save(Lot lot, int? version)
    {
        IReadOnlyList<Fault> faults = lot.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? Insert
                : """
                update lot
                set plant_id = @PlantId, count = @Count, state = @State, place = @Place, since = @Since, condition = @Condition,
                    from_planter_id = @FromPlanterId, note = @Note, version = version + 1
                where id = @Id and version = @Version
                """,
            LotRow.From(lot) with { Version = version ?? 0 }));
        if (changed == 0)
            throw new LostUpdateException("This lot");
    }

    /// <summary>Removes a lot.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public async Task Remove(string id, int version)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        if (await connection.ExecuteAsync("delete from lot where id = @id and version = @version", new { id, version }) == 0)
            throw new LostUpdateException("This lot");
    }
}

/// <summary>A lot as its table holds it.</summary>
internal sealed record LotRow
{
    public string Id { get; init; } = string.Empty;

    public string PlantId { get; init; } = string.Empty;

    public int Count { get; init; }

    public string State { get; init; } = string.Empty;

    public string Place { get; init; } = string.Empty;

    public LocalDate Since { get; init; }

    public string Condition { get; init; } = string.Empty;

    public string? FromPlanterId { get; init; }

    public string Note { get; init; } = string.Empty;

    public int Version { get; init; }

    public static LotRow From(Lot l) => new()
    {
        Id = l.Id,
        PlantId = l.PlantId,
        Count = l.Count,
        State = l.State.ToString(),
        Place = l.Place,
        Since = l.Since,
        Condition = l.Condition.ToString(),
        FromPlanterId = l.FromPlanterId,
        Note = l.Note,
    };

    public Lot ToLot() => new(Id, PlantId, Count, Enum.Parse<LotState>(State), Place, Since, Enum.Parse<LotCondition>(Condition), FromPlanterId, Note);
}
