using System.Numerics;
using System.Runtime.InteropServices;

namespace UnrulyMeadow.Core.Season;

/// <summary>
/// Arithmetic on rows of days, several days at once. Rows are as long as a whole number of <see cref="Lanes"/>; what
/// rounds a row up holds 0.
/// </summary>
internal static class DayMath
{
    /// <summary>Days handled at once.</summary>
    public static int Lanes => Vector<float>.Count;

    /// <summary>Length of a row that holds a year from any day on, without a check of its end.</summary>
    public static int RowOfYear => ((366 + Lanes - 1) / Lanes * Lanes) + Lanes;

    /// <summary>row = factor × share, for as many days as there are shares.</summary>
    public static void Take(ReadOnlySpan<double> share, float factor, Span<float> row)
    {
        ref double h = ref MemoryMarshal.GetReference(share);
        ref float r = ref MemoryMarshal.GetReference(row);
        var f = new Vector<float>(factor);
        int half = Vector<double>.Count;
        int i = 0;
        for (; i + Lanes <= share.Length; i += Lanes)
            (f * Vector.Narrow(Vector.LoadUnsafe(ref h, (nuint)i), Vector.LoadUnsafe(ref h, (nuint)(i + half)))).StoreUnsafe(ref r, (nuint)i);
        for (; i < share.Length; i++)
            row[i] = factor * (float)share[i];
    }

    /// <summary>best = max(best, row); most += weight × row.</summary>
    public static void Gather(ReadOnlySpan<float> row, float weight, Span<float> best, Span<float> most)
    {
        ref float r = ref MemoryMarshal.GetReference(row);
        ref float b = ref MemoryMarshal.GetReference(best);
        ref float m = ref MemoryMarshal.GetReference(most);
        var w = new Vector<float>(weight);
        for (int i = 0; i < row.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            Vector<float> v = Vector.LoadUnsafe(ref r, n);
            Vector.Max(Vector.LoadUnsafe(ref b, n), v).StoreUnsafe(ref b, n);
            (Vector.LoadUnsafe(ref m, n) + (v * w)).StoreUnsafe(ref m, n);
        }
    }

    /// <summary>area = π/4 × (width / (1 + ratio × min(1, left × scale)))²: a plant that grows, seen from above.</summary>
    public static void Grow(ReadOnlySpan<double> left, double scale, double width, double ratio, Span<float> area)
    {
        ref double l = ref MemoryMarshal.GetReference(left);
        ref float a = ref MemoryMarshal.GetReference(area);
        int half = Vector<double>.Count;
        var grown = new Vector<double>(width);
        var by = new Vector<double>(ratio);
        var at = new Vector<double>(scale);
        var quarter = new Vector<double>(Math.PI / 4);
        Vector<double> Of(Vector<double> some)
        {
            Vector<double> across = grown / (Vector<double>.One + (by * Vector.Min(Vector<double>.One, some * at)));
            return quarter * across * across;
        }
        int i = 0;
        for (; i + Lanes <= area.Length; i += Lanes)
            Vector.Narrow(Of(Vector.LoadUnsafe(ref l, (nuint)i)), Of(Vector.LoadUnsafe(ref l, (nuint)(i + half)))).StoreUnsafe(ref a, (nuint)i);
        for (; i < area.Length; i++)
            area[i] = (float)Of(new Vector<double>(left[i]))[0];
    }

    /// <summary>canopy = min(1, area × perPlant); sum += canopy.</summary>
    public static void Canopy(ReadOnlySpan<float> area, float perPlant, Span<float> canopy, Span<float> sum)
    {
        ref float a = ref MemoryMarshal.GetReference(area);
        ref float c = ref MemoryMarshal.GetReference(canopy);
        ref float s = ref MemoryMarshal.GetReference(sum);
        var k = new Vector<float>(perPlant);
        for (int i = 0; i < area.Length; i += Lanes)
        {
            Vector<float> v = Vector.Min(Vector<float>.One, Vector.LoadUnsafe(ref a, (nuint)i) * k);
            v.StoreUnsafe(ref c, (nuint)i);
            (Vector.LoadUnsafe(ref s, (nuint)i) + v).StoreUnsafe(ref s, (nuint)i);
        }
    }

    /// <summary>cover = canopy × crowd × factor × share; mean += cover; colour += cover × weight; other += cover × sign.</summary>
    public static void Show(
        ReadOnlySpan<float> share,
        ReadOnlySpan<float> canopy,
        ReadOnlySpan<float> crowd,
        float factor,
        float weight,
        float sign,
        Span<float> mean,
        Span<float> colour,
        Span<float> other
    )
    {
        ref float h = ref MemoryMarshal.GetReference(share);
        ref float c = ref MemoryMarshal.GetReference(canopy);
        ref float w = ref MemoryMarshal.GetReference(crowd);
        ref float m = ref MemoryMarshal.GetReference(mean);
        ref float l = ref MemoryMarshal.GetReference(colour);
        ref float o = ref MemoryMarshal.GetReference(other);
        var f = new Vector<float>(factor);
        var g = new Vector<float>(weight);
        var t = new Vector<float>(sign);
        for (int i = 0; i < share.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            Vector<float> v = Vector.LoadUnsafe(ref c, n) * Vector.LoadUnsafe(ref w, n) * f * Vector.LoadUnsafe(ref h, n);
            (Vector.LoadUnsafe(ref m, n) + v).StoreUnsafe(ref m, n);
            (Vector.LoadUnsafe(ref l, n) + (v * g)).StoreUnsafe(ref l, n);
            (Vector.LoadUnsafe(ref o, n) + (v * t)).StoreUnsafe(ref o, n);
        }
    }

    /// <summary>sum += canopy × crowd × fraction.</summary>
    public static void AddProduct(ReadOnlySpan<float> canopy, ReadOnlySpan<float> crowd, ReadOnlySpan<float> fraction, Span<float> sum)
    {
        ref float c = ref MemoryMarshal.GetReference(canopy);
        ref float w = ref MemoryMarshal.GetReference(crowd);
        ref float f = ref MemoryMarshal.GetReference(fraction);
        ref float s = ref MemoryMarshal.GetReference(sum);
        for (int i = 0; i < canopy.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            (Vector.LoadUnsafe(ref s, n) + (Vector.LoadUnsafe(ref c, n) * Vector.LoadUnsafe(ref w, n) * Vector.LoadUnsafe(ref f, n))).StoreUnsafe(
                ref s,
                n
            );
        }
    }

    /// <summary>crowd = min(1, 1/total): the share that each keeps where all together would be more than the surface.</summary>
    public static void Crowd(ReadOnlySpan<float> total, Span<float> crowd)
    {
        ref float t = ref MemoryMarshal.GetReference(total);
        ref float c = ref MemoryMarshal.GetReference(crowd);
        for (int i = 0; i < total.Length; i += Lanes)
            (Vector<float>.One / Vector.Max(Vector<float>.One, Vector.LoadUnsafe(ref t, (nuint)i))).StoreUnsafe(ref c, (nuint)i);
    }

    /// <summary>crowd × (1 − min(1, hidden)): what is left under flowers on stems.</summary>
    public static void Under(Span<float> crowd, ReadOnlySpan<float> hidden)
    {
        ref float c = ref MemoryMarshal.GetReference(crowd);
        ref float h = ref MemoryMarshal.GetReference(hidden);
        for (int i = 0; i < crowd.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            (Vector.LoadUnsafe(ref c, n) * (Vector<float>.One - Vector.Min(Vector<float>.One, Vector.LoadUnsafe(ref h, n)))).StoreUnsafe(ref c, n);
        }
    }

    /// <summary>green = max(0, green); sum += green; weighted = colour + min(most, weight × green).</summary>
    public static void Weigh(Span<float> green, ReadOnlySpan<float> colour, float weight, float most, Span<float> sum, Span<float> weighted)
    {
        ref float g = ref MemoryMarshal.GetReference(green);
        ref float c = ref MemoryMarshal.GetReference(colour);
        ref float s = ref MemoryMarshal.GetReference(sum);
        ref float o = ref MemoryMarshal.GetReference(weighted);
        var k = new Vector<float>(weight);
        var m = new Vector<float>(most);
        for (int i = 0; i < green.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            Vector<float> v = Vector.Max(Vector<float>.Zero, Vector.LoadUnsafe(ref g, n));
            (Vector.LoadUnsafe(ref s, n) + v).StoreUnsafe(ref s, n);
            (Vector.LoadUnsafe(ref c, n) + Vector.Min(m, v * k)).StoreUnsafe(ref o, n);
        }
    }

    /// <summary>
    /// Sorts every day over the years, lowest first: row y then holds each day's value of rank y. Knuth's merge exchange
    /// (Algorithm 5.2.2M; Batcher's network), a whole row of days at each comparison.
    /// </summary>
    /// <param name="rows">Years, one after the other.</param>
    /// <param name="years">How many.</param>
    /// <param name="stride">Days of a row, a whole number of lanes.</param>
    public static void SortOverYears(Span<float> rows, int years, int stride)
    {
        int top = 1;
        while (top < years)
            top *= 2;
        for (int p = top / 2; p > 0; p /= 2)
        {
            int q = top / 2;
            int r = 0;
            int d = p;
            while (true)
            {
                for (int i = 0; i < years - d; i++)
                {
                    if ((i & p) == r)
                        Exchange(rows.Slice(i * stride, stride), rows.Slice((i + d) * stride, stride));
                }
                if (q == p)
                    break;
                d = q - p;
                q /= 2;
                r = p;
            }
        }
    }

    /// <summary>The value at a share of the ranks of sorted rows, by day, linear between ranks.</summary>
    public static void Rank(ReadOnlySpan<float> sorted, int years, int stride, double share, Span<float> result)
    {
        double at = share * (years - 1);
        int low = (int)at;
        int high = Math.Min(years - 1, low + 1);
        float part = (float)(at - low);
        ReadOnlySpan<float> a = sorted.Slice(low * stride, stride);
        ReadOnlySpan<float> b = sorted.Slice(high * stride, stride);
        for (int d = 0; d < result.Length; d++)
            result[d] = a[d] + ((b[d] - a[d]) * part);
    }

    private static void Exchange(Span<float> low, Span<float> high)
    {
        ref float l = ref MemoryMarshal.GetReference(low);
        ref float h = ref MemoryMarshal.GetReference(high);
        for (int i = 0; i < low.Length; i += Lanes)
        {
            nuint n = (nuint)i;
            Vector<float> a = Vector.LoadUnsafe(ref l, n);
            Vector<float> b = Vector.LoadUnsafe(ref h, n);
            Vector.Min(a, b).StoreUnsafe(ref l, n);
            Vector.Max(a, b).StoreUnsafe(ref h, n);
        }
    }
}
