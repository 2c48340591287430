using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Checks;

/// <summary>Every school changes something: the season, an order, a sheet, a layout or a check.</summary>
public sealed class HouseRuleTests
{
    private static readonly WeatherRecord NewYork = A.Record("New York");
    private static readonly Plant Pansy = A.Annual("pansy", -10, new FromInstall(12, 40)) with { Id = "pansy" };

    [Fact]
    public void Density_packed_asks_for_more_plants_than_full_by_a_date_and_room_to_grow_for_fewer()
    {
        Plant petunia = A.Annual("petunia", 0) with { SpreadAtPurchaseCm = 12, MatureSpreadCm = 40, GrowthPerDegreeDay = 0.006 };
        RemarkKind[] Said(DensitySchool school, int count) =>
            [
                .. RemarksOn(
                        school: new() { Density = school },
                        A.Show("one", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", count)),
                        petunia
                    )
                    .Select(r => r.Kind),
            ];
        Assert.Contains(RemarkKind.PlantedTooThin, Said(DensitySchool.PackedFromDayOne, 9));
        Assert.DoesNotContain(RemarkKind.PlantedTooThin, Said(DensitySchool.ByDate, 9));
        Assert.Contains(RemarkKind.PlantedTooClose, Said(DensitySchool.RoomToGrow, 9));
    }

    [Fact]
    public void Bought_in_colour_a_display_shows_at_once_and_is_over_sooner()
    {
        (int First, int Days) Shows(StageSchool stage)
        {
            Plan plan = Plan(
                new() { Stage = stage },
                [Pansy],
                A.Show("one", A.Day(2027, 4, 10), A.Day(2027, 7, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 12))
            );
            PlanterSeason season = SiteYear.From(plan, NewYork, A.Day(2026, 9, 1)).Planters[0];
            float[] cover = season.Bands[0].MeanCover;
            return (Array.FindIndex(cover, c => c > 0.05f), cover.Count(c => c > 0.05f));
        }
        (int budFirst, int budDays) = Shows(StageSchool.InBud);
        (int colourFirst, int colourDays) = Shows(StageSchool.InColour);
        Assert.InRange(budFirst - colourFirst, 10, 13);
        Assert.True(colourDays < budDays);
    }

    [Fact]
    public void A_scheme_of_one_colour_is_named_where_contrast_is_the_school_and_not_where_one_colour_is()
    {
        Plant rose = A.Annual("rose") with { Windows = [new ColourWindow(ColourPart.Flower, ["#c5283d"], 0.6, new FromInstall(0))] };
        Plant pink = rose with
        {
            Id = "pink",
            CommonName = "pink",
            HeightCm = 60,
            Texture = Texture.Fine,
            Windows = [new ColourWindow(ColourPart.Flower, ["#d24a5c"], 0.6, new FromInstall(0))],
        };
        bool Named(ColourSchool school) =>
            RemarksOn(
                    new() { Colour = school },
                    A.Show(
                        "one",
                        A.Day(2027, 5, 20),
                        A.Day(2027, 9, 1),
                        DisplayLayer.Seasonal,
                        new DisplayItem("rose", 5),
                        new DisplayItem("pink", 5)
                    ),
                    rose,
                    pink
                )
                .Any(r => r.Kind == RemarkKind.ColoursAgainstTheRule);
        Assert.True(Named(ColourSchool.Contrast));
        Assert.False(Named(ColourSchool.OneColour));
    }

    [Fact]
    public void Planters_of_a_group_that_differ_are_named_by_identical_pairs_and_can_be_planted_alike_at_once()
    {
        Remark? Said(PatternSchool school)
        {
            Planter One(string id) => A.Pot(id: id) with { Survey = PlanterSurvey.Unseen with { LookGroup = "Gate" } };
            Plant lime = A.Annual("lime") with { Windows = [new ColourWindow(ColourPart.Leaf, ["#b7cf3b"], 0.9, new AllYear())] };
            Plan plan = Plan(
                new() { Pattern = school },
                [One("left"), One("right")],
                [Pansy, lime],
                new Display("a", "left", DisplayLayer.Seasonal, A.Day(2027, 4, 10), A.Day(2027, 7, 1), [new DisplayItem("pansy", 12)]),
                new Display("b", "right", DisplayLayer.Seasonal, A.Day(2027, 4, 10), A.Day(2027, 7, 1), [new DisplayItem("lime", 12)])
            );
            return new DisplayChecks(plan, NewYork)
                .For(plan.Displays[1])
                .FirstOrDefault(r => r.Kind is RemarkKind.UnlikeItsPair or RemarkKind.EchoesNothing);
        }
        Remark identical = Said(PatternSchool.IdenticalPairs)!;
        Assert.Equal("pansy", identical.Remedies[0].After.Items[0].PlantId);
        Assert.Equal(RemarkKind.EchoesNothing, Said(PatternSchool.Echo)!.Kind);
        Assert.Null(Said(PatternSchool.Free));
    }

    [Fact]
    public void A_pot_that_does_not_set_off_its_plants_is_named_only_where_that_is_the_school()
    {
        Plant terracotta = A.Annual("brick") with { Windows = [new ColourWindow(ColourPart.Flower, ["#d8a07c"], 0.6, new FromInstall(0))] };
        Gravity? Said(PotSchool school) =>
            RemarksOn(
                    new() { Pots = school },
                    A.Show("one", A.Day(2027, 5, 20), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("brick", 9)),
                    terracotta
                )
                .FirstOrDefault(r => r.Kind == RemarkKind.DoesNotStandOffItsPot)
                ?.Gravity;
        Assert.Equal(Gravity.AgainstRule, Said(PotSchool.SetsOffPlants));
        Assert.NotEqual(Gravity.AgainstRule, Said(PotSchool.OneAcrossGroup));
    }

    [Fact]
    public void A_display_that_is_past_its_best_makes_way_by_one_school_and_waits_for_the_calendar_by_the_other()
    {
        Display show = A.Show("one", A.Day(2027, 4, 10), A.Day(2027, 8, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 12));
        TurnDay Turn(TurnSchool school)
        {
            Plan plan = Plan(new() { Turn = school }, [Pansy], show);
            return TurnDay.Of(plan, plan.Planters[0], show, new SiteFlowering(NewYork, A.Day(2026, 9, 1)))!;
        }
        Assert.Equal(A.Day(2027, 8, 1), Turn(TurnSchool.AtCalendar).ByRule);
        Assert.InRange(Turn(TurnSchool.WhenPast).ByRule, A.Day(2027, 5, 25), A.Day(2027, 6, 10));
    }

    [Fact]
    [CommonPractice]
    public void Tulips_lie_at_15_cm_by_the_height_rule_19_deep_and_28_as_the_deepest_of_a_stacked_container()
    {
        double Deepest(BulbDepthSchool school) =>
            BulbStack.Depths(A.Pot(), Site.Default with { Rules = new() { BulbDepth = school } }, [new PlannedBulb(A.Tulip(), 7, null)])[0].DepthCm;
        Assert.Equal(15, Deepest(BulbDepthSchool.ThreeTimesHeight));
        Assert.Equal(19, Deepest(BulbDepthSchool.Deep));
        Assert.Equal(28, Deepest(BulbDepthSchool.StackedContainers));
        Assert.Equal(
            15,
            BulbStack
                .Depths(
                    A.Bed(),
                    Site.Default with
                    {
                        Rules = new() { BulbDepth = BulbDepthSchool.StackedContainers },
                    },
                    [new PlannedBulb(A.Tulip(), 7, null)]
                )[0]
                .DepthCm
        );
    }

    [Fact]
    public void Annual_tulips_that_stay_are_named_and_perennial_ones_show_less_each_spring()
    {
        Plant tulip = A.Tulip() with { BotanicalName = "Tulipa, Triumph group", ReturnByYear = [0.6, 0.35] };
        Display stays = A.Show("one", A.Day(2025, 10, 15), A.Day(2028, 7, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 15));
        Assert.Contains(RemarksOn(new() { Tulips = TulipSchool.Annual }, stays, tulip), r => r.Kind == RemarkKind.TulipsStay);
        Assert.DoesNotContain(RemarksOn(new() { Tulips = TulipSchool.Perennial }, stays, tulip), r => r.Kind == RemarkKind.TulipsStay);
        float First(LocalDate start) =>
            SiteYear.From(Plan(new() { Tulips = TulipSchool.Perennial }, [tulip], stays), NewYork, start).Planters[0].Bands[0].Peak;
        Assert.InRange(First(A.Day(2026, 9, 1)) / First(A.Day(2025, 9, 1)), 0.55, 0.65);
    }

    [Fact]
    public void Chrysanthemums_that_are_to_overwinter_must_go_in_early_and_in_the_ground()
    {
        Plant mum = A.Annual("mum", -5) with { BotanicalName = "Chrysanthemum × morifolium" };
        bool Named(ChrysanthemumSchool school, LocalDate install) =>
            RemarksOn(
                    new() { Chrysanthemums = school },
                    A.Show("one", install, install.PlusDays(50), DisplayLayer.Seasonal, new DisplayItem("mum", 4)),
                    mum
                )
                .Any(r => r.Kind == RemarkKind.ChrysanthemumTooLate);
        Assert.True(Named(ChrysanthemumSchool.Overwinter, A.Day(2026, 10, 20)));
        Assert.False(Named(ChrysanthemumSchool.Annual, A.Day(2026, 10, 20)));
    }

    [Fact]
    public void All_the_medium_is_ordered_new_where_that_is_the_school_and_starter_feed_where_it_is_recharged()
    {
        TurnOrder Order(MediumSchool school) =>
            TurnOrder.For(
                Plan(
                    new() { Medium = school },
                    [A.UsedPot()],
                    [Pansy],
                    A.Show("one", A.Day(2027, 5, 18), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 7))
                ),
                new Turn("t", "Turn", A.Day(2027, 5, 17), A.Day(2027, 5, 21))
            );
        Assert.Equal(A.Pot().Form.PlantableLitres, Order(MediumSchool.ReplaceAll).MediumLitres, 0.01);
        Assert.True(Order(MediumSchool.Recharge).MediumLitres < 0.6 * Order(MediumSchool.ReplaceAll).MediumLitres);
        Assert.Equal(FeedKind.StarterFeed, Assert.Single(Order(MediumSchool.Recharge).Feed).What);
        Assert.Empty(Order(MediumSchool.ReplaceAll).Feed);
    }

    [Fact]
    public void Bulb_food_is_ordered_at_five_grams_a_bulb_where_it_is_the_school()
    {
        TurnOrder Order(BulbFeedSchool school) =>
            TurnOrder.For(
                Plan(
                    new() { BulbFeed = school },
                    [A.Tulip()],
                    A.Show("one", A.Day(2026, 10, 19), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 20))
                ),
                new Turn("t", "Turn", A.Day(2026, 10, 19), A.Day(2026, 10, 23))
            );
        Assert.Equal(100, Assert.Single(Order(BulbFeedSchool.BulbFood).Feed).Grams);
        Assert.Empty(Order(BulbFeedSchool.None).Feed);
    }

    [Fact]
    public void Gravel_over_the_hole_takes_three_centimetres_from_the_stack()
    {
        double Floor(DrainageSchool school) => BulbStack.DeepestBaseCm(A.Pot(), Site.Default with { Rules = new() { Drainage = school } });
        Assert.Equal(3, Floor(DrainageSchool.FreeHole) - Floor(DrainageSchool.GravelOverHole));
    }

    [Theory]
    [InlineData("BulbAttitude", StepKind.SetBulbsUpright, StepKind.TiltBulbs)]
    [InlineData("BulbFeed", StepKind.NoFeedInTheHole, StepKind.BulbFoodInTheHole)]
    [InlineData("Fabric", StepKind.SlitInACross, StepKind.SlitInAT)]
    [InlineData("Pests", CautionKind.ToleratePests, CautionKind.SoapOrOil)]
    [InlineData("Medium", StepKind.RenewTheTop, StepKind.ReplaceAllMedium)]
    [InlineData("Stage", StepKind.TakeInBud, StepKind.TakeInColour)]
    [InlineData("Tulips", StepKind.TulipsAreAnnual, StepKind.HeelBulbsIn)]
    [InlineData("Turn", StepKind.SetOutInPots, StepKind.LookFirst)]
    [InlineData("Drainage", StepKind.SetOutInPots, StepKind.GravelOverTheHole)]
    public void The_day_sheet_says_what_the_school_wants(string matter, object first, object second)
    {
        Plant tulip = A.Tulip() with { BotanicalName = "Tulipa, Triumph group" };
        List<Enum> Sheet(int school)
        {
            var rules = new HouseRules();
            // Gravel goes in where a container is emptied.
            if (matter == "Drainage")
                rules = rules with { Medium = MediumSchool.ReplaceAll };
            typeof(HouseRules).GetProperty(matter)!.SetValue(rules, Enum.ToObject(typeof(HouseRules).GetProperty(matter)!.PropertyType, school));
            Planter pot = A.Pot() with { Survey = PlanterSurvey.Unseen with { WeedFabric = true } };
            Plan plan = Plan(
                rules,
                [pot],
                [Pansy, tulip],
                A.Show("old", A.Day(2025, 10, 1), A.Day(2026, 10, 19), DisplayLayer.Bulbs, new DisplayItem("tulip", 9)),
                A.Show("was", A.Day(2026, 5, 18), A.Day(2026, 10, 19), DisplayLayer.Seasonal, new DisplayItem("pansy", 5)),
                A.Show("new", A.Day(2026, 10, 19), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 9)),
                A.Show("top", A.Day(2026, 10, 19), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 5))
            );
            DaySheet sheet = DaySheet.For(plan, A.Day(2026, 10, 19));
            return [.. sheet.Planters.SelectMany(p => p.Steps).Concat(sheet.Cautions).Select(s => s.Kind)];
        }
        Assert.Contains((Enum)first, Sheet(0));
        Assert.Contains((Enum)second, Sheet(1));
        Assert.NotEqual(Sheet(0), Sheet(1));
    }

    [Fact]
    public void A_planter_may_follow_another_school_than_its_site()
    {
        Planter own = A.Pot() with { Rules = new PlanterRules { Tulips = TulipSchool.Perennial } };
        Site site = Site.Default with { Rules = new() { BulbDepth = BulbDepthSchool.Deep } };
        Assert.Equal(TulipSchool.Perennial, site.RulesFor(own).Tulips);
        Assert.Equal(BulbDepthSchool.Deep, site.RulesFor(own).BulbDepth);
        Assert.Equal(TulipSchool.Annual, site.RulesFor(A.Pot()).Tulips);
    }

    [Fact]
    public void The_institutions_school_without_colours_and_a_colour_that_is_none_are_refused()
    {
        Assert.Equal("institutionColours", Assert.Single(new HouseRules { Colour = ColourSchool.Institution }.Faults()).Field);
        Assert.Equal("institutionColours[0]", Assert.Single(new HouseRules { InstitutionColours = ["navy"] }.Faults()).Field);
    }

    private static Plan Plan(HouseRules rules, IReadOnlyList<Plant> palette, params Display[] displays) => Plan(rules, [A.Pot()], palette, displays);

    private static Plan Plan(HouseRules rules, IReadOnlyList<Planter> planters, IReadOnlyList<Plant> palette, params Display[] displays) =>
        new(Site.Default with { Rules = rules }, [new Area("quay", "Quay", 0)], planters, palette, displays, []);

    private static IReadOnlyList<Remark> RemarksOn(HouseRules school, Display display, params Plant[] palette)
    {
        Plan plan = Plan(school, palette, display);
        return new DisplayChecks(plan, NewYork).For(display);
    }
}
