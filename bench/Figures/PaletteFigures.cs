using BenchmarkDotNet.Attributes;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Bench;

/// <summary>The palette at the sizes that a large crew has: 2,000 plants judged, sheets of 5,000 taken.</summary>
public class PaletteFigures
{
    private readonly Planter _planter = new()
    {
        Id = "pot",
        AreaId = "area",
        Name = "pot",
        Form = PlanterForm.Round(60, 44, 50),
        Exposure = Exposure.FullSun,
        Watering = Watering.Hand,
        ViewedFrom = ViewedFrom.AllRound,
        Wall = WallMaterial.Terracotta,
        WallColour = "#c98a67",
    };

    private IReadOnlyList<Plant> _shipped = [];
    private IReadOnlyList<Plant> _twoThousand = [];
    private byte[] _sheet = [];
    private WeatherRecord _record = null!;
    private SiteFlowering _site = null!;
    private string? _connection;

    [GlobalSetup]
    public void SetUp()
    {
        _shipped = Shipped.Palette();
        _twoThousand = Many(2000);
        _sheet = PaletteSheet.Write(Many(5000));
        _record = Shipped.Generated(30);
        _site = new SiteFlowering(_record, new LocalDate(2026, 9, 1));
        FitTwoThousandWarm();
        _connection = Environment.GetEnvironmentVariable("MEADOW_DB");
    }

    [Benchmark]
    public int FitTwoThousandWarm() => Question().Ask(_twoThousand).Count;

    [Benchmark]
    public int StripsOfThePaletteCold()
    {
        var fresh = new SiteFlowering(_record, new LocalDate(2026, 9, 1));
        return _shipped.Sum(p => fresh.Usual(p).DaysInColour);
    }

    [Benchmark]
    public int SheetOfFiveThousandRead()
    {
        using var stream = new MemoryStream(_sheet);
        return PaletteSheet.Read(stream, []).Count;
    }

    [Benchmark]
    public async Task<int> SheetOfFiveThousandReadAndStored()
    {
        using var stream = new MemoryStream(_sheet);
        IReadOnlyList<PlantChange> changes = PaletteSheet.Read(stream, []);
        if (_connection is null)
            return 0;
        await using var database = new MeadowDatabase(_connection);
        var plans = new PlanStore(database.At((await database.FirstSite())!.Id), PlanFile.Options);
        await new PaletteStore(plans).Put([.. changes.Select(c => c.Plant)], (await plans.Now()).Versions);
        return changes.Count;
    }

    private FitQuestion Question() =>
        new(_site, Site.Default, _planter, new Area("area", "Area", 1), new LocalDate(2027, 2, 15), new LocalDate(2027, 2, 21));

    private List<Plant> Many(int count) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => _shipped[i % _shipped.Count] with { Id = $"plant-{i}", CommonName = $"{_shipped[i % _shipped.Count].CommonName} {i}" }),
        ];
}
