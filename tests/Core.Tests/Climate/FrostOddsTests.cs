using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class FrostOddsTests
{
    [Theory, Published("NOAA daily record of Seattle and New York (vega-datasets), counted by hand")]
    [InlineData("Seattle", 2012, 3, 19, 11, 10)]
    [InlineData("New York", 2014, 4, 16, 11, 15)]
    public void Frost_dates_are_those_counted_by_hand(string place, int year, int springMonth, int springDay, int fallMonth, int fallDay)
    {
        WeatherRecord record = A.Record(place);
        Assert.Equal(new LocalDate(year, springMonth, springDay), Day(FrostOdds.From(record, FrostEnd.LastSpring, 0), year));
        Assert.Equal(new LocalDate(year, fallMonth, fallDay), Day(FrostOdds.From(record, FrostEnd.FirstFall, 0), year));
    }

    [Theory, Published("Standard error of a normal quantile, σ√(1/n + z²/(2(n−1))), computed for σ 10 days")]
    [InlineData(4, 7.2)]
    [InlineData(10, 4.4)]
    [InlineData(30, 2.5)]
    public void The_ten_per_cent_date_is_as_uncertain_as_its_years_allow(int years, double days)
    {
        FrostOdds odds = SpringDates(Spread(years, 10));
        Assert.Equal(10, odds.StandardDeviationDays, 0.6);
        Assert.Equal(days, odds.DateAt(0.1).StandardErrorDays * 10 / odds.StandardDeviationDays, 0.06);
    }

    [Fact, Published("Thom & Shaw 1958: frost dates follow a normal distribution")]
    public void A_date_and_its_odds_agree()
    {
        FrostOdds odds = FrostOdds.From(A.Record("New York"), FrostEnd.LastSpring, 0);
        foreach (double p in new[] { 0.1, 0.5, 0.9 })
            Assert.Equal(p, odds.OddsOn(odds.DateAt(p).Date!.Value), 0.05);
    }

    [Fact]
    public void Odds_of_a_later_freeze_only_fall_as_spring_goes_on()
    {
        FrostOdds odds = FrostOdds.From(A.Record("Seattle"), FrostEnd.LastSpring, 0);
        Gen.Select(Gen.Int[0, 180], Gen.Int[0, 180])
            .Sample(
                (a, b) =>
                {
                    var start = new LocalDate(2001, 1, 1);
                    Assert.True(odds.OddsOn(start.PlusDays(Math.Min(a, b))) >= odds.OddsOn(start.PlusDays(Math.Max(a, b))));
                },
                iter: 200
            );
    }

    [Fact]
    public void Where_one_year_in_four_freezes_the_ten_per_cent_date_is_earlier_than_the_fit_alone_would_say()
    {
        // Four springs freeze of sixteen: the odds are spread over all years.
        WeatherRecord record = A.Record(2001, 16, d => (d.Year % 4 == 0 && d == new LocalDate(d.Year, 3, d.Year % 8 == 0 ? 1 : 11) ? -1 : 5, 12));
        FrostOdds odds = FrostOdds.From(record, FrostEnd.LastSpring, 0);
        Assert.Equal(0.75, odds.ShareWithout);
        Assert.Equal(0.1, odds.OddsOn(odds.DateAt(0.1).Date!.Value), 0.02);
        Assert.True(odds.DateAt(0.1).Date < new LocalDate(2001, 3, 11));
    }

    [Fact]
    public void Where_freezes_are_rarer_than_the_odds_asked_there_is_no_date()
    {
        FrostOdds odds = SpringDates([60, 70], quietYears: 20);
        Assert.Null(odds.DateAt(0.1).Date);
        Assert.Equal(Core.Facts.WorkingPhrase.None, odds.Explain(0.1).Value);
        Assert.Equal(0, FrostOdds.From(A.Record(2001, 3, _ => (5, 12)), FrostEnd.FirstFall, 0).OddsOn(new LocalDate(2001, 12, 31)));
    }

    [Fact]
    public void A_lower_threshold_ends_earlier_in_spring_and_comes_later_in_fall()
    {
        WeatherRecord record = A.Record("New York");
        double hard = (28.0 - 32) * 5 / 9;
        Assert.True(FrostOdds.From(record, FrostEnd.LastSpring, hard).MeanDay < FrostOdds.From(record, FrostEnd.LastSpring, 0).MeanDay);
        Assert.True(FrostOdds.From(record, FrostEnd.FirstFall, hard).MeanDay > FrostOdds.From(record, FrostEnd.FirstFall, 0).MeanDay);
    }

    [Fact]
    public void In_the_south_the_last_spring_frost_lies_between_July_and_December()
    {
        WeatherRecord record = WeatherRecord.From(
            A.Station(-35),
            A.Days(new LocalDate(2000, 7, 1), new LocalDate(2004, 7, 1), d => (d.Month is >= 6 and <= 9 ? -2 : 6, 15))
        );
        FrostOdds odds = FrostOdds.From(record, FrostEnd.LastSpring, 0);
        Assert.All(odds.Events, e => Assert.Equal(new LocalDate(e.Year, 9, 30), e.Day));
        Assert.All(FrostOdds.From(record, FrostEnd.FirstFall, 0).Events, e => Assert.Equal(new LocalDate(e.Year + 1, 6, 1), e.Day));
    }

    [Theory]
    [InlineData(-9, 47)]
    [InlineData(-1, 47)]
    [InlineData(4, 47)]
    [InlineData(4, -33)]
    public void Odds_through_a_winter_have_no_step_at_New_Year_nor_anywhere(double depthC, double latitude)
    {
        // From winters that freeze from fall to spring to such that freeze in some years, round New Year.
        WeatherRecord record = WeatherRecord.From(A.Station(latitude), A.Days(new LocalDate(1990, 1, 1), new LocalDate(2020, 1, 1), d =>
            {
                double winter = Math.Cos(2 * Math.PI * (d.DayOfYear - 15) / 365.25) * (latitude < 0 ? -1 : 1);
                double noise = 5 * Math.Sin((d.DayOfYear * 12.9898) + (d.Year * 78.233));
                double low = depthC + 9 - (9 * winter) + noise;
                return (low, low + 8);
            }));
        FrostOdds spring = FrostOdds.From(record, FrostEnd.LastSpring, 0);
        FrostOdds fall = FrostOdds.From(record, FrostEnd.FirstFall, 0);
        Assert.True(spring.ShareWithout < 0.9);
        double[] odds = [.. Enumerable.Range(0, 730).Select(i => FrostOdds.OddsOn(spring, fall, new LocalDate(2001, 1, 1).PlusDays(i)))];
        Assert.All(odds.Zip(odds.Skip(1)), pair => Assert.True(Math.Abs(pair.First - pair.Second) < 0.12));
    }

    [Fact]
    public void A_first_freeze_after_New_Year_is_that_winters_first()
    {
        WeatherRecord record = A.Record(2001, 6, d => (d.Month == 1 && d.Day is 9 or 20 ? -2 : 5, 12));
        Assert.Equal(new LocalDate(2003, 1, 9), Day(FrostOdds.From(record, FrostEnd.FirstFall, 0), 2002));
        Assert.Equal(1, FrostOdds.From(record, FrostEnd.FirstFall, 0).DateAt(0.5).Date!.Value.Month);
    }

    [Fact]
    public void Ranks_beside_the_fit_stay_within_the_years_seen()
    {
        FrostOdds odds = SpringDates(Spread(19, 10));
        Assert.Equal(odds.DateAt(0.5).Date!.Value.DayOfYear, odds.DateAt(0.5).RankDate!.Value.DayOfYear, 1.0);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(-0.2)]
    [InlineData(double.NaN)]
    public void Odds_beyond_zero_and_one_are_refused(double odds) => Assert.Throws<InvalidInputException>(() => SpringDates([60, 70]).DateAt(odds));

    private static LocalDate? Day(FrostOdds odds, int year) => odds.Events.Single(e => e.Year == year).Day;

    // Normal scores with the asked deviation, so that the sample's own deviation is near it.
    private static List<int> Spread(int n, double deviation)
    {
        List<double> scores = [.. Enumerable.Range(1, n).Select(i => MathNet.Numerics.Distributions.Normal.InvCDF(0, 1, (i - 0.375) / (n + 0.25)))];
        double own = Math.Sqrt(scores.Sum(s => s * s) / (n - 1));
        return [.. scores.Select(s => 100 + (int)Math.Round(s * deviation / own))];
    }

    private static FrostOdds SpringDates(IReadOnlyList<int> dayNumbers, int quietYears = 0) =>
        FrostOdds.From(A.Record(2001, dayNumbers.Count + quietYears, d =>
            {
                int i = d.Year - 2001;
                bool freezes = i < dayNumbers.Count && d == new LocalDate(d.Year, 1, 1).PlusDays(dayNumbers[i]);
                return (freezes ? -1 : 5, 12);
            }), FrostEnd.LastSpring, 0);
}
