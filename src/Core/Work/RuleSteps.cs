using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Work;

/// <summary>What the house rules add to a day sheet, in a crew's words.</summary>
internal static class RuleSteps
{
    /// <summary>Steps at one planter on a day.</summary>
    public static IEnumerable<string> For(Plan plan, Planter planter, IReadOnlyList<Display> lifted, IReadOnlyList<Display> installed)
    {
        HouseRules rules = plan.Site.RulesFor(planter);
        bool bulbs = installed.Any(d => d.Layer == DisplayLayer.Bulbs);
        bool seasonal = installed.Any(d => d.Layer == DisplayLayer.Seasonal);
        bool Holds(IEnumerable<Display> displays, string genus) => displays.Any(d => d.Items.Any(i => plan.Plant(i.PlantId).BotanicalName.StartsWith(genus, StringComparison.Ordinal)));
        if (lifted.Any(d => d.Layer == DisplayLayer.Bulbs))
        {
            yield return rules.Tulips == TulipSchool.Annual && Holds(lifted, "Tulipa")
                ? "Tulips are annual here: compost them. Other bulbs come out with their leaves and are heeled in until those are brown."
                : "Lift bulbs with their leaves and heel them in until the leaves are brown.";
        }
        if (seasonal && !planter.Form.IsBed)
        {
            yield return rules.Medium == MediumSchool.ReplaceAll
                ? "Take out all the medium and fill with new."
                : "Take out the top and fill up with fresh medium and starter feed; all of it only where it is root-bound.";
            if (BulbStack.GravelIn(planter, plan.Site) > 0)
                yield return "Shards or gravel over the hole before filling.";
        }
        if (bulbs)
        {
            yield return rules.BulbAttitude == BulbAttitude.Tilted ? "Tilt each bulb a little outward." : "Set each bulb upright.";
            yield return rules.BulbFeed == BulbFeedSchool.BulbFood ? "Bulb food in the hole, under a finger of medium." : "No feed in the hole; feed in spring when the leaves are up.";
        }
        if (seasonal && installed.SelectMany(d => d.Items).Any(i => plan.Plant(i.PlantId).Windows.Any(w => w.Rule is FromInstall)))
            yield return rules.Stage == StageSchool.InBud ? "Take plants in bud; send back what is past its first flowers." : "Take plants in full colour; pick off what is over.";
        if (rules.HardenOff == HardenOffSchool.HardenedOff && installed.Any(d => d.Items.Any(i => plan.Plant(i.PlantId) is { IsRaisedWarm: true, IsTender: true })))
            yield return "Only stock that has been hardened off for a week: out by day, in on frost nights.";
        if (planter.Survey.WeedFabric && installed.Count > 0)
            yield return rules.Fabric == FabricSchool.Cross ? "Slit the fabric in a cross, fold the corners under, fold them back after planting." : "Slit the fabric in a T, lay the two flaps aside, close them after planting.";
        if (Holds(installed, "Chrysanthemum") && rules.Chrysanthemums == ChrysanthemumSchool.Overwinter)
            yield return "Chrysanthemums stay: plant them firmly, leave the tops on over winter, mulch when the ground freezes.";
        if (rules.Turn == TurnSchool.WhenPast && lifted.Any(d => d.Layer == DisplayLayer.Seasonal))
            yield return "Look first: what is not past its best stays until it is.";
    }

    /// <summary>What is done about pests, each way once.</summary>
    public static IEnumerable<string> Pests(Plan plan, IEnumerable<Planter> planters) => planters
        .Select(p => plan.Site.RulesFor(p).Pests)
        .Distinct()
        .Order()
        .Select(p => p == PestSchool.SoapOrOil
            ? "Pests: soap or oil, never on open flowers with pollinators; the label is the law."
            : "Pests: tolerate them and cut back what is infested.");
}
