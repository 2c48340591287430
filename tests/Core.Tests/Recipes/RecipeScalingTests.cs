using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Recipes;

public sealed class RecipeScalingTests
{
    private static readonly Plant Pansy = A.Annual("pansy") with { SpreadAtPurchaseCm = 14, MatureSpreadCm = 22 };
    private static readonly Plant Grass = A.Annual("grass") with { HeightCm = 70, Habit = Habit.Upright };
    private static readonly Plant Crocus = A.Bulb("crocus", new BulbForcing(1, 10, 10, 37.6, 18), 2.4, 2);
    private static readonly Recipe Display = new(
        "r",
        "Grass and pansies",
        DisplayLayer.Seasonal,
        A.Pot().Form,
        [new("grass", 1), new("pansy", 9) { Places = [.. Enumerable.Range(0, 9).Select(i => new PlanePoint(i, 0))] }]
    );
    private static readonly Recipe Stack = new("s", "Two layers", DisplayLayer.Bulbs, A.Pot().Form, [new("crocus", 40), new("tulip", 12)]);

    [Fact]
    public void In_an_identical_planter_the_pair_is_identical_places_and_all()
    {
        ScaledRecipe scaled = For(Display, A.Pot(id: "twin"));
        Assert.Equal(Display.Items, scaled.Items);
        Assert.Empty(scaled.Remarks);
    }

    [Fact]
    public void Half_the_surface_takes_about_half_the_plants_and_keeps_its_centrepiece()
    {
        ScaledRecipe scaled = For(Display, A.Pot(60 / Math.Sqrt(2), 34, 50));
        Assert.Equal(1, scaled.Items[0].Count);
        Assert.InRange(scaled.Items[1].Count, 3, 6);
        Assert.Null(scaled.Items[1].Places);
        Assert.Contains(scaled.Remarks, r => r.Kind is RecipeNote.AnotherSize);
    }

    [Fact]
    public void Four_times_the_surface_repeats_the_centrepiece()
    {
        ScaledRecipe scaled = For(Display, A.Pot(120, 100, 80));
        Assert.InRange(scaled.Items[0].Count, 3, 5);
        Assert.InRange(scaled.Items[1].Count, 28, 48);
    }

    [Fact]
    public void Another_shape_is_said()
    {
        ScaledRecipe scaled = For(Display, A.Pot() with { Form = PlanterForm.Trough(120, 40, 110, 34, 40) });
        Assert.Contains(scaled.Remarks, r => r.Kind is RecipeNote.AnotherShape);
        Assert.True(scaled.Items[1].Count > 9);
    }

    [Fact]
    public void Bulbs_keep_their_share_of_what_fits_and_a_layer_too_deep_is_left_out_by_name()
    {
        ScaledRecipe same = For(Stack, A.Pot(80, 64, 60));
        BulbStack larger = BulbStack.LayOut(
            A.Pot(80, 64, 60),
            Site.Default,
            [.. same.Items.Select(i => new PlannedBulb(Of(i.PlantId), i.Count, i.DepthCm))]
        );
        Assert.Empty(larger.Problems);
        Assert.All(same.Changes, c => Assert.True(c.To > c.From));
        ScaledRecipe bowl = For(Stack, A.Pot(60, 50, 18));
        Assert.Equal(0, bowl.Changes.Single(c => c.Plant.Id == "tulip").To);
        Assert.Contains(bowl.Remarks, r => r.Kind is RecipeNote.LeftOut && r["plant"] is Plant { Id: "tulip" });
        Assert.Equal(["crocus"], bowl.Items.Select(i => i.PlantId));
    }

    private static ScaledRecipe For(Recipe recipe, Planter planter) => ScaledRecipe.For(recipe, planter, Site.Default, Of);

    private static Plant Of(string id) =>
        id switch
        {
            "pansy" => Pansy,
            "grass" => Grass,
            "crocus" => Crocus,
            _ => A.Tulip(),
        };
}
