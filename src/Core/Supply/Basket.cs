using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Plants of one kind that are to be bought.</summary>
/// <param name="PlantId">The kind.</param>
/// <param name="Count">How many, spares included, 1 or more.</param>
/// <param name="By">The day on which they must be here.</param>
public sealed record BasketNeed(string PlantId, int Count, LocalDate By)
{
    // Nobody plants, waters and pays for more than a quarter over for the sake of a discount (common practice).
    private const double MostOver = 0.25;

    /// <summary>Forms that will do; empty for any.</summary>
    public IReadOnlyList<string> Forms { get; init; } = [];

    /// <summary>The supplier whose offers alone will do, by the planner's choice; null for any.</summary>
    public string? OnlySupplierId { get; init; }

    /// <summary>True when an offer can serve it; one that the planner has chosen may come late, as long as it can be ordered at all.</summary>
    public bool IsServedBy(Offer offer, LocalDate today) =>
        WouldServe(offer) && (OnlySupplierId is null ? offer.IsToBeHad(today, By) : !(offer.OrderUntil < today));

    /// <summary>True when an offer would serve it if it came in time.</summary>
    public bool WouldServe(Offer offer) =>
        offer.PlantId == PlantId
        && (OnlySupplierId is null || offer.SupplierId == OnlySupplierId)
        && (Forms.Count == 0 || Forms.Contains(offer.Form, StringComparer.Ordinal));

    /// <summary>The most plants to buy from some offers: a quarter over, or what the last pack brings beyond the count.</summary>
    /// <param name="offers">Offers that serve it.</param>
    public int MostBought(IEnumerable<Offer> offers) =>
        Math.Max((int)Math.Floor(Count * (1 + MostOver)), Count + offers.Select(o => o.PackSize).DefaultIfEmpty(1).Max() - 1);
}

/// <summary>What is asked: needs, and who offers what on which terms.</summary>
/// <param name="Needs">Needs.</param>
/// <param name="Suppliers">Suppliers.</param>
/// <param name="Offers">Offers of these suppliers.</param>
/// <param name="Today">The day of the order.</param>
public sealed record BasketQuestion(IReadOnlyList<BasketNeed> Needs, IReadOnlyList<Supplier> Suppliers, IReadOnlyList<Offer> Offers, LocalDate Today)
{
    /// <summary>The most plugs that there is room for in the holding area, to be grown on; null for any number.</summary>
    public int? MostGrownOn { get; init; }

    /// <summary>The offers that can serve a need.</summary>
    public IReadOnlyList<Offer> OffersFor(BasketNeed need) => [.. Offers.Where(o => need.IsServedBy(o, Today))];
}

/// <summary>So many packs of one offer, for one need.</summary>
/// <param name="Need">The need.</param>
/// <param name="Offer">The offer.</param>
/// <param name="Packs">Packs, 1 or more.</param>
public sealed record BasketLine(BasketNeed Need, Offer Offer, int Packs)
{
    /// <summary>Plants in them.</summary>
    public int Plants => Packs * Offer.PackSize;

    /// <summary>Their price before anything is taken off the bill.</summary>
    public decimal Price => Offer.PriceOf(Packs);
}

/// <summary>What to buy where.</summary>
/// <param name="Question">What was asked.</param>
/// <param name="Lines">Lines, by need.</param>
/// <param name="Unserved">Needs that nobody serves in time and number.</param>
public sealed record Basket(BasketQuestion Question, IReadOnlyList<BasketLine> Lines, IReadOnlyList<BasketNeed> Unserved)
{
    /// <summary>The bill of each supplier from whom something is bought.</summary>
    public IReadOnlyList<(Supplier Supplier, SupplierBill Bill)> Bills { get; } =
    [
        .. Question
            .Suppliers.Select(s => (s, s.Bill(Lines.Where(l => l.Offer.SupplierId == s.Id).Sum(l => l.Price))))
            .Where(b => b.Item2.Goods > 0 || Lines.Any(l => l.Offer.SupplierId == b.s.Id)),
    ];

    /// <summary>The arithmetic behind each bill.</summary>
    public IReadOnlyList<Working> Explain() =>
        [
            .. Bills.Select(b => new Working(
                WorkingKind.SupplierBill,
                Quantity.Money(b.Bill.Total),
                [
                    .. Lines
                        .Where(l => l.Offer.SupplierId == b.Supplier.Id)
                        .Select(l => new WorkingInput(
                            l.Need.PlantId,
                            new Fact(WorkingPhrase.SupplierBillLine, ("packs", l.Packs), ("form", l.Offer.Form), ("price", Quantity.Money(l.Price)))
                        )),
                ],
                [
                    new Fact(
                        WorkingPhrase.SupplierBillStep,
                        ("goods", Quantity.Money(b.Bill.Goods)),
                        ("discount", Quantity.Money(b.Bill.Discount)),
                        ("delivery", Quantity.Money(b.Bill.Delivery)),
                        ("total", Quantity.Money(b.Bill.Total))
                    ),
                ]
            )
            {
                Parts = [("supplier", b.Supplier.Name)],
            }),
        ];

    /// <summary>What it costs in all.</summary>
    public decimal Cost => Bills.Sum(b => b.Bill.Total);

    /// <summary>True when every need is covered, no more is taken than is to be had, and every supplier delivers so little.</summary>
    public bool IsPossible =>
        Question.Needs.Where(n => !Unserved.Contains(n)).All(IsCovered)
        && Lines.All(l => l.Need.IsServedBy(l.Offer, Question.Today))
        && Lines.GroupBy(l => l.Offer).All(g => g.Key.MostPacks is not { } most || g.Sum(l => l.Packs) <= most)
        && Bills.All(b => b.Bill.Goods >= b.Supplier.LeastGoods)
        && !(Lines.Where(l => l.Offer.GrowOnWeeks > 0).Sum(l => l.Plants) > Question.MostGrownOn);

    private bool IsCovered(BasketNeed need)
    {
        int bought = Lines.Where(l => ReferenceEquals(l.Need, need)).Sum(l => l.Plants);
        return bought >= need.Count && bought <= need.MostBought(Question.OffersFor(need));
    }
}

/// <summary>Another offer for a need, and what it would mean to take it for all of it.</summary>
/// <param name="Offer">The offer.</param>
/// <param name="Packs">Packs that cover the need.</param>
/// <param name="Price">What they cost, before anything is taken off the bill.</param>
/// <param name="DaysLate">Days of colour that it costs, because it can be planted so many days after it is wanted.</param>
/// <param name="CareMinutes">Minutes of growing on.</param>
public sealed record BasketAlternative(Offer Offer, int Packs, decimal Price, int DaysLate, int CareMinutes)
{
    // Watering and looking after a plug, minutes a week (common practice; ten seconds with a hose over the bench).
    private const double CareMinutesAWeek = 0.17;

    /// <summary>Every offer for a need, those in time first, the cheapest first.</summary>
    /// <param name="need">The need.</param>
    /// <param name="question">What was asked.</param>
    public static IReadOnlyList<BasketAlternative> Of(BasketNeed need, BasketQuestion question) =>
        [
            .. question
                .Offers.Where(o => (need with { OnlySupplierId = null, Forms = [] }).WouldServe(o))
                .Select(o =>
                {
                    int packs = (need.Count + o.PackSize - 1) / o.PackSize;
                    return new BasketAlternative(
                        o,
                        packs,
                        o.PriceOf(packs),
                        o.DaysLate(question.Today, need.By),
                        (int)Math.Ceiling(packs * o.PackSize * o.GrowOnWeeks * CareMinutesAWeek)
                    );
                })
                .OrderBy(a => a.DaysLate > 0)
                .ThenBy(a => a.Price),
        ];
}
