using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes displays and turns.</summary>
/// <param name="plans">The door to the plan.</param>
public sealed class DisplayStore(PlanStore plans)
{
    // Enough for the words of any change; what is longer is cut.
    internal const int MostSaid = 200;

    /// <summary>Writes a display with its plants, whole or not at all.</summary>
    /// <param name="display">The display.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <param name="before">What it was at that version, to be able to go back; null for no way back.</param>
    /// <param name="what">What the change did, in a few words.</param>
    /// <exception cref="InvalidInputException">It is faulty, or another display fills the layer in part of that time.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public Task Save(Display display, long? version, Display? before = null, string what = "changed")
    {
        Throw(display.Faults());
        return plans.Write(async edit =>
        {
            await edit.Expect("display", [(display.Id, version)], _ => "This display");
            await edit.Put([display]);
            if (version is not null && before is not null)
            {
                await edit.Execute(
                    """
                    insert into display_before (display_id, version, details, what)
                    select id, version, @details::jsonb, @what from display where id = @Id
                    on conflict (display_id) do update set version = excluded.version, details = excluded.details, what = excluded.what
                    """,
                    new
                    {
                        display.Id,
                        details = JsonSerializer.Serialize(before, plans.Json),
                        what = PlainText.Cut(what, MostSaid),
                    }
                );
            }
            return true;
        });
    }

    /// <summary>Adds displays, all of them or none.</summary>
    /// <exception cref="InvalidInputException">One is faulty, or its layer is filled in part of that time.</exception>
    public Task AddAll(IReadOnlyList<Display> displays)
    {
        foreach (Display display in displays)
            Throw(display.Faults());
        return plans.Write(async edit =>
        {
            await edit.Expect("display", displays.Select(d => (d.Id, (long?)null)), _ => "This display");
            await edit.Put(displays);
            return true;
        });
    }

    /// <summary>What the last change to a display did, while nothing has come after it; null when there is nothing to take back.</summary>
    public async Task<string?> CanUndo(string id)
    {
        await using NpgsqlConnection connection = await plans.Database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<string?>(
            "select b.what from display_before b join display d on d.id = b.display_id and d.version = b.version where b.display_id = @id",
            new { id }
        );
    }

    /// <summary>Changes of a planter's displays that can be taken back, by display.</summary>
    public async Task<IReadOnlyDictionary<string, string>> UndoableOf(string planterId)
    {
        await using NpgsqlConnection connection = await plans.Database.Source.OpenConnectionAsync();
        var rows = await connection.QueryAsync<(string Id, string What)>(
            """
            select d.id, b.what
            from display_before b
            join display d on d.id = b.display_id and d.version = b.version
            where d.planter_id = @planterId
            """,
            new { planterId }
        );
        return rows.ToDictionary(r => r.Id, r => r.What, StringComparer.Ordinal);
    }

    /// <summary>Takes the last change to a display back.</summary>
    /// <returns>The display as it is again.</returns>
    /// <exception cref="InvalidInputException">There is nothing to take back, or someone has changed it since.</exception>
    public Task<Display> Undo(string id) =>
        plans.Write(async edit =>
        {
            BeforeRow? row = (
                await edit.Query<BeforeRow>(
                    """
                    select b.version, b.details::text as details, d.version as present
                    from display d
                    left join display_before b on b.display_id = d.id
                    where d.id = @id
                    """,
                    new { id }
                )
            ).SingleOrDefault();
            if (row?.Details is null)
                throw new InvalidInputException(string.Empty, "There is no change left to take back.");
            if (row.Version != row.Present)
                throw new InvalidInputException(
                    string.Empty,
                    "Someone has changed this display since: look at it as it is now, and change it there."
                );
            Display before = JsonSerializer.Deserialize<Display>(row.Details, plans.Json)!;
            await edit.Put([before]);
            await edit.Execute("delete from display_before where display_id = @id", new { id });
            return before;
        });

    /// <summary>Removes a display.</summary>
    /// <exception cref="LostUpdateException">Someone changed or removed it in between.</exception>
    public Task Remove(string id, long version) =>
        plans.Write(async edit =>
        {
            await edit.Remove("display", id, version, "This display");
            return true;
        });

    /// <summary>Adds or changes a turn.</summary>
    /// <param name="turn">The turn.</param>
    /// <param name="version">The version it was read at; null for a new one.</param>
    public Task SaveTurn(Turn turn, long? version)
    {
        Throw(turn.Faults());
        return plans.Write(async edit =>
        {
            await edit.Expect("turn", [(turn.Id, version)], _ => $"The turn {turn.Name}");
            await edit.Put([turn]);
            return true;
        });
    }

    private static void Throw(IReadOnlyList<Fault> faults)
    {
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
    }

    private sealed record BeforeRow(long? Version, string? Details, long Present);
}
