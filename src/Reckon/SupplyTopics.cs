using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
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

/// <summary>Goods in a holding area, for reckoning.</summary>
/// <param name="PlantId">The kind, of the plan's palette.</param>
/// <param name="Count">How many, 1 to 100,000.</param>
/// <param name="From">The day on which they come, or came.</param>
/// <param name="Form">The form in which they wait; the usual one where left out.</param>
/// <param name="PlaceId">Where; null where nobody has said.</param>
/// <param name="PlantOn">The day on which they are planted; null for never.</param>
/// <param name="State">What they are kept as.</param>
public sealed record HeldInput(
    string PlantId,
    int Count,
    LocalDate From,
    string? Form = null,
    string? PlaceId = null,
    LocalDate? PlantOn = null,
    LotState State = LotState.Waiting
);

/// <summary>Input of <c>holding</c>.</summary>
/// <param name="PlanFile">A plan, whose palette names the kinds.</param>
/// <param name="Goods">What waits, or will.</param>
/// <param name="Places">Places.</param>
/// <param name="First">The first day looked at.</param>
/// <param name="Last">The last, at most a year later.</param>
/// <param name="LowC">The low of each night, °C.</param>
/// <param name="HighC">The high of each day, °C.</param>
public sealed record HoldingInput(
    string PlanFile,
    IReadOnlyList<HeldInput> Goods,
    IReadOnlyList<HoldingPlace> Places,
    LocalDate First,
    LocalDate Last,
    double LowC = 8,
    double HighC = 18
);

/// <summary>What goods need on the first day, and when they go wrong.</summary>
public sealed record HeldOutput(
    string PlantId,
    string Form,
    double RoomM2,
    LocalDate ReadyOn,
    LocalDate? RootBoundOn,
    LocalDate? GoesOverOn,
    LocalDate? HardenFrom,
    IReadOnlyList<HoldingTask> Today
);

/// <summary>A warning.</summary>
public sealed record HoldingRemarkOutput(HoldingWarning Kind, string PlantId, LocalDate Day, double? LowC);

/// <summary>The room of a place on the first day.</summary>
public sealed record HoldingPlaceOutput(string PlaceId, double TakenM2, double RoomM2);

/// <summary>Output of <c>holding</c>.</summary>
public sealed record HoldingOutput(
    IReadOnlyList<HeldOutput> Goods,
    IReadOnlyList<HoldingRemarkOutput> Remarks,
    IReadOnlyList<HoldingPlaceOutput> Places
);

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

    public static Topic Holding { get; } =
        new Topic<HoldingInput, HoldingOutput>("holding", "what waits in a holding area: its room, its care, and when it goes wrong", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            var faults = new FaultList();
            if (faults.Day("first", input.First) && (input.Last < input.First || input.Last > input.First.PlusYears(1)))
                faults.Add("last", "must be within a year of the first day, and not before it");
            for (int i = 0; i < input.Places.Count; i++)
                faults.AddAll($"places[{i}]", input.Places[i].Faults());
            var goods = new List<HeldGoods>();
            for (int i = 0; i < input.Goods.Count; i++)
            {
                HeldInput given = input.Goods[i];
                faults.Range($"goods[{i}].count", given.Count, 1, 100_000, "plants");
                HoldingPlace? place = input.Places.FirstOrDefault(p => p.Id == given.PlaceId);
                if (given.PlaceId is not null && place is null)
                    faults.Add($"goods[{i}].placeId", "names no place");
                if (plan.FindPlant(given.PlantId) is not { } plant)
                    faults.Add($"goods[{i}].plantId", "is not in the palette");
                else if (faults.Day($"goods[{i}].from", given.From))
                    goods.Add(
                        new HeldGoods(plant, GoodsForm.Chosen(plant, given.Form), given.Count, place, given.From, given.PlantOn)
                        {
                            State = given.State,
                        }
                    );
            }
            faults.ThrowIfAny();
            var held = new HoldingPlan(input.Places, goods, input.First, input.Last, _ => (input.LowC, input.HighC));
            return (
                new HoldingOutput(
                    [
                        .. held.Goods.Select(g => new HeldOutput(
                            g.Plant.Id,
                            g.Form.Name,
                            Math.Round(g.RoomM2, 3),
                            g.ReadyOn,
                            g.RootBoundOn,
                            g.GoesOverOn,
                            g.HardenFrom,
                            held.Tasks(g, input.First)
                        )),
                    ],
                    [.. held.Remarks.Select(r => new HoldingRemarkOutput(r.Kind, r.Goods.Plant.Id, r.Day, r.LowC))],
                    [.. held.Places.Select(p => new HoldingPlaceOutput(p.Id, Math.Round(held.RoomTaken(p, input.First), 3), p.RoomM2))]
                ),
                [.. held.Places.Select(p => held.Explain(p, input.First))]
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
