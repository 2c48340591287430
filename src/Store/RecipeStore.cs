using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planting;

namespace UnrulyMeadow.Store;

/// <summary>Keeps recipes: displays saved as patterns for other planters.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How a recipe is written as JSON.</param>
public sealed class RecipeStore(MeadowDatabase database, JsonSerializerOptions json)
{
    internal const string Insert = "insert into recipe (id, name, details) values (@id, @name, @details::jsonb)";

    /// <summary>Adds a recipe.</summary>
    /// <exception cref="InvalidInputException">It is faulty, or its name is taken.</exception>
    public async Task Add(Recipe recipe)
    {
        IReadOnlyList<Fault> faults = recipe.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await SqlFaults.Naming(() => connection.ExecuteAsync(Insert, Row(recipe, json)));
    }

    /// <summary>Removes a recipe; what was planted from it stays.</summary>
    /// <returns>False when there was none.</returns>
    public async Task<bool> Remove(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.ExecuteAsync("delete from recipe where id = @id", new { id }) > 0;
    }

    internal static object Row(Recipe recipe, JsonSerializerOptions json) => new { id = recipe.Id, name = recipe.Name, details = JsonSerializer.Serialize(recipe, json) };
}
