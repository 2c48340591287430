using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

/// <summary>
/// Bulbs by heat, cold and day length in four real springs. The weather is NOAA's daily record 2012–2015 of New York and
/// Seattle (vega-datasets); the usual dates are from memory of the regions. All six climates: AccuracyTests.
/// </summary>
[FromMemory]
public sealed class FloweringTests
{
    private static readonly BulbPlace Place = BulbPlace.UsualBed;

    // Early to late.
    private static readonly string[] Classes =
    [
        "snowdrop",
        "crocus-early-yellow",
        "daffodil-early-yellow",
        "daffodil-trumpet-yellow",
        "hyacinth-blue",
        "tulip-mid-red",
        "tulip-late-dark",
        "allium-tall-purple",
    ];

    [Fact]
    public void Fitting_the_mid_tulip_on_New_York_alone_lands_on_the_date_it_is_given()
    {
        double fitted = ThresholdFit.Fit(A.MidTulip, Runs("New York"), false, Planted, Place, A.Day(2027, 4, 26));
        Assert.Equal(A.Day(2027, 4, 26), Median("New York", A.MidTulip with { ThresholdCd = fitted }));
    }

    [Fact]
    public void Mid_tulips_flower_in_Seattle_between_3_and_18_April()
    {
        LocalDate median = Median("Seattle", A.MidTulip);
        Assert.InRange(median, A.Day(2027, 4, 3), A.Day(2027, 4, 18));
    }

    [Fact]
    public void Hyacinths_flower_in_Seattle_between_15_March_and_8_April() =>
        Assert.InRange(Median("Seattle", A.Forcing("hyacinth-blue")), A.Day(2027, 3, 15), A.Day(2027, 4, 8));

    [Fact]
    public void Seattle_mid_tulips_of_cold_2012_come_10_to_35_days_after_those_of_warm_2015()
    {
        double[] days = Springs("Seattle", A.MidTulip);
        Assert.InRange(days[0] - days[3], 10, 35);
    }

    [Fact]
    public void New_York_mid_tulips_of_warm_2012_flower_between_28_March_and_12_April()
    {
        double zero = Runs("New York")[0].IndexOf(A.Day(2027, 1, 1));
        double day = Springs("New York", A.MidTulip)[0] - zero;
        Assert.InRange(day, A.Day(2027, 3, 28).DayOfYear - 1, A.Day(2027, 4, 12).DayOfYear - 1);
    }

    [Theory]
    [InlineData("New York")]
    [InlineData("Seattle")]
    public void Classes_keep_their_order_in_every_spring(string place)
    {
        double[][] all = [.. Classes.Select(c => Springs(place, A.Forcing(c)))];
        for (int year = 0; year < 4; year++)
        {
            for (int k = 1; k < all.Length; k++)
                Assert.True(all[k][year] >= all[k - 1][year], $"{place} {2012 + year}: class {k} before class {k - 1}");
        }
    }

    [Fact, Published("Hopkins 1918, bioclimatic law: a sanity check between sites, not a model")]
    public void Seattle_is_earlier_than_New_York_by_about_what_the_bioclimatic_law_says()
    {
        // Four days later for each degree north and each five degrees east; what the law leaves open between coasts is put at ten days.
        double law = (4 * (122.3 - 73.9) / 5) - (4 * (47.4 - 40.7));
        int days = Period.DaysBetween(Median("Seattle", A.MidTulip), Median("New York", A.MidTulip));
        Assert.InRange(days, law - 10, law + 10);
    }

    [Fact]
    public void The_model_beats_heat_of_the_air_alone()
    {
        // Air alone, base 5 from 1 January, calibrated on New York, puts Seattle's tulips into March and February.
        double[] air = [.. Runs("New York").Select(r => AirHeatBy(r, A.Day(2027, 4, 26)))];
        double threshold = air.Median();
        double[] seattle = [.. Runs("Seattle").Select(r => (double)DayOfHeat(r, threshold))];
        double zero = Runs("Seattle")[0].IndexOf(A.Day(2027, 1, 1));
        Assert.True(seattle.Median() - zero < A.Day(2027, 4, 3).DayOfYear - 1);
        Assert.InRange(Median("Seattle", A.MidTulip), A.Day(2027, 4, 3), A.Day(2027, 4, 18));
    }

    [Fact]
    public void Bulbs_planted_in_March_have_too_little_cold_to_flower_in_time()
    {
        GrowingSeason season = new(Runs("Seattle")[1], false);
        double early = ThresholdFit.MedianIndex(A.MidTulip, season, Planted, Place);
        double late = ThresholdFit.MedianIndex(A.MidTulip, season, A.Day(2027, 3, 20), Place);
        Assert.True(late > early + 14);
    }

    [Fact]
    public void Deeper_planting_flowers_later_in_a_spring_that_warms()
    {
        GrowingSeason season = new(Runs("New York")[2], false);
        Assert.True(
            ThresholdFit.MedianIndex(A.MidTulip, season, Planted, Place with { DepthCm = 30 })
                > ThresholdFit.MedianIndex(A.MidTulip, season, Planted, Place with { DepthCm = 8 })
        );
    }

    [Fact]
    public void Established_bulbs_flower_again_in_their_second_spring()
    {
        WeatherRun run = WeatherRun.For(A.Record(2001, 4, A.Mild), A.Day(2026, 8, 1))[1];
        var season = new GrowingSeason(run, false);
        var growing = new Growing(season, A.Tulip(), A.Day(2025, 10, 20), A.Day(2029, 6, 1), Place, 0);
        Assert.Equal(2, A.MidTulip.Blooms(growing).Count());
    }

    private static LocalDate Planted => A.Day(2026, 11, 1);

    // Four springs, 2012 to 2015. What the record lacks before and after is filled with what is usual for the day.
    private static IReadOnlyList<WeatherRun> Runs(string place)
    {
        WeatherRecord record = A.Record(place);
        WeatherRecord longer = WeatherRecord.From(record.Station, A.Days(new LocalDate(2010, 1, 1), new LocalDate(2016, 1, 1), day =>
            {
                int i = record.IndexOf(day);
                return i >= 0 && i < record.MinC.Length ? (record.MinC[i], record.MaxC[i]) : record.ExpectedOn(day);
            }));
        return [.. WeatherRun.For(longer, A.Day(2026, 8, 1)).Where(r => r.Year is >= 2011 and <= 2014)];
    }

    private static double[] Springs(string place, BulbForcing rule) =>
        [.. Runs(place).Select(r => ThresholdFit.MedianIndex(rule, new GrowingSeason(r, false), Planted, Place))];

    private static LocalDate Median(string place, BulbForcing rule)
    {
        WeatherRun run = Runs(place)[0];
        return run.FirstDay.PlusDays((int)Math.Round(Springs(place, rule).Median(), MidpointRounding.AwayFromZero));
    }

    private static double AirHeatBy(WeatherRun run, LocalDate day) =>
        Enumerable.Range(run.IndexOf(A.Day(2027, 1, 1)), Period.DaysBetween(A.Day(2027, 1, 1), day)).Sum(i => Math.Max(0, run.MeanC(i) - 5));

    private static int DayOfHeat(WeatherRun run, double threshold)
    {
        double sum = 0;
        int i = run.IndexOf(A.Day(2027, 1, 1));
        while (sum < threshold)
            sum += Math.Max(0, run.MeanC(i++) - 5);
        return i;
    }
}
