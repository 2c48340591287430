namespace UnrulyMeadow.Core.Packing;

/// <summary>A disc that wants a place.</summary>
/// <param name="RadiusCm">Half its pitch: no other disc comes nearer than both radii together, cm.</param>
/// <param name="Room">Where its centre may lie.</param>
public sealed record LooseDisc(double RadiusCm, DiscRoom Room);

/// <summary>A disc that cannot move: a root ball, a stem.</summary>
/// <param name="At">Its centre.</param>
/// <param name="RadiusCm">Its radius, cm.</param>
public sealed record FixedDisc(PlanePoint At, double RadiusCm);

/// <summary>Pushes discs apart, from their neighbours, from what stands fast and into their rooms, until none overlaps.</summary>
public static class DiscRelaxation
{
    // Discs are pushed a hair farther apart than they need be, so that what counts as laid out truly does not overlap.
    private const double Margin = 1.0015;

    /// <summary>Moves discs from a start until none overlaps.</summary>
    /// <param name="start">Where each disc is at first.</param>
    /// <param name="discs">The discs, as many.</param>
    /// <param name="still">What cannot move.</param>
    /// <param name="mostSteps">Steps after which it gives up.</param>
    /// <returns>The places, or null when they still overlap.</returns>
    public static IReadOnlyList<PlanePoint>? Settle(
        IReadOnlyList<PlanePoint> start,
        IReadOnlyList<LooseDisc> discs,
        IReadOnlyList<FixedDisc> still,
        int mostSteps
    )
    {
        int n = start.Count;
        var x = new double[n];
        var y = new double[n];
        var r = new double[n];
        double widest = 1e-9;
        for (int i = 0; i < n; i++)
        {
            PlanePoint p = discs[i].Room.Nearest(start[i]);
            (x[i], y[i], r[i]) = (p.XCm, p.YCm, discs[i].RadiusCm);
            widest = Math.Max(widest, r[i]);
        }
        var pairs = new List<(int I, int K)>();
        for (int step = 0; step < mostSteps; step++)
        {
            if (step % 8 == 0)
                Near(x, y, widest * 2 * 1.35, pairs);
            Push(x, y, r, pairs, discs, still);
            if (!Clear(x, y, r, pairs, still))
                continue;
            IReadOnlyList<PlanePoint> places = [.. x.Select((_, i) => new PlanePoint(x[i], y[i]))];
            if (Slack(places, discs, still) >= -1e-9)
                return places;
        }
        return null;
    }

    /// <summary>The least room between any two discs and what stands fast, cm; below 0 they overlap.</summary>
    public static double Slack(IReadOnlyList<PlanePoint> places, IReadOnlyList<LooseDisc> discs, IReadOnlyList<FixedDisc> still)
    {
        double least = double.PositiveInfinity;
        for (int i = 0; i < places.Count; i++)
        {
            for (int k = i + 1; k < places.Count; k++)
                least = Math.Min(least, places[i].DistanceTo(places[k]) - discs[i].RadiusCm - discs[k].RadiusCm);
            foreach (FixedDisc f in still)
                least = Math.Min(least, places[i].DistanceTo(f.At) - discs[i].RadiusCm - f.RadiusCm);
        }
        return least;
    }

    // Pairs that could touch within the next steps, by a grid.
    private static void Near(double[] x, double[] y, double reach, List<(int I, int K)> pairs)
    {
        pairs.Clear();
        var cells = new Dictionary<(int, int), List<int>>(x.Length);
        for (int i = 0; i < x.Length; i++)
        {
            int cx = (int)Math.Floor(x[i] / reach);
            int cy = (int)Math.Floor(y[i] / reach);
            for (int dx = -1; dx <= 1; dx++)
            {
                for (int dy = -1; dy <= 1; dy++)
                {
                    if (!cells.TryGetValue((cx + dx, cy + dy), out List<int>? there))
                        continue;
                    foreach (int k in there)
                    {
                        if (((x[i] - x[k]) * (x[i] - x[k])) + ((y[i] - y[k]) * (y[i] - y[k])) < reach * reach)
                            pairs.Add((k, i));
                    }
                }
            }
            if (!cells.TryGetValue((cx, cy), out List<int>? own))
                cells[(cx, cy)] = own = [];
            own.Add(i);
        }
    }

    private static bool Clear(double[] x, double[] y, double[] r, List<(int I, int K)> pairs, IReadOnlyList<FixedDisc> still)
    {
        foreach ((int i, int k) in pairs)
        {
            double want = r[i] + r[k];
            if (((x[k] - x[i]) * (x[k] - x[i])) + ((y[k] - y[i]) * (y[k] - y[i])) < (want * want) - 1e-9)
                return false;
        }
        for (int i = 0; i < x.Length && still.Count > 0; i++)
        {
            foreach (FixedDisc f in still)
            {
                double want = r[i] + f.RadiusCm;
                if (((x[i] - f.At.XCm) * (x[i] - f.At.XCm)) + ((y[i] - f.At.YCm) * (y[i] - f.At.YCm)) < (want * want) - 1e-9)
                    return false;
            }
        }
        return true;
    }

    // One round: every pair that is too near parts by halves, then each disc leaves what stands fast and returns to its room.
    private static void Push(
        double[] x,
        double[] y,
        double[] r,
        List<(int I, int K)> pairs,
        IReadOnlyList<LooseDisc> discs,
        IReadOnlyList<FixedDisc> still
    )
    {
        foreach ((int i, int k) in pairs)
        {
            (double dx, double dy, double d) = Apart(x[k] - x[i], y[k] - y[i], i + (2.4 * k));
            double want = (r[i] + r[k]) * Margin;
            if (d >= want)
                continue;
            double push = 0.5 * (want - d) / d;
            x[i] -= dx * push;
            y[i] -= dy * push;
            x[k] += dx * push;
            y[k] += dy * push;
        }
        for (int i = 0; i < x.Length; i++)
        {
            foreach (FixedDisc f in still)
            {
                (double dx, double dy, double d) = Apart(x[i] - f.At.XCm, y[i] - f.At.YCm, 2.4 * i);
                double want = (r[i] + f.RadiusCm) * Margin;
                if (d >= want)
                    continue;
                x[i] += dx * (want - d) / d;
                y[i] += dy * (want - d) / d;
            }
            PlanePoint inside = discs[i].Room.Nearest(new PlanePoint(x[i], y[i]));
            (x[i], y[i]) = (inside.XCm, inside.YCm);
        }
    }

    // Two on one spot part along a direction of their own.
    private static (double Dx, double Dy, double D) Apart(double dx, double dy, double angle)
    {
        double d = Math.Sqrt((dx * dx) + (dy * dy));
        return d > 1e-9 ? (dx, dy, d) : (1e-6 * Math.Cos(angle), 1e-6 * Math.Sin(angle), 1e-6);
    }
}
