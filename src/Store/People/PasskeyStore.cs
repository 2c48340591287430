using Dapper;
using Npgsql;

namespace UnrulyMeadow.Store.People;

/// <summary>A passkey as it is kept.</summary>
/// <param name="Id">Its credential's identity.</param>
/// <param name="PersonId">Whose it is.</param>
/// <param name="Name">What its owner calls it.</param>
/// <param name="Details">The rest, JSON.</param>
public sealed record KeptPasskey(byte[] Id, Guid PersonId, string Name, string Details);

/// <summary>Passkeys of people.</summary>
/// <param name="database">The database.</param>
public sealed class PasskeyStore(MeadowDatabase database)
{
    private const string Columns = "id, person_id, name, details::text";

    /// <summary>Adds a passkey, or saves the one of the same credential where it is the same person's.</summary>
    public async Task Put(KeptPasskey key)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            """
            insert into passkey (id, person_id, name, details) values (@Id, @PersonId, @Name, @Details::jsonb)
            on conflict (id) do update set name = excluded.name, details = excluded.details where passkey.person_id = excluded.person_id
            """,
            key
        );
    }

    /// <summary>A person's passkeys.</summary>
    public async Task<IReadOnlyList<KeptPasskey>> Of(Guid person)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<KeptPasskey>(
                $"select {Columns} from passkey where person_id = @person order by made_at, id",
                new { person }
            ),
        ];
    }

    /// <summary>The passkey of a credential, or null.</summary>
    public async Task<KeptPasskey?> Find(byte[] id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<KeptPasskey>($"select {Columns} from passkey where id = @id", new { id });
    }

    /// <summary>Takes a passkey away.</summary>
    public async Task Remove(Guid person, byte[] id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from passkey where id = @id and person_id = @person", new { person, id });
    }
}
