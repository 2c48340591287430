using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>The palette and the recipes that ship with the app, for a site to begin with.</summary>
public static class Starter
{
    private static readonly Lazy<Dictionary<string, Plant>> Usual = new(() => Read().Plants.ToDictionary(p => p.Id, StringComparer.Ordinal));

    /// <summary>A plant as it ships with the app; null where none has this id.</summary>
    public static Plant? Plant(string id) => Usual.Value.GetValueOrDefault(id);

    /// <summary>Adds what the site does not hold yet; nothing that is there changes.</summary>
    /// <param name="plan">The plan as it is.</param>
    /// <param name="versions">Its versions.</param>
    /// <param name="palette">Where plants are kept.</param>
    /// <param name="withPlants">False where the palette comes from elsewhere: only recipes are added then, those whose plants are there.</param>
    /// <returns>How many plants and recipes were added.</returns>
    public static async Task<(int Plants, int Recipes)> Add(Plan plan, PlanVersions versions, PaletteStore palette, bool withPlants = true)
    {
        (IReadOnlyList<Plant> plants, IReadOnlyList<Recipe> recipes) = await Task.Run(Read);
        List<Plant> freshPlants = [.. plants.Where(p => withPlants && plan.FindPlant(p.Id) is null)];
        List<Recipe> freshRecipes =
        [
            .. recipes.Where(r =>
                !plan.Recipes.Any(o => o.Id == r.Id || o.Name == r.Name) && (withPlants || r.Items.All(i => plan.FindPlant(i.PlantId) is not null))
            ),
        ];
        if (freshPlants.Count + freshRecipes.Count > 0)
            await palette.Put(freshPlants, versions, freshRecipes);
        return (freshPlants.Count, freshRecipes.Count);
    }

    private static (IReadOnlyList<Plant> Plants, IReadOnlyList<Recipe> Recipes) Read()
    {
        using FileStream palette = Open("palette.csv");
        IReadOnlyList<Plant> plants = [.. PaletteSheet.Read(palette, []).Select(c => c.Plant)];
        HashSet<string> ids = [.. plants.Select(p => p.Id)];
        using FileStream recipes = Open("recipes.csv");
        return (plants, RecipeSheet.Read(recipes, ids.Contains));
    }

    private static FileStream Open(string name) => File.OpenRead(Path.Combine(AppContext.BaseDirectory, "starter", name));
}
