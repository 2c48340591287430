using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Tests;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

public sealed class StackProposalsTests
{
    private static readonly Plan Demo = Shipped.Plan;
    private static readonly SiteFlowering Flowering = new(Shipped.Record, new LocalDate(2026, 9, 1));
    private static readonly SeasonKernel Kernel = new(Shipped.Record, new LocalDate(2026, 9, 1));
    private static readonly StackWish Spring = new(new LocalDate(2027, 2, 15), new LocalDate(2027, 5, 31), []);

    [Fact]
    public void Three_stacks_are_proposed_that_fit_their_pot_and_differ_in_two_kinds()
    {
        IReadOnlyList<StackProposal> found = Ask("bollard-pot-north", Spring);
        Assert.Equal([StackAim.LongestColour, StackAim.LeastCost, StackAim.RichestTogether], found.Select(f => f.Aim));
        Assert.All(found, f => Assert.Empty(f.Stack.Problems));
        Assert.All(found, f => Assert.All(f.Stack.Layers, l => Assert.True(l.DepthCm <= BulbStack.DeepestBaseCm(f.Stack.Planter, f.Stack.Site))));
        for (int i = 0; i < found.Count; i++)
        {
            for (int k = i + 1; k < found.Count; k++)
                Assert.True(found[i].Kinds.Except(found[k].Kinds).Count() >= StackProposals.DifferIn);
        }
    }

    [Fact, CommonPractice]
    public void A_stack_is_built_on_tulips_daffodils_and_hyacinths_and_keeps_small_bulbs_where_they_come_up() =>
        Assert.All(Ask("great-pot", Spring), f =>
        {
            Assert.Contains(f.Stack.Layers, l => StackProposals.Backbone.Contains(l.Plant.BotanicalName.Split(' ')[0]));
            Assert.All(f.Stack.Layers.Where(l => l.Plant.Bulb!.HeightCm < BulbStack.LargeBulbCm), l =>
                Assert.True(l.DepthCm <= StackProposals.SmallDeepestCm + 0.2, $"{l.Plant.Id} {l.DepthCm}")
            );
        });

    [Fact]
    public void A_proposed_stack_promises_what_the_planters_own_year_then_says()
    {
        foreach (StackProposal proposal in Ask("bollard-pot-north", Spring))
        {
            Plan after = Demo.Changed(
                [
                    .. Demo.DisplaysOf("bollard-pot-north")
                        .Where(d => d.Layer == DisplayLayer.Bulbs && d.Lift > proposal.Display.Install && d.Install < proposal.Display.Lift)
                        .Select(d => d.Id),
                ],
                [proposal.Display with { Id = "proposed" }]
            );
            PlanterSeason year = Kernel.Of(after, after.FindPlanter("bollard-pot-north")!);
            Assert.Equal(year.DaysInColourBetween(Spring.First, Spring.Last), proposal.DaysInColour(Spring));
        }
    }

    [Fact]
    public void The_cheapest_costs_no_more_than_the_longest_and_none_beats_the_bound()
    {
        IReadOnlyList<StackProposal> found = Ask("bollard-pot-north", Spring);
        Assert.True(found[1].Cost <= found[0].Cost);
        Assert.True(found[1].Weeks >= 0.85 * found[0].MostWeeks - 0.01);
        Assert.All(found, f => Assert.True(f.Weeks <= f.MostWeeks + 0.001));
    }

    [Fact]
    public void Trying_every_pair_by_hand_finds_no_longer_colour_than_the_solver()
    {
        StackWish two = Spring with { MostKinds = 2 };
        Planter pot = Demo.FindPlanter("bollard-pot-north")!;
        IReadOnlyList<StackCandidate> all = StackCandidate.For(Demo, pot, Flowering, two);
        double best = 0;
        for (int i = 0; i < all.Count; i++)
        {
            for (int k = i + 1; k < all.Count; k++)
                best = Math.Max(best, all[i].Odds.Zip(all[k].Odds, Math.Max).Sum());
        }
        StackProposal longest = Ask("bollard-pot-north", two)[0];
        Assert.True(longest.MostWeeks >= best - 0.05);
        Assert.InRange(longest.Weeks, best - 0.05, best + 0.001);
    }

    [Fact]
    public void A_budget_holds_and_one_of_nothing_leaves_what_is_at_hand()
    {
        Assert.All(Ask("bollard-pot-north", Spring with { Budget = 20 }), f => Assert.True(f.Cost <= 20));
        Assert.All(Ask("bollard-pot-north", Spring with { Budget = 0 }), f => Assert.Equal(0, f.Cost));
    }

    [Fact]
    public void Only_the_colours_asked_for_are_planted()
    {
        IReadOnlyList<StackProposal> found = Ask("bollard-pot-north", Spring with { Colours = ["#ffffff"] });
        Assert.NotEmpty(found);
        Assert.All(found.SelectMany(f => f.Kinds), k =>
            Assert.Contains(k.Plant.Windows[0].Colours.Take(2), c => UnrulyMeadow.Core.Colour.ColourDifference.Between(c, "#ffffff") <= 30)
        );
    }

    [Fact]
    public void A_bed_is_not_asked_to_hold_more_than_its_spacings_allow() =>
        Assert.All(Ask("bandstand-ring", Spring), f => Assert.Null(f.Stack.Overfilled));

    [Fact]
    public void A_faulty_wish_is_refused_by_field()
    {
        var refused = Assert.Throws<InvalidInputException>(() =>
            Ask("bollard-pot-north", new StackWish(new LocalDate(2027, 5, 1), new LocalDate(2027, 3, 1), ["red"], -5, 30))
        );
        Assert.Equal(["last", "colours[0]", "budget", "mostKinds"], refused.Faults.Select(f => f.Field));
    }

    [Fact]
    public void Months_in_which_no_bulb_shows_bring_no_proposal() =>
        Assert.Empty(Ask("bollard-pot-north", new StackWish(new LocalDate(2026, 12, 1), new LocalDate(2026, 12, 20), ["#3a4fb0"])));

    private static IReadOnlyList<StackProposal> Ask(string planter, StackWish wish) =>
        StackProposals.For(
            Demo,
            Demo.FindPlanter(planter)!,
            Flowering,
            Kernel,
            new DisplayChecks(Demo, Flowering.Record, _ => Flowering),
            wish,
            new LocalDate(2026, 10, 15),
            new LocalDate(2027, 6, 7)
        );
}
