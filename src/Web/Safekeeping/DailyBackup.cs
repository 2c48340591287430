using System.Globalization;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>
/// Writes a backup each night where a folder is named for it, and keeps so many. Of several processes on one database one does it.
/// </summary>
/// <param name="database">The database.</param>
/// <param name="settings">The settings.</param>
/// <param name="clock">The clock.</param>
/// <param name="log">The log.</param>
public sealed class DailyBackup(MeadowDatabase database, IConfiguration settings, IClock clock, ILogger<DailyBackup> log) : BackgroundService
{
    /// <summary>The setting that names the folder.</summary>
    public const string Setting = "MEADOW_BACKUPS";

    // The number of the lock that whoever writes the backup holds.
    private const long Lock = 0x4D_45_41_44_4F_58;

    private const int UsualHour = 3;
    private const int UsualKept = 14;

    private static readonly TimeSpan Between = TimeSpan.FromMinutes(5);

    /// <inheritdoc />
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings[Setting] is not { Length: > 0 } folder)
            return;
        using var timer = new PeriodicTimer(Between);
        do
        {
            try
            {
                await WriteIfDue(folder, clock.GetCurrentInstant().ToDateTimeOffset(), stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e)
            {
                // The age of the latest backup tells whoever watches; it is tried again.
                log.LogError(e, "The nightly backup was not written.");
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Writes one where the last is of before the latest night hour.</summary>
    /// <returns>True where one was written.</returns>
    public async Task<bool> WriteIfDue(string folder, DateTimeOffset now, CancellationToken cancel)
    {
        DateTimeOffset due = new(now.UtcDateTime.Date.AddHours(Number("MEADOW_BACKUP_HOUR", UsualHour, 0, 23)), TimeSpan.Zero);
        due = due > now ? due.AddDays(-1) : due;
        if (Backup.LatestAt(folder) >= due)
            return false;
        await using NpgsqlConnection turn = await database.Source.OpenConnectionAsync(cancel);
        await using var ask = new NpgsqlCommand("select pg_try_advisory_lock($1)", turn) { Parameters = { new() { Value = Lock } } };
        if (await ask.ExecuteScalarAsync(cancel) is not true)
            return false;
        string own = await new Backup(database, settings["MEADOW_PG_BIN"] ?? string.Empty).Write(folder, settings["MEADOW_BACKUP_KEY"], now, cancel);
        int removed = Backup.Prune(folder, Number("MEADOW_BACKUPS_KEPT", UsualKept, 1, 10_000));
        log.LogInformation("The nightly backup is in {Folder}; {Removed} older ones were removed.", own, removed);
        return true;
    }

    private int Number(string name, int usual, int least, int most) =>
        settings[name] is not { Length: > 0 } text ? usual
        : int.TryParse(text, CultureInfo.InvariantCulture, out int number) && number >= least && number <= most ? number
        : throw new InvalidInputException(name, $"must be a whole number from {least} to {most}");
}
