using BenchmarkDotNet.Attributes;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Bench;

/// <summary>Closing the bare spells of a hundred bare planters: the demo's five, twenty times over, with its 28 weather years.</summary>
public class GapFigures
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly GapQuestion Question = new(new LocalDate(2026, 11, 25)) { Budget = 3000 };
    private Plan _plan = null!;
    private WeatherRecord _record = null!;
    private SeasonKernel _kernel = null!;
    private SiteFlowering _flowering = null!;

    /// <summary>Reads the demo and multiplies its bare planters.</summary>
    [GlobalSetup]
    public void SetUp()
    {
        Plan demo = Shipped.Plan();
        _record = Shipped.Record();
        string[] bare = ["kiosk-basket", "seat-trough-right", "shade-trough", "south-bed", "wall-pot-west"];
        List<Planter> planters =
        [
            .. Enumerable.Range(0, 100).Select(i => demo.FindPlanter(bare[i % 5])! with { Id = $"p{i}", Name = $"Planter {i}" }),
        ];
        _plan = new Plan(
            demo.Site,
            demo.Areas,
            planters,
            demo.Palette,
            [
                .. Enumerable
                    .Range(0, 100)
                    .SelectMany(i => demo.DisplaysOf(bare[i % 5]).Select(d => d with { Id = $"{d.Id}-{i}", PlanterId = $"p{i}" })),
            ],
            demo.Turns,
            lots: [.. demo.Lots.Select(l => l with { FromPlanterId = null })]
        );
        _kernel = new SeasonKernel(_record, Start);
        _flowering = new SiteFlowering(_record, Start);
        var watch = System.Diagnostics.Stopwatch.StartNew();
        var first = new First(watch);
        GapAnswer answer = GapClosing.Close(_plan, _kernel, _flowering, Question, sofar: first);
        Console.WriteLine(
            (
                $"  100 planters, {answer.BareDays} planter-days bare, {answer.Considered} changes weighed: {answer.Days} closed, bound "
                + $"{answer.MostDays}, {answer.Gap:P1} below it; cold {watch.Elapsed.TotalSeconds:0.0} s, first answer after {first.Seconds:0.0} s"
            )
        );
    }

    /// <summary>Asked again with everything followed before.</summary>
    [Benchmark]
    public int HundredPlantersWarm() => GapClosing.Close(_plan, _kernel, _flowering, Question).Days;

    private sealed class First(System.Diagnostics.Stopwatch watch) : IProgress<(int Planters, GapAnswer? Answer)>
    {
        public double Seconds { get; private set; }

        public void Report((int Planters, GapAnswer? Answer) value)
        {
            if (value.Answer is not null && Seconds == 0)
                Seconds = watch.Elapsed.TotalSeconds;
        }
    }
}
