namespace UnrulyMeadow.Core.Palette;

/// <summary>So many packs of one kind.</summary>
public sealed record PackCount(Pack Pack, int Packs);

/// <summary>The cheapest mix of packs that covers a count.</summary>
/// <param name="Wanted">Plants to cover, spares included.</param>
/// <param name="Packs">Packs to buy, largest first.</param>
/// <param name="Bought">Plants bought.</param>
/// <param name="Cost">Their price.</param>
public sealed record PackPurchase(int Wanted, IReadOnlyList<PackCount> Packs, int Bought, decimal Cost)
{
    /// <summary>Most plants of one kind in one order.</summary>
    public const int MostPlants = 200_000;

    /// <summary>Plants to order for a count planned: n × (1 + spare), rounded up.</summary>
    public static int WithSpares(int planned, double spareShare) => (int)Math.Ceiling((planned * (1 + spareShare)) - 1e-9);

    /// <summary>
    /// Finds the cheapest mix by trying every total in turn; of equal prices the one with the fewest plants over.
    /// </summary>
    /// <exception cref="InvalidInputException">No pack is offered, or the count is out of range.</exception>
    public static PackPurchase Cheapest(int wanted, IReadOnlyList<Pack> offered)
    {
        if (offered.Count == 0)
            throw new InvalidInputException("packs", "must hold at least one pack");
        if (wanted is < 0 or > MostPlants)
            throw new InvalidInputException("count", $"must be from 0 to {MostPlants:#,0}");
        int most = wanted + offered.Max(p => p.Size);
        var cost = new decimal[most + 1];
        var last = new int[most + 1];
        Array.Fill(cost, decimal.MaxValue);
        Array.Fill(last, -1);
        cost[0] = 0;
        for (int n = 1; n <= most; n++)
        {
            for (int k = 0; k < offered.Count; k++)
            {
                int before = n - offered[k].Size;
                if (before >= 0 && cost[before] != decimal.MaxValue && cost[before] + offered[k].Price < cost[n])
                {
                    cost[n] = cost[before] + offered[k].Price;
                    last[n] = k;
                }
            }
        }
        int best = wanted;
        for (int n = wanted; n <= most; n++)
        {
            if (cost[n] < cost[best])
                best = n;
        }
        var counts = new int[offered.Count];
        for (int n = best; n > 0; n -= offered[last[n]].Size)
            counts[last[n]]++;
        var packs = offered.Select((pack, i) => new PackCount(pack, counts[i])).Where(p => p.Packs > 0).OrderByDescending(p => p.Pack.Size).ToList();
        return new PackPurchase(wanted, packs, best, cost[best]);
    }
}
