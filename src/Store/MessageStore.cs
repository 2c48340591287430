using Dapper;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>What one page says through the next. A browser carries only the id, however much there is to say.</summary>
/// <param name="database">The database.</param>
public sealed class MessageStore(MeadowDatabase database)
{
    /// <summary>Keeps words, and drops those that nobody fetched within a day.</summary>
    /// <param name="id">Their id.</param>
    /// <param name="said">JSON.</param>
    public async Task Keep(Guid id, string said)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            """
            delete from message where said_at < now() - interval '1 day';

            insert into message (id, said) values (@id, @said::jsonb);
            """,
            new { id, said }
        );
    }

    /// <summary>Words that are kept; null when they were taken or dropped.</summary>
    public async Task<string?> Find(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<string?>("select said::text from message where id = @id", new { id });
    }

    /// <summary>Drops words that were said.</summary>
    public async Task Drop(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from message where id = @id", new { id });
    }
}
