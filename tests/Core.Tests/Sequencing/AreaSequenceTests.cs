using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Sequencing;

/// <summary>Bulbs over the planters of an area: neither all at once nor with gaps between.</summary>
public sealed class AreaSequenceTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord Mild = A.Record(2001, 8, A.Mild);
    private static readonly SeasonKernel Kernel = new(Mild, Start);

    private static readonly Plant Early = Tulip("early", 15, "#f2c72f");
    private static readonly Plant Mid = Tulip("mid", 110, "#c5283d");
    private static readonly Plant MidToo = Tulip("mid-too", 112, "#c92c40");
    private static readonly Plant Late = Tulip("late", 260, "#5b1f3c");
    private static readonly Plant[] Palette = [Early, Mid, MidToo, Late, A.Annual("pansy", -15, new FromInstall(0, 300))];

    [Fact, CommonPractice]
    public void One_kind_everywhere_flowers_all_at_once_and_one_of_each_does_not()
    {
        AreaSequence alike = Of("mid", "mid", "mid", "mid");
        Assert.Contains(alike.Findings, f => f.Fault == SequenceFault.AllAtOnce);
        Assert.Equal(4, alike.InFlower.Max());
        AreaSequence mixed = Of("early", "mid", "late", "late");
        Assert.DoesNotContain(mixed.Findings, f => f.Fault is SequenceFault.AllAtOnce or SequenceFault.ThirdMissing);
        Assert.Equal((4, 2), (alike.Fullest.Planters, mixed.Fullest.Planters));
    }

    [Fact, CommonPractice]
    public void Early_mid_and_late_are_told_by_when_the_kinds_flower_here()
    {
        AreaSequence area = Of("early", "mid", "late");
        Assert.Equal([SpringThird.Early, SpringThird.Mid, SpringThird.Late], area.Shows.Select(s => s.Third));
        Assert.Equal(area.Shows.OrderBy(s => s.First).Select(s => s.Plant), area.Shows.Select(s => s.Plant));
    }

    [Fact]
    public void A_third_that_nobody_planted_is_named()
    {
        Assert.Equal(
            [SpringThird.Early],
            Of("mid", "mid-too", "late").Findings.Where(f => f.Fault == SequenceFault.ThirdMissing).Select(f => (SpringThird)f.Says["third"]!)
        );
    }

    [Fact]
    public void Days_between_two_kinds_break_the_run_and_leave_an_area_bare_unless_something_else_is_in_colour()
    {
        AreaSequence bare = Of("early", "late");
        SequenceFinding broken = Assert.Single(bare.Findings, f => f.Fault == SequenceFault.Broken);
        Assert.True(broken.Days >= AreaSequence.BreakDays);
        Assert.Contains(bare.Findings, f => f.Fault == SequenceFault.AllBare);
        AreaSequence pansies = AreaSequence.Of(
            Plan(
                ["early", "late"],
                A.Show("over", Start.PlusDays(20), A.Day(2027, 7, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 9)) with
                {
                    PlanterId = "p0",
                }
            ),
            Kernel
        )[0];
        Assert.Contains(pansies.Findings, f => f.Fault == SequenceFault.Broken);
        Assert.DoesNotContain(pansies.Findings, f => f.Fault == SequenceFault.AllBare);
    }

    [Fact]
    public void One_planter_with_a_kind_that_looks_like_its_neighbours_is_asked_about()
    {
        SequenceFinding stray = Assert.Single(Of("mid", "mid", "mid", "mid-too").Findings, f => f.Fault == SequenceFault.Stray);
        Assert.Equal("p3", stray.Planter!.Id);
        Assert.DoesNotContain(Of("mid", "mid", "mid", "late").Findings, f => f.Fault == SequenceFault.Stray);
    }

    [Fact]
    public void Two_kinds_in_one_planter_count_as_one_planter_in_flower()
    {
        Plan plan = A.Plan([Pot(0)], Palette, [Bulbs(0, "mid", "mid-too")]);
        AreaSequence area = AreaSequence.Of(plan, Kernel)[0];
        Assert.Equal(1, area.InFlower.Max());
        Assert.Equal(2, area.Shows.Count);
        // Drawn upon each other they are no higher than the planter.
        Assert.Equal(2, area.Kinds.Count);
        Assert.InRange(Enumerable.Range(0, area.InFlower.Length).Max(d => area.Kinds.Sum(k => k.InFlower[d])), 0.5, 1.0001);
    }

    [Fact]
    public void Without_weather_or_bulbs_nothing_is_claimed()
    {
        AreaSequence blind = AreaSequence.Of(Plan(["mid"]), new SeasonKernel(null, Start))[0];
        Assert.Equal(SequencePhrase.NoSpringBulbs, blind.Sentence().Kind);
        Assert.Empty(blind.Findings);
        Assert.Empty(AreaSequence.Of(Plan([]), Kernel)[0].Findings);
    }

    [Fact]
    public void Exchanges_stay_in_the_genus_change_the_time_and_leave_what_is_planted_alone()
    {
        Plan plan = Plan(["mid", "mid", "mid"]);
        AreaSequence area = AreaSequence.Of(plan, Kernel)[0];
        IReadOnlyList<SequenceMove> moves = SequenceMove.For(plan, Kernel, area, Start);
        Assert.Equal(6, moves.Count);
        Assert.All(moves, m => Assert.Contains(m.Comes.Id, new[] { "early", "late" }));
        Assert.All(moves, m => Assert.Equal(m.Before.Items[0].Count, m.After.Items[0].Count));
        Assert.Empty(SequenceMove.For(plan, Kernel, area, A.Day(2026, 11, 1)));
    }

    [Theory, CommonPractice]
    [InlineData(true, 5, 10)]
    [InlineData(false, 5, 3)]
    [InlineData(false, 2, 5)]
    public void A_group_is_ten_of_a_kind_in_a_bed_and_a_clump_of_five_small_or_three_large_in_a_pot(bool bed, double heightCm, int least) =>
        Assert.Equal(least, BulbCluster.Least(bed ? A.Bed() : A.Pot(), A.Tulip("x", height: heightCm).Bulb!));

    private static AreaSequence Of(params string[] kinds) => AreaSequence.Of(Plan(kinds), Kernel)[0];

    private static Plan Plan(string[] kinds, params Display[] more) =>
        A.Plan([.. kinds.Select((_, i) => Pot(i)).DefaultIfEmpty(Pot(0))], Palette, [.. kinds.Select((k, i) => Bulbs(i, k)), .. more]);

    private static Planter Pot(int i) => A.Pot(id: $"p{i}");

    private static Display Bulbs(int i, params string[] kinds) =>
        A.Show($"b{i}", A.Day(2026, 10, 15), A.Day(2027, 6, 20), DisplayLayer.Bulbs, [.. kinds.Select(k => new DisplayItem(k, 8))]) with
        {
            PlanterId = $"p{i}",
        };

    private static Plant Tulip(string id, double threshold, string colour) =>
        A.Tulip(id, A.MidTulip with { ThresholdCd = threshold }) with
        {
            BotanicalName = "Tulipa, a group",
            Windows = [new ColourWindow(ColourPart.Flower, [colour], 0.6, A.MidTulip with { ThresholdCd = threshold })],
        };
}
