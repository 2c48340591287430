using System.Runtime.CompilerServices;
using System.Text.RegularExpressions;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Planning;

/// <summary>A part of a plan that does not fit the rest, or cannot be read.</summary>
/// <param name="List">The list that it stands in, as a plan file names it, e.g. "displays".</param>
/// <param name="Id">Its id.</param>
/// <param name="Why">What is wrong with it.</param>
public sealed record SetAside(string List, string Id, string Why);

/// <summary>The parts of a plan before anybody knows whether they fit each other. Here alone stand the rules by which they do.</summary>
public sealed partial record PlanParts(
    Site Site,
    IReadOnlyList<Area> Areas,
    IReadOnlyList<Planter> Planters,
    IReadOnlyList<Plant> Palette,
    IReadOnlyList<Display> Displays,
    IReadOnlyList<Turn> Turns,
    IReadOnlyList<MapFeature> Map,
    IReadOnlyList<Lot> Lots,
    IReadOnlyList<Recipe> Recipes,
    IReadOnlyList<SiteEvent> Events
)
{
    // Parts without a fault of their own, as long as anybody holds them.
    private static readonly ConditionalWeakTable<object, object> FoundSound = [];

    /// <summary>Notes every fault of the parts, on their own and against each other, with its path as in a plan file.</summary>
    /// <param name="faults">Takes the faults.</param>
    /// <param name="sound">
    /// Parts that are known to fit each other; then only what is not among them, and what rests on that, is looked at. Null for none.
    /// </param>
    public FaultList Check(FaultList faults, PlanParts? sound = null)
    {
        if (!ReferenceEquals(sound?.Site, Site))
            faults.AddAll("site", Site.Faults());
        var areas = ListChange.Between(sound?.Areas, Areas);
        var palette = ListChange.Between(sound?.Palette, Palette);
        var planters = ListChange.Between(sound?.Planters, Planters);
        var displays = ListChange.Between(sound?.Displays, Displays);
        var lots = ListChange.Between(sound?.Lots, Lots);
        var recipes = ListChange.Between(sound?.Recipes, Recipes);
        Each(faults, "areas", Areas, areas, a => a.Id, a => a.Faults());
        Each(faults, "palette", Palette, palette, p => p.Id, p => p.Faults());
        Each(faults, "planters", Planters, planters, p => p.Id, p => p.Faults());
        Each(faults, "displays", Displays, displays, d => d.Id, d => d.Faults());
        Each(faults, "turns", Turns, ListChange.Between(sound?.Turns, Turns), t => t.Id, t => t.Faults());
        Each(faults, "map", Map, ListChange.Between(sound?.Map, Map), f => f.Id, f => f.Faults());
        Each(faults, "lots", Lots, lots, l => l.Id, l => l.Faults());
        Each(faults, "recipes", Recipes, recipes, r => r.Id, r => r.Faults());
        Each(faults, "events", Events, ListChange.Between(sound?.Events, Events), e => e.Id, e => e.Faults());
        Twice(faults, "recipes", Recipes, recipes, r => r.Name, "name");
        Twice(faults, "planters", Planters, planters, p => p.Name, "name");
        Twice(faults, "areas", Areas, areas, a => a.Name, "name");
        HashSet<string> areaIds = [.. Areas.Select(a => a.Id)];
        foreach ((Planter planter, int i) in Resting(Planters, planters, !areas.IsNone))
        {
            if (!areaIds.Contains(planter.AreaId))
                faults.Add($"planters[{i}].areaId", $"there is no area \"{planter.AreaId}\"");
        }
        References(faults, planters, palette, displays, recipes, lots);
        Overlaps(faults, displays);
        return faults;
    }

    /// <summary>These parts, which all fit each other.</summary>
    /// <param name="sound">Parts that are known to; null for none.</param>
    /// <exception cref="InvalidInputException">Something is missing, given twice or impossible; the faults are named.</exception>
    public PlanParts Sound(PlanParts? sound)
    {
        Check(new FaultList(), sound).ThrowIfAny();
        return this;
    }

    /// <summary>These parts without those that do not fit.</summary>
    /// <param name="sound">Parts that are known to fit each other; null for none.</param>
    /// <param name="aside">What was left out.</param>
    public PlanParts Fitting(PlanParts? sound, out IReadOnlyList<SetAside> aside)
    {
        if (sound is not null && Check(new FaultList(), sound).IsEmpty)
        {
            aside = [];
            return this;
        }
        var left = new List<SetAside>();
        PlanParts parts = this;
        // What is left out may be what others rest on: they are looked at again until all fit.
        while (true)
        {
            var faults = parts.Check(new FaultList(int.MaxValue));
            if (faults.IsEmpty)
            {
                aside = left;
                return parts;
            }
            parts = parts.Without(faults, left);
        }
    }

    private PlanParts Without(FaultList faults, List<SetAside> left)
    {
        var wrong = new Dictionary<(string List, int Index), string>();
        bool site = false;
        foreach (Fault fault in faults.Faults)
        {
            Match at = Place().Match(fault.Field);
            if (!at.Success)
            {
                if (!site)
                    left.Add(new SetAside("site", string.Empty, fault.ToString()));
                site = true;
            }
            else
            {
                string rest = fault.Field[at.Length..].TrimStart('.');
                wrong.TryAdd(
                    (at.Groups["list"].Value, int.Parse(at.Groups["index"].ValueSpan, System.Globalization.CultureInfo.InvariantCulture)),
                    rest.Length == 0 ? fault.Message : $"{rest} {fault.Message}"
                );
            }
        }
        return new PlanParts(
            site
                ? Site.Default with
                {
                    Name =
                        PlainText.Fault(Site.Name ?? string.Empty, 60, lines: false) is null && !string.IsNullOrWhiteSpace(Site.Name)
                            ? Site.Name
                            : Site.Default.Name,
                }
                : Site,
            Good("areas", Areas, a => a.Id),
            Good("planters", Planters, p => p.Id),
            Good("palette", Palette, p => p.Id),
            Good("displays", Displays, d => d.Id),
            Good("turns", Turns, t => t.Id),
            Good("map", Map, f => f.Id),
            Good("lots", Lots, l => l.Id),
            Good("recipes", Recipes, r => r.Id),
            Good("events", Events, e => e.Id)
        );

        IReadOnlyList<T> Good<T>(string list, IReadOnlyList<T> items, Func<T, string> id)
        {
            if (!wrong.Keys.Any(k => k.List == list))
                return items;
            var good = new List<T>(items.Count);
            for (int i = 0; i < items.Count; i++)
            {
                if (wrong.TryGetValue((list, i), out string? why))
                    left.Add(new SetAside(list, id(items[i]), why));
                else
                    good.Add(items[i]);
            }
            return good;
        }
    }

    private static void Each<T>(
        FaultList faults,
        string list,
        IReadOnlyList<T> items,
        ListChange<T> change,
        Func<T, string> id,
        Func<T, IReadOnlyList<Fault>> check
    )
        where T : class
    {
        foreach ((T item, int i) in change.Come)
        {
            // A part never changes: what was found sound once is sound.
            if (FoundSound.TryGetValue(item, out _))
                continue;
            IReadOnlyList<Fault> found = check(item);
            if (found.Count > 0)
                faults.AddAll($"{list}[{i}]", found);
            else
                FoundSound.TryAdd(item, item);
        }
        Twice(faults, list, items, change, id, "id");
    }

    private static void Twice<T>(FaultList faults, string list, IReadOnlyList<T> items, ListChange<T> change, Func<T, string> key, string what)
        where T : class
    {
        // Where each that came takes the name of one that went, no name can have become two.
        HashSet<string> free = [.. change.Gone.Select(key)];
        if (change.Come.All(c => free.Remove(key(c.Part) ?? string.Empty)))
            return;
        var first = new Dictionary<string, int>(items.Count, StringComparer.Ordinal);
        for (int i = 0; i < items.Count; i++)
        {
            if (key(items[i]) is { } name && !first.TryAdd(name, i))
                faults.Add($"{list}[{i}].{what}", $"\"{name}\" is already used by {list}[{first[name]}]; every {what} must be its own");
        }
    }

    // Parts whose references have to be looked at: all where what they name changed, else those that came.
    private static IEnumerable<(T Part, int Index)> Resting<T>(IReadOnlyList<T> items, ListChange<T> change, bool all)
        where T : class => all ? items.Select((x, i) => (x, i)) : change.Come;

    private void References(
        FaultList faults,
        ListChange<Planter> planters,
        ListChange<Plant> palette,
        ListChange<Display> displays,
        ListChange<Recipe> recipes,
        ListChange<Lot> lots
    )
    {
        bool anyPlant = !palette.IsNone;
        bool anyPlanter = planters.Gone.Count > 0;
        HashSet<string> planterIds = [.. Planters.Select(p => p.Id)];
        var plants = new Dictionary<string, Plant>(StringComparer.Ordinal);
        foreach (Plant plant in Palette)
            plants.TryAdd(plant.Id, plant);
        foreach ((Display display, int i) in Resting(Displays, displays, anyPlant || anyPlanter))
        {
            if (!planterIds.Contains(display.PlanterId))
                faults.Add($"displays[{i}].planterId", $"there is no planter \"{display.PlanterId}\"");
            Items(faults, $"displays[{i}]", display.Items, display.Layer, plants);
        }
        foreach ((Recipe recipe, int i) in Resting(Recipes, recipes, anyPlant))
            Items(faults, $"recipes[{i}]", recipe.Items, recipe.Layer, plants);
        foreach ((Lot lot, int i) in Resting(Lots, lots, anyPlant || anyPlanter))
        {
            if (!plants.ContainsKey(lot.PlantId))
                faults.Add($"lots[{i}].plantId", NoPlant(lot.PlantId));
            if (lot.FromPlanterId is { } from && !planterIds.Contains(from))
                faults.Add($"lots[{i}].fromPlanterId", $"there is no planter \"{from}\"");
        }
    }

    private static void Items(FaultList faults, string where, IReadOnlyList<DisplayItem> items, DisplayLayer layer, Dictionary<string, Plant> plants)
    {
        for (int k = 0; k < items.Count; k++)
        {
            string id = items[k].PlantId;
            if (!plants.TryGetValue(id ?? string.Empty, out Plant? plant))
                faults.Add($"{where}.items[{k}].plantId", NoPlant(id));
            else if (!Display.CanHold(layer, plant))
                faults.Add(
                    $"{where}.items[{k}].plantId",
                    $"\"{id}\" is {(plant.Bulb is null ? "no bulb and cannot" : "a hardy bulb and must")} stand in the bulb layer"
                );
        }
    }

    private void Overlaps(FaultList faults, ListChange<Display> change)
    {
        if (change.Come.Count == 0)
            return;
        HashSet<(string, DisplayLayer)> touched = [.. change.Come.Select(c => (c.Part.PlanterId, c.Part.Layer))];
        foreach (
            var layer in Displays
                .Select((d, i) => (Display: d, Index: i))
                .Where(x => touched.Contains((x.Display.PlanterId, x.Display.Layer)))
                .GroupBy(x => (x.Display.PlanterId, x.Display.Layer))
        )
        {
            var sorted = layer.OrderBy(x => x.Display.Install).ToList();
            for (int k = 1; k < sorted.Count; k++)
            {
                if (sorted[k].Display.Install < sorted[k - 1].Display.Lift)
                {
                    faults.Add(
                        $"displays[{sorted[k].Index}].install",
                        (
                            $"\"{sorted[k].Display.Id}\" goes into the {layer.Key.Layer.ToString().ToLowerInvariant()} "
                            + $"layer of {layer.Key.PlanterId} before \"{sorted[k - 1].Display.Id}\" comes out"
                        )
                    );
                }
            }
        }
    }

    private static string NoPlant(string? id) => $"there is no plant \"{id}\" in the palette";

    [GeneratedRegex(@"^(?<list>[a-z]+)\[(?<index>[0-9]+)\]", RegexOptions.CultureInvariant, 1000)]
    private static partial Regex Place();
}
