using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>
/// What the command line asks of the site's database without serving pages: bring in a plan, a log or a station's
/// weather, and write the plan out. It uses the same readers as the pages.
/// </summary>
public static class Errands
{
    private static readonly string[] Known = ["bring-plan", "bring-weather", "bring-log", "write-plan", "write-palette", "write-log", "write-everything", "bring-everything", "repair-text", "write-schema", "is-empty"];

    /// <summary>True for a word that is an errand.</summary>
    public static bool Knows(string word) => Known.Contains(word, StringComparer.Ordinal);

    /// <summary>Runs one errand. Exit 0 when done, 2 when the input was wrong; nothing is half-written.</summary>
    public static async Task<int> Run(string[] args)
    {
        try
        {
            if (args[0] == "write-schema")
            {
                await File.WriteAllTextAsync(Word(args, 1, "FILE"), PlanFile.Schema());
                return 0;
            }
            string connection = Environment.GetEnvironmentVariable("MEADOW_DB")
                ?? throw new InvalidInputException("MEADOW_DB", "must hold the PostgreSQL connection string; ./meadow sets it");
            await using var database = new MeadowDatabase(connection);
            database.Migrate();
            var plans = new PlanStore(database, PlanFile.Options);
            switch (args[0])
            {
                case "is-empty":
                    return (await plans.Load()).Areas.Count == 0 ? 0 : 1;
                case "bring-plan":
                    await using (FileStream file = Open(args))
                    {
                        var plan = PlanFile.Read(file);
                        PlanReplacement lost = await plans.WouldReplace(plan);
                        if (!lost.IsHarmless)
                            await Say($"Not in this plan: {lost.Planters.Count} planters with {lost.Photographs} photographs, {lost.Displays} displays, {lost.Plants} plants, {lost.Lots} lots, {lost.Recipes} recipes. The plan that was there is kept: the Site page brings it back.");
                        await plans.Replace(plan, PlanFile.Write);
                        await Say($"{plan.Site.Name}: {plan.Planters.Count} planters, {plan.Palette.Count} plants, {plan.Displays.Count} displays.");
                    }
                    return 0;
                case "write-plan":
                    await File.WriteAllBytesAsync(Word(args, 1, "FILE"), PlanFile.Write(await plans.Load()));
                    return 0;
                case "write-palette":
                    await File.WriteAllBytesAsync(Word(args, 1, "FILE"), PaletteSheet.Write((await plans.Load()).Palette));
                    return 0;
                case "bring-log":
                    await using (FileStream file = Open(args))
                    {
                        var entries = CsvSheets.ReadLog(file, SystemClock.Instance.GetCurrentInstant().InUtc().Date, long.MaxValue);
                        await Say($"{await new LogStore(database).Record(entries)} observations recorded.");
                    }
                    return 0;
                case "write-log":
                    await using (FileStream to = File.Create(Word(args, 1, "FILE")))
                    {
                        await foreach (byte[] piece in CsvSheets.Log(new LogStore(database).All()))
                            await to.WriteAsync(piece);
                    }
                    return 0;
                case "write-everything":
                    // A file that was there stays until the new one is whole.
                    string target = Word(args, 1, "FILE");
                    await using (FileStream to = File.Create(target + ".part"))
                        await All(database, plans).Write(to);
                    File.Move(target + ".part", target, overwrite: true);
                    return 0;
                case "bring-everything":
                    await using (FileStream file = Open(args))
                        await Say(await All(database, plans).Bring(file, SystemClock.Instance.GetCurrentInstant()));
                    return 0;
                case "repair-text":
                    foreach (string line in await TextRepair.Mend(database))
                        await Say(line);
                    return 0;
                default:
                    await BringWeather(args, database);
                    return 0;
            }
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                await Console.Error.WriteLineAsync(fault.ToString());
            return 2;
        }
        catch (Exception e) when (FaultPage.IsAway(e))
        {
            await Console.Error.WriteLineAsync($"The database does not answer: {e.Message}");
            return 1;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or LostUpdateException)
        {
            await Console.Error.WriteLineAsync(e.Message);
            return 1;
        }
    }

    private static Everything All(MeadowDatabase database, PlanStore plans) =>
        new(plans, new LogStore(database), new WeatherStore(database), new PhotoStore(database), new VariantStore(database, PlanFile.Write, PlanFile.Read));

    private static async Task BringWeather(string[] args, MeadowDatabase database)
    {
        await using FileStream file = Open(args);
        WeatherFileContents contents = WeatherFile.Read(
            file,
            Option(args, "--units") == "us" ? WeatherUnits.UsCustomary : WeatherUnits.Metric,
            Option(args, "--location"),
            args.Contains("--leave-out", StringComparer.Ordinal));
        string id = Option(args, "--id") ?? contents.StationId ?? throw new InvalidInputException("--id", "the file names no station; give one");
        Station? given = contents.Station;
        var station = new Station(
            id,
            Option(args, "--name") ?? given?.Name ?? id,
            Number(args, "--lat") ?? given?.LatitudeDeg ?? throw new InvalidInputException("--lat", "the file does not give the station's latitude"),
            Number(args, "--lon") ?? given?.LongitudeDeg ?? throw new InvalidInputException("--lon", "the file does not give the station's longitude"),
            Number(args, "--elevation") ?? given?.ElevationM ?? 0);
        int added = await new WeatherStore(database).Merge(station, contents.Days, SystemClock.Instance.GetCurrentInstant());
        await Say($"{station.Name}: {contents.Days.Count} days read, {added} new; {contents.RefusedCount} lines refused, {contents.FlaggedValues} flagged values left out.");
        foreach (string note in contents.Notes)
            await Say($"  {note}");
        foreach (RefusedLine line in contents.Refused)
            await Say($"  line {line.Line}: {line.Why}");
    }

    private static Task Say(string text) => Console.Out.WriteLineAsync(text);

    private static string Word(string[] args, int i, string name) =>
        i < args.Length ? args[i] : throw new InvalidInputException(name, "is missing");

    private static FileStream Open(string[] args)
    {
        string path = Word(args, 1, "FILE");
        return File.Exists(path) ? File.OpenRead(path) : throw new InvalidInputException("FILE", $"there is no file \"{path}\"");
    }

    private static string? Option(string[] args, string name)
    {
        int i = Array.IndexOf(args, name);
        return i >= 0 && i + 1 < args.Length ? args[i + 1] : null;
    }

    private static double? Number(string[] args, string name)
    {
        if (Option(args, name) is not { } text)
            return null;
        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double v)
            ? v
            : throw new InvalidInputException(name, $"\"{text}\" is no number");
    }
}
