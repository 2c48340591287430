using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes events.</summary>
/// <param name="database">The database.</param>
public sealed class EventStore(MeadowDatabase database)
{
    /// <summary>The version of an event, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from site_event where id = @id", new { id });
    }

    /// <summary>Adds or changes an event.</summary>
    /// <param name="what">The event.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <exception cref="InvalidInputException">It is faulty, or its id is taken.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task Save(SiteEvent what, int? version)
    {
        IReadOnlyList<Fault> faults = what.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            version is null
                ? "insert into site_event (id, name, first_day, last_day) values (@Id, @Name, @FirstDay, @LastDay)"
                : "update site_event set name = @Name, first_day = @FirstDay, last_day = @LastDay, version = version + 1 where id = @Id and version = @version",
            new { what.Id, what.Name, what.FirstDay, what.LastDay, version }));
        if (changed == 0)
            throw new LostUpdateException($"The event {what.Name}");
    }

    /// <summary>Removes an event.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public async Task Remove(string id, int version)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        if (await connection.ExecuteAsync("delete from site_event where id = @id and version = @version", new { id, version }) == 0)
            throw new LostUpdateException("This event");
    }
}
