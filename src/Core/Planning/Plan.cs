using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Planning;

/// <summary>The units in which a site reads its figures.</summary>
public enum SiteUnits
{
    /// <summary>cm, L, °C.</summary>
    Metric,

    /// <summary>in, gal, °F.</summary>
    UsCustomary,
}

/// <summary>What the crew has chosen for the whole site.</summary>
/// <param name="Name">The site's name.</param>
/// <param name="Units">Units shown.</param>
/// <param name="Money">Sign or code of the money, e.g. "$".</param>
/// <param name="CoverThreshold">Share of what people see of a planting that counts as in colour, 0.05 to 0.6 (default 0.15).</param>
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
    double BulbGapCm
)
{
    /// <summary>What the crew lets one person lift, kg (default 20, common practice).</summary>
    public double OnePersonKg { get; init; } = 20;

    /// <summary>
    /// Time zone by whose clock a day begins, by its name in the time zone database, e.g. "America/Halifax"; null for that of the machine.
    /// </summary>
    public string? TimeZone { get; init; }

    /// <summary>Odds of a freeze after the frost all-clear that the crew accepts, 0.02 to 0.5 (default 0.1, common practice).</summary>
    public double FrostRisk { get; init; } = FrostOdds.UsualRisk;

    /// <summary>Where it lies; null when nobody has said.</summary>
    public SitePlace? Place { get; init; }

    /// <summary>True when it is known to lie south of the equator.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsSouthern => Place?.LatitudeDeg < 0;

    /// <summary>The schools that the crew follows.</summary>
    public HouseRules Rules { get; init; } = HouseRules.Default;

    /// <summary>
    /// Spares ordered of a plant, 0 to 0.5: the site's share of bedding and bulbs; none of what is bought one by one and stands for years.
    /// </summary>
    public double SparesOf(Plant plant) => plant.IsLasting || plant.LifeForm == LifeForm.CutStems ? 0 : SpareShare;

    /// <summary>What so many plants cost in the cheapest packs of the form that they are usually bought in, spares included, at guide prices.</summary>
    /// <param name="plant">The kind.</param>
    /// <param name="count">How many are planted.</param>
    /// <param name="inColour">True for what is bought in full colour.</param>
    public decimal GuidePrice(Plant plant, int count, bool inColour = false) =>
        PackPurchase.Cheapest(PackPurchase.WithSpares(count, SparesOf(plant)), GoodsForm.Usual(plant, inColour).Packs).Cost;

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
        if (TimeZone is not null && DateTimeZoneProviders.Tzdb.GetZoneOrNull(TimeZone) is null)
            faults.Add("timeZone", $"must be a name of the time zone database, e.g. America/Halifax (it is \"{TimeZone}\")");
        faults.Range("frostRisk", FrostRisk, 0.02, 0.5, string.Empty);
        if (Place is not null)
            faults.AddAll("place", Place.Faults());
        faults.AddAll("rules", Rules.Faults());
        return faults.Faults;
    }
}

/// <summary>What the crew decided: the site, its areas and planters, its palette, its displays and turns. It holds no contradiction.</summary>
public sealed class Plan
{
    private readonly Dictionary<string, Plant> _plants;
    private readonly Dictionary<string, Planter> _planters;
    private readonly Dictionary<string, Area> _areas;
    private readonly Dictionary<string, Display[]> _displays;
    private ILookup<string, Planter>? _looks;

    /// <summary>Takes the parts together and checks them against each other.</summary>
    /// <exception cref="InvalidInputException">Something is missing, given twice or impossible; the faults are named.</exception>
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
        IReadOnlyList<SiteEvent>? events = null
    )
        : this(new PlanParts(site, areas, planters, palette, displays, turns, map ?? [], lots ?? [], recipes ?? [], events ?? []).Sound(null), null)
    { }

    // Of parts that fit each other; what the plan before knew of those that did not change is taken over.
    private Plan(PlanParts parts, Plan? before)
    {
        Parts = parts;
        Records = before?.Records ?? PlanRecords.None;
        _areas = Areas.ToDictionary(a => a.Id, StringComparer.Ordinal);
        _planters = Index(Planters, before?.Planters, before?._planters, p => p.Id);
        _plants = Index(Palette, before?.Palette, before?._plants, p => p.Id);
        _displays = ByPlanter(before);
    }

    /// <summary>The plan of parts of which some may not fit; those are left out, and all else stands.</summary>
    /// <param name="parts">The parts.</param>
    /// <param name="before">A plan from which they differ little, so that only what differs is looked at; null for none.</param>
    /// <param name="aside">What was left out, each with why.</param>
    public static Plan Fitting(PlanParts parts, Plan? before, out IReadOnlyList<SetAside> aside) =>
        new(parts.Fitting(before?.Parts, out aside), before);

    /// <summary>All that it holds.</summary>
    public PlanParts Parts { get; }

    /// <summary>What has happened. It is no part of the plan, and stays as it is whatever is planned.</summary>
    public PlanRecords Records { get; private init; }

    /// <summary>Settings.</summary>
    public Site Site => Parts.Site;

    /// <summary>Areas in their order.</summary>
    public IReadOnlyList<Area> Areas => Parts.Areas;

    /// <summary>Planters in their order.</summary>
    public IReadOnlyList<Planter> Planters => Parts.Planters;

    /// <summary>The palette.</summary>
    public IReadOnlyList<Plant> Palette => Parts.Palette;

    /// <summary>Displays of all planters.</summary>
    public IReadOnlyList<Display> Displays => Parts.Displays;

    /// <summary>Turns in order of their days.</summary>
    public IReadOnlyList<Turn> Turns => Parts.Turns;

    /// <summary>The site's map.</summary>
    public IReadOnlyList<MapFeature> Map => Parts.Map;

    /// <summary>Plants at hand that stand in no display.</summary>
    public IReadOnlyList<Lot> Lots => Parts.Lots;

    /// <summary>Displays kept as patterns for other planters.</summary>
    public IReadOnlyList<Recipe> Recipes => Parts.Recipes;

    /// <summary>Days on which the site must look its best, in their order.</summary>
    public IReadOnlyList<SiteEvent> Events => Parts.Events;

    /// <summary>The plant of an id.</summary>
    public Plant Plant(string id) => _plants[id];

    /// <summary>A kind as a display's line buys it for a planter: in the form chosen, or the usual one.</summary>
    public Plant AsBought(Planter planter, DisplayItem item)
    {
        Plant plant = Plant(item.PlantId);
        return GoodsForm.AsBought(plant, GoodsForm.Chosen(plant, item.Form, Site.RulesFor(planter).Stage == StageSchool.InColour));
    }

    /// <summary>The planter of an id; null where there is none, or no id.</summary>
    public Planter? FindPlanter(string? id) => id is null ? null : _planters.GetValueOrDefault(id);

    /// <summary>The plant of an id; null where there is none, or no id.</summary>
    public Plant? FindPlant(string? id) => id is null ? null : _plants.GetValueOrDefault(id);

    /// <summary>The area of a planter.</summary>
    public Area AreaOf(Planter planter) => _areas[planter.AreaId];

    /// <summary>Planters that are to look alike, retired ones among them; none for those of no group.</summary>
    /// <param name="group">The look group, in capitals or not.</param>
    public IEnumerable<Planter> PlantersOfLook(string group) =>
        group.Length == 0 ? [] : (_looks ??= Planters.ToLookup(p => p.Survey.LookGroup, StringComparer.OrdinalIgnoreCase))[group];

    /// <summary>Displays of a planter, earliest first.</summary>
    public IReadOnlyList<Display> DisplaysOf(string planterId) => _displays.GetValueOrDefault(planterId, []);

    /// <summary>A bulb display's bulbs with their counts and chosen depths, as a stack is laid out from them.</summary>
    public IReadOnlyList<PlannedBulb> BulbsOf(Display display) =>
        [.. display.Items.Select(i => new PlannedBulb(Plant(i.PlantId), i.Count, i.DepthCm) { Clump = i.Clump })];

    /// <summary>The same plan with some displays taken out and others put in; everything is checked anew.</summary>
    /// <param name="without">Ids of displays to leave out, those that are replaced among them.</param>
    /// <param name="with">Displays to put in.</param>
    /// <exception cref="InvalidInputException">The displays do not fit each other or the plan.</exception>
    public Plan Changed(IReadOnlyCollection<string> without, IReadOnlyList<Display> with) =>
        new((Parts with { Displays = [.. Displays.Where(d => !without.Contains(d.Id, StringComparer.Ordinal)), .. with] }).Sound(Parts), this);

    /// <summary>The same plan with other plants at hand.</summary>
    /// <exception cref="InvalidInputException">A lot is out of range, or of no kind of the palette.</exception>
    public Plan WithLots(IReadOnlyList<Lot> lots) => new((Parts with { Lots = lots }).Sound(Parts), this);

    /// <summary>The same plan beside other records.</summary>
    public Plan With(PlanRecords records) => new(Parts, this) { Records = records };

    /// <summary>
    /// Planters that stand otherwise than in a plan before: their own figures, their displays, or plants that stand in them; null when
    /// settings or areas differ, on which all of them rest.
    /// </summary>
    /// <param name="before">The other plan.</param>
    public IReadOnlySet<string>? PlantersChangedSince(Plan before)
    {
        if (ReferenceEquals(before, this))
            return new HashSet<string>();
        if (!ReferenceEquals(before.Site, Site) || !ListChange.Between(before.Areas, Areas).IsNone)
            return null;
        var planters = ListChange.Between(before.Planters, Planters);
        var displays = ListChange.Between(before.Displays, Displays);
        var changed = new HashSet<string>(StringComparer.Ordinal);
        changed.UnionWith(planters.Gone.Select(p => p.Id).Concat(planters.Come.Select(p => p.Part.Id)));
        changed.UnionWith(displays.Gone.Select(d => d.PlanterId).Concat(displays.Come.Select(d => d.Part.PlanterId)));
        HashSet<string> plants = [.. ListChange.Between(before.Palette, Palette).Come.Select(p => p.Part.Id)];
        if (plants.Count > 0)
            changed.UnionWith(Displays.Where(d => d.Items.Any(i => plants.Contains(i.PlantId))).Select(d => d.PlanterId));
        return changed;
    }

    private static Dictionary<string, T> Index<T>(IReadOnlyList<T> items, IReadOnlyList<T>? before, Dictionary<string, T>? known, Func<T, string> id)
        where T : class
    {
        if (known is null)
            return items.ToDictionary(id, StringComparer.Ordinal);
        var change = ListChange.Between(before, items);
        if (change.IsNone)
            return known;
        var index = new Dictionary<string, T>(known, StringComparer.Ordinal);
        foreach (T gone in change.Gone)
            index.Remove(id(gone));
        foreach ((T part, _) in change.Come)
            index[id(part)] = part;
        return index;
    }

    private Dictionary<string, Display[]> ByPlanter(Plan? before)
    {
        var change = ListChange.Between(before?.Displays, Displays);
        if (before is not null && change.IsNone)
            return before._displays;
        var index = before is null
            ? new Dictionary<string, Display[]>(StringComparer.Ordinal)
            : new Dictionary<string, Display[]>(before._displays, StringComparer.Ordinal);
        HashSet<string> touched = [.. change.Gone.Select(d => d.PlanterId), .. change.Come.Select(d => d.Part.PlanterId)];
        foreach (string id in touched)
            index.Remove(id);
        foreach (var own in Displays.Where(d => touched.Contains(d.PlanterId)).GroupBy(d => d.PlanterId, StringComparer.Ordinal))
            index[own.Key] = [.. own.OrderBy(d => d.Install).ThenBy(d => d.Layer)];
        return index;
    }
}
