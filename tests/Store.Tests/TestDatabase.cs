using Npgsql;

namespace UnrulyMeadow.Store.Tests;

/// <summary>A database of its own on the real PostgreSQL, migrated, and dropped afterwards.</summary>
public sealed class TestDatabase : IAsyncLifetime
{
    private readonly string _name = $"meadow_test_{Guid.NewGuid():N}";

    public MeadowDatabase Whole { get; private set; } = null!;

    /// <summary>The part of it that is the first site's; null in a database without tables.</summary>
    public SiteDatabase Database { get; private set; } = null!;

    /// <summary>False for a database without tables.</summary>
    public bool Migrated { get; init; } = true;

    /// <summary>The server; that of all tests unless another is given.</summary>
    public string Server { get; init; } =
        Environment.GetEnvironmentVariable("MEADOW_TEST_DB")
        ?? throw new InvalidOperationException("MEADOW_TEST_DB names no PostgreSQL server; run the tests with ./meadow test.");

    public async ValueTask InitializeAsync()
    {
        await Do($"create database {_name}");
        Whole = new MeadowDatabase(new NpgsqlConnectionStringBuilder(Server) { Database = _name }.ConnectionString);
        if (!Migrated)
            return;
        Whole.Migrate();
        Database = Whole.At((await Whole.FirstSite())!.Id);
    }

    public async ValueTask DisposeAsync()
    {
        await Whole.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await Do($"drop database {_name} with (force)");
    }

    private async Task Do(string sql)
    {
        await using var connection = new NpgsqlConnection(Server);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
