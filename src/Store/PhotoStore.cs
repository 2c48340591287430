using Dapper;
using NodaTime;
using Npgsql;

namespace UnrulyMeadow.Store;

/// <summary>A photograph of a planter, without its bytes.</summary>
/// <param name="Id">Its id.</param>
/// <param name="PlanterId">The planter.</param>
/// <param name="TakenOn">The day.</param>
/// <param name="Caption">Words; may be empty.</param>
/// <param name="Width">Pixels.</param>
/// <param name="Height">Pixels.</param>
public sealed record PlanterPhoto(Guid Id, string PlanterId, LocalDate TakenOn, string Caption, int Width, int Height);

/// <summary>Keeps photographs of planters.</summary>
/// <param name="database">The site's part of the database.</param>
public sealed class PhotoStore(SiteDatabase database)
{
    /// <summary>Most photographs of one planter.</summary>
    public const int MostOfOne = 60;

    private const string NoPlanter = "not exists (select from planter p where p.id = planter_photo.planter_id)";

    /// <summary>A planter's photographs, latest first.</summary>
    public async Task<IReadOnlyList<PlanterPhoto>> Of(string planterId)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<PlanterPhoto>(
                (
                    "select id, planter_id, taken_on, caption, width, height from planter_photo "
                    + "where planter_id = @planterId order by taken_on desc, added_at desc"
                ),
                new { planterId }
            ),
        ];
    }

    /// <summary>A photograph's JPEG, or its small one; null when it is gone.</summary>
    public async Task<byte[]?> Bytes(string planterId, Guid id, bool small)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<byte[]>(
            small
                ? "select thumb from planter_photo where id = @id and planter_id = @planterId"
                : "select jpeg from planter_photo where id = @id and planter_id = @planterId",
            new { id, planterId }
        );
    }

    /// <summary>Adds a photograph, once however often it is sent.</summary>
    /// <exception cref="Core.InvalidInputException">The planter has as many as it may have.</exception>
    public async Task Add(PlanterPhoto photo, byte[] jpeg, byte[] thumb)
    {
        await using NpgsqlConnection connection = await database.Open();
        int added = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into planter_photo (id, planter_id, taken_on, caption, width, height, jpeg, thumb)
                select @Id, @PlanterId, @TakenOn, @Caption, @Width, @Height, @jpeg, @thumb
                where (select count(*) from planter_photo where planter_id = @PlanterId and id <> @Id) < @most
                on conflict do nothing
                """,
                new
                {
                    photo.Id,
                    photo.PlanterId,
                    photo.TakenOn,
                    photo.Caption,
                    photo.Width,
                    photo.Height,
                    jpeg,
                    thumb,
                    most = MostOfOne,
                }
            )
        );
        if (added == 0 && !await connection.ExecuteScalarAsync<bool>("select exists (select from planter_photo where id = @Id)", new { photo.Id }))
            throw new Core.InvalidInputException("photo", $"this planter has {MostOfOne} photographs, the most it may have; remove one first");
    }

    /// <summary>Photographs of planters that the plan no longer holds: how many, of how many planters.</summary>
    public async Task<(int Photographs, int Planters)> WithoutPlanter()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleAsync<(int, int)>(
            $"select count(*)::int, count(distinct planter_id)::int from planter_photo where {NoPlanter}"
        );
    }

    /// <summary>Drops photographs of planters that the plan no longer holds.</summary>
    /// <returns>How many.</returns>
    public async Task<int> DropWithoutPlanter()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.ExecuteAsync($"delete from planter_photo where {NoPlanter}");
    }

    /// <summary>Every photograph, by planter, day and id.</summary>
    public async Task<IReadOnlyList<PlanterPhoto>> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. await connection.QueryAsync<PlanterPhoto>(
                "select id, planter_id, taken_on, caption, width, height from planter_photo order by planter_id collate \"C\", taken_on, id"
            ),
        ];
    }

    /// <summary>Removes a photograph.</summary>
    public async Task Remove(string planterId, Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("delete from planter_photo where id = @id and planter_id = @planterId", new { id, planterId });
    }
}
