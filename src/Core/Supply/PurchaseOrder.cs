using NodaTime;

namespace UnrulyMeadow.Core.Supply;

/// <summary>How far an order is.</summary>
public enum OrderState
{
    /// <summary>Being put together; nobody has been told of it.</summary>
    Draft,

    /// <summary>Sent to the supplier: from here on it changes no more.</summary>
    Sent,

    /// <summary>The supplier has said yes.</summary>
    Confirmed,

    /// <summary>Some of it has come.</summary>
    PartReceived,

    /// <summary>All of it has come.</summary>
    Received,

    /// <summary>Done with: what has not come is waited for no longer.</summary>
    Closed,

    /// <summary>Called off.</summary>
    Cancelled,
}

/// <summary>A line of an order, in the words and units in which it was sent.</summary>
/// <param name="Number">Its number in the order, from 1.</param>
/// <param name="PlantId">The kind.</param>
/// <param name="Name">What the kind was called when it was ordered.</param>
/// <param name="Form">The pack's form, as the supplier calls it.</param>
/// <param name="PackSize">Plants or bulbs in a pack.</param>
/// <param name="Packs">Packs.</param>
/// <param name="PackPrice">Price of a pack.</param>
/// <param name="By">The day on which it is wanted.</param>
/// <param name="TurnId">The turn that it is for; null for none.</param>
public sealed record OrderedLine(
    int Number,
    string PlantId,
    string Name,
    string Form,
    int PackSize,
    int Packs,
    decimal PackPrice,
    LocalDate By,
    string? TurnId = null
)
{
    /// <summary>What the supplier calls the kind; null where they call it as we do, or nobody knows.</summary>
    public string? TheirName { get; init; }

    /// <summary>Plants that the plan wanted of it when it was ordered; the rest is there for whole packs or a discount.</summary>
    public int Wanted { get; init; } = Packs * PackSize;

    /// <summary>Plants or bulbs in it.</summary>
    public int Plants => Packs * PackSize;

    /// <summary>Its price, before anything is taken off the bill.</summary>
    public decimal Price => Packs * PackPrice;

    /// <summary>Every fault of the line on its own.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("form", Form, 40);
        faults.Range("packSize", PackSize, 1, 1000, "plants");
        faults.Range("packs", Packs, 1, 10_000, "packs");
        faults.Range("packPrice", (double)PackPrice, 0, 100_000, string.Empty);
        faults.Day("by", By);
        return faults.Faults;
    }
}

/// <summary>An order to one supplier. Once it is sent it is a commitment: it keeps its terms, names and prices whatever the plan does.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Supplier">The supplier, on the terms of the day on which it was sent.</param>
/// <param name="Lines">Its lines.</param>
public sealed record PurchaseOrder(Guid Id, Supplier Supplier, IReadOnlyList<OrderedLine> Lines)
{
    /// <summary>Its number, given when it is sent; null before.</summary>
    public int? Number { get; init; }

    /// <summary>What was done with it last; what has come of it is told by its <see cref="OrderAccount"/>.</summary>
    public OrderState Stage { get; init; }

    /// <summary>The day on which it was sent.</summary>
    public LocalDate? SentOn { get; init; }

    /// <summary>The day on which the supplier has promised to bring it; null where nothing was said.</summary>
    public LocalDate? PromisedFor { get; init; }

    /// <summary>What was paid, and when.</summary>
    public decimal? Paid { get; init; }

    /// <summary>The day of the payment.</summary>
    public LocalDate? PaidOn { get; init; }

    /// <summary>Anything to be said to the supplier.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>The bill by the supplier's terms.</summary>
    public SupplierBill Bill => Supplier.Bill(Lines.Sum(l => l.Price));

    /// <summary>True once it was sent and while it is neither called off nor done with.</summary>
    public bool IsOpen => Stage is OrderState.Sent or OrderState.Confirmed;

    /// <summary>What one plant of a line costs after what is taken off the bill; delivery is not part of it.</summary>
    public decimal PriceOfOne(OrderedLine line)
    {
        SupplierBill bill = Bill;
        decimal share = bill.Goods == 0 ? 1 : (bill.Goods - bill.Discount) / bill.Goods;
        return line.PackPrice / line.PackSize * share;
    }

    /// <summary>True when it may go from its stage to another.</summary>
    /// <param name="to">Where to.</param>
    /// <param name="anythingCame">True when some of it has come.</param>
    public bool MayBecome(OrderState to, bool anythingCame) =>
        (Stage, to) switch
        {
            (OrderState.Draft, OrderState.Sent or OrderState.Cancelled) => true,
            (OrderState.Sent, OrderState.Confirmed) => true,
            (OrderState.Sent or OrderState.Confirmed, OrderState.Cancelled) => !anythingCame,
            (OrderState.Sent or OrderState.Confirmed, OrderState.Closed) => true,
            _ => false,
        };

    /// <summary>Every fault of the order's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Note("note", Note, 500);
        if (Lines.Count == 0)
            faults.Add("lines", "an order needs at least one line");
        for (int i = 0; i < Lines.Count; i++)
            faults.AddAll($"lines[{i}]", Lines[i].Faults());
        if (Bill.Goods < Supplier.LeastGoods)
            faults.Add("lines", $"come to {Bill.Goods:0.00}; {Supplier.Name} delivers from {Supplier.LeastGoods:0.00} on");
        if (Paid is { } paid)
            faults.Range("paid", (double)paid, 0, 10_000_000, string.Empty);
        return faults.Faults;
    }
}

/// <summary>What has come of one line of an order.</summary>
/// <param name="Line">The line.</param>
/// <param name="Arrived">Plants that came for it, refused ones and others in their place among them.</param>
/// <param name="Accepted">Of these, plants taken into the stock.</param>
/// <param name="TooMany">Of those refused, plants that were more than ordered.</param>
/// <param name="IsWaited">True while what has not come is waited for.</param>
public sealed record LineAccount(OrderedLine Line, int Arrived, int Accepted, int TooMany, bool IsWaited)
{
    /// <summary>Plants for which a credit may be claimed: all that came but those that were never ordered.</summary>
    public int Claimable => Arrived - TooMany;

    /// <summary>Plants taken into quarantine, by the kind as which they came; they may have left it since.</summary>
    public IReadOnlyList<(string PlantId, int Count)> SetApart { get; init; } = [];

    /// <summary>Plants sent back or thrown out.</summary>
    public int Refused => Arrived - Accepted;

    /// <summary>Plants still to come.</summary>
    public int Outstanding => IsWaited ? Math.Max(0, Line.Plants - Arrived) : 0;

    /// <summary>Plants that were ordered and will not come: refused ones, and all that is no longer waited for.</summary>
    public int FellOut => Math.Max(0, Line.Plants - Accepted - Outstanding);
}

/// <summary>What has come of an order, by its receipts.</summary>
/// <param name="Order">The order.</param>
/// <param name="Lines">Its lines.</param>
public sealed record OrderAccount(PurchaseOrder Order, IReadOnlyList<LineAccount> Lines)
{
    /// <summary>Adds up what came.</summary>
    /// <param name="order">The order.</param>
    /// <param name="receipts">Receipts, of any orders.</param>
    public static OrderAccount Of(PurchaseOrder order, IEnumerable<Receipt> receipts)
    {
        List<Receipt> here = [.. receipts.Where(r => r.OrderId == order.Id)];
        ILookup<int, ReceivedLine> came = here.SelectMany(r => r.Lines).ToLookup(l => l.Line);
        ILookup<int, ReceivedLine> apart = here.Where(r => r.InQuarantine).SelectMany(r => r.Lines).ToLookup(l => l.Line);
        return new OrderAccount(
            order,
            [
                .. order.Lines.Select(l => new LineAccount(
                    l,
                    came[l.Number].Sum(r => r.Arrived),
                    came[l.Number].Sum(r => r.Accepted),
                    came[l.Number].Where(r => r.Reason == RefusalReason.TooMany).Sum(r => r.Refused),
                    order.IsOpen
                )
                {
                    SetApart = [.. apart[l.Number].Where(r => r.Accepted > 0).Select(r => (r.CameAs ?? l.PlantId, r.Accepted))],
                }),
            ]
        );
    }

    /// <summary>How far it is, with what has come.</summary>
    public OrderState State =>
        !Order.IsOpen || Lines.All(l => l.Arrived == 0) ? Order.Stage
        : Lines.All(l => l.Outstanding == 0) ? OrderState.Received
        : OrderState.PartReceived;
}
