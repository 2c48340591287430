using MathNet.Numerics.Distributions;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>NOAA's years 2012 to 2015 with forecasts that err as they do: who is warned, and how often in vain.</summary>
public sealed class ForecastReplayTests
{
    // Who was warned rightly, in vain, and not at all; and a site's own forecasts decide how sure its odds are.
    [Fact]
    public void Afterwards_it_is_said_whether_it_was_so()
    {
        LocalDate day = A.Day(2027, 5, 20);
        Plan plan = new(
            Site.Default,
            [new Area("quay", "Quay", 0)],
            [A.Pot()],
            [A.Annual("petunia") with { TopDamageC = -0.5 }],
            [A.Show("summer", A.Day(2027, 5, 1), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", 8))],
            []
        );
        ForecastNight Night(int ago, double forecast, double came, int lead = 1) =>
            new(day.PlusDays(-ago - lead), day.PlusDays(-ago), forecast, came);
        IReadOnlyList<NightThatCame> past = NightThatCame.Of(
            plan,
            [Night(1, -3, -2), Night(2, -3, 5), Night(3, 6, -2), Night(4, 9, 8), Night(5, -3, -2, lead: 4)]
        );
        Assert.Equal([1, 2, 3], past.Select(p => Period.DaysBetween(p.Forecast.Night, day)));
        Assert.Equal([(1, 1, 0), (1, 0, 0), (0, 0, 1)], past.Select(p => (p.Warned.Count, p.Right, p.Missed.Count())));

        // Forecasts that were three degrees off warn of a night that others would not.
        DayForecast[] coming = [new DayForecast(day.PlusDays(1), 3, 12, 0)];
        double Off(int lead) => ForecastRecord.ErrorC([.. Enumerable.Range(1, 40).Select(i => Night(i, 6, i % 2 == 0 ? 9 : 3))], lead);
        Assert.Empty(ColdNights.Of(plan, coming, day));
        Assert.Single(ColdNights.Of(plan, coming, day, Off));
        // Whoever was warned by them is said to have been.
        Assert.Equal((1, 1), NightThatCame.Of(plan, [Night(1, 3, -2)], Off).Select(p => (p.Warned.Count, p.Right)).Single());
        Assert.Single(NightThatCame.Of(plan, [Night(1, 3, -2)]).Single().Missed);
    }

    // What spoils petunias, and a light frost.
    [Theory]
    [InlineData("New York", -1.8)]
    [InlineData("New York", 0)]
    [InlineData("Seattle", -1.8)]
    [InlineData("Seattle", 0)]
    public void Nine_of_ten_killing_nights_are_warned_of_and_most_warnings_are_right(string place, double thresholdC)
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
                    return new ForecastNight(
                        night.PlusDays(-1),
                        night,
                        record.MinC[i] + Normal.Sample(random, 0, ColdNights.ErrorC(1)),
                        record.MinC[i]
                    );
                }),
        ];
        (int cold, int warned, int vain) = ForecastRecord.Warnings(nights, thresholdC, ColdNights.WorthTelling);
        Assert.True(cold > 20);
        Assert.True(warned >= 0.9 * cold, $"{warned} of {cold} killing nights were warned of");
        Assert.True(vain <= cold, $"{vain} warnings in vain beside {warned} right ones");
        Assert.InRange(ForecastRecord.ErrorC(nights, 1), 1.1, 1.3);
        Assert.Equal(ColdNights.ErrorC(5), ForecastRecord.ErrorC(nights, 5));
    }
}
