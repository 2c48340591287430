using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Why plants are refused at delivery, or claimed later.</summary>
public enum RefusalReason
{
    /// <summary>Yellow, torn, wilted or blotched leaves.</summary>
    Foliage,

    /// <summary>Flowers that are over, no buds left.</summary>
    SpentFlowers,

    /// <summary>Root balls dried out.</summary>
    Dry,

    /// <summary>Roots that circle the pot.</summary>
    RootBound,

    /// <summary>Bulbs that are soft, mouldy, or have sprouted.</summary>
    SoftBulbs,

    /// <summary>Another kind than ordered.</summary>
    WrongKind,

    /// <summary>Pests or disease: what is beside it goes into quarantine.</summary>
    Pests,

    /// <summary>Smaller than ordered.</summary>
    Size,

    /// <summary>More than was ordered.</summary>
    TooMany,
}

/// <summary>What came for one line of an order.</summary>
/// <param name="Line">The line's number.</param>
/// <param name="Arrived">Plants that came.</param>
/// <param name="Accepted">Of these, plants that were taken.</param>
/// <param name="Reason">Why the others were refused; null where none was.</param>
public sealed record ReceivedLine(int Line, int Arrived, int Accepted, RefusalReason? Reason = null)
{
    /// <summary>The kind that came in place of the one that was ordered; null for the one ordered.</summary>
    public string? CameAs { get; init; }

    /// <summary>Anything else that was seen.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>Plants refused.</summary>
    public int Refused => Arrived - Accepted;
}

/// <summary>A delivery as it was inspected: a record, to which things are added but which never changes.</summary>
/// <param name="Id">Its identity, given where it is written; sent twice, it counts once.</param>
/// <param name="OrderId">The order.</param>
/// <param name="Day">The day.</param>
/// <param name="Place">Where it was put.</param>
/// <param name="Lines">What came, by line; a line may come twice, as the kind ordered and as another.</param>
public sealed record Receipt(Guid Id, Guid OrderId, LocalDate Day, string Place, IReadOnlyList<ReceivedLine> Lines)
{
    /// <summary>True where it stands apart until it is known to be healthy: until then nothing is planted from it.</summary>
    public bool InQuarantine { get; init; }

    /// <summary>True where whoever inspected it has said that more than was ordered is taken.</summary>
    public bool TakesMore { get; init; }

    /// <summary>Every fault of it, beside what came of the order before.</summary>
    /// <param name="account">The order and what has come of it.</param>
    /// <param name="plan">The plan, whose palette names the kinds.</param>
    public IReadOnlyList<Fault> Faults(OrderAccount account, Plan plan)
    {
        var faults = new FaultList();
        if (!account.Order.IsOpen)
            faults.Add(string.Empty, "nothing is waited for of this order: it is not sent, or it is closed");
        faults.Day("day", Day);
        faults.Text("place", Place, 60);
        if (Lines.All(l => l.Arrived == 0))
            faults.Add(string.Empty, "say of at least one line how many came");
        for (int i = 0; i < Lines.Count; i++)
        {
            ReceivedLine line = Lines[i];
            string at = $"lines[{i}]";
            faults.Range($"{at}.arrived", line.Arrived, 0, 100_000, "plants");
            faults.Phrase($"{at}.note", line.Note, 300);
            if (line.Accepted < 0 || line.Accepted > line.Arrived)
                faults.Add($"{at}.accepted", "cannot be more than came");
            if (line.Refused > 0 && line.Reason is null)
                faults.Add($"{at}.reason", "say why plants are refused: the credit is claimed with it");
            if (line.CameAs is { } kind && plan.FindPlant(kind) is null)
                faults.Add($"{at}.cameAs", "is no kind of the palette: add it there first, or refuse it as the wrong kind");
            if (account.Lines.All(l => l.Line.Number != line.Line))
                faults.Add($"{at}.line", "is not a line of this order");
        }
        foreach (LineAccount line in account.Lines)
        {
            List<int> of = [.. Enumerable.Range(0, Lines.Count).Where(i => Lines[i].Line == line.Line.Number)];
            int accepted = of.Sum(i => Lines[i].Accepted);
            if (of.Count == 0 || of.Sum(i => Lines[i].Arrived) == 0 || TakesMore)
                continue;
            if (line.Outstanding == 0)
                faults.Add(
                    $"lines[{of[0]}].arrived",
                    $"all {line.Line.Plants} of {line.Line.Name} have come already; was this delivery written down before?"
                );
            else if (accepted > line.Outstanding)
                faults.Add(
                    $"lines[{of[0]}].accepted",
                    $"{accepted} are more than the {line.Outstanding} still to come: refuse the rest as too many, or say that more is taken"
                );
        }
        return faults.Faults;
    }

    /// <summary>The lots that what was accepted becomes.</summary>
    /// <param name="order">The order.</param>
    /// <param name="plan">The plan that they become part of.</param>
    public IReadOnlyList<Lot> Lots(PurchaseOrder order, Plan plan)
    {
        var given = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. Lines
                .Where(l => l.Accepted > 0)
                .Select(l =>
                {
                    OrderedLine ordered = order.Lines.First(o => o.Number == l.Line);
                    string plant = l.CameAs ?? ordered.PlantId;
                    string id = Ids.From($"{plant}-{Day.ToString("uuuu-MM-dd", null)}", x => given.Contains(x) || plan.Lots.Any(l => l.Id == x));
                    given.Add(id);
                    return new Lot(
                        id,
                        plant,
                        l.Accepted,
                        InQuarantine ? LotState.Quarantine : LotState.Waiting,
                        Place,
                        Day,
                        LotCondition.Good,
                        Note: $"order {order.Number}, {order.Supplier.Name}",
                        Form: FormOf(plan.Plant(plant), ordered)
                    );
                }),
        ];
    }

    // As displays and orders of the house name the form, where the kind is sold in one of that sort.
    private static string? FormOf(Plant plant, OrderedLine line)
    {
        GoodsSort sort = GoodsForm.SortOf(plant, line.Form, line.PackSize);
        return GoodsForm.Of(plant).FirstOrDefault(f => f.Sort == sort)?.Name;
    }

    /// <summary>The credits that are to be claimed for what was refused; more than was ordered is nobody's loss.</summary>
    /// <param name="order">The order.</param>
    public IReadOnlyList<CreditClaim> Claims(PurchaseOrder order) =>
        [
            .. Lines
                .Where(l => l.Refused > 0 && l.Reason is not (null or RefusalReason.TooMany))
                .Select(l => CreditClaim.For(order, l.Line, l.Refused, l.Reason!.Value, Day)),
        ];
}

/// <summary>Money that a supplier owes for plants that were refused, or turned out wrong later.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="OrderId">The order.</param>
/// <param name="Line">The line's number.</param>
/// <param name="Plants">How many plants it is for.</param>
/// <param name="Reason">Why.</param>
/// <param name="Day">The day on which it was claimed.</param>
/// <param name="Amount">What is claimed.</param>
public sealed record CreditClaim(Guid Id, Guid OrderId, int Line, int Plants, RefusalReason Reason, LocalDate Day, decimal Amount)
{
    /// <summary>The day on which it was settled or turned down; null while it is open.</summary>
    public LocalDate? SettledOn { get; init; }

    /// <summary>What was credited in the end; 0 where it was turned down.</summary>
    public decimal Settled { get; init; }

    /// <summary>Claims what the plants cost after what was taken off the bill.</summary>
    public static CreditClaim For(PurchaseOrder order, int line, int plants, RefusalReason reason, LocalDate day) =>
        new(
            Guid.CreateVersion7(),
            order.Id,
            line,
            plants,
            reason,
            day,
            Math.Round(order.PriceOfOne(order.Lines.First(l => l.Number == line)) * plants, 2, MidpointRounding.AwayFromZero)
        );

    /// <summary>Every fault of a claim beside what was accepted and claimed of its line before.</summary>
    /// <param name="order">The account of the order.</param>
    /// <param name="claimed">Plants of the line that other claims are for.</param>
    public IReadOnlyList<Fault> Faults(OrderAccount order, int claimed)
    {
        var faults = new FaultList();
        faults.Day("day", Day);
        int most = (order.Lines.FirstOrDefault(l => l.Line.Number == Line)?.Claimable ?? 0) - claimed;
        if (Plants < 1 || Plants > most)
            faults.Add(
                "plants",
                most > 0 ? $"must be from 1 to {most}: so many came and are not claimed yet" : "nothing came of this line that is not claimed yet"
            );
        faults.Range("settled", (double)Settled, 0, (double)Amount, string.Empty);
        return faults.Faults;
    }
}
