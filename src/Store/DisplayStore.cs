using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes displays and turns.</summary>
/// <param name="database">The database.</param>
public sealed class DisplayStore(MeadowDatabase database)
{
    /// <summary>The version of a display, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from display where id = @id", new { id });
    }

    /// <summary>The version of a turn, or null when there is none.</summary>
    public async Task<int?> TurnVersion(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from turn where id = @id", new { id });
    }

    /// <summary>Writes a display with its plants, whole or not at all.</summary>
    /// <param name="display">The display.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <exception cref="InvalidInputException">It is faulty, or another display fills the layer in part of that time.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task Save(Display display, int? version)
    {
        Throw(display.Faults());
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var row = new { display.Id, display.PlanterId, layer = display.Layer.ToString(), display.Install, display.Lift, version };
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? """
                insert into display (id, planter_id, layer, during)
                values (@Id, @PlanterId, @layer, daterange(@Install, @Lift))
                """
                : """
                update display
                set layer = @layer, during = daterange(@Install, @Lift), version = version + 1
                where id = @Id and version = @version and planter_id = @PlanterId
                """,
            row,
            transaction));
        if (changed == 0)
            throw new LostUpdateException("This display");
        await connection.ExecuteAsync("delete from display_item where display_id = @Id", new { display.Id }, transaction);
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            "insert into display_item (display_id, ordinal, plant_id, count, depth_cm) values (@Id, @ordinal, @PlantId, @Count, @DepthCm)",
            display.Items.Select((item, ordinal) => new { display.Id, ordinal, item.PlantId, item.Count, item.DepthCm }),
            transaction));
        await transaction.CommitAsync();
    }

    /// <summary>Removes a display.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public async Task Remove(string id, int version)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        if (await connection.ExecuteAsync("delete from display where id = @id and version = @version", new { id, version }) == 0)
            throw new LostUpdateException("This display");
    }

    /// <summary>Adds or changes a turn.</summary>
    /// <param name="turn">The turn.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    public async Task SaveTurn(Turn turn, int? version)
    {
        Throw(turn.Faults());
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? "insert into turn (id, name, first_day, last_day) values (@Id, @Name, @FirstDay, @LastDay)"
                : """
                update turn
                set name = @Name, first_day = @FirstDay, last_day = @LastDay, version = version + 1
                where id = @Id and version = @version
                """,
            new { turn.Id, turn.Name, turn.FirstDay, turn.LastDay, version }));
        if (changed == 0)
            throw new LostUpdateException($"The turn {turn.Name}");
    }

    private static void Throw(IReadOnlyList<Fault> faults)
    {
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
    }
}
