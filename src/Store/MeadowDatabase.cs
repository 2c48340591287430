using System.Reflection;
using Dapper;
using DbUp;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace UnrulyMeadow.Store;

/// <summary>The connection to PostgreSQL, with the schema brought up to date.</summary>
public sealed class MeadowDatabase : IAsyncDisposable
{
    // Any number that nothing else on the database locks by.
    private const long MigrationLock = 0x4D_45_41_44_4F_57;

    static MeadowDatabase()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        SqlMapper.AddTypeHandler(new NodaHandler<LocalDate>(NpgsqlDbType.Date));
        SqlMapper.AddTypeHandler(new NodaHandler<Instant>(NpgsqlDbType.TimestampTz));
    }

    /// <summary>Opens a pool on a connection string.</summary>
    public MeadowDatabase(string connectionString)
    {
        ConnectionString = connectionString;
        var builder = new NpgsqlDataSourceBuilder(connectionString);
        builder.UseNodaTime();
        Source = builder.Build();
    }

    /// <summary>The pool.</summary>
    public NpgsqlDataSource Source { get; }

    /// <summary>The connection string, with its secret.</summary>
    public string ConnectionString { get; }

    /// <summary>
    /// Runs the migrations that have not run yet, each in a transaction of its own. Processes that start at once on one database take turns.
    /// </summary>
    /// <exception cref="InvalidOperationException">A migration failed; the message names it.</exception>
    public void Migrate()
    {
        using NpgsqlConnection turn = Source.OpenConnection();
        turn.Execute("select pg_advisory_lock(@MigrationLock)", new { MigrationLock });
        try
        {
            Upgrade();
        }
        finally
        {
            turn.Execute("select pg_advisory_unlock(@MigrationLock)", new { MigrationLock });
        }
    }

    private void Upgrade()
    {
        var result = DeployChanges
            .To.PostgresqlDatabase(ConnectionString)
            .WithScriptsEmbeddedInAssembly(Assembly.GetExecutingAssembly())
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build()
            .PerformUpgrade();
        if (!result.Successful)
            throw new InvalidOperationException($"Migration {result.ErrorScript?.Name} failed: {result.Error.Message}", result.Error);
    }

    /// <inheritdoc />
    public ValueTask DisposeAsync() => Source.DisposeAsync();

    private sealed class NodaHandler<T>(NpgsqlDbType type) : SqlMapper.TypeHandler<T>
    {
        public override void SetValue(System.Data.IDbDataParameter parameter, T? value)
        {
            parameter.Value = value is null ? DBNull.Value : value;
            ((NpgsqlParameter)parameter).NpgsqlDbType = type;
        }

        public override T? Parse(object value) => value is DBNull ? default : (T)value;
    }
}

/// <summary>Somebody else changed or removed the same thing in the meantime; nothing was written.</summary>
public sealed class LostUpdateException : Exception
{
    /// <summary>Names what was changed.</summary>
    /// <param name="what">What it is.</param>
    /// <param name="isGone">True when it was removed.</param>
    public LostUpdateException(string what, bool isGone = false)
        : base(
            isGone
                ? $"{what} was removed by someone else since you opened it. Nothing was saved; what you typed is still here."
                : (
                    $"{what} was changed by someone else since you opened it. Nothing was saved; what you "
                    + "typed is still here. Compare below what differs, and save again to put yours in its place."
                )
        ) => IsGone = isGone;

    /// <summary>True when it was removed, and not only changed.</summary>
    public bool IsGone { get; }
}
