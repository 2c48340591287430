using NodaTime;

namespace UnrulyMeadow.Core.Supply;

/// <summary>A delivery with who wrote it down, and when.</summary>
/// <param name="It">The delivery.</param>
/// <param name="By">What the person was called then; empty for nobody that is known.</param>
/// <param name="RecordedAt">When it was written down.</param>
public sealed record KeptReceipt(Receipt It, string By, Instant RecordedAt);

/// <summary>All of a site's supply but photographs, as it stands in a file.</summary>
/// <param name="Suppliers">Suppliers.</param>
/// <param name="Offers">Their offers.</param>
/// <param name="Orders">Orders.</param>
/// <param name="Receipts">Deliveries.</param>
/// <param name="Claims">Credits.</param>
/// <param name="Places">Places of the holding area.</param>
/// <param name="Materials">Materials.</param>
/// <param name="MaterialMovements">What came of them and went.</param>
/// <param name="Budgets">Budgets.</param>
public sealed record SupplyDocument(
    IReadOnlyList<Supplier> Suppliers,
    IReadOnlyList<Offer> Offers,
    IReadOnlyList<PurchaseOrder> Orders,
    IReadOnlyList<KeptReceipt> Receipts,
    IReadOnlyList<CreditClaim> Claims,
    IReadOnlyList<HoldingPlace> Places,
    IReadOnlyList<Material> Materials,
    IReadOnlyList<MaterialMovement> MaterialMovements,
    IReadOnlyList<Budget> Budgets
)
{
    /// <summary>Every fault of it: figures out of range, and what names a supplier, order or material that is not there.</summary>
    public FaultList Faults()
    {
        var faults = new FaultList();
        Each("suppliers", Suppliers, s => s.Faults());
        Each("offers", Offers, o => o.Faults());
        // An order that was sent keeps what its supplier asked then; only its own lines are looked at.
        Each("orders", Orders, o => [.. o.Lines.SelectMany(l => l.Faults())]);
        Each("receipts", Receipts, r =>
            [
                .. r.It.Lines.Where(l => l.Accepted < 0 || l.Accepted > l.Arrived).Select(_ => new Fault("lines", "cannot take more than came")),
                .. Orders.FirstOrDefault(o => o.Id == r.It.OrderId) is { } of && r.It.Lines.Any(l => of.Lines.All(o => o.Number != l.Line))
                    ? [new Fault("lines", "name a line that the order does not have")]
                    : Array.Empty<Fault>(),
            ]
        );
        Each("places", Places, p => p.Faults());
        Each("materials", Materials, m => m.Faults());
        Each("budgets", Budgets, b => b.Faults());
        Named("offers", Offers.Select(o => o.SupplierId), Suppliers.Select(s => s.Id), "supplierId", "is no supplier of this file");
        Named("receipts", Receipts.Select(r => r.It.OrderId), Orders.Select(o => o.Id), "orderId", "is no order of this file");
        Named("claims", Claims.Select(c => c.OrderId), Orders.Select(o => o.Id), "orderId", "is no order of this file");
        Named(
            "materialMovements",
            MaterialMovements.Select(m => m.MaterialId),
            Materials.Select(m => m.Id),
            "materialId",
            "is no material of this file"
        );
        for (int i = 0; i < Orders.Count; i++)
        {
            if (Orders[i].Number is null != Orders[i].Stage is OrderState.Draft && Orders[i].Stage != OrderState.Cancelled)
                faults.Add($"orders[{i}].number", "belongs to orders that were sent, and to no others");
            if (Orders[i].Stage is OrderState.PartReceived or OrderState.Received)
                faults.Add($"orders[{i}].stage", "follows from what was received and is not written");
        }
        return faults;

        void Each<T>(string list, IReadOnlyList<T> items, Func<T, IReadOnlyList<Fault>> of)
        {
            for (int i = 0; i < items.Count; i++)
                faults.AddAll($"{list}[{i}]", of(items[i]));
        }

        void Named<T>(string list, IEnumerable<T> names, IEnumerable<T> known, string field, string message)
        {
            HashSet<T> there = [.. known];
            int i = 0;
            foreach (T name in names)
            {
                if (!there.Contains(name))
                    faults.Add($"{list}[{i}].{field}", message);
                i++;
            }
        }
    }
}
