using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>One kind that another overgrows.</summary>
/// <param name="Loser">The kind that is overgrown, as an index of the display.</param>
/// <param name="LoserPlant">Its plant.</param>
/// <param name="Winner">The kind that takes most of its light.</param>
/// <param name="WinnerPlant">Its plant.</param>
/// <param name="When">The first day on which less than half its leaves stand in the light.</param>
/// <param name="LightLeft">Least share of its leaves in the light while both stand, 0 to 1.</param>
public sealed record Overgrown(int Loser, Plant LoserPlant, int Winner, Plant WinnerPlant, LocalDate When, double LightLeft)
{
    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.Overgrown,
            new Fact(WorkingPhrase.LeavesInLightLeast, ("lightLeft", Quantity.Share(LightLeft))),
            [
                new WorkingInput(
                    LoserPlant,
                    new Fact(
                        WorkingPhrase.HighWide,
                        ("height", Quantity.Cm(LoserPlant.HeightCm)),
                        ("matureSpread", Quantity.Cm(LoserPlant.MatureSpreadCm)),
                        ("vigour", LoserPlant.Vigour)
                    )
                ),
                new WorkingInput(
                    WinnerPlant,
                    new Fact(
                        WorkingPhrase.HighWide,
                        ("height", Quantity.Cm(WinnerPlant.HeightCm)),
                        ("matureSpread", Quantity.Cm(WinnerPlant.MatureSpreadCm)),
                        ("vigour", WinnerPlant.Vigour)
                    )
                ),
                new WorkingInput(InputName.FirstUnderHalf, When),
            ]
        )
        {
            Parts = [("loserPlant", LoserPlant), ("winnerPlant", WinnerPlant)],
        };
}

/// <summary>Who overgrows whom, and when: taller and faster plants take light from what their spread overlaps.</summary>
public static class Competition
{
    /// <summary>A kind with less than this share of its leaves in the light is losing.</summary>
    public const double Losing = 0.5;

    /// <summary>No more plants are followed; of larger plantings those nearest to the middle.</summary>
    public const int MostPlants = 250;

    // A neighbour shades only when it stands clearly higher.
    private const double ClearlyHigher = 1.15;

    private static readonly (double X, double Y)[] Points = Disc();

    /// <summary>Follows an arrangement week by week.</summary>
    /// <param name="arrangement">The plants at their places.</param>
    /// <param name="spread">Width of each kind by day when it grows unhindered, cm; 0 while it is away.</param>
    /// <param name="first">The day of the first width.</param>
    /// <param name="inLeaf">
    /// Share of years in which deciduous plants are in leaf, by day; null where they always are. Bare wood takes no light.
    /// </param>
    /// <returns>Kinds that lose more than half their light to another, the soonest first.</returns>
    public static IReadOnlyList<Overgrown> Follow(Arrangement arrangement, IReadOnlyList<float[]> spread, LocalDate first, float[]? inLeaf = null)
    {
        PlacedPlant[] plants = [.. arrangement.Plants.OrderBy(p => (p.At.XCm * p.At.XCm) + (p.At.YCm * p.At.YCm)).Take(MostPlants)];
        int n = plants.Length;
        SurfaceRaster surface = SurfaceRaster.Of(arrangement.Planter.Form);
        if (n == 0 || spread.Count == 0)
            return [];
        int days = spread[0].Length;
        var wide = new double[n];
        var when = new Dictionary<int, (int Day, double Least, int Winner)>();
        var light = new double[n];
        var reach = new double[n];
        var shades = new bool[n];
        var taker = new Dictionary<int, int>[n];
        for (int d = 0; d < days; d += 7)
        {
            for (int i = 0; i < n; i++)
            {
                float[] free = spread[plants[i].Item];
                double grown = d == 0 || free[d - 7] <= 0 ? free[d] : Math.Min(free[d], wide[i] + (Math.Max(0, free[d] - free[d - 7]) * light[i]));
                wide[i] = free[d] <= 0 ? 0 : grown;
            }
            bool leaves = inLeaf is null || inLeaf[d] >= 0.5f;
            for (int i = 0; i < n; i++)
            {
                reach[i] = Reach(plants[i].Plant, wide[i]);
                shades[i] = wide[i] > 0 && Shades(plants[i].Plant, leaves);
            }
            for (int i = 0; i < n; i++)
                (light[i], taker[i]) = Light(surface, plants, wide, reach, shades, i);
            foreach (var kind in Enumerable.Range(0, n).Where(i => wide[i] > 0).GroupBy(i => plants[i].Item))
            {
                double mean = kind.Average(i => light[i]);
                if (mean >= Losing)
                    continue;
                int winner = kind.SelectMany(i => taker[i]).GroupBy(t => t.Key).MaxBy(g => g.Sum(t => t.Value))!.Key;
                if (!when.TryGetValue(kind.Key, out var known))
                    when[kind.Key] = (d, mean, winner);
                else if (mean < known.Least)
                    when[kind.Key] = known with { Least = mean };
            }
        }
        return
        [
            .. when.OrderBy(w => w.Value.Day)
                .Select(w => new Overgrown(
                    w.Key,
                    Of(arrangement, w.Key),
                    w.Value.Winner,
                    Of(arrangement, w.Value.Winner),
                    first.PlusDays(w.Value.Day),
                    w.Value.Least
                )),
        ];
    }

    private static Plant Of(Arrangement arrangement, int item) => arrangement.Plants.First(p => p.Item == item).Plant;

    // Share of a plant's disc that stands in the light, and which kinds take the rest.
    private static (double Share, Dictionary<int, int> Takers) Light(
        SurfaceRaster surface,
        PlacedPlant[] plants,
        double[] wide,
        double[] reach,
        bool[] shades,
        int i
    )
    {
        var takers = new Dictionary<int, int>();
        if (wide[i] <= 0)
            return (1, takers);
        // Only clearly higher neighbours that touch its disc can take light from it.
        var near = new List<int>();
        for (int k = 0; k < plants.Length; k++)
        {
            if (
                shades[k]
                && reach[k] > ClearlyHigher * reach[i]
                && plants[k].Item != plants[i].Item
                && plants[k].At.DistanceTo(plants[i].At) <= (wide[k] + wide[i]) / 2
            )
                near.Add(k);
        }
        if (near.Count == 0)
            return (1, takers);
        int lit = 0;
        foreach ((double x, double y) in Points)
        {
            var at = new PlanePoint(plants[i].At.XCm + (x * wide[i] / 2), plants[i].At.YCm + (y * wide[i] / 2));
            // What trails hangs over the rim, out of its neighbours' shade.
            bool hangs = plants[i].Plant.Habit == Habit.Trailing && surface.CellOf(at) < 0;
            int over = hangs ? -1 : near.FindIndex(k => plants[k].At.DistanceTo(at) <= wide[k] / 2);
            if (over < 0)
            {
                lit++;
            }
            else
            {
                int kind = plants[near[over]].Item;
                takers[kind] = takers.GetValueOrDefault(kind) + 1;
            }
        }
        return ((double)lit / Points.Length, takers);
    }

    // A tree's crown is the skyline's matter, and bare wood lets light through.
    private static bool Shades(Plant plant, bool leaves) =>
        plant.LifeForm != LifeForm.Tree && (leaves || plant.Green == GreenLeaf.Evergreen || !plant.IsLasting);

    // How high a plant counts: what hangs counts little, for it grows away over the rim.
    private static double Reach(Plant plant, double spreadCm) =>
        Stature.Of(plant, spreadCm).HeightCm
        * plant.Vigour switch
        {
            Vigour.Vigorous => 1.2,
            Vigour.Weak => 0.85,
            _ => 1,
        };

    // The middle, and two rings of six and twelve.
    private static (double X, double Y)[] Disc() =>
        [
            (0, 0),
            .. Enumerable.Range(0, 6).Select(i => (0.45 * Math.Cos(i * Math.PI / 3), 0.45 * Math.Sin(i * Math.PI / 3))),
            .. Enumerable.Range(0, 12).Select(i => (0.85 * Math.Cos((i + 0.5) * Math.PI / 6), 0.85 * Math.Sin((i + 0.5) * Math.PI / 6))),
        ];
}
