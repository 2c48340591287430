using AngleSharp.Dom;
using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Recipes as they are looked for.</summary>
public sealed class RecipePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task Recipes_are_drawn_with_their_weeks_cost_and_where_they_stand()
    {
        IDocument page = await _browser.Open("/recipes");
        IElement[] cards = [.. page.QuerySelectorAll(".recipe-card")];
        Assert.Equal("49 recipes", page.QuerySelector("h1")!.TextContent);
        Assert.Equal(49, cards.Length);
        Assert.All(cards, c => Assert.NotEmpty(c.QuerySelectorAll(".recipe-above circle")));
        Assert.All(cards, c => Assert.Contains("$", c.TextContent, StringComparison.Ordinal));
        // All but what shows nothing of its own at this site in half the years.
        Assert.True(cards.Count(c => c.QuerySelector(".recipe-weeks rect") is not null) >= 45);
        Assert.Contains(
            "stands in Bollard pot, north",
            cards.Single(c => c.TextContent.Contains("Five layers", StringComparison.Ordinal)).TextContent,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("season=Winter&light=Shade", "Winter pot", "Summer pot in sun: red geraniums, trailing silver")]
    [InlineData("place=BasketOrBowl", "Summer basket in sun: three small trumpets", "Spring pot")]
    [InlineData("colour=Blue&q=bulbs trough", "Bulbs in a trough: yellow tulips over grape hyacinths", "Bulbs in a pot")]
    [InlineData("q=marigold", "Summer trough in sun: marigolds, orange and yellow", "For years in sun: lavender")]
    public async Task They_are_found_by_season_light_place_colour_and_words(string asked, string there, string notThere)
    {
        string found = (await _browser.Open($"/recipes?{asked}")).Words();
        Assert.Contains(there, found, StringComparison.Ordinal);
        Assert.DoesNotContain(notThere, found, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_cheapest_stand_first_when_asked_and_nothing_found_says_so()
    {
        decimal[] costs =
        [
            .. (await _browser.Open("/recipes?sort=cost"))
                .QuerySelectorAll(".recipe-card p.quiet")
                .Select(p => decimal.Parse(p.TextContent.Split('$')[1].Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture)),
        ];
        Assert.Equal(costs.Order(), costs);
        Assert.Contains("None is like that", (await _browser.Open("/recipes?q=zzz")).Words(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(3, false, SeasonName.Spring)]
    [InlineData(12, false, SeasonName.Winter)]
    [InlineData(12, true, SeasonName.Summer)]
    [InlineData(4, true, SeasonName.Fall)]
    public void A_season_is_its_three_months_on_either_side_of_the_equator(int month, bool south, SeasonName season) =>
        Assert.Equal(season, RecipeCard.SeasonOf(new LocalDate(2027, month, 15), south));

    [Fact]
    public async Task What_was_learnt_of_a_place_is_told_where_its_next_display_stack_recipe_and_order_are_made()
    {
        const string Learnt = "More of the tall foliage plant";
        Plan plan = await new PlanStore(app.Database, PlanFile.Stored).Load();
        Display next = plan.Displays.First(d => d.PlanterId == "flag-pot" && d.Layer == DisplayLayer.Seasonal);
        Turn turn = plan.Turns.First(t => plan.Displays.Any(d => d.PlanterId == "flag-pot" && t.Holds(d.Install)));
        await new LogStore(app.Database).Record([
            new Observation(Guid.NewGuid(), "flag-pot", null, new LocalDate(2026, 7, 3), ObservationKind.DidWell, Learnt, "Rosa"),
        ]);
        await new PhotoStore(app.Database).Add(
            new PlanterPhoto(Guid.NewGuid(), "flag-pot", next.Install.PlusYears(-1).PlusDays(9), "Last year", 8, 6),
            [1],
            [1]
        );
        foreach (
            string path in new[]
            {
                $"/displays/{next.Id}",
                "/stack/flag-pot",
                $"/recipes?recipe=silver-and-violet&planter[]=flag-pot",
                $"/supply?turn={turn.Id}",
            }
        )
        {
            IElement? told = (await _browser.Open(path)).QuerySelector(".learnt");
            Assert.True(told?.TextContent.Contains(Learnt, StringComparison.Ordinal) == true, path);
        }
        Assert.NotNull((await _browser.Open($"/displays/{next.Id}")).QuerySelector(".learnt img[alt='Last year']"));
        Assert.Null((await _browser.Open("/displays/new?planter=shelter-pot-1")).QuerySelector(".learnt"));
    }
}
