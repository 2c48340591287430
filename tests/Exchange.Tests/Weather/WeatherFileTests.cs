using System.Text;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Tests.Weather;

public sealed class WeatherFileTests
{
    private static readonly LocalDate NewYear = new(2012, 1, 1);

    [Fact]
    public void A_dly_line_is_read_in_tenths_with_missing_and_flagged_values_left_out()
    {
        // GHCN-Daily readme, section III: ID 1–11, year, month, element, then value, MFLAG, QFLAG, SFLAG by day.
        WeatherFileContents c = Read(Dly("TMAX", (128, ' '), (-9999, ' '), (99, 'I')) + Dly("TMIN", (50, ' '), (28, ' '), (-31, ' ')));
        Assert.Equal(WeatherFormat.GhcnDly, c.Format);
        Assert.Equal("USW00094728", c.StationId);
        Assert.Equal(new WeatherDay(NewYear, 5, 12.8, null), c.Days[0]);
        Assert.Equal((null, 2.8), (c.Days[1].MaxC, c.Days[1].MinC));
        Assert.Equal((null, -3.1), (c.Days[2].MaxC, c.Days[2].MinC));
        Assert.Equal(1, c.FlaggedValues);
    }

    [Fact]
    public void A_dly_file_cut_short_names_its_last_line_and_keeps_the_rest()
    {
        string whole = Dly("TMAX", (128, ' ')) + Dly("TMIN", (50, ' '));
        WeatherFileContents c = Read(whole + Dly("PRCP", (3, ' '))[..60], leaveOut: true);
        RefusedLine refused = Assert.Single(c.Refused);
        Assert.Equal(3, refused.Line);
        Assert.Contains("cut short", refused.Why, StringComparison.Ordinal);
        Assert.Equal(12.8, c.Days[0].MaxC);
    }

    [Fact]
    public void Elements_that_are_not_used_are_passed_over_in_silence() =>
        Assert.Equal(0, Read(Dly("TMAX", (128, ' ')) + Dly("WT01", (10, ' ')) + Dly("TMIN", (50, ' '))).RefusedCount);

    [Fact]
    public void The_by_station_csv_is_read_one_value_a_line()
    {
        WeatherFileContents c = Read(
            """
            USW00094728,20120101,TMAX,128,,,W,2400
            USW00094728,20120101,TMIN,50,,,W,2400
            USW00094728,20120101,PRCP,109,,,W,2400
            USW00094728,20120102,TMAX,999,,G,W,2400
            USW00094728,20120102,TMIN,-9999,,,W,2400
            """
        );
        Assert.Equal(WeatherFormat.GhcnCsv, c.Format);
        Assert.Equal(new WeatherDay(NewYear, 5, 12.8, 10.9), Assert.Single(c.Days));
        Assert.Equal(1, c.FlaggedValues);
    }

    [Fact]
    public void The_by_station_csv_with_a_day_a_line_brings_the_stations_place()
    {
        WeatherFileContents c = Read(
            """
            "STATION","DATE","LATITUDE","LONGITUDE","ELEVATION","NAME","PRCP","PRCP_ATTRIBUTES","TMAX","TMAX_ATTRIBUTES","TMIN","TMIN_ATTRIBUTES"
            "USW00094728","2012-01-01","40.77898","-73.96925","42.7","A PARK","    0",",,W,2400","  106",",,W,2400","   11",",I,W,2400"
            """
        );
        Assert.Equal(40.77898, c.Station!.LatitudeDeg);
        Assert.Equal(10.6, c.Days[0].MaxC);
        Assert.Null(c.Days[0].MinC);
    }

    [Theory]
    [InlineData("date,tmin,tmax\n2012-01-01,5,12.8", WeatherUnits.Metric)]
    [InlineData("Date;Low_c;High_c\n2012-01-01;5;12.8", WeatherUnits.UsCustomary)]
    [InlineData("day,min,max,rain\n,°F,°F,in\n2012-01-01,41,55.04,0", WeatherUnits.Metric)]
    [InlineData("date,tmin_f,tmax_f\n2012/01/01,41,55.04", WeatherUnits.Metric)]
    [InlineData("date,tmin (°F),tmax (°F)\n20120101,41,55.04", WeatherUnits.Metric)]
    [InlineData("date,tmin,tmax\n2012-01-01,41,55.04", WeatherUnits.UsCustomary)]
    public void A_plain_csv_takes_its_units_from_heading_units_row_or_choice(string text, WeatherUnits units)
    {
        WeatherDay day = Assert.Single(Read(text, units).Days);
        Assert.Equal(NewYear, day.Day);
        Assert.Equal(5, day.MinC!.Value, 1e-9);
        Assert.Equal(12.8, day.MaxC!.Value, 1e-9);
    }

    [Fact]
    public void Inches_of_rain_become_millimetres() =>
        Assert.Equal(25.4, Read("date,tmin_f,tmax_f,prcp_in\n2012-01-01,41,55,1").Days[0].PrecipitationMm);

    [Fact]
    public void Refused_rows_are_named_by_line_with_the_reason()
    {
        WeatherFileContents c = Read(
            """
            date,tmin,tmax
            2012-01-01,5,12
            yesterday,5,12
            2012-01-03,cold,12
            2012-01-04,5,120
            2012-01-05,14,12
            2012-01-01,6,13
            """,
            leaveOut: true
        );
        Assert.Equal([3, 4, 5, 7, 6], c.Refused.Select(r => r.Line));
        Assert.Equal(5, c.RefusedCount);
        Assert.Contains("\"cold\" is no number", c.Refused[1].Why, StringComparison.Ordinal);
        Assert.Contains("120 °C cannot be", c.Refused[2].Why, StringComparison.Ordinal);
        Assert.Contains("given before", c.Refused[3].Why, StringComparison.Ordinal);
        Assert.Contains("lies above highest", c.Refused[4].Why, StringComparison.Ordinal);
        Assert.Equal(5, Assert.Single(c.Days).MinC);
    }

    [Fact]
    public void A_file_of_several_places_gives_the_one_asked_for()
    {
        string path = Path.Combine(AppContext.BaseDirectory, "data", "new-york-seattle-2012-2015.csv");
        using FileStream first = File.OpenRead(path);
        WeatherFileContents seattle = WeatherFile.Read(first);
        Assert.Equal(["Seattle", "New York"], seattle.Locations);
        using FileStream again = File.OpenRead(path);
        WeatherFileContents newYork = WeatherFile.Read(again, location: "New York");
        Assert.Equal(1461, newYork.Days.Count);
        Assert.NotEqual(seattle.Days[0], newYork.Days[0]);
        using FileStream third = File.OpenRead(path);
        Assert.Contains(
            "Seattle, New York",
            Assert.Throws<InvalidInputException>(() => WeatherFile.Read(third, location: "Boston")).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Snow_wind_and_humidity_are_read_where_a_file_has_them()
    {
        WeatherDay dly = Assert.Single(
            Read(Dly("TMAX", (128, ' ')) + Dly("TMIN", (50, ' ')) + Dly("SNWD", (102, ' ')) + Dly("AWND", (34, ' ')) + Dly("RHAV", (71, ' '))).Days
        );
        Assert.Equal((102, 3.4, 71), (dly.SnowDepthMm, dly.WindMs, dly.HumidityPct));
        WeatherDay plain = Assert.Single(Read("date,tmin_f,tmax_f,snow_in,wind_mph,rh,radiation\n2012-01-01,41,55,4,10,65,8.2").Days);
        Assert.Equal((101.6, 4.4704, 65, 8.2), (plain.SnowDepthMm!.Value, plain.WindMs!.Value, plain.HumidityPct, plain.SunMJ));
    }

    [Theory]
    [InlineData("", "is empty")]
    [InlineData("  \n\n ", "is empty")]
    [InlineData("hello world", "names no date column")]
    [InlineData("date,tmin,tmax\n", "no day with a temperature")]
    [InlineData("date,tmax\n2012-01-01,5", "names no column of lowest temperatures")]
    public void What_holds_no_weather_is_refused_with_the_reason(string text, string why) =>
        Assert.Contains(why, Assert.Throws<InvalidInputException>(() => Read(text)).Message, StringComparison.Ordinal);

    [Fact]
    public void A_binary_file_is_refused_as_no_text() =>
        Assert.Contains("is no text file", Refusal([0x50, 0x4B, 3, 4, 0, 0, 0, 8]), StringComparison.Ordinal);

    [Fact]
    public void A_file_in_UTF_16_is_told_to_be_saved_as_UTF_8() =>
        Assert.Contains("UTF-16", Refusal([.. Encoding.Unicode.Preamble, .. Encoding.Unicode.GetBytes("date,tmin,tmax")]), StringComparison.Ordinal);

    [Fact]
    public void A_file_in_a_wrong_encoding_is_refused_with_the_line() =>
        Assert.Contains("(line 2)", Refusal([.. "date,tmin,tmax\n2012-01-01,5,12 "u8, 0xB0, (byte)'C']), StringComparison.Ordinal);

    [Fact]
    public void A_byte_order_mark_does_no_harm()
    {
        using var stream = new MemoryStream([.. Encoding.UTF8.Preamble, .. "date,tmin,tmax\n2012-01-01,5,12"u8]);
        Assert.Single(WeatherFile.Read(stream).Days);
    }

    [Fact]
    public void A_hundred_thousand_rows_are_read()
    {
        var text = new StringBuilder("date,tmin,tmax\n");
        for (int i = 0; i < 100_000; i++)
            text.Append(new LocalDate(1760, 1, 1).PlusDays(i).ToString("uuuu-MM-dd", null)).Append($",{i % 7},12\n");
        Assert.Equal(100_000, Read(text.ToString()).Days.Count);
    }

    [Fact]
    public void A_file_beyond_20_MB_is_refused_before_it_is_read_whole()
    {
        using var endless = new EndlessStream();
        Assert.Contains("20 MB", Assert.Throws<InvalidInputException>(() => WeatherFile.Read(endless)).Message, StringComparison.Ordinal);
        Assert.True(endless.Given < 22 * 1024 * 1024);
    }

    [Fact]
    public void The_demos_station_has_thirty_usable_years_and_one_left_out()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.dly"));
        WeatherRecord record = WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(file).Days);
        Assert.Equal(30, record.YearsUsed.Count);
        Assert.Equal(2003, Assert.Single(record.YearsLeftOut).Year);
    }

    private static string Refusal(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        return Assert.Throws<InvalidInputException>(() => WeatherFile.Read(stream)).Message;
    }

    private static WeatherFileContents Read(string text, WeatherUnits units = WeatherUnits.Metric, bool leaveOut = false)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
        return WeatherFile.Read(stream, units, leaveOutRefused: leaveOut);
    }

    private static string Dly(string element, params (int Tenths, char QualityFlag)[] days)
    {
        var line = new StringBuilder($"USW00094728201201{element}");
        for (int d = 0; d < 31; d++)
            line.Append($"{(d < days.Length ? days[d].Tenths : -9999), 5} {(d < days.Length ? days[d].QualityFlag : ' ')} ");
        return line.Append('\n').ToString();
    }

    private sealed class EndlessStream : MemoryStream
    {
        public long Given { get; private set; }

        public override int Read(Span<byte> buffer)
        {
            buffer.Fill((byte)'7');
            Given += buffer.Length;
            return buffer.Length;
        }
    }
}
