using NodaTime;
using UnrulyMeadow.Core.Ahead;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Ahead;

/// <summary>A plan carried on over the years: bulbs, bedding between growing shrubs, and what each year costs.</summary>
public sealed class YearsAheadTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord Mild = A.Record(2001, 8, A.Mild);
    private static readonly Dictionary<LocalDate, SeasonKernel> Kernels = [];

    private static readonly Plant Tulip = A.Tulip() with
    {
        BotanicalName = "Tulipa, a group",
        ReturnByYear = [0.6, 0.35],
        Packs = [new Pack("bag of 10", 10, 5)],
    };
    private static readonly Plant Bedding = A.Annual("bedding", -0.5) with { Packs = [new Pack("pot", 1, 2)] };
    private static readonly Plant Shrub = A.Annual("shrub", -30) with
    {
        LifeForm = LifeForm.Shrub,
        SpreadAtPurchaseCm = 20,
        MatureSpreadCm = 90,
        GrowthPerDegreeDay = 0.0008,
        RootKillingC = -25,
    };
    private static readonly Plant Tree = Shrub with { Id = "tree", CommonName = "tree", LifeForm = LifeForm.Tree };

    private static readonly Display Stack = A.Show(
        "stack",
        A.Day(2026, 10, 15),
        A.Day(2027, 5, 20),
        DisplayLayer.Bulbs,
        new DisplayItem("tulip", 10)
    );
    private static readonly Display Summer = A.Show(
        "summer",
        A.Day(2027, 5, 20),
        A.Day(2027, 9, 1),
        DisplayLayer.Seasonal,
        new DisplayItem("bedding", 60)
    );

    [Fact, CommonPractice]
    public void Tulips_that_are_lifted_are_bought_anew_each_year()
    {
        YearsAhead ahead = Of(A.Plan([Tulip], Stack), 4, TulipCycle.LiftEachYear);
        Assert.Equal([10, 10, 10, 10], ahead.Years.Select(y => y.BulbCount));
        // Spares of 5 % on ten make eleven: two bags.
        Assert.All(ahead.Years, y => Assert.Equal(10, y.Cost.Bulbs));
        Assert.All(ahead.Years, y => Assert.Equal(ahead.Years[0].Year.Planters[0].DaysInColour, y.Year.Planters[0].DaysInColour, 3.0));
    }

    [Fact, CommonPractice]
    public void Tulips_that_are_left_dwindle_and_are_replaced_in_the_third_year()
    {
        YearsAhead ahead = Of(A.Plan([Tulip], Stack), 5, TulipCycle.LeaveAndReplace);
        Assert.Equal([10, 0, 10, 0, 10], ahead.Years.Select(y => y.BulbCount));
        Assert.Equal([A.Day(2028, 10, 15), A.Day(2030, 10, 15)], ahead.Ahead.Due.Where(d => d.Kind == DueKind.ReplaceBulbs).Select(d => d.Day));
        Assert.Equal(2, ahead.Ahead.Due[0].Says["springs"]);
        Assert.Equal(0.35, ((Quantity)ahead.Ahead.Due[0].Says["share"]!).Value, 1e-9);
        double first = ahead.Years[0].Year.Planters[0].Cover50.Max();
        double second = ahead.Years[1].Year.Planters[0].Cover50.Max();
        Assert.InRange(second / first, 0.5, 0.7);
        Assert.True(ahead.Cost < Of(A.Plan([Tulip], Stack), 5, TulipCycle.LiftEachYear).Cost);
        Assert.Equal(A.Day(2028, 5, 20), ahead.Years[0].Changed.Single().Lift);
    }

    [Fact]
    public void The_house_rule_decides_where_nobody_says_and_a_stack_planned_for_years_is_left()
    {
        Assert.Equal([10, 10, 10], Of(A.Plan([Tulip], Stack), 3).Years.Select(y => y.BulbCount));
        var perennial = new Plan(
            Site.Default with
            {
                Rules = HouseRules.Default with { Tulips = TulipSchool.Perennial },
            },
            [new Area("quay", "Quay", 0)],
            [A.Pot()],
            [Tulip],
            [Stack],
            []
        );
        Assert.Equal([10, 0, 10], Of(perennial, 3).Years.Select(y => y.BulbCount));
        Assert.Equal([10, 0, 0, 10], Of(A.Plan([Tulip], Stack with { Lift = A.Day(2029, 5, 20) }), 4).Years.Select(y => y.BulbCount));
    }

    [Fact]
    public void Bulbs_that_come_back_are_never_replaced()
    {
        Plant crocus = Tulip with { Id = "crocus", CommonName = "crocus", ReturnByYear = [1.1, 1.3, 1.5] };
        YearsAhead ahead = Of(A.Plan([crocus], Stack with { Items = [new DisplayItem("crocus", 10)] }), 6, TulipCycle.LeaveAndReplace);
        Assert.Equal([10, 0, 0, 0, 0, 0], ahead.Years.Select(y => y.BulbCount));
        Assert.DoesNotContain(ahead.Ahead.Due, d => d.Kind == DueKind.ReplaceBulbs);
    }

    [Fact, CommonPractice]
    public void Young_shrubs_close_over_their_bed_and_each_year_takes_less_bedding_until_none()
    {
        Plan plan = InBed(Shrub, 14);
        YearsAhead ahead = Of(plan, 6);
        GapAhead gap = Assert.Single(ahead.Ahead.Gaps);
        Assert.Equal(gap.Cover.Order(), gap.Cover);
        Assert.Equal(60, gap.Bedding[0]);
        Assert.Equal(gap.Bedding.OrderDescending(), gap.Bedding);
        Assert.True(gap.Bedding[2] < gap.Bedding[1]);
        Assert.Equal(0, gap.Bedding[^1]);
        Assert.Single(ahead.Ahead.Due, d => d.Kind == DueKind.NoMoreBedding);
        Assert.True(ahead.Years[^1].Cost.Bedding < ahead.Years[0].Cost.Bedding);
        // What is left to bed out is in proportion to what is left open.
        Assert.Equal(60 * (1 - gap.Cover[1]) / (1 - gap.Cover[0]), gap.Bedding[1], 1.0);
    }

    [Fact]
    public void Trees_are_underplanted_and_close_no_gap() => Assert.Empty(Of(InBed(Tree, 14), 4).Ahead.Gaps);

    [Fact, CommonPractice]
    public void Woody_plants_long_in_a_container_and_those_that_come_out_are_named()
    {
        Display standing = A.Show("standing", A.Day(2023, 4, 1), A.Day(2029, 4, 1), DisplayLayer.Standing, new DisplayItem("shrub", 1));
        YearsAhead ahead = Of(A.Plan([Shrub], standing), 5);
        Assert.Equal(
            [(DueKind.LongInContainer, A.Day(2028, 4, 1)), (DueKind.StandingComesOut, A.Day(2029, 4, 1))],
            ahead.Ahead.Due.Select(d => (d.Kind, d.Day))
        );
    }

    [Fact]
    public void What_is_planned_for_a_later_year_stays_as_planned()
    {
        Display next = A.Show("own", A.Day(2028, 4, 20), A.Day(2028, 10, 1), DisplayLayer.Seasonal, new DisplayItem("bedding", 5));
        YearsAhead ahead = Of(A.Plan([Bedding], Summer, next), 3);
        Assert.Equal([60, 5, 60], ahead.Years.Select(y => y.BeddingCount));
        Assert.Empty(ahead.Years[1].Added);
        Assert.Equal("pot-seasonal-2029-05", Assert.Single(ahead.Years[2].Added).Id);
    }

    [Fact]
    public void A_display_of_29_February_goes_in_on_the_28th_of_other_years()
    {
        Display leap = A.Show("leap", A.Day(2028, 2, 29), A.Day(2028, 5, 1), DisplayLayer.Seasonal, new DisplayItem("bedding", 4));
        YearsAhead ahead = Of(A.Plan([Bedding], leap), 2, start: A.Day(2027, 9, 1));
        Assert.Equal(A.Day(2029, 2, 28), Assert.Single(ahead.Years[1].Added).Install);
    }

    [Fact]
    public void Winters_that_kill_roots_in_a_container_are_reckoned_into_the_cost()
    {
        // Every second winter falls to −30 °C for a fortnight.
        WeatherRecord hard = A.Record(2001, 9, d => d.Month == 1 && d.Day < 15 && d.Year % 2 == 0 ? (-30, -20) : A.Mild(d));
        Plant tender = Shrub with { RootKillingC = -8, TopDamageC = -20, Packs = [new Pack("pot", 1, 40)] };
        Plan plan = A.Plan([tender], A.Show("standing", A.Day(2026, 4, 1), A.Day(2040, 4, 1), DisplayLayer.Standing, new DisplayItem("shrub", 1)));
        var kernels = new Dictionary<LocalDate, SeasonKernel>();
        YearsAhead ahead = YearsAhead.Of(plan, new AheadQuestion(Start, 2), s =>
            kernels.TryGetValue(s, out SeasonKernel? k) ? k : kernels[s] = new SeasonKernel(hard, s)
        );
        Assert.InRange(ahead.Years[0].Cost.Losses, 15, 25);
    }

    [Fact]
    public void A_question_too_far_or_from_the_middle_of_a_month_is_refused_with_every_fault()
    {
        var refused = Assert.Throws<InvalidInputException>(() => Of(A.Plan([Tulip], Stack), 11, start: A.Day(2026, 9, 15)));
        Assert.Equal(["start", "years"], refused.Faults.Select(f => f.Field));
    }

    [Fact]
    public void In_the_south_midsummer_is_in_January()
    {
        WeatherRecord south = A.Record(2001, 8, d => A.Mild(d.PlusDays(182)), latitude: -45);
        var kernels = new Dictionary<LocalDate, SeasonKernel>();
        Display standing = A.Show("standing", A.Day(2026, 4, 1), A.Day(2040, 4, 1), DisplayLayer.Standing, new DisplayItem("shrub", 3)) with
        {
            PlanterId = "bed",
        };
        Plan plan = A.Plan([A.Bed()], [Shrub], [standing]);
        YearsAhead ahead = YearsAhead.Of(plan, new AheadQuestion(A.Day(2027, 3, 1), 3), s =>
            kernels.TryGetValue(s, out SeasonKernel? k) ? k : kernels[s] = new SeasonKernel(south, s)
        );
        Assert.True(ahead.Ahead.Gaps.Single().Cover[2] > ahead.Ahead.Gaps.Single().Cover[0]);
    }

    private static Plan InBed(Plant standing, int count) =>
        A.Plan(
            [A.Bed()],
            [standing, Bedding],
            [
                A.Show("standing", A.Day(2026, 4, 10), A.Day(2040, 4, 1), DisplayLayer.Standing, new DisplayItem(standing.Id, count)) with
                {
                    PlanterId = "bed",
                },
                Summer with
                {
                    PlanterId = "bed",
                },
            ]
        );

    private static YearsAhead Of(Plan plan, int years, TulipCycle tulips = TulipCycle.ByHouseRule, LocalDate? start = null) =>
        YearsAhead.Of(plan, new AheadQuestion(start ?? Start, years, tulips), s =>
        {
            lock (Kernels)
                return Kernels.TryGetValue(s, out SeasonKernel? known) ? known : Kernels[s] = new SeasonKernel(Mild, s);
        });
}
