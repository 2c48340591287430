namespace UnrulyMeadow.Core.Season;

/// <summary>
/// Lays the plants of a planter over each other, weather year by weather year, in rows of days that are used again for the
/// next planter. One thread uses one of these.
/// </summary>
internal sealed class CoverYears
{
    private static readonly float[] Whole = Filled(1);
    private static readonly float[] Nothing = Filled(0);

    private readonly float[] _bedding = new float[DayMath.RowOfYear];
    private readonly float[] _bulbs = new float[DayMath.RowOfYear];
    private readonly float[] _bulbCrowd = new float[DayMath.RowOfYear];
    private readonly float[] _crowd = new float[DayMath.RowOfYear];
    private readonly float[] _hidden = new float[DayMath.RowOfYear];
    private readonly float[] _green = new float[DayMath.RowOfYear];
    private readonly float[] _colour = new float[DayMath.RowOfYear];
    private readonly float[] _greenSum = new float[DayMath.RowOfYear];
    private float[] _canopy = [];
    private float[] _mean = [];
    private float[] _weighted = [];

    /// <summary>Room for plants that stand as no other does, followed for one planter alone.</summary>
    public DayRoom Room { get; } = new();

    /// <summary>Fills a season with what its plants show.</summary>
    /// <param name="season">Empty.</param>
    /// <param name="items">The planter's plants.</param>
    /// <param name="leaf">Whether deciduous plants are in leaf, by weather year and day.</param>
    /// <param name="only">One weather year; null for all.</param>
    public void WriteCover(PlanterSeason season, IReadOnlyList<(PlantedItem Item, PlantYears Years)> items, float[][] leaf, int? only)
    {
        int row = DayMath.RowOfYear;
        int years = only is null ? leaf.Length : 1;
        int bands = items.Sum(i => i.Years.Plant.Windows.Count);
        Grow(ref _canopy, items.Count * row);
        Grow(ref _mean, bands * row);
        Grow(ref _weighted, years * row);
        Array.Clear(_mean, 0, bands * row);
        Array.Clear(_greenSum);
        for (int y = 0; y < years; y++)
            Year(season.Planter.Form.SurfaceCm2, items, only ?? y, leaf[only ?? y], _weighted.AsSpan(y * row, row), _mean);
        var shown = new List<ColourBand>(bands);
        int b = 0;
        foreach ((PlantedItem item, PlantYears plant) in items)
        {
            foreach (var window in plant.Plant.Windows)
            {
                var mean = new float[season.Days];
                ReadOnlySpan<float> sum = _mean.AsSpan(row * b++, season.Days);
                for (int d = plant.From; d < plant.From + plant.Length; d++)
                    mean[d] = sum[d] / years;
                shown.Add(new ColourBand(item.Display.Id, plant.Plant, window, mean));
            }
        }
        for (int d = 0; d < season.Days; d++)
            season.Green[d] = _greenSum[d] / years;
        season.Take(shown, _weighted.AsSpan(0, years * row), years, row);
    }

    /// <summary>
    /// The cover of one weather year: the weighted cover by day, and the cover of every colour window added to its row.
    /// </summary>
    public void Year(
        double surfaceCm2,
        IReadOnlyList<(PlantedItem Item, PlantYears Years)> items,
        int year,
        float[] leaf,
        Span<float> weighted,
        float[] covers
    )
    {
        int row = DayMath.RowOfYear;
        if (_canopy.Length < items.Count * row)
            Grow(ref _canopy, items.Count * row);
        Array.Clear(_bedding);
        Array.Clear(_bulbs);
        Array.Clear(_hidden);
        Array.Clear(_green);
        Array.Clear(_colour);
        // Bedding shares the surface; bulbs stand on their stems above it and hide what their flowers cover.
        for (int s = 0; s < items.Count; s++)
        {
            (PlantedItem item, PlantYears plant) = items[s];
            DayMath.Canopy(
                plant.AreaRow(year),
                (float)(item.Count * item.Seen / surfaceCm2),
                _canopy.AsSpan(s * row),
                (item.IsAbove ? _bulbs : _bedding).AsSpan(plant.From)
            );
        }
        DayMath.Crowd(_bulbs, _bulbCrowd);
        Show(items, year, bulbs: true, _bulbCrowd, 1, _hidden, covers, leaf);
        DayMath.Crowd(_bedding, _crowd);
        DayMath.Under(_crowd, _hidden);
        Show(items, year, bulbs: false, _crowd, -1, _green, covers, leaf);
        DayMath.Weigh(_green, _colour, (float)PlanterSeason.GreenWeight, (float)PlanterSeason.MostGreen, _greenSum, weighted);
    }

    private void Show(
        IReadOnlyList<(PlantedItem Item, PlantYears Years)> items,
        int year,
        bool bulbs,
        float[] crowd,
        float sign,
        float[] other,
        float[] covers,
        float[] leaf
    )
    {
        int row = DayMath.RowOfYear;
        int b = 0;
        for (int s = 0; s < items.Count; s++)
        {
            (PlantedItem item, PlantYears plant) = items[s];
            int windows = plant.Plant.Windows.Count;
            if (item.IsAbove == bulbs && plant.Length > 0)
            {
                ReadOnlySpan<float> canopy = _canopy.AsSpan(s * row, plant.Stride);
                ReadOnlySpan<float> share = crowd.AsSpan(plant.From, plant.Stride);
                if (!bulbs)
                    DayMath.AddProduct(
                        canopy,
                        share,
                        Fraction(plant, leaf).AsSpan(plant.From, plant.Stride),
                        _green.AsSpan(plant.From, plant.Stride)
                    );
                for (int w = 0; w < windows; w++)
                {
                    var window = plant.Plant.Windows[w];
                    DayMath.Show(
                        plant.ShareRow(w, year),
                        canopy,
                        share,
                        (float)window.Share,
                        (float)window.Weight,
                        sign,
                        covers.AsSpan(((b + w) * row) + plant.From, plant.Stride),
                        _colour.AsSpan(plant.From, plant.Stride),
                        other.AsSpan(plant.From, plant.Stride)
                    );
                }
            }
            b += windows;
        }
    }

    private static float[] Fraction(PlantYears plant, float[] leaf) =>
        plant.Plant.Green switch
        {
            Palette.GreenLeaf.Evergreen => Whole,
            Palette.GreenLeaf.InSeason when plant.Plant.DiesWithFrost => Whole,
            Palette.GreenLeaf.InSeason => leaf,
            _ => Nothing,
        };

    private static float[] Filled(float value)
    {
        var row = new float[DayMath.RowOfYear];
        Array.Fill(row, value);
        return row;
    }

    private static void Grow(ref float[] row, int length)
    {
        if (row.Length < length)
            row = new float[length];
    }
}
