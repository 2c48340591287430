using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Reckon;

/// <summary>A supplier for reckoning.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name; the short one where left out.</param>
/// <param name="LeastGoods">Least sum of the goods that is delivered.</param>
/// <param name="DeliveryCharge">What one delivery costs.</param>
/// <param name="FreeDeliveryFrom">The sum of the goods from which it costs nothing.</param>
/// <param name="OffForEvery">So much off for every full sum, up to a limit.</param>
/// <param name="ShareFrom">Shares off from a sum on; the highest that is reached counts alone.</param>
public sealed record SupplierInput(
    string Id,
    string? Name = null,
    decimal LeastGoods = 0,
    decimal DeliveryCharge = 0,
    decimal? FreeDeliveryFrom = null,
    IReadOnlyList<OffForEvery>? OffForEvery = null,
    IReadOnlyList<ShareFrom>? ShareFrom = null
);

/// <summary>Input of <c>basket</c>.</summary>
/// <param name="Today">The day of the order.</param>
/// <param name="Needs">What is wanted.</param>
/// <param name="Suppliers">Who sells, on which terms.</param>
/// <param name="Offers">What they sell.</param>
/// <param name="Seconds">How long to look, 1 to 60, default 10.</param>
public sealed record BasketInput(
    LocalDate Today,
    IReadOnlyList<BasketNeed> Needs,
    IReadOnlyList<SupplierInput> Suppliers,
    IReadOnlyList<Offer> Offers,
    double Seconds = BasketSolving.UsualSeconds
);

/// <summary>One line of a basket.</summary>
public sealed record BasketLineOutput(string PlantId, string SupplierId, string Form, int Packs, int Plants, decimal Price);

/// <summary>A supplier's bill.</summary>
public sealed record BasketBillOutput(string SupplierId, decimal Goods, decimal Discount, decimal Delivery, decimal Total);

/// <summary>Output of <c>basket</c>; none costs less than the bound.</summary>
public sealed record BasketOutput(
    decimal Cost,
    decimal Bound,
    bool IsBest,
    IReadOnlyList<BasketLineOutput> Lines,
    IReadOnlyList<BasketBillOutput> Bills,
    IReadOnlyList<string> Unserved
);

/// <summary>Input of <c>order-deadlines</c>.</summary>
/// <param name="PlanFile">A plan.</param>
/// <param name="TurnId">One of its turns; all where left out.</param>
public sealed record OrderDeadlinesInput(string PlanFile, string? TurnId = null);

/// <summary>Goods of a turn that are ordered alike.</summary>
public sealed record OrderDeadlineOutput(
    string TurnId,
    string Sort,
    bool IsWood,
    int Kinds,
    int Bought,
    decimal Cost,
    LocalDate By,
    LocalDate LastOrderDay
);

/// <summary>Output of <c>order-deadlines</c>, the earliest first.</summary>
public sealed record OrderDeadlinesOutput(IReadOnlyList<OrderDeadlineOutput> Deadlines);

/// <summary>Topics of supply.</summary>
internal static class SupplyTopics
{
    public static Topic Basket { get; } =
        new Topic<BasketInput, BasketOutput>(
            "basket",
            "what to buy where: the cheapest basket with price steps, discounts and delivery charges",
            input =>
            {
                BasketAnswer answer = BasketSolving.Choose(Question(input), input.Seconds);
                return (
                    new BasketOutput(
                        answer.Basket.Cost,
                        answer.Bound,
                        answer.IsBest,
                        [
                            .. answer.Basket.Lines.Select(l => new BasketLineOutput(
                                l.Need.PlantId,
                                l.Offer.SupplierId,
                                l.Offer.Form,
                                l.Packs,
                                l.Plants,
                                l.Price
                            )),
                        ],
                        [
                            .. answer.Basket.Bills.Select(b => new BasketBillOutput(
                                b.Supplier.Id,
                                b.Bill.Goods,
                                b.Bill.Discount,
                                b.Bill.Delivery,
                                b.Bill.Total
                            )),
                        ],
                        [.. answer.Basket.Unserved.Select(n => n.PlantId)]
                    ),
                    answer.Basket.Explain()
                );
            }
        );

    public static Topic OrderDeadlines { get; } =
        new Topic<OrderDeadlinesInput, OrderDeadlinesOutput>("order-deadlines", "the last day to order the goods of each turn", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            List<Turn> turns = [.. plan.Turns.Where(t => input.TurnId is null || t.Id == input.TurnId)];
            if (turns.Count == 0)
                throw new InvalidInputException("turnId", $"must be one of {string.Join(", ", plan.Turns.Select(t => t.Id))}");
            IReadOnlyList<OrderDeadline> deadlines = OrderDeadline.Of(turns.Select(t => TurnOrder.For(plan, t)));
            return (
                new OrderDeadlinesOutput([
                    .. deadlines.Select(d => new OrderDeadlineOutput(
                        d.Turn.Id,
                        $"{d.Sort}",
                        d.IsWood,
                        d.Lines.Count,
                        d.Bought,
                        d.Cost,
                        d.By,
                        d.LastOrderDay
                    )),
                ]),
                [.. deadlines.Select(d => d.Explain())]
            );
        });

    private static BasketQuestion Question(BasketInput input)
    {
        var faults = new FaultList();
        faults.Range("seconds", input.Seconds, 1, 60, "s");
        List<Supplier> suppliers =
        [
            .. input.Suppliers.Select(s => new Supplier(s.Id, s.Name ?? s.Id)
            {
                LeastGoods = s.LeastGoods,
                DeliveryCharge = s.DeliveryCharge,
                FreeDeliveryFrom = s.FreeDeliveryFrom,
                Discounts = [.. s.OffForEvery ?? [], .. s.ShareFrom ?? []],
            }),
        ];
        for (int i = 0; i < suppliers.Count; i++)
        {
            faults.AddAll($"suppliers[{i}]", suppliers[i].Faults());
            if (suppliers.FindIndex(s => s.Id == suppliers[i].Id) < i)
                faults.Add($"suppliers[{i}].id", "is used twice");
        }
        for (int i = 0; i < input.Needs.Count; i++)
            faults.Range($"needs[{i}].count", input.Needs[i].Count, 1, 200_000, "plants");
        for (int i = 0; i < input.Offers.Count; i++)
        {
            faults.AddAll($"offers[{i}]", input.Offers[i].Faults());
            if (!suppliers.Exists(s => s.Id == input.Offers[i].SupplierId))
                faults.Add($"offers[{i}].supplierId", "names no supplier");
        }
        faults.ThrowIfAny();
        return new BasketQuestion(input.Needs, suppliers, input.Offers, input.Today);
    }
}
