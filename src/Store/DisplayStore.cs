using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes displays and turns.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How places and pairs are written as JSON.</param>
public sealed class DisplayStore(MeadowDatabase database, JsonSerializerOptions json)
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
    /// <param name="before">What it was at that version, to be able to go back; null for no way back.</param>
    /// <param name="what">What the change did, in a few words.</param>
    /// <exception cref="InvalidInputException">It is faulty, or another display fills the layer in part of that time.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task Save(Display display, int? version, Display? before = null, string what = "changed")
    {
        Throw(display.Faults());
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await Write(connection, transaction, display, version);
        if (version is { } known && before is not null)
        {
            await connection.ExecuteAsync(
                """
                insert into display_before (display_id, version, details, what)
                values (@Id, @now, @details::jsonb, @what)
                on conflict (display_id) do update set version = excluded.version, details = excluded.details, what = excluded.what
                """,
                new { display.Id, now = known + 1, details = JsonSerializer.Serialize(before, json), what = what.Length > 200 ? what[..200] : what },
                transaction);
        }
        await transaction.CommitAsync();
    }

    /// <summary>Adds displays, all of them or none.</summary>
    /// <exception cref="InvalidInputException">One is faulty, or its layer is filled in part of that time.</exception>
    public async Task AddAll(IReadOnlyList<Display> displays)
    {
        foreach (Display display in displays)
            Throw(display.Faults());
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        foreach (Display display in displays)
            await Write(connection, transaction, display, null);
        await transaction.CommitAsync();
    }

    /// <summary>What the last change to a display did, while nothing has come after it; null when there is nothing to take back.</summary>
    public async Task<string?> CanUndo(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<string?>(
            "select b.what from display_before b join display d on d.id = b.display_id and d.version = b.version where b.display_id = @id",
            new { id });
    }

    /// <summary>Changes of a planter's displays that can be taken back, by display.</summary>
    public async Task<IReadOnlyDictionary<string, string>> UndoableOf(string planterId)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        var rows = await connection.QueryAsync<(string Id, string What)>(
            """
            select d.id, b.what
            from display_before b
            join display d on d.id = b.display_id and d.version = b.version
            where d.planter_id = @planterId
            """,
            new { planterId });
        return rows.ToDictionary(r => r.Id, r => r.What, StringComparer.Ordinal);
    }

    /// <summary>Takes the last change to a display back.</summary>
    /// <returns>The display as it is again.</returns>
    /// <exception cref="InvalidInputException">There is nothing to take back, or someone has changed it since.</exception>
    public async Task<Display> Undo(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var row = await connection.QuerySingleOrDefaultAsync<BeforeRow>(
            """
            select b.version, b.details::text as details, d.version as present
            from display d
            left join display_before b on b.display_id = d.id
            where d.id = @id
            for update of d
            """,
            new { id },
            transaction);
        if (row?.Details is null)
            throw new InvalidInputException(string.Empty, "There is no change left to take back.");
        if (row.Version != row.Present)
            throw new InvalidInputException(string.Empty, "Someone has changed this display since: look at it as it is now, and change it there.");
        Display before = JsonSerializer.Deserialize<Display>(row.Details, json)!;
        await Write(connection, transaction, before, row.Present);
        await connection.ExecuteAsync("delete from display_before where display_id = @id", new { id }, transaction);
        await transaction.CommitAsync();
        return before;
    }

    internal static string? PairsOf(Display display, JsonSerializerOptions json) => display.Pairs.Count == 0 ? null : JsonSerializer.Serialize(display.Pairs, json);

    internal static string? CutsOf(Display display, JsonSerializerOptions json) => display.Cuts.Count == 0 ? null : JsonSerializer.Serialize(display.Cuts, json);

    internal static string? PlacesOf(DisplayItem item, JsonSerializerOptions json) => item.Places is null ? null : JsonSerializer.Serialize(item.Places, json);

    /// <summary>A display as it stands, locked against others until the transaction ends; null when it is gone.</summary>
    internal async Task<(Display? Display, int Version)> Lock(NpgsqlConnection connection, NpgsqlTransaction transaction, string id)
    {
        var row = await connection.QuerySingleOrDefaultAsync<LockedRow>(
            "select id, planter_id, layer, lower(during) as install, upper(during) as lift, pairs::text, cuts::text, version from display where id = @id for update",
            new { id },
            transaction);
        if (row is null)
            return (null, 0);
        var items = await connection.QueryAsync<PlanStore.ItemRow>(
            "select display_id, plant_id, count, depth_cm, clump, places::text, since, fate, forced from display_item where display_id = @id order by ordinal",
            new { id },
            transaction);
        return (new PlanStore.DisplayRow(row.Id, row.PlanterId, row.Layer, row.Install, row.Lift, row.Pairs, row.Cuts).ToDisplay([.. items], json), row.Version);
    }

    internal async Task Write(NpgsqlConnection connection, NpgsqlTransaction transaction, Display display, int? version)
    {
        var row = new { display.Id, display.PlanterId, layer = display.Layer.ToString(), display.Install, display.Lift, version, pairs = PairsOf(display, json), cuts = CutsOf(display, json) };
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? """
                insert into display (id, planter_id, layer, during, pairs, cuts)
                values (@Id, @PlanterId, @layer, daterange(@Install, @Lift), @pairs::jsonb, @cuts::jsonb)
                """
                : """
                update display
                set layer = @layer, during = daterange(@Install, @Lift), pairs = @pairs::jsonb, cuts = @cuts::jsonb, version = version + 1
                where id = @Id and version = @version and planter_id = @PlanterId
                """,
            row,
            transaction));
        if (changed == 0)
            throw new LostUpdateException("This display");
        await connection.ExecuteAsync("delete from display_item where display_id = @Id", new { display.Id }, transaction);
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            insert into display_item (display_id, ordinal, plant_id, count, depth_cm, clump, places, since, fate, forced)
            values (@Id, @ordinal, @PlantId, @Count, @DepthCm, @Clump, @places::jsonb, @Since, @fate, @Forced)
            """,
            display.Items.Select((item, ordinal) => new { display.Id, ordinal, item.PlantId, item.Count, item.DepthCm, item.Clump, places = PlacesOf(item, json), item.Since, fate = item.Fate?.ToString(), item.Forced }),
            transaction));
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
                ? """
                insert into turn (id, name, first_day, last_day, full_by, delivery, people)
                values (@Id, @Name, @FirstDay, @LastDay, @FullBy, @Delivery, @People)
                """
                : """
                update turn
                set name = @Name, first_day = @FirstDay, last_day = @LastDay, full_by = @FullBy, delivery = @Delivery, people = @People, version = version + 1
                where id = @Id and version = @version
                """,
            new { turn.Id, turn.Name, turn.FirstDay, turn.LastDay, turn.FullBy, turn.Delivery, turn.People, version }));
        if (changed == 0)
            throw new LostUpdateException($"The turn {turn.Name}");
    }

    private static void Throw(IReadOnlyList<Fault> faults)
    {
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
    }

    private sealed record LockedRow(string Id, string PlanterId, string Layer, LocalDate Install, LocalDate Lift, string? Pairs, string? Cuts, int Version);

    private sealed record BeforeRow(int? Version, string? Details, int Present);
}
