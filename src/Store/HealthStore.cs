using System.Reflection;
using Dapper;
using NodaTime;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>How the database and those who work on it are.</summary>
/// <param name="database">The database.</param>
public sealed class HealthStore(MeadowDatabase database)
{
    /// <summary>Migrations that ship with this version and have not run.</summary>
    public async Task<int> MissingMigrations()
    {
        int shipped = Assembly.GetExecutingAssembly().GetManifestResourceNames().Count(n => n.EndsWith(".sql", StringComparison.Ordinal));
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return Math.Max(0, shipped - await connection.ExecuteScalarAsync<int>("select count(*)::int from schemaversions"));
    }

    /// <summary>When a worker was last heard; null for never.</summary>
    public async Task<Instant?> WorkerHeard()
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<bool>("select to_regclass('hangfire.server') is not null")
            ? await connection.QuerySingleOrDefaultAsync<Instant?>("select max(lastheartbeat)::timestamptz from hangfire.server")
            : null;
    }

    /// <summary>Pieces of work that wait, and seconds for which the oldest has.</summary>
    public async Task<(int Waiting, double OldestSeconds)> Work()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        return await connection.QuerySingleAsync<(int, double)>(
            "select count(*)::int, coalesce(extract(epoch from now() - min(asked_at)), 0)::float8 from job where state = 'Waiting'"
        );
    }

    /// <summary>When the live station of a site was last heard; null for never.</summary>
    public async Task<Instant?> StationHeard(Guid site)
    {
        await using NpgsqlConnection connection = await database.At(site).Open();
        return await connection.QuerySingleOrDefaultAsync<Instant?>("select heard_at from live_station");
    }
}
