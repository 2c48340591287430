using System.Collections.Concurrent;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>
/// Lays plants out: the tallest in the centre or at the back, then stepping down to the rim. Each tier takes a band of
/// the surface in proportion to the ground that its plants will fill, and its plants spread evenly over the band.
/// </summary>
public static class Layout
{
    // Heights within this share of a tier's tallest stand in one tier, mixed (common practice).
    private const double OneTier = 0.82;

    private const int Rounds = 6;

    // Cells looked at for each plant while they are spread.
    private const int CellsEach = 30;

    private const int SettleRounds = 8;

    // Larger plantings are even enough as they are.
    private const int MostSettled = 220;

    // Beyond this many plants of a tier they stand in staggered rows, as a crew would set them.
    private const int MostSpread = 160;

    // Places kept at most, some 10 MB.
    private const int MostKept = 400_000;

    private static readonly ConcurrentDictionary<(PlanterForm, ViewedFrom, string), IReadOnlyList<IReadOnlyList<PlanePoint>>> Kept = new();

    private static int _placesKept;

    /// <summary>
    /// Places for each kind, cm from the planter's middle, in the order of the kinds. Kept, for the same plantings are asked for by the
    /// page, its checks and the question of fullness.
    /// </summary>
    /// <param name="planter">The planter.</param>
    /// <param name="kinds">Kinds with their counts.</param>
    public static IReadOnlyList<IReadOnlyList<PlanePoint>> LayOut(Planter planter, IReadOnlyList<(Plant Plant, int Count)> kinds)
    {
        string mix = string.Join(
            '\n',
            kinds.Select(k =>
                FormattableString.Invariant(
                    $"{k.Count} {k.Plant.Habit} {k.Plant.HeightCm} {k.Plant.SpreadAtPurchaseCm} {k.Plant.MatureSpreadCm} {k.Plant.CommonName}"
                )
            )
        );
        var key = (planter.Form, planter.ViewedFrom, mix);
        if (Kept.TryGetValue(key, out IReadOnlyList<IReadOnlyList<PlanePoint>>? known))
            return known;
        IReadOnlyList<IReadOnlyList<PlanePoint>> places = Compute(planter, kinds);
        if (Interlocked.Add(ref _placesKept, kinds.Sum(k => k.Count) + 10) > MostKept)
        {
            Kept.Clear();
            Interlocked.Exchange(ref _placesKept, 0);
        }
        Kept[key] = places;
        return places;
    }

    private static IReadOnlyList<IReadOnlyList<PlanePoint>> Compute(Planter planter, IReadOnlyList<(Plant Plant, int Count)> kinds)
    {
        SurfaceRaster surface = SurfaceRaster.Of(planter.Form);
        int[] order = Ordered(surface, planter.ViewedFrom);
        var places = kinds.Select(k => new List<PlanePoint>(k.Count)).ToList();
        IReadOnlyList<IReadOnlyList<int>> tiers = Tiers([.. kinds.Select((k, i) => (k.Plant, Index: i)).Where(k => kinds[k.Index].Count > 0)]);
        double all = kinds.Sum(k => Ground(k.Plant) * k.Count);
        double taken = 0;
        foreach (IReadOnlyList<int> tier in tiers)
        {
            double want = tier.Sum(k => Ground(kinds[k].Plant) * kinds[k].Count);
            int from = (int)Math.Floor(taken / all * order.Length);
            taken += want;
            int to = Math.Max(from + 1, (int)Math.Floor(taken / all * order.Length));
            int count = tier.Sum(k => kinds[k].Count);
            int[] band = order[Math.Min(from, order.Length - 1)..Math.Min(to, order.Length)];
            bool rim = tier.All(k => kinds[k].Plant.Habit == Habit.Trailing);
            PlanePoint[] sites =
                rim ? OnTheRim(surface, planter.ViewedFrom, count, tier.Max(k => kinds[k].Plant.SpreadAtPurchaseCm))
                : count > MostSpread ? InRows(surface, band, count)
                : [.. Spread([.. band.Select(surface.At)], count).Select(surface.Nearest)];
            Deal(sites, tier, kinds, planter.ViewedFrom, places);
        }
        Settle(surface, kinds, places);
        return [.. places];
    }

    // Plants of unlike tiers that came to stand on each other are pushed apart; what trails stays at the rim.
    private static void Settle(SurfaceRaster surface, IReadOnlyList<(Plant Plant, int Count)> kinds, List<List<PlanePoint>> places)
    {
        (int Kind, int Index)[] all = [.. places.SelectMany((p, k) => p.Select((_, i) => (k, i)))];
        if (all.Length is < 2 or > MostSettled)
            return;
        // Each is given its share of the surface as a disc.
        double ground = kinds.Sum(k => Ground(k.Plant) * k.Count);
        double scale = Math.Sqrt(surface.Cells * surface.CellCm * surface.CellCm / (Math.PI / 4 * ground));
        double[] radius = [.. kinds.Select(k => scale * Math.Sqrt(Ground(k.Plant)) / 2)];
        for (int round = 0; round < SettleRounds; round++)
        {
            for (int a = 0; a < all.Length; a++)
            {
                for (int b = a + 1; b < all.Length; b++)
                {
                    PlanePoint p = places[all[a].Kind][all[a].Index];
                    PlanePoint q = places[all[b].Kind][all[b].Index];
                    double want = 0.88 * (radius[all[a].Kind] + radius[all[b].Kind]);
                    double apart = p.DistanceTo(q);
                    if (apart >= want)
                        continue;
                    bool holdsA = kinds[all[a].Kind].Plant.Habit == Habit.Trailing;
                    bool holdsB = kinds[all[b].Kind].Plant.Habit == Habit.Trailing;
                    if (holdsA && holdsB)
                        continue;
                    double push = (want - apart) / 2.2;
                    // The larger gives way less, so that a centrepiece stays where it is.
                    double yieldA =
                        holdsB ? 1
                        : holdsA ? 0
                        : Ground(kinds[all[b].Kind].Plant) / (Ground(kinds[all[a].Kind].Plant) + Ground(kinds[all[b].Kind].Plant));
                    (double x, double y) = apart > 1e-6 ? ((q.XCm - p.XCm) / apart, (q.YCm - p.YCm) / apart) : (Math.Cos(a + b), Math.Sin(a + b));
                    Move(surface, places[all[a].Kind], all[a].Index, -push * yieldA, x, y);
                    Move(surface, places[all[b].Kind], all[b].Index, push * (1 - yieldA), x, y);
                }
            }
        }
    }

    private static void Move(SurfaceRaster surface, List<PlanePoint> places, int index, double by, double x, double y)
    {
        var moved = new PlanePoint(places[index].XCm + (by * x), places[index].YCm + (by * y));
        if (by != 0 && surface.CellOf(moved) >= 0)
            places[index] = moved;
    }

    // The ground that a plant is to fill, relative to the others'.
    private static double Ground(Plant plant)
    {
        double wide = (plant.SpreadAtPurchaseCm + plant.MatureSpreadCm) / 2;
        return wide * wide;
    }

    // Kinds in tiers from the tallest down; what trails comes last.
    private static IReadOnlyList<IReadOnlyList<int>> Tiers(IReadOnlyList<(Plant Plant, int Index)> kinds)
    {
        var tiers = new List<List<int>>();
        Plant? first = null;
        foreach (
            (Plant plant, int index) in kinds
                .OrderBy(k => k.Plant.Habit == Habit.Trailing)
                .ThenByDescending(k => k.Plant.HeightCm)
                .ThenBy(k => k.Plant.CommonName, StringComparer.Ordinal)
        )
        {
            bool trails = plant.Habit == Habit.Trailing;
            if (first is not null && (first.Habit == Habit.Trailing) == trails && (trails || plant.HeightCm >= OneTier * first.HeightCm))
            {
                tiers[^1].Add(index);
            }
            else
            {
                tiers.Add([index]);
                first = plant;
            }
        }
        return tiers;
    }

    // Cells from where the tallest stand to where the lowest do.
    private static int[] Ordered(SurfaceRaster surface, ViewedFrom viewed)
    {
        int[] cells = [.. Enumerable.Range(0, surface.Inside.Length).Where(i => surface.Inside[i])];
        double[] key = [.. cells.Select(c => viewed == ViewedFrom.AllRound ? -surface.EdgeCm[c] : -surface.At(c).YCm)];
        Array.Sort(key, cells);
        return cells;
    }

    // Even places in a band: farthest points first, then each moved to the middle of the ground nearest to it.
    private static PlanePoint[] Spread(PlanePoint[] band, int count)
    {
        if (count >= band.Length)
            return [.. Enumerable.Range(0, count).Select(i => band[(int)((i + 0.5) * band.Length / count)])];
        int step = Math.Max(1, band.Length / (CellsEach * count));
        if (step > 1)
            band = [.. band.Where((_, i) => i % step == 0)];
        var middle = new PlanePoint(band.Average(p => p.XCm), band.Average(p => p.YCm));
        var sites = new PlanePoint[count];
        if (count == 1)
            return [band.MinBy(p => p.DistanceTo(middle))];
        var near = new double[band.Length];
        Array.Fill(near, double.PositiveInfinity);
        int next = Array.IndexOf(band, band.MaxBy(p => p.DistanceTo(middle)));
        for (int s = 0; s < count; s++)
        {
            sites[s] = band[next];
            for (int i = 0; i < band.Length; i++)
            {
                near[i] = Math.Min(near[i], Squared(band[i], sites[s]));
                if (i == 0 || near[i] > near[next])
                    next = i;
            }
        }
        var x = new double[count];
        var y = new double[count];
        var n = new int[count];
        for (int round = 0; round < Rounds; round++)
        {
            Array.Clear(x);
            Array.Clear(y);
            Array.Clear(n);
            // Sites from left to right: the nearest is found outward from a place, and no further than it can lie.
            int[] byX = [.. Enumerable.Range(0, count).OrderBy(s => sites[s].XCm)];
            double[] sorted = [.. byX.Select(s => sites[s].XCm)];
            for (int i = 0; i < band.Length; i++)
            {
                int best = NearestSite(band[i], sites, byX, sorted);
                x[best] += band[i].XCm;
                y[best] += band[i].YCm;
                n[best]++;
            }
            for (int s = 0; s < count; s++)
            {
                if (n[s] > 0)
                    sites[s] = new PlanePoint(x[s] / n[s], y[s] / n[s]);
            }
        }
        return sites;
    }

    private static int NearestSite(PlanePoint place, PlanePoint[] sites, int[] byX, double[] sorted)
    {
        int found = Array.BinarySearch(sorted, place.XCm);
        int right = found < 0 ? ~found : found;
        int left = right - 1;
        int best = -1;
        double least = double.PositiveInfinity;
        while (true)
        {
            double toLeft = left < 0 ? double.PositiveInfinity : place.XCm - sorted[left];
            double toRight = right >= sorted.Length ? double.PositiveInfinity : sorted[right] - place.XCm;
            double aside = Math.Min(toLeft, toRight);
            if (double.IsInfinity(aside) || aside * aside > least)
                return best;
            int s = byX[toLeft < toRight ? left-- : right++];
            double d = Squared(place, sites[s]);
            // Of sites equally near the first counts.
            if (d < least || (d == least && s < best))
                (least, best) = (d, s);
        }
    }

    // Staggered rows over a band, closed up until enough places lie in it.
    private static PlanePoint[] InRows(SurfaceRaster surface, int[] band, int count)
    {
        var holds = new bool[surface.Inside.Length];
        foreach (int cell in band)
            holds[cell] = true;
        (double halfX, double halfY) = (surface.Columns * surface.CellCm / 2, surface.Rows * surface.CellCm / 2);
        var places = new List<PlanePoint>();
        for (double pitch = Math.Sqrt(band.Length * surface.CellCm * surface.CellCm / (0.866 * count)); places.Count < count; pitch *= 0.98)
        {
            places.Clear();
            // Rows begin half a pitch from the edge on both sides.
            int rows = Math.Max(1, (int)Math.Round(2 * halfY / (0.866 * pitch)));
            for (int r = 0; r < rows; r++)
            {
                double y = -halfY + ((r + 0.5) * 2 * halfY / rows);
                for (double x = -halfX + (pitch * (r % 2 == 0 ? 0.25 : 0.75)); x < halfX; x += pitch)
                {
                    int cell = surface.CellOf(new PlanePoint(x, y));
                    if (cell >= 0 && holds[cell])
                        places.Add(new PlanePoint(x, y));
                }
            }
            if (pitch < surface.CellCm / 4)
                return [.. Enumerable.Range(0, count).Select(i => surface.At(band[(int)((long)i * band.Length / count)]))];
        }
        return [.. Enumerable.Range(0, count).Select(i => places[(int)((long)i * places.Count / count)])];
    }

    // Trailing plants sit just inside the rim, evenly along it: all round, or along the front.
    private static PlanePoint[] OnTheRim(SurfaceRaster surface, ViewedFrom viewed, int count, double spreadCm)
    {
        double inset = Math.Max(surface.CellCm, spreadCm * 0.2);
        float deepest = surface.EdgeCm.Max();
        inset = Math.Min(inset, deepest * 0.6);
        PlanePoint[] ring =
        [
            .. Enumerable
                .Range(0, surface.Inside.Length)
                .Where(i => surface.Inside[i] && Math.Abs(surface.EdgeCm[i] - inset) <= surface.CellCm)
                .Select(surface.At),
        ];
        if (viewed == ViewedFrom.OneSide)
        {
            // Along the front: for each column the cell nearest to it.
            ring = [.. ring.GroupBy(p => Math.Round(p.XCm, 3)).Select(g => g.MinBy(p => p.YCm)).OrderBy(p => p.XCm)];
            return [.. Enumerable.Range(0, count).Select(i => ring[(int)((i + 0.5) * ring.Length / count)])];
        }
        // From the middle of the front round: a single one hangs where people stand.
        PlanePoint[] along = [.. ring.OrderBy(p => Math.Atan2(p.XCm, -p.YCm))];
        return [.. Enumerable.Range(0, count).Select(i => along[(int)((0.5 + ((double)i / count)) * along.Length) % along.Length])];
    }

    // Kinds of one tier are dealt out in turn along the band, each in proportion to its count, so that they repeat.
    private static void Deal(
        PlanePoint[] sites,
        IReadOnlyList<int> tier,
        IReadOnlyList<(Plant Plant, int Count)> kinds,
        ViewedFrom viewed,
        List<List<PlanePoint>> places
    )
    {
        PlanePoint[] line =
            sites.Length > MostSpread ? sites
            : viewed == ViewedFrom.AllRound ? [.. sites.OrderBy(p => Math.Atan2(p.YCm, p.XCm)).ThenBy(p => p.XCm)]
            : [.. sites.OrderBy(p => p.XCm).ThenByDescending(p => p.YCm)];
        var left = tier.ToDictionary(k => k, k => kinds[k].Count);
        var owed = tier.ToDictionary(k => k, _ => 0.0);
        int total = line.Length;
        foreach (PlanePoint site in line)
        {
            foreach (int k in tier)
                owed[k] += (double)kinds[k].Count / total;
            int next = tier.Where(k => left[k] > 0).MaxBy(k => owed[k]);
            owed[next]--;
            left[next]--;
            places[next].Add(site);
        }
    }

    private static double Squared(PlanePoint a, PlanePoint b)
    {
        double x = a.XCm - b.XCm;
        double y = a.YCm - b.YCm;
        return (x * x) + (y * y);
    }
}
