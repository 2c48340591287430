using NodaTime;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Supply;

/// <summary>A price from a number of packs on; it counts for all of them.</summary>
/// <param name="FromPacks">Packs, 1 or more.</param>
/// <param name="Price">Price of one pack.</param>
public sealed record PriceStep(int FromPacks, decimal Price);

/// <summary>One kind in one pack, as a supplier offers it.</summary>
/// <param name="SupplierId">The supplier.</param>
/// <param name="PlantId">The kind.</param>
/// <param name="Form">What one pack is, as displays and orders name it.</param>
/// <param name="PackSize">Plants or bulbs in a pack, 1 to 1,000.</param>
/// <param name="Steps">Prices, the first from one pack on, in rising order of packs.</param>
public sealed record Offer(string SupplierId, string PlantId, string Form, int PackSize, IReadOnlyList<PriceStep> Steps)
{
    /// <summary>Days from the order to the delivery.</summary>
    public int LeadDays { get; init; }

    /// <summary>The last day on which it can be ordered, whatever the lead time; null for any.</summary>
    public LocalDate? OrderUntil { get; init; }

    /// <summary>Months in which it is delivered, 1 to 12; empty for all year.</summary>
    public IReadOnlyList<int> Months { get; init; } = [];

    /// <summary>Packs to be had; null for any number.</summary>
    public int? MostPacks { get; init; }

    /// <summary>True where it is grown to order, and must be taken once ordered.</summary>
    public bool IsContract { get; init; }

    /// <summary>The offer with its supplier's lead time and months where it has none of its own.</summary>
    public Offer OnTermsOf(Supplier supplier) =>
        this with
        {
            LeadDays = LeadDays > 0 ? LeadDays : supplier.LeadDays,
            Months = Months.Count > 0 ? Months : supplier.Months,
        };

    /// <summary>Weeks that it is grown on here before it can be planted: plugs.</summary>
    public int GrowOnWeeks => GoodsForm.IsPlugs(Form) ? GoodsForm.PlugGrowOnWeeks : 0;

    /// <summary>The price of so many packs.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Fewer than none.</exception>
    public decimal PriceOf(int packs)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(packs);
        return packs == 0 ? 0 : packs * Steps.Last(s => s.FromPacks <= packs).Price;
    }

    /// <summary>The last day on which it can be ordered so that it can be planted from a day on.</summary>
    public LocalDate LastOrderDay(LocalDate by)
    {
        LocalDate latest = DeliveredBy(by).PlusDays(-LeadDays);
        return OrderUntil is { } until && until < latest ? until : latest;
    }

    /// <summary>The day by which it must be delivered so that it can be planted from a day on.</summary>
    public LocalDate DeliveredBy(LocalDate by) => by.PlusWeeks(-GrowOnWeeks);

    /// <summary>Days after a day on which it can be planted when it is ordered today; 0 where that is in time.</summary>
    public int DaysLate(LocalDate today, LocalDate by) => Math.Max(0, Period.DaysBetween(by, today.PlusDays(LeadDays).PlusWeeks(GrowOnWeeks)));

    /// <summary>True when it can still be ordered and is delivered in time.</summary>
    /// <param name="today">The day of the order.</param>
    /// <param name="by">The day on which it is wanted.</param>
    public bool IsToBeHad(LocalDate today, LocalDate by) =>
        today <= LastOrderDay(by) && (Months.Count == 0 || Months.Contains(DeliveredBy(by).Month));

    /// <summary>Every fault of the offer's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("form", Form, 40);
        faults.Range("packSize", PackSize, 1, 1000, "plants");
        faults.Range("leadDays", LeadDays, 0, 730, "days");
        if (MostPacks is { } most)
            faults.Range("mostPacks", most, 0, 1_000_000, "packs");
        if (Months.Any(m => m is < 1 or > 12))
            faults.Add("months", "must be from 1 to 12");
        if (Steps.Count == 0 || Steps[0].FromPacks != 1)
            faults.Add("steps", "must begin with the price from one pack on");
        for (int i = 0; i < Steps.Count; i++)
        {
            faults.Range($"steps[{i}].price", (double)Steps[i].Price, 0, 100_000, string.Empty);
            if (decimal.Round(Steps[i].Price, 2) != Steps[i].Price)
                faults.Add($"steps[{i}].price", "must have two decimals at most");
            if (i > 0 && Steps[i].FromPacks <= Steps[i - 1].FromPacks)
                faults.Add($"steps[{i}].fromPacks", "must be more than in the step before");
        }
        return faults.Faults;
    }
}
