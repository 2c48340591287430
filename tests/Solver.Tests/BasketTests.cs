using NodaTime;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>The cheapest basket against every basket tried by hand.</summary>
public sealed class BasketTests
{
    private static readonly LocalDate Today = new(2027, 1, 10);
    private static readonly LocalDate By = new(2027, 5, 20);

    [Fact]
    public void No_basket_tried_by_hand_beats_the_bound_or_is_cheaper_than_the_answer()
    {
        for (int seed = 0; seed < 12; seed++)
        {
            BasketQuestion question = Some(new Random(seed), needs: 3, suppliers: 2, forms: 2, most: 9);
            BasketAnswer answer = BasketSolving.Choose(question);
            Basket? best = Every(question).Where(b => b.IsPossible).MinBy(b => b.Cost);
            if (best is null)
            {
                Assert.Empty(answer.Basket.Lines);
                continue;
            }
            Assert.True(answer.Basket.IsPossible, $"seed {seed}");
            Assert.True(answer.IsBest);
            Assert.Equal(best.Cost, answer.Basket.Cost);
            Assert.Equal(best.Cost, answer.Bound);
            Assert.Equal(best.Unserved, answer.Basket.Unserved);
        }
    }

    [Fact]
    public void Buying_from_one_supplier_to_reach_a_discount_is_found_where_each_need_alone_is_cheaper_elsewhere()
    {
        var question = new BasketQuestion(
            [new BasketNeed("pansy", 10, By), new BasketNeed("viola", 10, By)],
            [new Supplier("hill", "Hill") { Discounts = [new ShareFrom(40, 0.25m)] }, new Supplier("vale", "Vale") { DeliveryCharge = 3 }],
            [
                new Offer("hill", "pansy", "tray of 10", 10, [new PriceStep(1, 20)]),
                new Offer("hill", "viola", "tray of 10", 10, [new PriceStep(1, 20)]),
                new Offer("vale", "pansy", "tray of 10", 10, [new PriceStep(1, 16)]),
                new Offer("vale", "viola", "tray of 10", 10, [new PriceStep(1, 16)]),
            ],
            Today
        );
        BasketAnswer answer = BasketSolving.Choose(question);
        Assert.Equal(30, answer.Basket.Cost);
        Assert.All(answer.Basket.Lines, l => Assert.Equal("hill", l.Offer.SupplierId));
    }

    [Fact]
    public void Two_needs_that_are_the_same_are_both_served()
    {
        var need = new BasketNeed("pansy", 10, By);
        var question = new BasketQuestion(
            [need, need with { }],
            [new Supplier("hill", "Hill")],
            [new Offer("hill", "pansy", "tray of 10", 10, [new PriceStep(1, 20)])],
            Today
        );
        BasketAnswer answer = BasketSolving.Choose(question);
        Assert.Equal(40, answer.Basket.Cost);
        Assert.True(answer.Basket.IsPossible);
    }

    // By hand: two needs of 72, as plugs 20 each, as packs 60 each.
    [Fact]
    public void Plugs_are_bought_as_far_as_there_is_room_to_grow_them_on()
    {
        BasketNeed[] needs = [new("pansy", 72, By), new("viola", 72, By)];
        var question = new BasketQuestion(
            needs,
            [new Supplier("hill", "Hill")],
            [
                .. needs.SelectMany(n =>
                    new Offer[]
                    {
                        new("hill", n.PlantId, "tray of 72 plugs", 72, [new PriceStep(1, 20)]),
                        new("hill", n.PlantId, "flat of 18", 18, [new PriceStep(1, 15)]),
                    }
                ),
            ],
            Today
        );
        Assert.Equal(40, BasketSolving.Choose(question).Basket.Cost);
        Basket half = BasketSolving.Choose(question with { MostGrownOn = 100 }).Basket;
        Assert.Equal((80m, true), (half.Cost, half.IsPossible));
        Assert.Equal(120, BasketSolving.Choose(question with { MostGrownOn = 0 }).Basket.Cost);
    }

    [Fact]
    public void What_nobody_delivers_in_time_is_named_and_the_rest_is_bought()
    {
        var question = new BasketQuestion(
            [new BasketNeed("pansy", 10, By), new BasketNeed("viola", 10, By)],
            [new Supplier("hill", "Hill")],
            [
                new Offer("hill", "pansy", "tray of 10", 10, [new PriceStep(1, 20)]),
                new Offer("hill", "viola", "tray of 10", 10, [new PriceStep(1, 20)]) { LeadDays = 200 },
            ],
            Today
        );
        Basket basket = BasketSolving.Choose(question).Basket;
        Assert.Equal("viola", Assert.Single(basket.Unserved).PlantId);
        Assert.Equal("pansy", Assert.Single(basket.Lines).Need.PlantId);
    }

    [Fact]
    public void Every_basket_of_many_needs_is_possible_and_its_bills_are_what_was_minimised()
    {
        for (int seed = 100; seed < 102; seed++)
        {
            BasketAnswer answer = BasketSolving.Choose(Some(new Random(seed), needs: 40, suppliers: 4, forms: 3, most: 300), seconds: 2);
            Assert.True(answer.Basket.IsPossible, $"seed {seed}");
            Assert.NotEmpty(answer.Basket.Lines);
            Assert.InRange(answer.Bound, 0, answer.Basket.Cost);
        }
    }

    private static BasketQuestion Some(Random random, int needs, int suppliers, int forms, int most)
    {
        Supplier[] who =
        [
            .. Enumerable
                .Range(0, suppliers)
                .Select(i => new Supplier($"s{i}", $"S{i}")
                {
                    LeastGoods = random.Next(3) == 0 ? random.Next(10, 40) : 0,
                    DeliveryCharge = random.Next(12),
                    FreeDeliveryFrom = random.Next(2) == 0 ? random.Next(30, 90) : null,
                    Discounts =
                    [
                        .. random.Next(2) == 0 ? new Discount[] { new OffForEvery(25, 5, 20) } : [],
                        .. random.Next(2) == 0 ? new Discount[] { new ShareFrom(30, 0.05m), new ShareFrom(60, 0.125m) } : [],
                    ],
                }),
        ];
        return new BasketQuestion(
            [.. Enumerable.Range(0, needs).Select(i => new BasketNeed($"kind-{i}", random.Next(1, most), By))],
            who,
            [
                .. from s in who
                from n in Enumerable.Range(0, needs)
                from f in Enumerable.Range(0, forms)
                where random.Next(5) > 0
                let size = new[] { 1, 4, 6, 10, 18 }[random.Next(5)]
                let price = Math.Round((decimal)(size * (0.8 + random.NextDouble())), 2)
                select new Offer(
                    s.Id,
                    $"kind-{n}",
                    $"pack {f}",
                    size,
                    random.Next(3) == 0
                        ? [new PriceStep(1, price), new PriceStep(2 + random.Next(3), Math.Round(price * 0.8m, 2))]
                        : [new PriceStep(1, price)]
                )
                {
                    MostPacks = random.Next(4) == 0 ? random.Next(1, 6) : null,
                },
            ],
            Today
        );
    }

    // Every way to cover every need that can be covered.
    private static IEnumerable<Basket> Every(BasketQuestion question)
    {
        var ways = question
            .Needs.Select(n => (Need: n, Ways: Ways(n, question.OffersFor(n), 0, n.MostBought(question.OffersFor(n))).ToList()))
            .ToList();
        List<BasketNeed> unserved = [.. ways.Where(w => w.Ways.Count == 0).Select(w => w.Need)];
        return Together([.. ways.Where(w => w.Ways.Count > 0).Select(w => w.Ways)], 0).Select(lines => new Basket(question, lines, unserved));
    }

    private static IEnumerable<List<BasketLine>> Together(List<List<List<BasketLine>>> ways, int from) =>
        from == ways.Count
            ?
            [
                [],
            ]
            : ways[from].SelectMany(way => Together(ways, from + 1).Select(rest => (List<BasketLine>)[.. way, .. rest]));

    private static IEnumerable<List<BasketLine>> Ways(BasketNeed need, IReadOnlyList<Offer> offers, int from, int room, int bought = 0)
    {
        if (from == offers.Count)
            return bought >= need.Count
                ?
                [
                    [],
                ]
                : [];
        return Enumerable
            .Range(0, (room / offers[from].PackSize) + 1)
            .Where(n => n <= (offers[from].MostPacks ?? int.MaxValue))
            .SelectMany(n =>
                Ways(need, offers, from + 1, room - (n * offers[from].PackSize), bought + (n * offers[from].PackSize))
                    .Select(rest => n == 0 ? rest : (List<BasketLine>)[new BasketLine(need, offers[from], n), .. rest])
            );
    }
}
