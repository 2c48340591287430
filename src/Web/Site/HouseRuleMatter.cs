using System.Reflection;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Web.Site;

/// <summary>A school as a person reads it.</summary>
/// <param name="Value">Its value.</param>
/// <param name="Name">In a few words.</param>
/// <param name="Does">What following it changes here.</param>
public sealed record HouseRuleSchool(string Value, string Name, string Does);

/// <summary>One matter on which good practitioners disagree, with its schools.</summary>
/// <param name="Key">The property of <see cref="HouseRules"/> and <see cref="PlanterRules"/>.</param>
/// <param name="Name">The matter.</param>
/// <param name="Schools">The schools, the default first.</param>
public sealed record HouseRuleMatter(string Key, string Name, IReadOnlyList<HouseRuleSchool> Schools)
{
    /// <summary>Every matter, in the order of the work.</summary>
    public static IReadOnlyList<HouseRuleMatter> All { get; } =
    [
        new(
            nameof(HouseRules.Density),
            "how close plants are set",
            [
                new("ByDate", "full by a date", "Counts are solved so that the surface is full six weeks after planting."),
                new("PackedFromDayOne", "packed from day one", "Counts are solved for the day of planting itself."),
                new("RoomToGrow", "room to grow", "No more stand together than can grow to full width."),
            ]
        ),
        new(
            nameof(HouseRules.Stage),
            "stage at purchase",
            [
                new("InBud", "in bud", "Colour begins after the bud days and lasts longest."),
                new("InColour", "in full colour", "Colour shows on the day of planting and is over sooner."),
            ]
        ),
        new(
            nameof(HouseRules.Colour),
            "how colours go together",
            [
                new("Contrast", "contrast", "Each planter wants hues far apart, or light against dark."),
                new("OneColour", "one colour", "Hues keep together; height and texture must vary instead."),
                new("Neighbouring", "neighbouring hues", "Hues lie side by side."),
                new("Institution", "the institution’s colours", "Every colour must be near one of those below."),
            ]
        ),
        new(
            nameof(HouseRules.Pattern),
            "planters of one group",
            [
                new("IdenticalPairs", "identical", "Planters of a group carry the same plants; what differs is named."),
                new("Echo", "echo", "Each takes up a plant or a colour of another."),
                new("Free", "free", "Nothing is compared."),
            ]
        ),
        new(
            nameof(HouseRules.Pots),
            "pots",
            [
                new("OneAcrossGroup", "one colour across a group", "A pot of another look than its group’s is named."),
                new("SetsOffPlants", "the pot that sets off its plants", "The lead must stand well off its pot’s colour."),
            ]
        ),
        new(
            nameof(HouseRules.Turn),
            "when to turn",
            [
                new("AtCalendar", "at the calendar’s turn", "A display comes out on its day though it still looks good."),
                new("WhenPast", "when past its best", "It stays until it shows less than half its best."),
            ]
        ),
        new(
            nameof(HouseRules.BulbDepth),
            "depth of bulbs",
            [
                new("ThreeTimesHeight", "three times the height", "Base at 3 × the bulb’s height."),
                new("Deep", "deep", "Large bulbs at {19 cm}: later, and safe from squirrels."),
                new("StackedContainers", "stacked containers", "In containers the deepest large bulbs at {28 cm}."),
            ]
        ),
        new(
            nameof(HouseRules.BulbAttitude),
            "how a bulb is set",
            [
                new("Upright", "upright", "The sheet says so; the cut-away shows it."),
                new("Tilted", "tilted a little outward", "Leaves arch instead of flopping; sheet and cut-away show it."),
            ]
        ),
        new(
            nameof(HouseRules.BulbFeed),
            "feed when bulbs are planted",
            [
                new("None", "none", "The bulb carries its food; the sheet asks for feed in spring."),
                new("BulbFood", "bulb food in the hole", "{5 g} a bulb are ordered, and the sheet asks for it."),
            ]
        ),
        new(
            nameof(HouseRules.Tulips),
            "tulips after bloom",
            [
                new("Annual", "annual", "Stacks that keep them on are named, and the sheet composts them."),
                new("Perennial", "perennial", "Leaves must brown first; later springs show less."),
            ]
        ),
        new(
            nameof(HouseRules.Chrysanthemums),
            "fall chrysanthemums",
            [
                new("Annual", "annual", "Out when they are over."),
                new("Overwinter", "planted early to overwinter", "In the ground, five weeks before it freezes."),
            ]
        ),
        new(
            nameof(HouseRules.HardenOff),
            "stock raised under glass",
            [
                new(
                    "HardenedOff",
                    "hardened off for a week",
                    "Out by day, or with open sides, for a week before: the sheet asks for it, and it stands what it should."
                ),
                new("FromWarmHouse", "straight from a warm house", "In its first week outdoors frost takes it sooner; early plantings are named."),
            ]
        ),
        new(
            nameof(HouseRules.Medium),
            "medium at a turn",
            [
                new("Recharge", "recharge", "The top is filled new, with starter feed."),
                new("ReplaceAll", "replace all", "All the medium is ordered new."),
            ]
        ),
        new(
            nameof(HouseRules.Drainage),
            "drainage of containers",
            [
                new("FreeHole", "free hole, open medium, feet", "All the depth is medium. Published work finds that gravel raises the wet zone."),
                new("GravelOverHole", "shards or gravel over the hole", "{3 cm} of depth go to gravel; stacks have that much less."),
            ]
        ),
        new(
            nameof(HouseRules.Fabric),
            "slit in weed fabric",
            [
                new("Cross", "cross with folded corners", "The sheet says so where there is fabric."),
                new("TwoFlaps", "T with two flaps", "The sheet says so where there is fabric."),
            ]
        ),
        new(
            nameof(HouseRules.WorkWeek),
            "working days",
            [
                new("MondayToFriday", "Monday to Friday", "Proposals plant on these days."),
                new("MondayToSaturday", "Monday to Saturday", "Proposals plant on these days."),
                new("EveryDay", "every day", "Proposals plant on any day."),
            ]
        ),
        new(
            nameof(HouseRules.Pests),
            "pests",
            [
                new("Tolerate", "tolerate and cut back", "The sheet says so."),
                new("SoapOrOil", "soap or oil", "The sheet says so: never on open flowers with pollinators."),
            ]
        ),
    ];

    /// <summary>The school that some rules follow.</summary>
    public string Of(HouseRules rules) => typeof(HouseRules).GetProperty(Key)!.GetValue(rules)!.ToString()!;

    /// <summary>The school that a planter follows instead of its site's; null when it follows the site.</summary>
    public string? Of(PlanterRules? rules) => rules is null ? null : typeof(PlanterRules).GetProperty(Key)!.GetValue(rules)?.ToString();

    /// <summary>Rules with the schools of a form; what is unknown or missing keeps the present one.</summary>
    /// <param name="chosen">Values by key.</param>
    /// <param name="present">The rules as they are.</param>
    public static HouseRules Read(IReadOnlyDictionary<string, string?> chosen, HouseRules present)
    {
        HouseRules read = present with { };
        foreach (HouseRuleMatter matter in All)
            Set(read, matter.Key, chosen.GetValueOrDefault(matter.Key));
        return read;
    }

    /// <summary>A planter's own schools; null when it follows the site in all.</summary>
    /// <param name="chosen">Values by key; empty for the site's.</param>
    public static PlanterRules? ReadPlanter(IReadOnlyDictionary<string, string?> chosen)
    {
        var read = new PlanterRules();
        foreach (HouseRuleMatter matter in All)
            Set(read, matter.Key, chosen.GetValueOrDefault(matter.Key));
        return read == new PlanterRules() ? null : read;
    }

    private static void Set(object rules, string key, string? value)
    {
        PropertyInfo property = rules.GetType().GetProperty(key)!;
        Type school = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
        if (!string.IsNullOrEmpty(value) && Enum.TryParse(school, value, out object? known) && Enum.IsDefined(school, known!))
            property.SetValue(rules, known);
    }
}
