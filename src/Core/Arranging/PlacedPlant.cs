using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>What a plant does in an arrangement.</summary>
public enum ArrangementRole
{
    /// <summary>Tallest: in the centre seen all round, at the back seen from one side.</summary>
    Height,

    /// <summary>In between.</summary>
    Middle,

    /// <summary>Low, toward the edge or the front.</summary>
    Edge,

    /// <summary>Over the rim.</summary>
    Rim,
}

/// <summary>One plant at its place.</summary>
/// <param name="Item">Which of the display's kinds it is, from 0.</param>
/// <param name="Plant">The plant.</param>
/// <param name="At">Its middle, cm from the planter's: x along the length, y away from the front.</param>
public sealed record PlacedPlant(int Item, Plant Plant, PlanePoint At);

/// <summary>How wide and high a plant stands on a day.</summary>
/// <param name="SpreadCm">Width, cm.</param>
/// <param name="HeightCm">Height, cm.</param>
public readonly record struct Stature(double SpreadCm, double HeightCm)
{
    /// <summary>Of a plant at some width: it grows as high as it is wide, from at least a third of its height (common practice).</summary>
    public static Stature Of(Plant plant, double spreadCm) =>
        new(spreadCm, plant.HeightCm * Math.Clamp(plant.MatureSpreadCm <= 0 ? 1 : spreadCm / plant.MatureSpreadCm, 1.0 / 3, 1));

    /// <summary>As bought.</summary>
    public static Stature AsBought(Plant plant) => Of(plant, plant.SpreadAtPurchaseCm);

    /// <summary>Grown.</summary>
    public static Stature Grown(Plant plant) => new(plant.MatureSpreadCm, plant.HeightCm);
}
