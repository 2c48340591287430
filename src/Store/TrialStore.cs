using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core.Trials;

namespace UnrulyMeadow.Store;

/// <summary>Trials of kinds over planters. A trial is laid out once and never changed.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="json">How parts of a plan are kept.</param>
public sealed class TrialStore(SiteDatabase database, JsonSerializerOptions json)
{
    /// <summary>All trials, the latest first.</summary>
    public async Task<IReadOnlyList<Trial>> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (await connection.QueryAsync<string>("select details::text from trial order by made_at desc, id")).Select(d =>
                JsonSerializer.Deserialize<Trial>(d, json)!
            ),
        ];
    }

    /// <summary>One trial; null where it is not there.</summary>
    public async Task<Trial?> Find(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<string>("select details::text from trial where id = @id", new { id }) is { } details
            ? JsonSerializer.Deserialize<Trial>(details, json)
            : null;
    }

    /// <summary>Keeps a trial.</summary>
    public async Task Add(Trial trial)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "insert into trial (id, details) values (@Id, @details::jsonb) on conflict do nothing",
            new { trial.Id, details = JsonSerializer.Serialize(trial, json) }
        );
    }

    /// <summary>Takes a trial out; what was planted and logged for it stays.</summary>
    public async Task Remove(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from trial where id = @id", new { id });
    }
}
