using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Work;

/// <summary>One line of an order.</summary>
/// <param name="Plant">The plant, as it is bought.</param>
/// <param name="Planned">Plants planned over all planters.</param>
/// <param name="FromStock">Of these, plants at hand, or kept from other planters until then, that are meant for them.</param>
/// <param name="Purchase">What to buy beyond them, spares included.</param>
/// <param name="Planters">Where they go, with the count for each.</param>
public sealed record OrderLine(Plant Plant, int Planned, int FromStock, PackPurchase Purchase, IReadOnlyList<(Planter Planter, int Count)> Planters)
{
    /// <summary>The form in which it is bought.</summary>
    public GoodsForm Form { get; } = GoodsForm.Of(Plant)[0];

    /// <summary>Plants wanted with spares, at hand or bought.</summary>
    public int Wanted => FromStock + Purchase.Wanted;
}

/// <summary>What to order for a turn: plants, bulbs, medium and feed, with the cost.</summary>
public sealed record TurnOrder
{
    // Planters that a working names; of thousands the others are summed up.
    private const int MostNamed = 30;

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

    /// <summary>One line per plant and form, bulbs last, by name.</summary>
    public IReadOnlyList<OrderLine> Lines { get; }

    /// <summary>One line per container that gets fresh medium.</summary>
    public IReadOnlyList<MediumLine> Medium { get; }

    /// <summary>One line per planter and feed; none where the house rules want none.</summary>
    public IReadOnlyList<FeedLine> Feed { get; }

    /// <summary>Cautions of what is ordered, each once.</summary>
    public IReadOnlyList<string> Cautions => [.. Lines.SelectMany(l => l.Plant.Cautions).Distinct(StringComparer.Ordinal)];

    /// <summary>Litres of medium in all.</summary>
    public double MediumLitres => Medium.Sum(m => m.Litres);

    /// <summary>Medium by its kind, acid last: litres, and bags rounded up.</summary>
    public IReadOnlyList<(bool IsAcid, double Litres, int Bags)> MediumByKind =>
        [
            .. Medium
                .GroupBy(m => m.IsAcid)
                .OrderBy(g => g.Key)
                .Select(g => (g.Key, g.Sum(m => m.Litres), (int)Math.Ceiling((g.Sum(m => m.Litres) / Site.MediumBagLitres) - 1e-9))),
        ];

    /// <summary>Bags of medium, each kind rounded up.</summary>
    public int MediumBags => MediumByKind.Sum(m => m.Bags);

    /// <summary>Price of the medium.</summary>
    public decimal MediumCost => MediumBags * Site.MediumBagPrice;

    /// <summary>Price of everything.</summary>
    public decimal Cost => Lines.Sum(l => l.Purchase.Cost) + MediumCost;

    /// <summary>Adds up a turn.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="turn">The turn.</param>
    /// <param name="today">Today: what was to be planted before no longer takes from the stock. By default the turn's first day.</param>
    public static TurnOrder For(Plan plan, Turn turn, LocalDate? today = null)
    {
        IReadOnlyList<Changeover> changes = Changeover.ToCome(plan, today is { } day && day < turn.FirstDay ? day : turn.FirstDay, turn.LastDay);
        return From(plan, turn, changes, StockReservation.Of(plan, changes.Where(c => !(c.Day < today))));
    }

    /// <summary>Adds up a turn's changeovers.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="turn">The turn.</param>
    /// <param name="changes">Changeovers of this turn and of the turns before it that still take from the stock; later ones are passed over.</param>
    /// <param name="reserved">What the whole plan takes from the stock.</param>
    public static TurnOrder From(Plan plan, Turn turn, IEnumerable<Changeover> changes, IReadOnlyList<StockReservation> reserved)
    {
        List<Changeover> all = [.. changes];
        List<Changeover> here = [.. all.Where(c => turn.Holds(c.Day))];
        var stock = reserved.Where(r => turn.Holds(r.Day)).ToLookup(r => r.Lot.PlantId, StringComparer.Ordinal);
        var lines = here.SelectMany(c => c.ToPlant.Select(i => (c.Planter, i.Plant, i.Count)))
            .GroupBy(x => x.Plant)
            .Select(g =>
            {
                Plant plant = g.Key;
                int planned = g.Sum(x => x.Count);
                // What is at hand goes to the planters that it is kept for, whatever form the rest is bought in.
                var kept = g.Select(x => x.Planter.Id).ToHashSet(StringComparer.Ordinal);
                int atHand = Math.Min(planned, stock[plant.Id].Where(r => kept.Contains(r.PlanterId)).Sum(r => r.Count));
                // Spares that the stock can give beside all that it is kept for, and beside the spares of earlier turns, need not be bought.
                int over =
                    plan.Lots.Where(l => StockReservation.Serves(l, plant, forced: false)).Sum(l => l.Count)
                    - reserved.Where(r => !r.IsToCome && r.Lot.PlantId == plant.Id && r.Lot.State != LotState.Forced).Sum(r => r.Count)
                    - plan.Turns.Where(t => t.FirstDay < turn.FirstDay)
                        .Sum(t =>
                            Spares(all.Where(c => t.Holds(c.Day)).SelectMany(c => c.ToPlant).Where(i => i.Plant.Id == plant.Id).Sum(i => i.Count))
                        );
                int buy = Math.Max(planned - atHand, planned + Spares(planned) - atHand - Math.Max(0, over));
                int Spares(int count) => PackPurchase.WithSpares(count, plan.Site.SparesOf(plant)) - count;
                return new OrderLine(
                    plant,
                    planned,
                    atHand,
                    PackPurchase.Cheapest(buy, plant.Packs),
                    [.. g.GroupBy(x => x.Planter).Select(p => (p.Key, p.Sum(x => x.Count)))]
                );
            })
            .OrderBy(l => l.Plant.LifeForm == LifeForm.Bulb)
            .ThenBy(l => l.Plant.CommonName, StringComparer.Ordinal)
            .ThenBy(l => l.Form.Name, StringComparer.Ordinal)
            .ToList();
        here.RemoveAll(c => c.IsPlanted);
        return new TurnOrder(turn, plan.Site, lines, [.. here.Select(c => c.Medium).OfType<MediumLine>()], [.. here.SelectMany(c => c.Feed)]);
    }

    /// <summary>The arithmetic behind one line.</summary>
    public Working Explain(OrderLine line) =>
        new Working(
            WorkingKind.PlantOrder,
            new Fact(WorkingPhrase.PlantOrderValueFor, ("bought", line.Purchase.Bought), ("cost", Quantity.Money(line.Purchase.Cost))),
            [
                new WorkingInput(
                    InputName.Planned,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            line.Planters.Take(MostNamed)
                                .Select(p => (object?)new Fact(WorkingPhrase.PlantOrderPlannedEach, ("planter", p.Planter), ("count", p.Count)))
                                .Concat(
                                    line.Planters.Count > MostNamed
                                        ?
                                        [
                                            new Fact(
                                                WorkingPhrase.PlantOrderPlannedOthers,
                                                ("planters", line.Planters.Count - MostNamed),
                                                ("count", line.Planters.Skip(MostNamed).Sum(p => p.Count))
                                            ),
                                        ]
                                        : []
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(InputName.Spares, Quantity.Share(Site.SparesOf(line.Plant))),
                new WorkingInput(InputName.AtHandOrKeptUntilThen, line.FromStock),
                new WorkingInput(InputName.Form, line.Form.Name),
                new WorkingInput(
                    InputName.PacksOffered,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            line.Plant.Packs.Select(p =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.PlantOrderPacksOfferedEach,
                                            ("form", p.Form),
                                            ("size", p.Size),
                                            ("price", Quantity.Money(p.Price))
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.WantedBuy,
                    ("planned", line.Planned),
                    ("plant", Quantity.Number(1 + Site.SparesOf(line.Plant), 2)),
                    ("plant2", PackPurchase.WithSpares(line.Planned, Site.SparesOf(line.Plant))),
                    ("wanted", line.Purchase.Wanted)
                ),
                new Fact(
                    WorkingPhrase.PlantOrderStep,
                    ("items", line.Purchase.Packs.Select(p => $"{p.Packs} × {p.Pack.Form}").DefaultIfEmpty("nothing").ToList()),
                    ("bought", line.Purchase.Bought)
                ),
            ]
        )
        {
            Parts = [("plant", line.Plant)],
        };

    /// <summary>The arithmetic behind the price of everything.</summary>
    public Working ExplainCost() =>
        new Working(
            WorkingKind.TurnCost,
            Quantity.Money(Cost),
            [
                new WorkingInput(InputName.Lines, Lines.Count),
                new WorkingInput(
                    InputName.Medium,
                    new Fact(WorkingPhrase.TurnCostMediumBags, ("mediumBags", MediumBags), ("mediumCost", Quantity.Money(MediumCost)))
                ),
            ],
            [.. Lines.Select(l => new Fact(WorkingPhrase.TurnCostStep, ("plant", l.Plant), ("cost", Quantity.Money(l.Purchase.Cost))))]
        )
        {
            Parts = [("turn", Turn.Name)],
        };

    /// <summary>The arithmetic behind the medium.</summary>
    public Working ExplainMedium() =>
        new Working(
            WorkingKind.TurnMedium,
            new Fact(WorkingPhrase.TurnMediumValueBags, ("medium", Quantity.Litres(MediumLitres)), ("mediumBags", MediumBags)),
            [
                new WorkingInput(
                    InputName.FreshAtATurn,
                    new Fact(WorkingPhrase.TurnMediumFreshTurnTop, ("freshMedium", Quantity.Cm(Site.FreshMediumCm)))
                ),
                new WorkingInput(
                    InputName.OneBag,
                    new Fact(
                        WorkingPhrase.TurnMediumOneBag,
                        ("mediumBag", Quantity.Litres(Site.MediumBagLitres)),
                        ("mediumBagPrice", Quantity.Money(Site.MediumBagPrice))
                    )
                ),
            ],
            [
                .. Medium
                    .Take(MostNamed)
                    .Select(m => new Fact(
                        WorkingPhrase.TurnMediumStep,
                        ("planter", m.Planter),
                        ("litres", Quantity.Litres(m.Litres, 1)),
                        ("acid", m.IsAcid),
                        ("reason", m.Reason),
                        ("fresh", m.FreshCm > 0 ? Quantity.Depth(m.FreshCm) : null)
                    )),
                .. Medium.Count > MostNamed
                    ?
                    [
                        new Fact(
                            WorkingPhrase.TurnMediumOthers,
                            ("planters", Medium.Count - MostNamed),
                            ("litres", Quantity.Litres(Medium.Skip(MostNamed).Sum(m => m.Litres), 1))
                        ),
                    ]
                    : Array.Empty<Fact>(),
            ]
        );

    /// <summary>The arithmetic behind the feed.</summary>
    public Working ExplainFeed() =>
        new Working(
            WorkingKind.Feed,
            Quantity.Kilograms(Feed.Sum(f => f.Grams) / 1000, 1),
            [
                new WorkingInput(
                    InputName.StarterFeed,
                    new Fact(
                        WorkingPhrase.PerLitreFreshMediumWherePlanters,
                        ("feed", new Quantity(FeedLine.StarterGramsPerLitre / 1000, Dimension.Density))
                    )
                ),
                new WorkingInput(
                    InputName.BulbFood,
                    new Fact(WorkingPhrase.PerBulbWhereHouseRuleWants, ("feed", new Quantity(FeedLine.BulbFoodGrams / 1000, Dimension.SmallMass)))
                ),
            ],
            [
                .. Feed.Take(MostNamed)
                    .Select(f => new Fact(
                        WorkingPhrase.FeedStep,
                        ("planter", f.Planter),
                        ("feed", new Quantity(f.Grams / 1000, Dimension.SmallMass)),
                        ("what", f.What)
                    )),
            ]
        );
}
