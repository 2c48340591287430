using MathNet.Numerics.Distributions;
using MathNet.Numerics.Random;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class TrendTests
{
    [Fact]
    [Published("Mann–Kendall test: S = 45 of 45 pairs for ten rising values, variance n(n−1)(2n+5)/18 = 125 (Kendall 1975)")]
    public void Ten_rising_years_give_the_tests_value_by_hand()
    {
        YearlyTrend trend = YearlyTrend.Of([.. Enumerable.Range(0, 10).Select(i => (2000 + i, 10 + (0.2 * i)))])!;
        Assert.Equal(2.0, trend.PerDecade, 6);
        Assert.Equal(2 * (1 - Normal.CDF(0, 1, 44 / Math.Sqrt(125))), trend.PValue, 9);
    }

    [Fact]
    public void A_trend_is_remarked_from_thirty_years_on_and_not_before()
    {
        (int, double)[] rising = [.. Enumerable.Range(0, 40).Select(i => (1980 + i, 0.03 * i))];
        Assert.True(YearlyTrend.Of(rising)!.IsRemarkable);
        Assert.False(YearlyTrend.Of(rising[..29])!.IsRemarkable);
        Assert.False(YearlyTrend.Of([.. Enumerable.Range(0, 40).Select(i => (1980 + i, i % 2 == 0 ? 1.0 : -1.0))])!.IsRemarkable);
        Assert.Null(YearlyTrend.Of(rising[..2]));
    }

    [Fact]
    public void Two_years_in_a_hundred_steady_series_of_thirty_years_pass_for_a_trend_as_they_should()
    {
        var random = new Xoshiro256StarStar(11);
        int passed = Enumerable
            .Range(0, 1000)
            .Count(_ => YearlyTrend.Of([.. Enumerable.Range(0, 30).Select(i => (i, Normal.Sample(random, 0, 1)))])!.PValue < 0.05);
        Assert.InRange(passed, 30, 70);
    }

    [Theory]
    [InlineData(10)]
    [InlineData(20)]
    [InlineData(30)]
    [InlineData(50)]
    [InlineData(100)]
    public void One_steady_series_in_twenty_passes_the_critical_value_of_the_jump_test(int n)
    {
        var random = new Xoshiro256StarStar(n);
        double[] greatest =
        [
            .. Enumerable
                .Range(0, 20_000)
                .Select(_ =>
                {
                    double[] v = [.. Enumerable.Range(0, n).Select(_ => Normal.Sample(random, 0, 1))];
                    double mean = v.Average();
                    double sd = Math.Sqrt(v.Sum(x => (x - mean) * (x - mean)) / (n - 1));
                    return HomogeneityHint.Greatest([.. v.Select(x => (x - mean) / sd)]).Value;
                }),
        ];
        Array.Sort(greatest);
        Assert.Equal(greatest[19_000], HomogeneityHint.CriticalOf(n), 0.15);
    }

    [Fact]
    public void A_station_that_was_moved_shows_its_jump_and_a_warming_climate_does_not()
    {
        var random = new Xoshiro256StarStar(3);
        (int, double)[] moved = [.. Enumerable.Range(0, 40).Select(i => (1980 + i, 10 + (i >= 22 ? 1.2 : 0) + (0.4 * Normal.Sample(random, 0, 1))))];
        HomogeneityHint hint = HomogeneityHint.Of(moved)!;
        Assert.InRange(hint.FirstYearAfter, 2000, 2004);
        Assert.Equal(1.2, hint.JumpC, 0.4);
        Assert.Null(HomogeneityHint.Of([.. Enumerable.Range(0, 40).Select(i => (1980 + i, 10 + (0.05 * i) + (0.2 * Normal.Sample(random, 0, 1))))]));
        Assert.Null(HomogeneityHint.Of(moved[..9]));
    }

    [Fact]
    public void A_growing_season_runs_between_the_frosts_and_a_climate_without_frost_has_the_whole_year()
    {
        WeatherRecord record = A.Record(2001, 4, d => d.DayOfYear is < 100 or > 300 ? (-1, 8) : (5, 20));
        SeasonLength season = SeasonLength.From(record, 0);
        Assert.Equal(201, season.Years[0].Days);
        Assert.Equal(366, SeasonLength.From(A.Record(2004, 1, _ => (10, 20)), 0).Years[0].Days);
        Assert.Equal(0, SeasonLength.From(A.Record(2001, 1, _ => (-5, 1)), 0).Years[0].Days);
    }

    [Fact]
    [Published("International Standard Atmosphere: 6.5 °C per km")]
    public void A_site_300_m_above_its_station_is_2_degrees_colder()
    {
        WeatherRecord record = A.Record("Seattle");
        WeatherRecord higher = record.AtElevation(record.Station.ElevationM + 300);
        Assert.Equal(record.MinC[100] - 1.95, higher.MinC[100], 9);
        Assert.Equal(record.YearsUsed, higher.YearsUsed);
        Assert.Equal(record.PrecipitationMm, higher.PrecipitationMm);
        Assert.Same(record, record.AtElevation(record.Station.ElevationM));
    }
}
