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

    /// <summary>Time zone by whose clock a day begins, by its name in the time zone database, e.g. "America/Halifax"; null for that of the machine.</summary>
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

    /// <summary>Spares ordered of a plant, 0 to 0.5: the site's share of bedding and bulbs; none of what is bought one by one and stands for years.</summary>
    public double SparesOf(Plant plant) => plant.IsLasting || plant.LifeForm == LifeForm.CutStems ? 0 : SpareShare;

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
    private readonly ILookup<string, Display> _displays;

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
        : this(new PlanParts(site, areas, planters, palette, displays, turns, map ?? [], lots ?? [], recipes ?? [], events ?? []), isChecked: false)
    { }

    private Plan(PlanParts parts, bool isChecked)
    {
        if (!isChecked)
            parts.Check(new FaultList()).ThrowIfAny();
        (Site, Areas, Planters, Palette, Displays, Turns, Map, Lots, Recipes, Events) = parts;
        _areas = Areas.ToDictionary(a => a.Id, StringComparer.Ordinal);
        _planters = Planters.ToDictionary(p => p.Id, StringComparer.Ordinal);
        _plants = Palette.ToDictionary(p => p.Id, StringComparer.Ordinal);
        _displays = Displays.OrderBy(d => d.Install).ThenBy(d => d.Layer).ToLookup(d => d.PlanterId, StringComparer.Ordinal);
    }

    /// <summary>The plan of parts of which some may not fit; those are left out, and all else stands.</summary>
    /// <param name="parts">The parts.</param>
    /// <param name="aside">What was left out, each with why.</param>
    public static Plan Fitting(PlanParts parts, out IReadOnlyList<SetAside> aside)
    {
        PlanParts fitting = parts.Fitting(out aside);
        return new Plan(fitting, isChecked: true);
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

    /// <summary>Displays of a planter, earliest first.</summary>
    public IEnumerable<Display> DisplaysOf(string planterId) => _displays[planterId];

    /// <summary>A bulb display's bulbs with their counts and chosen depths, as a stack is laid out from them.</summary>
    public IReadOnlyList<PlannedBulb> BulbsOf(Display display) =>
        [.. display.Items.Select(i => new PlannedBulb(Plant(i.PlantId), i.Count, i.DepthCm) { Clump = i.Clump })];

    /// <summary>The same plan with some displays taken out and others put in; everything is checked anew.</summary>
    /// <param name="without">Ids of displays to leave out, those that are replaced among them.</param>
    /// <param name="with">Displays to put in.</param>
    /// <exception cref="InvalidInputException">The displays do not fit each other or the plan.</exception>
    public Plan Changed(IReadOnlyCollection<string> without, IReadOnlyList<Display> with) =>
        new(
            Site,
            Areas,
            Planters,
            Palette,
            [.. Displays.Where(d => !without.Contains(d.Id, StringComparer.Ordinal)), .. with],
            Turns,
            Map,
            Lots,
            Recipes,
            Events
        );
}
