using Dapper;
using Npgsql;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Store;

/// <summary>Mends texts that were stored before texts had a rule: control characters, noncharacters, and letters not yet composed.</summary>
public static class TextRepair
{
    private static readonly (string Table, string Key, string[] Columns)[] Texts =
    [
        ("site", "id", ["name", "money"]),
        ("area", "id", ["name"]),
        ("planter", "id", ["name", "note"]),
        ("turn", "id", ["name"]),
        ("lot", "id", ["place", "note"]),
        ("recipe", "id", ["name"]),
        ("site_event", "id", ["name"]),
        ("station", "id", ["name"]),
        ("plan_variant", "id", ["name"]),
        ("planter_photo", "id", ["caption"]),
        ("observation", "id", ["note", "by"]),
    ];

    // Texts within JSON: its own escapes stand for control characters there.
    private static readonly (string Table, string Column)[] Documents =
    [
        ("plant", "details"),
        ("recipe", "details"),
        ("map_feature", "details"),
        ("planter", "survey"),
        ("plan_variant", "plan"),
    ];

    private static readonly HashSet<string> OfSeveralLines = ["note", "caption"];

    /// <summary>Mends every stored text, all or none. The log, which nothing else may change, is changed here and only so.</summary>
    /// <returns>What was mended, one line each.</returns>
    public static async Task<IReadOnlyList<string>> Mend(MeadowDatabase database)
    {
        var said = new List<string>();
        foreach (SiteEntry site in await database.Sites())
            said.AddRange(await Mend(database, site));
        return said.Count == 0 ? ["Every text is in order."] : said;
    }

    private static async Task<IReadOnlyList<string>> Mend(MeadowDatabase database, SiteEntry site)
    {
        var said = new List<string>();
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        // Only the owner of the table may take its guard off; what is written then is written as the site.
        await connection.ExecuteAsync("alter table observation disable trigger observation_append_only", transaction: transaction);
        await database.Enter(connection, site.Id, every: false);
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        foreach ((string table, string key, string[] columns) in Texts)
        {
            foreach (string column in columns)
            {
                var rows = await connection.QueryAsync<(string Id, string Text)>(
                    $"select {key}::text, {column} from {table} where {column} ~ '[^ -~]'",
                    transaction: transaction
                );
                foreach ((string id, string text) in rows)
                {
                    bool lines = OfSeveralLines.Contains(column);
                    string mended = PlainText.Mended(text, lines);
                    if (!lines)
                        mended = mended.Trim() is { Length: > 0 } left ? left : "?";
                    if (
                        await connection.ExecuteAsync(
                            $"update {table} set {column} = normalize(@mended) where {key}::text = @id and {column} <> normalize(@mended)",
                            new { id, mended },
                            transaction
                        ) > 0
                    )
                        said.Add($"{table} {id}: {column} mended");
                }
            }
        }
        foreach ((string table, string column) in Documents)
        {
            int changed = await connection.ExecuteAsync(
                $$"""
                update {{table}}
                set {{column}} = normalize(regexp_replace({{column}}::text, '(?<!\\)((?:\\\\)*)(\\u00[01][0-9a-f]|\\b|\\f|[\u007f-\u009f\ufdd0-\ufdef\ufffe\uffff])', '\1 ', 'g'))::jsonb
                where {{column}}::text ~ '\\u00[01][0-9a-f]|\\[bf]|[\u007f-\u009f\ufdd0-\ufdef\ufffe\uffff]' or not ({{column}}::text is nfc normalized)
                """,
                transaction: transaction
            );
            if (changed > 0)
                said.Add($"{table}: {changed} with {column} looked through");
        }
        await connection.ExecuteAsync("reset role; alter table observation enable trigger observation_append_only", transaction: transaction);
        await transaction.CommitAsync();
        return said;
    }
}
