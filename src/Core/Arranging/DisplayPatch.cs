using NodaTime;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>
/// Part of a display taken out while the rest stands on, and its places filled with something else or left open: autumn patching by
/// count, or a single plant pulled.
/// </summary>
/// <param name="Day">The day on which it is done.</param>
/// <param name="Item">Which line of the display, from 0.</param>
/// <param name="Count">How many of it come out.</param>
/// <param name="With">What goes in; null to leave the places open.</param>
public sealed record DisplayPatch(LocalDate Day, int Item, int Count, DisplayItem? With)
{
    /// <summary>What becomes of those that come out; null when nobody has said.</summary>
    public PlantFate? Fate { get; init; }

    /// <summary>Which of the line's plants come out, as they are laid out, from 0; empty for the last ones.</summary>
    public IReadOnlyList<int> At { get; init; } = [];

    /// <summary>
    /// The display up to the day, and the one that follows it: what stays keeps its place and the day since which it stands, and
    /// what goes in takes the places of what comes out.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="display">A display of the plan, no bulb stack.</param>
    /// <param name="id">Id of the display that follows.</param>
    /// <exception cref="InvalidInputException">The day lies outside its time, more comes out than stands, or nothing would be left.</exception>
    public (Display Before, Display After) Of(Plan plan, Display display, string id)
    {
        Planter planter = plan.FindPlanter(display.PlanterId)!;
        var faults = new FaultList();
        if (display.Layer == DisplayLayer.Bulbs)
            faults.Add(string.Empty, "bulbs are changed in their stack");
        if (Day <= display.Install || Day >= display.Lift)
            faults.Add("day", $"must lie while it stands, after {Text(display.Install)} and before {Text(display.Lift)}");
        if (Item < 0 || Item >= display.Items.Count)
            faults.Add("item", "must be one of its plants");
        else if (display.Items[Item].Since is { } since && since >= Day)
            faults.Add("item", $"goes in only on {Text(since)}");
        else if (Count < 1 || Count > display.Items[Item].Count)
            faults.Add(
                "count",
                $"must be from 1 to {display.Items[Item].Count}: so many {plan.Plant(display.Items[Item].PlantId).CommonName} stand there"
            );
        else if (At.Count > 0 && (At.Count != Count || At.Distinct().Count() != Count || At.Any(a => a < 0 || a >= display.Items[Item].Count)))
            faults.Add("at", $"must name each of the {Count} that come out once, from 1 to {display.Items[Item].Count}");
        if (With is { Count: < 1 or > DisplayItem.MostCount })
            faults.Add("with", "must be from 1 to 10,000 plants");
        else if (With is null && display.Items.Count == 1 && Count == display.Items[0].Count)
            faults.Add("count", "would leave nothing: end the display on that day instead");
        faults.ThrowIfAny();

        List<PlacedPlant> laid = [.. Arrangement.Of(plan, planter, display).Plants];
        IReadOnlyList<PlanePoint>[] places =
        [
            .. display.Items.Select((_, i) => (IReadOnlyList<PlanePoint>)[.. laid.Where(p => p.Item == i).Select(p => p.At)]),
        ];
        HashSet<int> goes = [.. At.Count > 0 ? At : Enumerable.Range(display.Items[Item].Count - Count, Count)];
        bool known = places.Select((p, i) => p.Count == display.Items[i].Count).All(same => same);
        var items = new List<DisplayItem>();
        for (int i = 0; i < display.Items.Count; i++)
        {
            DisplayItem item = display.Items[i];
            int left = i == Item ? item.Count - Count : item.Count;
            if (left == 0)
                continue;
            items.Add(
                item with
                {
                    Count = left,
                    Since = item.Since ?? display.Install,
                    Places = known ? [.. places[i].Where((_, k) => i != Item || !goes.Contains(k))] : null,
                }
            );
        }
        if (With is not null)
            items.Add(With with { Since = null, Places = known && With.Count == Count ? [.. places[Item].Where((_, k) => goes.Contains(k))] : null });
        // A place for some only would move the others: then all are laid out by rule.
        if (items.Exists(i => i.Places is null))
            items = [.. items.Select(i => i with { Places = null })];
        Display before = display with
        {
            Lift = Day,
            Cuts = [.. display.Cuts.Where(c => c.Day < Day)],
            Items = [.. display.Items.Select((x, i) => i == Item ? x with { Fate = Fate } : x)],
        };
        Display after = display with
        {
            Id = id,
            Install = Day,
            Items = items,
            Cuts = [.. display.Cuts.Where(c => c.Day > Day && items.Exists(i => i.PlantId == c.PlantId))],
            Pairs = [.. display.Pairs.Where(p => items.Exists(i => i.PlantId == p.FirstPlantId) && items.Exists(i => i.PlantId == p.SecondPlantId))],
        };
        return (before, after);
    }

    private static string Text(LocalDate day) => day.ToString("d MMM uuuu", null);
}
