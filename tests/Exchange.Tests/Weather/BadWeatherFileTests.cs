using System.Globalization;
using System.Text;
using CsCheck;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Tests.Weather;

/// <summary>Files as they come from the world: each refusal names the line and what to do, and nothing is taken by halves.</summary>
public sealed class BadWeatherFileTests
{
    private static readonly LocalDate First = new(2013, 1, 1);

    private static readonly string[] Pieces =
    [
        "\n",
        "\r",
        ",",
        ";",
        "\t",
        "\"",
        "\"\"",
        "-9999",
        "NaN",
        "∞",
        "1e999",
        "0000-00-00",
        "2013-02-30",
        "TMIN",
        "\uFEFF",
        "\u202E",
        "=cmd",
        "°F",
    ];

    [Fact]
    public void One_wrong_line_refuses_the_whole_file_and_is_named_with_what_to_do()
    {
        InvalidInputException e = Refused(Csv(40).Replace("2013-01-20", "2013-13-20", StringComparison.Ordinal));
        Assert.Contains("line 21: \"2013-13-20\" is no date", e.Faults[0].Message, StringComparison.Ordinal);
        Assert.Contains("nothing was brought in; mend the line, or choose to leave it out", e.Faults[1].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Of_many_wrong_lines_twenty_are_named_and_the_rest_counted()
    {
        InvalidInputException e = Refused(Csv(60) + string.Concat(Enumerable.Repeat("soon,1,2\n", 25)));
        Assert.Equal(21, e.Faults.Count);
        Assert.StartsWith("5 more lines are wrong", e.Faults[^1].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_stuck_thermometer_is_named_by_its_first_line() =>
        Assert.Contains(
            "line 12: from 2013-01-11 the lowest and highest stay at 4.0 and 9.0",
            Refused(Csv(60, (i, _) => i >= 10 ? (4, 9) : (i % 4, 9))).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public void Exchanged_columns_are_told_as_such_and_not_day_by_day()
    {
        string said = Refused(Csv(60).Replace("tmin,tmax", "tmax,tmin", StringComparison.Ordinal)).Message;
        Assert.Contains("line 2 and 59 others", said, StringComparison.Ordinal);
        Assert.Contains("exchange their headings", said, StringComparison.Ordinal);
    }

    [Fact]
    public void Days_in_reverse_order_are_as_good_as_any()
    {
        string[] lines = Csv(60).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        WeatherFileContents c = Read(string.Join('\n', lines.Take(1).Concat(lines.Skip(1).Reverse())));
        Assert.Equal(Read(Csv(60)).Days, c.Days);
    }

    [Fact]
    public void Fahrenheit_under_a_Celsius_heading_is_recognised()
    {
        (double, double) Warm(int i, double mean) => (mean, mean + 18 + (i % 3));
        string said = Refused(Csv(365, Warm, mean: i => 50 - (16 * Math.Cos(2 * Math.PI * i / 365)))).Message;
        Assert.Contains("choose °F", said, StringComparison.Ordinal);
    }

    [Fact]
    public void Celsius_read_as_Fahrenheit_is_recognised()
    {
        using var stream = new MemoryStream(
            Encoding.UTF8.GetBytes(Csv(365, (i, mean) => (mean, mean + 8 + (i % 3)), mean: i => 8 - (9 * Math.Cos(2 * Math.PI * i / 365))))
        );
        Assert.Contains(
            "choose °C",
            Assert.Throws<InvalidInputException>(() => WeatherFile.Read(stream, WeatherUnits.UsCustomary)).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_29th_of_February_of_a_common_year_does_not_exist()
    {
        Assert.Contains(
            "line 3: \"2013-02-29\" is no date",
            Refused("date,tmin,tmax\n2013-02-28,1,2\n2013-02-29,1,2").Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "line 1: day 29: 2013-02 has 28 days; put -9999 there",
            Refused("USW00094728201302TMAX" + string.Concat(Enumerable.Repeat("   50   ", 31))).Message,
            StringComparison.Ordinal
        );
        Assert.Equal(new LocalDate(2012, 2, 29), Assert.Single(Read("date,tmin,tmax\n2012-02-29,1,2").Days).Day);
    }

    [Theory]
    [InlineData("2013-01-01T00:00:00+05:00", true)]
    [InlineData("2013-01-01 00:00", true)]
    [InlineData("2013-01-01T23:00:00Z", false)]
    [InlineData("2013-01-01 07:00", false)]
    public void A_day_may_carry_midnight_in_any_zone_but_no_other_time_of_day(string date, bool taken)
    {
        string text = $"date,tmin,tmax\n{date},1,2";
        if (taken)
            Assert.Equal(First, Assert.Single(Read(text).Days).Day);
        else
            Assert.Contains("Line 2", Refused(text).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_day_given_twice_is_named_with_both_lines()
    {
        Assert.Contains(
            "line 4: 2013-01-01 was given before in line 2",
            Refused("date,tmin,tmax\n2013-01-01,1,2\n2013-01-02,1,2\n2013-01-01,1,3").Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "line 2: 2012-01-01: TMAX was given before in line 1",
            Refused("USW00094728,20120101,TMAX,128\nUSW00094728,20120101,TMAX,129").Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Decades_without_readings_are_noted_and_their_years_left_out()
    {
        string late = string.Concat(Enumerable.Range(0, 40).Select(i => $"{Iso(new LocalDate(1990, 3, 1).PlusDays(i))},{i % 6},12\n"));
        WeatherFileContents c = Read("date,tmin,tmax\n1931-05-01,3,12\n" + late);
        Assert.Equal("no readings from 1931-05-02 to 1990-02-28 (line 3); these years are left out", Assert.Single(c.Notes));
        Assert.Empty(WeatherRecord.From(new Station("S", "s", 45, 0, 0), c.Days).YearsUsed);
    }

    [Theory]
    [InlineData("date,tmin,tmax\n2013-01-01,1e308,2")]
    [InlineData("date,tmin,tmax\n2013-01-01,=1+1,2")]
    [InlineData("date,tmin,tmax\n\"2013-01-01,1,2\n2013-01-02,1,2")]
    [InlineData("date,tmin,tmax\n99999999999999-01-01,1,2")]
    [InlineData("date,tmin,tmax\n2013-01-01,∞,2")]
    [InlineData("USW00094728201301TMAX99999999999999999999")]
    [InlineData("USW00094728,20130101,TMAX,99999999999999999999")]
    public void Hostile_cells_are_refused_with_their_line(string text) => Assert.Matches("line [0-9]+", Refused(text).Message.ToLowerInvariant());

    // A hundred thousand mangled files: whatever comes, the answer is days that can be believed or a refusal in words.
    [Fact]
    public void No_mangled_file_does_anything_but_give_days_or_a_reason()
    {
        string[] good =
        [
            Csv(12),
            "USW00094728201301TMAX  128  W   50     -31  I-9999   \nUSW00094728201301TMIN   28   \n",
            "USW00094728,20130101,TMAX,128,,,W,2400\nUSW00094728,20130101,TMIN,50,,,W,2400\n",
            (
                "\"STATION\",\"DATE\",\"LATITUDE\",\"LONGITUDE\",\"TMAX\",\"TMAX_ATTRIBUTES\",\"TMIN\"\n\"S\",\"2013-01-01\",\"40.7\",\"-73.9\",\" "
                + " 106\",\",,W\",\"   11\"\n"
            ),
        ];
        Gen<string> piece = Gen.OneOf(Gen.String[0, 6], Gen.Int[0, Pieces.Length - 1].Select(i => Pieces[i]));
        Gen.Select(Gen.Int[0, 3].Select(i => good[i]), Gen.Select(Gen.Int[0, 400], Gen.Int[0, 12], piece).Array[0, 4], Gen.Bool)
            .Sample(
                (text, cuts, leaveOut) =>
                {
                    foreach ((int at, int length, string put) in cuts)
                    {
                        int from = at % (text.Length + 1);
                        text = text[..from] + put + text[Math.Min(text.Length, from + length)..];
                    }
                    try
                    {
                        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
                        WeatherFileContents c = WeatherFile.Read(stream, leaveOutRefused: leaveOut);
                        return c.Days.Count > 0
                            && c.Days.Zip(c.Days.Skip(1)).All(d => d.First.Day < d.Second.Day)
                            && c.Days.All(d => (d.MinC ?? -90) >= -90 && (d.MaxC ?? 60) <= 60 && !(d.MinC > d.MaxC))
                            && (leaveOut || c.RefusedCount == 0);
                    }
                    catch (InvalidInputException e)
                    {
                        return e.Faults.All(f => f.Message.Length > 0);
                    }
                },
                iter: 100_000
            );
    }

    private static InvalidInputException Refused(string text) => Assert.Throws<InvalidInputException>(() => Read(text));

    private static WeatherFileContents Read(string text)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
        return WeatherFile.Read(stream);
    }

    private static string Iso(LocalDate day) => day.ToString("uuuu-MM-dd", null);

    private static string Csv(int days, Func<int, double, (double Min, double Max)>? day = null, Func<int, double>? mean = null)
    {
        var text = new StringBuilder("date,tmin,tmax\n");
        for (int i = 0; i < days; i++)
        {
            (double min, double max) = day?.Invoke(i, mean?.Invoke(i) ?? 0) ?? (i % 7, 12 + (i % 3));
            text.Append(CultureInfo.InvariantCulture, $"{Iso(First.PlusDays(i))},{min:0.0},{max:0.0}\n");
        }
        return text.ToString();
    }
}
