using Dapper;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>Keeps a file that was looked at until someone says yes to it; every process of the app can take it up.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class DraftStore(SiteDatabase database)
{
    /// <summary>Keeps a file and drops those older than a day, and all but the latest twenty.</summary>
    /// <param name="kind">What it is: "palette", "map", "plan" or "planters".</param>
    /// <param name="name">Its name.</param>
    /// <param name="content">Its bytes.</param>
    public async Task<Guid> Keep(string kind, string name, byte[] content)
    {
        Guid id = Guid.CreateVersion7();
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            """
            delete from upload_draft where added_at < now() - interval '1 day' or id in (select id from upload_draft order by added_at desc offset 20);

            insert into upload_draft (id, kind, name, content) values (@id, @kind, @name, @content);
            """,
            new
            {
                id,
                kind,
                name = Core.PlainText.Cut(Core.PlainText.Mended(name, lines: false), 200),
                content,
            }
        );
        return id;
    }

    /// <summary>A file that waits, or null when it was taken or dropped.</summary>
    public async Task<(string Name, byte[] Content)?> Find(string kind, Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        Row? row = await connection.QuerySingleOrDefaultAsync<Row>(
            "select name, content from upload_draft where id = @id and kind = @kind",
            new { id, kind }
        );
        return row is null ? null : (row.Name, row.Content);
    }

    /// <summary>Forgets a file.</summary>
    public async Task Drop(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from upload_draft where id = @id", new { id });
    }

    private sealed record Row(string Name, byte[] Content);
}
