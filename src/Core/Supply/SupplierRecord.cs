using NodaTime;

namespace UnrulyMeadow.Core.Supply;

/// <summary>How a supplier did over some days: what came, what was refused, what was credited.</summary>
/// <param name="Supplier">The supplier, as on the last of its orders.</param>
/// <param name="Arrived">Plants that came.</param>
/// <param name="Refused">Of these, plants that were not taken.</param>
/// <param name="Missing">Plants that were ordered and never came.</param>
/// <param name="Credited">What was credited in the end.</param>
public sealed record SupplierRecord(Supplier Supplier, int Arrived, int Refused, int Missing, decimal Credited)
{
    /// <summary>Adds up orders whose plants are wanted between two days.</summary>
    /// <param name="accounts">Orders with what came of them.</param>
    /// <param name="claims">Credits.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last day.</param>
    /// <returns>The most refused first.</returns>
    public static IReadOnlyList<SupplierRecord> Of(
        IEnumerable<OrderAccount> accounts,
        IReadOnlyCollection<CreditClaim> claims,
        LocalDate first,
        LocalDate last
    ) =>
        [
            .. accounts
                .Where(a => a.Order.Stage is not (OrderState.Draft or OrderState.Cancelled))
                .Where(a => a.Lines.Any(l => l.Line.By >= first && l.Line.By <= last))
                .GroupBy(a => a.Order.Supplier.Id, StringComparer.Ordinal)
                .Select(g =>
                {
                    List<LineAccount> lines = [.. g.SelectMany(a => a.Lines).Where(l => l.Line.By >= first && l.Line.By <= last)];
                    HashSet<Guid> orders = [.. g.Select(a => a.Order.Id)];
                    return new SupplierRecord(
                        g.Last().Order.Supplier,
                        lines.Sum(l => l.Arrived),
                        lines.Sum(l => l.Refused),
                        lines.Where(l => !l.IsWaited).Sum(l => Math.Max(0, l.Line.Plants - l.Arrived)),
                        claims.Where(c => orders.Contains(c.OrderId)).Sum(c => c.Settled)
                    );
                })
                .OrderByDescending(s => s.Refused + s.Missing),
        ];
}
