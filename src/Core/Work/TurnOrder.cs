using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Work;

/// <summary>One line of an order.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Planned">Plants planned over all planters.</param>
/// <param name="Purchase">What to buy, spares included.</param>
/// <param name="Planters">Where they go, with the count for each.</param>
public sealed record OrderLine(Plant Plant, int Planned, PackPurchase Purchase, IReadOnlyList<(Planter Planter, int Count)> Planters);

/// <summary>Medium for one planter at a turn.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Litres">Litres needed.</param>
/// <param name="Reason">Why so many.</param>
public sealed record MediumLine(Planter Planter, double Litres, string Reason);

/// <summary>Feed for one planter at a turn, as the house rules want it.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="What">Starter feed, or bulb food.</param>
/// <param name="Grams">Grams.</param>
public sealed record FeedLine(Planter Planter, string What, double Grams);

/// <summary>What to order for a turn: plants, bulbs, medium and feed, with the cost.</summary>
public sealed record TurnOrder
{
    /// <summary>Starter feed for a recharged planter, grams per litre of fresh medium (common practice).</summary>
    public const double StarterGramsPerLitre = 2;

    /// <summary>Bulb food in the hole, grams per bulb (common practice).</summary>
    public const double BulbFoodGrams = 5;

    private TurnOrder(Turn turn, Site site, IReadOnlyList<OrderLine> lines, IReadOnlyList<MediumLine> medium, IReadOnlyList<FeedLine> feed)
    {
        Feed = feed;
        Turn = turn;
        Site = site;
        Lines = lines;
        Medium = medium;
    }

    /// <summary>The turn.</summary>
    public Turn Turn { get; }

    /// <summary>The site's choices used.</summary>
    public Site Site { get; }

    /// <summary>One line per plant, bulbs last, by name.</summary>
    public IReadOnlyList<OrderLine> Lines { get; }

    /// <summary>One line per container that gets fresh medium.</summary>
    public IReadOnlyList<MediumLine> Medium { get; }

    /// <summary>One line per planter and feed; none where the house rules want none.</summary>
    public IReadOnlyList<FeedLine> Feed { get; }

    /// <summary>Litres of medium in all.</summary>
    public double MediumLitres => Medium.Sum(m => m.Litres);

    /// <summary>Bags of medium, rounded up.</summary>
    public int MediumBags => (int)Math.Ceiling((MediumLitres / Site.MediumBagLitres) - 1e-9);

    /// <summary>Price of the medium.</summary>
    public decimal MediumCost => MediumBags * Site.MediumBagPrice;

    /// <summary>Price of everything.</summary>
    public decimal Cost => Lines.Sum(l => l.Purchase.Cost) + MediumCost;

    /// <summary>Adds up a turn.</summary>
    public static TurnOrder For(Plan plan, Turn turn)
    {
        var installs = plan.Displays.Where(d => turn.Holds(d.Install)).ToList();
        // What has stayed on is there already; what is plugged in later is bought for the turn that holds its own day.
        var lines = plan.Displays
            .SelectMany(d => d.Items.Where(i => turn.Holds(i.Since ?? d.Install)).Select(i => (Planter: plan.FindPlanter(d.PlanterId)!, Plant: plan.Plant(i.PlantId), i.Count)))
            .GroupBy(x => x.Plant.Id)
            .Select(g =>
            {
                Plant plant = g.First().Plant;
                int planned = g.Sum(x => x.Count);
                return new OrderLine(
                    plant,
                    planned,
                    PackPurchase.Cheapest(PackPurchase.WithSpares(planned, plan.Site.SpareShare), plant.Packs),
                    [.. g.GroupBy(x => x.Planter).Select(p => (p.Key, p.Sum(x => x.Count)))]);
            })
            .OrderBy(l => l.Plant.LifeForm == LifeForm.Bulb)
            .ThenBy(l => l.Plant.CommonName, StringComparer.Ordinal)
            .ToList();
        var medium = installs
            .GroupBy(d => d.PlanterId)
            .Select(g => MediumFor(plan, plan.FindPlanter(g.Key)!, g))
            .Where(m => m is { Litres: > 0.05 })
            .Select(m => m!)
            .ToList();
        return new TurnOrder(turn, plan.Site, lines, medium, [.. StarterFeed(plan, installs, medium), .. BulbFood(plan, installs)]);
    }

    /// <summary>The arithmetic behind one line.</summary>
    public Working Explain(OrderLine line) => new(
        $"{line.Plant.CommonName}: order",
        $"{line.Purchase.Bought} for {Site.Money}{line.Purchase.Cost:0.00}",
        [
            new("planned", string.Join(", ", line.Planters.Select(p => $"{p.Planter.Name}: {p.Count}"))),
            new("spares", $"{Site.SpareShare:P0}"),
            new("packs offered", string.Join(", ", line.Plant.Packs.Select(p => $"{p.Form} of {p.Size} at {Site.Money}{p.Price:0.00}"))),
        ],
        "Cheapest mix of packs that covers n × (1 + spares), rounded up",
        "Exact search over totals; prices are guide prices of the palette",
        [
            $"{line.Planned} × {1 + Site.SpareShare:0.00} = {line.Purchase.Wanted} wanted.",
            $"{string.Join(" + ", line.Purchase.Packs.Select(p => $"{p.Packs} × {p.Pack.Form}"))} = {line.Purchase.Bought}.",
        ]);

    /// <summary>The arithmetic behind the price of everything.</summary>
    public Working ExplainCost() => new(
        $"{Turn.Name}: cost",
        $"{Site.Money}{Cost:#,0.00}",
        [new("lines", $"{Lines.Count}"), new("medium", $"{MediumBags} bags, {Site.Money}{MediumCost:#,0.00}")],
        "Sum of the lines and the medium",
        "Guide prices of the palette and the site's price of a bag",
        [.. Lines.Select(l => $"{l.Plant.CommonName}: {Site.Money}{l.Purchase.Cost:#,0.00}.")]);

    /// <summary>The arithmetic behind the medium.</summary>
    public Working ExplainMedium() => new(
        "Medium",
        $"{MediumLitres:0} L, {MediumBags} bags",
        [new("fresh at a turn", $"top {Site.FreshMediumCm:0} cm"), new("one bag", $"{Site.MediumBagLitres:0} L at {Site.Money}{Site.MediumBagPrice:0.00}")],
        "Volume between the finished surface and the depth renewed, per container; beds take none",
        "Solid geometry; depth renewed is common practice",
        [.. Medium.Select(m => $"{m.Planter.Name}: {m.Litres:0.0} L, {m.Reason}.")]);

    /// <summary>The arithmetic behind the feed.</summary>
    public Working ExplainFeed() => new(
        "Feed",
        $"{Feed.Sum(f => f.Grams) / 1000:0.0} kg",
        [new("starter feed", $"{StarterGramsPerLitre:0.#} g per litre of fresh medium, where planters are recharged"), new("bulb food", $"{BulbFoodGrams:0.#} g per bulb, where the house rule wants it in the hole")],
        "Grams per litre or per bulb, by each planter's house rules",
        "Common practice; the label of the feed rules",
        [.. Feed.Take(30).Select(f => $"{f.Planter.Name}: {f.Grams:0} g {f.What}.")]);

    private static IEnumerable<FeedLine> StarterFeed(Plan plan, List<Display> installs, List<MediumLine> medium) => medium
        .Where(m => plan.Site.RulesFor(m.Planter).Medium == MediumSchool.Recharge && installs.Exists(d => d.PlanterId == m.Planter.Id && d.Layer == DisplayLayer.Seasonal))
        .Select(m => new FeedLine(m.Planter, "starter feed", Math.Round(m.Litres * StarterGramsPerLitre)));

    private static IEnumerable<FeedLine> BulbFood(Plan plan, List<Display> installs) => installs
        .Where(d => d.Layer == DisplayLayer.Bulbs && plan.Site.RulesFor(plan.FindPlanter(d.PlanterId)!).BulbFeed == BulbFeedSchool.BulbFood)
        .Select(d => new FeedLine(plan.FindPlanter(d.PlanterId)!, "bulb food", d.Items.Sum(i => i.Count) * BulbFoodGrams));

    private static MediumLine? MediumFor(Plan plan, Planter planter, IEnumerable<Display> installs)
    {
        if (planter.Form.IsBed)
            return null;
        var candidates = installs.Select(d => d.Layer switch
        {
            DisplayLayer.Standing => new MediumLine(planter, planter.Form.PlantableLitres, "filled new for what stands for years"),
            DisplayLayer.Bulbs => BulbLine(plan, planter, d),
            _ when plan.Site.RulesFor(planter).Medium == MediumSchool.ReplaceAll => new MediumLine(planter, planter.Form.PlantableLitres, "all replaced, by the house rule"),
            _ => new MediumLine(planter, planter.Form.LitresBetween(0, plan.Site.FreshMediumCm), $"fresh top {plan.Site.FreshMediumCm:0} cm"),
        });
        return candidates.MaxBy(c => c.Litres);
    }

    private static MediumLine BulbLine(Plan plan, Planter planter, Display display)
    {
        double depth = BulbStack.Depths(planter, plan.Site, plan.BulbsOf(display))[^1].DepthCm + BulbStack.RootRoomCm;
        return new MediumLine(planter, planter.Form.LitresBetween(0, depth), $"laid fresh to {depth:0} cm under the bulbs");
    }
}
