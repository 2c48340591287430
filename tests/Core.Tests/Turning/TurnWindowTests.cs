using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Turning;

namespace UnrulyMeadow.Core.Tests.Turning;

/// <summary>When to turn: too early loses tender stock, too late loses colour.</summary>
public sealed class TurnWindowTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);

    // Last frosts fall between 25 April and 14 May; September's first after the 20th.
    private static readonly WeatherRecord Frosty = A.Record(2001, 12, d =>
    {
        (double min, double max) = A.Mild(d);
        bool late = d.Month is 4 or 5 && d < new LocalDate(d.Year, 4, 25).PlusDays((d.Year - 2000) * 2 % 20);
        return (late || d.Month is 12 or 1 or 2 or 3 ? Math.Min(min, -2) : min, max);
    });

    private static readonly SeasonKernel Kernel = new(Frosty, Start);
    private static readonly Turn Summer = new("summer", "Summer turn", A.Day(2027, 4, 26), A.Day(2027, 4, 26));

    private static readonly Plan Plan = A.Plan(
        [A.Pot()],
        [
            A.Annual("pansy", -15, new FromInstall(0, 240)),
            A.Annual("tender", -0.5, new FromInstall(4)) with
            {
                GrowthPerDegreeDay = 0.004,
                SpreadAtPurchaseCm = 12,
                MatureSpreadCm = 30,
            },
        ],
        [
            A.Show("winter", A.Day(2026, 9, 20), Summer.FirstDay, DisplayLayer.Seasonal, new DisplayItem("pansy", 9)),
            A.Show("next", Summer.FirstDay, A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("tender", 8)),
        ],
        [Summer]
    );

    [Fact, CommonPractice]
    public void Tender_stock_waits_for_the_all_clear_though_what_stands_still_looks_good()
    {
        TurnWindow window = TurnWindow.Of(Plan, Summer, Kernel)!;
        Assert.InRange(window.Best!.FirstDay, A.Day(2027, 5, 3), A.Day(2027, 5, 24));
        Assert.True(window.Best.OldColour > 0.9);
        Assert.True(window.WeekEarlierFrost > 0);
        Assert.True(window.WeekLaterCosts > 0);
        Assert.NotNull(window.Advice()["earlier"]);
    }

    [Fact]
    public void A_day_that_frost_hits_more_often_than_the_all_clear_allows_is_never_recommended_and_no_loss_is_praised()
    {
        for (int days = -28; days <= 42; days += 14)
        {
            LocalDate first = Summer.FirstDay.PlusDays(days);
            var turn = Summer with { FirstDay = first, LastDay = first };
            Plan moved = A.Plan([A.Pot()], Plan.Palette, [.. Plan.Displays.Select(d => TurnChange.Moved(Summer, d, days))], [turn]);
            TurnWindow window = TurnWindow.Of(moved, turn, Kernel)!;
            Assert.True(
                window.Best!.FrostLoss <= Math.Max(FrostOdds.UsualRisk, window.Options.Where(o => o.Hinders.Count == 0).Min(o => o.FrostLoss)),
                $"{first}: {window.Best.FrostLoss}"
            );
            Assert.All(["more", "less", "later"], p => Assert.True(window.Advice()[p] is not (< 0)));
            Assert.True(window.Worth(window.Best) <= window.Best.ColourDays);
        }
    }

    [Fact]
    public void A_turn_that_moves_takes_what_stays_on_and_what_is_plugged_in_with_it_and_drops_cuts_that_fall_outside()
    {
        Display next = Plan.Displays[1] with { Cuts = [new CutBack("tender", A.Day(2027, 4, 28))] };
        Display moved = TurnChange.Moved(Summer, next, 7);
        Assert.Equal((next.Install.PlusDays(7), next.Lift, 0), (moved.Install, moved.Lift, moved.Cuts.Count));
        Display later = A.Show(
            "later",
            A.Day(2027, 9, 1),
            A.Day(2027, 11, 1),
            DisplayLayer.Seasonal,
            new DisplayItem("tender", 8) { Since = Summer.FirstDay }
        );
        Assert.Equal(Summer.FirstDay.PlusDays(7), TurnChange.Moved(Summer, later, 7).Items[0].Since);
        Assert.Same(
            Plan.Displays[0],
            TurnChange.Moved(Summer with { FirstDay = A.Day(2027, 6, 1), LastDay = A.Day(2027, 6, 2) }, Plan.Displays[0], 7)
        );
    }

    [Fact]
    public void Each_week_earlier_risks_more_frost_and_each_week_later_leaves_less_time_to_grow()
    {
        IReadOnlyList<TurnOption> options = TurnWindow.Of(Plan, Summer with { FullBy = A.Day(2027, 6, 20) }, Kernel)!.Options;
        Assert.Equal(options.OrderByDescending(o => o.FrostLoss).Select(o => o.FirstDay), options.Select(o => o.FirstDay));
        List<TurnOption> safe = [.. options.Where(o => o.FrostLoss == 0)];
        Assert.True(safe[0].FullShare > safe[^1].FullShare);
    }

    [Fact]
    public void A_day_before_delivery_or_after_the_next_display_is_forbidden_with_its_reason()
    {
        TurnWindow window = TurnWindow.Of(Plan, Summer with { Delivery = A.Day(2027, 5, 20) }, Kernel)!;
        Assert.All(window.Options.Where(o => o.FirstDay < A.Day(2027, 5, 20)), o => Assert.Contains(o.Hinders, h => h.Kind is TurnHinder.Delivery));
        Assert.True(window.Best!.FirstDay >= A.Day(2027, 5, 20));
    }

    [Fact]
    public void The_school_that_waits_turns_once_most_years_show_no_more()
    {
        Plan fades = A.Plan([A.Pot()], [A.Annual("pansy", -15, new FromInstall(0, 225)), Plan.Plant("tender")], Plan.Displays, [Summer]);
        TurnWindow window = TurnWindow.Of(fades, Summer, Kernel)!;
        Assert.InRange(window.WhenPast!.FirstDay, A.Day(2027, 5, 3), A.Day(2027, 5, 10));
        Plan lasts = A.Plan([A.Pot()], [A.Annual("pansy", -15, new FromInstall(0, 300)), Plan.Plant("tender")], Plan.Displays, [Summer]);
        Assert.Null(TurnWindow.Of(lasts, Summer, Kernel)!.WhenPast);
    }

    [Fact, CommonPractice]
    public void Bulbs_go_in_once_the_soil_is_below_15_degrees()
    {
        var fall = new Turn("bulbs", "Bulb planting", A.Day(2026, 10, 1), A.Day(2026, 10, 1));
        Plan bulbs = A.Plan(
            [A.Pot()],
            [A.Tulip()],
            [A.Show("stack", fall.FirstDay, A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 11))],
            [fall]
        );
        TurnWindow window = TurnWindow.Of(bulbs, fall, Kernel)!;
        Assert.Contains(window.Options[0].Hinders, h => h.Kind is PlantingHinder.SoilTooWarm);
        Assert.InRange(window.Best!.FirstDay, A.Day(2026, 9, 25), A.Day(2026, 11, 12));
    }

    [Fact]
    public void A_turn_that_changes_nothing_or_has_no_weather_has_no_window()
    {
        Assert.Null(TurnWindow.Of(Plan, new Turn("empty", "empty", A.Day(2027, 2, 1), A.Day(2027, 2, 2)), Kernel));
        Assert.Null(TurnWindow.Of(Plan, Summer, new SeasonKernel(null, Start)));
    }

    [Fact]
    public void In_a_partial_turn_some_plants_stay_others_go_and_what_stays_is_not_bought()
    {
        Display before = A.Show(
            "before",
            A.Day(2026, 9, 20),
            Summer.FirstDay,
            DisplayLayer.Seasonal,
            new DisplayItem("pansy", 9) { Fate = PlantFate.Compost },
            new DisplayItem("tender", 3)
        );
        Display next = TurnChange.Next(before, "next", Summer.FirstDay, A.Day(2027, 9, 1), ["pansy"], [new DisplayItem("tender", 8)]);
        Assert.Equal((before.Install, null), (next.Items[0].Since!.Value, next.Items[0].Fate));
        Plan plan = A.Plan([A.Pot()], Plan.Palette, [before, next], [Summer]);
        TurnChange change = Assert.Single(TurnChange.Of(plan, Summer));
        Assert.Equal(("pansy", 9), (change.Stays.Single().Plant.Id, change.Stays.Single().Count));
        Assert.Equal(("tender", 8), (change.ComesIn.Single().Plant.Id, change.ComesIn.Single().Count));
        Assert.Equal(("tender", 3), (change.GoesOut.Single().Plant.Id, change.GoesOut.Single().Count));
        Assert.Equal("tender", Assert.Single(Core.Work.TurnOrder.For(plan, Summer).Lines).Plant.Id);
    }
}
