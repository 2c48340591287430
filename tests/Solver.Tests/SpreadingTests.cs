using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>Bulbs spread over spring and over planters, on the demo's palette and planters.</summary>
public sealed class SpreadingTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly Plan Demo = Shipped.Plan;
    private static readonly SeasonKernel Kernel = new(Shipped.Record, Start);
    private static readonly Planter[] Pots =
    [
        .. new[] { "shelter-pot-1", "shelter-pot-2", "shelter-pot-3", "shelter-pot-4" }.Select(p => Demo.FindPlanter(p)!),
    ];

    // Four shelter pots with nothing but middle tulips.
    private static readonly Plan AllMid = Demo.Changed(
        [.. Demo.Displays.Select(d => d.Id)],
        [
            .. Pots.Select(p => new Display(
                $"{p.Id}-b",
                p.Id,
                DisplayLayer.Bulbs,
                new LocalDate(2026, 10, 15),
                new LocalDate(2027, 6, 1),
                [new DisplayItem("tulip-mid-red", 7)]
            )),
        ]
    );

    [Fact]
    public void An_area_that_flowers_all_at_once_is_spread_and_every_choice_tried_by_hand_is_worth_no_more()
    {
        AreaSequence area = Area(AllMid);
        Assert.Contains(area.Findings, f => f.Fault == SequenceFault.AllAtOnce);
        IReadOnlyList<SequenceMove> moves = SequenceMove.For(AllMid, Kernel, area, Start);
        SequenceAnswer answer = SequenceSpreading.Choose(area, moves);
        Assert.True(answer.After > answer.Before);
        long Worth(IReadOnlyList<SequenceMove> chosen) =>
            SequenceSpreading.Worth(area, SequenceSpreading.With(area, chosen)) - chosen.Sum(SequenceSpreading.EffortOf);
        long best = Choices(moves).Max(Worth);
        Assert.Equal(best, Worth(answer.Moves));
        Assert.InRange(answer.After, answer.Before, answer.Most);
    }

    [Fact]
    public void Exchanges_that_are_made_flower_as_was_promised()
    {
        AreaSequence area = Area(AllMid);
        SequenceAnswer answer = SequenceSpreading.Choose(area, SequenceMove.For(AllMid, Kernel, area, Start));
        AreaSequence after = Area(AllMid.Changed([.. answer.Moves.Select(m => m.Before.Id)], [.. answer.Moves.Select(m => m.After)]));
        int apart = answer.InFlower.Zip(after.InFlower).Count(x => x.First != x.Second);
        Assert.True(apart <= 2, $"{apart} days differ");
        Assert.True(after.Fullest.Planters < area.Fullest.Planters);
        Assert.True(after.InFlower.Count(n => n > 0) > area.InFlower.Count(n => n > 0) + 10);
    }

    [Fact]
    public void With_nothing_to_exchange_the_run_stays_as_it_is()
    {
        SequenceAnswer answer = SequenceSpreading.Choose(Area(AllMid), []);
        Assert.Empty(answer.Moves);
        Assert.Equal(answer.Before, answer.After);
    }

    [Fact]
    public void Kinds_go_whole_into_planters_and_neighbours_differ()
    {
        SpreadQuestion question = Ask(SpreadScheme.OneEach, ("tulip-mid-red", 16), ("tulip-late-dark", 16));
        SpreadAnswer answer = KindSpreading.Choose(AllMid, Kernel, question);
        Assert.Equal(4, answer.Planted.Count);
        Assert.All(answer.Planted, p => Assert.True(Assert.Single(p.Takes).Count >= p.Takes[0].Room.Least));
        for (int i = 1; i < answer.Planted.Count; i++)
            Assert.NotEqual(answer.Planted[i - 1].Takes[0].Room.Plant, answer.Planted[i].Takes[0].Room.Plant);
        foreach (KindAtHand kind in question.Kinds)
            Assert.Equal(
                kind.Count,
                answer.Planted.SelectMany(p => p.Takes).Where(t => t.Room.Plant == kind.Plant).Sum(t => t.Count)
                    + (answer.Left.FirstOrDefault(l => l.Plant == kind.Plant)?.Count ?? 0)
            );
    }

    [Fact]
    public void Early_mid_and_late_go_into_each_planter_once()
    {
        SpreadAnswer answer = KindSpreading.Choose(
            AllMid,
            Kernel,
            Ask(SpreadScheme.OneOfEachThird, ("crocus-early-violet", 60), ("tulip-mid-red", 40), ("tulip-mid-rose", 40), ("tulip-late-dark", 40)) with
            {
                NeighboursDiffer = false,
            }
        );
        Assert.Equal(4, answer.Planted.Count);
        Assert.All(answer.Planted, p => Assert.Equal([SpringThird.Early, SpringThird.Mid, SpringThird.Late], p.Takes.Select(t => t.Room.Third)));
        Assert.Empty(answer.Without);
    }

    [Fact]
    public void Too_few_for_all_leave_some_planters_out_with_the_reason_and_as_many_as_can_be_served()
    {
        SpreadQuestion question = Ask(SpreadScheme.OneEach, ("tulip-mid-red", 1000)) with { NeighboursDiffer = false };
        int least = question.Rooms(AllMid, Kernel)[0].Single().Least;
        SpreadAnswer answer = KindSpreading.Choose(
            AllMid,
            Kernel,
            question with
            {
                Kinds = [new KindAtHand(Demo.Plant("tulip-mid-red"), (2 * least) + 1)],
            }
        );
        Assert.Equal(2, answer.Planted.Count);
        Assert.Equal(2, answer.Without.Count);
        Assert.All(answer.Without, w => Assert.Equal(FewerKindsReason.TooFewLeft, w.Why));
        Assert.Empty(answer.Left);
    }

    [Fact]
    public void Contradictions_are_named_before_anything_is_solved()
    {
        var refused = Assert.Throws<InvalidInputException>(() =>
            KindSpreading.Choose(AllMid, Kernel, Ask(SpreadScheme.OneEach, ("tulip-mid-red", 16)))
        );
        Assert.Contains("conflicts with a single kind", refused.Message, StringComparison.Ordinal);
        Assert.Throws<InvalidInputException>(() =>
            KindSpreading.Choose(AllMid, Kernel, Ask(SpreadScheme.OneEach, ("petunia-magenta", 10), ("tulip-mid-red", 5)))
        );
        Assert.Throws<InvalidInputException>(() => KindSpreading.Choose(AllMid, Kernel, Ask(SpreadScheme.OneEach)));
    }

    private static AreaSequence Area(Plan plan) => AreaSequence.Of(plan, Kernel).First(a => a.Area.Id == Pots[0].AreaId);

    private static SpreadQuestion Ask(SpreadScheme scheme, params (string Plant, int Count)[] kinds) =>
        new(
            Pots,
            [.. kinds.Select(k => new KindAtHand(Demo.Plant(k.Plant), k.Count))],
            scheme,
            new LocalDate(2026, 10, 15),
            new LocalDate(2027, 6, 1),
            true
        );

    private static IEnumerable<List<SequenceMove>> Choices(IReadOnlyList<SequenceMove> moves)
    {
        IEnumerable<List<SequenceMove>> choices =
        [
            [],
        ];
        foreach (var here in moves.GroupBy(m => m.Planter.Id))
            choices = choices.SelectMany(c => here.Select(m => c.Append(m).ToList()).Append(c)).ToList();
        return choices;
    }
}
