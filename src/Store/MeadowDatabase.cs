using System.Data.Common;
using System.Reflection;
using Dapper;
using DbUp;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace UnrulyMeadow.Store;

/// <summary>The connection to PostgreSQL, with the schema brought up to date, and the sites in it.</summary>
public sealed class MeadowDatabase : IAsyncDisposable
{
    // As whom the app asks where its own login could see past a site's rows.
    private const string SiteRole = "meadow_site";

    // Three processes fit into the hundred connections that PostgreSQL allows as it ships, with what keeps the list of waiting work.
    private const int MostConnections = 30;

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
        // Npgsql's own builder says of every option that it contains it.
        if (!new DbConnectionStringBuilder { ConnectionString = connectionString }.ContainsKey("Maximum Pool Size"))
            builder.ConnectionStringBuilder.MaxPoolSize = MostConnections;
        builder.UseNodaTime();
        Source = builder.Build();
    }

    /// <summary>The pool. Its connections are the login's own, which may see past a site; what a site asks goes through <see cref="At"/>.</summary>
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

    /// <summary>A site's part of the database.</summary>
    public SiteDatabase At(Guid site) => new(this, site);

    /// <summary>Opens a connection that sees no site's rows, for what belongs to all sites alike: people, keys.</summary>
    public async Task<NpgsqlConnection> Open() => await Enter(await Source.OpenConnectionAsync(), null, every: false);

    /// <summary>Opens a connection that sees which sites there are and which work waits, and nothing else of any site.</summary>
    public async Task<NpgsqlConnection> OpenOverAll() => await Enter(await Source.OpenConnectionAsync(), null, every: true);

    /// <summary>The sites, by name.</summary>
    public async Task<IReadOnlyList<SiteEntry>> Sites()
    {
        await using NpgsqlConnection connection = await OpenOverAll();
        return [.. await connection.QueryAsync<SiteEntry>("select id, slug, name from site order by name, id")];
    }

    /// <summary>The site that was there first; null where there is none.</summary>
    public async Task<SiteEntry?> FirstSite()
    {
        await using NpgsqlConnection connection = await OpenOverAll();
        return await connection.QueryFirstOrDefaultAsync<SiteEntry>("select id, slug, name from site order by made_at, id limit 1");
    }

    /// <summary>Adds a site with nothing in it.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="slug">Its part of addresses; another where it is taken.</param>
    public async Task<SiteEntry> AddSite(string name, string slug)
    {
        var id = Guid.CreateVersion7();
        await using NpgsqlConnection connection = await Enter(await Source.OpenConnectionAsync(), id, every: true);
        return await SqlFaults.Naming(() =>
            connection.QuerySingleAsync<SiteEntry>(
                """
                insert into site (
                  id, slug, name, units, money, cover_threshold, spare_share, fresh_medium_cm, medium_bag_litres, medium_bag_price, wall_gap_cm, bulb_gap_cm)
                values (
                  @id,
                  case when exists (select from site where slug = @slug) then left(@slug, 51) || '-' || right(@id::text, 8) else @slug end,
                  @name, 'Metric', '$', 0.15, 0.05, 20, 60, 18, 2.5, 2)
                returning id, slug, name
                """,
                new
                {
                    id,
                    slug,
                    name,
                }
            )
        );
    }

    internal async Task<NpgsqlConnection> Enter(NpgsqlConnection connection, Guid? site, bool every)
    {
        try
        {
            await connection.ExecuteAsync(Entering, EnteringAs(await MustBeBound(connection), site, every));
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    // What is set goes with the connection back to the pool, which resets it.
    private const string Entering =
        "select set_config('role', @role, false), set_config('meadow.site', @site, false), set_config('meadow.every', @every, false)";

    private const string Bound =
        "select (rolsuper or rolbypassrls) and pg_has_role(current_user, @SiteRole, 'member') from pg_roles where rolname = current_user";

    private bool? _bound;

    private async Task<bool> MustBeBound(NpgsqlConnection connection) => _bound ??= await connection.QuerySingleAsync<bool>(Bound, new { SiteRole });

    private static object EnteringAs(bool bound, Guid? site, bool every) =>
        new
        {
            role = bound ? SiteRole : "none",
            site = site?.ToString() ?? string.Empty,
            every = every ? "on" : string.Empty,
        };

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

/// <summary>A site of the installation.</summary>
/// <param name="Id">Its identity, which every row of it carries.</param>
/// <param name="Slug">Its part of addresses.</param>
/// <param name="Name">Its name.</param>
public sealed record SiteEntry(Guid Id, string Slug, string Name);

/// <summary>
/// A site's part of the database. Its connections see that site's rows and write no others: the database itself holds them to it.
/// </summary>
/// <param name="whole">The database.</param>
/// <param name="site">The site's identity.</param>
public sealed class SiteDatabase(MeadowDatabase whole, Guid site)
{
    /// <summary>The database that it is part of.</summary>
    public MeadowDatabase Whole => whole;

    /// <summary>The site's identity.</summary>
    public Guid Site => site;

    /// <summary>Opens a connection for this site.</summary>
    public async Task<NpgsqlConnection> Open() => await whole.Enter(await whole.Source.OpenConnectionAsync(), site, every: false);
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
