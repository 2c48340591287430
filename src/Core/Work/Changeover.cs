using System.Runtime.CompilerServices;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Work;

/// <summary>Plants of one kind that come out, stay or go in.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Display">The display they belong to: for what comes out, the one that ends.</param>
/// <param name="Item">Its line there; its count may be more than comes, goes or stays.</param>
/// <param name="Count">How many.</param>
/// <param name="DepthCm">For bulbs, finished surface to the base, cm.</param>
public sealed record ChangeoverItem(Plant Plant, Display Display, DisplayItem Item, int Count, double? DepthCm)
{
    /// <summary>For bulbs, medium over the tip, cm.</summary>
    public double? CoverCm => DepthCm - Plant.Bulb?.HeightCm;
}

/// <summary>
/// What physically happens at one planter on one day. Day sheets, orders, medium, feed and turns all read it, so that they
/// cannot tell different stories.
/// </summary>
/// <param name="Planter">The planter.</param>
/// <param name="Day">The day.</param>
/// <param name="Out">What comes out.</param>
/// <param name="Stays">What stood before and stands on.</param>
/// <param name="In">What goes in, in the order in which it does: trees, shrubs, bulbs from the deepest up, bedding; in a pot the bulbs first.</param>
/// <param name="DigDepthCm">How deep may be dug, cm; null where nothing that stays lies below.</param>
/// <param name="Lifted">What stays but has to be lifted and set back, because bulbs go in below it.</param>
/// <param name="Medium">Fresh medium; null for none.</param>
/// <param name="Feed">Feed, as the house rules want it.</param>
public sealed record Changeover(
    Planter Planter,
    LocalDate Day,
    IReadOnlyList<ChangeoverItem> Out,
    IReadOnlyList<ChangeoverItem> Stays,
    IReadOnlyList<ChangeoverItem> In,
    double? DigDepthCm,
    IReadOnlyList<ChangeoverItem> Lifted,
    MediumLine? Medium,
    IReadOnlyList<FeedLine> Feed
)
{
    /// <summary>Nearer than this to the tip of a bulb that stays nobody digs, cm (common practice).</summary>
    public const double OverTipCm = 2;

    /// <summary>What goes in and is not planted yet, by the crew's records.</summary>
    public IReadOnlyList<ChangeoverItem> ToPlant { get; init; } = In;

    /// <summary>True when something was to go in, and all of it is planted.</summary>
    public bool IsPlanted => In.Count > 0 && ToPlant.Count == 0;

    /// <summary>True when the day belongs to the seasonal layer: something is lifted from it or set into it.</summary>
    public bool ChangesTop => In.Concat(Out).Any(i => i.Display.Layer == DisplayLayer.Seasonal);

    /// <summary>True when bulbs go in.</summary>
    public bool SetsBulbs => In.Any(i => i.DepthCm is not null);

    /// <summary>Days on which a display goes in, is added to or comes out.</summary>
    public static IEnumerable<LocalDate> DaysOf(Display display) =>
        display.Items.Where(i => i.Since > display.Install).Select(i => i.Since!.Value).Append(display.Install).Append(display.Lift).Distinct();

    /// <summary>Days on which anything comes out of a planter or goes in, in order.</summary>
    public static IReadOnlyList<LocalDate> DaysOf(Plan plan, Planter planter) =>
        [.. plan.DisplaysOf(planter.Id).SelectMany(DaysOf).Distinct().Order()];

    /// <summary>Every changeover of a planter, in order. Each knows what fresh medium those before it have brought.</summary>
    public static IReadOnlyList<Changeover> Of(Plan plan, Planter planter)
    {
        if (!Reckoned.TryGetValue(planter, out Known? known) || !ReferenceEquals(plan.Site, known.Site) || !known.Displays.AreIn(plan))
        {
            var renewed = new MediumRenewal(plan, planter);
            List<ChangeoverItem> all = [.. plan.DisplaysOf(planter.Id).SelectMany(d => ItemsOf(plan, planter, d))];
            known = new Known(
                plan.Site,
                new PlanterDisplays(plan, planter),
                [.. DaysOf(plan, planter).Select(day => On(plan, planter, all, day, renewed)).Where(c => c.Out.Count + c.In.Count > 0)]
            );
            Reckoned.AddOrUpdate(planter, known);
        }
        return plan.Records.Plantings.Count == 0 ? known.Changes : [.. Unplanted(plan, known.Changes)];
    }

    // Kept while the planter lives: every page reads them, and an edit costs those of one planter. What did not change is the same object as before.
    private static readonly ConditionalWeakTable<Planter, Known> Reckoned = [];

    private sealed record Known(Site Site, PlanterDisplays Displays, IReadOnlyList<Changeover> Changes);

    /// <summary>
    /// The changeovers that an order or a sheet rests on: of its own days, and where there is stock, or something is kept when it
    /// comes out, all that follow, since they take from it too.
    /// </summary>
    public static IReadOnlyList<Changeover> ToCome(Plan plan, LocalDate first, LocalDate last) =>
        Between(
            plan,
            first,
            plan.Lots.Count == 0 && !plan.Displays.Any(d => d.Items.Any(i => i.Fate is PlantFate.Keep or PlantFate.Store))
                ? last
                : LocalDate.MaxIsoValue
        );

    /// <summary>Every changeover from one day to another, both included, in the plan's order of planters.</summary>
    public static IReadOnlyList<Changeover> Between(Plan plan, LocalDate first, LocalDate last) =>
        [
            .. plan
                .Planters.Where(p => plan.DisplaysOf(p.Id).Any(d => d.Install <= last && d.Lift >= first))
                .SelectMany(p => Of(plan, p))
                .Where(c => first <= c.Day && c.Day <= last),
        ];

    // Of what goes in with a display over several days, the first is planted first.
    private static IEnumerable<Changeover> Unplanted(Plan plan, IReadOnlyList<Changeover> changes)
    {
        var counted = new Dictionary<(string Display, string Plant), int>();
        foreach (Changeover change in changes)
        {
            var left = new List<ChangeoverItem>();
            foreach (ChangeoverItem item in change.In)
            {
                (string, string) key = (item.Display.Id, item.Item.PlantId);
                int planted = counted.TryGetValue(key, out int rest) ? rest : plan.Records.CountOf(item.Display.Id, item.Item.PlantId);
                int here = Math.Min(planted, item.Count);
                counted[key] = planted - here;
                if (here < item.Count)
                    left.Add(item with { Count = item.Count - here });
            }
            yield return change with
            {
                ToPlant = left,
            };
        }
    }

    // Trees, then shrubs, then bulbs from the deepest up, then bedding (common practice); in a pot the bulbs lie under the root balls, and come first.
    private static int Rank(ChangeoverItem item, Planter planter) =>
        item switch
        {
            { DepthCm: not null } => planter.Form.IsBed ? 2 : -1,
            { Plant.LifeForm: LifeForm.Tree } => 0,
            { Plant.LifeForm: LifeForm.Shrub } => 1,
            _ => 3,
        };

    private static Changeover On(Plan plan, Planter planter, List<ChangeoverItem> all, LocalDate day, MediumRenewal renewed)
    {
        List<ChangeoverItem> before = all.FindAll(i => Stands(i, day.PlusDays(-1)));
        List<ChangeoverItem> after = all.FindAll(i => Stands(i, day));
        var goesOut = new List<ChangeoverItem>();
        var stays = new List<ChangeoverItem>();
        var comesIn = new List<ChangeoverItem>();
        // What stood there yesterday and is still to be accounted for, by layer, kind and, for bulbs, depth.
        var left = before.Select(b => b.Count).ToArray();
        foreach (ChangeoverItem item in after)
        {
            int still = item.Count;
            for (int b = 0; b < before.Count && still > 0; b++)
            {
                if (left[b] == 0 || !Remains(before[b], item, day))
                    continue;
                int same = Math.Min(left[b], still);
                left[b] -= same;
                still -= same;
                stays.Add(item with { Count = same });
            }
            if (still > 0)
                comesIn.Add(item with { Count = still });
        }
        for (int b = 0; b < before.Count; b++)
        {
            if (left[b] > 0)
                goesOut.Add(before[b] with { Count = left[b] });
        }
        comesIn = [.. comesIn.OrderBy(i => Rank(i, planter)).ThenByDescending(i => i.DepthCm ?? -1)];
        stays = [.. stays.GroupBy(s => (s.Display.Id, s.Item)).Select(g => g.First() with { Count = g.Sum(s => s.Count) })];
        double? dig = stays.Where(s => s.DepthCm is not null).Select(s => (double?)Math.Max(0, s.CoverCm!.Value - OverTipCm)).Min();
        var change = new Changeover(
            planter,
            day,
            goesOut,
            stays,
            comesIn,
            dig,
            comesIn.Exists(i => i.DepthCm is not null) && !planter.Form.IsBed ? [.. stays.Where(s => s.Display.Layer == DisplayLayer.Seasonal)] : [],
            null,
            []
        );
        MediumLine? medium = renewed.For(change);
        return change with { Medium = medium, Feed = [.. FeedFor(plan, change, medium)] };
    }

    // Of the same layer and kind: in the same display, or carried on into the next one.
    private static bool Remains(ChangeoverItem before, ChangeoverItem after, LocalDate day)
    {
        if (before.Display.Layer != after.Display.Layer || before.Plant.Id != after.Plant.Id)
            return false;
        if (before.Display.Id == after.Display.Id)
            return ReferenceEquals(before.Item, after.Item);
        return after.Item.Since < day || before.Item.Fate == PlantFate.Stays && after.Item.Since is null;
    }

    // Earlier than its display where it has stayed on from the one before: there it stands as that one's.
    private static bool Stands(ChangeoverItem item, LocalDate day) => item.Display.StandsOn(day) && !(item.Item.Since > day);

    private static IEnumerable<ChangeoverItem> ItemsOf(Plan plan, Planter planter, Display display)
    {
        List<BulbDepth> depths = display.Layer == DisplayLayer.Bulbs ? [.. BulbStack.Depths(planter, plan.Site, plan.BulbsOf(display))] : [];
        foreach (DisplayItem item in display.Items)
        {
            // One kind may lie at two depths: each line takes its own.
            BulbDepth? lies = depths.Find(d => d.Plant.Id == item.PlantId && d.Count == item.Count && d.IsByRule == item.DepthCm is null);
            if (lies is not null)
                depths.Remove(lies);
            yield return new ChangeoverItem(plan.AsBought(planter, item), display, item, item.Count, lies?.DepthCm);
        }
    }

    private static IEnumerable<FeedLine> FeedFor(Plan plan, Changeover change, MediumLine? medium)
    {
        HouseRules rules = plan.Site.RulesFor(change.Planter);
        if (
            medium is not null
            && rules.Medium == MediumSchool.Recharge
            && change.In.Any(i => i.Display.Layer == DisplayLayer.Seasonal)
            && FeedLine.IsGrowingSeason(change.Day, plan.Site.IsSouthern)
        )
            yield return new FeedLine(change.Planter, FeedKind.StarterFeed, Math.Round(medium.Litres * FeedLine.StarterGramsPerLitre));
        int bulbs = change.In.Where(i => i.DepthCm is not null).Sum(i => i.Count);
        if (bulbs > 0 && rules.BulbFeed == BulbFeedSchool.BulbFood)
            yield return new FeedLine(change.Planter, FeedKind.BulbFood, bulbs * FeedLine.BulbFoodGrams);
    }
}
