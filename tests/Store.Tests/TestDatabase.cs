using Npgsql;

namespace UnrulyMeadow.Store.Tests;

/// <summary>A database of its own on the real PostgreSQL, migrated, and dropped afterwards.</summary>
public sealed class TestDatabase : IAsyncLifetime
{
    private readonly string _name = $"meadow_test_{Guid.NewGuid():N}";

    public MeadowDatabase Database { get; private set; } = null!;

    /// <summary>False for a database without tables.</summary>
    public bool Migrated { get; init; } = true;

    private static string Server =>
        Environment.GetEnvironmentVariable("MEADOW_TEST_DB")
        ?? throw new InvalidOperationException("MEADOW_TEST_DB names no PostgreSQL server; run the tests with ./meadow test.");

    public async ValueTask InitializeAsync()
    {
        await Do($"create database {_name}");
        Database = new MeadowDatabase(new NpgsqlConnectionStringBuilder(Server) { Database = _name }.ConnectionString);
        if (Migrated)
            Database.Migrate();
    }

    public async ValueTask DisposeAsync()
    {
        await Database.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await Do($"drop database {_name} with (force)");
    }

    private static async Task Do(string sql)
    {
        await using var connection = new NpgsqlConnection(Server);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
