using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Review;

/// <summary>
/// Plants that turned out to be another kind than they were sold as: what of the plan and the stock follows. The log keeps what was
/// believed; what is planned from now on is what stands there.
/// </summary>
/// <param name="PlanterId">Where it was seen.</param>
/// <param name="Believed">What it was sold as, by id.</param>
/// <param name="Really">What it is, by id.</param>
/// <param name="Seen">The day on which it was seen.</param>
/// <param name="WholeDelivery">True for every planter that was planted with it about the same day.</param>
public sealed record Misnaming(string PlanterId, string Believed, string Really, LocalDate Seen, bool WholeDelivery)
{
    /// <summary>Plants of one kind that went in within so many days of each other came with one delivery (common practice).</summary>
    public const int DeliveryDays = 14;

    /// <summary>Displays and lots before and after.</summary>
    /// <param name="plan">The plan.</param>
    /// <exception cref="InvalidInputException">Nothing of it stands there, or the other kind cannot stand there.</exception>
    public (IReadOnlyList<Display> Before, IReadOnlyList<Display> After, IReadOnlyList<Lot> LotsBefore, IReadOnlyList<Lot> LotsAfter) In(Plan plan)
    {
        var faults = new FaultList();
        if (plan.FindPlant(Really) is not { } really)
            faults.Add("really", "choose what it really is; a kind that is missing is added under Palette first");
        else if (Really == Believed)
            faults.Add("really", "is what it was sold as");
        List<(Display Display, DisplayItem Item)> here =
        [
            .. plan.DisplaysOf(PlanterId).Where(d => d.StandsOn(Seen)).SelectMany(d => d.Items.Where(i => i.PlantId == Believed).Select(i => (d, i))),
        ];
        if (here.Count == 0)
            faults.Add("plantId", $"none of it stands in this planter on {Seen.ToString("d MMM uuuu", null)}");
        else if (plan.FindPlant(Really) is { } other && !here.TrueForAll(h => Display.CanHold(h.Display.Layer, other)))
            faults.Add("really", $"{other.CommonName} cannot stand there");
        faults.ThrowIfAny();

        LocalDate went = here.Min(h => WentIn(h.Display, h.Item));
        bool Same(Display d, DisplayItem i) =>
            i.PlantId == Believed
            && Display.CanHold(d.Layer, plan.Plant(Really))
            && (
                d.PlanterId == PlanterId
                    ? here.Exists(h => h.Display.Id == d.Id) || i.Since is { } since && since == went
                    : WholeDelivery && Math.Abs(Period.DaysBetween(WentIn(d, i), went)) <= DeliveryDays
            );
        List<Display> before = [.. plan.Displays.Where(d => d.Items.Any(i => Same(d, i)))];
        List<Display> after = [.. before.Select(d => Renamed(plan, d, i => Same(d, i)))];
        HashSet<string> planters = [.. before.Select(d => d.PlanterId)];
        List<Lot> lots = [.. plan.Lots.Where(l => l.PlantId == Believed && l.FromPlanterId is { } from && planters.Contains(from))];
        return (before, after, lots, [.. lots.Select(l => l with { PlantId = Really })]);
    }

    private static LocalDate WentIn(Display display, DisplayItem item) => item.Since ?? display.Install;

    private Display Renamed(Plan plan, Display display, Func<DisplayItem, bool> same)
    {
        // Bulbs stay as deep as they were planted, whatever they are.
        List<BulbDepth> depths =
            display.Layer == DisplayLayer.Bulbs ? [.. BulbStack.Depths(plan.FindPlanter(display.PlanterId)!, plan.Site, plan.BulbsOf(display))] : [];
        var items = new List<DisplayItem>();
        foreach (DisplayItem item in display.Items)
        {
            if (!same(item))
            {
                items.Add(item);
                continue;
            }
            double? lies = item.DepthCm ?? depths.Find(d => d.Plant.Id == item.PlantId && d.Count == item.Count)?.DepthCm;
            DisplayItem now = item with { PlantId = Really, Form = null, DepthCm = display.Layer == DisplayLayer.Bulbs ? lies : null };
            int known =
                display.Layer == DisplayLayer.Bulbs ? -1 : items.FindIndex(i => i.PlantId == Really && i.Since == now.Since && i.Form == now.Form);
            if (known < 0)
                items.Add(now);
            else
                items[known] = items[known] with { Count = items[known].Count + now.Count, Places = null };
        }
        bool left = items.Exists(i => i.PlantId == Believed);
        return display with
        {
            Items = items,
            Cuts = [.. display.Cuts.Select(c => c.PlantId == Believed && !left ? c with { PlantId = Really } : c)],
            Pairs =
            [
                .. display
                    .Pairs.Select(p =>
                        left
                            ? p
                            : new BloomPair(
                                p.FirstPlantId == Believed ? Really : p.FirstPlantId,
                                p.SecondPlantId == Believed ? Really : p.SecondPlantId,
                                p.Wish
                            )
                    )
                    .Where(p => p.FirstPlantId != p.SecondPlantId),
            ],
        };
    }
}
