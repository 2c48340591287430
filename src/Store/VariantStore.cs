using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>A plan kept beside the present one.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
public sealed record PlanVariant(Guid Id, string Name);

/// <summary>Keeps plans to compare with.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="write">Writes a plan as its interchange document.</param>
/// <param name="read">Reads one.</param>
public sealed class VariantStore(SiteDatabase database, Func<Plan, byte[]> write, Func<Stream, Plan> read)
{
    private const int Most = 20;

    /// <summary>All of them, by name.</summary>
    public async Task<IReadOnlyList<PlanVariant>> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        return [.. await connection.QueryAsync<PlanVariant>("select id, name from plan_variant order by name")];
    }

    /// <summary>One of them whole; null when it is gone.</summary>
    public async Task<(string Name, Plan Plan)?> Load(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        var row = await connection.QuerySingleOrDefaultAsync<(string Name, string Plan)?>(
            "select name, plan::text from plan_variant where id = @id",
            new { id }
        );
        if (row is not { } found)
            return null;
        using var stream = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(found.Plan));
        return (found.Name, read(stream));
    }

    /// <summary>One of them as the document that is kept; null when it is gone.</summary>
    public async Task<byte[]?> Document(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<string>("select plan::text from plan_variant where id = @id", new { id }) is { } plan
            ? System.Text.Encoding.UTF8.GetBytes(plan)
            : null;
    }

    /// <summary>Keeps a plan under a name.</summary>
    /// <exception cref="InvalidInputException">The name is empty, too long or taken, or there are too many.</exception>
    public async Task Keep(string name, Plan plan)
    {
        var faults = new FaultList();
        faults.Text("name", name, 60);
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Open();
        if (await connection.ExecuteScalarAsync<int>("select count(*)::int from plan_variant") >= Most)
            throw new InvalidInputException("name", $"{Most} plans are kept already; drop one first");
        if (
            await connection.ExecuteAsync(
                "insert into plan_variant (id, name, plan) values (@id, @name, @plan::jsonb) on conflict (site_id, name) do nothing",
                new
                {
                    id = Guid.NewGuid(),
                    name,
                    plan = System.Text.Encoding.UTF8.GetString(write(plan)),
                }
            ) == 0
        )
            throw new InvalidInputException("name", $"\"{name}\" is already used; choose another");
    }

    /// <summary>Drops one.</summary>
    public async Task Drop(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from plan_variant where id = @id", new { id });
    }
}
