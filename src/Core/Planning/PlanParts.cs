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
    private static readonly ConditionalWeakTable<object, object> Sound = [];

    /// <summary>Notes every fault of the parts, on their own and against each other, with its path as in a plan file.</summary>
    public FaultList Check(FaultList faults)
    {
        faults.AddAll("site", Site.Faults());
        Each(faults, "areas", Areas, a => a.Id, a => a.Faults());
        Each(faults, "palette", Palette, p => p.Id, p => p.Faults());
        Each(faults, "planters", Planters, p => p.Id, p => p.Faults());
        Each(faults, "displays", Displays, d => d.Id, d => d.Faults());
        Each(faults, "turns", Turns, t => t.Id, t => t.Faults());
        Each(faults, "map", Map, f => f.Id, f => f.Faults());
        Each(faults, "lots", Lots, l => l.Id, l => l.Faults());
        Each(faults, "recipes", Recipes, r => r.Id, r => r.Faults());
        Each(faults, "events", Events, e => e.Id, e => e.Faults());
        Twice(faults, "recipes", Recipes, r => r.Name, "name");
        Twice(faults, "planters", Planters, p => p.Name, "name");
        Twice(faults, "areas", Areas, a => a.Name, "name");
        References(faults);
        Overlaps(faults);
        return faults;
    }

    /// <summary>These parts without those that do not fit.</summary>
    /// <param name="aside">What was left out.</param>
    public PlanParts Fitting(out IReadOnlyList<SetAside> aside)
    {
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

    private static void Each<T>(FaultList faults, string list, IReadOnlyList<T> items, Func<T, string> id, Func<T, IReadOnlyList<Fault>> check)
        where T : class
    {
        for (int i = 0; i < items.Count; i++)
        {
            // A part never changes: what was found sound once is sound.
            if (Sound.TryGetValue(items[i], out _))
                continue;
            IReadOnlyList<Fault> found = check(items[i]);
            if (found.Count > 0)
                faults.AddAll($"{list}[{i}]", found);
            else
                Sound.TryAdd(items[i], items[i]);
        }
        Twice(faults, list, items, id, "id");
    }

    private static void Twice<T>(FaultList faults, string list, IReadOnlyList<T> items, Func<T, string> key, string what)
    {
        var first = new Dictionary<string, int>(items.Count, StringComparer.Ordinal);
        for (int i = 0; i < items.Count; i++)
        {
            if (key(items[i]) is { } name && !first.TryAdd(name, i))
                faults.Add($"{list}[{i}].{what}", $"\"{name}\" is already used by {list}[{first[name]}]; every {what} must be its own");
        }
    }

    private void References(FaultList faults)
    {
        HashSet<string> areas = [.. Areas.Select(a => a.Id)];
        HashSet<string> planters = [.. Planters.Select(p => p.Id)];
        var plants = new Dictionary<string, Plant>(StringComparer.Ordinal);
        foreach (Plant plant in Palette)
            plants.TryAdd(plant.Id, plant);
        for (int i = 0; i < Planters.Count; i++)
        {
            if (!areas.Contains(Planters[i].AreaId))
                faults.Add($"planters[{i}].areaId", $"there is no area \"{Planters[i].AreaId}\"");
        }
        for (int i = 0; i < Displays.Count; i++)
        {
            if (!planters.Contains(Displays[i].PlanterId))
                faults.Add($"displays[{i}].planterId", $"there is no planter \"{Displays[i].PlanterId}\"");
            Items(faults, $"displays[{i}]", Displays[i].Items, Displays[i].Layer, plants);
        }
        for (int i = 0; i < Recipes.Count; i++)
            Items(faults, $"recipes[{i}]", Recipes[i].Items, Recipes[i].Layer, plants);
        for (int i = 0; i < Lots.Count; i++)
        {
            if (!plants.ContainsKey(Lots[i].PlantId))
                faults.Add($"lots[{i}].plantId", NoPlant(Lots[i].PlantId));
            if (Lots[i].FromPlanterId is { } from && !planters.Contains(from))
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

    private void Overlaps(FaultList faults)
    {
        foreach (var layer in Displays.Select((d, i) => (Display: d, Index: i)).GroupBy(x => (x.Display.PlanterId, x.Display.Layer)))
        {
            var sorted = layer.OrderBy(x => x.Display.Install).ToList();
            for (int k = 1; k < sorted.Count; k++)
            {
                if (sorted[k].Display.Install < sorted[k - 1].Display.Lift)
                {
                    faults.Add(
                        $"displays[{sorted[k].Index}].install",
                        $"\"{sorted[k].Display.Id}\" goes into the {layer.Key.Layer.ToString().ToLowerInvariant()} layer of {layer.Key.PlanterId} before \"{sorted[k - 1].Display.Id}\" comes out"
                    );
                }
            }
        }
    }

    private static string NoPlant(string? id) => $"there is no plant \"{id}\" in the palette";

    [GeneratedRegex(@"^(?<list>[a-z]+)\[(?<index>[0-9]+)\]", RegexOptions.CultureInvariant, 1000)]
    private static partial Regex Place();
}
