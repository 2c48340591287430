using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Store;

/// <summary>Reads the plan whole, and is the one door through which it is changed.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="json">How plants and their like are written as JSON.</param>
/// <param name="who">Who changes it now, as the app knows people; null for nobody.</param>
public sealed class PlanStore(SiteDatabase database, JsonSerializerOptions json, Func<string>? who = null)
{
    private const int MostTries = 6;

    private volatile LoadedPlan? _latest;

    internal SiteDatabase Database => database;

    internal JsonSerializerOptions Json => json;

    /// <summary>Where plan and weather stand now.</summary>
    public async Task<PlanMark> Mark()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await PlanReader.Mark(connection, null);
    }

    /// <summary>The plan of now.</summary>
    public async Task<Plan> Load() => (await Now()).Plan;

    /// <summary>The plan as of one moment, with its versions. What was read or written here last is taken while it stands.</summary>
    public async Task<LoadedPlan> Now()
    {
        // Taken before the moment that is read, so that it can only be older.
        LoadedPlan? latest = _latest;
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead);
        if (latest is not null && latest.Mark == await PlanReader.Mark(connection, transaction))
            return latest;
        LoadedPlan loaded = await PlanReader.Load(connection, transaction, json, latest);
        _latest = loaded;
        return loaded;
    }

    /// <summary>
    /// Makes one change of the plan, whole or not at all. The plan as it would be is loaded before the change is kept, by the
    /// rules by which every page loads it; a change after which something would no longer fit is refused.
    /// </summary>
    /// <param name="work">Writes; it may be asked again when the database could not follow.</param>
    /// <param name="what">What the change does, in a few words; null to name the parts that it touches.</param>
    /// <exception cref="InvalidInputException">The change breaks a rule, or something would no longer fit.</exception>
    /// <exception cref="LostUpdateException">Something was changed in between.</exception>
    internal Task<T> Write<T>(Func<PlanEdit, Task<T>> work, string? what = null) =>
        Trying(
            async (connection, transaction) =>
            {
                (T result, LoadedPlan after) = await Change(connection, transaction, work, what);
                await transaction.CommitAsync();
                _latest = after;
                return result;
            }
        );

    /// <summary>Makes one change of this plan and of another site's, both or neither.</summary>
    /// <param name="other">The other plan.</param>
    /// <param name="here">Writes to this plan; what it answers is handed to the other.</param>
    /// <param name="there">Writes to the other.</param>
    /// <param name="what">What the change does here and there, in a few words.</param>
    /// <exception cref="InvalidInputException">The change breaks a rule, or something would no longer fit.</exception>
    /// <exception cref="LostUpdateException">Something was changed in between.</exception>
    internal Task WriteBoth<T>(
        PlanStore other,
        Func<PlanEdit, Task<T>> here,
        Func<PlanEdit, T, Task> there,
        Func<T, (string Here, string There)> what
    ) =>
        Trying(
            async (connection, transaction) =>
            {
                // Whether the revision was raised already is asked of each site by itself.
                async Task Enter(Guid site) =>
                    await connection.ExecuteAsync(
                        "select set_config('meadow.site', @site, true), set_config('meadow.raised', '', true)",
                        new { site = $"{site}" },
                        transaction
                    );
                // Held in one order, so that two who move something to each other's site do not wait for each other.
                foreach (Guid site in new[] { database.Site, other.Database.Site }.Order())
                {
                    await Enter(site);
                    await Hold(connection, transaction);
                }
                await Enter(database.Site);
                (T handed, LoadedPlan after) = await Change(
                    connection,
                    transaction,
                    async edit =>
                    {
                        T handed = await here(edit);
                        edit.Says(what(handed).Here);
                        return handed;
                    },
                    null
                );
                await Enter(other.Database.Site);
                (_, LoadedPlan otherAfter) = await other.Change(
                    connection,
                    transaction,
                    async edit =>
                    {
                        await there(edit, handed);
                        return true;
                    },
                    what(handed).There
                );
                await transaction.CommitAsync();
                (_latest, other._latest) = (after, otherAfter);
                return true;
            }
        );

    private async Task<T> Trying<T>(Func<NpgsqlConnection, NpgsqlTransaction, Task<T>> work)
    {
        for (int tries = 1; ; tries++)
        {
            try
            {
                await using NpgsqlConnection connection = await database.Open();
                await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
                return await work(connection, transaction);
            }
            catch (PostgresException e)
                when (e.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure && tries < MostTries)
            {
                await Task.Delay(TimeSpan.FromMilliseconds(20 * tries));
            }
        }
    }

    // Whoever changes the plan holds this row first, so that nobody ever waits for two things in two orders.
    private static Task Hold(NpgsqlConnection connection, NpgsqlTransaction transaction) =>
        connection.ExecuteAsync("select from site for update", transaction: transaction);

    private async Task<(T Result, LoadedPlan After)> Change<T>(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        Func<PlanEdit, Task<T>> work,
        string? what
    )
    {
        await Hold(connection, transaction);
        LoadedPlan before =
            _latest is { } known && known.Mark == await PlanReader.Mark(connection, transaction)
                ? known
                : await PlanReader.Load(connection, transaction, json, _latest);
        var edit = new PlanEdit(connection, transaction, before, json);
        T result = await work(edit);
        LoadedPlan after = await PlanReader.Load(connection, transaction, json, before);
        RefuseNew(before.Aside, after.Aside);
        IReadOnlyList<PartChange> parts = PartChange.Between(before.Rows.All(before.Plan), after.Rows.All(after.Plan));
        await ChangeStore.Note(edit, parts, edit.What ?? what ?? Said(parts), who?.Invoke() ?? string.Empty, json);
        return (result, after);
    }

    /// <summary>What a plan would take from the present one if it came in its place.</summary>
    public async Task<PlanReplacement> WouldReplace(Plan plan)
    {
        LoadedPlan now = await Now();
        HashSet<string> kept = [.. plan.Planters.Select(p => p.Id)];
        List<Planter> gone = [.. now.Plan.Planters.Where(p => !kept.Contains(p.Id))];
        await using NpgsqlConnection connection = await database.Open();
        int photographs = await connection.ExecuteScalarAsync<int>(
            "select count(*)::int from planter_photo where planter_id = any(@ids)",
            new { ids = gone.Select(p => p.Id).ToArray() }
        );
        HashSet<string> displays = [.. plan.Displays.Select(d => d.Id)];
        HashSet<string> plants = [.. plan.Palette.Select(p => p.Id)];
        return new PlanReplacement(
            gone,
            photographs,
            now.Plan.Displays.Count(d => !displays.Contains(d.Id)),
            now.Plan.Palette.Count(p => !plants.Contains(p.Id)),
            Missing(now.Plan.Lots, plan.Lots, l => l.Id),
            Missing(now.Plan.Recipes, plan.Recipes, r => r.Id),
            now.Aside.Count
        );
    }

    private static int Missing<T>(IReadOnlyList<T> now, IReadOnlyList<T> then, Func<T, string> id)
    {
        HashSet<string> kept = [.. then.Select(id)];
        return now.Count(x => !kept.Contains(id(x)));
    }

    /// <summary>
    /// Puts a plan in the place of the present one, whole or not at all. What is the same stays untouched, with its versions; the log,
    /// the weather and all photographs stay. The plan that was there is kept and can be brought back.
    /// </summary>
    /// <param name="plan">The plan that comes.</param>
    /// <param name="write">Writes the present one as its interchange document, to be kept; null to keep none.</param>
    public Task Replace(Plan plan, Func<Plan, byte[]>? write = null) =>
        Write(async edit =>
        {
            LoadedPlan now = edit.Before;
            if (write is not null && now.Plan.Planters.Count + now.Plan.Palette.Count > 0)
                await PlanHistory.Keep(edit, now.Plan, write(now.Plan));
            await edit.CheckLater();
            await edit.Put(plan.Site);
            await edit.Put(plan.Areas);
            await edit.Put(Changed(plan.Palette, now.Plan.Palette, p => p.Id));
            await edit.Put(Changed(plan.Planters, now.Plan.Planters, p => p.Id));
            await edit.Execute("delete from display where not id = any(@ids)", new { ids = plan.Displays.Select(d => d.Id).ToArray() });
            await edit.Put(Changed(plan.Displays, now.Plan.Displays, d => d.Id));
            await edit.Execute("delete from lot where not id = any(@ids)", new { ids = plan.Lots.Select(l => l.Id).ToArray() });
            await edit.Put(Changed(plan.Lots, now.Plan.Lots, l => l.Id));
            await edit.Execute("delete from turn where not id = any(@ids)", new { ids = plan.Turns.Select(t => t.Id).ToArray() });
            await edit.Put(Changed(plan.Turns, now.Plan.Turns, t => t.Id));
            await edit.Execute("delete from site_event where not id = any(@ids)", new { ids = plan.Events.Select(e => e.Id).ToArray() });
            await edit.Put(Changed(plan.Events, now.Plan.Events, e => e.Id));
            await edit.Execute("delete from map_feature where not id = any(@ids)", new { ids = plan.Map.Select(f => f.Id).ToArray() });
            await edit.Put(Changed(plan.Map, now.Plan.Map, f => f.Id));
            await edit.Execute("delete from recipe where not id = any(@ids)", new { ids = plan.Recipes.Select(r => r.Id).ToArray() });
            await edit.Put(Changed(plan.Recipes, now.Plan.Recipes, r => r.Id));
            await edit.Execute(
                """
                delete from planter where not id = any(@planters);

                delete from area where not id = any(@areas);

                delete from plant where not id = any(@plants);

                update planter set ordinal = r.ordinal - 1
                from unnest(@planters) with ordinality as r (id, ordinal) where planter.id = r.id and planter.ordinal <> r.ordinal - 1;

                update area set ordinal = r.ordinal - 1 from unnest(@areas) with ordinality as r (id, ordinal) where area.id = r.id;
                """,
                new
                {
                    planters = plan.Planters.Select(p => p.Id).ToArray(),
                    areas = plan.Areas.Select(a => a.Id).ToArray(),
                    plants = plan.Palette.Select(p => p.Id).ToArray(),
                }
            );
            await WeatherStore.FollowNearest(edit.Connection, edit.Transaction);
            await edit.CheckNow();
            // Nobody needs to be told one by one of all that went.
            await edit.Execute("delete from plan_removal; update site set removals_from = nextval('edit_version')");
            edit.Says($"a plan brought in: {plan.Site.Name}, {plan.Planters.Count} planters, {plan.Displays.Count} displays", keepsParts: false);
            return true;
        });

    /// <summary>Saves the settings.</summary>
    /// <param name="site">The settings.</param>
    /// <param name="version">The version they were read at.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task SaveSite(Site site, long version)
    {
        IReadOnlyList<Fault> faults = site.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        return Write(async edit =>
        {
            if (edit.Before.Mark.Version != version)
                throw new LostUpdateException("The site's settings");
            await edit.Put(site);
            await WeatherStore.FollowNearest(edit.Connection, edit.Transaction);
            return true;
        });
    }

    /// <summary>Takes a part that was set aside out of the database for good; what it held is in the file that its page offers.</summary>
    /// <exception cref="InvalidInputException">It fits again, or is gone.</exception>
    public Task RemoveAside(string list, string id) =>
        Write(async edit =>
        {
            if (edit.Before.Aside.All(a => a.List != list || a.Id != id) || TableOf(list) is not { } table)
                throw new InvalidInputException(string.Empty, "It is no longer set aside: it was mended or removed.");
            return await edit.Execute($"delete from {table} where id = @id", new { id });
        });

    /// <summary>What is stored of a part that was set aside, as JSON; null when it is gone.</summary>
    public async Task<string?> AsideText(string list, string id)
    {
        if (TableOf(list) is not { } table)
            return null;
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<string?>(
            table == "display"
                ? (
                    "select (to_jsonb(d) || jsonb_build_object('items', (select jsonb_agg(i order by i.ordinal) "
                    + "from display_item i where i.display_id = d.id)))::text from display d where d.id = @id"
                )
                : $"select to_jsonb(t)::text from {table} t where id = @id",
            new { id }
        );
    }

    // A change in words, where whoever made it gave none.
    private static string Said(IReadOnlyList<PartChange> parts)
    {
        string Verb(PartChange p) =>
            p.Before is null ? "added"
            : p.After is null ? "removed"
            : "changed";
        if (parts is [var one])
            return one.List == "site" ? "the settings changed" : $"{NamedPart(one)} {Verb(one)}";
        return string.Join(
            ", ",
            parts
                .GroupBy(p => (p.List, Verb: Verb(p)))
                .Select(g => $"{g.Count()} {(g.Count() == 1 ? Kind(g.Key.List) : Kinds(g.Key.List))} {g.Key.Verb}")
        );
    }

    private static string NamedPart(PartChange part) =>
        (part.After ?? part.Before) switch
        {
            ISubject subject => $"{Kind(part.List)} {subject.Name}",
            Turn turn => $"turn {turn.Name}",
            SiteEvent what => $"event {what.Name}",
            _ => $"{Kind(part.List)} {part.Id}",
        };

    private static string Kind(string list) =>
        list switch
        {
            "palette" => "plant",
            "map" => "part of the map",
            "site" => "settings",
            _ => list[..^1],
        };

    private static string Kinds(string list) =>
        list switch
        {
            "palette" => "plants",
            "map" => "parts of the map",
            "site" => "settings",
            _ => list,
        };

    internal static string? TableOf(string list) =>
        list switch
        {
            "planters" => "planter",
            "palette" => "plant",
            "displays" => "display",
            "turns" => "turn",
            "map" => "map_feature",
            "lots" => "lot",
            "recipes" => "recipe",
            "events" => "site_event",
            "areas" => "area",
            _ => null,
        };

    // What was set aside before does not hold up other work; only what this change would set aside refuses it.
    private static void RefuseNew(IReadOnlyList<SetAside> before, IReadOnlyList<SetAside> after)
    {
        if (after.Count == 0)
            return;
        HashSet<(string, string)> known = [.. before.Select(a => (a.List, a.Id))];
        var faults = new FaultList();
        foreach (SetAside a in after.Where(a => !known.Contains((a.List, a.Id))))
            faults.Add(string.Empty, $"{Named(a)} would no longer fit: {a.Why}. Change that first.");
        faults.ThrowIfAny();
    }

    private static string Named(SetAside a) =>
        a.List switch
        {
            "palette" => $"The plant \"{a.Id}\"",
            "site" => "The site's settings",
            "map" => $"The map's \"{a.Id}\"",
            _ => $"The {a.List[..^1]} \"{a.Id}\"",
        };

    private List<T> Changed<T>(IReadOnlyList<T> wanted, IReadOnlyList<T> present, Func<T, string> id)
        where T : class
    {
        var known = present.ToDictionary(id, StringComparer.Ordinal);
        return
        [
            .. wanted.Where(x => !known.TryGetValue(id(x), out T? now) || JsonSerializer.Serialize(now, json) != JsonSerializer.Serialize(x, json)),
        ];
    }
}

/// <summary>What is lost of the present plan when another comes in its place. It is kept, and can be brought back.</summary>
/// <param name="Planters">Planters that the other does not hold.</param>
/// <param name="Photographs">Photographs of those; they stay stored, and are seen again when the planter comes back.</param>
/// <param name="Displays">Displays that the other does not hold.</param>
/// <param name="Plants">Plants of the palette that it does not hold.</param>
/// <param name="Lots">Lots that it does not hold.</param>
/// <param name="Recipes">Recipes that it does not hold.</param>
/// <param name="Aside">Stored parts that are set aside; these alone cannot be brought back.</param>
public sealed record PlanReplacement(IReadOnlyList<Planter> Planters, int Photographs, int Displays, int Plants, int Lots, int Recipes, int Aside)
{
    /// <summary>True when nothing is lost.</summary>
    public bool IsHarmless => Planters.Count + Displays + Plants + Lots + Recipes + Aside == 0;
}
