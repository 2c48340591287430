using Dapper;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>Keys with which forms are signed. Every process of the app signs with the same, and none lie about in files.</summary>
/// <param name="database">The database.</param>
public sealed class KeyStore(MeadowDatabase database)
{
    /// <summary>All keys, as XML.</summary>
    public IReadOnlyList<string> All()
    {
        using NpgsqlConnection connection = database.Source.OpenConnection();
        return [.. connection.Query<string>("select key from signing_key order by made_at, name")];
    }

    /// <summary>Keeps a key.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="key">XML.</param>
    public void Keep(string name, string key)
    {
        using NpgsqlConnection connection = database.Source.OpenConnection();
        connection.Execute(
            "insert into signing_key (name, key) values (@name, @key) on conflict (name) do update set key = excluded.key",
            new { name, key }
        );
    }
}
