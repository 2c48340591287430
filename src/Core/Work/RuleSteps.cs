using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Work;

/// <summary>What the house rules add to a day sheet, in a crew's words.</summary>
internal static class RuleSteps
{
    /// <summary>Steps at one planter on a day.</summary>
    public static IEnumerable<string> For(Plan plan, Changeover change)
    {
        Planter planter = change.Planter;
        HouseRules rules = plan.Site.RulesFor(planter);
        List<ChangeoverItem> bulbsOut = [.. change.Out.Where(i => i.DepthCm is not null)];
        List<ChangeoverItem> top = [.. change.In.Where(i => i.Display.Layer == DisplayLayer.Seasonal)];
        static bool Holds(IEnumerable<ChangeoverItem> items, string genus) => items.Any(i => i.Plant.BotanicalName.StartsWith(genus, StringComparison.Ordinal));
        if (bulbsOut.Count > 0)
        {
            yield return rules.Tulips == TulipSchool.Annual && Holds(bulbsOut, "Tulipa")
                ? "Tulips are annual here: compost them. Other bulbs come out with their leaves and are heeled in until those are brown."
                : "Lift bulbs with their leaves and heel them in until the leaves are brown.";
        }
        if (change.Medium is { } medium)
        {
            bool whole = medium.DepthCm >= BulbStack.MediumDepthCm(planter, plan.Site) - 0.5;
            string feed = change.Feed.Any(f => f.What == FeedLine.Starter) ? " and starter feed" : string.Empty;
            if (whole && BulbStack.GravelIn(planter, plan.Site) > 0)
                yield return "Shards or gravel over the hole before filling.";
            if (medium.IsAcid)
                yield return "Acid medium, and rain or soft water: lime yellows what stands in it.";
            yield return medium.FreshCm > 0
                ? $"Lay the top {medium.FreshCm:0} cm aside, it is still fresh; renew the medium below it, down to {medium.DepthCm:0} cm{feed}."
                : whole
                ? $"{(change.Out.Count > 0 ? "Take out all the medium and fill" : "Fill")} with new medium{feed}."
                : $"Take out the top {medium.DepthCm:0} cm and fill up with fresh medium{feed}{(change.SetsBulbs ? " as the bulbs are laid" : "; all of it only where it is root-bound")}.";
        }
        else if (top.Count > 0 && !planter.Form.IsBed)
        {
            yield return "The medium is still fresh: loosen it, take out old roots, fill up what is missing.";
        }
        if (change.SetsBulbs)
        {
            yield return rules.BulbAttitude == BulbAttitude.Tilted ? "Tilt each bulb a little outward." : "Set each bulb upright.";
            yield return rules.BulbFeed == BulbFeedSchool.BulbFood ? "Bulb food in the hole, under a finger of medium." : "No feed in the hole; feed in spring when the leaves are up.";
        }
        if (top.Exists(i => i.Plant.Windows.Any(w => w.Rule is FromInstall && w.Part == ColourPart.Flower)))
            yield return top.All(i => GoodsForm.Of(i.Plant)[0].Sort == GoodsSort.Plugs) ? "Take plants grown on from plugs until their roots hold the ball." : rules.Stage == StageSchool.InBud ? "Take plants in bud; send back what is past its first flowers." : "Take plants in full colour; pick off what is over.";
        if (rules.HardenOff == HardenOffSchool.HardenedOff && change.In.Any(i => i.Plant is { IsRaisedWarm: true, IsTender: true }))
            yield return "Only stock that has been hardened off for a week: out by day, in on frost nights.";
        if (Holds(change.In, "Erica") || Holds(change.In, "Calluna"))
            yield return "Water heaths at the foot: wet flowers brown.";
        if (planter.Survey.WeedFabric && change.In.Count > 0)
            yield return rules.Fabric == FabricSchool.Cross ? "Slit the fabric in a cross, fold the corners under, fold them back after planting." : "Slit the fabric in a T, lay the two flaps aside, close them after planting.";
        if (Holds(change.In, "Chrysanthemum") && rules.Chrysanthemums == ChrysanthemumSchool.Overwinter)
            yield return "Chrysanthemums stay: plant them firmly, leave the tops on over winter, mulch when the ground freezes.";
        if (rules.Turn == TurnSchool.WhenPast && change.Out.Any(i => i.Display.Layer == DisplayLayer.Seasonal))
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
