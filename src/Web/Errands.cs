using System.CommandLine;
using System.CommandLine.Parsing;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Crew;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web;

/// <summary>
/// What the command line asks of the site's database without serving pages: bring in a plan, a log or a station's
/// weather, and write the plan out. It uses the same readers as the pages.
/// </summary>
public static class Errands
{
    private static readonly RootCommand Root = Commands();

    /// <summary>True for a word that is an errand.</summary>
    public static bool Knows(string word) => Root.Subcommands.Any(c => c.Name == word);

    /// <summary>Runs one errand. Exit 0 when done, 2 when the input was wrong; nothing is half-written.</summary>
    public static async Task<int> Run(string[] args)
    {
        ParseResult parsed = Root.Parse(args);
        if (parsed.Errors.Count > 0)
        {
            foreach (ParseError error in parsed.Errors)
                await Console.Error.WriteLineAsync(error.Message);
            return 2;
        }
        try
        {
            return await parsed.InvokeAsync(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
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

    private static RootCommand Commands()
    {
        var root = new RootCommand("Does one errand on the site's database without serving pages.");
        root.Add(OnFile("write-schema", "writes the schema of plan files", file => File.WriteAllTextAsync(file, PlanFile.Schema())));
        root.Add(
            OnWhole("is-empty", "exit 0 where no plan is there yet", async at =>
                (await at.Database.Sites()).Count == 1 && (await at.Plans.Load()).Areas.Count == 0 ? 0 : 1
            )
        );
        root.Add(OnWhole("add-starter", "adds the palette and the recipes that ship with the app, where the palette is empty", async at =>
            {
                LoadedPlan now = await at.Plans.Now();
                if (now.Plan.Palette.Count > 0)
                    return 0;
                (int plants, int recipes) = await UnrulyMeadow.Web.Site.Starter.Add(now.Plan, now.Versions, new PaletteStore(at.Plans));
                await Say($"{plants} plants and {recipes} recipes to begin with.");
                return 0;
            }));
        root.Add(OnWhole("owner-code", "prints a code that makes the first owner, where there is none yet", async at =>
            {
                if (await new PeopleStore(at.Database).HasOwner())
                    return 1;
                string code = await new PassStore(at.Database).Make(new Pass(PassKind.FirstOwner, null, null, null, null, null));
                await Say(code);
                return 0;
            }));
        root.Add(
            Brings("bring-people", "adds people who sign in with a tap on this machine", async (at, file) =>
                await Say($"{await TappingPeople.Bring(new PeopleStore(at.Database), at.Here.Site, file)} people added.")
            )
        );
        root.Add(OnName("add-site", "adds a site with nothing in it", async name =>
            {
                await using var database = new MeadowDatabase(Connection());
                database.Migrate();
                SiteEntry site = await database.AddSite(name, Ids.From(name, _ => false));
                // Who sees to the installation owns what is added to it, as on the page Sites.
                var people = new PeopleStore(database);
                foreach ((Guid steward, _) in await people.Stewards())
                    await people.Settle(site.Id, steward, SiteRole.Owner);
                await Say($"MEADOW_SITE={site.Slug} names it for what is brought in.");
            }));
        root.Add(Safekeeping("backup", "writes a backup of everything into a folder", async (backup, folder, key) =>
            {
                string own = await backup.Write(folder, key, DateTimeOffset.UtcNow);
                await Say($"Everything is in {own}, and was read back.");
            }));
        root.Add(Safekeeping("restore", "brings a backup back into an empty database", async (backup, folder, key) =>
            {
                BackupManifest back = await backup.Restore(folder, key);
                await Say(
                    (
                        $"Restored what was there on {back.MadeAt.UtcDateTime:d MMM yyyy, HH:mm} UTC: {back.Rows.Values.Sum(r => r.Rows):#,0} rows of "
                        + $"{back.Rows.Count} tables, each counted again."
                    )
                );
            }));
        root.Add(OnWhole("work", "does long work until it is ended, beside processes that serve pages", async at =>
            {
                await Jobs.JobServices.Work(at.Database.ConnectionString);
                return 0;
            }));
        root.Add(OnWhole("repair-text", "puts stored text in order that cannot be shown", async at =>
            {
                foreach (string line in await TextRepair.Mend(at.Database))
                    await Say(line);
                return 0;
            }));
        root.Add(Brings("bring-plan", "puts a plan file in the place of the plan", BringPlan));
        root.Add(Brings("bring-log", "records the observations of a CSV file", async (at, file) =>
            {
                var entries = CsvSheets.ReadLog(file, SystemClock.Instance.GetCurrentInstant().InUtc().Date, long.MaxValue);
                await Say($"{await new LogStore(at.Here).Record(entries)} observations recorded.");
            }));
        root.Add(Brings("bring-supply", "adds suppliers, offers, orders, the holding area, materials and budgets", async (at, file) =>
            {
                SupplyDocument goods = SupplyFile.Read(file);
                await new SupplyStore(at.Here, at.Plans, PlanFile.Stored).Bring(goods);
                await Say($"{goods.Suppliers.Count} suppliers with {goods.Offers.Count} offers, {goods.Orders.Count} orders.");
            }));
        root.Add(Brings("bring-crew", "adds who and what there is to do the work with, and work that was given and told", async (at, file) =>
            {
                CrewDocument crew = CrewFile.Read(file);
                await new CrewStore(at.Here, at.Plans, PlanFile.Stored).Bring(crew);
                await Say($"{crew.Roster?.Teams.Count ?? 0} teams, {crew.Given.Count} tasks.");
            }));
        root.Add(
            Brings("bring-everything", "brings in all that write-everything wrote", async (at, file) =>
                await Say(await All(at).Bring(file, SystemClock.Instance.GetCurrentInstant()))
            )
        );
        root.Add(
            Writes("write-plan", "writes the plan", async (at, file) => await File.WriteAllBytesAsync(file, PlanFile.Write(await at.Plans.Load())))
        );
        root.Add(
            Writes("write-palette", "writes the palette as CSV", async (at, file) =>
                await File.WriteAllBytesAsync(file, PaletteSheet.Write((await at.Plans.Load()).Palette))
            )
        );
        root.Add(Writes("write-log", "writes the log as CSV", async (at, file) =>
            {
                await using FileStream to = File.Create(file);
                await foreach (byte[] piece in CsvSheets.Log(new LogStore(at.Here).All()))
                    await to.WriteAsync(piece);
            }));
        root.Add(Writes("write-everything", "writes plan, log, weather, photographs and variants as one file", async (at, file) =>
            {
                // A file that was there stays until the new one is whole.
                await using (FileStream to = File.Create(file + ".part"))
                    await All(at).Write(to);
                File.Move(file + ".part", file, overwrite: true);
            }));
        root.Add(Weather());
        return root;
    }

    private static async Task BringPlan(Site at, FileStream file)
    {
        var plan = PlanFile.Read(file);
        PlanReplacement lost = await at.Plans.WouldReplace(plan);
        if (!lost.IsHarmless)
            await Say(
                (
                    $"Not in this plan: {lost.Planters.Count} planters with {lost.Photographs} photographs, {lost.Displays} displays, "
                    + $"{lost.Plants} plants, {lost.Lots} lots, {lost.Recipes} recipes. The plan that was there is kept: the Site page brings it back."
                )
            );
        await at.Plans.Replace(plan, PlanFile.Write);
        await Say($"{plan.Site.Name}: {plan.Planters.Count} planters, {plan.Palette.Count} plants, {plan.Displays.Count} displays.");
    }

    private static Command Weather()
    {
        Argument<string> path = FileArgument();
        var units = new Option<string>("--units") { Description = "metric or us", DefaultValueFactory = _ => "metric" };
        units.AcceptOnlyFromAmong("metric", "us");
        var location = new Option<string?>("--location") { Description = "the station's name in a file of several" };
        var leaveOut = new Option<bool>("--leave-out") { Description = "leave out lines that cannot be read" };
        var id = new Option<string?>("--id") { Description = "the station's short name" };
        var name = new Option<string?>("--name") { Description = "its name for people" };
        var latitude = new Option<double?>("--lat") { Description = "degrees north" };
        var longitude = new Option<double?>("--lon") { Description = "degrees east" };
        var elevation = new Option<double?>("--elevation") { Description = "metres above the sea" };
        var command = new Command("bring-weather", "adds a weather file's days to a station")
        {
            path,
            units,
            location,
            leaveOut,
            id,
            name,
            latitude,
            longitude,
            elevation,
        };
        command.SetAction(
            (parsed, _) =>
                Do(async at =>
                {
                    await using FileStream file = Open(parsed.GetValue(path)!);
                    WeatherFileContents contents = WeatherFile.Read(
                        file,
                        parsed.GetValue(units) == "us" ? WeatherUnits.UsCustomary : WeatherUnits.Metric,
                        parsed.GetValue(location),
                        parsed.GetValue(leaveOut)
                    );
                    string known = parsed.GetValue(id)
                        ?? contents.StationId
                        ?? throw new InvalidInputException("--id", "the file names no station; give one");
                    Station? given = contents.Station;
                    var station = new Station(
                        known,
                        parsed.GetValue(name) ?? given?.Name ?? known,
                        parsed.GetValue(latitude)
                            ?? given?.LatitudeDeg
                            ?? throw new InvalidInputException("--lat", "the file does not give the station's latitude"),
                        parsed.GetValue(longitude)
                            ?? given?.LongitudeDeg
                            ?? throw new InvalidInputException("--lon", "the file does not give the station's longitude"),
                        parsed.GetValue(elevation) ?? given?.ElevationM ?? 0
                    );
                    int added = await new WeatherStore(at.Here).Merge(station, contents.Days, SystemClock.Instance.GetCurrentInstant());
                    await Say(
                        (
                            $"{station.Name}: {contents.Days.Count} days read, {added} new; {contents.RefusedCount} "
                            + $"lines refused, {contents.FlaggedValues} flagged values left out."
                        )
                    );
                    foreach (string note in contents.Notes)
                        await Say($"  {note}");
                    foreach (RefusedLine line in contents.Refused)
                        await Say($"  line {line.Line}: {line.Why}");
                    return 0;
                })
        );
        return command;
    }

    private static Argument<string> FileArgument() => new("FILE") { Description = "path of the file" };

    private static Command OnFile(string name, string does, Func<string, Task> work)
    {
        Argument<string> file = FileArgument();
        var command = new Command(name, does) { file };
        command.SetAction(
            async (parsed, _) =>
            {
                await work(parsed.GetValue(file)!);
                return 0;
            }
        );
        return command;
    }

    // Backups are about the whole database, which may be empty or of an older version.
    private static Command Safekeeping(string name, string does, Func<Backup, string, string?, Task> work)
    {
        var folder = new Argument<string>("FOLDER") { Description = "the folder of backups" };
        var key = new Option<string?>("--key") { Description = "a file whose first line is the key that encrypts it" };
        var command = new Command(name, does) { folder, key };
        command.SetAction(
            async (parsed, _) =>
            {
                await using var database = new MeadowDatabase(Connection());
                await work(
                    new Backup(database, Environment.GetEnvironmentVariable("MEADOW_PG_BIN") ?? string.Empty),
                    Path.GetFullPath(parsed.GetValue(folder)!),
                    parsed.GetValue(key)
                );
                return 0;
            }
        );
        return command;
    }

    private static string Connection() =>
        Environment.GetEnvironmentVariable("MEADOW_DB")
        ?? throw new InvalidInputException("MEADOW_DB", "must hold the PostgreSQL connection string; ./meadow sets it");

    private static Command OnName(string name, string does, Func<string, Task> work)
    {
        var given = new Argument<string>("NAME") { Description = "its name" };
        var command = new Command(name, does) { given };
        command.SetAction(
            async (parsed, _) =>
            {
                await work(parsed.GetValue(given)!);
                return 0;
            }
        );
        return command;
    }

    // About the installation, or about its first site: none need be named.
    private static Command OnWhole(string name, string does, Func<Site, Task<int>> work)
    {
        var command = new Command(name, does);
        command.SetAction((_, _) => Do(work, async database => (await database.FirstSite())!));
        return command;
    }

    private static Command Brings(string name, string does, Func<Site, FileStream, Task> work) => OnFile(name, does, path => Do(async at =>
            {
                await using FileStream file = Open(path);
                await work(at, file);
                return 0;
            }));

    private static Command Writes(string name, string does, Func<Site, string, Task> work) => OnFile(name, does, path => Do(async at =>
            {
                await work(at, path);
                return 0;
            }));

    private static Task<int> Do(Func<Site, Task<int>> work) => Do(work, Asked);

    private static async Task<int> Do(Func<Site, Task<int>> work, Func<MeadowDatabase, Task<SiteEntry>> about)
    {
        await using var database = new MeadowDatabase(Connection());
        database.Migrate();
        SiteDatabase here = database.At((await about(database)).Id);
        return await work(new Site(database, here, new PlanStore(here, PlanFile.Stored)));
    }

    // The site that MEADOW_SITE names, or the only one.
    private static async Task<SiteEntry> Asked(MeadowDatabase database)
    {
        IReadOnlyList<SiteEntry> sites = await database.Sites();
        string named = Environment.GetEnvironmentVariable("MEADOW_SITE") ?? string.Empty;
        if (named.Length == 0 && sites is [var only])
            return only;
        return sites.FirstOrDefault(s => s.Slug == named)
            ?? throw new InvalidInputException("MEADOW_SITE", $"must name one of the sites: {string.Join(", ", sites.Select(s => s.Slug))}");
    }

    private static Everything All(Site at) =>
        new(
            at.Plans,
            new LogStore(at.Here),
            new WeatherStore(at.Here),
            new PhotoStore(at.Here),
            new VariantStore(at.Here, PlanFile.Write, PlanFile.Read),
            new SupplyStore(at.Here, at.Plans, PlanFile.Stored),
            new CrewStore(at.Here, at.Plans, PlanFile.Stored)
        );

    private static Task Say(string text) => Console.Out.WriteLineAsync(text);

    private static FileStream Open(string path) =>
        File.Exists(path) ? File.OpenRead(path) : throw new InvalidInputException("FILE", $"there is no file \"{path}\"");

    // The database, the site in it that an errand is about, and its plan.
    private sealed record Site(MeadowDatabase Database, SiteDatabase Here, PlanStore Plans);
}
