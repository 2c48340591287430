using Dapper;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>What one page says through the next. A browser carries only the id, however much there is to say.</summary>
/// <param name="database">The database.</param>
public sealed class MessageStore(MeadowDatabase database)
{
    /// <summary>Keeps words, and drops those that nobody fetched within a day.</summary>
    /// <param name="said">JSON.</param>
    public Guid Keep(string said)
    {
        Guid id = Guid.NewGuid();
        using NpgsqlConnection connection = database.OpenAtOnce();
        connection.Execute(
            """
            delete from message where said_at < now() - interval '1 day';

            insert into message (id, said) values (@id, @said::jsonb);
            """,
            new { id, said }
        );
        return id;
    }

    /// <summary>Takes words out; null when they were taken or dropped.</summary>
    public string? Take(Guid id)
    {
        using NpgsqlConnection connection = database.OpenAtOnce();
        return connection.QuerySingleOrDefault<string?>("delete from message where id = @id returning said::text", new { id });
    }
}
