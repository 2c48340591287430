using System.Security.Cryptography;
using System.Text;
using Dapper;
using NodaTime;
using Npgsql;

namespace UnrulyMeadow.Store.People;

/// <summary>What a code is good for.</summary>
public enum PassKind
{
    /// <summary>Joins a site.</summary>
    Invitation,

    /// <summary>Signs a person's phone in.</summary>
    Phone,

    /// <summary>Makes the first owner of an installation that has none.</summary>
    FirstOwner,

    /// <summary>Reads a calendar, again and again until it is withdrawn.</summary>
    Calendar,
}

/// <summary>A code that is good once.</summary>
/// <param name="Kind">For what.</param>
/// <param name="SiteId">The site that it lets join.</param>
/// <param name="PersonId">Whose phone it signs in.</param>
/// <param name="Role">What they may do there.</param>
/// <param name="MadeBy">Who made it.</param>
/// <param name="GoodUntil">Until when; null for ever.</param>
public sealed record Pass(PassKind Kind, Guid? SiteId, Guid? PersonId, SiteRole? Role, Guid? MadeBy, Instant? GoodUntil);

/// <summary>Codes that are good once and for a while. The code itself is told once and only its hash is kept.</summary>
/// <param name="database">The database.</param>
public sealed class PassStore(MeadowDatabase database)
{
    private const int CodeBytes = 20;
    private const string Letters = "23456789abcdefghjkmnpqrstuvwxyz";

    /// <summary>Makes one.</summary>
    /// <returns>The code.</returns>
    public async Task<string> Make(Pass pass)
    {
        string code = Code();
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            """
            delete from pass where good_until < now() - interval '30 days' or (@kind = 'FirstOwner' and kind = 'FirstOwner');

            insert into pass (code_hash, kind, site_id, person_id, role, made_by, good_until)
            values (@hash, @kind, @SiteId, @PersonId, @role, @MadeBy, @GoodUntil);
            """,
            new
            {
                hash = Hash(code),
                kind = pass.Kind.ToString(),
                pass.SiteId,
                pass.PersonId,
                role = pass.Role?.ToString(),
                pass.MadeBy,
                pass.GoodUntil,
            }
        );
        return code;
    }

    /// <summary>What a code is good for now; null where it is not good.</summary>
    public async Task<Pass?> Look(PassKind kind, string code)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QuerySingleOrDefaultAsync<Row>(
                "select kind, site_id, person_id, role, made_by, good_until from pass where code_hash = @hash and kind = @kind and used_at is null and (good_until is null or good_until > now())",
                new { hash = Hash(code), kind = kind.ToString() }
            )
        )?.ToPass();
    }

    /// <summary>Takes a code: of several who try at once one has it. Null where it is not good.</summary>
    public async Task<Pass?> Take(PassKind kind, string code)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QuerySingleOrDefaultAsync<Row>(
                """
                update pass set used_at = now()
                where code_hash = @hash and kind = @kind and used_at is null and (good_until is null or good_until > now())
                returning kind, site_id, person_id, role, made_by, good_until
                """,
                new { hash = Hash(code), kind = kind.ToString() }
            )
        )?.ToPass();
    }

    /// <summary>Makes every open invitation to a site worthless.</summary>
    /// <returns>How many there were.</returns>
    public async Task<int> CallOff(Guid site)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync("delete from pass where site_id = @site and kind = 'Invitation' and used_at is null", new { site });
    }

    /// <summary>Open invitations to a site: for what, and until when.</summary>
    public async Task<IReadOnlyList<Pass>> Open(Guid site)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<Row>(
                    """
                    select kind, site_id, person_id, role, made_by, good_until
                    from pass
                    where site_id = @site and kind = 'Invitation' and used_at is null and good_until > now()
                    order by good_until
                    """,
                    new { site }
                )
            ).Select(r => r.ToPass()),
        ];
    }

    /// <summary>Makes every calendar of a person, or those of a site as a whole, worthless.</summary>
    /// <returns>How many there were.</returns>
    public async Task<int> WithdrawCalendars(Guid site, Guid? person)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync(
            "delete from pass where kind = 'Calendar' and site_id = @site and person_id is not distinct from @person",
            new { site, person }
        );
    }

    /// <summary>True where a calendar of a person, or of a site as a whole, can be read.</summary>
    public async Task<bool> HasCalendar(Guid site, Guid? person)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteScalarAsync<bool>(
            "select exists (select from pass where kind = 'Calendar' and site_id = @site and person_id is not distinct from @person)",
            new { site, person }
        );
    }

    // Twenty letters of thirty-one: 99 bits, and none that is read for another.
    private static string Code() => RandomNumberGenerator.GetString(Letters, CodeBytes);

    private static byte[] Hash(string code) => SHA256.HashData(Encoding.UTF8.GetBytes(code.Trim().ToLowerInvariant()));

    private sealed record Row(string Kind, Guid? SiteId, Guid? PersonId, string? Role, Guid? MadeBy, Instant? GoodUntil)
    {
        public Pass ToPass() =>
            new(Enum.Parse<PassKind>(Kind), SiteId, PersonId, Role is null ? null : Enum.Parse<SiteRole>(Role), MadeBy, GoodUntil);
    }
}
