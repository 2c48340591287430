using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>NOAA's years 2012 to 2015 with forecasts that err as they do: who is warned, and how often in vain.</summary>
public sealed class ForecastReplayTests
{
    // What spoils petunias, and a light frost.
    [Theory]
    [InlineData("New York", -1.8)]
    [InlineData("New York", 0)]
    [InlineData("Seattle", -1.8)]
    [InlineData("Seattle", 0)]
    public void Nineteen_of_twenty_killing_nights_are_warned_of_and_most_warnings_are_right(string place, double thresholdC)
    {
        WeatherRecord record = A.Record(place);
        var random = new Random(2012);
        List<ForecastNight> nights =
        [
            .. Enumerable
                .Range(1, record.MinC.Length - 1)
                .Where(i => !double.IsNaN(record.MinC[i]))
                .Select(i =>
                {
                    LocalDate night = record.FirstDay.PlusDays(i);
                    return new ForecastNight(night.PlusDays(-1), night, record.MinC[i] + Normal.Sample(random, 0, ColdNights.ErrorC(1)), record.MinC[i]);
                }),
        ];
        (int cold, int warned, int vain) = ForecastRecord.Warnings(nights, thresholdC, ColdNights.WorthTelling);
        Assert.True(cold > 20);
        Assert.True(warned >= 0.95 * cold, $"{warned} of {cold} killing nights were warned of");
        Assert.True(vain <= cold, $"{vain} warnings in vain beside {warned} right ones");
        Assert.InRange(ForecastRecord.ErrorC(nights, 1), 1.1, 1.3);
        Assert.Equal(ColdNights.ErrorC(5), ForecastRecord.ErrorC(nights, 5));
    }
}
