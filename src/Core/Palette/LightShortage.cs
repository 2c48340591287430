using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Palette;

/// <summary>What too little light costs a plant; figures from memory of practice, by steps of direct sun (full, part, shade).</summary>
public static class LightShortage
{
    /// <summary>
    /// Steps by which a place is darker than the least that a plant wants; 0 for enough. What flowers from a bulb's own store asks nothing of the
    /// first year's light.
    /// </summary>
    /// <param name="plant">The plant.</param>
    /// <param name="exposure">Direct sun at its place.</param>
    public static int Steps(Plant plant, Exposure exposure) =>
        plant.Bulb is not null && !plant.GoesOutInLeaf ? 0 : Math.Max(0, plant.LightLow - exposure);

    /// <summary>Share of its flowers, berries or leaf colour that it still shows.</summary>
    public static float ColourShare(int steps) =>
        steps switch
        {
            <= 0 => 1,
            1 => 0.5f,
            _ => 0.05f,
        };

    /// <summary>Share of its width: it grows thinner and longer.</summary>
    public static double WidthShare(int steps) =>
        steps switch
        {
            <= 0 => 1,
            1 => 0.85,
            _ => 0.7,
        };
}
