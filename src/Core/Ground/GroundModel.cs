namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// Heat conduction in beds and containers with freezing, by the enthalpy method: in steps of two hours over a whole record, eight
/// stretches of years at a time side by side.
/// </summary>
/// <remarks>
/// <para>Each step is split into a sweep down the rows and one across the columns, in turn first and second, each
/// implicit (weight 0.55 on the new temperatures, so that it is stable at any step and barely damps a daily wave). A
/// sweep is solved with the heat capacity of the present state; the heat found is then booked as enthalpy and the
/// temperature read back from it (Pham 1985), so that energy is conserved to rounding while water freezes.</para>
/// <para>Leaves out: water moving, evaporation, the sunny and the dark side of a wall (its mean is used), roots and leaves,
/// snow that the record does not hold. A fifth of the net radiation warms the top, or cools it at night; the rest is
/// shaded off or spent on evaporation (from memory of energy balances of moist, half-covered ground).</para>
/// </remarks>
public static class GroundModel
{
    /// <summary>Steps in a day.</summary>
    public const int StepsPerDay = 12;

    /// <summary>Step, seconds.</summary>
    public const double StepSeconds = 86400.0 / StepsPerDay;

    /// <summary>Weight of the new temperatures in a sweep.</summary>
    public const double Implicit = 0.55;

    /// <summary>Share of net radiation that warms or cools the surface, after evaporation and shading.</summary>
    public const double TopRadiationShare = 0.2;

    /// <summary>
    /// Share of the sun on a wall that is neither shaded by leaves and rim nor lost to the sky and to evaporation (from memory: roots in sunny pots
    /// run a few degrees above the air).
    /// </summary>
    public const double WallSunShare = 0.5;

    // Air by step: shares of yesterday's highest, today's lowest, today's highest, tomorrow's lowest.
    internal static readonly double[] StepShares = Shares();

    /// <summary>Runs a class through a record's weather.</summary>
    /// <param name="what">The class.</param>
    /// <param name="forcing">The weather.</param>
    /// <param name="refine">1 as shipped; 2 halves every cell.</param>
    public static GroundTemperatures Run(ThermalClass what, GroundForcing forcing, int refine = 1)
    {
        GroundGrid grid = GroundGrid.For(what, refine);
        var result = new GroundTemperatures(what, forcing.FirstDay, forcing.Days, grid.RowCentresM);
        if (what.Shelter == WinterShelter.UnheatedRoom)
            forcing = forcing.InUnheatedRoom();
        new GroundKernel(what, grid, forcing, result).Run();
        return result;
    }

    /// <summary>Air temperature in the middle of a step, °C.</summary>
    /// <param name="step">0 to 11, two hours each.</param>
    /// <param name="maxBefore">Yesterday's highest, °C.</param>
    /// <param name="min">Today's lowest, °C.</param>
    /// <param name="max">Today's highest, °C.</param>
    /// <param name="minAfter">Tomorrow's lowest, °C.</param>
    public static double AirAt(int step, double maxBefore, double min, double max, double minAfter)
    {
        ReadOnlySpan<double> s = StepShares.AsSpan(step * 4, 4);
        return (s[0] * maxBefore) + (s[1] * min) + (s[2] * max) + (s[3] * minAfter);
    }

    private static double[] Shares()
    {
        var shares = new double[StepsPerDay * 4];
        for (int step = 0; step < StepsPerDay; step++)
        {
            double t = (step + 0.5) * 24 / StepsPerDay;
            int at = step * 4;
            if (t < 6)
            {
                double w = (1 - Math.Cos(Math.PI * (t + 9) / 15)) / 2;
                (shares[at], shares[at + 1]) = (1 - w, w);
            }
            else if (t < 15)
            {
                double w = (1 - Math.Cos(Math.PI * (t - 6) / 9)) / 2;
                (shares[at + 1], shares[at + 2]) = (1 - w, w);
            }
            else
            {
                double w = (1 - Math.Cos(Math.PI * (t - 15) / 15)) / 2;
                (shares[at + 2], shares[at + 3]) = (1 - w, w);
            }
        }
        return shares;
    }
}
