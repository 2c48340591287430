using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

public sealed class PaletteCheckTests
{
    private static readonly Plant Sound = A.Annual("sound") with { MatureSpreadCm = 30, SpreadAtPurchaseCm = 20, GrowthPerDegreeDay = 0.01 };

    public static TheoryData<PaletteDoubt, Plant> Wrong =>
        new()
        {
            { PaletteDoubt.BotanicalNameForm, Sound with { BotanicalName = "Rosa 'Anything'" } },
            { PaletteDoubt.HardyForATender, Sound with { LifeForm = LifeForm.TenderAnnual } },
            { PaletteDoubt.TenderForACoolSeason, Sound with { TopDamageC = 2 } },
            { PaletteDoubt.TopsDoNotLast, Sound with { LifeForm = LifeForm.Shrub, TopDamageC = 0 } },
            { PaletteDoubt.RootsAsHardyAsTops, Sound with { LifeForm = LifeForm.Shrub, TopDamageC = -20, RootKillingC = -19 } },
            { PaletteDoubt.NoGrowth, Sound with { GrowthPerDegreeDay = 0 } },
            { PaletteDoubt.TooHighForItsWidth, Sound with { SpreadAtPurchaseCm = 4, MatureSpreadCm = 4, HeightCm = 60 } },
            { PaletteDoubt.TrailsUpward, Sound with { Habit = Habit.Trailing, HeightCm = 50 } },
            { PaletteDoubt.NeverShows, Sound with { Windows = [] } },
            { PaletteDoubt.LargerPackDearer, Sound with { Packs = [new Pack("one", 1, 1), new Pack("ten", 10, 20)] } },
            { PaletteDoubt.NoCautionOfPoison, Sound with { Harm = new Harm(Hazard.Poisonous) } },
            { PaletteDoubt.BulbShape, A.Tulip(height: 1, diameter: 4) },
            { PaletteDoubt.LowerThanItsBulb, A.Tulip(height: 8, diameter: 8) with { HeightCm = 5 } },
            { PaletteDoubt.BulbsTooClose, A.Tulip() with { Bulb = new BulbFigures(5, 4, 4, 12, 18) } },
            { PaletteDoubt.MoreColdThanUsed, A.Tulip(rule: new BulbForcing(7, 25, 10, 85, 15)) },
            {
                PaletteDoubt.GradeFarFromUsual,
                A.Tulip() with
                {
                    Bulb = new BulbFigures(5, 4, 13, 12, 18) { Grades = [new BulbGrade("huge", 5, 12)] },
                }
            },
        };

    [Fact]
    public void A_sound_plant_draws_no_remark() => Assert.Empty(PaletteCheck.Of([Sound, A.Tulip()]));

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_cannot_be_is_named(PaletteDoubt doubt, Plant plant) =>
        Assert.Contains(PaletteCheck.Of([plant]), r => r.PlantId == plant.Id && r.Says.Kind is PaletteDoubt named && named == doubt);

    [Fact]
    public void An_early_tulip_that_opens_after_a_late_one_is_named()
    {
        Plant early = A.Tulip("e", new BulbForcing(7, 10, 10, 200, 15)) with
        {
            BotanicalName = "Tulipa, Single Early group",
            CommonName = "Tulip, early red",
        };
        Plant late = A.Tulip("l", new BulbForcing(7, 10, 10, 90, 15)) with
        {
            BotanicalName = "Tulipa, Single Late group",
            CommonName = "Tulip, late red",
        };
        Assert.Equal("l", Assert.Single(PaletteCheck.Of([early, late])).PlantId);
        Assert.Empty(PaletteCheck.Of([early with { BotanicalName = "Crocus" }, late]));
    }

    [Fact]
    public void Two_plants_of_one_name_are_named() =>
        Assert.Equal(PaletteDoubt.NamesOfAnother, Assert.Single(PaletteCheck.Of([Sound, Sound with { Id = "twin" }])).Says.Kind);

    [Fact]
    public void Herbs_may_keep_roots_colder_than_their_tops_and_shrubs_may_not()
    {
        Plant herb = Sound with { LifeForm = LifeForm.Perennial, TopDamageC = -3, RootKillingC = -15 };
        Assert.Empty(herb.Faults());
        Assert.Contains((herb with { LifeForm = LifeForm.Shrub }).Faults(), f => f.Field == "rootKillingC");
    }
}
