using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>An order as a file for the supplier: in their packs and words, with the bill.</summary>
public static class OrderSheet
{
    private static readonly string[] Columns = ["line", "plant", "form", "packs", "in a pack", "plants", "price of a pack", "price", "wanted by"];

    /// <summary>As a workbook.</summary>
    public static byte[] Workbook(PurchaseOrder order) => TypedTable.WriteWorkbook(Columns, Rows(order));

    /// <summary>As CSV.</summary>
    public static byte[] Csv(PurchaseOrder order) => TypedTable.WriteCsv(Columns, Rows(order));

    private static List<IReadOnlyList<object?>> Rows(PurchaseOrder order)
    {
        SupplierBill bill = order.Bill;
        List<IReadOnlyList<object?>> rows =
        [
            .. order.Lines.Select(l =>
                (IReadOnlyList<object?>)
                    [
                        l.Number,
                        l.TheirName ?? l.Name,
                        l.Form,
                        l.Packs,
                        l.PackSize,
                        l.Plants,
                        l.PackPrice,
                        l.Price,
                        NodaTime.Text.LocalDatePattern.Iso.Format(l.By),
                    ]
            ),
        ];
        if (bill.Discount > 0)
            rows.Add(Sum("taken off", -bill.Discount));
        if (bill.Delivery > 0)
            rows.Add(Sum("delivery", bill.Delivery));
        rows.Add(Sum("to be paid", bill.Total));
        return rows;
    }

    private static IReadOnlyList<object?> Sum(string what, decimal sum) => [null, what, null, null, null, null, null, sum, null];
}
