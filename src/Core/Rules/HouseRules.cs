using System.Reflection;
using NodaTime;
using UnrulyMeadow.Core.Colour;

namespace UnrulyMeadow.Core.Rules;

/// <summary>How deep bulbs go.</summary>
public enum BulbDepthSchool
{
    /// <summary>Base at three times the bulb's height.</summary>
    ThreeTimesHeight,

    /// <summary>As above, but large bulbs at 19 cm (7½ in) against squirrels and early emergence.</summary>
    Deep,

    /// <summary>
    /// As above, but the deepest large bulbs of a container at 28 cm (11 in), so that more layers and a winter display find room over them.
    /// </summary>
    StackedContainers,
}

/// <summary>What happens to the medium at a turn.</summary>
public enum MediumSchool
{
    /// <summary>The top is taken out and filled up, with a starter feed.</summary>
    Recharge,

    /// <summary>All of it is replaced.</summary>
    ReplaceAll,
}

/// <summary>Feed when bulbs are planted.</summary>
public enum BulbFeedSchool
{
    /// <summary>None: the bulb carries its food; feed in spring when leaves are up.</summary>
    None,

    /// <summary>Bulb food in the hole.</summary>
    BulbFood,
}

/// <summary>How a bulb is set.</summary>
public enum BulbAttitude
{
    /// <summary>Upright.</summary>
    Upright,

    /// <summary>Tilted a little outward, so that leaves arch instead of flopping.</summary>
    Tilted,
}

/// <summary>How a container drains.</summary>
public enum DrainageSchool
{
    /// <summary>A free hole, open medium and feet.</summary>
    FreeHole,

    /// <summary>Shards or gravel over the hole.</summary>
    GravelOverHole,
}

/// <summary>The stage at which flowering plants are bought.</summary>
public enum StageSchool
{
    /// <summary>In bud: the longest show, some days later.</summary>
    InBud,

    /// <summary>In full colour: at once, and over sooner.</summary>
    InColour,
}

/// <summary>How close plants are set.</summary>
public enum DensitySchool
{
    /// <summary>So that the surface is full by a date.</summary>
    ByDate,

    /// <summary>Packed from day one.</summary>
    PackedFromDayOne,

    /// <summary>With room to grow to full width.</summary>
    RoomToGrow,
}

/// <summary>How planters of a group relate.</summary>
public enum PatternSchool
{
    /// <summary>Identical pairs side by side.</summary>
    IdenticalPairs,

    /// <summary>Each echoes a plant or a colour of the others.</summary>
    Echo,

    /// <summary>Free.</summary>
    Free,
}

/// <summary>How colours go together in a planter.</summary>
public enum ColourSchool
{
    /// <summary>At least one contrast.</summary>
    Contrast,

    /// <summary>One colour, varied in texture and height.</summary>
    OneColour,

    /// <summary>Neighbouring hues.</summary>
    Neighbouring,

    /// <summary>The institution's colours.</summary>
    Institution,
}

/// <summary>What becomes of tulips after bloom.</summary>
public enum TulipSchool
{
    /// <summary>Lifted after bloom and bought anew.</summary>
    Annual,

    /// <summary>Left; they decline and are replaced in the third year.</summary>
    Perennial,
}

/// <summary>When a display makes way.</summary>
public enum TurnSchool
{
    /// <summary>At the calendar's turn, though it still looks good: the next one needs its growing time.</summary>
    AtCalendar,

    /// <summary>When it is past its best.</summary>
    WhenPast,
}

/// <summary>The colour of pots.</summary>
public enum PotSchool
{
    /// <summary>One pot colour across a group.</summary>
    OneAcrossGroup,

    /// <summary>The pot that sets off its plants.</summary>
    SetsOffPlants,
}

/// <summary>How weed fabric is slit for a plant.</summary>
public enum FabricSchool
{
    /// <summary>A cross with folded corners.</summary>
    Cross,

    /// <summary>A T with two flaps.</summary>
    TwoFlaps,
}

/// <summary>What becomes of fall chrysanthemums.</summary>
public enum ChrysanthemumSchool
{
    /// <summary>Annuals: out when they are over.</summary>
    Annual,

    /// <summary>Planted early enough in the ground to live through the winter.</summary>
    Overwinter,
}

/// <summary>How stock raised under glass comes to the planter.</summary>
public enum HardenOffSchool
{
    /// <summary>Hardened off: a week out by day, or in a house with open sides.</summary>
    HardenedOff,

    /// <summary>Straight from a warm house.</summary>
    FromWarmHouse,
}

/// <summary>The days on which the crew works.</summary>
public enum WorkWeekSchool
{
    /// <summary>Monday to Friday.</summary>
    MondayToFriday,

    /// <summary>Monday to Saturday.</summary>
    MondayToSaturday,

    /// <summary>Every day.</summary>
    EveryDay,
}

/// <summary>What is done about pests.</summary>
public enum PestSchool
{
    /// <summary>Tolerated and cut back.</summary>
    Tolerate,

    /// <summary>Soap or oil, never on open flowers with pollinators.</summary>
    SoapOrOil,
}

/// <summary>The schools that a crew follows where good practitioners disagree. The first of each is the default (common practice).</summary>
public sealed record HouseRules
{
    /// <summary>Everything by default.</summary>
    public static HouseRules Default { get; } = new();

    /// <summary>Depth of bulbs.</summary>
    public BulbDepthSchool BulbDepth { get; init; }

    /// <summary>Medium at a turn.</summary>
    public MediumSchool Medium { get; init; }

    /// <summary>Feed at bulb planting.</summary>
    public BulbFeedSchool BulbFeed { get; init; }

    /// <summary>Attitude of bulbs.</summary>
    public BulbAttitude BulbAttitude { get; init; }

    /// <summary>Drainage of containers.</summary>
    public DrainageSchool Drainage { get; init; }

    /// <summary>Stage at purchase.</summary>
    public StageSchool Stage { get; init; }

    /// <summary>Density.</summary>
    public DensitySchool Density { get; init; }

    /// <summary>Pattern over a group.</summary>
    public PatternSchool Pattern { get; init; }

    /// <summary>Colour.</summary>
    public ColourSchool Colour { get; init; }

    /// <summary>Tulips after bloom.</summary>
    public TulipSchool Tulips { get; init; }

    /// <summary>When to turn.</summary>
    public TurnSchool Turn { get; init; }

    /// <summary>Pots.</summary>
    public PotSchool Pots { get; init; }

    /// <summary>Slit in weed fabric.</summary>
    public FabricSchool Fabric { get; init; }

    /// <summary>Fall chrysanthemums.</summary>
    public ChrysanthemumSchool Chrysanthemums { get; init; }

    /// <summary>Hardening off.</summary>
    public HardenOffSchool HardenOff { get; init; }

    /// <summary>Pests.</summary>
    public PestSchool Pests { get; init; }

    /// <summary>Working days.</summary>
    public WorkWeekSchool WorkWeek { get; init; }

    /// <summary>True when the crew works on a day of the week.</summary>
    public bool WorksOn(LocalDate day) =>
        WorkWeek switch
        {
            WorkWeekSchool.MondayToFriday => day.DayOfWeek is not (IsoDayOfWeek.Saturday or IsoDayOfWeek.Sunday),
            WorkWeekSchool.MondayToSaturday => day.DayOfWeek != IsoDayOfWeek.Sunday,
            _ => true,
        };

    /// <summary>The first working day on or after a day.</summary>
    public LocalDate WorkingDayFrom(LocalDate day)
    {
        while (!WorksOn(day))
            day = day.PlusDays(1);
        return day;
    }

    /// <summary>The institution's colours, #rrggbb; at most eight.</summary>
    public IReadOnlyList<string> InstitutionColours { get; init; } = [];

    /// <summary>Every fault of the rules.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (InstitutionColours.Count > 8)
            faults.Add("institutionColours", "must be at most eight colours");
        for (int i = 0; i < InstitutionColours.Count; i++)
        {
            if (!Srgb.IsColour(InstitutionColours[i]))
                faults.Add($"institutionColours[{i}]", "must be written #rrggbb");
        }
        if (Colour == ColourSchool.Institution && InstitutionColours.Count == 0)
            faults.Add("institutionColours", "must name at least one colour when the institution's colours are followed");
        return faults.Faults;
    }

    /// <inheritdoc />
    public bool Equals(HouseRules? other) =>
        other is not null
        && Schools.All(p => Equals(p.GetValue(this), p.GetValue(other)))
        && InstitutionColours.SequenceEqual(other.InstitutionColours, StringComparer.Ordinal);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(BulbDepth, Medium, Drainage, Density, Colour, Tulips, Turn, InstitutionColours.Count);

    internal static IReadOnlyList<PropertyInfo> Schools { get; } = [.. typeof(HouseRules).GetProperties().Where(p => p.PropertyType.IsEnum)];
}

/// <summary>Where one planter follows another school than its site; null follows the site.</summary>
public sealed record PlanterRules
{
    /// <summary>Depth of bulbs.</summary>
    public BulbDepthSchool? BulbDepth { get; init; }

    /// <summary>Medium at a turn.</summary>
    public MediumSchool? Medium { get; init; }

    /// <summary>Feed at bulb planting.</summary>
    public BulbFeedSchool? BulbFeed { get; init; }

    /// <summary>Attitude of bulbs.</summary>
    public BulbAttitude? BulbAttitude { get; init; }

    /// <summary>Drainage.</summary>
    public DrainageSchool? Drainage { get; init; }

    /// <summary>Stage at purchase.</summary>
    public StageSchool? Stage { get; init; }

    /// <summary>Density.</summary>
    public DensitySchool? Density { get; init; }

    /// <summary>Pattern.</summary>
    public PatternSchool? Pattern { get; init; }

    /// <summary>Colour.</summary>
    public ColourSchool? Colour { get; init; }

    /// <summary>Tulips after bloom.</summary>
    public TulipSchool? Tulips { get; init; }

    /// <summary>When to turn.</summary>
    public TurnSchool? Turn { get; init; }

    /// <summary>Pot.</summary>
    public PotSchool? Pots { get; init; }

    /// <summary>Slit in weed fabric.</summary>
    public FabricSchool? Fabric { get; init; }

    /// <summary>Fall chrysanthemums.</summary>
    public ChrysanthemumSchool? Chrysanthemums { get; init; }

    /// <summary>Hardening off; null to follow the site.</summary>
    public HardenOffSchool? HardenOff { get; init; }

    /// <summary>Pests.</summary>
    public PestSchool? Pests { get; init; }

    /// <summary>Working days.</summary>
    public WorkWeekSchool? WorkWeek { get; init; }

    /// <summary>The site's rules with what this planter does otherwise.</summary>
    public HouseRules Over(HouseRules site) =>
        site with
        {
            BulbDepth = BulbDepth ?? site.BulbDepth,
            Medium = Medium ?? site.Medium,
            BulbFeed = BulbFeed ?? site.BulbFeed,
            BulbAttitude = BulbAttitude ?? site.BulbAttitude,
            Drainage = Drainage ?? site.Drainage,
            Stage = Stage ?? site.Stage,
            Density = Density ?? site.Density,
            Pattern = Pattern ?? site.Pattern,
            Colour = Colour ?? site.Colour,
            Tulips = Tulips ?? site.Tulips,
            Turn = Turn ?? site.Turn,
            Pots = Pots ?? site.Pots,
            Fabric = Fabric ?? site.Fabric,
            Chrysanthemums = Chrysanthemums ?? site.Chrysanthemums,
            HardenOff = HardenOff ?? site.HardenOff,
            Pests = Pests ?? site.Pests,
            WorkWeek = WorkWeek ?? site.WorkWeek,
        };
}
