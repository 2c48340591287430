using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Work;

/// <summary>What the house rules add to a day sheet.</summary>
internal static class RuleSteps
{
    /// <summary>Steps at one planter on a day.</summary>
    public static IEnumerable<Fact> For(Plan plan, Changeover change)
    {
        Planter planter = change.Planter;
        HouseRules rules = plan.Site.RulesFor(planter);
        List<ChangeoverItem> bulbsOut = [.. change.Out.Where(i => i.DepthCm is not null)];
        List<ChangeoverItem> top = [.. change.In.Where(i => i.Display.Layer == DisplayLayer.Seasonal)];
        static bool Holds(IEnumerable<ChangeoverItem> items, string genus) =>
            items.Any(i => i.Plant.BotanicalName.StartsWith(genus, StringComparison.Ordinal));
        if (bulbsOut.Count > 0)
            yield return new Fact(rules.Tulips == TulipSchool.Annual && Holds(bulbsOut, "Tulipa") ? StepKind.TulipsAreAnnual : StepKind.HeelBulbsIn);
        if (change.Medium is { } medium)
        {
            bool whole = medium.DepthCm >= BulbStack.MediumDepthCm(planter, plan.Site) - 0.5;
            if (whole && BulbStack.GravelIn(planter, plan.Site) > 0)
                yield return new Fact(StepKind.GravelOverTheHole);
            if (medium.IsAcid)
                yield return new Fact(StepKind.AcidMedium);
            yield return Renewed(change, medium, whole);
        }
        else if (top.Count > 0 && !planter.Form.IsBed)
        {
            yield return new Fact(StepKind.LoosenMedium);
        }
        if (change.SetsBulbs)
        {
            yield return new Fact(rules.BulbAttitude == BulbAttitude.Tilted ? StepKind.TiltBulbs : StepKind.SetBulbsUpright);
            yield return new Fact(rules.BulbFeed == BulbFeedSchool.BulbFood ? StepKind.BulbFoodInTheHole : StepKind.NoFeedInTheHole);
        }
        if (top.Exists(i => i.Plant.Windows.Any(w => w.Rule is FromInstall && w.Part == ColourPart.Flower)))
        {
            yield return new Fact(
                top.All(i => GoodsForm.Of(i.Plant)[0].Sort == GoodsSort.Plugs) ? StepKind.TakeGrownPlugs
                : rules.Stage == StageSchool.InBud ? StepKind.TakeInBud
                : StepKind.TakeInColour
            );
        }
        if (rules.HardenOff == HardenOffSchool.HardenedOff && change.In.Any(i => i.Plant is { IsRaisedWarm: true, IsTender: true }))
            yield return new Fact(StepKind.OnlyHardenedOff);
        if (Holds(change.In, "Erica") || Holds(change.In, "Calluna"))
            yield return new Fact(StepKind.WaterHeathsAtTheFoot);
        if (planter.Survey.WeedFabric && change.In.Count > 0)
            yield return new Fact(rules.Fabric == FabricSchool.Cross ? StepKind.SlitInACross : StepKind.SlitInAT);
        if (Holds(change.In, "Chrysanthemum") && rules.Chrysanthemums == ChrysanthemumSchool.Overwinter)
            yield return new Fact(StepKind.ChrysanthemumsStay);
        if (rules.Turn == TurnSchool.WhenPast && change.Out.Any(i => i.Display.Layer == DisplayLayer.Seasonal))
            yield return new Fact(StepKind.LookFirst);
    }

    /// <summary>What is done about pests, each way once.</summary>
    public static IEnumerable<Fact> Pests(Plan plan, IEnumerable<Planter> planters) =>
        planters
            .Select(p => plan.Site.RulesFor(p).Pests)
            .Distinct()
            .Order()
            .Select(p => new Fact(p == PestSchool.SoapOrOil ? CautionKind.SoapOrOil : CautionKind.ToleratePests));

    private static Fact Renewed(Changeover change, MediumLine medium, bool whole)
    {
        bool feed = change.Feed.Any(f => f.What == FeedKind.StarterFeed);
        if (medium.FreshCm > 0)
            return new Fact(
                StepKind.RenewBelowFresh,
                ("fresh", Quantity.Depth(medium.FreshCm)),
                ("depth", Quantity.Depth(medium.DepthCm)),
                ("feed", feed)
            );
        return whole
            ? new Fact(change.Out.Count > 0 ? StepKind.ReplaceAllMedium : StepKind.FillWithNew, ("feed", feed))
            : new Fact(StepKind.RenewTheTop, ("depth", Quantity.Depth(medium.DepthCm)), ("feed", feed), ("bulbs", change.SetsBulbs));
    }
}
