using System.Globalization;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>The climate's tables as files: numbers stay numbers, frost included, and weather is read back as it was.</summary>
public sealed class ClimateSheetsTests
{
    private static readonly WeatherRecord Seattle = Read();

    [Fact]
    public void Weather_written_is_weather_read()
    {
        using var file = new MemoryStream(ClimateSheets.Weather(Seattle));
        IReadOnlyList<WeatherDay> back = WeatherFile.Read(file).Days;
        Assert.Equal(Seattle.MinC.Length, back.Count);
        Assert.All(back.Select((d, i) => (d, i)), x => Assert.Equal(Seattle.MinC[x.i], x.d.MinC!.Value, 0.006));
    }

    [Fact]
    public void Temperatures_below_zero_are_numbers_in_every_table()
    {
        GroundTemperatures pot = GroundClimate.Of(Seattle).Of(ThermalClass.Pot(30, 27, WallMaterial.Terracotta));
        double[] lowest = [.. Column(ClimateSheets.Days(pot, 10), "root zone lowest C")];
        Assert.Equal(pot.RootMin.Min(), lowest.Min(), 0.01);
        Assert.True(lowest.Min() < 0);
        DailyBand air = DailyBand.From(i => Seattle.MinC[i], Seattle);
        Assert.Equal(air.Lowest.Min(), Column(ClimateSheets.Band(air, null, false), "lowest C").Min(), 0.01);
    }

    [Fact]
    public void Frost_dates_windows_cold_roots_and_months_have_a_line_each()
    {
        ThermalClass bed = BulbPlace.UsualBed.Class;
        GroundTemperatures ground = GroundClimate.Of(Seattle).Of(bed);
        Assert.Equal(
            6,
            Lines(ClimateSheets.Frost([FrostOdds.From(Seattle, FrostEnd.LastSpring, 0), FrostOdds.From(Seattle, FrostEnd.FirstFall, 0)])).Length - 1
        );
        Assert.Equal(2, Lines(ClimateSheets.Windows([PlantingWindow.From(ground, Seattle, 8), PlantingWindow.From(ground, Seattle, 18)])).Length - 1);
        ColdWeeks cold = ColdWeeks.From(ground.AtDepth(15), Seattle, new LocalDate(2001, 11, 1));
        Assert.Equal(5, Lines(ClimateSheets.Cold(BulbKind.All.Select(k => (k, 15.0, cold)))).Length - 1);
        RootSurvival roots = RootSurvival.From(ground, Seattle);
        string line = Lines(ClimateSheets.Roots([("bed", roots)], -9, true))[1];
        Assert.StartsWith("bed,-9,1,", line, StringComparison.Ordinal);
        Assert.Equal(12, Lines(ClimateSheets.Months(MonthMeans.From(Seattle))).Length - 1);
    }

    private static string[] Lines(byte[] csv) => Encoding.UTF8.GetString(csv[3..]).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);

    private static IEnumerable<double> Column(byte[] csv, string name)
    {
        string[] lines = Lines(csv);
        int column = Array.IndexOf(lines[0].Split(','), name);
        return lines[1..].Select(l => double.Parse(l.Split(',')[column], CultureInfo.InvariantCulture));
    }

    private static WeatherRecord Read()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "new-york-seattle-2012-2015.csv"));
        return WeatherRecord.From(new Station("S", "Seattle", 47.4, -122, 100), WeatherFile.Read(file, WeatherUnits.Metric, "Seattle").Days);
    }
}
