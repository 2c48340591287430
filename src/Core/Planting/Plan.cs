using UnrulyMeadow.Core.Grounds;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Planting;

/// <summary>The units in which a site reads its figures.</summary>
public enum SiteUnits
{
    /// <summary>cm, L, °C.</summary>
    Metric,

    /// <summary>in, gal, °F.</summary>
    UsCustomary,
}

/// <summary>Where a site lies.</summary>
/// <param name="LatitudeDeg">Degrees north; negative in the south.</param>
/// <param name="LongitudeDeg">Degrees east; negative in the west.</param>
/// <param name="ElevationM">Metres above the sea.</param>
/// <param name="AtElevation">True to carry a station's temperatures to the site's height, 6.5 °C per km.</param>
public sealed record SitePlace(double LatitudeDeg, double LongitudeDeg, double ElevationM, bool AtElevation = false)
{
    /// <summary>Every fault of the place.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("latitudeDeg", LatitudeDeg, -90, 90, "degrees");
        faults.Range("longitudeDeg", LongitudeDeg, -180, 180, "degrees");
        faults.Range("elevationM", ElevationM, -430, 9000, "m");
        return faults.Faults;
    }
}

/// <summary>What the crew has chosen for the whole site.</summary>
/// <param name="Name">The site's name.</param>
/// <param name="Units">Units shown.</param>
/// <param name="Money">Sign or code of the money, e.g. "$".</param>
/// <param name="CoverThreshold">Share of a planter's top that counts as in colour, 0.05 to 0.6 (default 0.15).</param>
/// <param name="SpareShare">Spares ordered, 0 to 0.5 of the count.</param>
/// <param name="FreshMediumCm">Fresh medium at a seasonal turn, cm from the surface (default 20).</param>
/// <param name="MediumBagLitres">Litres in one bag of medium.</param>
/// <param name="MediumBagPrice">Price of one bag.</param>
/// <param name="WallGapCm">Bulbs keep this far from a wall, cm.</param>
/// <param name="BulbGapCm">Bulbs keep this far from each other in a container, cm.</param>
public sealed record Site(
    string Name,
    SiteUnits Units,
    string Money,
    double CoverThreshold,
    double SpareShare,
    double FreshMediumCm,
    double MediumBagLitres,
    decimal MediumBagPrice,
    double WallGapCm,
    double BulbGapCm)
{
    /// <summary>What the crew lets one person lift, kg (default 20, common practice).</summary>
    public double OnePersonKg { get; init; } = 20;

    /// <summary>Where it lies; null when nobody has said.</summary>
    public SitePlace? Place { get; init; }

    /// <summary>The schools that the crew follows.</summary>
    public HouseRules Rules { get; init; } = HouseRules.Default;

    /// <summary>The schools that hold for one planter.</summary>
    public HouseRules RulesFor(Planter planter) => planter.Rules?.Over(Rules) ?? Rules;

    /// <summary>A site with the defaults of common practice.</summary>
    public static Site Default { get; } = new("New site", SiteUnits.Metric, "$", 0.15, 0.05, 20, 60, 18, 2.5, 2);

    /// <summary>Every fault of the settings.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("name", Name, 60);
        faults.Text("money", Money, 4);
        faults.Range("coverThreshold", CoverThreshold, 0.05, 0.6, string.Empty);
        faults.Range("spareShare", SpareShare, 0, 0.5, string.Empty);
        faults.Range("freshMediumCm", FreshMediumCm, 0, 100, "cm");
        faults.Range("mediumBagLitres", MediumBagLitres, 1, 2000, "L");
        faults.Range("mediumBagPrice", (double)MediumBagPrice, 0, 100_000, string.Empty);
        faults.Range("wallGapCm", WallGapCm, 0, 10, "cm");
        faults.Range("bulbGapCm", BulbGapCm, 0, 20, "cm");
        faults.Range("onePersonKg", OnePersonKg, 1, 60, "kg");
        if (Place is not null)
            faults.AddAll("place", Place.Faults());
        faults.AddAll("rules", Rules.Faults());
        return faults.Faults;
    }
}

/// <summary>What the crew decided: the site, its areas and planters, its palette, its displays and turns.</summary>
public sealed class Plan
{
    private readonly Dictionary<string, Plant> _plants;
    private readonly Dictionary<string, Planter> _planters;
    private readonly Dictionary<string, Area> _areas;
    private readonly ILookup<string, Display> _displays;

    /// <summary>Takes the parts together and checks them against each other.</summary>
    /// <exception cref="InvalidInputException">Something is missing, given twice or impossible; every fault is named.</exception>
    public Plan(
        Site site,
        IReadOnlyList<Area> areas,
        IReadOnlyList<Planter> planters,
        IReadOnlyList<Plant> palette,
        IReadOnlyList<Display> displays,
        IReadOnlyList<Turn> turns,
        IReadOnlyList<MapFeature>? map = null,
        IReadOnlyList<Lot>? lots = null,
        IReadOnlyList<Recipe>? recipes = null,
        IReadOnlyList<SiteEvent>? events = null)
    {
        var faults = new FaultList();
        faults.AddAll("site", site.Faults());
        Check(faults, "areas", areas, a => a.Id, a => a.Faults());
        Check(faults, "palette", palette, p => p.Id, p => p.Faults());
        Check(faults, "planters", planters, p => p.Id, p => p.Faults());
        Check(faults, "displays", displays, d => d.Id, d => d.Faults());
        Check(faults, "turns", turns, t => t.Id, t => t.Faults());
        Map = map ?? [];
        Lots = lots ?? [];
        Check(faults, "map", Map, f => f.Id, f => f.Faults());
        Check(faults, "lots", Lots, l => l.Id, l => l.Faults());
        Recipes = recipes ?? [];
        Check(faults, "recipes", Recipes, r => r.Id, r => r.Faults());
        Events = events ?? [];
        Check(faults, "events", Events, e => e.Id, e => e.Faults());
        Twice(faults, "recipes", Recipes, r => r.Name, "name");
        Twice(faults, "planters", planters, p => p.Name, "name");
        Twice(faults, "areas", areas, a => a.Name, "name");
        Site = site;
        Areas = areas;
        Planters = planters;
        Palette = palette;
        Displays = displays;
        Turns = turns;
        _areas = ById(areas, a => a.Id);
        _planters = ById(planters, p => p.Id);
        _plants = ById(palette, p => p.Id);
        _displays = displays.ToLookup(d => d.PlanterId);
        References(faults);
        faults.ThrowIfAny();
    }

    /// <summary>Settings.</summary>
    public Site Site { get; }

    /// <summary>Areas in their order.</summary>
    public IReadOnlyList<Area> Areas { get; }

    /// <summary>Planters in their order.</summary>
    public IReadOnlyList<Planter> Planters { get; }

    /// <summary>The palette.</summary>
    public IReadOnlyList<Plant> Palette { get; }

    /// <summary>Displays of all planters.</summary>
    public IReadOnlyList<Display> Displays { get; }

    /// <summary>Turns in order of their days.</summary>
    public IReadOnlyList<Turn> Turns { get; }

    /// <summary>The site's map.</summary>
    public IReadOnlyList<MapFeature> Map { get; }

    /// <summary>Plants at hand that stand in no display.</summary>
    public IReadOnlyList<Lot> Lots { get; }

    /// <summary>Displays kept as patterns for other planters.</summary>
    public IReadOnlyList<Recipe> Recipes { get; }

    /// <summary>Days on which the site must look its best, in their order.</summary>
    public IReadOnlyList<SiteEvent> Events { get; }

    /// <summary>The plant of an id.</summary>
    public Plant Plant(string id) => _plants[id];

    /// <summary>The planter of an id, or null.</summary>
    public Planter? FindPlanter(string id) => _planters.GetValueOrDefault(id);

    /// <summary>The plant of an id, or null.</summary>
    public Plant? FindPlant(string id) => _plants.GetValueOrDefault(id);

    /// <summary>The area of a planter.</summary>
    public Area AreaOf(Planter planter) => _areas[planter.AreaId];

    /// <summary>Displays of a planter, earliest first.</summary>
    public IEnumerable<Display> DisplaysOf(string planterId) => _displays[planterId].OrderBy(d => d.Install).ThenBy(d => d.Layer);

    /// <summary>A bulb display's bulbs with their counts and chosen depths, as a stack is laid out from them.</summary>
    public IReadOnlyList<PlannedBulb> BulbsOf(Display display) =>
        [.. display.Items.Select(i => new PlannedBulb(Plant(i.PlantId), i.Count, i.DepthCm) { Clump = i.Clump })];

    /// <summary>The same plan with some displays taken out and others put in; everything is checked anew.</summary>
    /// <param name="without">Ids of displays to leave out, those that are replaced among them.</param>
    /// <param name="with">Displays to put in.</param>
    /// <exception cref="InvalidInputException">The displays do not fit each other or the plan.</exception>
    public Plan Changed(IReadOnlyCollection<string> without, IReadOnlyList<Display> with) =>
        new(Site, Areas, Planters, Palette, [.. Displays.Where(d => !without.Contains(d.Id, StringComparer.Ordinal)), .. with], Turns, Map, Lots, Recipes, Events);

    private static Dictionary<string, T> ById<T>(IReadOnlyList<T> items, Func<T, string> id) =>
        items.GroupBy(id).ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);

    private static void Check<T>(FaultList faults, string list, IReadOnlyList<T> items, Func<T, string> id, Func<T, IReadOnlyList<Fault>> check)
    {
        for (int i = 0; i < items.Count; i++)
            faults.AddAll($"{list}[{i}]", check(items[i]));
        Twice(faults, list, items, id, "id");
    }

    private static void Twice<T>(FaultList faults, string list, IReadOnlyList<T> items, Func<T, string> key, string what)
    {
        foreach (var group in items.Select((item, i) => (Key: key(item), Index: i)).GroupBy(x => x.Key).Where(g => g.Count() > 1))
        {
            foreach (var (_, index) in group.Skip(1))
                faults.Add($"{list}[{index}].{what}", $"\"{group.Key}\" is already used by {list}[{group.First().Index}]; every {what} must be its own");
        }
    }

    private void References(FaultList faults)
    {
        for (int i = 0; i < Planters.Count; i++)
        {
            if (!_areas.ContainsKey(Planters[i].AreaId))
                faults.Add($"planters[{i}].areaId", $"there is no area \"{Planters[i].AreaId}\"");
        }
        for (int i = 0; i < Displays.Count; i++)
        {
            if (!_planters.ContainsKey(Displays[i].PlanterId))
                faults.Add($"displays[{i}].planterId", $"there is no planter \"{Displays[i].PlanterId}\"");
            for (int k = 0; k < Displays[i].Items.Count; k++)
            {
                DisplayItem item = Displays[i].Items[k];
                if (!_plants.TryGetValue(item.PlantId, out Plant? plant))
                    faults.Add($"displays[{i}].items[{k}].plantId", $"there is no plant \"{item.PlantId}\" in the palette");
                else if ((plant.Bulb is not null) != (Displays[i].Layer == DisplayLayer.Bulbs))
                    faults.Add($"displays[{i}].items[{k}].plantId", $"\"{item.PlantId}\" is {(plant.Bulb is null ? "no bulb and cannot" : "a bulb and must")} stand in the bulb layer");
            }
        }
        for (int i = 0; i < Recipes.Count; i++)
        {
            foreach (DisplayItem item in Recipes[i].Items.Where(x => !_plants.ContainsKey(x.PlantId)))
                faults.Add($"recipes[{i}].items", $"there is no plant \"{item.PlantId}\" in the palette");
        }
        for (int i = 0; i < Lots.Count; i++)
        {
            if (!_plants.ContainsKey(Lots[i].PlantId))
                faults.Add($"lots[{i}].plantId", $"there is no plant \"{Lots[i].PlantId}\" in the palette");
            if (Lots[i].FromPlanterId is { } from && !_planters.ContainsKey(from))
                faults.Add($"lots[{i}].fromPlanterId", $"there is no planter \"{from}\"");
        }
        foreach (var layer in Displays.Select((d, i) => (Display: d, Index: i)).GroupBy(x => (x.Display.PlanterId, x.Display.Layer)))
        {
            var sorted = layer.OrderBy(x => x.Display.Install).ToList();
            for (int k = 1; k < sorted.Count; k++)
            {
                if (sorted[k].Display.Install < sorted[k - 1].Display.Lift)
                {
                    faults.Add(
                        $"displays[{sorted[k].Index}].install",
                        $"\"{sorted[k].Display.Id}\" goes into the {layer.Key.Layer.ToString().ToLowerInvariant()} layer of {layer.Key.PlanterId} before \"{sorted[k - 1].Display.Id}\" comes out");
                }
            }
        }
    }
}
