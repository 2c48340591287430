using MathNet.Numerics.Statistics;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

/// <summary>Daily normals and the years generated from them.</summary>
[Published("Richardson (1981), Stochastic simulation of daily precipitation, temperature, and solar radiation")]
public sealed class GeneratorTests
{
    // A source of thirty years, itself drawn from New York's normals but not from the form under test alone: it carries
    // years that differ as wholes.
    private static readonly WeatherRecord Source = AsSeen(
        WeatherGenerator.Generate(DailyNormals.From(A.Record("New York")) with { YearSpreadC = 0.5 }, 7, 1981, 30)
    );
    private static readonly WeatherRecord Made = WeatherGenerator.Generate(DailyNormals.From(Source), 42, 1, 300);

    [Theory]
    [InlineData("New York")]
    [InlineData("Seattle")]
    public void Generated_months_mean_what_the_record_means_within_0_3_degrees(string place)
    {
        WeatherRecord record = A.Record(place);
        IReadOnlyList<MonthMeans> real = MonthMeans.From(record);
        // Three waves through four single years leave more of their chance than through a normal period, hence the wider bound for them.
        IReadOnlyList<MonthMeans> made = MonthMeans.From(WeatherGenerator.Generate(DailyNormals.From(record), 1, 1, 300));
        Assert.InRange(real.Zip(made, (r, m) => Math.Abs(r.MeanC - m.MeanC)).Average(), 0, 0.6);
        IReadOnlyList<MonthMeans> thirty = MonthMeans.From(Source);
        IReadOnlyList<MonthMeans> of = MonthMeans.From(Made);
        for (int m = 0; m < 12; m++)
        {
            Assert.Equal(thirty[m].MeanMinC, of[m].MeanMinC, 0.3);
            Assert.Equal(thirty[m].MeanMaxC, of[m].MeanMaxC, 0.3);
        }
    }

    [Fact]
    public void Generated_days_spread_as_the_records_within_a_tenth()
    {
        for (int m = 1; m <= 12; m++)
            Assert.Equal(1, Deviation(Made, m) / Deviation(Source, m), 0.1);
    }

    [Fact]
    public void Generated_days_hang_together_as_the_records_within_0_05()
    {
        Assert.Equal(Lag(Source), Lag(Made), 0.05);
        Assert.InRange(Lag(Made), 0.4, 0.8);
    }

    [Fact]
    public void The_middle_last_freeze_lies_within_four_days_of_the_records() =>
        Assert.Equal(FrostOdds.From(Source, FrostEnd.LastSpring, 0).MeanDay, FrostOdds.From(Made, FrostEnd.LastSpring, 0).MeanDay, 4.0);

    [Fact]
    public void It_rains_as_often_and_as_much_as_in_the_record()
    {
        double Wet(WeatherRecord r) => (double)r.PrecipitationMm.Count(v => v >= DailyNormals.WetFromMm) / r.PrecipitationMm.Length;
        Assert.Equal(Wet(Source), Wet(Made), 0.015);
        Assert.Equal(1, MonthMeans.From(Made).Sum(m => m.PrecipitationMm) / MonthMeans.From(Source).Sum(m => m.PrecipitationMm), 0.05);
    }

    [Fact]
    public void The_same_seed_gives_the_same_days_and_another_seed_others()
    {
        DailyNormals normals = DailyNormals.From(A.Record("Seattle"));
        Assert.Equal(WeatherGenerator.Generate(normals, 5, 1, 3).MinC, WeatherGenerator.Generate(normals, 5, 1, 3).MinC);
        Assert.NotEqual(WeatherGenerator.Generate(normals, 5, 1, 3).MinC, WeatherGenerator.Generate(normals, 6, 1, 3).MinC);
    }

    [Fact]
    public void Generated_years_add_no_knowledge_to_the_standard_error()
    {
        FrostOdds seen = FrostOdds.From(Source, FrostEnd.LastSpring, 0);
        FrostOdds made = FrostOdds.From(Made, FrostEnd.LastSpring, 0);
        Assert.Equal(300, made.Events.Count);
        Assert.Equal(30, Made.KnownYears);
        Assert.Equal(seen.DateAt(0.1).StandardErrorDays, made.DateAt(0.1).StandardErrorDays, 0.6);
    }

    [Fact]
    [Published("NOAA hourly normals of Seattle (npm vega-datasets 2.11.0), tests/data/seattle-hourly-normals.csv")]
    public void Five_waves_follow_Seattles_official_daily_normals_within_six_tenths()
    {
        (double Day, double Value)[] official = [.. SeattleNormals()];
        Assert.Equal(365, official.Length);
        Harmonic waves = Harmonic.Fit(5, official);
        // The official ones are themselves a smoothing; a few days at the turn of autumn lie up to six tenths off.
        Assert.All(official, o => Assert.Equal(o.Value, waves.At(o.Day), 0.6));
        Assert.InRange(Math.Sqrt(official.Average(o => Math.Pow(o.Value - waves.At(o.Day), 2))), 0, 0.3);
        // Our own four years of daily readings: no warmer or colder than recent years are against the normal period, and turning with it.
        DailyNormals ours = DailyNormals.From(A.Record("Seattle"));
        double[] apart = [.. official.Select(o => ((ours.On((int)o.Day).MinC + ours.On((int)o.Day).MaxC) / 2) - o.Value)];
        Assert.InRange(apart.Average(), -0.5, 2.0);
        Assert.True(apart.StandardDeviation() < 1.2);
    }

    [Theory]
    [InlineData("New York", "continental")]
    [InlineData("Seattle", "maritime")]
    public void Twelve_monthly_normals_alone_give_usable_frost_dates(string place, string climate)
    {
        WeatherRecord record = A.Record(place);
        IReadOnlyList<MonthMeans> months = MonthMeans.From(record);
        var typed = new MonthlyNormals(
            [.. months.Select(m => m.MeanMinC)],
            [.. months.Select(m => m.MeanMaxC)],
            [.. months.Select(m => m.PrecipitationMm)],
            climate
        );
        WeatherRecord made = WeatherGenerator.Generate(typed.At(record.Station), 3, 1, 200);
        IReadOnlyList<MonthMeans> back = MonthMeans.From(made);
        for (int m = 0; m < 12; m++)
            Assert.Equal(months[m].MeanMinC, back[m].MeanMinC, 0.4);
        Assert.Equal(FrostOdds.From(record, FrostEnd.LastSpring, 0).MeanDay, FrostOdds.From(made, FrostEnd.LastSpring, 0).MeanDay, 18.0);
        // Rougher, and it says so: the date is no surer than from five years.
        Assert.Equal(MonthlyNormals.WorthYears, made.KnownYears);
    }

    [Fact]
    public void Wrong_normals_are_all_named_at_once()
    {
        var typed = new MonthlyNormals([.. new double[11]], [.. Enumerable.Repeat(60.0, 12)], null, "moon");
        IReadOnlyList<Fault> faults = typed.Faults();
        Assert.Contains(faults, f => f.Field == "meanMinC");
        Assert.Contains(faults, f => f.Field == "meanMaxC[4]");
        Assert.Contains(faults, f => f.Field == "climateId");
    }

    [Fact]
    public void A_course_through_months_meets_every_month()
    {
        double[] months = [-2, 0, 4, 10, 16, 21, 24, 23, 19, 13, 7, 1];
        Harmonic course = Harmonic.ThroughMonths(months);
        for (int m = 0; m < 12; m++)
        {
            int first = A.Day(2001, m + 1, 1).DayOfYear;
            Assert.Equal(months[m], Enumerable.Range(0, DateTime.DaysInMonth(2001, m + 1)).Average(d => course.At(first + d)), 0.3);
        }
    }

    private static WeatherRecord AsSeen(WeatherRecord r) =>
        WeatherRecord.From(
            r.Station,
            Enumerable.Range(0, r.MinC.Length).Select(i => new WeatherDay(r.FirstDay.PlusDays(i), r.MinC[i], r.MaxC[i], r.PrecipitationMm[i]))
        );

    private static double Deviation(WeatherRecord record, int month) =>
        Enumerable
            .Range(0, record.MinC.Length)
            .Where(i => record.FirstDay.PlusDays(i).Month == month)
            .Select(i => record.MinC[i])
            .StandardDeviation();

    private static double Lag(WeatherRecord record)
    {
        DailyNormals n = DailyNormals.From(record);
        double[] z = [.. Enumerable.Range(0, record.MinC.Length).Select(i => record.MinC[i] - n.On(record.FirstDay.PlusDays(i).DayOfYear).MinC)];
        return Correlation.Pearson(z[..^1], z[1..]);
    }

    private static IEnumerable<(double, double)> SeattleNormals() =>
        File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "data", "seattle-hourly-normals.csv"))
            .Skip(1)
            .Select(l => l.Split(','))
            .GroupBy(c => c[0][..10], (_, hours) => hours.Average(c => double.Parse(c[1], System.Globalization.CultureInfo.InvariantCulture)))
            .Select((mean, i) => ((double)(i + 1), mean));
}
