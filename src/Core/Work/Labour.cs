using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Work;

/// <summary>
/// What a changeover takes one person who knows the work, as crews reckon it until they have times of their own (common practice
/// throughout). Ways, watering and clearing away are not in it.
/// </summary>
public static class Labour
{
    /// <summary>Bulbs set by hand planter in an hour: 20 to 25.</summary>
    public const double BulbsAnHour = 22;

    /// <summary>Plants set from packs in an hour: 40 to 60.</summary>
    public const double PacksAnHour = 50;

    /// <summary>Plants lifted and set back in an hour.</summary>
    public const double SetBackAnHour = 40;

    /// <summary>Plants set from plugs in an hour: 80 to 100.</summary>
    public const double PlugsAnHour = 90;

    /// <summary>Pots of 20 cm and more set in an hour: 15 to 20.</summary>
    public const double PotsAnHour = 17;

    /// <summary>Plants taken out in an hour.</summary>
    public const double OutAnHour = 100;

    /// <summary>Minutes for a litre of medium taken out and renewed: 15 to 20 for the top of a 60 cm pot.</summary>
    public const double MinutesALitre = 0.35;

    /// <summary>Weed fabric more than doubles the planting.</summary>
    public const double FabricTimes = 2.2;

    // Pots narrower than this are set like packs, cm.
    private const double LargePotCm = 18;

    /// <summary>Minutes that a changeover takes one person.</summary>
    public static int MinutesOf(Changeover change)
    {
        double set = change.In.Sum(i => i.Count / SetAnHour(i)) + (change.Lifted.Sum(i => i.Count) / SetBackAnHour);
        double hours = (set * (change.Planter.Survey.WeedFabric ? FabricTimes : 1)) + (change.Out.Sum(i => i.Count) / OutAnHour);
        return (int)Math.Ceiling((hours * 60) + ((change.Medium?.Litres ?? 0) * MinutesALitre) - 1e-9);
    }

    /// <summary>Minutes that setting some plants and taking them out later takes one person.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="plants">The kinds, with their lines.</param>
    public static int MinutesToSetAndClear(Planter planter, IEnumerable<(Plant Plant, DisplayItem Item)> plants) =>
        (int)
            Math.Ceiling(
                (
                    plants.Sum(p =>
                        (p.Item.Count / SetAnHour(p.Plant, p.Item, p.Plant.Bulb is not null) * (planter.Survey.WeedFabric ? FabricTimes : 1))
                        + (p.Item.Count / OutAnHour)
                    ) * 60
                ) - 1e-9
            );

    private static double SetAnHour(ChangeoverItem item) => SetAnHour(item.Plant, item.Item, item.DepthCm is not null);

    private static double SetAnHour(Plant plant, DisplayItem item, bool atDepth) =>
        atDepth && !item.Forced
            ? BulbsAnHour
            : GoodsForm.Of(plant)[0] switch
            {
                { Sort: GoodsSort.Plugs } => PlugsAnHour,
                { Sort: GoodsSort.Pot, SpreadCm: >= LargePotCm } => PotsAnHour,
                _ => PacksAnHour,
            };
}
