using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Npgsql;

namespace UnrulyMeadow.Endurance;

/// <summary>A PostgreSQL of its own, with the power-loss settings that it ships with, to be killed, held up and filled.</summary>
internal sealed class Cluster : IAsyncDisposable
{
    /// <summary>Where PostgreSQL's programs are.</summary>
    public const string Programs = "/usr/lib/postgresql/15/bin";

    private const string FakeTime = "/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1";

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);

    private readonly string _folder;
    private readonly bool _isMounted;
    private readonly int _port = FreePort();

    private readonly string? _clock;

    private Cluster(string folder, bool isMounted, string? clock) => (_folder, _isMounted, _clock) = (folder, isMounted, clock);

    /// <summary>The server's connection string.</summary>
    public string ConnectionString => $"Host=127.0.0.1;Port={_port};Username=meadow;Password=meadow;Database=postgres;Timeout=5";

    /// <summary>Where its files are.</summary>
    public string Data => Path.Combine(_folder, "data");

    /// <summary>Makes one and starts it.</summary>
    /// <param name="megabytes">The size of a disk of its own; null for a folder on the common one.</param>
    /// <param name="clock">A file that says by how much its clock is off, as libfaketime reads it; null for the machine's clock.</param>
    public static async Task<Cluster> Make(int? megabytes = null, string? clock = null)
    {
        string folder = Directory.CreateTempSubdirectory("meadow-endurance-").FullName;
        if (megabytes is { } size)
            await Run("mount", ["-t", "tmpfs", "-o", $"size={size}m", "tmpfs", folder]);
        var cluster = new Cluster(folder, megabytes is not null, clock);
        if (IsRoot)
            await Run("chown", ["postgres:postgres", folder]);
        string secret = Path.Combine(folder, "secret");
        await File.WriteAllTextAsync(secret, "meadow");
        await AsOwner("initdb", ["-D", cluster.Data, "-U", "meadow", "--auth=scram-sha-256", $"--pwfile={secret}", "-E", "UTF8", "--locale=C.UTF-8"]);
        await File.AppendAllTextAsync(
            Path.Combine(cluster.Data, "postgresql.conf"),
            $"listen_addresses='127.0.0.1'\nport={cluster._port}\nunix_socket_directories=''\nmax_wal_size=64MB\nmin_wal_size=32MB\n"
        );
        await cluster.Start();
        return cluster;
    }

    /// <summary>Makes a replica of it, which follows it and can only be read.</summary>
    public async Task<Cluster> Replica()
    {
        string folder = Directory.CreateTempSubdirectory("meadow-endurance-").FullName;
        var replica = new Cluster(folder, isMounted: false, clock: null);
        if (IsRoot)
            await Run("chown", ["postgres:postgres", folder]);
        string from = $"host=127.0.0.1 port={_port} user=meadow password=meadow";
        await AsOwner("pg_basebackup", ["-d", from, "-D", replica.Data, "-R", "-X", "stream", "-c", "fast"]);
        await File.AppendAllTextAsync(Path.Combine(replica.Data, "postgresql.conf"), $"port={replica._port}\n");
        await replica.Start();
        return replica;
    }

    /// <summary>Starts it, after a kill as well.</summary>
    public async Task Start()
    {
        for (int tries = 0; ; tries++)
        {
            try
            {
                await AsOwner("pg_ctl", ["-D", Data, "-l", Path.Combine(_folder, "log"), "-w", "-t", "60", "start"], _clock);
                return;
            }
            catch (InvalidOperationException) when (tries < 20)
            {
                // What was killed leaves children that end a moment later.
                await Task.Delay(250);
            }
        }
    }

    /// <summary>Ends it without a word to anybody, as a failing machine would.</summary>
    public async Task Kill()
    {
        string[] lines = await File.ReadAllLinesAsync(Path.Combine(Data, "postmaster.pid"));
        using Process server = Process.GetProcessById(int.Parse(lines[0], System.Globalization.CultureInfo.InvariantCulture));
        server.Kill();
        await server.WaitForExitAsync();
    }

    /// <summary>Stops it at once, with whoever is connected.</summary>
    public Task Stop() => AsOwner("pg_ctl", ["-D", Data, "-m", "immediate", "-w", "stop"]);

    /// <summary>Sends it a statement.</summary>
    public async Task Do(string sql)
    {
        await using var connection = new NpgsqlConnection(ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        if (File.Exists(Path.Combine(Data, "postmaster.pid")))
        {
            try
            {
                await Stop();
            }
            catch (InvalidOperationException)
            {
                // It had ended already.
            }
        }
        if (_isMounted)
            await Run("umount", ["-l", _folder]);
        Directory.Delete(_folder, recursive: true);
    }

    private static bool IsRoot => Environment.UserName == "root";

    // PostgreSQL does not run as root.
    private static Task AsOwner(string program, string[] arguments, string? clock = null)
    {
        string[] command =
        [
            .. IsRoot ? new[] { "runuser", "-u", "postgres", "--" } : [],
            .. clock is null
                ? []
                : new[] { "env", $"LD_PRELOAD={FakeTime}", $"FAKETIME_TIMESTAMP_FILE={clock}", "FAKETIME_NO_CACHE=1", "DONT_FAKE_MONOTONIC=1" },
            $"{Programs}/{program}",
            .. arguments,
        ];
        return Run(command[0], command[1..]);
    }

    private static async Task Run(string program, string[] arguments)
    {
        using Process process = Process.Start(new ProcessStartInfo(program, arguments) { WorkingDirectory = "/" })!;
        await process.WaitForExitAsync().WaitAsync(Longest);
        if (process.ExitCode != 0)
            throw new InvalidOperationException($"{program} {string.Join(' ', arguments)} ended with {process.ExitCode}");
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
