using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

/// <summary>What frost takes over a whole stay, of the plants that ship with the app.</summary>
[CommonPractice]
public sealed class StayLossesTests
{
    private static readonly WeatherRecord NewYork = A.Record("New York");

    [Theory]
    [InlineData(5, 20)]
    [InlineData(6, 20)]
    [InlineData(8, 10)]
    [InlineData(9, 10)]
    public void Tender_bedding_that_should_stand_into_December_is_warned_of_fall_frost_whenever_it_went_in(int month, int day)
    {
        IReadOnlyList<Remark> remarks = RemarksOn("lantana-gold", A.Day(2027, month, day), A.Day(2027, 12, 20));
        Remark frost = Assert.Single(remarks, r => r.Kind == RemarkKind.SpoiledByFrost);
        // New York's first frosts of 2012 to 2015 came between 10 and 30 November.
        Assert.InRange(frost.Remedies[0].After.Lift, A.Day(2027, 11, 5), A.Day(2027, 12, 1));
    }

    [Fact]
    public void The_install_warning_follows_the_area_where_it_is_colder_than_the_station()
    {
        LocalDate Clear(double pocketC)
        {
            Plan plan = Plan("lantana-gold", A.Day(2027, 3, 25), A.Day(2027, 9, 1), pocketC: pocketC);
            Remark early = Assert.Single(new DisplayChecks(plan, NewYork).All(A.Day(2027, 1, 1)), r => r.Kind == RemarkKind.BeforeAllClear);
            return early.Remedies[0].After.Install;
        }
        Assert.True(Clear(2) >= Clear(0).PlusDays(4));
    }

    [Fact]
    public void Angelonia_stops_growing_at_ten_degrees_and_is_spoiled_only_by_frost()
    {
        Plant angelonia = A.Shipped("angelonia-blue");
        Assert.True(angelonia.GrowthBaseC >= 8 && angelonia.TopDamageC < 0);
        WeatherRecord chilly = A.Record(2001, 6, _ => (3, 9));
        StayLosses losses = StayLosses.Of(angelonia, A.Stands(A.Day(2027, 5, 1), A.Day(2027, 9, 1)), StayLosses.Seasons(chilly, A.Day(2027, 5, 1)));
        Assert.Equal(0, losses.Odds);
    }

    [Fact]
    public void The_same_pansy_stands_less_in_early_fall_and_after_a_mild_spell_than_in_deep_winter()
    {
        // One night of −9 °C, in early October, in late January, or in late January after a fortnight at 12 °C.
        LossKind After(int month, int day, bool mild)
        {
            WeatherRecord record = A.Record(2001, 6, d =>
            {
                double mean = 8 - (8 * Math.Cos(2 * Math.PI * (d.DayOfYear - 200) / 365.25 + Math.PI));
                if (mild && d.Month == 1 && d.Day > 10)
                    mean = 13;
                return (d.Month, d.Day) == (month, day) ? (-9, mean + 4) : (mean - 3, mean + 3);
            });
            StayLosses losses = StayLosses.Of(
                A.Shipped("pansy-blue"),
                A.Stands(A.Day(2026, 9, 20), A.Day(2027, 5, 1)),
                StayLosses.Seasons(record, A.Day(2026, 9, 20))
            );
            return losses.Years[1].Kind;
        }
        Assert.Equal(LossKind.Frost, After(10, 5, mild: false));
        Assert.Equal(LossKind.None, After(1, 28, mild: false));
        Assert.Equal(LossKind.Frost, After(1, 28, mild: true));
    }

    [Fact]
    public void Hardiness_is_gained_slowly_lost_quickly_and_never_beyond_its_bounds()
    {
        double[] warm = [.. Enumerable.Repeat(15.0, 30), .. Enumerable.Repeat(-2.0, 60), .. Enumerable.Repeat(14.0, 30)];
        float[] hardened = Hardening.Of(warm);
        Assert.All(hardened, h => Assert.InRange(h, 0f, 1f));
        int Days(int from, Func<float, bool> until) => Array.FindIndex(hardened, from, h => until(h)) - from;
        Assert.True(Days(30, h => h > 0.9) > 2 * Days(90, h => h < 0.1));
        Assert.Equal(-13, Hardening.SpoiledAtC(A.Shipped("pansy-blue"), 1), 1e-9);
        Assert.InRange(Hardening.SpoiledAtC(A.Shipped("pansy-blue"), 0), -5, -3);
        // Tender tops do not harden.
        Assert.Equal(Hardening.SpoiledAtC(A.Shipped("angelonia-blue"), 1), Hardening.SpoiledAtC(A.Shipped("angelonia-blue"), 0));
    }

    [Fact]
    public void Soft_stock_from_a_warm_house_is_lost_in_its_first_week_where_hardened_stock_is_not()
    {
        WeatherRecord record = A.Record(2001, 6, d => d.Month == 5 && d.Day == 12 ? (0.4, 14)
            : d.Month is > 4 and < 10 ? (9, 20)
            : (-3, 4));
        Remark[] Said(HardenOffSchool school)
        {
            Plan plan = Plan("angelonia-blue", A.Day(2027, 5, 10), A.Day(2027, 9, 1), rules: new HouseRules { HardenOff = school });
            return [.. new DisplayChecks(plan, record).All(A.Day(2027, 1, 1)).Where(r => r.Kind == RemarkKind.SoftFromWarmHouse)];
        }
        Assert.Empty(Said(HardenOffSchool.HardenedOff));
        Assert.Equal(7, Assert.Single(Said(HardenOffSchool.FromWarmHouse)).Says["days"]);
    }

    [Fact]
    public void What_is_sold_as_an_annual_and_lives_on_from_its_roots_may_return_rather_in_a_bed_than_in_a_pot()
    {
        RootSurvival In(ThermalClass place) => RootSurvival.From(GroundClimate.Of(NewYork.ForOdds).Of(place), NewYork.ForOdds);
        RootSurvival bed = In(BulbPlace.UsualBed.Class);
        RootSurvival pot = In(ThermalClass.Pot(40, 36, WallMaterial.Terracotta));
        foreach (string id in new[] { "lantana-gold", "tall-verbena-purple", "salvia-blue", "dichondra-silver", "angelonia-blue" })
            Assert.True(StayLosses.ReturnOdds(A.Shipped(id), bed) > StayLosses.ReturnOdds(A.Shipped(id), pot));
        Assert.Null(StayLosses.ReturnOdds(A.Shipped("marigold-orange"), bed));
        Assert.Null(StayLosses.ReturnOdds(A.Shipped("coneflower-purple"), bed));
        Assert.Equal(Quantity.OutOfTen(0.6, 0), StayLosses.MayReturnBy(0.6)!["odds"]);
        Assert.Null(StayLosses.MayReturnBy(0.01));
    }

    [Fact]
    public void With_a_single_year_of_weather_nothing_is_said_of_stays_that_it_cannot_hold()
    {
        Plan plan = A.Plan(
            [A.Shipped("rosemary-blue")],
            A.Show("one", A.Day(2027, 4, 1), A.Day(2029, 4, 1), DisplayLayer.Standing, new DisplayItem("rosemary-blue", 3))
        );
        Assert.DoesNotContain(new DisplayChecks(plan, A.Record(2001, 1, _ => (-20, -10))).All(A.Day(2027, 1, 1)), r =>
            r.Kind == RemarkKind.CutBackByWinter
        );
    }

    private static Plan Plan(string id, LocalDate install, LocalDate lift, double pocketC = 0, HouseRules? rules = null) =>
        new(
            Site.Default with
            {
                Rules = rules ?? HouseRules.Default,
            },
            [new Area("quay", "Quay", pocketC)],
            [A.Pot()],
            [A.Shipped(id)],
            [A.Show("one", install, lift, DisplayLayer.Seasonal, new DisplayItem(id, 5))],
            []
        );

    private static IReadOnlyList<Remark> RemarksOn(string id, LocalDate install, LocalDate lift) =>
        [.. new DisplayChecks(Plan(id, install, lift), NewYork).All(A.Day(2027, 1, 1))];
}
