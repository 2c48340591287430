using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

public sealed class PlantFitTests
{
    private static readonly LocalDate Start = A.Day(2026, 9, 1);
    private static readonly WeatherRecord NewYork = A.Record("New York");
    private static readonly SiteFlowering Flowering = new(NewYork, Start);
    private static readonly Area Quay = new("quay", "Quay", 1);

    private static readonly Plant Snowdrop = A.Bulb("snowdrop", A.Forcing("snowdrop"), 2.2, 1.6) with
    {
        HeightCm = 14,
        LightLow = Exposure.Shade,
        SpreadAtPurchaseCm = 7,
        MatureSpreadCm = 7,
    };

    private static readonly Plant Petunia = A.Annual("petunia", -0.5, new FromInstall(4));

    [Fact]
    public void Snowdrops_fit_late_winter_and_petunias_fail_by_frost()
    {
        IReadOnlyList<PlantFit> found = Ask(A.Bed(), A.Day(2027, 3, 12), A.Day(2027, 3, 22), Petunia, Snowdrop);
        Assert.Equal(["snowdrop", "petunia"], found.Select(f => f.Plant.Id));
        Assert.True(found[0].Odds > 0.5);
        Assert.Contains(found[1].Reasons, r =>
            r is { What: FitAspect.Colour, Verdict: FitVerdict.Fails } && r.Why.Kind.Equals(FitKind.CannotGoInBefore)
        );
    }

    [Fact]
    public void In_July_it_is_the_other_way_round()
    {
        IReadOnlyList<PlantFit> found = Ask(A.Pot(), A.Day(2027, 7, 5), A.Day(2027, 7, 18), Snowdrop, Petunia);
        Assert.Equal(["petunia", "snowdrop"], found.Select(f => f.Plant.Id));
        Assert.Equal(FitVerdict.Fits, found[0].Verdict);
        Assert.Contains(found[1].Reasons, r => r.Why.Kind.Equals(FitKind.ShowsNothing));
    }

    [Theory]
    [InlineData(Exposure.FullSun, FitVerdict.Fits)]
    [InlineData(Exposure.PartSun, FitVerdict.Doubtful)]
    [InlineData(Exposure.Shade, FitVerdict.Fails)]
    public void Light_one_class_off_is_a_doubt_and_two_a_refusal(Exposure sun, FitVerdict verdict)
    {
        Plant lover = Petunia with { LightLow = Exposure.FullSun };
        PlantFit fit = Ask(A.Pot() with { Exposure = sun }, A.Day(2027, 7, 5), A.Day(2027, 7, 18), lover)[0];
        Assert.Equal(verdict, fit.Reasons.Where(r => r.What == FitAspect.Light).Select(r => r.Verdict).DefaultIfEmpty(FitVerdict.Fits).Max());
    }

    public static TheoryData<FitAspect, PlanterSurvey, Plant> Troubles =>
        new()
        {
            {
                FitAspect.Deer,
                new PlanterSurvey { Deer = true },
                Petunia with
                {
                    Resistance = new Resistance(Deer: Eaten.Often),
                }
            },
            {
                FitAspect.Salt,
                new PlanterSurvey { SeaSpray = true },
                Petunia
            },
            {
                FitAspect.Wind,
                new PlanterSurvey { Wind = WindReach.Exposed },
                Petunia with
                {
                    Resistance = new Resistance(Wind: Grade.Low),
                }
            },
            {
                FitAspect.People,
                new PlanterSurvey { Dogs = true },
                Petunia with
                {
                    Harm = new Harm(Animals: Hazard.Poisonous),
                }
            },
            {
                FitAspect.People,
                new PlanterSurvey { Public = PublicReach.Touching },
                Petunia with
                {
                    Harm = new Harm(Skin: Hazard.Irritant),
                }
            },
            {
                FitAspect.Ph,
                new PlanterSurvey { Ph = 8 },
                Petunia with
                {
                    Roots = new RootNeeds(RootingMedium.Acid, 4.5, 6),
                }
            },
            {
                FitAspect.Height,
                new PlanterSurvey { SightlineCm = 60 },
                Petunia with
                {
                    HeightCm = 40,
                }
            },
            {
                FitAspect.Water,
                new PlanterSurvey { DrainHoles = 0 },
                Petunia with
                {
                    Water = WaterNeed.Low,
                }
            },
            {
                FitAspect.Room,
                new PlanterSurvey { Tree = new StandingTree("Hawthorn", 50, 200, 56, 4, 2026) },
                Petunia
            },
            {
                FitAspect.Heat,
                new PlanterSurvey { Masonry = MasonryHeat.Court },
                Petunia with
                {
                    Roots = new RootNeeds(HeatCeilingC: 29),
                }
            },
        };

    [Theory]
    [MemberData(nameof(Troubles))]
    public void What_was_surveyed_speaks_against_a_plant_and_without_it_nothing_does(FitAspect what, PlanterSurvey survey, Plant plant)
    {
        Assert.Contains(Ask(A.Pot() with { Survey = survey }, A.Day(2027, 7, 5), A.Day(2027, 7, 18), plant)[0].Reasons, r => r.What == what);
        Assert.DoesNotContain(Ask(A.Pot(), A.Day(2027, 7, 5), A.Day(2027, 7, 18), plant)[0].Reasons, r => r.What == what);
    }

    [Fact]
    public void Roots_that_a_small_pot_freezes_are_refused_and_a_bed_keeps_them()
    {
        Plant shrub = A.Annual("shrub", -25, new AllYear()) with { LifeForm = LifeForm.Shrub, Green = GreenLeaf.Evergreen, RootKillingC = -5 };
        PlantFit pot = Ask(A.Pot(30, 24, 30), A.Day(2027, 3, 1), A.Day(2027, 3, 14), shrub)[0];
        PlantFit bed = Ask(A.Bed(), A.Day(2027, 3, 1), A.Day(2027, 3, 14), shrub)[0];
        Assert.Contains(pot.Reasons, r => r is { What: FitAspect.WinterRoots, Verdict: FitVerdict.Fails });
        Assert.DoesNotContain(bed.Reasons, r => r.What == FitAspect.WinterRoots);
    }

    [Fact]
    public void A_bulb_too_deep_and_a_shrub_too_wide_have_no_room()
    {
        Assert.Contains(Ask(A.Pot(30, 24, 20), A.Day(2027, 4, 20), A.Day(2027, 4, 30), A.Tulip())[0].Reasons, r =>
            r is { What: FitAspect.Depth, Verdict: FitVerdict.Fails }
        );
        Assert.Contains(
            Ask(A.Pot(30, 24, 30), A.Day(2027, 7, 5), A.Day(2027, 7, 18), Petunia with { SpreadAtPurchaseCm = 45, MatureSpreadCm = 60 })[0].Reasons,
            r => r is { What: FitAspect.Room, Verdict: FitVerdict.Fails }
        );
    }

    [Fact]
    public void Retired_plants_are_not_offered_and_every_fit_explains_itself()
    {
        IReadOnlyList<PlantFit> found = Ask(A.Pot(), A.Day(2027, 7, 5), A.Day(2027, 7, 18), Petunia, Snowdrop with { IsRetired = true });
        Assert.Equal("petunia", Assert.Single(found).Plant.Id);
        Assert.Contains(found[0].Explain().Parts, p => ReferenceEquals(p.Value, found[0].Plant));
    }

    [Fact]
    public void Without_weather_nobody_claims_to_know_when_it_shows()
    {
        var question = new FitQuestion(new SiteFlowering(null, Start), Site.Default, A.Pot(), Quay, A.Day(2027, 7, 5), A.Day(2027, 7, 18));
        Assert.Contains(question.Of(Petunia).Reasons, r => r.Why.Kind.Equals(FitKind.NoWeather));
    }

    [Fact]
    public void Weeks_that_end_before_they_begin_are_refused() =>
        Assert.Throws<InvalidInputException>(() => new FitQuestion(Flowering, Site.Default, A.Pot(), Quay, A.Day(2027, 7, 5), A.Day(2027, 7, 1)));

    [Fact]
    public void A_strip_softens_what_weather_years_alone_would_make_sharp()
    {
        Plant sharp = Snowdrop with { Windows = [Snowdrop.Windows[0] with { SpreadDays = 0 }] };
        FloweringStrip exact = Flowering.Usual(sharp);
        FloweringStrip soft = Flowering.Usual(Snowdrop);
        Assert.True(exact.Odds.Count(o => o is > 0.02f and < 0.98f) < soft.Odds.Count(o => o is > 0.02f and < 0.98f));
        Assert.Equal(exact.Odds.Sum(), soft.Odds.Sum(), 1.5);
    }

    [Fact, FromMemory]
    public void The_strip_of_a_mid_tulip_in_New_York_begins_around_late_April()
    {
        (LocalDate first, LocalDate last) = Flowering.Usual(A.Tulip()).Usual!.Value;
        // The record's four springs leave three whole plan years, 2013 to 2015, all later than usual.
        Assert.InRange(first, A.Day(2027, 4, 18), A.Day(2027, 5, 2));
        Assert.InRange(Period.DaysBetween(first, last), 12, 22);
    }

    [Fact]
    public void Plants_go_in_when_their_kind_does()
    {
        LocalDate july = A.Day(2027, 7, 5);
        Assert.Equal(A.Day(2026, 10, 15), Flowering.UsualInstall(A.Tulip(), A.Day(2027, 4, 20)));
        Assert.True(Flowering.UsualInstall(Petunia, A.Day(2027, 4, 20)) == Flowering.AllClear);
        Assert.InRange(Period.DaysBetween(Flowering.UsualInstall(Petunia, july), july), 11, 20);
        Assert.Equal(A.Day(2026, 9, 20), Flowering.UsualInstall(A.Annual("pansy"), A.Day(2027, 1, 20)));
        Assert.True(Flowering.UsualInstall(A.Annual("rose") with { LifeForm = LifeForm.Shrub }, july) < Start.PlusYears(-1));
    }

    [Fact]
    public void What_opens_as_the_year_cools_opens_in_fall_in_both_hemispheres()
    {
        Plant crocus = A.Bulb("fall", A.MidTulip, 2.2, 2) with
        {
            Windows = [new ColourWindow(ColourPart.Flower, ["#7f7fcb"], 0.6, new Cooling(15, 20))],
        };
        Assert.InRange(Flowering.Usual(crocus).Usual!.Value.First.Month, 9, 10);
        WeatherRecord south = A.Record(2001, 4, d => A.Mild(d.PlusMonths(6)), -45);
        var below = new SiteFlowering(south, A.Day(2027, 3, 1));
        Assert.InRange(below.Usual(crocus).Usual!.Value.First.Month, 3, 5);
    }

    private static IReadOnlyList<PlantFit> Ask(Planter planter, LocalDate first, LocalDate last, params Plant[] palette) =>
        new FitQuestion(Flowering, Site.Default, planter, Quay, first, last).Ask(palette);
}
