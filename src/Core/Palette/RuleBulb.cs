using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Palette;

/// <summary>A bulb of which only its size and its flowering rule are known, for reckoning without a palette.</summary>
public static class RuleBulb
{
    /// <summary>Makes the bulb. What was not given stands at neutral values that no depth, count or date depends on.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="figures">Its size and cold.</param>
    /// <param name="rule">When it flowers.</param>
    public static Plant Of(string name, BulbFigures figures, BulbForcing rule) =>
        new()
        {
            Id = "bulb",
            BotanicalName = name,
            CommonName = name,
            LifeForm = LifeForm.Bulb,
            Habit = Habit.Upright,
            HeightCm = 30,
            SpreadAtPurchaseCm = 10,
            MatureSpreadCm = 10,
            LightLow = Exposure.Shade,
            LightHigh = Exposure.FullSun,
            Water = WaterNeed.Medium,
            TopDamageC = -30,
            Green = GreenLeaf.AroundFlower,
            Bulb = figures,
            Windows = [new ColourWindow(ColourPart.Flower, ["#ffffff"], 0.6, rule)],
            Packs = [new Pack("one", 1, 0)],
            Source = "given",
        };
}
