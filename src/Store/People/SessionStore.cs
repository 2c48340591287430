using Dapper;
using NodaTime;
using Npgsql;

namespace UnrulyMeadow.Store.People;

/// <summary>Sign-ins that last, and the record of sign-ins.</summary>
/// <param name="database">The database.</param>
public sealed class SessionStore(MeadowDatabase database)
{
    // A session that nobody used for so long is over.
    private const string Lasts = "30 days";

    private const int MostDevice = 200;

    /// <summary>Begins a session.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="device">On what.</param>
    /// <param name="how">How they signed in.</param>
    /// <param name="onlyAt">The only site that it is good at; null for all of theirs.</param>
    public async Task<Guid> Begin(Guid person, string device, string how, Guid? onlyAt = null)
    {
        var id = Guid.NewGuid();
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            """
            delete from session where seen_at < now() - interval '1 year';

            insert into session (id, person_id, site_id, device) values (@id, @person, @onlyAt, @device);

            insert into sign_in_record (id, person_id, what, device) values (@id, @person, @how, @device);
            """,
            new
            {
                id,
                person,
                device = Core.PlainText.Cut(device, MostDevice),
                how,
                onlyAt,
            }
        );
        return id;
    }

    /// <summary>Who a session belongs to, and what they may do where; null when it is over.</summary>
    public async Task<SignedIn?> Find(Guid session)
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        await using SqlMapper.GridReader read = await connection.QueryMultipleAsync(
            $"""
            select p.id, p.name, p.sign_in, p.sign_in_key, p.password_hash, p.security_stamp, p.lockout_end, p.failed_tries, p.recovery_codes, p.taps,
                   p.is_steward, p.language, p.units, p.provider_key, p.left_at
            from session s join person p on p.id = s.person_id
            where s.id = @session and s.ended_at is null and s.seen_at > now() - interval '{Lasts}' and p.left_at is null;

            select m.site_id, t.slug, t.name, m.role
            from session s
            join membership m on m.person_id = s.person_id
            join site t on t.id = m.site_id
            where s.id = @session and (s.site_id is null or s.site_id = m.site_id)
            order by t.name, t.id;

            select site_id is not null, seen_at < now() - interval '1 minute' from session where id = @session;
            """,
            new { session }
        );
        if (await read.ReadSingleOrDefaultAsync<Person>() is not { } person)
            return null;
        IEnumerable<(Guid Site, string Slug, string Name, string Role)> at = await read.ReadAsync<(Guid, string, string, string)>();
        (bool isLent, bool isLongUnseen) = await read.ReadSingleAsync<(bool, bool)>();
        if (isLongUnseen)
            await Seen(session);
        return new SignedIn(person, [.. at.Select(m => new Membership(m.Site, m.Slug, m.Name, Enum.Parse<SiteRole>(m.Role)))], isLent);
    }

    private async Task Seen(Guid session)
    {
        try
        {
            await using NpgsqlConnection connection = await database.Open();
            await connection.ExecuteAsync("update session set seen_at = now() where id = @session and ended_at is null", new { session });
        }
        catch (PostgresException)
        {
            // Whoever only reads reads on, where the database takes nothing at the moment.
        }
    }

    /// <summary>A person's sessions that are not over, the latest used first.</summary>
    public async Task<IReadOnlyList<OpenSession>> Of(Guid person)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<OpenSession>(
                $"""
                select id, device, made_at, seen_at
                from session
                where person_id = @person and ended_at is null and seen_at > now() - interval '{Lasts}'
                order by seen_at desc, id
                """,
                new { person }
            ),
        ];
    }

    /// <summary>Ends a session of a person.</summary>
    public async Task End(Guid person, Guid session)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "update session set ended_at = now() where id = @session and person_id = @person and ended_at is null",
            new { person, session }
        );
    }

    /// <summary>Ends all sessions of a person but one.</summary>
    public async Task EndOthers(Guid person, Guid? kept)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "update session set ended_at = now() where person_id = @person and ended_at is null and id is distinct from @kept",
            new { person, kept }
        );
    }

    /// <summary>Writes down what came of a try to sign in.</summary>
    public async Task Note(Guid? person, string what, string device)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "insert into sign_in_record (id, person_id, what, device) values (@id, @person, @what, @device)",
            new
            {
                id = Guid.CreateVersion7(),
                person,
                what,
                device = Core.PlainText.Cut(device, MostDevice),
            }
        );
    }

    /// <summary>The latest sign-ins of a site's people, and of names that nobody has where the asker sees to the installation.</summary>
    public async Task<IReadOnlyList<SignInRecord>> Latest(Guid site, bool unknownToo, int most)
    {
        await using NpgsqlConnection connection = await database.At(site).Open();
        return
        [
            .. await connection.QueryAsync<SignInRecord>(
                """
                select r.at, p.name, r.what, r.device
                from sign_in_record r
                left join person p on p.id = r.person_id
                where r.person_id in (select person_id from membership) or (@unknownToo and r.person_id is null)
                order by r.at desc, r.id
                limit @most
                """,
                new { unknownToo, most }
            ),
        ];
    }
}
