using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>How hot it feels in the shade: the heat index of the US National Weather Service.</summary>
public static class HeatIndex
{
    /// <summary>
    /// The heat index: Rothfusz' regression with its two adjustments, and the simpler form where that and the air mean
    /// less than 80 °F.
    /// </summary>
    /// <param name="airC">Air in the shade, °C.</param>
    /// <param name="humidityPct">Relative humidity, 0 to 100 %.</param>
    public static double C(double airC, double humidityPct) => (F((airC * 9 / 5) + 32, humidityPct) - 32) * 5 / 9;

    /// <summary>The same in °F, as the Service publishes it.</summary>
    /// <param name="t">Air, °F.</param>
    /// <param name="r">Relative humidity, 0 to 100 %.</param>
    public static double F(double t, double r)
    {
        double simple = 0.5 * (t + 61 + ((t - 68) * 1.2) + (r * 0.094));
        if ((simple + t) / 2 < 80)
            return simple;
        double index =
            -42.379
            + (2.04901523 * t)
            + (10.14333127 * r)
            - (0.22475541 * t * r)
            - (0.00683783 * t * t)
            - (0.05481717 * r * r)
            + (0.00122874 * t * t * r)
            + (0.00085282 * t * r * r)
            - (0.00000199 * t * t * r * r);
        if (r < 13 && t is >= 80 and <= 112)
            index -= (13 - r) / 4 * Math.Sqrt((17 - Math.Abs(t - 95)) / 17);
        else if (r > 85 && t is >= 80 and <= 87)
            index += (r - 85) / 10 * ((87 - t) / 5);
        return index;
    }

    /// <summary>What the Service says of an index: null below caution.</summary>
    public static string? Word(double indexC) =>
        indexC switch
        {
            >= 54 => "extreme danger",
            >= 39.4 => "danger",
            >= 32.2 => "extreme caution",
            >= 26.7 => "caution",
            _ => null,
        };

    /// <summary>The arithmetic behind an index.</summary>
    public static Working Explain(double airC, double humidityPct) =>
        new Working(
            WorkingKind.HeatIndex,
            Quantity.Celsius(C(airC, humidityPct), 1),
            [
                new WorkingInput(InputName.AirInTheShade, Quantity.Celsius(airC, 1)),
                new WorkingInput(InputName.RelativeHumidity, Quantity.Share(humidityPct / 100)),
            ],
            [WorkingPhrase.FullSunAddsUpTo]
        );
}
