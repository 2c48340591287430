using Dapper;
using NodaTime;
using Npgsql;

namespace UnrulyMeadow.Store.People;

/// <summary>People and what they may do where.</summary>
/// <param name="database">The database.</param>
public sealed class PeopleStore(MeadowDatabase database)
{
    private const string Columns = """
        id, name, sign_in, sign_in_key, password_hash, security_stamp, lockout_end, failed_tries, recovery_codes, taps, is_steward, language, units,
        provider_key, left_at
        """;

    /// <summary>Adds a person.</summary>
    /// <returns>False when somebody signs in under that name already.</returns>
    public async Task<bool> Add(Person person)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync(
                """
                insert into person (
                  id, name, sign_in, sign_in_key, password_hash, security_stamp, recovery_codes, taps, is_steward, language, units, provider_key)
                values (
                  @Id, @Name, @SignIn, @SignInKey, @PasswordHash, @SecurityStamp, @RecoveryCodes, @Taps, @IsSteward, @Language, @units, @ProviderKey)
                on conflict do nothing
                """,
                Values(person)
            ) == 1;
    }

    /// <summary>Saves a person.</summary>
    /// <returns>False when they are gone or the name to sign in under is another's.</returns>
    public async Task<bool> Save(Person person)
    {
        await using NpgsqlConnection connection = await database.Open();
        try
        {
            return await connection.ExecuteAsync(
                    """
                    update person
                    set name = @Name, sign_in = @SignIn, sign_in_key = @SignInKey, password_hash = @PasswordHash, security_stamp = @SecurityStamp,
                        lockout_end = @LockoutEnd, failed_tries = @FailedTries, recovery_codes = @RecoveryCodes, taps = @Taps, is_steward = @IsSteward,
                        language = @Language, units = @units, provider_key = @ProviderKey, left_at = @LeftAt
                    where id = @Id
                    """,
                    Values(person)
                ) == 1;
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            return false;
        }
    }

    /// <summary>A person, or null.</summary>
    public Task<Person?> Find(Guid id) => One("id = @id", new { id });

    /// <summary>Who signs in under a name, or null.</summary>
    public Task<Person?> FindBySignIn(string key) => One("sign_in_key = @key", new { key });

    /// <summary>Whom the organisation's own sign-in means, or null.</summary>
    public Task<Person?> FindByProvider(string key) => One("provider_key = @key", new { key });

    /// <summary>Names of people by their ids; those unknown are left out.</summary>
    public async Task<IReadOnlyDictionary<Guid, string>> Names(IEnumerable<Guid> ids)
    {
        await using NpgsqlConnection connection = await database.Open();
        return (
            await connection.QueryAsync<(Guid Id, string Name)>("select id, name from person where id = any(@ids)", new { ids = ids.ToArray() })
        ).ToDictionary(p => p.Id, p => p.Name);
    }

    /// <summary>Those who sign in with a tap, those who may most first.</summary>
    public async Task<IReadOnlyList<SiteMember>> Tapping()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        return
        [
            .. (
                await connection.QueryAsync<MemberRow>(
                    $"""
                    select p.id, p.name, m.role, p.taps, null::timestamptz as seen_at
                    from person p
                    join lateral (select role from membership where person_id = p.id order by {Rank("role")} desc limit 1) m on true
                    where p.taps and p.left_at is null
                    order by {Rank("m.role")} desc, p.name
                    """
                )
            ).Select(r => r.ToMember()),
        ];
    }

    /// <summary>Those who see to the installation, who has done so longest first.</summary>
    public async Task<IReadOnlyList<(Guid Id, string Name)>> Stewards()
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<(Guid, string)>("select id, name from person where is_steward and left_at is null order by made_at, id"),
        ];
    }

    /// <summary>Lets somebody see to the installation, or ends that. Somebody always does.</summary>
    /// <exception cref="Core.InvalidInputException">Nobody would be left who does.</exception>
    public Task SetSteward(Guid person, bool isSteward) =>
        Keeping("update person set is_steward = @isSteward where id = @person and left_at is null", new { person, isSteward });

    /// <summary>
    /// Lets somebody leave for good: they sign in no more, in no way, and belong to no site. What they wrote keeps their name.
    /// </summary>
    /// <exception cref="Core.InvalidInputException">A site would have no owner left, or nobody would see to the installation.</exception>
    public Task Leave(Guid person) =>
        Keeping(
            """
            update person
            set left_at = now(), is_steward = false, taps = false, password_hash = null, recovery_codes = '', provider_key = null,
                sign_in = 'left', sign_in_key = 'left ' || id
            where id = @person and left_at is null;

            delete from passkey where person_id = @person;

            update session set ended_at = now() where person_id = @person and ended_at is null;

            update pass set used_at = now() where person_id = @person and used_at is null;
            """,
            new { person }
        );

    // What would leave a site without an owner, or the installation without anybody who sees to it, is not done.
    private async Task Keeping(string sql, object values)
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        // Two who leave at once do so one after the other.
        await connection.ExecuteAsync("lock table membership in share row exclusive mode", transaction: transaction);
        string[] before = await Unowned();
        await connection.ExecuteAsync(sql, values, transaction);
        string[] ownerless = [.. (await Unowned()).Except(before)];
        if (ownerless.Length > 0)
            throw new Core.InvalidInputException(string.Empty, $"{ownerless[0]} keeps an owner: make somebody else its owner first.");
        if (
            !await connection.ExecuteScalarAsync<bool>(
                "select exists (select from person where is_steward and left_at is null)",
                transaction: transaction
            )
        )
            throw new Core.InvalidInputException(string.Empty, "Somebody sees to the installation: hand that on first, under Sites.");
        await transaction.CommitAsync();

        async Task<string[]> Unowned() =>
            [
                .. await connection.QueryAsync<string>(
                    """
                    select s.name
                    from site s
                    where not exists (
                      select from membership m join person p on p.id = m.person_id where m.site_id = s.id and m.role = 'Owner' and p.left_at is null)
                    order by s.name
                    """,
                    transaction: transaction
                ),
            ];
    }

    /// <summary>True where somebody owns a site.</summary>
    public async Task<bool> HasOwner()
    {
        await using NpgsqlConnection connection = await database.OpenOverAll();
        return await connection.ExecuteScalarAsync<bool>(
            "select exists (select from membership m join person p on p.id = m.person_id where m.role = 'Owner' and p.left_at is null)"
        );
    }

    /// <summary>The people of a site, those who may most first.</summary>
    public async Task<IReadOnlyList<SiteMember>> Of(Guid site)
    {
        await using NpgsqlConnection connection = await database.At(site).Open();
        return
        [
            .. (
                await connection.QueryAsync<MemberRow>(
                    $"""
                    select p.id, p.name, m.role, p.taps, (select max(s.seen_at) from session s where s.person_id = p.id) as seen_at
                    from membership m
                    join person p on p.id = m.person_id
                    where p.left_at is null
                    order by {Rank("m.role")} desc, p.name
                    """
                )
            ).Select(r => r.ToMember()),
        ];
    }

    /// <summary>Settles what a person may do at a site. A site keeps one owner at least.</summary>
    /// <param name="site">The site.</param>
    /// <param name="person">The person.</param>
    /// <param name="role">What they may do; null to take them off the site.</param>
    /// <exception cref="Core.InvalidInputException">The site would have no owner left.</exception>
    public async Task Settle(Guid site, Guid person, SiteRole? role)
    {
        await using NpgsqlConnection connection = await database.At(site).Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        // Two owners who take each other off come one after the other.
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        await connection.ExecuteAsync(
            role is null
                ? "delete from membership where person_id = @person"
                : (
                    "insert into membership (site_id, person_id, role) values (@site, @person, @role) "
                    + "on conflict (site_id, person_id) do update set role = excluded.role"
                ),
            new
            {
                site,
                person,
                role = role?.ToString(),
            },
            transaction
        );
        bool isOwned = await connection.ExecuteScalarAsync<bool>(
            "select exists (select from membership m join person p on p.id = m.person_id where m.role = 'Owner' and p.left_at is null)",
            transaction: transaction
        );
        if (!isOwned)
            throw new Core.InvalidInputException(string.Empty, "A site keeps an owner: make somebody else its owner first.");
        await transaction.CommitAsync();
    }

    private async Task<Person?> One(string which, object of)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<Person>($"select {Columns} from person where {which} and left_at is null", of);
    }

    private static object Values(Person p) =>
        new
        {
            p.Id,
            p.Name,
            p.SignIn,
            p.SignInKey,
            p.PasswordHash,
            p.SecurityStamp,
            p.LockoutEnd,
            p.FailedTries,
            p.RecoveryCodes,
            p.Taps,
            p.IsSteward,
            p.Language,
            units = p.Units?.ToString(),
            p.ProviderKey,
            p.LeftAt,
        };

    private static string Rank(string role) => $"array_position(array['Guest', 'Crew', 'Lead', 'Planner', 'Owner'], {role})";

    private sealed record MemberRow(Guid Id, string Name, string Role, bool Taps, Instant? SeenAt)
    {
        public SiteMember ToMember() => new(Id, Name, Enum.Parse<SiteRole>(Role), Taps, SeenAt);
    }
}
