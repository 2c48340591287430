using System.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>The recipes that ship with the app, and sheets like theirs.</summary>
public sealed class RecipeSheetTests
{
    private static readonly Dictionary<string, Plant> Palette = Read("palette.csv", file => PaletteSheet.Read(file, []).Select(c => c.Plant).ToList())
        .ToDictionary(p => p.Id, StringComparer.Ordinal);

    private static readonly IReadOnlyList<Recipe> Recipes = [.. Read("recipes.csv", file => RecipeSheet.Read(file, Palette.ContainsKey))];

    [Fact]
    public void Some_forty_recipes_ship_for_every_season_layer_light_and_kind_of_planter()
    {
        Assert.InRange(Recipes.Count, 40, 60);
        Assert.All(["Spring", "Summer", "Fall", "Winter"], season =>
            Assert.Contains(Recipes, r => r.Name.StartsWith(season, StringComparison.Ordinal))
        );
        Assert.All(Enum.GetValues<DisplayLayer>(), layer => Assert.Contains(Recipes, r => r.Layer == layer));
        Assert.All([PlanterShape.Round, PlanterShape.Trough, PlanterShape.Basket, PlanterShape.Bowl, PlanterShape.RectangularBed], shape =>
            Assert.Contains(Recipes, r => r.Form.Shape == shape)
        );
        // The kinds of each can stand in one light, and each light has several.
        Assert.All(Recipes, r => Assert.Contains(Enum.GetValues<Exposure>(), light => r.Items.All(i => Palette[i.PlantId].Suits(light))));
        Assert.All(Enum.GetValues<Exposure>(), light =>
            Assert.True(Recipes.Count(r => r.Items.All(i => Palette[i.PlantId].Suits(light))) >= 5, $"{light}")
        );
    }

    [Fact]
    public void Each_fills_the_planter_that_it_is_made_for_and_no_bulb_lacks_room()
    {
        foreach (Recipe recipe in Recipes)
        {
            Planter planter = new()
            {
                Id = "p",
                AreaId = "a",
                Name = "P",
                Form = recipe.Form,
                Exposure = Exposure.FullSun,
                Watering = Watering.Hand,
                ViewedFrom = ViewedFrom.AllRound,
                Wall = recipe.Form.IsBed ? WallMaterial.None : WallMaterial.Terracotta,
                WallColour = "#c98a67",
            };
            if (recipe.Layer == DisplayLayer.Bulbs)
            {
                BulbStack stack = BulbStack.LayOut(
                    planter,
                    Site.Default,
                    [.. recipe.Items.Select(i => new PlannedBulb(Palette[i.PlantId], i.Count, i.DepthCm))]
                );
                Assert.True(stack.Problems.Count == 0, recipe.Name);
                Assert.All(stack.Layers, l => Assert.InRange(l.Count, 1, l.Fits));
                continue;
            }
            var question = new FullnessQuestion(planter, [.. recipe.Items.Select(i => (Palette[i.PlantId], i.Count))]);
            int total = recipe.Items.Sum(i => i.Count);
            double grown = question.Cover(
                total,
                [.. recipe.Items.Select(i => Palette[i.PlantId]).Select(p => (p.SpreadAtPurchaseCm + p.MatureSpreadCm) / 2)]
            );
            Assert.True(grown is > 0.7 and <= 1, $"{recipe.Name}: {grown:0.00} half grown");
            Assert.True(total <= question.Most + 1, $"{recipe.Name}: {total} plants, {question.Most} go in");
        }
    }

    [Theory]
    [InlineData("A,seasonal,round,50,50,38,38,45,3 petunia-white; 2 unicorn-plant,", "\"unicorn-plant\" is not in the palette")]
    [InlineData("A,seasonal,round,50,50,38,38,45,petunia-white,", "must be a count and a plant's id")]
    [InlineData("A,autumnal,round,50,50,38,38,45,3 petunia-white,", "is none of")]
    [InlineData("A,seasonal,round,wide,50,38,38,45,3 petunia-white,", "must be a number")]
    [InlineData("A,seasonal,round,50,50,38,38,45,,", "must hold at least one plant")]
    public void A_row_that_is_wrong_is_named_with_its_line(string row, string said)
    {
        string sheet = "name,layer,shape,length cm,width cm,bottom length cm,bottom width cm,depth cm,plants,note\n" + row + "\n";
        using var file = new MemoryStream(Encoding.UTF8.GetBytes(sheet));
        string faults = string.Join("; ", Assert.Throws<InvalidInputException>(() => RecipeSheet.Read(file, Palette.ContainsKey)).Faults);
        Assert.Contains(said, faults, StringComparison.Ordinal);
        Assert.Contains("line 2", faults, StringComparison.Ordinal);
    }

    private static T Read<T>(string name, Func<Stream, T> read)
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", name));
        return read(file);
    }
}
