using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Stacks;

public sealed class StackStudioTests
{
    private static readonly WeatherRecord Seattle = A.Record("Seattle");

    // As the shipped palette has them: species, divisions and groups from memory of handbooks.
    private static readonly Plant Snowdrop = A.Bulb("snowdrop", new BulbForcing(1, 10, 10, 9.7, 24), 2.2, 1.8);
    private static readonly Plant Crocus = A.Bulb("crocus", new BulbForcing(1, 10, 10, 37.6, 18), 2.4, 2);
    private static readonly Plant Hyacinth = A.Bulb("hyacinth", new BulbForcing(1, 10, 10, 202.3, 16), 5.5, 5) with
    {
        Bulb = new BulbFigures(5.5, 5, 15, 10, 14),
    };
    private static readonly Plant Mid = A.Tulip("mid");
    private static readonly Plant Late = A.Tulip("late", new BulbForcing(7, 10, 10, 147, 16), 5.2, 4.2);

    [Fact]
    [CommonPractice]
    public void A_large_pot_takes_five_kinds_at_five_depths_and_flowers_from_February_into_May_in_a_mild_maritime_climate()
    {
        BulbStack stack = BulbStack.LayOut(
            A.Pot(60, 50, 60),
            Site.Default,
            [new(Snowdrop, 20, null), new(Crocus, 25, null), new(Hyacinth, 5, null), new(Mid, 9, null), new(Late, 9, null)]
        );
        Assert.Empty(stack.Problems);
        Assert.Equal(5, stack.Layers.Select(l => l.DepthCm).Distinct().Count());
        StackBloom bloom = StackBloom.From(stack, Seattle, A.Day(2026, 10, 10));
        Assert.InRange(bloom.Forecasts.Min(f => f.First)!.Value, A.Day(2027, 1, 15), A.Day(2027, 2, 25));
        Assert.InRange(bloom.Forecasts.Max(f => f.Over)!.Value, A.Day(2027, 5, 1), A.Day(2027, 5, 31));
    }

    [Fact]
    [CommonPractice]
    public void A_medium_pot_takes_seven_tulips_three_hyacinths_and_three_clumps_of_five_crocus()
    {
        BulbStack stack = BulbStack.LayOut(
            A.Pot(40, 32, 40),
            Site.Default,
            [new(Mid, 7, null), new(Hyacinth, 3, null), new(Crocus, 15, null) { Clump = 5 }]
        );
        Assert.Empty(stack.Problems);
        StackLayer crocus = stack.Layers.First(l => l.Plant.Id == "crocus");
        Assert.Equal(15, crocus.Spread.Count);
    }

    [Fact]
    [CommonPractice]
    public void Hyacinths_finish_as_mid_tulips_open()
    {
        var bloom = StackBloom.From(
            BulbStack.LayOut(A.Bed(), Site.Default, [new(Hyacinth, 5, null), new(Mid, 9, null)]),
            A.Record("New York"),
            A.Day(2026, 10, 15)
        );
        BloomForecast hyacinth = bloom.Forecasts.First(f => f.Plant.Id == "hyacinth");
        BloomForecast tulip = bloom.Forecasts.First(f => f.Plant.Id == "mid");
        // Half the tulips are open within a week of half the hyacinths being over.
        Assert.InRange(NodaTime.Period.DaysBetween(hyacinth.Half!.Value.PlusDays(16), tulip.Half!.Value), -7, 7);
    }

    [Fact]
    public void Bulbs_keep_beside_the_root_balls_of_what_stands_over_them()
    {
        var roots = new List<RootBall> { new(new PlanePoint(0, 0), 12, 20) };
        BulbStack beside = BulbStack.LayOut(A.Pot(), Site.Default, [new(Crocus, 20, null)], roots);
        BulbStack free = BulbStack.LayOut(A.Pot(), Site.Default, [new(Crocus, 20, null)]);
        Assert.All(beside.Layers[0].Spread, p => Assert.True(p.DistanceTo(new PlanePoint(0, 0)) >= 13 - 1e-6));
        Assert.True(beside.Layers[0].Fits < free.Layers[0].Fits);
        BulbStack below = BulbStack.LayOut(A.Pot(), Site.Default, [new(Late, 8, 32)], roots);
        Assert.Equal(BulbStack.LayOut(A.Pot(), Site.Default, [new(Late, 8, 32)]).Layers[0].Fits, below.Layers[0].Fits);
    }

    [Fact]
    public void A_display_over_a_stack_leaves_it_the_room_that_its_roots_do_not_take()
    {
        Plant shrub = A.Annual("shrub", -25) with { LifeForm = LifeForm.Shrub, SpreadAtPurchaseCm = 45, MatureSpreadCm = 60, HeightCm = 70 };
        Display bulbs = A.Show("bulbs", A.Day(2026, 10, 19), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("crocus", 20));
        Plan with = A.Plan(
            [Crocus, shrub],
            bulbs,
            A.Show("winter", A.Day(2026, 11, 10), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("shrub", 1))
        );
        Plan without = A.Plan([Crocus, shrub], bulbs);
        Assert.True(BulbStack.Of(with, with.Planters[0], bulbs).Layers[0].Fits < BulbStack.Of(without, without.Planters[0], bulbs).Layers[0].Fits);
    }

    [Fact]
    public void Bulbs_that_are_to_be_seen_together_have_odds_and_so_have_those_that_are_to_follow()
    {
        var bloom = StackBloom.From(
            BulbStack.LayOut(A.Pot(), Site.Default, [new(Crocus, 20, null), new(Hyacinth, 5, null), new(Late, 9, null)]),
            A.Record("New York"),
            A.Day(2026, 10, 15)
        );
        PairOdds Of(string one, string other, PairWish wish) => PairOdds.Of(new BloomPair(one, other, wish), bloom)!;
        Assert.Equal(0, Of("crocus", "late", PairWish.Together).Share);
        Assert.True(Of("crocus", "late", PairWish.Together).MedianDays < 0);
        Assert.Equal(Of("hyacinth", "late", PairWish.Together).MedianDays, Of("late", "hyacinth", PairWish.Together).MedianDays);
        Assert.Null(PairOdds.Of(new BloomPair("crocus", "nobody", PairWish.Together), bloom));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(10_001)]
    public void No_bulbs_and_ten_thousand_of_a_kind_are_refused(int count) =>
        Assert.Contains(A.Show("one", A.Day(2026, 10, 19), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", count)).Faults(), f =>
            f.Field == "items[0].count"
        );

    [Fact]
    public void Bulbs_wider_than_the_layer_and_a_bed_of_a_fifth_of_a_square_metre_are_answered_in_words()
    {
        Plant giant = A.Bulb("giant", A.MidTulip, 8, 19) with { Bulb = new BulbFigures(8, 19, 30, 12, 18) };
        Assert.Equal(StackProblem.DoesNotFit, BulbStack.LayOut(A.Pot(24, 16, 45), Site.Default, [new(giant, 1, null)]).Problems[0].Kind);
        BulbStack small = BulbStack.LayOut(A.Bed(50, 40), Site.Default, [new(Mid, 60, null)]);
        Assert.Equal(StackProblem.BedOverfilled, small.Problems[^1].Kind);
    }

    [Fact]
    [CommonPractice]
    public void Tulips_in_a_bed_stand_fifteen_centimetres_apart()
    {
        Plant spaced = Mid with { Bulb = new BulbFigures(5, 4, 15, 12, 18) };
        BulbStack stack = BulbStack.LayOut(A.Bed(), Site.Default, [new(spaced, 60, null)]);
        Assert.Empty(stack.Problems);
        IReadOnlyList<PlanePoint> places = stack.Layers[0].Spread;
        Assert.True(places.Min(p => places.Where(q => q != p).Min(p.DistanceTo)) >= 15 - 0.01);
    }
}
