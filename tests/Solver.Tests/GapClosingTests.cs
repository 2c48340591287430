using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>Bare spells closed on the demo site, whose bare planters are known.</summary>
public sealed class GapClosingTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly Plan Demo = Shipped.Plan;
    private static readonly WeatherRecord Record = Shipped.Record;
    private static readonly SeasonKernel Kernel = new(Record, Start);
    private static readonly SiteFlowering Flowering = new(Record, Start);
    private static readonly GapQuestion Today = new(new LocalDate(2026, 11, 25));

    [Fact]
    public void Most_of_the_bare_days_close_and_the_year_computed_anew_says_so_too()
    {
        GapAnswer answer = Close(Today);
        Assert.True(answer.Moves.Count >= 5);
        Assert.InRange(answer.Days, answer.BareDays / 2, answer.BareDays);
        Plan after = GapClosing.Apply(Demo, answer.Moves);
        int before = Bare(Kernel.Of(Demo));
        int left = Bare(Kernel.Of(after));
        Assert.True(before - left >= answer.Days * 0.9, $"{before} bare before, {left} after, {answer.Days} promised");
    }

    [Fact]
    public void On_a_saturday_late_in_november_nothing_is_proposed_that_cannot_be_delivered_dug_in_or_take_hold()
    {
        GapQuestion saturday = new(new LocalDate(2026, 11, 28));
        var time = new PlantingTime(Kernel);
        IReadOnlyList<GapMove> moves = Close(saturday).Moves;
        Assert.NotEmpty(moves);
        foreach (GapMove move in moves)
        {
            foreach (Display display in move.Displays.Where(d => !move.Replaces.Contains(d.Id)))
            {
                Assert.True(display.Install >= saturday.From.PlusDays(move.Buys ? saturday.LeadDays : 0), move.Does.Content);
                Assert.True(Demo.Site.RulesFor(move.Planter).WorksOn(display.Install), move.Does.Content);
                Assert.False(time.IsFrozen(move.Planter, display.Install), move.Does.Content);
                Assert.All(display.Items, i => Assert.Empty(time.Against(Demo.Plant(i.PlantId), i.Forced, display.Install)));
                Assert.All(display.Items, i => Assert.True(Demo.Plant(i.PlantId).Suits(move.Planter.Exposure), move.Does.Content));
            }
        }
    }

    [Fact]
    public void The_answer_stays_within_a_fiftieth_of_the_bound()
    {
        GapAnswer answer = Close(Today);
        Assert.InRange(answer.Days, (int)Math.Ceiling(answer.MostDays * 0.98), answer.MostDays);
    }

    [Fact]
    public void Trying_every_choice_by_hand_never_beats_the_solver()
    {
        foreach (string[] planters in new[] { new[] { "kiosk-basket" }, ["seat-trough-right", "wall-pot-west"], ["shade-trough"] })
        {
            GapQuestion question = Today with { PlanterIds = planters.ToHashSet(StringComparer.Ordinal), Budget = 30 };
            List<GapMove> moves =
            [
                .. planters
                    .SelectMany(p => GapMoves.For(Demo, Demo.FindPlanter(p)!, Kernel, Flowering, question))
                    .Where((_, i) => i % 2 == 0)
                    .Take(13),
            ];
            List<PlanterSeason> bare = [.. planters.Select(p => Kernel.Of(Demo, Demo.FindPlanter(p)!))];
            GapAnswer answer = GapClosing.Choose(Demo, bare, moves, question, 20);
            int best = 0;
            long least = long.MaxValue;
            foreach (List<GapMove> choice in Choices(moves, question))
                best = Math.Max(best, Days(choice));
            foreach (List<GapMove> choice in Choices(moves, question).Where(c => Days(c) >= Math.Ceiling(best * 0.98)))
                least = Math.Min(least, choice.Sum(GapClosing.EffortOf));
            Assert.Equal(best, answer.MostDays);
            Assert.Equal(least, answer.Moves.Sum(GapClosing.EffortOf));
        }
    }

    [Fact]
    public void Money_stock_and_crew_set_limits_that_hold()
    {
        GapAnswer poor = Close(Today with { Budget = 20 });
        Assert.True(poor.Cost <= 20);
        Assert.True(poor.Days < Close(Today).Days);
        GapAnswer stock = Close(Today with { OnlyStock = true });
        Assert.All(stock.Moves, m => Assert.False(m.Buys));
        Assert.All(Demo.Lots, l => Assert.True(stock.Moves.Sum(m => m.FromStock.Where(s => s.LotId == l.Id).Sum(s => s.Count)) <= l.Count));
        Assert.Single(Close(Today with { MostPlanters = 1 }).Moves.Select(m => m.Planter.Id).Distinct());
        Assert.DoesNotContain(Close(Today with { MostKinds = 0 }).Moves, m => m.Buys);
    }

    [Fact]
    public void Only_the_ways_and_colours_that_are_allowed_are_proposed()
    {
        Assert.All(Close(Today with { Kinds = new HashSet<GapMoveKind> { GapMoveKind.MoveTurn } }).Moves, m =>
            Assert.Equal(GapMoveKind.MoveTurn, m.Kind)
        );
        GapAnswer yellow = Close(
            Today with
            {
                Colours = ["#f3c62b"],
                Kinds = new HashSet<GapMoveKind> { GapMoveKind.Fill, GapMoveKind.PlugIn },
            }
        );
        Assert.All(yellow.Moves, m =>
            Assert.Contains(m.Plant!.Windows, w => w.Colours.Any(c => Core.Colour.ColourDifference.Between(c, "#f3c62b") <= 30))
        );
    }

    [Fact]
    public void Nothing_before_today_is_changed()
    {
        LocalDate late = new(2027, 7, 1);
        GapAnswer answer = Close(Today with { From = late });
        Assert.All(answer.Moves, m => Assert.All(m.Displays.Where(d => !m.Replaces.Contains(d.Id)), d => Assert.True(d.Install >= late)));
        Assert.All(answer.Moves, m => Assert.Equal("seat-trough-right", m.Planter.Id));
    }

    [Fact]
    public void No_change_brings_a_display_that_loses_plants_or_breaks_a_house_rule()
    {
        GapAnswer answer = Close(Today);
        var now = new DisplayChecks(Demo, Record).All(Start).Select(r => (r.PlanterId, r.Says.Key)).ToHashSet();
        var then = new DisplayChecks(GapClosing.Apply(Demo, answer.Moves), Record);
        foreach (Display display in answer.Moves.SelectMany(m => m.Displays))
            Assert.DoesNotContain(then.For(display, thorough: false), r =>
                r.Gravity is Gravity.Loses or Gravity.AgainstRule && !now.Contains((r.PlanterId, r.Says.Key))
            );
    }

    [Fact]
    public void Bare_pots_of_late_winter_are_offered_forced_bulbs_from_the_frame()
    {
        GapMove forced = Assert.Single(Moves("kiosk-basket"), m => m.Kind == GapMoveKind.PlugIn && m.FromStock.Count > 0);
        Assert.Equal(("forced-daffodils", 0m), (forced.FromStock[0].LotId, forced.Cost));
        Assert.True(forced.Displays[0].Items[0].Forced);
    }

    [Fact]
    public void Limits_that_contradict_each_other_are_named_as_a_conflict()
    {
        var both = Assert.Throws<InvalidInputException>(() =>
            Close(
                Today with
                {
                    OnlyStock = true,
                    Kinds = new HashSet<GapMoveKind> { GapMoveKind.CutBack },
                }
            )
        );
        Assert.Contains("conflicts with", both.Message, StringComparison.Ordinal);
        Assert.Throws<InvalidInputException>(() =>
            Close(
                Today with
                {
                    MostKinds = 0,
                    Kinds = new HashSet<GapMoveKind> { GapMoveKind.Fill },
                }
            )
        );
        Assert.Throws<InvalidInputException>(() => Close(Today with { Colours = ["red"] }));
    }

    [Fact]
    public void Without_weather_or_planters_nothing_is_proposed_and_nothing_fails()
    {
        var none = new SeasonKernel(null, Start);
        Assert.Empty(GapClosing.Close(Demo, none, new SiteFlowering(null, Start), Today).Moves);
        var empty = new Plan(Site.Default, [], [], Demo.Palette, [], []);
        Assert.Equal(0, GapClosing.Close(empty, Kernel, Flowering, Today).BareDays);
    }

    [Fact]
    public void Work_that_is_called_off_stops_and_a_first_answer_comes_before_the_last()
    {
        using var off = new CancellationTokenSource();
        off.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() => GapClosing.Close(Demo, Kernel, Flowering, Today, cancel: off.Token));
        var seen = new List<int>();
        GapClosing.Close(Demo, Kernel, Flowering, Today, sofar: new RecordedProgress(seen));
        Assert.Equal(5, seen.Max());
    }

    [Fact]
    public void Every_change_explains_what_was_bare_before_and_after()
    {
        GapMove move = Moves("kiosk-basket")[0];
        Working working = move.Explain();
        var bare = Assert.IsType<Fact>(Assert.Single((IEnumerable<object?>)((Fact)working.Inputs[0].Value!)["items"]!));
        Assert.Equal((new LocalDate(2027, 1, 11), new LocalDate(2027, 3, 21)), (bare["firstDay"], bare["lastDay"]));
        Assert.Equal((28, 28), (bare["yearsBare"], bare["years"]));
        Assert.Equal(WorkingPhrase.PlanterDays, Assert.IsType<Fact>(Close(Today).Explain().Value).Kind);
    }

    private static GapAnswer Close(GapQuestion question) => GapClosing.Close(Demo, Kernel, Flowering, question);

    private static IReadOnlyList<GapMove> Moves(string planter) => GapMoves.For(Demo, Demo.FindPlanter(planter)!, Kernel, Flowering, Today);

    private static int Bare(SiteYear year) => year.BareSpells.Where(s => s.Spell.LastDay >= Today.From).Sum(s => s.Spell.Days);

    private static IEnumerable<List<GapMove>> Choices(List<GapMove> moves, GapQuestion question)
    {
        for (int mask = 0; mask < 1 << moves.Count; mask++)
        {
            List<GapMove> choice = [.. moves.Where((_, i) => (mask & (1 << i)) != 0)];
            bool allowed =
                choice.GroupBy(m => m.Planter.Id).All(g => g.Count() <= question.MostPerPlanter)
                && choice.Sum(m => m.Cost) <= question.Budget
                && !choice.Any(a => choice.Any(b => a != b && a.Conflicts(b)))
                && Demo.Lots.All(l => choice.Sum(m => m.FromStock.Where(s => s.LotId == l.Id).Sum(s => s.Count)) <= l.Count);
            if (allowed)
                yield return choice;
        }
    }

    private static int Days(List<GapMove> choice) =>
        choice.GroupBy(m => m.Planter.Id).Sum(g => Enumerable.Range(0, 365).Count(d => g.Any(m => m.Gains[d])))
        - choice.Sum(m => m.Losses.Cast<bool>().Count(l => l));

    private sealed class RecordedProgress(List<int> seen) : IProgress<(int Planters, GapAnswer? Answer)>
    {
        public void Report((int Planters, GapAnswer? Answer) value)
        {
            lock (seen)
                seen.Add(value.Planters);
        }
    }
}
