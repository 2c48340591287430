using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Store;

/// <summary>A time at which the palette was shared.</summary>
/// <param name="Number">Its number; later ones are higher.</param>
/// <param name="SharedAt">When.</param>
/// <param name="SharedBy">By whom.</param>
/// <param name="FromSite">The site whose palette it was taken from.</param>
public sealed record PaletteSharing(long Number, Instant SharedAt, string SharedBy, string FromSite);

/// <summary>How far a site follows the shared palette.</summary>
/// <param name="SiteId">The site.</param>
/// <param name="Number">The sharing that it has followed.</param>
/// <param name="FollowedAt">When.</param>
/// <param name="Added">Kinds added then.</param>
/// <param name="Changed">Kinds changed then.</param>
/// <param name="Removed">Kinds removed then.</param>
/// <param name="Own">Shared kinds in which the site goes its own way.</param>
/// <param name="More">Kinds that are there alone.</param>
/// <param name="Refused">What could not be taken, and why; empty for nothing.</param>
public sealed record PaletteFollowing(
    Guid SiteId,
    long Number,
    Instant FollowedAt,
    int Added,
    int Changed,
    int Removed,
    int Own,
    int More,
    string Refused
);

/// <summary>The palette that the sites of an installation share.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How plants are written as JSON.</param>
public sealed class SharedPaletteStore(MeadowDatabase database, JsonSerializerOptions json)
{
    private const string Latest = "select number, shared_at, shared_by, from_site from palette_sharing order by number desc limit 1";

    /// <summary>The latest sharing; null where nothing was ever shared.</summary>
    public async Task<PaletteSharing?> LatestSharing()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QueryFirstOrDefaultAsync<PaletteSharing>(Latest);
    }

    /// <summary>The kinds that are shared, by id.</summary>
    public async Task<IReadOnlyDictionary<string, Plant>> Shared()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await Plants(connection, "shared_plant");
    }

    /// <summary>One of them; null where it is not shared.</summary>
    public async Task<Plant?> Shared(string id)
    {
        await using NpgsqlConnection connection = await database.Open();
        string? found = await connection.QuerySingleOrDefaultAsync<string?>("select details::text from shared_plant where id = @id", new { id });
        return found is null ? null : JsonSerializer.Deserialize<Plant>(found, json);
    }

    /// <summary>How far each site follows.</summary>
    public async Task<IReadOnlyList<PaletteFollowing>> Followings()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        return
        [
            .. await connection.QueryAsync<PaletteFollowing>(
                "select site_id, number, followed_at, added, changed, removed, own, more, refused from palette_following"
            ),
        ];
    }

    /// <summary>Shares kinds with all sites, and ends the sharing of others. The sites follow after.</summary>
    /// <param name="share">Kinds to share, new or with new figures.</param>
    /// <param name="end">Ids of kinds that are shared no more.</param>
    /// <param name="expected">The latest sharing that whoever shares has seen; null for none.</param>
    /// <param name="by">Who shares.</param>
    /// <param name="from">The site whose palette it is taken from.</param>
    /// <exception cref="LostUpdateException">Somebody else has shared since.</exception>
    /// <exception cref="InvalidInputException">There is nothing to share.</exception>
    public async Task<PaletteSharing> Share(IReadOnlyList<Plant> share, IReadOnlyList<string> end, long? expected, string by, string from)
    {
        if (share.Count + end.Count == 0)
            throw new InvalidInputException(string.Empty, "Nothing was chosen: tick what all sites should take.");
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("lock table palette_sharing in exclusive mode", transaction: transaction);
        PaletteSharing? latest = await connection.QueryFirstOrDefaultAsync<PaletteSharing>(Latest, transaction: transaction);
        if (latest?.Number != expected)
            throw new LostUpdateException("The shared palette");
        await connection.ExecuteAsync(
            """
            insert into shared_plant (id, details)
            select r.details ->> 'id', r.details from jsonb_array_elements(@rows::jsonb) as r (details)
            on conflict (id) do update set details = excluded.details;

            delete from shared_plant where id = any(@end);
            """,
            new { rows = JsonSerializer.Serialize(share.Select(p => SharedPalette.As(p, null)), json), end = end.ToArray() },
            transaction
        );
        PaletteSharing made = await connection.QuerySingleAsync<PaletteSharing>(
            "insert into palette_sharing (shared_by, from_site) values (@by, @from) returning number, shared_at, shared_by, from_site",
            new { by, from },
            transaction
        );
        await transaction.CommitAsync();
        return made;
    }

    /// <summary>
    /// Lets a site follow what is shared now, through the door of its plan. What would no longer fit where it stands is left as it is
    /// there, and named; what has been followed already is not followed again.
    /// </summary>
    /// <param name="plans">The site's plan.</param>
    /// <param name="usual">The figures that ship with the app, by id: what a site that was never given a kind may hold of it without it being its own.</param>
    /// <param name="cancel">Stops between two tries.</param>
    public async Task Follow(PlanStore plans, Func<string, Plant?> usual, CancellationToken cancel = default)
    {
        // Two processes that follow at one site do so one after the other, and the second finds it done.
        await using NpgsqlConnection turn = await plans.Database.Open();
        await using NpgsqlTransaction held = await turn.BeginTransactionAsync(cancel);
        await turn.ExecuteAsync("select pg_advisory_xact_lock(hashtextextended('shared palette ' || meadow_site(), 0))", transaction: held);
        if (await LatestSharing() is not { } sharing || await FollowedBy(plans.Database) >= sharing.Number)
            return;
        IReadOnlyDictionary<string, Plant> shared = await Shared();
        IReadOnlyDictionary<string, Plant> given;
        await using (NpgsqlConnection connection = await plans.Database.Open())
            given = await Plants(connection, "given_plant");
        LoadedPlan now = await plans.Now();
        SharedPalette follow = SharedPalette.Of(now.Plan.Palette, id => given.GetValueOrDefault(id), usual, [.. shared.Values], Figures);
        HashSet<string> before = [.. now.Plan.Palette.Select(p => p.Id)];
        var refused = new List<string>();
        var done = new List<(string Id, Plant? Becomes)>();
        // Whole at first; where something does not fit, by halves until it stands alone.
        var open = new Stack<List<(string Id, Plant? Becomes)>>();
        open.Push([.. follow.Take.Select(p => (p.Id, (Plant?)p)), .. follow.Remove.Select(id => (id, (Plant?)null))]);
        while (open.TryPop(out List<(string Id, Plant? Becomes)>? part))
        {
            cancel.ThrowIfCancellationRequested();
            if (part.Count == 0)
                continue;
            try
            {
                await Take(plans, now, part);
                done.AddRange(part);
            }
            catch (InvalidInputException e) when (part.Count == 1)
            {
                if (part[0].Becomes is { } plant)
                    refused.Add($"{plant.CommonName}: {e.Message}");
            }
            catch (InvalidInputException)
            {
                open.Push(part[(part.Count / 2)..]);
                open.Push(part[..(part.Count / 2)]);
            }
        }
        HashSet<string> followed = [.. done.Select(d => d.Id)];
        await using NpgsqlConnection site = await plans.Database.Open();
        await site.ExecuteAsync(
            """
            insert into given_plant (id, details)
            select id, details from shared_plant where not id = any(@left)
            on conflict (site_id, id) do update set details = excluded.details where given_plant.details <> excluded.details;

            delete from given_plant g where not exists (select from shared_plant s where s.id = g.id);

            insert into palette_following (number, added, changed, removed, own, more, refused)
            values (@Number, @added, @changed, @removed, @own, @more, @refused)
            on conflict (site_id) do update
            set number = excluded.number, followed_at = now(), added = excluded.added, changed = excluded.changed, removed = excluded.removed,
                own = excluded.own, more = excluded.more, refused = excluded.refused;
            """,
            new
            {
                left = follow.Take.Where(p => !followed.Contains(p.Id)).Select(p => p.Id).ToArray(),
                sharing.Number,
                added = done.Count(d => !before.Contains(d.Id)),
                changed = done.Count(d => before.Contains(d.Id) && d.Becomes is not null),
                removed = done.Count(d => d.Becomes is null),
                own = follow.Own.Count,
                // One that stands somewhere and is shared no more is the site's own from now on.
                more = follow.More.Count + follow.Remove.Count(id => !followed.Contains(id)),
                refused = string.Join('\n', refused.Take(MostSaid))
                    + (refused.Count > MostSaid ? $"\nand {refused.Count - MostSaid} more" : string.Empty),
            }
        );
    }

    private const int MostSaid = 20;

    private static Task Take(PlanStore plans, LoadedPlan read, IReadOnlyList<(string Id, Plant? Becomes)> part) =>
        plans.Write(
            async edit =>
            {
                await edit.Expect("plant", part.Select(p => (p.Id, read.Versions.Plant(p.Id) is > 0 and var v ? v : (long?)null)), id =>
                    $"The plant {id}"
                );
                await edit.Put([.. part.Where(p => p.Becomes is not null).Select(p => p.Becomes!)]);
                await edit.Execute(
                    "delete from plant where id = any(@ids)",
                    new { ids = part.Where(p => p.Becomes is null).Select(p => p.Id).ToArray() }
                );
                return true;
            },
            "the shared palette followed"
        );

    /// <summary>All figures of a plant in one text.</summary>
    public string Figures(Plant plant) => JsonSerializer.Serialize(plant, json);

    private static async Task<long> FollowedBy(SiteDatabase site)
    {
        await using NpgsqlConnection connection = await site.Open();
        return await connection.QuerySingleOrDefaultAsync<long?>("select number from palette_following") ?? 0;
    }

    private async Task<IReadOnlyDictionary<string, Plant>> Plants(NpgsqlConnection connection, string table) =>
        (await connection.QueryAsync<(string Id, string Details)>($"select id, details::text from {table} order by id")).ToDictionary(
            r => r.Id,
            r => JsonSerializer.Deserialize<Plant>(r.Details, json)!,
            StringComparer.Ordinal
        );
}
