using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store;

/// <summary>A plan that another has replaced.</summary>
/// <param name="Id">Its id.</param>
/// <param name="What">What it held, in a few words.</param>
/// <param name="ReplacedAt">When.</param>
public sealed record PlanBefore(Guid Id, string What, Instant ReplacedAt);

/// <summary>Plans that were replaced by another that was brought in.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="read">Reads one.</param>
public sealed class PlanHistory(SiteDatabase database, Func<Stream, Plan> read)
{
    // Older ones are dropped; a plan of thousands of planters takes some megabytes.
    private const int Most = 5;

    /// <summary>The plans kept, latest first.</summary>
    public async Task<IReadOnlyList<PlanBefore>> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        return [.. await connection.QueryAsync<PlanBefore>("select id, what, replaced_at from plan_before order by replaced_at desc, id")];
    }

    /// <summary>One of them; null when it is gone.</summary>
    public async Task<Plan?> Load(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        string? text = await connection.QuerySingleOrDefaultAsync<string?>("select plan from plan_before where id = @id", new { id });
        if (text is null)
            return null;
        using var stream = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(text));
        return read(stream);
    }

    internal static Task<int> Keep(PlanEdit edit, Plan plan, byte[] document) =>
        edit.Execute(
            $"""
            insert into plan_before (id, what, plan) values (@id, @what, @text);

            delete from plan_before where id in (select id from plan_before order by replaced_at desc, id offset {Most});
            """,
            new
            {
                id = Guid.NewGuid(),
                what = $"{plan.Site.Name}: {plan.Planters.Count} planters, {plan.Displays.Count} displays",
                text = System.Text.Encoding.UTF8.GetString(document),
            }
        );
}
