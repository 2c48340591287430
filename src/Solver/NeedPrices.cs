using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Solver;

/// <summary>
/// What so many plants of one need cost at each supplier, in cents before anything is taken off their bill: by dynamic programming over the
/// packs of their offers.
/// </summary>
internal sealed class NeedPrices
{
    private const long Never = long.MaxValue / 4;

    // By supplier: the least price of at least so many plants, and the packs of the last offer that it is reached with.
    private readonly Dictionary<string, (Offer[] Offers, long[][] Price, int[][] Packs)> _bySupplier = new(StringComparer.Ordinal);
    private readonly int _count;

    /// <summary>Works them out.</summary>
    /// <param name="need">The need.</param>
    /// <param name="offers">Offers that serve it.</param>
    /// <param name="most">Plants that may be bought at most.</param>
    public NeedPrices(BasketNeed need, IEnumerable<Offer> offers, int most)
    {
        _count = need.Count;
        foreach (IGrouping<string, Offer> supplier in offers.GroupBy(o => o.SupplierId, StringComparer.Ordinal))
        {
            Offer[] own = [.. supplier];
            var price = new long[own.Length + 1][];
            var packs = new int[own.Length + 1][];
            price[0] = new long[_count + 1];
            Array.Fill(price[0], Never, 1, _count);
            packs[0] = new int[_count + 1];
            for (int o = 0; o < own.Length; o++)
            {
                (price[o + 1], packs[o + 1]) = ([.. price[o]], new int[_count + 1]);
                int mostPacks = Math.Min(own[o].MostPacks ?? int.MaxValue, most / own[o].PackSize);
                for (int k = 1; k <= mostPacks; k++)
                {
                    long here = (long)Math.Round(own[o].PriceOf(k) * 100, MidpointRounding.AwayFromZero);
                    int plants = k * own[o].PackSize;
                    for (int q = 1; q <= _count; q++)
                    {
                        long with = here + price[o][Math.Max(0, q - plants)];
                        if (with < price[o + 1][q])
                            (price[o + 1][q], packs[o + 1][q]) = (with, k);
                    }
                    if (plants >= _count && own[o].Steps[^1].FromPacks <= k)
                        break;
                }
            }
            _bySupplier[supplier.Key] = (own, price, packs);
        }
    }

    /// <summary>Suppliers who offer it.</summary>
    public IEnumerable<string> Suppliers => _bySupplier.Keys;

    /// <summary>The price of the whole need at one supplier; null where they have not so much.</summary>
    public long? Whole(string supplier) =>
        _bySupplier.TryGetValue(supplier, out var at) && at.Price[^1][_count] < Never ? at.Price[^1][_count] : null;

    /// <summary>The packs that make up the whole need at one supplier.</summary>
    public IEnumerable<(Offer Offer, int Packs)> Packs(string supplier)
    {
        (Offer[] offers, _, int[][] packs) = _bySupplier[supplier];
        int left = _count;
        for (int o = offers.Length; o > 0; o--)
        {
            int k = packs[o][left];
            if (k == 0)
                continue;
            yield return (offers[o - 1], k);
            left = Math.Max(0, left - (k * offers[o - 1].PackSize));
        }
    }

    /// <summary>
    /// However a need is shared out among suppliers, the sum of what each is paid over what the whole would cost there is at least this: 1
    /// where it is bought at one place, hardly less where it is split.
    /// </summary>
    /// <returns>The least sum, and the price by which each supplier's is divided.</returns>
    public (double Least, IReadOnlyDictionary<string, double> Whole) Split()
    {
        var whole = new Dictionary<string, double>(StringComparer.Ordinal);
        double[] least = [0, .. Enumerable.Repeat(double.PositiveInfinity, _count)];
        foreach ((string supplier, (_, long[][] price, _)) in _bySupplier)
        {
            long[] own = price[^1];
            int reach = _count;
            while (reach > 0 && own[reach] >= Never)
                reach--;
            if (reach == 0)
                continue;
            // Who has not so much is measured by what they have.
            double unit = Math.Max(1, own[reach]) * ((double)_count / reach);
            whole[supplier] = unit;
            double[] before = [.. least];
            for (int q = 1; q <= _count; q++)
            {
                for (int here = 1; here <= Math.Min(q, reach); here++)
                    least[q] = Math.Min(least[q], before[q - here] + (own[here] / unit));
            }
        }
        return (least[_count], whole);
    }
}
