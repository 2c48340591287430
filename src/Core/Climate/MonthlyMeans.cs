using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>A month's means over the used years of a record.</summary>
/// <param name="Month">1 to 12.</param>
/// <param name="MeanMinC">Mean daily minimum, °C.</param>
/// <param name="MeanMaxC">Mean daily maximum, °C.</param>
/// <param name="PrecipitationMm">Mean monthly precipitation, mm; NaN where the record has none. Days without a reading count as dry.</param>
/// <param name="DaysAbove30C">Mean number of days with a maximum above 30 °C (86 °F), as heat zones count them.</param>
/// <param name="DaylightHours">Daylight on the 15th, FAO-56 eq. 34.</param>
/// <param name="EvapotranspirationMm">Mean reference evapotranspiration a day, mm; NaN without temperatures.</param>
public sealed record MonthMeans(
    int Month,
    double MeanMinC,
    double MeanMaxC,
    double PrecipitationMm,
    double DaysAbove30C,
    double DaylightHours,
    double EvapotranspirationMm
)
{
    /// <summary>Mean of the mean minimum and maximum, °C.</summary>
    public double MeanC => (MeanMinC + MeanMaxC) / 2;

    /// <summary>The arithmetic behind the month's figures.</summary>
    public Working Explain(WeatherRecord record) =>
        new Working(
            WorkingKind.MonthMeans,
            new Fact(WorkingPhrase.MonthMeansValue, ("meanMin", Quantity.Number(MeanMinC, 1)), ("meanMax", Quantity.Celsius(MeanMaxC, 1))),
            [
                new WorkingInput(
                    InputName.YearsUsed,
                    record.YearsUsed.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(
                            WorkingPhrase.MonthMeansYearsUsed,
                            ("yearsUsed", record.YearsUsed.Count),
                            ("yearsUsed2", WeatherYear.Span(record.YearsUsed[0], record.YearsUsed[^1]))
                        )
                ),
                new WorkingInput(
                    InputName.YearsLeftOut,
                    record.YearsLeftOut.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(
                            WorkingPhrase.Listed,
                            (
                                "items",
                                record
                                    .YearsLeftOut.Select(y =>
                                        (object?)new Fact(WorkingPhrase.LacksDays, ("year", y.Year), ("missingDays", y.MissingDays))
                                    )
                                    .ToList()
                            )
                        )
                ),
                new WorkingInput(InputName.Latitude, Quantity.Degrees(record.Station.LatitudeDeg, 2)),
            ],
            [
                new Fact(
                    WorkingPhrase.ReadingsInGapsUpDaysWere,
                    ("interpolatedDays", record.InterpolatedDays),
                    ("longestInterpolatedGap", WeatherRecord.LongestInterpolatedGap),
                    ("mostMissingDays", WeatherRecord.MostMissingDays)
                ),
            ]
        )
        {
            Parts = [("figure", new Fact(WorkingPhrase.DayFullMonth, ("day", new LocalDate(2001, Month, 1))))],
        };

    /// <summary>The twelve months of a record, over its used years only.</summary>
    public static IReadOnlyList<MonthMeans> From(WeatherRecord record)
    {
        var min = new double[12];
        var max = new double[12];
        var rain = new double[12];
        var hot = new int[12];
        var count = new int[12];
        var water = new double[12];
        var rainDays = new int[12];
        var monthsSeen = new HashSet<(int Year, int Month)>();
        foreach (int year in record.YearsUsed)
        {
            (int from, int length) = record.RangeOf(year).GetOffsetAndLength(record.MinC.Length);
            for (int i = from; i < from + length; i++)
            {
                LocalDate day = record.FirstDay.PlusDays(i);
                int m = day.Month - 1;
                monthsSeen.Add((day.Year, m));
                if (!double.IsNaN(record.PrecipitationMm[i]))
                {
                    rain[m] += record.PrecipitationMm[i];
                    rainDays[m]++;
                }
                if (double.IsNaN(record.MinC[i]) || double.IsNaN(record.MaxC[i]))
                    continue;
                min[m] += record.MinC[i];
                max[m] += record.MaxC[i];
                hot[m] += record.MaxC[i] > 30 ? 1 : 0;
                water[m] += ReferenceEvapotranspiration.Of(record, i).Mm;
                count[m]++;
            }
        }
        return
        [
            .. Enumerable
                .Range(0, 12)
                .Select(m =>
                {
                    int months = Math.Max(1, monthsSeen.Count(s => s.Month == m));
                    int n = Math.Max(1, count[m]);
                    return new MonthMeans(
                        m + 1,
                        count[m] == 0 ? double.NaN : min[m] / n,
                        count[m] == 0 ? double.NaN : max[m] / n,
                        rainDays[m] == 0 ? double.NaN : rain[m] / months,
                        (double)hot[m] / months,
                        SolarGeometry.DaylightHours(record.Station.LatitudeDeg, new LocalDate(2001, m + 1, 15).DayOfYear),
                        count[m] == 0 ? double.NaN : water[m] / n
                    );
                }),
        ];
    }
}
