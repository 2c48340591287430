using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Closing;

/// <summary>The changes that are offered for one bare planter.</summary>
public sealed class GapMovesTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly GapQuestion Today = new(A.Day(2026, 9, 2));
    private static readonly WeatherRecord Mild = A.Record(2001, 8, A.Mild);
    private static readonly SeasonKernel Kernel = new(Mild, Start);
    private static readonly SiteFlowering Flowering = new(Mild, Start);
    private static readonly Plant Pansy = A.Annual("pansy", -15) with { SoldMonths = [2, 3, 4, 5, 8, 9, 10, 11] };

    // Bare from 10 January to 20 March.
    private static readonly Plan Gap = A.Plan(
        [Pansy, A.Annual("mum", -8) with { SoldMonths = [8, 9, 10] }],
        A.Show("fall", Start, A.Day(2027, 1, 10), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)),
        A.Show("spring", A.Day(2027, 3, 20), Start.PlusMonths(12), DisplayLayer.Seasonal, new DisplayItem("pansy", 8))
    );

    [Fact]
    public void A_gap_between_two_displays_can_be_closed_by_either_of_them()
    {
        IReadOnlyList<GapMove> moves = For(Gap, Today);
        Assert.Contains(moves, m =>
            m.Kind == GapMoveKind.MoveTurn && m.Replaces.Single() == "fall" && m.Displays[0].Lift == A.Day(2027, 3, 20) && m.DaysGained >= 68
        );
        GapMove forward = moves.First(m => m.Kind == GapMoveKind.MoveTurn && m.Replaces.Single() == "spring");
        Assert.True(forward.Displays[0].Install >= A.Day(2027, 2, 1), "pansies are not sold in January");
        Assert.Equal(0, forward.Cost);
    }

    [Fact, CommonPractice]
    public void Nothing_is_planted_in_months_in_which_growers_do_not_sell_it() => Assert.DoesNotContain(For(Gap, Today), m => m.Plant?.Id == "mum");

    [Fact]
    public void What_is_past_is_left_alone()
    {
        IReadOnlyList<GapMove> moves = For(Gap, new GapQuestion(A.Day(2027, 2, 1)));
        Assert.All(moves, m => Assert.All(m.Displays, d => Assert.True(d.Lift > A.Day(2027, 2, 1))));
        Assert.DoesNotContain(moves, m => m.Replaces.Contains("fall"));
        Assert.Empty(For(Gap, new GapQuestion(A.Day(2027, 7, 1))));
    }

    [Fact]
    public void Two_changes_of_one_display_or_of_one_layer_at_once_conflict()
    {
        IReadOnlyList<GapMove> moves = For(Gap, Today);
        GapMove longer = moves.First(m => m.Replaces.Contains("fall"));
        GapMove earlier = moves.First(m => m.Replaces.Contains("spring"));
        Assert.True(longer.Conflicts(earlier));
        Assert.True(longer.Conflicts(longer));
        Assert.False(longer.Conflicts(earlier with { Planter = A.Pot(id: "other") }));
    }

    [Fact]
    public void Stock_is_used_before_anything_is_bought()
    {
        var plan = new Plan(
            Site.Default,
            Gap.Areas,
            Gap.Planters,
            Gap.Palette,
            [Gap.Displays[1]],
            [],
            lots: [new Lot("tray", "pansy", 2, LotState.Waiting, "yard", A.Day(2026, 9, 1), LotCondition.Good)]
        );
        GapMove fill = For(plan, Today).First(m => m.Kind == GapMoveKind.Fill);
        Assert.Equal(2, fill.FromStock.Single().Count);
        Assert.True(fill.Count > 2 && fill.Buys && fill.Cost > 0);
        Assert.DoesNotContain(For(plan, Today with { OnlyStock = true }), m => m.Buys);
    }

    [Fact]
    public void A_planter_that_is_never_bare_asks_for_nothing()
    {
        Plan full = A.Plan([Pansy], A.Show("all", Start, Start.PlusMonths(12), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)));
        Assert.Empty(For(full, Today));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(7)]
    public void Changes_to_a_planter_are_limited_to_a_handful(int most) => Assert.NotEmpty((Today with { MostPerPlanter = most }).Faults());

    private static IReadOnlyList<GapMove> For(Plan plan, GapQuestion question) => GapMoves.For(plan, plan.Planters[0], Kernel, Flowering, question);
}
