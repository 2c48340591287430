using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>What a thermal class felt on every day of a record, °C.</summary>
public sealed class GroundTemperatures
{
    private readonly float[][] _rows;
    private readonly double[] _rowCentresM;

    internal GroundTemperatures(ThermalClass what, LocalDate firstDay, int days, double[] rowCentresM)
    {
        Class = what;
        FirstDay = firstDay;
        RootMin = new float[days];
        RootMean = new float[days];
        RootMax = new float[days];
        FrozenDepthM = new float[days];
        _rowCentresM = rowCentresM;
        _rows = [.. rowCentresM.Select(_ => new float[days])];
    }

    /// <summary>The class.</summary>
    public ThermalClass Class { get; }

    /// <summary>The day of index 0.</summary>
    public LocalDate FirstDay { get; }

    /// <summary>Days.</summary>
    public int Days => RootMin.Length;

    /// <summary>Lowest of the day's hours where roots are coldest: 2 cm inside the wall at mid-height, or 15 cm down in a bed.</summary>
    public float[] RootMin { get; }

    /// <summary>Mean of the day over the whole medium of a container, or at 15 cm in a bed.</summary>
    public float[] RootMean { get; }

    /// <summary>Highest of the day's hours at the same place as <see cref="RootMin"/>.</summary>
    public float[] RootMax { get; }

    /// <summary>Depth of medium turned to ice at the end of the day, m, thinly frozen rows counted by their share.</summary>
    public float[] FrozenDepthM { get; }

    /// <summary>Heat that came in through all surfaces against heat found inside, as a share of the heat moved; 0 is perfect.</summary>
    public double EnergyError { get; internal set; }

    /// <summary>Daily means of each row, mean across the planter; row by row, then day by day.</summary>
    internal float[][] Rows => _rows;

    /// <summary>Depths of the rows' middles, m.</summary>
    public IReadOnlyList<double> RowCentresM => _rowCentresM;

    /// <summary>Bytes that its days take.</summary>
    internal long Bytes => sizeof(float) * (long)Days * (_rows.Length + 4);

    /// <summary>The index of a day; may lie outside.</summary>
    public int IndexOf(LocalDate day) => Period.DaysBetween(FirstDay, day);

    /// <summary>Daily mean temperature at a depth, mean across the planter, °C; linear between rows.</summary>
    /// <param name="depthCm">Below the surface, cm; held to the first and last row's middle.</param>
    public float[] AtDepth(double depthCm)
    {
        (int upper, float share) = Between(depthCm / 100);
        float[] a = _rows[upper];
        float[] b = _rows[Math.Min(upper + 1, _rows.Length - 1)];
        var result = new float[Days];
        for (int i = 0; i < result.Length; i++)
            result[i] = a[i] + ((b[i] - a[i]) * share);
        return result;
    }

    /// <summary>The arithmetic behind the temperatures.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.TemperatureInsidePlanter,
            new Fact(WorkingPhrase.RootsFrom, ("rootMin", Quantity.Celsius(RootMin.Min(), 1)), ("rootMax", Quantity.Celsius(RootMax.Max(), 1))),
            [
                new WorkingInput(InputName.Where, Class.Describe()),
                new WorkingInput(
                    InputName.Medium,
                    new Fact(
                        WorkingPhrase.ThawedFrozenWater,
                        ("medium", Class.Medium.Name),
                        ("thawedConductivity", Quantity.Number(Class.Medium.ThawedConductivity, 1)),
                        ("frozenConductivity", Quantity.Number(Class.Medium.FrozenConductivity, 1)),
                        ("waterShare", Quantity.Share(Class.Medium.WaterShare))
                    )
                ),
                new WorkingInput(
                    InputName.Surface,
                    new Fact(
                        WorkingPhrase.TemperatureInsidePlanterSurface,
                        ("coverResistance", new Quantity(Class.CoverResistance, Dimension.ThermalResistance, 1))
                    )
                ),
                new WorkingInput(InputName.Days, Days),
            ],
            [
                new Fact(WorkingPhrase.EnergyInAgainstEnergyFoundWhat, ("energyError", $"{EnergyError:0.0e+0}")),
                new Fact(WorkingPhrase.DeepestIce, ("frozenDepth", Quantity.Cm(100.0 * FrozenDepthM.Max()))),
            ]
        );

    private (int Upper, float Share) Between(double depthM)
    {
        if (depthM <= _rowCentresM[0])
            return (0, 0);
        for (int i = 1; i < _rowCentresM.Length; i++)
        {
            if (depthM <= _rowCentresM[i])
                return (i - 1, (float)((depthM - _rowCentresM[i - 1]) / (_rowCentresM[i] - _rowCentresM[i - 1])));
        }
        return (_rowCentresM.Length - 1, 0);
    }
}
