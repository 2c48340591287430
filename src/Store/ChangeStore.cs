using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Changes to several displays made together.</summary>
/// <param name="Before">Displays as they were when the changes were worked out.</param>
/// <param name="After">Those displays as they become, by the same ids.</param>
/// <param name="Added">Displays that are new.</param>
/// <param name="Used">Plants taken from lots, by lot.</param>
public sealed record PlanChange(IReadOnlyList<Display> Before, IReadOnlyList<Display> After, IReadOnlyList<Display> Added, IReadOnlyDictionary<string, int> Used);

/// <summary>A change that was made.</summary>
/// <param name="Id">Its id.</param>
/// <param name="What">What it did, in a few words.</param>
public sealed record MadeChange(Guid Id, string What);

/// <summary>Makes changes to several displays at once, and takes them back together.</summary>
/// <param name="database">The database.</param>
/// <param name="displays">Displays.</param>
/// <param name="json">How displays are written as JSON.</param>
public sealed class ChangeStore(MeadowDatabase database, DisplayStore displays, JsonSerializerOptions json)
{
    // Layers are looked at once everything is written: displays may change places in time.
    private const string Later = "set constraints display_layer_once deferred";

    /// <summary>Makes changes, all of them or none.</summary>
    /// <returns>The id to take them back by.</returns>
    /// <exception cref="LostUpdateException">A display is no longer as it was when the change was worked out.</exception>
    /// <exception cref="InvalidInputException">A display is faulty or its layer is filled, or a lot holds too few.</exception>
    public async Task<Guid> Make(PlanChange change, string what)
    {
        foreach (Display display in change.After.Concat(change.Added))
        {
            IReadOnlyList<Fault> faults = display.Faults();
            if (faults.Count > 0)
                throw new InvalidInputException(faults);
        }
        var id = Guid.NewGuid();
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(Later, transaction: transaction);
        var versions = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (Display before in change.Before)
        {
            (Display? now, int version) = await displays.Lock(connection, transaction, before.Id);
            if (now is null || Text(now) != Text(before))
                throw new LostUpdateException($"The display {before.Id}");
            versions[before.Id] = version;
        }
        foreach (Display after in change.After)
            await displays.Write(connection, transaction, after, versions[after.Id]);
        foreach (Display added in change.Added)
            await displays.Write(connection, transaction, added, null);
        foreach ((string lot, int count) in change.Used)
        {
            if (await connection.ExecuteAsync("update lot set count = count - @count, version = version + 1 where id = @lot and count >= @count", new { lot, count }, transaction) == 0)
                throw new InvalidInputException("stock", $"the lot \"{lot}\" no longer holds {count}: look at the stock, and ask again");
        }
        await connection.ExecuteAsync(
            "insert into plan_change (id, what, details) values (@id, @what, @details::jsonb)",
            new { id, what = what.Length > 200 ? what[..200] : what, details = JsonSerializer.Serialize(change, json) },
            transaction);
        await SqlFaults.Naming(() => CheckNow(connection, transaction));
        await transaction.CommitAsync();
        return id;
    }

    /// <summary>The last change that can still be taken back, made within two days; null for none.</summary>
    public async Task<MadeChange?> Last()
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<MadeChange>(
            "select id, what from plan_change where undone_at is null and made_at > now() - interval '2 days' order by made_at desc limit 1");
    }

    /// <summary>Takes changes back together.</summary>
    /// <exception cref="InvalidInputException">There is nothing to take back, or someone has changed one of the displays since.</exception>
    public async Task<string> Undo(Guid id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var row = await connection.QuerySingleOrDefaultAsync<(string What, string Details)?>(
            "select what, details::text from plan_change where id = @id and undone_at is null for update", new { id }, transaction)
            ?? throw new InvalidInputException(string.Empty, "There is no such change left to take back.");
        PlanChange change = JsonSerializer.Deserialize<PlanChange>(row.Details, json)!;
        await connection.ExecuteAsync(Later, transaction: transaction);
        var versions = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (Display after in change.After.Concat(change.Added))
        {
            (Display? now, int version) = await displays.Lock(connection, transaction, after.Id);
            if (now is null || Text(now) != Text(after))
                throw new InvalidInputException(string.Empty, $"Someone has changed {after.Id} since: look at it as it is now, and change it there.");
            versions[after.Id] = version;
        }
        foreach (Display added in change.Added)
            await connection.ExecuteAsync("delete from display where id = @Id", new { added.Id }, transaction);
        foreach (Display before in change.Before)
            await displays.Write(connection, transaction, before, versions[before.Id]);
        foreach ((string lot, int count) in change.Used)
            await connection.ExecuteAsync("update lot set count = count + @count, version = version + 1 where id = @lot", new { lot, count }, transaction);
        await connection.ExecuteAsync("update plan_change set undone_at = now() where id = @id", new { id }, transaction);
        await SqlFaults.Naming(() => CheckNow(connection, transaction));
        await transaction.CommitAsync();
        return row.What;
    }

    private static Task<int> CheckNow(NpgsqlConnection connection, NpgsqlTransaction transaction) =>
        connection.ExecuteAsync("set constraints display_layer_once immediate", transaction: transaction);

    private string Text(Display display) => JsonSerializer.Serialize(display, json);
}
