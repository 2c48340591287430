namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// How far a day at bulb depth counts towards a bulb's cold: fully at 0–9 °C (32–48 °F), falling to nothing at 13 °C
/// and at −2 °C. Handbook practice, from memory.
/// </summary>
public static class ColdCredit
{
    /// <summary>Above this no cold is credited, °C; the fall's first day below it starts the count.</summary>
    public const double UpperC = 13;

    /// <summary>The credit of one day, 0 to 1.</summary>
    public static double Of(double soilC) =>
        soilC switch
        {
            >= 0 and <= 9 => 1,
            > 9 and < UpperC => (UpperC - soilC) / (UpperC - 9),
            > -2 and < 0 => (soilC + 2) / 2,
            _ => 0,
        };
}
