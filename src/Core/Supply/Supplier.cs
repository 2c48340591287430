namespace UnrulyMeadow.Core.Supply;

/// <summary>A bill for goods, before it is paid.</summary>
/// <param name="Goods">The sum of the goods.</param>
/// <param name="Discount">What is taken off.</param>
/// <param name="Delivery">What bringing them costs.</param>
public sealed record SupplierBill(decimal Goods, decimal Discount, decimal Delivery)
{
    /// <summary>What is to be paid.</summary>
    public decimal Total => Goods - Discount + Delivery;
}

/// <summary>Somebody who sells goods, and on what terms.</summary>
/// <param name="Id">Short name: lower-case letters, digits and hyphens.</param>
/// <param name="Name">Name.</param>
public sealed record Supplier(string Id, string Name)
{
    /// <summary>Least sum of the goods that is delivered; 0 for any.</summary>
    public decimal LeastGoods { get; init; }

    /// <summary>What one delivery costs.</summary>
    public decimal DeliveryCharge { get; init; }

    /// <summary>The sum of the goods from which delivery costs nothing; null for never.</summary>
    public decimal? FreeDeliveryFrom { get; init; }

    /// <summary>What is taken off a bill.</summary>
    public IReadOnlyList<Discount> Discounts { get; init; } = [];

    /// <summary>Days after the bill by which it is to be paid.</summary>
    public int PaymentDays { get; init; } = 30;

    /// <summary>Days from an order to its delivery, where an offer says nothing else.</summary>
    public int LeadDays { get; init; }

    /// <summary>Months in which they deliver, 1 to 12, where an offer says nothing else; empty for all year.</summary>
    public IReadOnlyList<int> Months { get; init; } = [];

    /// <summary>Anything else.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>
    /// The bill for goods: amounts for every full sum add up, of the shares the highest that is reached counts, all of the goods as they are
    /// priced; never more than the goods.
    /// </summary>
    /// <param name="goods">The sum of the goods; 0 for none, which costs nothing.</param>
    public SupplierBill Bill(decimal goods)
    {
        if (goods <= 0)
            return new SupplierBill(0, 0, 0);
        decimal off =
            Discounts.OfType<OffForEvery>().Sum(d => d.Off(goods)) + Discounts.OfType<ShareFrom>().Select(d => d.Off(goods)).DefaultIfEmpty(0).Max();
        return new SupplierBill(goods, Math.Min(goods, off), goods >= FreeDeliveryFrom ? 0 : DeliveryCharge);
    }

    /// <summary>Every fault of the supplier's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("id", Id, 60);
        if (!string.IsNullOrEmpty(Id) && !Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        faults.Range("leastGoods", (double)LeastGoods, 0, 1_000_000, string.Empty);
        faults.Range("deliveryCharge", (double)DeliveryCharge, 0, 100_000, string.Empty);
        if (FreeDeliveryFrom is { } from)
            faults.Range("freeDeliveryFrom", (double)from, 0, 1_000_000, string.Empty);
        faults.Range("paymentDays", PaymentDays, 0, 365, "days");
        faults.Range("leadDays", LeadDays, 0, 730, "days");
        if (Months.Any(m => m is < 1 or > 12))
            faults.Add("months", "must be from 1 to 12");
        faults.Phrase("note", Note, 500);
        for (int i = 0; i < Discounts.Count; i++)
            faults.AddAll($"discounts[{i}]", Discounts[i].Faults());
        return faults.Faults;
    }
}
