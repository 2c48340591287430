using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Recipes;

/// <summary>How one kind of a recipe changes for another planter.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="From">Count in the recipe.</param>
/// <param name="To">Count in the planter; 0 when it is left out.</param>
/// <param name="Why">Why: a <see cref="RecipeNote"/>.</param>
public sealed record RecipeChange(Plant Plant, int From, int To, Fact Why);

/// <summary>A recipe solved anew for a planter: surface plants to the same cover, bulbs to the same share of their layer.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Planter">The planter.</param>
/// <param name="Items">The plants with their counts, places kept only where the insides are the same.</param>
/// <param name="Changes">Each kind, with its counts and the reason.</param>
/// <param name="Remarks">What else is to be said, another shape, a layer that does not fit: each a <see cref="RecipeNote"/>.</param>
public sealed record ScaledRecipe(
    Recipe Recipe,
    Planter Planter,
    IReadOnlyList<DisplayItem> Items,
    IReadOnlyList<RecipeChange> Changes,
    IReadOnlyList<Fact> Remarks
)
{
    // What stands singly is a centrepiece and stays single until the surface is this many times larger (common practice).
    private const double SecondCentrepiece = 2.5;

    /// <summary>Solves a recipe for a planter.</summary>
    /// <param name="recipe">The recipe.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="site">The site's choices.</param>
    /// <param name="plant">Finds a plant.</param>
    public static ScaledRecipe For(Recipe recipe, Planter planter, Site site, Func<string, Plant> plant)
    {
        if (recipe.Form == planter.Form)
            return new ScaledRecipe(
                recipe,
                planter,
                recipe.Items,
                [.. recipe.Items.Select(i => new RecipeChange(plant(i.PlantId), i.Count, i.Count, new Fact(RecipeNote.SameInside)))],
                []
            );
        var remarks = new List<Fact>();
        if (recipe.Form.Shape != planter.Form.Shape)
            remarks.Add(new Fact(RecipeNote.AnotherShape, ("anew", recipe.Items.Any(i => i.Places is not null))));
        else if (recipe.Items.Any(i => i.Places is not null))
            remarks.Add(new Fact(RecipeNote.AnotherSize));
        return recipe.Layer == DisplayLayer.Bulbs ? Bulbs(recipe, planter, site, plant, remarks) : Plants(recipe, planter, plant, remarks);
    }

    private static ScaledRecipe Plants(Recipe recipe, Planter planter, Func<string, Plant> plant, List<Fact> remarks)
    {
        Planter original = planter with { Form = recipe.Form };
        double ratio = planter.Form.SurfaceCm2 / recipe.Form.SurfaceCm2;
        IReadOnlyList<(Plant Plant, int Count)> kinds = [.. recipe.Items.Select(i => (plant(i.PlantId), i.Count))];
        bool Single((Plant Plant, int Count) k) => k.Count == 1 && kinds.Count > 1;
        IReadOnlyList<(Plant Plant, int Count)> many = [.. kinds.Where(k => !Single(k))];
        int[] solved = [];
        double cover = 0;
        if (many.Count > 0)
        {
            double[] wide = [.. many.Select(k => (k.Plant.SpreadAtPurchaseCm + k.Plant.MatureSpreadCm) / 2)];
            cover = new FullnessQuestion(original, many).Cover(many.Sum(k => k.Count), wide);
            FullnessAnswer answer = new FullnessQuestion(planter, many).For(Math.Clamp(cover, 0.01, 0.995), wide);
            int total = answer.Total > 0 ? answer.Total : Math.Max(1, (int)Math.Round(ratio * many.Sum(k => k.Count)));
            solved = FullnessQuestion.InProportion([.. many.Select(k => k.Count)], Math.Max(total, many.Count));
        }
        var changes = new List<RecipeChange>();
        int next = 0;
        foreach ((Plant Plant, int Count) kind in kinds)
        {
            if (Single(kind))
            {
                int n = ratio < SecondCentrepiece ? 1 : (int)Math.Round(ratio);
                changes.Add(
                    new RecipeChange(
                        kind.Plant,
                        1,
                        n,
                        n == 1
                            ? new Fact(RecipeNote.CentrepieceStaysSingle)
                            : new Fact(RecipeNote.CentrepieceRepeats, ("times", Quantity.Number(ratio, 1)))
                    )
                );
            }
            else
            {
                int n = Math.Max(1, solved[next++]);
                changes.Add(new RecipeChange(kind.Plant, kind.Count, n, new Fact(RecipeNote.SameCover, ("cover", Quantity.Share(cover)))));
            }
        }
        return new ScaledRecipe(
            recipe,
            planter,
            [.. recipe.Items.Select((i, k) => i with { Count = changes[k].To, Places = null })],
            changes,
            remarks
        );
    }

    private static ScaledRecipe Bulbs(Recipe recipe, Planter planter, Site site, Func<string, Plant> plant, List<Fact> remarks)
    {
        Planter original = planter with
        {
            Form = recipe.Form,
            Wall =
                recipe.Form.IsBed ? WallMaterial.None
                : planter.Wall == WallMaterial.None ? WallMaterial.Plastic
                : planter.Wall,
        };
        IReadOnlyList<PlannedBulb> planned = [.. recipe.Items.Select(i => new PlannedBulb(plant(i.PlantId), i.Count, i.DepthCm) { Clump = i.Clump })];
        BulbStack before = BulbStack.LayOut(original, site, planned);
        double floor = BulbStack.DeepestBaseCm(planter, site);
        var kept = new List<PlannedBulb>(planned.Select(b => b with { DepthCm = b.DepthCm <= floor ? b.DepthCm : null }));
        // The deepest layers go first when the planter is too shallow for all.
        while (kept.Count > 0 && BulbStack.Depths(planter, site, kept) is var depths && depths[^1].DepthCm > floor)
        {
            Plant deepest = depths[^1].Plant;
            remarks.Add(
                new Fact(RecipeNote.LeftOut, ("plant", deepest), ("depth", Quantity.Cm(depths[^1].DepthCm, 1)), ("deepest", Quantity.Cm(floor, 1)))
            );
            kept.RemoveAll(b => b.Plant.Id == deepest.Id);
        }
        BulbStack now = BulbStack.LayOut(planter, site, kept);
        var changes = new List<RecipeChange>();
        var items = new List<DisplayItem>();
        foreach (DisplayItem item in recipe.Items)
        {
            StackLayer was = before.Layers.First(l => l.Plant.Id == item.PlantId);
            StackLayer? layer = now.Layers.FirstOrDefault(l => l.Plant.Id == item.PlantId);
            if (layer is null || layer.Fits == 0)
            {
                changes.Add(new RecipeChange(was.Plant, item.Count, 0, new Fact(layer is null ? RecipeNote.TooDeep : RecipeNote.NoneFits)));
                continue;
            }
            int n = Math.Clamp((int)Math.Round(item.Count * (double)layer.Fits / Math.Max(1, was.Fits)), 1, layer.Fits);
            changes.Add(
                new RecipeChange(
                    was.Plant,
                    item.Count,
                    n,
                    new Fact(RecipeNote.SameShareOfLayer, ("from", item.Count), ("fitThere", was.Fits), ("to", n), ("fitHere", layer.Fits))
                )
            );
            items.Add(item with { Count = n, DepthCm = kept.First(k => k.Plant.Id == item.PlantId).DepthCm });
        }
        return new ScaledRecipe(recipe, planter, items, changes, remarks);
    }
}
