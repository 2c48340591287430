namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// What cold tops stand on a day. Hardiness follows the mean of the past fortnight with a lag, slowly as it grows and
/// quickly as it is lost, so that the same plant stands less in early fall and after a mild spell than in midwinter.
/// </summary>
/// <remarks>
/// The form, a stationary hardiness by temperature that the plant approaches with a lag, is that of Repo, Mäkelä and
/// Hänninen (1990) and of Leinonen (1996); its figures here are from memory of practice.
/// </remarks>
public static class Hardening
{
    /// <summary>Fortnight means at or below which tops harden fully, °C.</summary>
    public const double FullAtC = 4;

    /// <summary>Fortnight means at or above which they do not harden at all, °C.</summary>
    public const double NoneAtC = 12;

    /// <summary>Days in which two thirds of the way to a greater hardiness are gone.</summary>
    public const double GainDays = 10;

    /// <summary>The same to a lesser one.</summary>
    public const double LossDays = 5;

    /// <summary>Days outdoors after which stock from a warm house is like any other.</summary>
    public const int SoftDays = 7;

    /// <summary>How much less cold it stands on the first of them, K.</summary>
    public const double SoftK = 2;

    // Tops that never hardened stand so much, or a share of what they stand in winter where that is more: three tenths for
    // herbs, six for wood and evergreen leaf, °C.
    private const double UnhardenedC = -3;
    private const double HerbShare = 0.3;
    private const double WoodShare = 0.6;

    /// <summary>Share of full hardiness by day, 0 to 1.</summary>
    /// <param name="fortnightMeanC">Mean air temperature of the fourteen days up to each day, °C.</param>
    public static float[] Of(ReadOnlySpan<double> fortnightMeanC)
    {
        var hardened = new float[fortnightMeanC.Length];
        double now = fortnightMeanC.Length == 0 ? 0 : Wanted(fortnightMeanC[0]);
        for (int i = 0; i < hardened.Length; i++)
        {
            double wanted = Wanted(fortnightMeanC[i]);
            now += (wanted - now) / (wanted > now ? GainDays : LossDays);
            hardened[i] = (float)now;
        }
        return hardened;
    }

    /// <summary>True for what stands more cold once it has hardened; what is tender never does.</summary>
    /// <param name="plant">The plant.</param>
    public static bool Hardens(Plant plant) => plant.TopDamageC < UnhardenedC;

    /// <summary>The temperature that spoils tops, °C.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="hardened">Share of full hardiness, 0 to 1.</param>
    public static double SpoiledAtC(Plant plant, double hardened)
    {
        double full = plant.TopDamageC;
        double unhardened = Math.Max(full, Math.Min(UnhardenedC, (plant.HasLastingTops ? WoodShare : HerbShare) * full));
        return unhardened + ((full - unhardened) * hardened);
    }

    /// <summary>How much less cold stock from a warm house stands, K.</summary>
    /// <param name="daysOut">Days since it was set out.</param>
    public static double SoftnessK(int daysOut) => daysOut is < 0 or >= SoftDays ? 0 : SoftK * (SoftDays - daysOut) / SoftDays;

    private static double Wanted(double meanC) => Math.Clamp((NoneAtC - meanC) / (NoneAtC - FullAtC), 0, 1);
}
