using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// A plant hardiness zone: zone n spans 10 °F of mean annual minimum from −60 + 10(n−1) °F, in halves a (colder) and
/// b of 5 °F (definition of the USDA map).
/// </summary>
/// <param name="Number">1 to 13.</param>
/// <param name="Half">'a' or 'b'.</param>
/// <param name="MeanMinimumC">The mean of the annual minima, °C.</param>
/// <param name="Years">The years behind it with each one's lowest temperature, °C.</param>
public sealed record HardinessZone(int Number, char Half, double MeanMinimumC, IReadOnlyList<(int Year, double MinimumC)> Years)
{
    /// <summary>The zone as it is written, e.g. "7b".</summary>
    public string Name => $"{Number}{Half}";

    /// <summary>The zone of a mean annual minimum. A value on a boundary belongs to the warmer zone; beyond 1a and 13b it is held there.</summary>
    public static (int Number, char Half) Of(double meanMinimumC)
    {
        double fahrenheit = Math.Round((meanMinimumC * 9 / 5) + 32, 6);
        int halves = Math.Clamp((int)Math.Floor((fahrenheit + 60) / 5), 0, 25);
        return ((halves / 2) + 1, halves % 2 == 0 ? 'a' : 'b');
    }

    /// <summary>The zone of a station's record, one minimum per used climate year.</summary>
    /// <exception cref="InvalidInputException">No year can be used.</exception>
    public static HardinessZone From(WeatherRecord record)
    {
        if (record.YearsUsed.Count == 0)
            throw new InvalidInputException("days", "no year of the record is complete enough to use");
        var minima = record.YearsUsed.Select(y => (Year: y, MinimumC: record.MinC[record.RangeOf(y)].Where(v => !double.IsNaN(v)).Min())).ToList();
        double mean = minima.Average(m => m.MinimumC);
        (int number, char half) = Of(mean);
        return new HardinessZone(number, half, mean, minima);
    }

    /// <summary>The arithmetic behind the zone.</summary>
    public Working Explain()
    {
        double f = (MeanMinimumC * 9 / 5) + 32;
        return new Working(
            WorkingKind.HardinessZone,
            Name,
            [
                new WorkingInput(
                    InputName.AnnualMinima,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Years
                                .Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.HardinessZoneAnnualMinimaEach,
                                            ("year", WeatherYear.Short(y.Year)),
                                            ("minimum", Quantity.Celsius(y.MinimumC, 1))
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [new Fact(WorkingPhrase.MeanMinima, ("years", Years.Count), ("meanMinimum", Quantity.Celsius(MeanMinimumC, 1)))]
        );
    }
}
