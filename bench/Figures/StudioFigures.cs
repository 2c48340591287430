using BenchmarkDotNet.Attributes;
using NetTopologySuite.Geometries;
using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Bench;

/// <summary>The planter studio over the demo: packing, layouts, fullness, a planter's checks after an edit, proposed stacks.</summary>
public class StudioFigures
{
    private readonly Geometry _kidney = new GeometryFactory().CreatePolygon([
        new(0, 0),
        new(60, -12),
        new(95, 8),
        new(80, 45),
        new(52, 30),
        new(20, 48),
        new(-8, 30),
        new(0, 0),
    ]);

    private Plan _plan = null!;
    private SiteFlowering _flowering = null!;
    private SeasonKernel _kernel = null!;
    private WeatherRecord _record = null!;
    private int _edit;

    [GlobalSetup]
    public void SetUp()
    {
        _plan = Shipped.Plan();
        _record = Shipped.Record();
        _flowering = new SiteFlowering(_record, new LocalDate(2026, 9, 1));
        _kernel = new SeasonKernel(_record, new LocalDate(2026, 9, 1));
        ThreeProposedStacks();
        ChecksOfAPlanterAfterAnEdit();
    }

    [Benchmark]
    public int Pack200InACircle() => DiscPacking.InCircle(15.47, 1).Count;

    [Benchmark]
    public int Pack200InARectangle() => DiscPacking.InRectangle(38, 19, 1).Count;

    [Benchmark]
    public int Pack200InAnEllipse() => DiscPacking.InEllipse(44, 22, 1).Count;

    [Benchmark]
    public int Pack200InAKidney() => DiscPacking.InOutline(_kidney, 2, 2.05).Count;

    [Benchmark]
    public int Pack60InACircle() => DiscPacking.InCircle(8.7, 1).Count;

    [Benchmark]
    public int LayOut37InATrough() => Of("ticket-trough-east-summer-2027").Plants.Count;

    /// <summary>Two kinds in a trough for 90 % by a day, with nothing laid out before.</summary>
    [Benchmark]
    public int FullnessOfATrough()
    {
        Display display = Find("ticket-trough-east-summer-2027");
        var question = new FullnessQuestion(_plan.FindPlanter(display.PlanterId)!, [.. display.Items.Select(i => (_plan.Plant(i.PlantId), i.Count))]);
        return question.For(0.9, [.. display.Items.Select(i => _plan.Plant(i.PlantId).MatureSpreadCm * 0.8)]).Total;
    }

    /// <summary>Every display of a planter that stands in the plan year, each count another than the time before.</summary>
    [Benchmark]
    public int ChecksOfAPlanterAfterAnEdit()
    {
        _edit = (_edit + 1) % 5;
        var checks = new DisplayChecks(_plan, _record, _ => _flowering);
        return _plan
            .DisplaysOf("bollard-pot-north")
            .Where(d => d.Lift > _flowering.Start)
            .Sum(d => checks.For(d with { Items = [.. d.Items.Select((i, k) => k == 0 ? i with { Count = i.Count + _edit } : i)] }).Count);
    }

    [Benchmark]
    public int ThreeProposedStacks() =>
        StackProposals
            .For(
                _plan,
                _plan.FindPlanter("bollard-pot-north")!,
                _flowering,
                _kernel,
                new DisplayChecks(_plan, _record, _ => _flowering),
                new StackWish(new LocalDate(2027, 2, 15), new LocalDate(2027, 5, 31), []),
                new LocalDate(2026, 10, 15),
                new LocalDate(2027, 6, 7)
            )
            .Count;

    private Arrangement Of(string display) => Arrangement.Of(_plan, _plan.FindPlanter(Find(display).PlanterId)!, Find(display));

    private Display Find(string id) => _plan.Displays.First(d => d.Id == id);
}
