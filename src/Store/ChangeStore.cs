using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Store;

/// <summary>Changes to several displays, and to the turn that they belong to, made together.</summary>
/// <param name="Before">Displays as they were when the changes were worked out.</param>
/// <param name="After">Those displays as they become, by the same ids.</param>
/// <param name="Added">Displays that are new.</param>
/// <param name="Used">Plants taken from lots, by lot.</param>
public sealed record PlanChange(
    IReadOnlyList<Display> Before,
    IReadOnlyList<Display> After,
    IReadOnlyList<Display> Added,
    IReadOnlyDictionary<string, int> Used
)
{
    /// <summary>Displays that go, as they were; empty where none does.</summary>
    public IReadOnlyList<Display> Removed { get; init; } = [];

    /// <summary>Turns as they were; empty where none changes.</summary>
    public IReadOnlyList<Turn> TurnsBefore { get; init; } = [];

    /// <summary>Those turns as they become, and turns that are new.</summary>
    public IReadOnlyList<Turn> TurnsAfter { get; init; } = [];

    /// <summary>Lots as they were; empty where none changes.</summary>
    public IReadOnlyList<Lot> LotsBefore { get; init; } = [];

    /// <summary>Those lots as they become, and lots that are new.</summary>
    public IReadOnlyList<Lot> LotsAfter { get; init; } = [];

    /// <summary>Displays that change, and nothing else.</summary>
    public static PlanChange Of(IReadOnlyList<Display> before, IReadOnlyList<Display> after) =>
        new(before, after, [], new Dictionary<string, int>(StringComparer.Ordinal));
}

/// <summary>A change of the plan that was made.</summary>
/// <param name="Id">Its id.</param>
/// <param name="MadeAt">When.</param>
/// <param name="MadeBy">By whom, as the app knows people; empty where nobody knows.</param>
/// <param name="What">What it did, in a few words.</param>
/// <param name="Touches">What it touched, each as list and id.</param>
/// <param name="IsKept">True when what it was is kept, so that it can be taken back.</param>
/// <param name="Undoes">The change that it took back; null for none.</param>
/// <param name="UndoneBy">The change that took it back; null while it stands.</param>
public sealed record MadeChange(
    Guid Id,
    Instant MadeAt,
    string MadeBy,
    string What,
    IReadOnlyList<string> Touches,
    bool IsKept,
    Guid? Undoes,
    Guid? UndoneBy
)
{
    /// <summary>What has come after it and rests on it, so that it cannot be taken back; null for nothing.</summary>
    public MadeChange? Newer { get; init; }

    /// <summary>True when it can be taken back.</summary>
    public bool CanBeUndone => IsKept && UndoneBy is null && Newer is null;

    /// <summary>Changes, latest first, each with what rests on it.</summary>
    internal static IReadOnlyList<MadeChange> WithNewer(IReadOnlyList<MadeChange> latestFirst)
    {
        var place = latestFirst.Select((c, i) => (c.Id, i)).ToDictionary(c => c.Id, c => c.i);
        var touched = new Dictionary<string, List<int>>(StringComparer.Ordinal);
        var seen = new List<MadeChange>();
        for (int i = 0; i < latestFirst.Count; i++)
        {
            MadeChange change = latestFirst[i];
            // What was done and taken back after it is as if it had not been.
            int newer = change
                .Touches.SelectMany(t => touched.GetValueOrDefault(t, []))
                .Where(k =>
                    !(latestFirst[k].UndoneBy is { } by && place.ContainsKey(by))
                    && !(latestFirst[k].Undoes is { } of && place.TryGetValue(of, out int at) && at < i)
                )
                .DefaultIfEmpty(-1)
                .Max();
            seen.Add(newer < 0 ? change : change with { Newer = latestFirst[newer] });
            foreach (string t in change.Touches)
            {
                if (!touched.TryGetValue(t, out List<int>? list))
                    touched[t] = list = [];
                list.Add(i);
            }
        }
        return seen;
    }
}

/// <summary>Makes changes to several parts at once; tells what was changed, and takes changes back.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class ChangeStore(PlanStore plans)
{
    private const string Columns =
        "id, made_at, made_by, what, array_to_string(touches, chr(10)) as touches, parts is not null as is_kept, undoes, undone_by";

    // Changes kept, and the most that one of them may take, characters: a plan that was replaced is kept elsewhere.
    private const int MostKept = 2000;
    private const int MostParts = 4_000_000;

    /// <summary>Makes changes, all of them or none.</summary>
    /// <returns>The id to take them back by.</returns>
    /// <exception cref="LostUpdateException">A display or the turn is no longer as it was when the change was worked out.</exception>
    /// <exception cref="InvalidInputException">A display is faulty or its layer is filled, or a lot holds too few.</exception>
    public Task<Guid> Make(PlanChange change, string what)
    {
        var faults = new FaultList();
        foreach (Display display in change.After.Concat(change.Added))
            faults.AddAll(string.Empty, display.Faults());
        foreach (Turn turn in change.TurnsAfter)
            faults.AddAll(string.Empty, turn.Faults());
        foreach (Lot lot in change.LotsAfter)
            faults.AddAll(string.Empty, lot.Faults());
        faults.ThrowIfAny();
        return plans.Write(
            async edit =>
            {
                await edit.CheckLater();
                if (Differs(edit.Before.Plan, change) is { } changed)
                    throw new LostUpdateException(changed);
                await edit.Expect("lot", change.LotsAfter.Where(l => change.LotsBefore.All(b => b.Id != l.Id)).Select(l => (l.Id, (long?)null)), l =>
                    $"The lot {l}"
                );
                await edit.Expect(
                    "turn",
                    change.TurnsAfter.Where(t => change.TurnsBefore.All(b => b.Id != t.Id)).Select(t => (t.Id, (long?)null)),
                    t => $"The turn {t}"
                );
                await edit.Expect("display", change.Added.Select(d => (d.Id, (long?)null)), d => $"The display {d}");
                if (change.Removed.Count > 0)
                    await edit.Execute("delete from display where id = any(@ids)", new { ids = change.Removed.Select(d => d.Id).ToArray() });
                await edit.Put([.. change.After, .. change.Added]);
                await edit.Put(change.TurnsAfter);
                await edit.Put(change.LotsAfter);
                foreach ((string lot, int count) in change.Used)
                {
                    if (await edit.Execute("update lot set count = count - @count where id = @lot and count >= @count", new { lot, count }) == 0)
                        throw new InvalidInputException("stock", $"the lot \"{lot}\" no longer holds {count}: look at the stock, and ask again");
                }
                await edit.CheckNow();
                return edit.Id;
            },
            what
        );
    }

    /// <summary>The latest changes, latest first, each with whether it can be taken back.</summary>
    /// <param name="most">How many.</param>
    /// <param name="skip">How many to pass over.</param>
    public async Task<IReadOnlyList<MadeChange>> Latest(int most, int skip = 0)
    {
        await using NpgsqlConnection connection = await plans.Database.Open();
        // What rests on a change may have come long after it: all that came later is looked at.
        var all = (
            await connection.QueryAsync<Row>($"select {Columns} from plan_change order by made_at desc, id limit @count", new { count = skip + most })
        ).Select(r => r.ToChange());
        return [.. MadeChange.WithNewer([.. all]).Skip(skip)];
    }

    /// <summary>How many changes are kept.</summary>
    public async Task<int> Count()
    {
        await using NpgsqlConnection connection = await plans.Database.Open();
        return await connection.ExecuteScalarAsync<int>("select count(*)::int from plan_change");
    }

    /// <summary>Before and after of each part that a change touched, as they are written in a plan file; empty when they are not kept.</summary>
    public async Task<IReadOnlyList<(string Key, string? Before, string? After)>> PartsOf(Guid id)
    {
        await using NpgsqlConnection connection = await plans.Database.Open();
        string? parts = await connection.QuerySingleOrDefaultAsync<string?>("select parts from plan_change where id = @id", new { id });
        return parts is null ? [] : [.. Read(parts).Select(p => ($"{p.List}:{p.Id}", p.Before?.ToString(), p.After?.ToString()))];
    }

    /// <summary>The last change that stands, made within two days, when it can be taken back; null for none.</summary>
    public async Task<MadeChange?> Last()
    {
        await using NpgsqlConnection connection = await plans.Database.Open();
        Row? last = await connection.QuerySingleOrDefaultAsync<Row>(
            $"""
            select {Columns}
            from (select * from plan_change where undoes is null and undone_by is null order by made_at desc, id limit 1) as c
            where parts is not null and made_at > now() - interval '2 days'
            """
        );
        return last?.ToChange();
    }

    /// <summary>The last change of each of some displays, where it touched nothing else and can be taken back: its id and what it did.</summary>
    public async Task<IReadOnlyDictionary<string, MadeChange>> LastOf(IEnumerable<string> displays)
    {
        await using NpgsqlConnection connection = await plans.Database.Open();
        var rows = await connection.QueryAsync<Row>(
            $"""
            select {Columns}
            from unnest(@keys) as k (key)
            cross join lateral (select * from plan_change where touches @> array[k.key] order by made_at desc, id limit 1) as c
            where undoes is null and parts is not null and cardinality(touches) = 1
            """,
            new { keys = displays.Select(d => $"displays:{d}").ToArray() }
        );
        return rows.Select(r => r.ToChange()).ToDictionary(c => c.Touches[0]["displays:".Length..], StringComparer.Ordinal);
    }

    /// <summary>Takes the last change of a display back, where it touched nothing else.</summary>
    /// <returns>What the change had done.</returns>
    /// <exception cref="InvalidInputException">There is none, or the display was changed since.</exception>
    public async Task<string> UndoLastOf(string display) =>
        (await LastOf([display])).GetValueOrDefault(display) is { } last
            ? await Undo(last.Id)
            : throw new InvalidInputException(string.Empty, "There is no change of this display alone left to take back. Page Changes lists all.");

    /// <summary>Takes a change back. That is a change of its own, and can be taken back in turn.</summary>
    /// <returns>What the change had done.</returns>
    /// <exception cref="InvalidInputException">
    /// There is nothing to take back, or something that it touched was changed since; it is named.
    /// </exception>
    public Task<string> Undo(Guid id) =>
        plans.Write(async edit =>
        {
            var row = (
                await edit.Query<(string What, string? Parts, Guid? UndoneBy)?>(
                    "select what, parts, undone_by from plan_change where id = @id for update",
                    new { id }
                )
            ).SingleOrDefault();
            if (row is not { UndoneBy: null } change)
                throw new InvalidInputException(string.Empty, "There is no such change left to take back.");
            if (change.Parts is null)
                throw new InvalidInputException(
                    string.Empty,
                    "What was before it is not kept with it. A plan that was replaced comes back on the page Site."
                );
            // What the list of changes says rests on it refuses it, even where all it touched looks again as it left it.
            MadeChange made = MadeChange
                .WithNewer([
                    .. (
                        await edit.Query<Row>(
                            $"select {Columns} from plan_change where made_at >= (select made_at from plan_change where id = @id) order by made_at desc, id",
                            new { id }
                        )
                    ).Select(r => r.ToChange()),
                ])
                .Single(c => c.Id == id);
            if (made.Newer is { } newer)
                throw new InvalidInputException(string.Empty, ChangedSince("What it touched", newer.What));
            StoredPart[] parts = Read(change.Parts);
            PlanParts now = edit.Before.Rows.All(edit.Before.Plan);
            foreach (StoredPart part in parts)
            {
                if (Text(Find(now, part.List, part.Id)) != Text(Part(part.List, part.After)))
                    throw new InvalidInputException(string.Empty, await Changed(edit, id, part));
            }
            await edit.CheckLater();
            await PutBack(edit, parts);
            edit.Says($"taken back: {change.What}", undoes: id);
            await edit.CheckNow();
            return change.What;
        });

    /// <summary>Notes a change with all that it made other than it was.</summary>
    internal static async Task Note(PlanEdit edit, IReadOnlyList<PartChange> parts, string what, string by, JsonSerializerOptions json)
    {
        if (parts.Count == 0)
            return;
        string text = JsonSerializer.Serialize(parts.Select(p => new StoredPart(p.List, p.Id, Element(p.Before), Element(p.After))), json);
        JsonElement? Element(object? part) => part is null ? null : JsonSerializer.SerializeToElement(part, part.GetType(), json);
        await edit.Execute(
            $"""
            insert into plan_change (id, made_by, what, touches, parts, undoes) values (@Id, @by, @what, @touches, @text, @undoes);

            update plan_change set undone_by = @Id where id = @undoes;

            update plan_change set undone_by = null where undone_by = @undoes;

            delete from plan_change where id in (select id from plan_change order by made_at desc, id offset {MostKept});
            """,
            new
            {
                edit.Id,
                by,
                what = PlainText.Cut(what, DisplayStore.MostSaid),
                touches = parts.Select(p => p.Key).ToArray(),
                text = edit.KeepsParts && text.Length <= MostParts ? text : null,
                undoes = edit.Undoes,
            }
        );
    }

    // What was there is put back in the order in which one part names another; what was not there goes in the other.
    private async Task PutBack(PlanEdit edit, StoredPart[] parts)
    {
        string[] Gone(string list) => [.. parts.Where(p => p.List == list && p.Before is null).Select(p => p.Id)];
        T[] Back<T>(string list)
            where T : class => [.. parts.Where(p => p.List == list && p.Before is not null).Select(p => (T)Part(list, p.Before)!)];
        foreach (string list in new[] { "displays", "lots", "recipes", "events", "turns", "map" })
        {
            if (Gone(list) is { Length: > 0 } ids)
                await edit.Execute($"delete from {PlanStore.TableOf(list)} where id = any(@ids)", new { ids });
        }
        if (Back<Site>("site") is [var site])
        {
            await edit.Put(site);
            await WeatherStore.FollowNearest(edit.Connection, edit.Transaction);
        }
        await edit.Put(Back<Area>("areas"));
        await edit.Put(Back<Core.Palette.Plant>("palette"));
        await edit.Put(Back<Planter>("planters"));
        await edit.Put(Back<Display>("displays"));
        await edit.Put(Back<Turn>("turns"));
        await edit.Put(Back<Core.SiteMap.MapFeature>("map"));
        await edit.Put(Back<Lot>("lots"));
        await edit.Put(Back<Recipe>("recipes"));
        await edit.Put(Back<SiteEvent>("events"));
        foreach (string list in new[] { "planters", "areas", "palette" })
        {
            if (Gone(list) is { Length: > 0 } ids)
                await edit.Execute($"delete from {PlanStore.TableOf(list)} where id = any(@ids)", new { ids });
        }
    }

    private static async Task<string> Changed(PlanEdit edit, Guid id, StoredPart part)
    {
        string? newer = (
            await edit.Query<string>(
                """
                select what
                from plan_change
                where touches @> array[@key] and made_at > (select made_at from plan_change where id = @id)
                order by made_at desc
                limit 1
                """,
                new { key = $"{part.List}:{part.Id}", id }
            )
        ).FirstOrDefault();
        string named = part.Id.Length == 0 ? "The settings" : $"\"{part.Id}\"";
        return newer is null
            ? $"{named} is no longer as this change left it. Look at it as it is now, and change it there."
            : ChangedSince(named, newer);
    }

    private static string ChangedSince(string what, string newer) =>
        $"{what} was changed again since ({newer}). Take that back first, or change it there.";

    private static object? Find(PlanParts parts, string list, string id) =>
        list switch
        {
            "site" => parts.Site,
            "areas" => parts.Areas.FirstOrDefault(a => a.Id == id),
            "palette" => parts.Palette.FirstOrDefault(p => p.Id == id),
            "planters" => parts.Planters.FirstOrDefault(p => p.Id == id),
            "displays" => parts.Displays.FirstOrDefault(d => d.Id == id),
            "turns" => parts.Turns.FirstOrDefault(t => t.Id == id),
            "map" => parts.Map.FirstOrDefault(f => f.Id == id),
            "lots" => parts.Lots.FirstOrDefault(l => l.Id == id),
            "recipes" => parts.Recipes.FirstOrDefault(r => r.Id == id),
            "events" => parts.Events.FirstOrDefault(e => e.Id == id),
            _ => null,
        };

    private object? Part(string list, JsonElement? text) =>
        text is not { } part
            ? null
            : list switch
            {
                "site" => part.Deserialize<Site>(plans.Json),
                "areas" => part.Deserialize<Area>(plans.Json),
                "palette" => part.Deserialize<Core.Palette.Plant>(plans.Json),
                "planters" => part.Deserialize<Planter>(plans.Json),
                "displays" => part.Deserialize<Display>(plans.Json),
                "turns" => part.Deserialize<Turn>(plans.Json),
                "map" => part.Deserialize<Core.SiteMap.MapFeature>(plans.Json),
                "lots" => part.Deserialize<Lot>(plans.Json),
                "recipes" => part.Deserialize<Recipe>(plans.Json),
                "events" => part.Deserialize<SiteEvent>(plans.Json),
                _ => throw new JsonException($"nobody knows the list \"{list}\""),
            };

    private StoredPart[] Read(string parts) => JsonSerializer.Deserialize<StoredPart[]>(parts, plans.Json)!;

    // Two parts are the same when they are written alike.
    private string? Text(object? part) => part is null ? null : JsonSerializer.Serialize(part, part.GetType(), plans.Json);

    // The first of a change's displays, lots and turn that the plan holds otherwise; the plan was read under the lock under which it is changed.
    private string? Differs(Plan now, PlanChange change)
    {
        var present = now.Displays.ToDictionary(d => d.Id, StringComparer.Ordinal);
        foreach (Display display in change.Before.Concat(change.Removed))
        {
            if (!present.TryGetValue(display.Id, out Display? standing) || Text(standing) != Text(display))
                return $"The display {display.Id}";
        }
        if (change.LotsBefore.FirstOrDefault(l => now.Lots.FirstOrDefault(n => n.Id == l.Id) != l) is { } other)
            return $"The lot {other.Id}";
        return change.TurnsBefore.FirstOrDefault(t => now.Turns.FirstOrDefault(n => n.Id == t.Id) != t) is { } turn ? $"The turn {turn.Name}" : null;
    }

    private sealed record Row(Guid Id, Instant MadeAt, string MadeBy, string What, string Touches, bool IsKept, Guid? Undoes, Guid? UndoneBy)
    {
        public MadeChange ToChange() => new(Id, MadeAt, MadeBy, What, Touches.Split('\n'), IsKept, Undoes, UndoneBy);
    }

    private sealed record StoredPart(string List, string Id, JsonElement? Before = null, JsonElement? After = null);
}
