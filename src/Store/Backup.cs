using System.Diagnostics;
using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Store;

/// <summary>What a backup says of itself.</summary>
/// <param name="MadeAt">When it was begun; what was kept later is not in it.</param>
/// <param name="File">The file beside it.</param>
/// <param name="Sha256">The file's SHA-256, hexadecimal.</param>
/// <param name="IsEncrypted">True where a key opens it.</param>
/// <param name="Migrations">Scripts that had brought the database up to date.</param>
/// <param name="Rows">Rows of each table, with a hash of all of them that does not depend on their order.</param>
public sealed record BackupManifest(
    DateTimeOffset MadeAt,
    string File,
    string Sha256,
    bool IsEncrypted,
    int Migrations,
    IReadOnlyDictionary<string, TableCount> Rows
);

/// <summary>How much a table holds.</summary>
/// <param name="Rows">Its rows.</param>
/// <param name="Hash">The sum of a hash of each.</param>
public sealed record TableCount(long Rows, string Hash);

/// <summary>
/// Backups of the whole database: sites, people, photographs, jobs and keys. One is as of a single moment while everybody works on; it is
/// read back after it is written; and it is restored into an empty database alone, where every table is counted again.
/// </summary>
/// <param name="database">The database.</param>
/// <param name="tools">Where PostgreSQL's own programs are; empty for those on the path.</param>
public sealed class Backup(MeadowDatabase database, string tools = "")
{
    private const string Manifest = "manifest.json";
    private const string Dump = "database.dump";
    private const string Prefix = "meadow-";

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <summary>Writes one into a folder of its own.</summary>
    /// <param name="folder">The folder that holds backups.</param>
    /// <param name="key">A file whose first line is the key; null for a backup that anybody can read.</param>
    /// <param name="now">This instant, which names it.</param>
    /// <param name="cancel">Ends it; what was begun is removed.</param>
    /// <returns>The backup's own folder.</returns>
    /// <exception cref="InvalidInputException">A program is missing or failed, or what was written cannot be read back.</exception>
    public async Task<string> Write(string folder, string? key, DateTimeOffset now, CancellationToken cancel = default)
    {
        string name = Prefix + now.UtcDateTime.ToString("yyyyMMdd'T'HHmmss'Z'", CultureInfo.InvariantCulture);
        string own = Path.Combine(folder, name);
        string part = own + ".part";
        Directory.CreateDirectory(part);
        try
        {
            string dump = Path.Combine(part, Dump);
            IReadOnlyDictionary<string, TableCount> rows;
            await using (NpgsqlConnection connection = await database.Source.OpenConnectionAsync(cancel))
            {
                // What the tables are counted by is the very moment that is written.
                await using NpgsqlTransaction moment = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
                string snapshot = await connection.QuerySingleAsync<string>("select pg_export_snapshot()", transaction: moment);
                await Run("pg_dump", ["--format=custom", "--no-owner", $"--snapshot={snapshot}", $"--file={dump}", .. Target()], cancel);
                rows = await Count(connection, moment);
            }
            await Run("pg_restore", ["--file=/dev/null", dump], cancel);
            if (key is not null)
                dump = await Gpg(["--symmetric", "--cipher-algo", "AES256", "--output", dump + ".gpg", dump], key, dump, cancel) + ".gpg";
            var manifest = new BackupManifest(now, Path.GetFileName(dump), await Hash(dump, cancel), key is not null, Migrations(rows), rows);
            await File.WriteAllBytesAsync(Path.Combine(part, Manifest), JsonSerializer.SerializeToUtf8Bytes(manifest, Json), cancel);
            // A backup that has its name is whole.
            Directory.Move(part, own);
            return own;
        }
        catch
        {
            Directory.Delete(part, recursive: true);
            throw;
        }
    }

    /// <summary>Brings one back into an empty database, checks that every table holds what it held, and brings it up to date.</summary>
    /// <param name="folder">The backup's folder, or one that holds several: then the latest.</param>
    /// <param name="key">The key's file; null for none.</param>
    /// <param name="cancel">Ends it.</param>
    /// <returns>What was restored.</returns>
    /// <exception cref="InvalidInputException">There is none, it is damaged, the key is wrong, or the database is not empty.</exception>
    public async Task<BackupManifest> Restore(string folder, string? key, CancellationToken cancel = default)
    {
        string own = Latest(folder) ?? throw new InvalidInputException("FOLDER", $"there is no backup in \"{folder}\"");
        BackupManifest manifest = JsonSerializer.Deserialize<BackupManifest>(await File.ReadAllBytesAsync(Path.Combine(own, Manifest), cancel), Json)
            ?? throw new InvalidInputException("FOLDER", "the backup's manifest is empty");
        string file = Path.Combine(own, Path.GetFileName(manifest.File));
        if (!File.Exists(file) || await Hash(file, cancel) != manifest.Sha256)
            throw new InvalidInputException("FOLDER", $"\"{file}\" is not what was written: it is damaged or was changed");
        await using (NpgsqlConnection connection = await database.Source.OpenConnectionAsync(cancel))
        {
            if (await connection.ExecuteScalarAsync<bool>("select exists (select from pg_tables where schemaname in ('public', 'hangfire'))"))
                throw new InvalidInputException(
                    "MEADOW_DB",
                    "a backup is restored into an empty database only; start with another data folder (MEADOW_DATA) or database (MEADOW_DB)"
                );
            await connection.ExecuteAsync(
                """
                do $$
                begin
                  if not exists (select from pg_roles where rolname = 'meadow_site') then
                    create role meadow_site nologin;
                  end if;
                exception
                  when duplicate_object or unique_violation or insufficient_privilege then null;
                end
                $$
                """
            );
        }
        string? open = null;
        try
        {
            if (manifest.IsEncrypted)
            {
                open = Path.Combine(Path.GetTempPath(), $"meadow-{Guid.NewGuid():N}.dump");
                await Gpg(
                    ["--decrypt", "--output", open, file],
                    key ?? throw new InvalidInputException("--key", "the backup is encrypted: name the file of its key"),
                    file,
                    cancel
                );
            }
            await Run("pg_restore", ["--exit-on-error", "--single-transaction", "--no-owner", .. Target(), open ?? file], cancel);
        }
        finally
        {
            if (open is not null)
                File.Delete(open);
        }
        await using (NpgsqlConnection connection = await database.Source.OpenConnectionAsync(cancel))
        {
            await using NpgsqlTransaction moment = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
            IReadOnlyDictionary<string, TableCount> rows = await Count(connection, moment);
            string[] other = [.. manifest.Rows.Where(r => rows.GetValueOrDefault(r.Key) != r.Value).Select(r => r.Key)];
            if (other.Length > 0)
                throw new InvalidInputException("FOLDER", $"these tables do not hold what they held: {string.Join(", ", other)}");
        }
        database.Migrate();
        return manifest;
    }

    /// <summary>Removes the oldest backups of a folder beyond a number.</summary>
    /// <returns>How many were removed.</returns>
    public static int Prune(string folder, int kept)
    {
        string[] all = [.. All(folder)];
        foreach (string old in all.Take(Math.Max(0, all.Length - kept)))
            Directory.Delete(old, recursive: true);
        return Math.Max(0, all.Length - kept);
    }

    /// <summary>When the latest backup of a folder was made; null for none.</summary>
    public static DateTimeOffset? LatestAt(string folder) =>
        All(folder).LastOrDefault() is { } last
        && DateTimeOffset.TryParseExact(
            Path.GetFileName(last)[Prefix.Length..],
            "yyyyMMdd'T'HHmmss'Z'",
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal,
            out DateTimeOffset at
        )
            ? at
            : null;

    private static string? Latest(string folder) => File.Exists(Path.Combine(folder, Manifest)) ? folder : All(folder).LastOrDefault();

    private static IEnumerable<string> All(string folder) =>
        Directory.Exists(folder)
            ? Directory.EnumerateDirectories(folder, Prefix + "*").Where(d => File.Exists(Path.Combine(d, Manifest))).Order(StringComparer.Ordinal)
            : [];

    private static int Migrations(IReadOnlyDictionary<string, TableCount> rows) => (int)(rows.GetValueOrDefault("public.schemaversions")?.Rows ?? 0);

    // A hash of each row, summed: the same however the rows lie.
    private static async Task<IReadOnlyDictionary<string, TableCount>> Count(NpgsqlConnection connection, NpgsqlTransaction moment)
    {
        var counts = new SortedDictionary<string, TableCount>(StringComparer.Ordinal);
        IEnumerable<(string Schema, string Name)> tables = await connection.QueryAsync<(string, string)>(
            "select schemaname, tablename from pg_tables where schemaname in ('public', 'hangfire') order by 1, 2",
            transaction: moment
        );
        foreach ((string schema, string table) in tables)
        {
            (long rows, string hash) = await connection.QuerySingleAsync<(long, string)>(
                $"select count(*), coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text from \"{schema}\".\"{table}\" t",
                transaction: moment,
                commandTimeout: 600
            );
            counts[$"{schema}.{table}"] = new TableCount(rows, hash);
        }
        return counts;
    }

    private static async Task<string> Hash(string file, CancellationToken cancel)
    {
        await using FileStream stream = File.OpenRead(file);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(stream, cancel));
    }

    private IEnumerable<string> Target()
    {
        var c = new NpgsqlConnectionStringBuilder(database.ConnectionString);
        return [$"--host={c.Host}", $"--port={c.Port}", $"--username={c.Username}", $"--dbname={c.Database}", "--no-password"];
    }

    private async Task Run(string program, IReadOnlyList<string> arguments, CancellationToken cancel)
    {
        string? password = new NpgsqlConnectionStringBuilder(database.ConnectionString).Password;
        await Start(Path.Combine(tools, program), arguments, ("PGPASSWORD", password ?? string.Empty), cancel);
    }

    // Encrypts or decrypts by GnuPG, in a home of its own; what lay open is removed.
    private static async Task<string> Gpg(IReadOnlyList<string> arguments, string key, string from, CancellationToken cancel)
    {
        if (!File.Exists(key))
            throw new InvalidInputException("--key", $"there is no file \"{key}\"");
        DirectoryInfo home = Directory.CreateTempSubdirectory("meadow-gpg-");
        try
        {
            await Start(
                "gpg",
                ["--batch", "--yes", "--quiet", "--pinentry-mode", "loopback", "--passphrase-file", key, .. arguments],
                ("GNUPGHOME", home.FullName),
                cancel
            );
            if (arguments[0] == "--symmetric")
                File.Delete(from);
            return from;
        }
        finally
        {
            // The agent that GnuPG starts for it ends with its home.
            await Start("gpgconf", ["--kill", "gpg-agent"], ("GNUPGHOME", home.FullName), CancellationToken.None);
            home.Delete(recursive: true);
        }
    }

    private static async Task Start(string program, IEnumerable<string> arguments, (string Name, string Value) setting, CancellationToken cancel)
    {
        var start = new ProcessStartInfo(program, arguments) { UseShellExecute = false, RedirectStandardError = true };
        start.Environment[setting.Name] = setting.Value;
        Process process;
        try
        {
            process = Process.Start(start)!;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            throw new InvalidInputException(Path.GetFileName(program), "is not installed; ./meadow installs it");
        }
        using (process)
        {
            Task<string> said = process.StandardError.ReadToEndAsync(cancel);
            try
            {
                await process.WaitForExitAsync(cancel);
            }
            catch (OperationCanceledException)
            {
                process.Kill();
                throw;
            }
            if (process.ExitCode != 0)
                throw new InvalidInputException(Path.GetFileName(program), $"failed: {(await said).Trim()}");
        }
    }
}
