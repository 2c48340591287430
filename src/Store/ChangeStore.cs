using System.Text.Json;
using System.Text.Json.Serialization;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

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
    /// <summary>The turn as it was; null where none changes.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Turn? TurnBefore { get; init; }

    /// <summary>That turn as it becomes.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Turn? TurnAfter { get; init; }

    /// <summary>Lots as they were; empty where none changes.</summary>
    public IReadOnlyList<Lot> LotsBefore { get; init; } = [];

    /// <summary>Those lots as they become, and lots that are new.</summary>
    public IReadOnlyList<Lot> LotsAfter { get; init; } = [];

    /// <summary>Displays that change, and nothing else.</summary>
    public static PlanChange Of(IReadOnlyList<Display> before, IReadOnlyList<Display> after) =>
        new(before, after, [], new Dictionary<string, int>(StringComparer.Ordinal));
}

/// <summary>A change that was made.</summary>
/// <param name="Id">Its id.</param>
/// <param name="What">What it did, in a few words.</param>
public sealed record MadeChange(Guid Id, string What);

/// <summary>Makes changes to several displays at once, and takes them back together.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class ChangeStore(PlanStore plans)
{
    /// <summary>Makes changes, all of them or none.</summary>
    /// <returns>The id to take them back by.</returns>
    /// <exception cref="LostUpdateException">A display or the turn is no longer as it was when the change was worked out.</exception>
    /// <exception cref="InvalidInputException">A display is faulty or its layer is filled, or a lot holds too few.</exception>
    public Task<Guid> Make(PlanChange change, string what)
    {
        var faults = new FaultList();
        foreach (Display display in change.After.Concat(change.Added))
            faults.AddAll(string.Empty, display.Faults());
        if (change.TurnAfter is { } turn)
            faults.AddAll(string.Empty, turn.Faults());
        foreach (Lot lot in change.LotsAfter)
            faults.AddAll(string.Empty, lot.Faults());
        faults.ThrowIfAny();
        return plans.Write(async edit =>
        {
            var id = Guid.NewGuid();
            await edit.CheckLater();
            if (Differs(edit.Before.Plan, change.Before, change.TurnBefore, change.LotsBefore) is { } changed)
                throw new LostUpdateException(changed);
            await edit.Expect("lot", change.LotsAfter.Where(l => change.LotsBefore.All(b => b.Id != l.Id)).Select(l => (l.Id, (long?)null)), l =>
                $"The lot {l}"
            );
            await edit.Expect("display", change.Added.Select(d => (d.Id, (long?)null)), d => $"The display {d}");
            await edit.Put([.. change.After, .. change.Added]);
            await edit.Put(change.TurnAfter is null ? Array.Empty<Turn>() : [change.TurnAfter]);
            await edit.Put(change.LotsAfter);
            foreach ((string lot, int count) in change.Used)
            {
                if (await edit.Execute("update lot set count = count - @count where id = @lot and count >= @count", new { lot, count }) == 0)
                    throw new InvalidInputException("stock", $"the lot \"{lot}\" no longer holds {count}: look at the stock, and ask again");
            }
            await edit.Execute(
                "insert into plan_change (id, what, details) values (@id, @what, @details::jsonb)",
                new
                {
                    id,
                    what = PlainText.Cut(what, DisplayStore.MostSaid),
                    details = JsonSerializer.Serialize(change, plans.Json),
                }
            );
            await edit.CheckNow();
            return id;
        });
    }

    /// <summary>The last change that can still be taken back, made within two days; null for none.</summary>
    public async Task<MadeChange?> Last()
    {
        await using NpgsqlConnection connection = await plans.Database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<MadeChange>(
            "select id, what from plan_change where undone_at is null and made_at > now() - interval '2 days' order by made_at desc limit 1"
        );
    }

    /// <summary>Takes changes back together.</summary>
    /// <exception cref="InvalidInputException">There is nothing to take back, or someone has changed one of the displays or the turn since.</exception>
    public Task<string> Undo(Guid id) =>
        plans.Write(async edit =>
        {
            var row = (
                await edit.Query<(string What, string Details)?>(
                    "select what, details::text from plan_change where id = @id and undone_at is null for update",
                    new { id }
                )
            ).SingleOrDefault() ?? throw new InvalidInputException(string.Empty, "There is no such change left to take back.");
            PlanChange change = JsonSerializer.Deserialize<PlanChange>(row.Details, plans.Json)!;
            if (Differs(edit.Before.Plan, [.. change.After, .. change.Added], change.TurnAfter, change.LotsAfter) is { } changed)
                throw new InvalidInputException(
                    string.Empty,
                    $"Someone has changed {char.ToLowerInvariant(changed[0])}{changed[1..]} since: look at it as it is now, and change it there."
                );
            await edit.CheckLater();
            await edit.Execute("delete from display where id = any(@ids)", new { ids = change.Added.Select(d => d.Id).ToArray() });
            await edit.Put(change.Before);
            await edit.Put(change.TurnBefore is null ? Array.Empty<Turn>() : [change.TurnBefore]);
            await edit.Put(change.LotsBefore);
            await edit.Execute(
                "delete from lot where id = any(@ids)",
                new { ids = change.LotsAfter.Select(l => l.Id).Except(change.LotsBefore.Select(l => l.Id), StringComparer.Ordinal).ToArray() }
            );
            foreach ((string lot, int count) in change.Used)
                await edit.Execute("update lot set count = count + @count where id = @lot", new { lot, count });
            await edit.Execute("update plan_change set undone_at = now() where id = @id", new { id });
            await edit.CheckNow();
            return row.What;
        });

    // The first of them that the plan holds otherwise; the plan was read under the lock under which it is changed.
    private string? Differs(Plan now, IReadOnlyList<Display> displays, Turn? turn, IReadOnlyList<Lot> lots)
    {
        var present = now.Displays.ToDictionary(d => d.Id, StringComparer.Ordinal);
        foreach (Display display in displays)
        {
            if (!present.TryGetValue(display.Id, out Display? standing) || Text(standing) != Text(display))
                return $"The display {display.Id}";
        }
        if (lots.FirstOrDefault(l => now.Lots.FirstOrDefault(n => n.Id == l.Id) != l) is { } other)
            return $"The lot {other.Id}";
        return turn is not null && now.Turns.FirstOrDefault(t => t.Id == turn.Id) != turn ? $"The turn {turn.Name}" : null;
    }

    private string Text(Display display) => JsonSerializer.Serialize(display, plans.Json);
}
