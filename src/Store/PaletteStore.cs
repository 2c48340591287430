using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes, retires and removes plants of the palette.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How a plant's figures are written as JSON.</param>
public sealed class PaletteStore(MeadowDatabase database, JsonSerializerOptions json)
{
    /// <summary>The version of a plant, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from plant where id = @id", new { id });
    }

    /// <summary>Adds plants to the palette; one whose id is there already is left as it is.</summary>
    /// <returns>How many were added.</returns>
    public async Task<int> AddNew(IReadOnlyList<Plant> plants)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.ExecuteAsync(
            """
            insert into plant (id, details)
            select r.details ->> 'id', r.details
            from jsonb_array_elements(@rows::jsonb) as r (details)
            on conflict (id) do nothing
            """,
            new { rows = JsonSerializer.Serialize(plants, json) });
    }

    /// <summary>Writes plants, new ones and changed ones, all or none.</summary>
    public async Task Put(IReadOnlyList<Plant> plants)
    {
        var faults = new FaultList();
        foreach (Plant plant in plants)
            faults.AddAll(plant.Id, plant.Faults());
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            """
            insert into plant (id, details)
            select r.details ->> 'id', r.details
            from jsonb_array_elements(@rows::jsonb) as r (details)
            on conflict (id) do update
            set details = excluded.details, version = plant.version + 1
            """,
            new { rows = JsonSerializer.Serialize(plants, json) });
    }

    /// <summary>Adds a plant, or changes it at the version it was read.</summary>
    /// <param name="plant">Its figures.</param>
    /// <param name="version">The version they were read at; null for a new plant.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, or its id is taken.</exception>
    public async Task Save(Plant plant, int? version)
    {
        IReadOnlyList<Fault> faults = plant.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? "insert into plant (id, details) values (@Id, @details::jsonb)"
                : "update plant set details = @details::jsonb, version = version + 1 where id = @Id and version = @version",
            new { plant.Id, details = JsonSerializer.Serialize(plant, json), version }));
        if (changed == 0)
            throw new LostUpdateException($"The plant {plant.CommonName}");
    }

    /// <summary>Removes a plant that nothing uses.</summary>
    /// <exception cref="InvalidInputException">Displays or lots use it; they are named, and retirement is offered.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task Remove(string id, int version)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var uses = (await connection.QueryAsync<string>(
            """
            select distinct p.name || ' from ' || lower(d.during)::text
            from display_item i
            join display d on d.id = i.display_id
            join planter p on p.id = d.planter_id
            where i.plant_id = @id
            union all
            select 'lot ' || id from lot where plant_id = @id
            order by 1
            """,
            new { id },
            transaction)).ToList();
        if (uses.Count > 0)
            throw new InvalidInputException(string.Empty, $"It is in use: {Some(uses)}. Retire it instead: what stands stays, and nothing new is planned with it.");
        if (await connection.ExecuteAsync("delete from plant where id = @id and version = @version", new { id, version }, transaction) == 0)
            throw new LostUpdateException("The plant");
        await transaction.CommitAsync();
    }

    /// <summary>The first few of a list, and how many more there are.</summary>
    internal static string Some(IReadOnlyList<string> names) =>
        string.Join(", ", names.Take(5)) + (names.Count > 5 ? $" and {names.Count - 5} more" : string.Empty);
}
