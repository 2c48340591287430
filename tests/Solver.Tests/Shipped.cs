using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>The demo's plan and weather, read once.</summary>
internal static class Shipped
{
    private static readonly Lazy<Plan> ReadPlan = new(() =>
    {
        using FileStream file = Open("kittiwake-quay.plan.json");
        return PlanFile.Read(file);
    });

    private static readonly Lazy<WeatherRecord> ReadRecord = new(() =>
    {
        using FileStream file = Open("kittiwake-quay.dly");
        return WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(file).Days);
    });

    public static Plan Plan => ReadPlan.Value;

    /// <summary>The recipes that a new site begins with.</summary>
    public static IReadOnlyList<Recipe> Recipes
    {
        get
        {
            using FileStream file = Open("recipes.csv");
            return RecipeSheet.Read(file, id => Plan.FindPlant(id) is not null);
        }
    }

    public static WeatherRecord Record => ReadRecord.Value;

    private static FileStream Open(string name) => File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", name));
}
