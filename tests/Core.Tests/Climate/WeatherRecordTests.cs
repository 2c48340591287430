using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class WeatherRecordTests
{
    private static readonly LocalDate Start = new(2001, 1, 1);

    [Fact]
    public void A_gap_of_three_days_is_filled_on_a_straight_line()
    {
        WeatherRecord record = With(d => d is >= 10 and < 13 ? null : d);
        Assert.Equal([9, 10, 11, 12, 13], record.MinC[9..14]);
        Assert.Equal(6, record.InterpolatedDays);
    }

    [Fact]
    public void A_gap_of_four_days_stays_empty()
    {
        WeatherRecord record = With(d => d is >= 10 and < 14 ? null : d);
        Assert.All(record.MinC[10..14], v => Assert.True(double.IsNaN(v)));
        Assert.Equal([2001], record.YearsUsed);
    }

    [Fact]
    public void A_year_lacking_eleven_days_is_left_out_and_named()
    {
        WeatherRecord record = With(d => d is >= 100 and < 111 ? null : d);
        Assert.Empty(record.YearsUsed);
        Assert.Equal(new YearLeftOut(2001, 11), Assert.Single(record.YearsLeftOut));
    }

    [Fact]
    public void A_year_lacking_ten_days_is_used() => Assert.Equal([2001], With(d => d is >= 100 and < 110 ? null : d).YearsUsed);

    [Fact]
    public void A_year_that_the_record_only_begins_is_left_out()
    {
        WeatherRecord record = WeatherRecord.From(A.Station(), A.Days(Start, new LocalDate(2002, 2, 1), _ => (0, 10)));
        Assert.Equal([2001], record.YearsUsed);
        Assert.Equal(2002, Assert.Single(record.YearsLeftOut).Year);
    }

    [Fact]
    public void South_of_the_equator_years_run_from_July_to_June()
    {
        WeatherRecord record = WeatherRecord.From(A.Station(-35), A.Days(new LocalDate(2000, 7, 1), new LocalDate(2002, 7, 1), _ => (0, 10)));
        Assert.Equal([2000, 2001], record.YearsUsed);
        Assert.Equal(new LocalDate(2001, 7, 1), record.YearStart(2001));
    }

    [Fact]
    public void Precipitation_is_never_interpolated()
    {
        var days = A.Days(Start, new LocalDate(2002, 1, 1), _ => (0, 10))
            .Select(d => d.Day == Start.PlusDays(5) ? d with { PrecipitationMm = null } : d);
        Assert.True(double.IsNaN(WeatherRecord.From(A.Station(), days).PrecipitationMm[5]));
    }

    [Fact]
    public void A_record_without_any_whole_day_is_refused() =>
        Assert.Throws<InvalidInputException>(() => WeatherRecord.From(A.Station(), [new WeatherDay(Start, 1, null, null)]));

    [Fact]
    public void What_is_usual_for_a_day_is_the_mean_of_its_neighbourhood_over_the_years()
    {
        WeatherRecord record = A.Record(2001, 3, d => (d.Year - 2001, 10 + d.Year - 2001));
        Assert.Equal((1, 11), record.ExpectedOn(new LocalDate(2030, 6, 1)));
        Assert.Equal(record.ExpectedOn(new LocalDate(2024, 2, 28)), record.ExpectedOn(new LocalDate(2024, 2, 29)));
    }

    [Fact]
    public void The_months_of_New_York_are_warmest_in_July_and_coldest_in_January_or_February()
    {
        IReadOnlyList<MonthMeans> months = MonthMeans.From(A.Record("New York"));
        Assert.Equal(7, months.MaxBy(m => m.MeanC)!.Month);
        Assert.Contains(months.MinBy(m => m.MeanC)!.Month, new[] { 1, 2 });
        Assert.True(months[5].DaylightHours > 14.9 && months[11].DaylightHours < 9.6);
    }

    private static WeatherRecord With(Func<int, double?> min) =>
        WeatherRecord.From(
            A.Station(),
            Enumerable.Range(0, 365).Select(i => new WeatherDay(Start.PlusDays(i), min(i), min(i) is null ? null : min(i) + 10, 0))
        );
}
