using System.Globalization;
using System.Text;
using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Reports;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Bench;

/// <summary>Measures the core's main computations; ./meadow bench runs it. Figures go to docs/performance.md.</summary>
public static class Program
{
    /// <summary>Measures and prints.</summary>
    /// <param name="args">"studio", "palette", "climate", "supply", "crew" or "care" for one part; all otherwise.</param>
    public static void Main(string[] args)
    {
        IConfig config = ManualConfig
            .CreateEmpty()
            // By itself it gives a measurement up after five minutes, with all that was measured before it.
            .AddJob(BenchmarkDotNet.Jobs.Job.ShortRun.WithToolchain(new InProcessEmitToolchain(TimeSpan.FromMinutes(30), logOutput: false)))
            .AddColumnProvider(BenchmarkDotNet.Columns.DefaultColumnProviders.Instance)
            .AddDiagnoser(BenchmarkDotNet.Diagnosers.MemoryDiagnoser.Default)
            .WithOptions(ConfigOptions.DisableLogFile | ConfigOptions.DisableOptimizationsValidator);
        Console.WriteLine($"{"what", -34}{"mean ms", 10}{"± ms", 9}{"kB allocated", 15}");
        Type[] parts =
        [
            .. new[] { typeof(SeasonFigures), typeof(GapFigures), typeof(StudioFigures), typeof(PaletteFigures), typeof(ClimateFigures) }.Where(t =>
                args.Length == 0 || t.Name.StartsWith(args[0], StringComparison.OrdinalIgnoreCase)
            ),
        ];
        foreach (Type part in parts)
            Print(part, config);
        if (args.Length == 0 || args[0].Equals("supply", StringComparison.OrdinalIgnoreCase))
            SupplyFigures.Print();
        if (args.Length == 0 || args[0].Equals("crew", StringComparison.OrdinalIgnoreCase))
            CrewFigures.Print();
        if (args.Length == 0 || args[0].Equals("care", StringComparison.OrdinalIgnoreCase))
            CareFigures.Print();
    }

    // Part by part, so that what was measured is seen whatever becomes of the rest.
    private static void Print(Type part, IConfig config)
    {
        try
        {
            foreach (BenchmarkReport report in BenchmarkRunner.Run(part, config).Reports)
            {
                string name = report.BenchmarkCase.Descriptor.WorkloadMethod.Name;
                Console.WriteLine(
                    report.ResultStatistics is { } s
                        ? string.Create(
                            CultureInfo.InvariantCulture,
                            $"{name, -34}{s.Mean / 1e6, 10:0.00}{s.StandardError / 1e6, 9:0.00}{report.GcStats.GetBytesAllocatedPerOperation(report.BenchmarkCase) / 1024.0, 15:0}"
                        )
                        : $"{name, -34}{"not measured", 19}"
                );
            }
        }
        catch (Exception e)
        {
            Console.WriteLine($"{part.Name, -34}{"not measured: "}{e.Message.Split('\n')[0]}");
        }
    }
}

/// <summary>Weather, ground and frost at the sizes that a site has.</summary>
public class ClimateFigures
{
    private WeatherRecord _thirty = null!;
    private WeatherRecord _ten = null!;
    private WeatherRecord _hundred = null!;
    private GroundForcing _forcing = null!;
    private GroundForcing _short = null!;
    private byte[] _fiftyYears = [];
    private string? _connection;

    [GlobalSetup]
    public void SetUp()
    {
        var station = new Station("BENCH", "bench", 43, 0, 5);
        DailyNormals normals = new MonthlyNormals(
            [-6, -5, -1, 5, 11, 16, 19, 18, 13, 7, 2, -4],
            [2, 4, 9, 15, 21, 26, 29, 28, 23, 17, 10, 4],
            [80, 70, 85, 85, 90, 90, 95, 90, 85, 80, 80, 80],
            "continental"
        ).At(station);
        _thirty = WeatherGenerator.Generate(normals, 1, 1991, 30);
        _ten = WeatherGenerator.Generate(normals, 1, 1991, 10);
        _hundred = WeatherGenerator.Generate(normals, 1, 1901, 100);
        _forcing = GroundForcing.From(_thirty);
        _short = GroundForcing.From(_ten);
        _fiftyYears = Dly(WeatherGenerator.Generate(normals, 2, 1971, 50));
        _connection = Environment.GetEnvironmentVariable("MEADOW_DB");
    }

    [Benchmark]
    public GroundTemperatures PotThirtyYears() => GroundModel.Run(ThermalClass.Pot(40, 36, WallMaterial.Terracotta), _forcing);

    [Benchmark]
    public GroundTemperatures PotTenYears() => GroundModel.Run(ThermalClass.Pot(40, 36, WallMaterial.Terracotta), _short);

    [Benchmark]
    public GroundTemperatures BedThirtyYears() => GroundModel.Run(ThermalClass.Bed(SurfaceCover.Litter), _forcing);

    [Benchmark]
    public GroundTemperatures[] FortyPotsThirtyYears() =>
        [
            .. Enumerable
                .Range(0, 40)
                .AsParallel()
                .Select(i => GroundModel.Run(ThermalClass.Pot(25 + (2 * i), 30 + i, WallMaterial.Terracotta), _forcing)),
        ];

    [Benchmark]
    public double FrostOddsHundredYears() =>
        FrostOdds.From(_hundred, FrostEnd.LastSpring, 0).DateAt(0.1).StandardErrorDays
        + FrostOdds.From(_hundred, FrostEnd.FirstFall, 0).DateAt(0.1).StandardErrorDays;

    [Benchmark]
    public WeatherRecord GenerateThirtyYears() => WeatherGenerator.Generate(_thirty.GeneratedFrom!, 5, 1991, 30);

    [Benchmark]
    public int ParseFiftyYears() => Parse().Days.Count;

    [Benchmark]
    public async Task<int> ParseAndStoreFiftyYears()
    {
        if (_connection is null)
            return 0;
        await using var database = new MeadowDatabase(_connection);
        return await new WeatherStore(database.At((await database.FirstSite())!.Id)).Merge(
            new Station($"B{Guid.NewGuid():N}"[..20], "bench", 43, 0, 5),
            Parse().Days,
            Instant.FromUtc(2026, 1, 1, 0, 0)
        );
    }

    private WeatherFileContents Parse()
    {
        using var stream = new MemoryStream(_fiftyYears);
        return WeatherFile.Read(stream);
    }

    private static byte[] Dly(WeatherRecord record)
    {
        var text = new StringBuilder();
        for (LocalDate month = record.FirstDay; month <= record.LastDay; month = month.PlusMonths(1))
        {
            foreach ((string element, double[] values) in new[] { ("TMAX", record.MaxC), ("TMIN", record.MinC), ("PRCP", record.PrecipitationMm) })
            {
                text.Append(CultureInfo.InvariantCulture, $"BENCH000001{month.Year:0000}{month.Month:00}{element}");
                for (int d = 1; d <= 31; d++)
                {
                    int i =
                        d <= month.Calendar.GetDaysInMonth(month.Year, month.Month) ? record.IndexOf(new LocalDate(month.Year, month.Month, d)) : -1;
                    text.Append(CultureInfo.InvariantCulture, $"{(i < 0 ? -9999 : (int)Math.Round(values[i] * 10)), 5}   ");
                }
                text.Append('\n');
            }
        }
        return Encoding.UTF8.GetBytes(text.ToString());
    }
}
