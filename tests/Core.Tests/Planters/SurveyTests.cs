using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Planters;

public sealed class SurveyTests
{
    [Fact]
    public void Weight_is_wall_medium_water_and_plants_and_says_so()
    {
        PlanterLoad load = PlanterLoad.Of(A.Pot())!;
        double litres = A.Pot().Form.PlantableLitres;
        Assert.Equal(litres * PlanterLoad.SaturatedWaterKgPerLitre, load.SaturatedKg - load.DryKg, 1e-9);
        Assert.Equal(load.EmptyKg, load.WallLitres * 1.9, 1e-9);
        Assert.Contains(load.Explain().Inputs, i => i.Name is InputName.WaterWhenSoaked);
    }

    [Fact]
    public void A_thin_straight_wall_weighs_its_surface_by_its_thickness()
    {
        // A cube-like trough of 100 cm, open at the top: four sides of 1 m² and a floor of 1 m², 1 cm of concrete.
        Planter cube = A.Pot() with
        {
            Form = PlanterForm.Trough(100, 100, 100, 100, 100, 0),
            Wall = WallMaterial.Concrete,
            Survey = new PlanterSurvey { WallThicknessCm = 1 },
        };
        Assert.Equal(5 * 10 * 2.3 * 1.008, PlanterLoad.Of(cube)!.EmptyKg, 0.2);
    }

    [Fact]
    public void A_basket_loads_its_hook_and_never_a_deck()
    {
        Planter basket = A.Pot(40, 20, 22) with
        {
            Form = A.Pot(40, 20, 22).Form with { Shape = PlanterShape.Basket },
            Survey = new PlanterSurvey { OnDeck = true, DeckLimitKgM2 = 100 },
        };
        PlanterLoad load = PlanterLoad.Of(basket)!;
        Assert.Null(load.DeckCaution);
        Assert.Equal(Quantity.Kilograms(load.SaturatedKg), load.HookCaution!["soaked"]);
        Assert.DoesNotContain(load.Explain().Steps, s => s is Fact { Kind: WorkingPhrase.OnWhenSoaked });
        Assert.Null(PlanterLoad.Of(A.Pot())!.HookCaution);
    }

    [Fact]
    public void Nobody_lifts_a_bed() => Assert.Null(PlanterLoad.Of(A.Bed()));

    [Fact]
    public void The_caution_names_one_two_or_a_trolley_by_the_crews_own_limit()
    {
        PlanterLoad small = PlanterLoad.Of(A.Pot(20, 16, 18))!;
        Assert.Equal(LoadCaution.OneCanLift, small.LiftingCaution(20).Kind);
        Assert.Equal(LoadCaution.TwoCanLift, small.LiftingCaution(small.SaturatedKg * 0.6).Kind);
        Assert.Equal(LoadCaution.NeverByHand, PlanterLoad.Of(A.Pot(120, 90, 95))!.LiftingCaution(20).Kind);
    }

    [Fact]
    public void A_deck_is_never_called_safe_only_compared_with_what_a_qualified_person_gave()
    {
        Planter onDeck = A.Pot() with { Survey = new PlanterSurvey { OnDeck = true } };
        Fact Under(double? limit) => PlanterLoad.Of(onDeck with { Survey = onDeck.Survey with { DeckLimitKgM2 = limit } })!.DeckCaution!;
        Assert.Equal(LoadCaution.DeckUnknown, Under(null).Kind);
        Assert.Equal(LoadCaution.DeckOverloaded, Under(150).Kind);
        Assert.Equal(LoadCaution.DeckWithinLimit, Under(5000).Kind);
        Assert.Null(PlanterLoad.Of(A.Pot())!.DeckCaution);
    }

    [Fact]
    public void A_sightline_limits_what_stands_above_the_medium()
    {
        Planter seen = A.Pot(depth: 50) with { Survey = new PlanterSurvey { SightlineCm = 90 } };
        Assert.Equal(90 - 47.5, GreatestHeight.Of(seen).LimitCm, 1e-9);
        Assert.Equal(HeightLimit.Sightline, GreatestHeight.Of(seen).LimitedBy);
    }

    [Fact]
    public void A_gust_moment_at_the_limit_equals_the_moment_of_the_weight()
    {
        Planter pot = A.Pot() with { Wall = WallMaterial.Plastic };
        double h = GreatestHeight.Of(pot).WindCm!.Value / 100;
        double pressure = 0.5 * 1.25 * 21 * 21;
        double moment = (pressure * 0.9 * 0.6 * 0.5 * 0.25) + (pressure * 0.35 * 0.6 * h * (0.5 + (h / 2)));
        Assert.Equal(PlanterLoad.Of(pot)!.DryKg * 9.81 * 0.22, moment, moment * 0.02);
    }

    [Fact]
    public void More_wind_and_a_lighter_pot_allow_less_and_beds_cannot_topple()
    {
        double usual = GreatestHeight.Of(A.Pot()).WindCm!.Value;
        Assert.True(GreatestHeight.Of(A.Pot() with { Survey = new PlanterSurvey { Wind = WindReach.Exposed } }).WindCm < usual);
        Assert.True(GreatestHeight.Of(A.Pot() with { Wall = WallMaterial.Plastic }).WindCm < usual);
        Assert.Null(GreatestHeight.Of(A.Bed()).WindCm);
        Assert.Equal(double.PositiveInfinity, GreatestHeight.Of(A.Bed()).LimitCm);
    }

    [Theory, CommonPractice]
    [InlineData(1, true, false, null, DrainageVerdict.Free)]
    [InlineData(0, true, false, null, DrainageVerdict.Poor)]
    [InlineData(1, false, false, null, DrainageVerdict.Slow)]
    [InlineData(1, true, true, null, DrainageVerdict.Slow)]
    [InlineData(1, true, false, SoilKind.HeavyClay, DrainageVerdict.Poor)]
    public void Drainage_follows_from_hole_feet_gravel_and_filling(int holes, bool feet, bool gravel, SoilKind? soil, DrainageVerdict verdict)
    {
        Planter pot = A.Pot() with
        {
            Survey = new PlanterSurvey
            {
                DrainHoles = holes,
                OnFeet = feet,
                GravelOverHole = gravel,
                Soil = soil,
            },
        };
        Assert.Equal(verdict, Drainage.Of(pot).Verdict);
        Assert.Equal(verdict == DrainageVerdict.Free, Drainage.Of(pot).Hinders.Count == 0);
    }

    [Fact]
    public void Thick_walls_feet_and_mulch_are_felt_by_the_roots()
    {
        ThermalClass usual = A.Pot().ThermalClass();
        Assert.Equal(
            2 * usual.WallResistance,
            (A.Pot() with { Survey = new PlanterSurvey { WallThicknessCm = 5 } }).ThermalClass().WallResistance,
            1e-3
        );
        Assert.False((A.Pot() with { Survey = new PlanterSurvey { OnFeet = false } }).ThermalClass().OnFeet);
        Assert.Equal(SurfaceCover.Mulch, (A.Pot() with { Survey = new PlanterSurvey { MulchCm = 5 } }).ThermalClass().Cover);
        Assert.Equal(usual, (A.Pot() with { Survey = PlanterSurvey.Unseen }).ThermalClass());
    }

    [Fact]
    public void A_survey_out_of_range_names_each_figure()
    {
        Planter wrong = A.Pot() with
        {
            Survey = new PlanterSurvey
            {
                DrainHoles = -1,
                Ph = 14,
                MulchCm = 90,
                DeckLimitKgM2 = 1,
                Tree = new StandingTree("", 0, 1, 1, 1, 2026),
            },
        };
        Assert.Equal(
            [
                "survey.deckLimitKgM2",
                "survey.drainHoles",
                "survey.mulchCm",
                "survey.ph",
                "survey.tree.crownCm",
                "survey.tree.heightCm",
                "survey.tree.name",
                "survey.tree.rootCm",
            ],
            wrong.Faults().Select(f => f.Field).Order(StringComparer.Ordinal)
        );
        Assert.Contains(A.Bed().Survey.Faults(true).Concat((A.Bed() with { Survey = new PlanterSurvey { OnDeck = true } }).Faults()), f =>
            f.Field == "survey.onDeck"
        );
    }

    [Fact]
    public void A_tree_in_a_planter_grows_from_its_survey_on()
    {
        var tree = new StandingTree("Hawthorn", 120, 260, 100, 12, 2026);
        Assert.Equal((120, 180, 160), (tree.CrownIn(2024), tree.CrownIn(2031), tree.RootsIn(2031)));
    }

    [Fact]
    public void A_pot_of_another_colour_in_its_look_group_is_named()
    {
        Planter[] group = [.. Enumerable.Range(1, 3).Select(i => A.Pot(id: $"p{i}") with { Survey = new PlanterSurvey { LookGroup = "Steps" } })];
        Planter odd = A.Pot(id: "odd") with
        {
            WallColour = "#34566b",
            Survey = new PlanterSurvey { LookGroup = "steps" },
        };
        Assert.Equal(
            new Fact(LookDifference.Colour, ("own", new ColourCode("#34566b")), ("most", new ColourCode(group[0].WallColour))),
            Assert.Single(LookGroup.Differences(odd, [.. group, odd]))
        );
        Assert.Empty(LookGroup.Differences(group[0], [.. group, odd]));
        Assert.Empty(LookGroup.Differences(A.Pot(), group));
    }
}
