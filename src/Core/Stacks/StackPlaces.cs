using System.Collections.Concurrent;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Stacks;

/// <summary>The root ball of a plant that stands over bulbs.</summary>
/// <param name="At">Its middle, cm from the planter's.</param>
/// <param name="RadiusCm">Half its width, cm.</param>
/// <param name="DepthCm">How deep it reaches, cm.</param>
public sealed record RootBall(PlanePoint At, double RadiusCm, double DepthCm)
{
    /// <summary>The ball of a plant as bought: about half as wide as its tops, from 4 to 26 cm, nearly as deep as wide (common practice).</summary>
    public static RootBall Of(Plant plant, PlanePoint at)
    {
        double wide = Math.Clamp(plant.SpreadAtPurchaseCm * 0.55, 4, 26);
        return new RootBall(at, wide / 2, Math.Round(wide * 0.9, 1));
    }
}

/// <summary>Where the bulbs of one kind lie at their depth.</summary>
/// <param name="Fitting">As many as fit.</param>
/// <param name="Planned">The planned ones, spread over the layer and beside what lies above and below.</param>
internal sealed record LayerPlaces(IReadOnlyList<PlanePoint> Fitting, IReadOnlyList<PlanePoint> Planned);

/// <summary>Finds places for the bulbs of a stack, layer by layer.</summary>
internal sealed class StackPlaces(PlanterForm form, Site site, IReadOnlyList<RootBall> roots)
{
    // Bulbs of a clump lie this far apart, cm: near, but not touching (common practice).
    private const double InClumpGapCm = 0.5;

    // Layers of more bulbs than this are not turned: with so many, a way past is always near.
    private const int MostTurned = 150;

    private const int MostKept = 2_000;

    // What fits depends on nothing but the inside and the bulb, and the same few insides come again with every edit.
    private static readonly ConcurrentDictionary<
        (PlanterShape Shape, double L, double W, double Pitch, double Inset, bool Fill, BedOutline? Outline),
        IReadOnlyList<PlanePoint>
    > Kept = new();

    private readonly List<PlanePoint> _laid = [];

    /// <summary>Places for one kind that has its depth to itself.</summary>
    public LayerPlaces Alone(PlannedBulb planned, double lengthCm, double widthCm, double coverCm)
    {
        BulbFigures bulb = planned.Plant.Bulb!;
        IReadOnlyList<FixedDisc> still = Still(bulb, coverCm);
        if (planned.Clump is { } size && !form.IsBed)
            return Clumped(planned, size, lengthCm, widthCm, still);
        double pitch = form.IsBed ? bulb.SpacingCm : bulb.DiameterCm + site.BulbGapCm;
        IReadOnlyList<PlanePoint> fitting = Clear(Laid(bulb.DiameterCm, pitch, lengthCm, widthCm, true), bulb.DiameterCm, still);
        IReadOnlyList<PlanePoint> spread = SpreadOut(planned.Count, fitting, wider =>
            Clear(Laid(bulb.DiameterCm, pitch * wider, lengthCm, widthCm, false), bulb.DiameterCm, still)
        );
        return new LayerPlaces(fitting, Turned(spread, still));
    }

    /// <summary>Places for several kinds whose bulbs lie at one height in a container, or null when they cannot all be laid.</summary>
    public IReadOnlyList<LayerPlaces>? Together(IReadOnlyList<(PlannedBulb Planned, double LengthCm, double WidthCm, double CoverCm)> kinds)
    {
        int total = kinds.Sum(k => k.Planned.Count);
        if (total > 2 * DiscPacking.MostFilled)
            return null;
        var discs = new List<(int Kind, LooseDisc Disc)>();
        for (int k = 0; k < kinds.Count; k++)
        {
            BulbFigures bulb = kinds[k].Planned.Plant.Bulb!;
            if (Room(bulb.DiameterCm, kinds[k].LengthCm, kinds[k].WidthCm) is not { } room)
                return null;
            discs.AddRange(Enumerable.Repeat((k, new LooseDisc((bulb.DiameterCm + site.BulbGapCm) / 2, room)), kinds[k].Planned.Count));
        }
        // The widest first, and kinds dealt out in turn, so that they mix.
        var order = discs
            .Select((d, i) => (d.Kind, d.Disc, Turn: (double)discs.Take(i).Count(x => x.Kind == d.Kind) / kinds[d.Kind].Planned.Count))
            .OrderBy(d => d.Turn)
            .ToList();
        IReadOnlyList<FixedDisc> still = Still(kinds.MaxBy(k => k.Planned.Plant.Bulb!.DiameterCm).Planned.Plant.Bulb!, kinds.Min(k => k.CoverCm));
        if (DiscPacking.Mixed([.. order.Select(o => o.Disc)], still) is not { } places)
            return null;
        _laid.AddRange(places);
        return
        [
            .. kinds.Select(
                (_, k) =>
                {
                    IReadOnlyList<PlanePoint> own = [.. places.Where((_, i) => order[i].Kind == k)];
                    return new LayerPlaces(own, own);
                }
            ),
        ];
    }

    /// <summary>Places for all kinds of a bed, in drifts of one kind beside each other.</summary>
    public IReadOnlyList<IReadOnlyList<PlanePoint>> Drifts(IReadOnlyList<PlannedBulb> kinds, double lengthCm, double widthCm)
    {
        int total = kinds.Sum(k => k.Count);
        double pitch = kinds.Sum(k => k.Count * k.Plant.Bulb!.SpacingCm) / total;
        double diameter = kinds.Max(k => k.Plant.Bulb!.DiameterCm);
        IReadOnlyList<PlanePoint> Places(double wider) => Laid(diameter, pitch * wider, lengthCm, widthCm, false);
        double close = 1;
        while (Places(close).Count < total && close > 0.3)
            close *= 0.9;
        IReadOnlyList<PlanePoint> all = SpreadOut(total, Places(close), wider => Places(close * wider));
        PlanePoint[] line = [.. all.OrderBy(p => HilbertRank(p, Math.Max(lengthCm, widthCm)))];
        // Runs along a curve that fills the plane are compact: each kind is dealt out in drifts of a dozen.
        var drifts = kinds
            .SelectMany(
                (k, i) =>
                {
                    int n = Math.Max(1, (int)Math.Round(k.Count / 12.0));
                    return Enumerable.Range(0, n).Select(d => (Kind: i, At: (d + 0.5) / n, Size: (k.Count * (d + 1) / n) - (k.Count * d / n)));
                }
            )
            .OrderBy(d => d.At)
            .ToList();
        var own = kinds.Select(_ => new List<PlanePoint>()).ToList();
        int next = 0;
        foreach ((int kind, _, int size) in drifts)
        {
            own[kind].AddRange(line.Skip(next).Take(size));
            next += size;
        }
        return own;
    }

    private LayerPlaces Clumped(PlannedBulb planned, int size, double lengthCm, double widthCm, IReadOnlyList<FixedDisc> still)
    {
        BulbFigures bulb = planned.Plant.Bulb!;
        double pitch = bulb.DiameterCm + InClumpGapCm;
        IReadOnlyList<PlanePoint> inside = Inside(size, pitch);
        double radius = inside.Max(p => Math.Sqrt((p.XCm * p.XCm) + (p.YCm * p.YCm))) + (bulb.DiameterCm / 2);
        double apart = (2 * radius) + Math.Max(site.BulbGapCm, 2);
        IReadOnlyList<PlanePoint> fitting = Clear(Laid(2 * radius, apart, lengthCm, widthCm, true), 2 * radius, still);
        int clumps = (int)Math.Ceiling((double)planned.Count / size);
        IReadOnlyList<PlanePoint> middles = Turned(
            SpreadOut(clumps, fitting, wider => Clear(Laid(2 * radius, apart * wider, lengthCm, widthCm, false), 2 * radius, still)),
            still
        );
        IEnumerable<PlanePoint> Bulbs(IReadOnlyList<PlanePoint> at) =>
            at.SelectMany(
                (m, i) =>
                {
                    (double sin, double cos) = Math.SinCos(i * 2.399963);
                    return inside.Select(p => new PlanePoint(m.XCm + (p.XCm * cos) - (p.YCm * sin), m.YCm + (p.XCm * sin) + (p.YCm * cos)));
                }
            );
        return new LayerPlaces([.. Bulbs(fitting)], [.. Bulbs(middles).Take(planned.Count)]);
    }

    // The tightest round clump of some bulbs.
    private static IReadOnlyList<PlanePoint> Inside(int size, double pitch) =>
        [.. DiscPacking.InCircle((pitch / 2 * DiscPacking.BestKnownEnclosingRadius(size)) + 1e-6, pitch / 2).Take(size)];

    private IReadOnlyList<FixedDisc> Still(BulbFigures bulb, double coverCm) =>
        [.. roots.Where(r => r.DepthCm > coverCm - 0.5 && !form.IsBed).Select(r => new FixedDisc(r.At, r.RadiusCm + (bulb.DiameterCm / 2)))];

    private static IReadOnlyList<PlanePoint> Clear(IReadOnlyList<PlanePoint> places, double _, IReadOnlyList<FixedDisc> still) =>
        still.Count == 0 ? places : [.. places.Where(p => still.All(s => s.At.DistanceTo(p) >= s.RadiusCm))];

    private DiscRoom? Room(double diameter, double lengthCm, double widthCm)
    {
        double inset = BulbStack.SetbackOf(form, site) + (diameter / 2);
        double l = lengthCm - (2 * inset);
        double w = widthCm - (2 * inset);
        if (l < 0 || w < 0)
            return null;
        return form.IsCircular ? DiscRoom.Circle(l / 2)
            : form.IsRoundish
                ? DiscRoom.Outline(
                    new NetTopologySuite.Utilities.GeometricShapeFactory
                    {
                        Width = lengthCm,
                        Height = widthCm,
                        Centre = new(0, 0),
                        NumPoints = 96,
                    }.CreateEllipse(),
                    inset
                )
            : DiscRoom.Rectangle(l, w);
    }

    // Turns a layer about the planter's middle, or mirrors it, so that its bulbs lie beside those already laid.
    private IReadOnlyList<PlanePoint> Turned(IReadOnlyList<PlanePoint> places, IReadOnlyList<FixedDisc> still)
    {
        IReadOnlyList<PlanePoint> best = places;
        if (!form.IsBed && _laid.Count > 0 && places.Count is > 0 and <= MostTurned && _laid.Count <= 4 * MostTurned && still.Count == 0)
        {
            double most = -1;
            foreach (IReadOnlyList<PlanePoint> tried in form.IsCircular ? Rotations(places) : Mirrored(places))
            {
                double clear = 0;
                foreach (PlanePoint p in tried)
                {
                    double near = double.PositiveInfinity;
                    foreach (PlanePoint q in _laid)
                        near = Math.Min(near, p.DistanceTo(q));
                    clear += Math.Min(near, 6);
                }
                if (clear > most + 1e-9)
                    (most, best) = (clear, tried);
            }
        }
        if (!form.IsBed)
            _laid.AddRange(best);
        return best;
    }

    private static IEnumerable<IReadOnlyList<PlanePoint>> Rotations(IReadOnlyList<PlanePoint> places)
    {
        for (int i = 0; i < 24; i++)
        {
            (double sin, double cos) = Math.SinCos(i * Math.PI / 36);
            yield return [.. places.Select(p => new PlanePoint((p.XCm * cos) - (p.YCm * sin), (p.XCm * sin) + (p.YCm * cos)))];
        }
    }

    private static IEnumerable<IReadOnlyList<PlanePoint>> Mirrored(IReadOnlyList<PlanePoint> places)
    {
        yield return places;
        yield return [.. places.Select(p => new PlanePoint(-p.XCm, p.YCm))];
        yield return [.. places.Select(p => new PlanePoint(p.XCm, -p.YCm))];
        yield return [.. places.Select(p => new PlanePoint(-p.XCm, -p.YCm))];
    }

    // Widens the pitch as far as the planned count still fits; beyond some hundreds an even choice of places does as well.
    private static IReadOnlyList<PlanePoint> SpreadOut(int count, IReadOnlyList<PlanePoint> places, Func<double, IReadOnlyList<PlanePoint>> wider)
    {
        if (count >= places.Count)
            return places;
        IReadOnlyList<PlanePoint> best = places;
        if (places.Count <= 400)
        {
            double low = 1;
            double high = 2 * Math.Sqrt((double)places.Count / count);
            for (int i = 0; i < 9; i++)
            {
                double middle = (low + high) / 2;
                IReadOnlyList<PlanePoint> tried = wider(middle);
                if (tried.Count >= count)
                    (low, best) = (middle, tried);
                else
                    high = middle;
            }
        }
        return [.. Enumerable.Range(0, count).Select(i => best[(int)((i + 0.5) * best.Count / count)])];
    }

    private IReadOnlyList<PlanePoint> Laid(double diameter, double pitch, double lengthCm, double widthCm, bool fill)
    {
        double wall = BulbStack.SetbackOf(form, site);
        double gap = pitch - diameter;
        double l = lengthCm - (2 * wall) + gap;
        double w = widthCm - (2 * wall) + gap;
        if (l < pitch || w < pitch)
            return [];
        if (Kept.Count > MostKept)
            Kept.Clear();
        return Kept.GetOrAdd((form.Shape, l, w, pitch, wall + (diameter / 2), fill, form.Outline), key => form.Outline is { } outline
                ? DiscPacking.InOutline(outline.Polygon, key.Inset, pitch / 2, fill)
            : form.IsRoundish ? DiscPacking.InEllipse(l, w, pitch / 2, fill)
            : DiscPacking.InRectangle(l, w, pitch / 2, fill));
    }

    // The rank of a place along Hilbert's curve over a square that holds the planter.
    private static long HilbertRank(PlanePoint p, double sideCm)
    {
        const int Cells = 1 << 12;
        int x = (int)Math.Clamp((p.XCm / sideCm * Cells) + (Cells / 2.0), 0, Cells - 1);
        int y = (int)Math.Clamp((p.YCm / sideCm * Cells) + (Cells / 2.0), 0, Cells - 1);
        long rank = 0;
        for (int s = Cells / 2; s > 0; s /= 2)
        {
            int rx = (x & s) > 0 ? 1 : 0;
            int ry = (y & s) > 0 ? 1 : 0;
            rank += (long)s * s * ((3 * rx) ^ ry);
            if (ry == 0)
            {
                if (rx == 1)
                    (x, y) = (Cells - 1 - x, Cells - 1 - y);
                (x, y) = (y, x);
            }
        }
        return rank;
    }
}
