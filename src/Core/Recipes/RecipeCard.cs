using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Recipes;

/// <summary>A quarter of the year as people name it.</summary>
public enum SeasonName
{
    /// <summary>March to May in the north, September to November in the south.</summary>
    Spring,

    /// <summary>The three months after.</summary>
    Summer,

    /// <summary>The three months after those.</summary>
    Fall,

    /// <summary>The rest.</summary>
    Winter,
}

/// <summary>The kind of planter that a recipe is made for.</summary>
public enum RecipePlace
{
    /// <summary>Pots, tubs, barrels.</summary>
    Pot,

    /// <summary>Troughs and boxes.</summary>
    Trough,

    /// <summary>Hanging baskets and bowls.</summary>
    BasketOrBowl,

    /// <summary>Beds in the ground.</summary>
    Bed,
}

/// <summary>A recipe with what is looked for when one is chosen.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Strips">Its kinds' colour through a plan year at the site, in the recipe's order.</param>
/// <param name="Lights">Lights that suit all of its kinds.</param>
/// <param name="Colours">Colours that its kinds show first.</param>
/// <param name="Seasons">Seasons with colour in at least half the years for some weeks.</param>
/// <param name="Place">The kind of planter.</param>
/// <param name="Cost">What it costs at guide prices, spares included.</param>
/// <param name="StandsIn">Planters with a display of the same kinds in the same layer, as planned.</param>
public sealed record RecipeCard(
    Recipe Recipe,
    IReadOnlyList<FloweringStrip> Strips,
    IReadOnlyList<Exposure> Lights,
    IReadOnlyList<ColourWord> Colours,
    IReadOnlyList<SeasonName> Seasons,
    RecipePlace Place,
    decimal Cost,
    IReadOnlyList<Planter> StandsIn
)
{
    // Less colour than this does not make a season's recipe.
    private const int FewestDays = 18;

    /// <summary>Its kinds, in the recipe's order.</summary>
    public IEnumerable<Plant> Kinds => Strips.Select(s => s.Plant);

    /// <summary>Every recipe of a plan whose kinds are all in the palette.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="flowering">The site's flowering in a plan year.</param>
    public static IReadOnlyList<RecipeCard> Of(Plan plan, SiteFlowering flowering)
    {
        ILookup<string, Display> standing = plan.Displays.ToLookup(d => KeyOf(d.Layer, d.Items), StringComparer.Ordinal);
        return
        [
            .. plan
                .Recipes.Where(r => r.Items.All(i => plan.FindPlant(i.PlantId) is not null))
                .Select(r => Of(plan, r, flowering, standing[KeyOf(r.Layer, r.Items)])),
        ];
    }

    private static RecipeCard Of(Plan plan, Recipe recipe, SiteFlowering flowering, IEnumerable<Display> displays)
    {
        FloweringStrip[] strips = [.. recipe.Items.Select(i => flowering.Usual(plan.Plant(i.PlantId)))];
        return new RecipeCard(
            recipe,
            strips,
            [.. Enum.GetValues<Exposure>().Where(light => strips.All(s => s.Plant.Suits(light)))],
            [.. strips.SelectMany(s => s.Plant.Windows.SelectMany(w => w.Colours.Take(1))).Select(ColourWords.Of).Distinct()],
            [.. SeasonsOf(strips, flowering.IsSouthern)],
            PlaceOf(recipe.Form),
            strips
                .Zip(recipe.Items)
                .Sum(k => plan.Site.GuidePrice(k.First.Plant, k.Second.Count, plan.Site.Rules.Stage == Rules.StageSchool.InColour)),
            [.. displays.Select(d => plan.FindPlanter(d.PlanterId)!).Where(p => !p.IsRetired).Distinct()]
        );
    }

    private static string KeyOf(DisplayLayer layer, IEnumerable<DisplayItem> items) =>
        $"{layer} {string.Join(' ', items.Select(i => i.PlantId).Distinct().Order(StringComparer.Ordinal))}";

    private static IEnumerable<SeasonName> SeasonsOf(FloweringStrip[] strips, bool isSouthern)
    {
        var days = new int[4];
        for (int d = 0; d < strips[0].Odds.Length; d++)
        {
            if (Array.Exists(strips, s => s.Odds[d] >= ColourOdds.InColour))
                days[(int)SeasonOf(strips[0].Start.PlusDays(d), isSouthern)]++;
        }
        return Enum.GetValues<SeasonName>().Where(s => days[(int)s] >= FewestDays);
    }

    /// <summary>The season of a day.</summary>
    public static SeasonName SeasonOf(LocalDate day, bool isSouthern) => (SeasonName)((day.Month + 9 + (isSouthern ? 6 : 0)) % 12 / 3);

    private static RecipePlace PlaceOf(PlanterForm form) =>
        form.IsBed ? RecipePlace.Bed
        : form.Shape == PlanterShape.Trough ? RecipePlace.Trough
        : form.Shape is PlanterShape.Basket or PlanterShape.Bowl ? RecipePlace.BasketOrBowl
        : RecipePlace.Pot;
}
